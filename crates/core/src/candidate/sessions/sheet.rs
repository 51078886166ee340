//! A session on paper: everything it asks for, what was read of it, and room for the rest.

use super::asked::{Row, rows};
use super::next::is_of;
use super::session::{Bench, Session};
use super::told::title;
use crate::document::{SESSION, text_of};
use crate::report::{SessionSheet, SheetRow, SheetTable};
use serde_json::Value;

/// Every table that is asked for or was read, row by row; a cell that was not read is empty.
pub(super) fn sheet(bench: &Bench<'_>, session: &Session<'_>) -> SessionSheet {
    let asked = rows(bench, session);
    let mut keys: Vec<&str> = asked.iter().map(|row| row.table).collect();
    let tables = SESSION.fields.iter().filter(|field| field.kind.columns().is_some());
    keys.extend(tables.map(|field| field.key).filter(|key| !session.node.cells(key).is_empty()));
    let mut seen: Vec<&str> = Vec::new();
    keys.retain(|key| {
        let is_new = !seen.contains(key);
        seen.push(key);
        is_new
    });
    let table = |key: &&str| table(session, key, asked.iter().filter(|row| row.table == *key).collect());
    SessionSheet {
        id: session.node.text("id"),
        title: title(session.kind).to_owned(),
        date: session.node.text("date"),
        by: session.node.text("by"),
        note: session.node.text("note"),
        tools: tools(&asked),
        tables: keys.iter().filter_map(table).collect(),
    }
}

/// Every tool once, in the order it is taken up.
fn tools(asked: &[Row]) -> Vec<String> {
    let mut all: Vec<String> = Vec::new();
    for words in asked.iter().map(|row| row.gauge.words()) {
        if !all.iter().any(|own| own == words) {
            all.push(words.to_owned());
        }
    }
    all
}

fn table(session: &Session<'_>, key: &str, asked: Vec<&Row>) -> Option<SheetTable> {
    let field = SESSION.field(key)?;
    let columns = field.kind.columns()?.iter().map(|(title, _)| (*title).to_owned()).collect();
    let mut left: Vec<&[Value]> = session.node.cells(key);
    let mut rows: Vec<SheetRow> = Vec::new();
    for row in asked {
        let read = left.iter().position(|read| is_of(&row.cells, read)).map(|place| left.remove(place));
        let given = || row.cells.iter().map(|cell| cell.given.clone().unwrap_or_default()).collect();
        rows.push(SheetRow { says: row.says.clone(), cells: read.map_or_else(given, texts) });
    }
    rows.extend(left.into_iter().map(|read| SheetRow { says: "again".to_owned(), cells: texts(read) }));
    Some(SheetTable { title: field.label.to_owned(), columns, rows })
}

fn texts(read: &[Value]) -> Vec<String> {
    read.iter().map(text_of).collect()
}
