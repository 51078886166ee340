//! How readings of one size repeat, over everything that was read again in a session.

use super::asked::rows;
use super::next::is_of;
use super::session::{Bench, Session};
use crate::bench::{Repeated, pooled, repeated};
use crate::document::{Kind, SESSION};
use crate::quantity::{Dimension, parse};
use crate::report::NextCell;
use serde_json::Value;

/// Half width that holds 95 of 100 readings of one size, SI, pooled over all that were read again [JCGM 100, 4.2.4]; `None` while
/// nothing was.
pub(super) fn repeats(bench: &Bench<'_>, session: &Session<'_>) -> Option<(f64, Dimension)> {
    let asked = rows(bench, session);
    let mut seen: Vec<(&str, &[NextCell])> = Vec::new();
    let mut sizes: Vec<Repeated> = Vec::new();
    let mut dimension = None;
    for row in &asked {
        let own = (row.table, row.cells.as_slice());
        if seen.contains(&own) {
            continue;
        }
        seen.push(own);
        let all = session.node.cells(row.table);
        for column in (0..row.cells.len()).filter(|column| row.cells[*column].given.is_none()) {
            let Some(of) = dimension_of(row.table, column) else { continue };
            let read = |read: &&[Value]| parse(read.get(column)?.as_str()?, of).ok();
            let values: Vec<f64> = all.iter().filter(|read| is_of(&row.cells, read)).filter_map(read).collect();
            dimension = dimension.or(Some(of));
            sizes.extend(repeated(&values).filter(|_| dimension == Some(of)));
        }
    }
    Some((1.96 * pooled(&sizes)?, dimension?))
}

/// What stands in a column of a table.
fn dimension_of(table: &str, column: usize) -> Option<Dimension> {
    match &SESSION.field(table)?.kind {
        Kind::List { of: Kind::Row(columns), .. } => columns.get(column)?.1.dimension(),
        _ => None,
    }
}
