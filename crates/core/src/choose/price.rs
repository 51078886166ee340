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

/// Two limits hold together where both moved buy so many times what each buys alone: searches end a little apart.
const TOGETHER: f64 = 1.25;
/// Pairs that are told, the dearest.
const PAIRS: usize = 3;

/// A gain of the whole move below this is none: what a search ends at.
const NONE: f64 = 5e-5;

/// What a little more of a limit buys, or of two that hold together.
#[derive(Debug, Clone, PartialEq)]
pub struct Priced {
    /// Which limits, and how much of each, SI: one unit of one, the whole move of two.
    pub more: Vec<(Bound, f64)>,
    /// Average torque it buys, N m.
    pub average_torque: f64,
    /// Power where its peak is wanted, W.
    pub power_wanted: f64,
    /// What is climbed by, as a share.
    pub gain: f64,
}

impl Priced {
    /// Whether it is the price of this limit alone.
    pub fn is_of(&self, bound: Bound) -> bool {
        matches!(self.more.as_slice(), [(own, _)] if *own == bound)
    }

    /// Of the move of one limit that of one unit.
    fn of_one_unit(self) -> Self {
        let parts = self.more.first().map_or(1.0, |(bound, _)| moved(bound.rule.measure));
        let more = self.more.into_iter().map(|(bound, by)| (bound, by / parts)).collect();
        let (torque, power) = (self.average_torque / parts, self.power_wanted / parts);
        Self { more, average_torque: torque, power_wanted: power, gain: self.gain / parts }
    }
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
        // A tenth of a usual nose.
        Measure::LobeAcceleration => 2.5e-5 * INCH,
    }
}

/// Every limit that holds the best back, with what one unit more of it buys, the dearest first; then pairs that hold together,
/// where both moved buy more than each alone. The best is looked for from the same place with limits moved and without, limits
/// computed.
pub fn prices(exact: Exact<'_>, best: &Pick) -> Vec<Priced> {
    let before = exact.best(best);
    let bought = |more: Vec<(Bound, f64)>| {
        // A limit is moved out of the way by as much less of it in reserve.
        let eased: Vec<(Bound, f64)> = more.iter().map(|(bound, by)| (*bound, -by)).collect();
        let after = Exact { reserves: &[exact.reserves, &eased].concat(), ..exact }.best(&before);
        let each = |of: fn(&Pick) -> f64| of(&after) - of(&before);
        Priced {
            average_torque: each(|pick| pick.foreseen.figures.average_torque),
            power_wanted: each(|pick| pick.foreseen.figures.power_wanted),
            gain: after.score - before.score,
            more,
        }
    };
    let near = exact.near(best);
    let move_of = |bound: &Bound| (*bound, moved(bound.rule.measure) * unit(bound.rule.measure));
    let alone: Vec<Priced> = near.par_iter().map(|bound| bought(vec![move_of(bound)])).collect();
    let pairs: Vec<(usize, usize)> = (0..near.len()).flat_map(|a| (0..a).map(move |b| (b, a))).collect();
    let together = pairs.par_iter().filter_map(|(a, b)| {
        let both = bought(vec![move_of(&near[*a]), move_of(&near[*b])]);
        let apart = alone[*a].gain.max(0.0) + alone[*b].gain.max(0.0);
        (both.gain > TOGETHER * apart + NONE).then_some(both)
    });
    let mut together: Vec<Priced> = together.collect();
    together.sort_by(|a, b| b.gain.total_cmp(&a.gain));
    together.truncate(PAIRS);
    let alone = alone.into_iter().filter(|own| own.gain > NONE);
    let mut found: Vec<Priced> = alone.map(Priced::of_one_unit).collect();
    found.sort_by(|a, b| b.gain.total_cmp(&a.gain));
    found.append(&mut together);
    found
}
