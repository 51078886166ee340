//! How readings of one size repeat, over everything that was read again in a session.

use super::asked::Row;
use super::next::is_of;
use super::session::Session;
use crate::bench::{Repeated, pooled, repeated};
use crate::document::SESSION;
use crate::quantity::{Dimension, parse};
use crate::report::NextCell;
use serde_json::Value;

/// Half width that holds 95 of 100 readings of one size, SI, pooled over all that were read again [JCGM 100, 4.2.4]; `None` while
/// nothing was.
pub(super) fn repeats(asked: &[Row], session: &Session<'_>) -> Option<(f64, Dimension)> {
    let mut seen: Vec<(&str, &[NextCell])> = Vec::new();
    let mut sizes: Vec<Repeated> = Vec::new();
    let mut dimension = None;
    for row in asked {
        let own = (row.table, row.cells.as_slice());
        if seen.contains(&own) {
            continue;
        }
        seen.push(own);
        let all = session.node.cells(row.table);
        for column in (0..row.cells.len()).filter(|column| row.cells[*column].given.is_none()) {
            let columns = SESSION.field(row.table).and_then(|field| field.kind.columns());
            let Some(of) = columns.and_then(|columns| columns.get(column)?.1.dimension()) else { continue };
            let read = |read: &&[Value]| parse(read.get(column)?.as_str()?, of).ok();
            let values: Vec<f64> = all.iter().filter(|read| is_of(&row.cells, read)).filter_map(read).collect();
            dimension = dimension.or(Some(of));
            sizes.extend(repeated(&values).filter(|_| dimension == Some(of)));
        }
    }
    Some((1.96 * pooled(&sizes)?, dimension?))
}
