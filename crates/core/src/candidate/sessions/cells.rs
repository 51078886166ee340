//! Cells of a session's tables.

use crate::document::{Side, of_value};
use crate::quantity::OfDimension;
use serde_json::Value;

/// The quantity of a column, SI.
pub(super) fn si<Q: OfDimension>(row: &[Value], column: usize) -> Option<f64> {
    of_value::<Q>(row.get(column)?).map(|own| own.to_si())
}

/// The word of a column.
pub(super) fn word(row: &[Value], column: usize) -> Option<&str> {
    row.get(column)?.as_str()
}

/// The number of what the row is of, in its first column.
pub(super) fn number(row: &[Value]) -> Option<usize> {
    Some(row.first()?.as_u64()? as usize)
}

/// Cylinder and side of a valve's row.
pub(super) fn whose(row: &[Value]) -> Option<(usize, Side)> {
    Some((number(row)?, Side::of_key(word(row, 1)?)?))
}
