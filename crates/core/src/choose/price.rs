//! What a little more of a limit would buy: everything is chosen anew with the limit moved, on the same ground, and compared.

use super::aim::Aim;
use super::field::Field;
use super::ground::Predicted;
use super::kit::on_ratio;
use super::search::{Pick, bests};
use super::standing::Bound;
use crate::limits::Measure;
use crate::quantity::{INCH, INCH_MERCURY};
use crate::response::Choice;

/// A limit is moved by so many units: one alone would drown in what a search ends at.
const MOVED: f64 = 5.0;
/// Limits with less left than this, in their scale, may bind.
const NEAR: f64 = 0.5;
/// A gain below this is none.
const NONE: f64 = 2e-5;

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

/// Every limit that binds the best of the fields, with what one unit more of it buys, the dearest first.
pub fn prices(fields: &[Field], aim: &Aim, best: &Pick) -> Vec<Priced> {
    let near = best.foreseen.margins.iter().filter(|own| !own.margin.is_advice && own.room() < NEAR);
    let bounds: Vec<Bound> = near.map(|own: &Predicted| own.margin.bound).collect();
    let from = [on_ratio(&best.choice, &fields[best.field].kit.frame, &fields[0].kit.frame)];
    // By the same search as with the limit moved, so that what a search leaves behind is left behind in both.
    let before = best_of(fields, aim, &from);
    let mut found: Vec<Priced> = bounds
        .into_iter()
        .filter_map(|bound| {
            let unit = unit(bound.rule.measure);
            let eased: Vec<Field> = fields.iter().map(|field| field.easing(bound, MOVED * unit)).collect();
            let (before, after) = (before.as_ref()?, best_of(&eased, aim, &from)?);
            let each = |of: fn(&Pick) -> f64| (of(&after) - of(before)) / MOVED;
            let gain = (after.score - before.score) / MOVED;
            (MOVED * gain > NONE).then(|| Priced {
                bound,
                unit,
                average_torque: each(|pick| pick.foreseen.figures.average_torque),
                power_wanted: each(|pick| pick.foreseen.figures.power_wanted),
                gain,
            })
        })
        .collect();
    found.sort_by(|a, b| b.gain.total_cmp(&a.gain));
    found
}

fn best_of(fields: &[Field], aim: &Aim, from: &[Choice]) -> Option<Pick> {
    bests(fields, aim, from).into_iter().reduce(|a, b| if b.score > a.score { b } else { a })
}
