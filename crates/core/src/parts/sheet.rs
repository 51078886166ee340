//! Parts as a sheet: CSV with one line for a part, one column for a field, any kinds together.
//!
//! The heading names the fields as the build document does, nested ones by dots (`intake.lobe_lift`), a unit for bare
//! numbers in brackets behind it. A table stands in one cell: rows parted by `;`, what stands in a row by `|`.

use super::kind::PartKind;
use super::part::Part;
use crate::document::{Fault, Faults, Field, Kind, get, table_of, text_of, value_of};
use crate::quantity::UnitSystem;
use csv::{ReaderBuilder, StringRecord, Trim};
use serde_json::{Map, Value};
use std::collections::HashSet;

/// Most parts of a sheet, and most bytes.
const MOST_PARTS: usize = 5000;
const MOST_BYTES: usize = 4 * 1024 * 1024;
/// Most faults told at once.
const MOST_FAULTS: usize = 100;

/// Columns that every part has.
const COMMON: [&str; 6] = ["part_kind", "name", "price", "lead_time", "copy_of", "notes"];

/// The parts of a sheet; bare numbers without a unit in the heading take those of `system`.
///
/// # Errors
/// Every fault of every line, each with its line and column; nothing is half read.
pub fn read_sheet(text: &str, system: UnitSystem) -> Result<Vec<Part>, Faults> {
    if text.len() > MOST_BYTES {
        return Err(Fault::new("file", &format!("{} bytes", text.len()), format!("at most {MOST_BYTES} bytes")).into());
    }
    let text = text.trim_start_matches('\u{feff}');
    let mark = mark_of(text);
    let mut reader = ReaderBuilder::new().delimiter(mark).flexible(true).trim(Trim::All).from_reader(text.as_bytes());
    let unreadable = |error: csv::Error| Fault::new("file", &error.to_string(), "a CSV file in UTF-8");
    let heading = Heading::read(reader.headers().map_err(unreadable)?)?;
    let (mut parts, mut faults, mut names) = (Vec::new(), Vec::new(), HashSet::new());
    for (place, record) in reader.records().enumerate() {
        let record = record.map_err(unreadable)?;
        if record.iter().all(str::is_empty) {
            continue;
        }
        let line = Line { number: record.position().map_or(place as u64 + 2, csv::Position::line), record, mark };
        match line.part(&heading, system) {
            Ok(part) if !names.insert((part.kind, part.name.clone())) => {
                let fault = Fault::new(line.place("name"), &part.name, "a name no other line of its kind has");
                faults.push(fault);
            }
            Ok(part) => parts.push(part),
            Err(found) => faults.extend(found.faults),
        }
        if faults.len() > MOST_FAULTS || parts.len() > MOST_PARTS {
            break;
        }
    }
    faults.truncate(MOST_FAULTS);
    if parts.len() > MOST_PARTS {
        faults.push(Fault::new("file", "more", format!("at most {MOST_PARTS} parts")));
    }
    if parts.is_empty() && faults.is_empty() {
        faults.push(Fault::new("file", "no parts", "a heading and one line for each part"));
    }
    if faults.is_empty() { Ok(parts) } else { Err(Faults { faults }) }
}

/// The sheet of `parts`: columns of what any of them has, in the order of kinds and tables.
pub fn write_sheet(parts: &[Part]) -> String {
    let values: Vec<Value> = parts.iter().map(|part| Value::Object(part.fields.clone())).collect();
    let mut columns: Vec<String> = Vec::new();
    for kind in PartKind::ALL {
        for (path, _) in kind.leaves() {
            let used = parts.iter().zip(&values).any(|(part, value)| part.kind == kind && get(value, &path).is_some());
            if used && !columns.contains(&path) {
                columns.push(path);
            }
        }
    }
    let mut writer = csv::Writer::from_writer(Vec::new());
    let heading = COMMON.iter().copied().chain(columns.iter().map(String::as_str));
    // Writing into memory cannot fail.
    let _ = writer.write_record(heading);
    for (part, value) in parts.iter().zip(&values) {
        let text = |text: &Option<String>| text.clone().unwrap_or_default();
        let mut row = vec![part.kind.word().to_owned(), part.name.clone()];
        row.extend([&part.price, &part.lead_time, &part.copy_of, &part.notes].map(text));
        let leaves = part.kind.leaves();
        row.extend(columns.iter().map(|path| {
            let field = leaves.iter().find(|(own, _)| own == path).map(|(_, field)| field);
            field.and_then(|field| Some(cell_of(&field.kind, get(value, path)?))).unwrap_or_default()
        }));
        let _ = writer.write_record(row);
    }
    writer.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default()
}

/// What parts columns: the mark of comma, semicolon and tab that the heading has most of.
fn mark_of(text: &str) -> u8 {
    let heading = text.lines().next().unwrap_or_default();
    let count = |mark: &u8| heading.bytes().filter(|byte| byte == mark).count();
    [b',', b';', b'\t'].into_iter().max_by_key(|mark| (count(mark), *mark == b',')).unwrap_or(b',')
}

/// A table in one cell, or the text itself.
fn cell_of(kind: &Kind, value: &Value) -> String {
    let rows: Vec<Vec<String>> = match (kind, value) {
        // A row of an object has a place for each of its fields, empty where one is not given.
        (Kind::List { of: Kind::Object(object), .. }, Value::Array(items)) => {
            let cell = |item: &Value, field: &Field| item.get(field.key).map(text_of).unwrap_or_default();
            items.iter().map(|item| object.fields.iter().map(|field| cell(item, field)).collect()).collect()
        }
        (_, Value::Array(items)) => items.iter().map(|item| row_of(item).iter().map(text_of).collect()).collect(),
        // Parallel lists stand row by row.
        (_, Value::Object(map)) => {
            let lists: Vec<&Vec<Value>> = map.values().filter_map(Value::as_array).collect();
            let length = lists.iter().map(|list| list.len()).max().unwrap_or(0);
            (0..length).map(|at| lists.iter().filter_map(|list| list.get(at)).map(text_of).collect()).collect()
        }
        _ => return text_of(value),
    };
    rows.iter().map(|row| row.join(" | ")).collect::<Vec<_>>().join("; ")
}

/// The members of a row; a single one is a row of itself.
fn row_of(item: &Value) -> &[Value] {
    item.as_array().map_or(std::slice::from_ref(item), Vec::as_slice)
}

/// The heading: a name for each column, and the unit its bare numbers are in.
struct Heading(Vec<(String, String)>);

impl Heading {
    fn read(record: &StringRecord) -> Result<Self, Faults> {
        let split = |cell: &str| {
            let (name, unit) = cell.split_once('(').unwrap_or((cell, ""));
            (name.trim().to_lowercase(), unit.trim_end_matches(')').trim().to_owned())
        };
        let columns: Vec<(String, String)> = record.iter().map(split).collect();
        let mut faults = Vec::new();
        for needed in ["part_kind", "name"] {
            if !columns.iter().any(|(name, _)| name == needed) {
                let given = columns.iter().map(|(name, _)| name.as_str()).collect::<Vec<_>>().join(", ");
                faults.push(Fault::new("heading", &given, format!("a column {needed}")));
            }
        }
        let fields: HashSet<String> =
            PartKind::ALL.into_iter().flat_map(PartKind::leaves).map(|(path, _)| path).collect();
        let mut seen = HashSet::new();
        for (name, _) in columns.iter().filter(|(name, _)| !name.is_empty()) {
            if !COMMON.contains(&name.as_str()) && !fields.contains(name) {
                faults.push(Fault::new("heading", name, "a field of the build document").cure("remove the column"));
            } else if !seen.insert(name) {
                faults.push(Fault::new("heading", name, "each column once"));
            }
        }
        if faults.is_empty() { Ok(Self(columns)) } else { Err(Faults { faults }) }
    }
}

/// One line of a sheet.
struct Line {
    number: u64,
    record: StringRecord,
    mark: u8,
}

impl Line {
    /// How a fault names a cell.
    fn place(&self, column: &str) -> String {
        format!("line {}, {column}", self.number)
    }

    /// The same fault, called by its line and column.
    fn placed(&self, column: &str, fault: Fault) -> Fault {
        let place = self.place(column);
        Fault { label: place.as_str().into(), field: place, ..fault }
    }

    fn text(&self, heading: &Heading, column: &str) -> Option<String> {
        let at = heading.0.iter().position(|(name, _)| name == column)?;
        self.record.get(at).filter(|text| !text.is_empty()).map(str::to_owned)
    }

    fn part(&self, heading: &Heading, system: UnitSystem) -> Result<Part, Faults> {
        let text = |column: &str| self.text(heading, column);
        let word = text("part_kind").unwrap_or_default().to_lowercase();
        let kind = PartKind::from_word(&word).ok_or_else(|| {
            let words: Vec<_> = PartKind::ALL.iter().map(|kind| kind.word()).collect();
            Fault::new(self.place("part_kind"), &word, format!("one of {}", words.join(", ")))
        })?;
        let mut part = Part {
            kind,
            name: text("name").unwrap_or_default(),
            price: text("price"),
            lead_time: text("lead_time"),
            copy_of: text("copy_of"),
            notes: text("notes"),
            fields: Map::new(),
        };
        let (leaves, mut faults) = (kind.leaves(), Vec::new());
        for ((name, unit), cell) in heading.0.iter().zip(&self.record) {
            if cell.is_empty() || name.is_empty() || COMMON.contains(&name.as_str()) {
                continue;
            }
            let Some((path, field)) = leaves.iter().find(|(path, _)| path == name) else {
                let needs = format!("nothing: a {} has no such field", kind.word());
                faults.push(Fault::new(self.place(name), cell, needs));
                continue;
            };
            match self.value(field, cell, unit, system) {
                Ok(Some(value)) => insert(&mut part.fields, path, value),
                Ok(None) => {}
                Err(fault) => faults.push(self.placed(name, fault)),
            }
        }
        if !faults.is_empty() {
            return Err(Faults { faults });
        }
        part.checked().map_err(|found| {
            let placed = |fault: Fault| self.placed(&fault.field.clone(), fault);
            Faults { faults: found.faults.into_iter().map(placed).collect() }
        })
    }

    /// The JSON of a cell.
    fn value(&self, field: &Field, cell: &str, unit: &str, system: UnitSystem) -> Result<Option<Value>, Fault> {
        let own = |text: &str| {
            // A decimal comma, where the comma is not what parts columns.
            let comma = self.mark != b',' && text.matches(',').count() == 1 && !text.contains('.');
            let text =
                if comma && !matches!(field.kind, Kind::Choice(_)) { text.replace(',', ".") } else { text.into() };
            if !unit.is_empty() && text.parse::<f64>().is_ok() { format!("{text} {unit}") } else { text }
        };
        match &field.kind {
            Kind::List { .. } | Kind::Object(_) => {
                let row = |row: &str| row.split('|').map(|text| own(text.trim())).collect::<Vec<String>>();
                let rows: Vec<Vec<String>> = cell.split(';').map(row).collect();
                let unknown = || Fault::new(field.key, cell, "a table");
                table_of(&field.kind, &rows, field.key, system)?.ok_or_else(unknown)
            }
            kind => value_of(kind, &own(cell), field.key, system),
        }
    }
}

/// Puts a value under a dotted name.
fn insert(map: &mut Map<String, Value>, path: &str, value: Value) {
    match path.split_once('.') {
        None => {
            map.insert(path.to_owned(), value);
        }
        Some((first, rest)) => {
            if let Value::Object(inner) = map.entry(first).or_insert_with(|| Value::Object(Map::new())) {
                insert(inner, rest, value);
            }
        }
    }
}
