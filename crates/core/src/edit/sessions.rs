//! Edits of sessions at the bench: begun, read row by row, taken back, taken out.

use super::entries;
use crate::document::{Fault, Kind, SESSION, value_of};
use crate::quantity::UnitSystem;
use serde_json::{Value, json};

/// Where sessions stand, and what one is called.
const BENCH: (&str, &str) = ("bench", "session");

/// A session without readings at the end of the list.
pub fn begin(document: &mut Value, id: &str, fields: &[(&str, &str)]) -> Result<(), Fault> {
    entries::begin(document, BENCH, id, fields)
}

/// One reading more in a table of the session `id`; a bare number gets its column's unit.
pub fn take(
    document: &mut Value,
    (id, table): (&str, &str),
    cells: &[String],
    system: UnitSystem,
) -> Result<(), Fault> {
    let columns = columns(table)?;
    if cells.len() != columns.len() {
        return Err(Fault::new(table, &cells.join(", "), format!("{} values", columns.len())));
    }
    let cell = |((title, kind), text): (&(&str, Kind), &String)| {
        let refuse = || Fault::of_kind(format!("{table}: {}", title.to_lowercase()), text, kind);
        value_of(kind, text.trim(), table, system)?.ok_or_else(refuse)
    };
    let row = columns.iter().zip(cells).map(cell).collect::<Result<Vec<Value>, Fault>>()?;
    let rows = entries::own(document, BENCH, id)?.entry(table).or_insert_with(|| json!([]));
    rows.as_array_mut().ok_or_else(|| Fault::new(table, "no list", "a list of rows"))?.push(Value::Array(row));
    Ok(())
}

/// The last reading of a table taken back, while it has the rows it is said to have; a table without any left leaves no trace.
pub fn take_back(document: &mut Value, (id, table): (&str, &str), of: Option<usize>) -> Result<(), Fault> {
    let session = entries::own(document, BENCH, id)?;
    let rows = session.get_mut(table).and_then(Value::as_array_mut);
    let there = rows.as_ref().map_or(0, |rows| rows.len());
    if of.is_some_and(|of| of != there) {
        return Err(Fault::new(table, &format!("{there} readings"), "no reading that came in between: look again"));
    }
    rows.and_then(Vec::pop).ok_or_else(|| Fault::new(table, "nothing", "a reading to take back"))?;
    if session.get(table).and_then(Value::as_array).is_some_and(Vec::is_empty) {
        session.shift_remove(table);
    }
    Ok(())
}

/// What a session would say of a field, left as it is: in the place of what it said of it before.
pub fn leave(document: &mut Value, id: &str, (label, to): (&str, &str)) -> Result<(), Fault> {
    let rows = entries::own(document, BENCH, id)?.entry("left").or_insert_with(|| json!([]));
    let rows = rows.as_array_mut().ok_or_else(|| Fault::new("left", "no list", "a list of rows"))?;
    rows.retain(|row| row[0].as_str() != Some(label));
    rows.push(json!([label, to]));
    Ok(())
}

/// A session taken out with its readings.
pub fn remove(document: &mut Value, id: &str) -> Result<(), Fault> {
    entries::remove(document, BENCH, id)
}

/// What stands in each column of a table.
fn columns(table: &str) -> Result<&'static [(&'static str, Kind)], Fault> {
    let unknown = || Fault::new("table", table, "a table of readings");
    SESSION.field(table).and_then(|field| field.kind.columns()).ok_or_else(unknown)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn readings_are_taken_one_by_one_and_taken_back() {
        let mut document = json!({});
        begin(&mut document, "s", &[("kind", "degree_in"), ("by", "")]).unwrap();
        assert!(begin(&mut document, "s", &[]).is_err());
        let row = |cells: [&str; 3]| cells.map(str::to_owned);
        let mut read = |cells: [&str; 3]| take(&mut document, ("s", "readings"), &row(cells), UnitSystem::Inch);
        read([".050", "opening", "2"]).unwrap();
        read(["1 mm", "closing", "212.5 deg"]).unwrap();
        let refused = read([".050", "opening", "2 lbf"]).unwrap_err();
        assert_eq!(refused.given, "2 lbf");
        assert_eq!(
            document["bench"][0]["readings"],
            json!([["0.050 in", "opening", "2 deg"], ["1 mm", "closing", "212.5 deg"]])
        );
        assert!(take_back(&mut document, ("s", "readings"), Some(1)).unwrap_err().needs.contains("in between"));
        take_back(&mut document, ("s", "readings"), Some(2)).unwrap();
        take_back(&mut document, ("s", "readings"), None).unwrap();
        assert_eq!(document["bench"][0], json!({ "id": "s", "kind": "degree_in" }));
        assert!(take_back(&mut document, ("s", "readings"), None).is_err());
        assert!(take(&mut document, ("s", "note"), &[], UnitSystem::Inch).is_err());
        leave(&mut document, "s", ("Deck clearance", ".011 in")).unwrap();
        leave(&mut document, "s", ("Deck clearance", ".012 in")).unwrap();
        assert_eq!(document["bench"][0]["left"], json!([["Deck clearance", ".012 in"]]));
        remove(&mut document, "s").unwrap();
        assert_eq!(document, json!({}));
        assert!(remove(&mut document, "s").is_err());
    }
}
