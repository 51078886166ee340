//! What a session reads next: one reading at a time, with where the tool sits.

use super::asked::{Row, rows};
use super::session::{Bench, Session};
use crate::report::{NextCell, NextReading};
use serde_json::Value;

/// What to read next; `None` where a session has what it asks for.
pub(super) fn next(bench: &Bench<'_>, session: &Session<'_>) -> Option<NextReading> {
    let rows = rows(bench, session);
    let of = rows.len();
    let is_read = |row: &Row| {
        let own = session.node.cells(row.table);
        let fits = |read: &&[Value]| row.cells.iter().zip(*read).all(|(cell, value)| is_same(cell, value));
        own.iter().filter(|read| fits(read)).count() >= repeats(&rows, row)
    };
    let place = rows.iter().position(|row| !is_read(row))?;
    let row = rows.into_iter().nth(place)?;
    Some(NextReading {
        table: row.table.to_owned(),
        cells: row.cells,
        says: row.says,
        gauge: row.gauge,
        tool: row.gauge.words().to_owned(),
        place: place + 1,
        of,
    })
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
