//! What a little more of a limit would buy: everything is chosen anew with the limit moved, on the same ground, and compared.

use super::polish::Exact;
use super::search::Pick;
use super::standing::Bound;
use crate::limits::Measure;
use crate::quantity::{INCH, INCH_MERCURY};
use rayon::prelude::*;

/// A limit is moved by so many units: a thousandth alone would drown in what a search ends at, five octane numbers set free
/// more than they count.
const fn moved(measure: Measure) -> f64 {
    match measure {
        Measure::Length | Measure::Fine | Measure::Stress => 5.0,
        _ => 1.0,
    }
}

/// A gain of the whole move below this is none: what a search ends at.
const NONE: f64 = 5e-5;

/// What one unit of a limit buys.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Priced {
    /// Which limit.
    pub bound: Bound,
    /// One unit of it, SI.
    pub unit: f64,
    /// Average torque it buys, N m.
    pub average_torque: f64,
    /// Power where its peak is wanted, W.
    pub power_wanted: f64,
    /// What is climbed by, as a share.
    pub gain: f64,
}

/// One unit of a measure, SI, as builders count what they give and take.
pub fn unit(measure: Measure) -> f64 {
    const RPM: f64 = std::f64::consts::PI / 30.0;
    match measure {
        Measure::Length => 1e-3 * INCH,
        Measure::Fine => 1e-4 * INCH,
        Measure::Force => 44.482,
        Measure::Speed => 100.0 * RPM,
        Measure::Angle => std::f64::consts::PI / 180.0,
        Measure::Ratio => 0.1,
        Measure::Share => 0.01,
        Measure::Pressure => 1e4,
        Measure::Stress => 1e7,
        Measure::Vacuum => INCH_MERCURY,
        Measure::Money => 100.0,
        Measure::Octane => 1.0,
    }
}

/// Every limit that holds the best back, with what one unit more of it buys, the dearest first: the best is looked for from
/// the same place with the limit moved and without, limits computed.
pub fn prices(exact: Exact<'_>, best: &Pick) -> Vec<Priced> {
    let before = exact.best(best);
    let one = |bound: Bound| {
        let (unit, moved) = (unit(bound.rule.measure), moved(bound.rule.measure));
        let after = Exact { eased: Some((bound, moved * unit)), ..exact }.best(&before);
        let each = |of: fn(&Pick) -> f64| (of(&after) - of(&before)) / moved;
        let gain = after.score - before.score;
        (gain > NONE).then(|| Priced {
            bound,
            unit,
            average_torque: each(|pick| pick.foreseen.figures.average_torque),
            power_wanted: each(|pick| pick.foreseen.figures.power_wanted),
            gain: gain / moved,
        })
    };
    let mut found: Vec<Priced> = exact.near(best).into_par_iter().filter_map(one).collect();
    found.sort_by(|a, b| b.gain.total_cmp(&a.gain));
    found
}
