//! The gap between valve and piston over the overlap as a band: what cylinders built with the tolerances come to at each angle.

use crate::candidate::{Resolved, closed_gap};
use crate::document::Side;
use crate::tolerance::quantile;

/// Crank degrees from firing top dead centre that are looked at, and their step.
const FROM: u32 = 336;
const TO: u32 = 388;
const STEP: usize = 2;

/// Gaps of one cylinder at every angle, intake and exhaust, m; `None` where a gap is not known.
pub type Gaps = [Option<Vec<f64>>; 2];

/// A band over the overlap, m: one of a hundred cylinders lies below `low`, half below `middle`, ninety-nine below `high`.
#[derive(Debug, Clone, PartialEq)]
pub struct Band {
    /// Lowest of nearly all.
    pub low: Vec<f64>,
    /// In the middle.
    pub middle: Vec<f64>,
    /// Highest of nearly all.
    pub high: Vec<f64>,
}

/// The angles, crank degrees from firing top dead centre.
pub fn angles() -> Vec<f64> {
    (FROM..=TO).step_by(STEP).map(f64::from).collect()
}

/// Gaps along the stem at rest, at every angle.
pub fn gaps(resolved: &Resolved) -> Gaps {
    Side::BOTH.map(|side| {
        let (closed, travel) = (closed_gap(resolved, side).ok()?, resolved.travel(side).ok()?);
        Some(angles().into_iter().map(|deg| closed.at(deg).along_stem.si() - travel.lift_at(deg).si()).collect())
    })
}

/// The bands of many cylinders; `None` where one of them has no gap.
pub fn bands(cylinders: &[Gaps]) -> [Option<Band>; 2] {
    [0, 1].map(|side| {
        let own: Vec<&Vec<f64>> = cylinders.iter().map(|gaps| gaps[side].as_ref()).collect::<Option<_>>()?;
        let mut band = Band { low: Vec::new(), middle: Vec::new(), high: Vec::new() };
        for place in 0..own.first()?.len() {
            let mut at: Vec<f64> = own.iter().map(|gaps| gaps[place]).collect();
            at.sort_unstable_by(f64::total_cmp);
            band.low.push(quantile(&at, 0.01));
            band.middle.push(quantile(&at, 0.5));
            band.high.push(quantile(&at, 0.99));
        }
        Some(band)
    })
}
