//! Why no smooth lobe meets a card.

use super::card::{Check, FlatFoot, LobeCard};
use super::shape::Shape;
use thiserror::Error;

/// Inches in a metre, for messages in the trade's thousandths.
const PER_INCH: f64 = 1.0 / 0.0254;

/// The reason a card has no smooth lobe.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum LobeRefusal {
    /// The mean velocity between two checks is beyond the flat foot.
    #[error(
        "between {low:.3} and {high:.3} in the card asks for {mean:.5} in per cam degree on average; a flat face of {face:.3} in less its {margin:.3} in edge carries the contact only up to {cap:.5}: take a larger face, a roller, or more duration at {low:.3} for the same duration at {high:.3}"
    )]
    MeanVelocityBeyondFace {
        /// Lower check, in.
        low: f64,
        /// Upper check, in.
        high: f64,
        /// Mean velocity, in per cam degree.
        mean: f64,
        /// Face diameter, in.
        face: f64,
        /// Edge kept free, in.
        margin: f64,
        /// Greatest velocity, in per cam degree.
        cap: f64,
    },
    /// Mean velocities fall and rise again: no flank with one inflection passes the checks.
    #[error(
        "the card is not smooth: the mean velocity is {before:.5} in per cam degree below {height:.3} in, {at:.5} above it and rises again to {after:.5}; check the duration at {height:.3} in"
    )]
    NotSmooth {
        /// Check at which the slope dips, in.
        height: f64,
        /// Mean velocity below, in per cam degree.
        before: f64,
        /// Mean velocity above, in per cam degree.
        at: f64,
        /// Mean velocity further up, in per cam degree.
        after: f64,
    },
    /// Only the limit of the face stands in the way.
    #[error(
        "every smooth flank through these checks is faster than {cap:.5} in per cam degree, where a flat face of {face:.3} in less its {margin:.3} in edge ends"
    )]
    PeakVelocityBeyondFace {
        /// Face diameter, in.
        face: f64,
        /// Edge kept free, in.
        margin: f64,
        /// Greatest velocity, in per cam degree.
        cap: f64,
    },
    /// Only the radius of curvature stands in the way.
    #[error(
        "on a base circle of {base_circle:.3} in the nose would be sharper than a radius of {least:.3} in: take a larger base circle, less lift or more duration"
    )]
    NoseTooSharp {
        /// Base circle diameter, in.
        base_circle: f64,
        /// Least radius of curvature, in.
        least: f64,
    },
    /// Too little lift above the highest check for the duration there.
    #[error(
        "the nose is too blunt: {above:.3} in of lift above {height:.3} in for {duration:.1} deg there leave so little deceleration at full lift that it would have to grow down the flank: more lift, or less duration at {height:.3} in"
    )]
    NoseTooBlunt {
        /// Lift above the highest check, in.
        above: f64,
        /// The highest check, in.
        height: f64,
        /// Duration there, crank degrees.
        duration: f64,
    },
    /// No single constraint explains it.
    #[error("no smooth flank with one inflection passes lift {lift:.3} in and these checks: {checks}")]
    NoSmoothFlank {
        /// Lobe lift, in.
        lift: f64,
        /// The checks, as a card writes them.
        checks: String,
    },
}

/// The reason that can be read off the card's mean velocities, before any solving.
pub(super) fn plain_reason(card: &LobeCard) -> Option<LobeRefusal> {
    let flanks = [&card.opening, &card.closing];
    let beyond = flanks.iter().find_map(|f| secant_beyond_face(card, f));
    let dip = || flanks.iter().find_map(|f| dip_in_secants(card, f));
    beyond.or_else(dip).or_else(|| too_blunt(card).filter(|_| nose_room(card) < -1e-9))
}

/// The reason for a `card` without a plain one; `solvable` tries again with a constraint relaxed.
pub(super) fn explain(card: &LobeCard, solvable: impl Fn(Shape) -> bool) -> LobeRefusal {
    if let Some(foot) = &card.flat_foot {
        if solvable(Shape { face: false, ..Shape::ALL }) {
            let (face, margin) = (foot.face.as_inches(), foot.margin.as_inches());
            let cap = foot.velocity_cap() * PER_INCH;
            return LobeRefusal::PeakVelocityBeyondFace { face, margin, cap };
        }
        if solvable(Shape { curvature: false, ..Shape::ALL }) {
            let (base_circle, least) = (foot.base_circle.as_inches(), FlatFoot::least_radius().as_inches());
            return LobeRefusal::NoseTooSharp { base_circle, least };
        }
    }
    if let Some(blunt) = too_blunt(card).filter(|_| solvable(Shape { nose: false, ..Shape::ALL })) {
        return blunt;
    }
    let checks = card.closing.iter().map(|c| format!("{:.1} deg at {:.3} in", 2.0 * c.crank_deg, c.height.as_inches()));
    LobeRefusal::NoSmoothFlank { lift: card.lift.as_inches(), checks: checks.collect::<Vec<_>>().join(", ") }
}

/// The nose as what stands in the way.
fn too_blunt(card: &LobeCard) -> Option<LobeRefusal> {
    let (open, close) = (card.opening.last()?, card.closing.last()?);
    let above = card.lift.as_inches() - close.height.as_inches();
    let duration = open.crank_deg + close.crank_deg;
    Some(LobeRefusal::NoseTooBlunt { above, height: close.height.as_inches(), duration })
}

/// How far the noses of a card are from too blunt for any curve, as a share; less than nothing of one that is. Where
/// deceleration falls away from full lift, what lift has fallen by `x` degrees from it grows no faster than their square, so
/// that fall over square may not grow from one check to a lower one.
pub fn nose_room(card: &LobeCard) -> f64 {
    let fall = |check: &Check| (card.lift.si() - check.height.si()) / check.crank_deg.powi(2);
    let pairs = [&card.opening, &card.closing].into_iter().flat_map(|flank| flank.windows(2));
    pairs.map(|pair| 1.0 - fall(&pair[0]) / fall(&pair[1])).fold(1.0, f64::min)
}

/// Mean velocity between neighbouring checks and from the last check to full lift, m per cam degree.
fn secants(card: &LobeCard, flank: &[Check]) -> Vec<f64> {
    let nose = Check { height: card.lift, crank_deg: 0.0 };
    let upper = flank.iter().skip(1).chain(std::iter::once(&nose));
    flank
        .iter()
        .zip(upper)
        .map(|(low, high)| (high.height.si() - low.height.si()) / (0.5 * (low.crank_deg - high.crank_deg)))
        .collect()
}

fn secant_beyond_face(card: &LobeCard, flank: &[Check]) -> Option<LobeRefusal> {
    let foot = card.flat_foot.as_ref()?;
    let cap = foot.velocity_cap();
    let secants = secants(card, flank);
    let (place, mean) = secants.iter().enumerate().max_by(|a, b| a.1.total_cmp(b.1))?;
    (*mean >= cap).then(|| LobeRefusal::MeanVelocityBeyondFace {
        low: flank[place].height.as_inches(),
        high: flank.get(place + 1).map_or(card.lift, |c| c.height).as_inches(),
        mean: mean * PER_INCH,
        face: foot.face.as_inches(),
        margin: foot.margin.as_inches(),
        cap: cap * PER_INCH,
    })
}

fn dip_in_secants(card: &LobeCard, flank: &[Check]) -> Option<LobeRefusal> {
    let secants = secants(card, flank);
    secants.windows(3).enumerate().find_map(|(i, w)| {
        (w[1] < w[0] && w[2] > w[1]).then(|| LobeRefusal::NotSmooth {
            height: flank[i + 1].height.as_inches(),
            before: w[0] * PER_INCH,
            at: w[1] * PER_INCH,
            after: w[2] * PER_INCH,
        })
    })
}
