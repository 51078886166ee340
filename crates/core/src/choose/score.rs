//! Ranks and points as contests count them.

use serde::{Deserialize, Serialize};

/// Which way a column counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Better {
    /// The most is best.
    Higher,
    /// The least is best.
    Lower,
}

/// The rank of each value: one is best, equal ones share the lower number and the next one's counts everybody before it
/// (1, 2, 2, 4: what SciPy's `rankdata` calls `min`); who has no value comes after everybody who has one.
pub fn ranks(values: &[Option<f64>], better: Better) -> Vec<usize> {
    let is_before = |other: &Option<f64>, own: &Option<f64>| match (other, own) {
        (Some(other), Some(own)) => match better {
            Better::Higher => other > own,
            Better::Lower => other < own,
        },
        (Some(_), None) => true,
        (None, _) => false,
    };
    values.iter().map(|own| 1 + values.iter().filter(|other| is_before(other, own)).count()).collect()
}

/// Points of each row: the sum of weight times rank over the columns; the lowest wins.
pub fn points_of(ranks: &[Vec<usize>], weights: &[f64], rows: usize) -> Vec<f64> {
    let of = |row: usize| ranks.iter().zip(weights).map(|(column, weight)| weight * column[row] as f64).sum();
    (0..rows).map(of).collect()
}
