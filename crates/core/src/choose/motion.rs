//! Where control is lost over the region: on each side a polynomial through a few turned trains in what the limit hangs on,
//! the lobe's duration, its lift and its flanks. Where the lobe stands on the crank does not move it.

use super::frame::Frame;
use crate::candidate::dynamics::{
    Around, LOOKED_TO, Limit, SideTrain, THRESHOLD, looked_at, lost_at, side_report, side_train, sweep,
};
use crate::candidate::{Resolved, Stages, closed_gap, key};
use crate::document::Side;
use crate::limits::{ControlFinding, InMotion};
use crate::quantity::Speed;
use crate::report::DynamicsSide;
use crate::response::{Axis, Choice, Decision, Polynomial, Terms, fit, lifted, towards_the_sides};
use rayon::prelude::*;

/// Points for each term.
const POINTS_A_TERM: f64 = 3.0;
/// Of the points' places.
const SEED: u32 = 5;

/// Speeds up to a missed shift at which it is looked what parts bear, and the lowest of them as a share of it.
const BORNE_AT: usize = 12;
const LOWEST: f64 = 0.3;

/// One side of it.
#[derive(Debug, Clone, PartialEq)]
struct SideMotion {
    /// What it hangs on.
    variables: Vec<Axis>,
    /// Middle and reach of the duration, crank degrees.
    duration: (f64, f64),
    polynomial: Polynomial,
    off: f64,
}

/// Where control is lost over a region, of both valves by the usual train.
#[derive(Debug, Clone, PartialEq)]
pub struct Motion([Option<SideMotion>; 2]);

/// The limiting speed of one valve by the usual train, rpm, kept for the next who asks; [`LOOKED_TO`] where it is never lost,
/// `None` where the train is not known whole or the work was stopped.
fn limiting_speed(resolved: &Resolved, side: Side, stages: &Stages, stop: &(dyn Fn() -> bool + Sync)) -> Option<f64> {
    let train = side_train(resolved, side).ok()?;
    let top = resolved.top_speed().map(Speed::as_rpm)?;
    let found = stages.figures(key(&("limiting speed", train.key(), top)), || {
        let lost = lost_at(&train, &train.models(&[train.learned.usual()]), &looked_at(top), THRESHOLD, stop);
        Some(vec![lost.first()?.map_or(LOOKED_TO, |(rpm, _)| rpm)])
    });
    found?.first().copied()
}

/// The same of both valves.
pub fn limiting_speeds(resolved: &Resolved, stages: &Stages, stop: &(dyn Fn() -> bool + Sync)) -> Option<[f64; 2]> {
    let of = |side| limiting_speed(resolved, side, stages, stop);
    Some([of(Side::Intake)?, of(Side::Exhaust)?])
}

/// Where control is lost and what parts bear in motion up to a missed shift, of both valves by the usual train, kept for the
/// next who asks; `None` where a train is not known whole, no plan says how fast it is turned, or the work was stopped.
pub fn in_motion(resolved: &Resolved, stages: &Stages, stop: &(dyn Fn() -> bool + Sync)) -> Option<ControlFinding> {
    let top = resolved.top_speed().map(Speed::as_rpm)?;
    let trains = Side::BOTH.map(|side| side_train(resolved, side).ok());
    let keys = trains.each_ref().map(|train| train.as_ref().map(SideTrain::key));
    let closed = Side::BOTH.map(|side| closed_gap(resolved, side).ok());
    let key = key(&("in motion", keys, closed, Side::BOTH.map(|side| resolved.train(side).clone()), top));
    let found = stages.figures(key, || {
        let turned = |side: Side| turned(resolved, (side, trains[side.index()].as_ref()?), top, stages, stop);
        let sides = [turned(Side::Intake)?, turned(Side::Exhaust)?];
        let figures = sides.iter().flat_map(|side| InMotion::of(side, top * (1.0 + 1e-9), LOOKED_TO).figures());
        (!stop()).then(|| figures.collect())
    })?;
    let (sides, _) = found.as_chunks::<{ InMotion::FIGURES }>();
    Some(ControlFinding { sides: [InMotion::of_figures(sides.first()?), InMotion::of_figures(sides.get(1)?)] })
}

/// One side turned up to a missed shift at `top` rpm, and as far as it takes to lose control; without its tables over the crank.
fn turned(
    resolved: &Resolved,
    (side, train): (Side, &SideTrain<'_>),
    top: f64,
    stages: &Stages,
    stop: &(dyn Fn() -> bool + Sync),
) -> Option<DynamicsSide> {
    let limit = limiting_speed(resolved, side, stages, stop)?;
    let limit = Limit { median: (limit < LOOKED_TO).then_some(limit), band: None, by: None };
    let step = (1.0 - LOWEST) * top / (BORNE_AT - 1) as f64;
    let speeds: Vec<f64> = (0..BORNE_AT).map(|i| step.mul_add(i as f64, LOWEST * top)).collect();
    let samples = sweep(train, &train.learned.usual(), &speeds, stop);
    let mut report = side_report(train, &Around::of(resolved, side, stages), &samples, Some(&limit), LOOKED_TO);
    (report.contact_n, report.valve_mm, report.rigid_mm, report.crank_deg) = Default::default();
    Some(report)
}

/// The events of a side: the one that is held, and the one that takes a change of duration.
const fn events(side: Side) -> [Decision; 2] {
    match side {
        Side::Intake => [Decision::IntakeOpens, Decision::IntakeCloses],
        Side::Exhaust => [Decision::ExhaustOpens, Decision::ExhaustCloses],
    }
}

/// Duration at .050 of a side, crank degrees.
fn duration(side: Side, choice: &Choice) -> Option<f64> {
    let [opens, closes] = events(side);
    Some(choice.get(opens)? + 180.0 + choice.get(closes)?)
}

impl Motion {
    /// Of a region with `axes`.
    pub fn of(frame: &Frame, axes: &[Axis], stages: &Stages, stop: &(dyn Fn() -> bool + Sync)) -> Self {
        Self(Side::BOTH.map(|side| SideMotion::of(frame, axes, side, stages, stop)))
    }

    /// The same for trains that lose control at so many times the speed, with so many times the lobe lift, on each side.
    #[must_use]
    pub fn carried_over(&self, speed: [f64; 2], lift: [f64; 2]) -> Self {
        let mut own = self.clone();
        for (side, speed) in own.0.iter_mut().zip(speed) {
            let Some(side) = side else { continue };
            side.polynomial = side.polynomial.clone().scaled(speed);
            side.off *= speed;
            lifted(&mut side.variables, lift);
        }
        own
    }

    /// Limiting speed of a side, rpm, and how far it may be off; `None` where it is not known.
    pub fn at(&self, side: Side, choice: &Choice) -> Option<(f64, f64)> {
        let own = self.0[side.index()].as_ref()?;
        let place = own.place(duration(side, choice)?, choice);
        Some((own.polynomial.at(&place).first().copied()?.min(LOOKED_TO), own.off))
    }
}

impl SideMotion {
    fn of(frame: &Frame, axes: &[Axis], side: Side, stages: &Stages, stop: &(dyn Fn() -> bool + Sync)) -> Option<Self> {
        let [held, moved] = events(side);
        let axis = |decision: Decision| axes.iter().find(|axis| axis.decision == decision);
        let reach = [held, moved].iter().filter_map(|event| axis(*event)).map(|axis| axis.reach).sum::<f64>();
        let mut middle = *frame.now();
        for axis in axes {
            middle.set(axis.decision, axis.middle);
        }
        let own = (duration(side, &middle)?, reach);
        let lift = if side == Side::Intake { Decision::IntakeLift } else { Decision::ExhaustLift };
        let hangs_on = [lift, Decision::Quickness, Decision::Ratio];
        let variables: Vec<Axis> = hangs_on.into_iter().filter_map(axis).copied().collect();
        let count = (POINTS_A_TERM * Terms::Products.count(variables.len() + 1) as f64).ceil() as usize;
        let point = |index: usize| -> Option<(Vec<f64>, Vec<f64>)> {
            let place = towards_the_sides(index, variables.len() + 1, SEED);
            let longer = place[0] * own.1;
            let mut choice = middle.with(moved, middle.get(moved)? + longer);
            for (axis, x) in variables.iter().zip(&place[1..]) {
                choice.set(axis.decision, x.mul_add(axis.reach, axis.middle));
            }
            let limit = limiting_speed(&frame.at(&choice, stages), side, stages, stop)?;
            Some((place, vec![limit]))
        };
        let points: Vec<(Vec<f64>, Vec<f64>)> = (0..count).into_par_iter().filter_map(point).collect();
        let (places, limits): (Vec<Vec<f64>>, Vec<Vec<f64>>) = points.into_iter().unzip();
        let fit = fit(Terms::Products, &places, &limits)?;
        let off = fit.missed(&limits, 0);
        Some(Self { variables, duration: own, polynomial: fit.polynomial, off })
    }

    fn place(&self, duration: f64, choice: &Choice) -> Vec<f64> {
        let longer = (duration - self.duration.0) / self.duration.1.max(1e-9);
        let rest = self.variables.iter().map(|axis| axis.place(choice));
        std::iter::once(longer).chain(rest).collect()
    }
}
