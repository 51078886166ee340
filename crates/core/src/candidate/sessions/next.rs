//! What a session reads next: one reading at a time, with where the tool sits.

use super::asked::Row;
use super::session::Session;
use crate::report::{NextCell, NextReading};
use serde_json::Value;

/// Where a session stands: what to read next, `None` where it has what it asks for, and what was read last.
pub(super) fn standing(rows: &[Row], session: &Session<'_>) -> [Option<NextReading>; 2] {
    let next = rows.iter().position(|row| !is_read(rows, row, session));
    let has_any = |row: &Row| !session.node.cells(row.table).is_empty();
    let last = rows[..next.unwrap_or(rows.len())].iter().rposition(has_any).or_else(|| rows.iter().position(has_any));
    [next, last].map(|place| Some(reading(rows, place?, session)))
}

/// All that is still to be read, in its order.
pub(super) fn ahead(rows: &[Row], session: &Session<'_>) -> Vec<NextReading> {
    let is_left = |place: &usize| !is_read(rows, &rows[*place], session);
    (0..rows.len()).filter(is_left).map(|place| reading(rows, place, session)).collect()
}

fn is_read(rows: &[Row], row: &Row, session: &Session<'_>) -> bool {
    let own = session.node.cells(row.table);
    own.iter().filter(|read| is_of(&row.cells, read)).count() >= repeats(rows, row)
}

fn reading(rows: &[Row], place: usize, session: &Session<'_>) -> NextReading {
    let row = &rows[place];
    NextReading {
        table: row.table.to_owned(),
        cells: row.cells.clone(),
        says: row.says.clone(),
        gauge: row.gauge,
        tool: row.gauge.words().to_owned(),
        place: place + 1,
        of: rows.len(),
        read: session.node.cells(row.table).len(),
    }
}

/// Whether a row that was read is of what is asked for.
pub(super) fn is_of(asked: &[NextCell], read: &[Value]) -> bool {
    asked.iter().zip(read).all(|(cell, value)| is_same(cell, value))
}

/// How often the same row is asked for up to this one.
fn repeats(rows: &[Row], row: &Row) -> usize {
    let upto = rows.iter().position(|own| std::ptr::eq(own, row)).unwrap_or(0);
    rows[..=upto].iter().filter(|own| own.table == row.table && own.cells == row.cells).count()
}

/// Whether a cell that stands already is what was read.
fn is_same(cell: &NextCell, value: &Value) -> bool {
    let Some(given) = &cell.given else { return true };
    match value {
        Value::String(text) => text == given,
        number => number.as_u64().is_some_and(|number| given.parse() == Ok(number)),
    }
}
