//! Gaps at speed of everything around a valve, and what the train in motion does to them.

use super::growing::Growing;
use super::way::Way;
use crate::candidate::blocks::{heads_of, piston_clearance, retainer_gap, spring_at_lift};
use crate::candidate::dynamics::{TurnedLift, lifts_over, side_train};
use crate::candidate::resolve::{Part, Resolved, lack, together};
use crate::candidate::stages::{Stages, key};
use crate::clearance::valve_to_valve;
use crate::document::Side;
use crate::quantity::Length;
use std::sync::Arc;

/// How the valve of `side` moves at every speed, kept; `None` for a train that cannot be turned.
pub(super) fn turned(inputs: &Resolved, side: Side, speeds: &[f64], stages: &Stages) -> Option<Arc<Vec<TurnedLift>>> {
    let train = side_train(inputs, side).ok()?;
    let turnable = train.turnable()?;
    let moved = stages.lifts.get(key(&(train.key(), speeds)), || lifts_over(&turnable, speeds, &|| false));
    // A train far beyond all control may lead to no number at all.
    moved.iter().all(|moved| moved.lift.iter().all(|lift| lift.is_finite())).then_some(moved)
}

/// Most lift, m.
fn most(moved: &TurnedLift) -> f64 {
    moved.lift.iter().copied().fold(0.0, f64::max)
}

/// By how much every speed lifts the valve further than rigid parts do, m.
fn more_lift(inputs: &Resolved, side: Side, moved: &[TurnedLift]) -> Option<Vec<f64>> {
    let rigid = inputs.side(side).most_lift().ok()?.si();
    Some(moved.iter().map(|moved| most(moved) - rigid).collect())
}

/// A gap at full lift at every speed, mm: what further lift takes off it.
fn at_full_lift(inputs: &Resolved, side: Side, moved: Option<&[TurnedLift]>, rest: Option<Length>) -> Option<Vec<f64>> {
    let more = more_lift(inputs, side, moved?)?;
    let rest = rest?.si();
    Some(more.into_iter().map(|more| 1e3 * (rest - more)).collect())
}

/// Retainer to seal at every speed, mm.
pub(super) fn retainer(inputs: &Resolved, side: Side, moved: Option<&[TurnedLift]>) -> Option<Vec<f64>> {
    at_full_lift(inputs, side, moved, retainer_gap(inputs, side).ok())
}

/// Travel left to coil bind at every speed, mm.
pub(super) fn coil_bind(inputs: &Resolved, side: Side, moved: Option<&[TurnedLift]>) -> Option<Vec<f64>> {
    let left = spring_at_lift(inputs.side(side)).ok().and_then(|(spring, lift)| spring.to_bind(lift));
    at_full_lift(inputs, side, moved, left)
}

/// Head to head at every speed, mm. A cam that runs late takes both valves with it.
pub(super) fn heads(inputs: &Resolved, moved: [Option<&Vec<TurnedLift>>; 2]) -> Option<Vec<f64>> {
    let ([Some(intake), Some(exhaust)], heads) = (moved, heads_of(inputs).ok()?) else { return None };
    let gap = |(intake, exhaust): (&TurnedLift, &TurnedLift)| {
        let (opens, leaves) = (|deg: f64| intake.at(deg), |deg: f64| exhaust.at(deg));
        let pairs = heads[0].iter().flat_map(|one| heads[1].iter().map(move |other| (one, other)));
        let gaps = pairs.map(|(one, other)| valve_to_valve((one, &opens), (other, &leaves)).0.si());
        1e3 * gaps.fold(f64::INFINITY, f64::min)
    };
    Some(intake.iter().zip(exhaust).map(gap).collect())
}

/// The least gap of one valve over the piston at any speed, by its lobe, m: quick enough for every change.
///
/// # Errors
/// What the gap at rest lacks, and the highest speed.
pub fn quiet_gap(inputs: &Resolved, side: Side, stages: &Stages) -> Part<f64> {
    let (growing, way) = (Growing::of(inputs), Way::of(inputs, side, stages));
    together([lack(&growing), lack(&way)])?;
    Ok(way?.quiet(&growing?))
}

/// Valve edge to pocket wall in a running engine, m: less what valve and piston sway; `None` where no edge is ever in one.
///
/// # Errors
/// What the gap at rest lacks.
pub fn radial_at_speed(inputs: &Resolved, side: Side, stages: &Stages) -> Part<Option<f64>> {
    let growth = &inputs.given.growth;
    let sway = [growth.valve_sway, growth.piston_sway].into_iter().flatten().map(Length::si).sum::<f64>();
    Ok(piston_clearance(inputs, side, stages)?.radial.map(|gap| gap.si() - sway))
}

/// What the trains in motion do to gaps: added to what lobes alone say, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Moved {
    /// Of each valve's least gap over the piston.
    pub piston: [f64; 2],
    /// By how much each is lifted further at most.
    pub lift: [f64; 2],
    /// Of the gap between the heads.
    pub heads: Option<f64>,
}

/// Turns both trains through every speed; `None` where one of them cannot be turned.
pub fn motion_of_valves(inputs: &Resolved, stages: &Stages) -> Option<Moved> {
    let growing = Growing::of(inputs).ok()?;
    let speeds = growing.speeds();
    let [Some(intake), Some(exhaust)] = Side::BOTH.map(|side| turned(inputs, side, &speeds, stages)) else {
        return None;
    };
    let piston = |side: Side, moved: &[TurnedLift]| {
        let way = Way::of(inputs, side, stages).ok()?;
        let gap = |(rpm, moved): (&f64, &TurnedLift)| way.least(growing.up(*rpm), growing.late(*rpm), Some(moved)).1;
        Some(speeds.iter().zip(moved).map(gap).fold(f64::INFINITY, f64::min) - way.quiet(&growing))
    };
    let lift = |side: Side, moved: &[TurnedLift]| more_lift(inputs, side, moved)?.into_iter().reduce(f64::max);
    let least = |gaps: Vec<f64>| gaps.into_iter().reduce(f64::min).map(|mm| mm * 1e-3);
    let at_rest = crate::candidate::valves_apart(inputs, stages).ok().map(Length::si);
    Some(Moved {
        piston: [piston(Side::Intake, &intake).unwrap_or(0.0), piston(Side::Exhaust, &exhaust).unwrap_or(0.0)],
        lift: [lift(Side::Intake, &intake)?, lift(Side::Exhaust, &exhaust)?],
        heads: heads(inputs, [Some(&intake), Some(&exhaust)])
            .and_then(least)
            .zip(at_rest)
            .map(|(gap, rest)| gap - rest),
    })
}
