//! Tables of the document as people type and paste them: rows of texts in, checked JSON out.
//!
//! What is pasted comes from spreadsheets and text files: tabs, semicolons, commas or blanks between
//! columns, decimal commas, a heading that may name the units.

use super::edit::{put, value_of};
use super::fault::Fault;
use super::field::{Kind, Object};
use super::path::steps;
use super::rows::kind_of;
use crate::quantity::UnitSystem;
use serde_json::{Map, Value};

/// Most lines that are taken from a paste.
const MOST_LINES: usize = 2000;

/// Puts a whole table into the field at `path`; rows without any text are left out, no rows remove it.
pub fn set_rows(document: &mut Value, path: &str, rows: &[Vec<String>], system: UnitSystem) -> Result<(), Fault> {
    let unknown = || Fault::new(path, "a table", "a table of the build document");
    let steps = steps(path).ok_or_else(unknown)?;
    let kind = kind_of(path).ok_or_else(unknown)?;
    let value = table_of(kind, rows, path, system)?.ok_or_else(unknown)?;
    put(document, &steps, value).ok_or_else(unknown)
}

/// The JSON of a table of `kind`: `None` inside for no rows; `None` when a field of this kind is no table.
pub(crate) fn table_of(
    kind: &Kind,
    rows: &[Vec<String>],
    path: &str,
    system: UnitSystem,
) -> Result<Option<Option<Value>>, Fault> {
    let filled: Vec<&Vec<String>> = rows.iter().filter(|row| row.iter().any(|cell| !cell.trim().is_empty())).collect();
    match kind {
        Kind::List { of, .. } => {
            let items: Result<Vec<Value>, Fault> =
                filled.iter().enumerate().map(|(i, row)| item(of, row, &format!("{path}[{i}]"), system)).collect();
            let items = items?;
            Ok(Some((!items.is_empty()).then_some(Value::Array(items))))
        }
        Kind::Object(object) if columns_of(object).is_some() => {
            if filled.is_empty() {
                return Ok(Some(None));
            }
            Ok(Some(Some(parallel(object, &filled, path, system)?)))
        }
        _ => Ok(None),
    }
}

/// The same from a pasted text.
pub fn paste(document: &mut Value, path: &str, text: &str, system: UnitSystem) -> Result<(), Fault> {
    let rows = cells(text);
    if rows.is_empty() {
        return Err(Fault::new(path, text, "rows of numbers, one line each").cure("copy the columns without pictures"));
    }
    if rows.len() > MOST_LINES {
        return Err(Fault::new(path, &format!("{} lines", rows.len()), format!("at most {MOST_LINES} lines")));
    }
    set_rows(document, path, &rows, system)
}

/// Keys of an object that holds parallel lists, such as a measured profile.
pub(crate) fn columns_of(object: &Object) -> Option<Vec<&'static str>> {
    let lists = object.fields.iter().all(|f| matches!(f.kind, Kind::List { .. }));
    (lists && object.fields.len() > 1).then(|| object.fields.iter().map(|f| f.key).collect())
}

fn item(of: &Kind, row: &[String], path: &str, system: UnitSystem) -> Result<Value, Fault> {
    let cell = |place: usize| row.get(place).map_or("", |text| text.trim());
    let needed = |kind: &Kind, text: &str, at: &str| {
        value_of(kind, text, at, system)?.ok_or_else(|| Fault::new(at, "nothing", kind.needs()))
    };
    match of {
        Kind::Row(kinds) => {
            let cells = kinds.iter().enumerate().map(|(i, (_, kind))| needed(kind, cell(i), &format!("{path}[{i}]")));
            Ok(Value::Array(cells.collect::<Result<_, _>>()?))
        }
        Kind::Object(object) => {
            let mut map = Map::new();
            for (i, field) in object.fields.iter().enumerate() {
                if let Some(value) = value_of(&field.kind, cell(i), &format!("{path}.{}", field.key), system)? {
                    map.insert(field.key.to_owned(), value);
                }
            }
            Ok(Value::Object(map))
        }
        // A list in a row: its members stand in one text, or in the columns of a paste.
        Kind::List { of, .. } => {
            let members = row.iter().flat_map(|text| text.split([' ', ',', ';', '-'])).filter(|m| !m.is_empty());
            let members = members.enumerate().map(|(i, m)| needed(of, m, &format!("{path}[{i}]")));
            Ok(Value::Array(members.collect::<Result<_, _>>()?))
        }
        scalar => needed(scalar, cell(0), path),
    }
}

/// An object of parallel lists from rows.
fn parallel(object: &Object, rows: &[&Vec<String>], path: &str, system: UnitSystem) -> Result<Value, Fault> {
    let mut map = Map::new();
    for (column, field) in object.fields.iter().enumerate() {
        let Kind::List { of, .. } = &field.kind else { continue };
        let values = rows.iter().enumerate().map(|(i, row)| {
            let at = format!("{path}.{}[{i}]", field.key);
            let text = row.get(column).map_or("", |t| t.trim());
            value_of(of, text, &at, system)?.ok_or_else(|| Fault::new(at, "nothing", of.needs()))
        });
        map.insert(field.key.to_owned(), Value::Array(values.collect::<Result<_, _>>()?));
    }
    Ok(Value::Object(map))
}

/// Cells of a pasted text. A first line without any number is a heading; a unit it names in brackets
/// goes with every bare number of its column.
pub fn cells(text: &str) -> Vec<Vec<String>> {
    let lines: Vec<&str> = text.lines().map(str::trim).filter(|line| !line.is_empty()).collect();
    let mark = separator(&lines);
    let mut rows: Vec<Vec<String>> = lines.iter().map(|line| split(line, mark)).collect();
    let heading = rows.first().is_some_and(|row| !row.iter().any(|cell| starts_with_number(cell)));
    if heading {
        let units: Vec<String> = rows.remove(0).iter().map(|cell| bracketed(cell)).collect();
        for row in &mut rows {
            for (cell, unit) in row.iter_mut().zip(&units) {
                if !unit.is_empty() && cell.parse::<f64>().is_ok() {
                    *cell = format!("{cell} {unit}");
                }
            }
        }
    }
    rows
}

/// What stands between columns: a tab or a semicolon when there is one; a comma only when numbers
/// have points or the comma parts more than one pair; else blanks.
fn separator(lines: &[&str]) -> Option<char> {
    let any = |mark: char| lines.iter().any(|line| line.contains(mark));
    if any('\t') {
        Some('\t')
    } else if any(';') {
        Some(';')
    } else if any(',') && (any('.') || lines.iter().any(|line| line.contains(", "))) {
        Some(',')
    } else {
        None
    }
}

fn split(line: &str, mark: Option<char>) -> Vec<String> {
    let parts: Vec<&str> = match mark {
        Some(mark) => line.split(mark).collect(),
        None => blanks(line),
    };
    let point = |cell: &str| {
        // A decimal comma becomes a point where the comma is not the separator.
        if mark != Some(',') && cell.matches(',').count() == 1 && !cell.contains('.') {
            cell.replace(',', ".")
        } else {
            cell.to_owned()
        }
    };
    parts.into_iter().map(|cell| plain(point(cell.trim().trim_matches('"')))).collect()
}

/// A number with an exponent, as spreadsheets write small ones, without it.
fn plain(cell: String) -> String {
    match cell.parse::<f64>() {
        Ok(number) if number.abs() < 1e12 && cell.contains(['e', 'E']) => number.to_string(),
        _ => cell,
    }
}

/// Columns parted by blanks; a unit after a number stays with it.
fn blanks(line: &str) -> Vec<&str> {
    let mut starts = Vec::new();
    let mut previous_blank = true;
    for (at, c) in line.char_indices() {
        if previous_blank && !c.is_whitespace() && (starts.is_empty() || starts_with_number(&line[at..])) {
            starts.push(at);
        }
        previous_blank = c.is_whitespace();
    }
    let ends = starts.iter().skip(1).copied().chain(std::iter::once(line.len()));
    starts.iter().zip(ends).map(|(from, to)| line[*from..to].trim()).collect()
}

fn starts_with_number(text: &str) -> bool {
    let digits = text.trim_start_matches(['-', '+', '.', ',', '\u{2212}']);
    digits.starts_with(|c: char| c.is_ascii_digit())
}

fn bracketed(heading: &str) -> String {
    let inside = |open: char, close: char| heading.split_once(open)?.1.split_once(close).map(|(unit, _)| unit.trim());
    inside('(', ')').or_else(|| inside('[', ']')).unwrap_or_default().to_owned()
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn pasted(text: &str) -> Value {
        let mut document = json!({});
        paste(&mut document, "engine.intake.flow", text, UnitSystem::Inch).unwrap();
        document["engine"]["intake"]["flow"].clone()
    }

    #[test]
    fn columns_come_as_spreadsheets_copy_them() {
        let wanted = json!([["0.100 in", "66 cfm"], ["0.200 in", "134 cfm"]]);
        for text in [
            "0.100\t66\n0.200\t134\n",
            "Lift\tFlow\n.100\t66\n.200\t134",
            "0.100;66\n0.200;134",
            "0.100, 66\r\n0.200, 134\r\n\r\n",
            "0.100 66\n0.200   134",
            "0,100\t66\n0,200\t134",
            "0.100 in 66 cfm\n0.200 in 134 cfm",
        ] {
            assert_eq!(pasted(text), wanted, "{text:?}");
        }
    }

    #[test]
    fn small_numbers_come_with_exponents() {
        assert_eq!(
            pasted("Lift (mm);Flow (l/s)\n2,5E0;3.1e1\n5;6,3E+01"),
            json!([["2.5 mm", "31 l/s"], ["5 mm", "63 l/s"]])
        );
        assert_eq!(cells("1\t1e-05\n2\t-4E-6"), [["1", "0.00001"], ["2", "-0.000004"]]);
        assert_eq!(cells("1\tinf\n2\t1e400"), [["1", "inf"], ["2", "1e400"]]);
    }

    #[test]
    fn a_heading_may_name_the_units() {
        assert_eq!(pasted("Lift (mm);Flow [l/s]\n2,5;31\n5;63"), json!([["2.5 mm", "31 l/s"], ["5 mm", "63 l/s"]]));
    }

    #[test]
    fn rubbish_is_refused_at_its_cell_and_changes_nothing() {
        let mut document = json!({"engine": {}});
        for text in ["", "hello", "0.1\tx", "0.1 66\n0.2", "\u{0}\u{1}", "<table>"] {
            let fault = paste(&mut document, "engine.intake.flow", text, UnitSystem::Inch).unwrap_err();
            assert!(fault.field.starts_with("engine.intake.flow"), "{text:?}: {fault}");
        }
        assert_eq!(document, json!({"engine": {}}));
        let fault = paste(&mut document, "engine.bore", "4", UnitSystem::Inch).unwrap_err();
        assert_eq!(fault.needs, "a table of the build document");
    }

    #[test]
    fn objects_lists_of_lists_and_parallel_lists_are_tables_too() {
        let mut document = json!({});
        let rows = |texts: &[&[&str]]| -> Vec<Vec<String>> {
            texts.iter().map(|row| row.iter().map(|t| (*t).to_owned()).collect()).collect()
        };
        let mut set =
            |path: &str, table: &[&[&str]]| set_rows(&mut document, path, &rows(table), UnitSystem::Inch).unwrap();
        set("target.boost", &[&["2000", "12", ""], &["", "", ""], &["3000", "1.5 bar", "30 psi"]]);
        set("engine.exhaust.collector.cylinders", &[&["1 3 5 7"], &["2, 4, 6, 8"]]);
        set("engine.firing_order", &[&["1"], &["2"]]);
        set("candidates[0].cam.intake.profile", &[&["0", "0"], &["4", ".001"]]);
        assert_eq!(
            document,
            json!({
                "target": { "boost": [
                    { "at": "2000 rpm", "manifold": "12 psi" },
                    { "at": "3000 rpm", "manifold": "1.5 bar", "drive": "30 psi" }
                ] },
                "engine": { "exhaust": { "collector": { "cylinders": [[1, 3, 5, 7], [2, 4, 6, 8]] } }, "firing_order": [1, 2] },
                "candidates": [{ "cam": { "intake": { "profile": { "cam_deg": [0, 4], "lift": ["0 in", "0.001 in"] } } } }]
            })
        );
        set_rows(&mut document, "target.boost", &[], UnitSystem::Inch).unwrap();
        assert_eq!(document["target"], json!({}));
    }
}
