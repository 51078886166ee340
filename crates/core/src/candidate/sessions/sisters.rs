//! Sizes read valve by valve, each beside its sisters.

use super::cells::{si, whose};
use super::told::{middle_of, valve};
use crate::bench::{Repeated, repeated};
use crate::document::Side;
use crate::quantity::{Dimension, INCH, Length, shown};
use serde_json::Value;

/// Valves of one side seldom lie further than this from the middle one, m: beyond, two columns may be exchanged or a reading wrong
/// (common practice, no source: stem heights of one head spread by .014 in).
const SISTERS: f64 = 0.012 * INCH;
/// A size that was read again within this is as it was read, m.
const AGAIN: f64 = 0.002 * INCH;
/// Two readings of one size further apart than this are not both right, m.
const DIFFERS: f64 = 0.005 * INCH;

/// One valve as it was read.
#[derive(Debug, Clone, Copy)]
pub(super) struct Sister {
    pub cylinder: usize,
    pub size: Repeated,
}

/// Every valve of a side with what stands in `column`.
pub(super) fn by_valve(rows: &[&[Value]], side: Side, column: usize) -> Vec<Sister> {
    let of = |cylinder: usize| -> Vec<f64> {
        let own = rows.iter().filter(|row| whose(row) == Some((cylinder, side)));
        own.filter_map(|row| si::<Length>(row, column)).collect()
    };
    (1..=16).filter_map(|cylinder| Some(Sister { cylinder, size: repeated(&agreeing(of(cylinder)))? })).collect()
}

/// Readings of one size; of three and more those next to the two that lie nearest, so that one that was misread counts no more.
fn agreeing(mut own: Vec<f64>) -> Vec<f64> {
    own.sort_by(f64::total_cmp);
    let nearest = own.windows(2).min_by(|a, b| (a[1] - a[0]).total_cmp(&(b[1] - b[0])));
    let Some(middle) = nearest.filter(|_| own.len() > 2).map(|two| 0.5 * (two[0] + two[1])) else { return own };
    own.retain(|one| (one - middle).abs() <= DIFFERS);
    own
}

/// Valves whose readings differ, and those far from their sisters until a second reading says the same.
pub(super) fn far(own: &[Sister], side: Side) -> Vec<String> {
    let middle = middle_of(own.iter().map(|own| own.size.mean)).unwrap_or(0.0);
    let question = |one: &Sister| {
        let (name, off) = (valve(one.cylinder, side), (one.size.mean - middle).abs());
        let by = |si: f64| shown(si, Dimension::Length).inch;
        if one.size.spread > DIFFERS {
            return Some(format!("{name}: two readings are {} apart: a third tells which", by(one.size.spread)));
        }
        let is_sure = one.size.count > 1 && one.size.spread <= AGAIN;
        (own.len() > 2 && off > SISTERS && !is_sure)
            .then(|| format!("{name} stands {} from its sisters: read it again", by(off)))
    };
    own.iter().filter_map(question).collect()
}

/// What lies between the least and the most of them; `None` of nothing.
pub(super) fn spread_of(values: impl Iterator<Item = f64>) -> Option<f64> {
    Some(repeated(&values.collect::<Vec<f64>>())?.spread)
}

/// Mean of many of one kind, and the half width that holds 95 of 100 of them, no less than the tool's.
pub(super) fn of_all(values: &[f64], tool: f64) -> Option<(f64, f64)> {
    let all = repeated(values)?;
    Some((all.mean, tool.max(1.96 * all.sd.unwrap_or(0.0))))
}
