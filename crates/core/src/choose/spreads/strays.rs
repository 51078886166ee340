//! What long work finds of an engine of which a field is off, its gas and its trains in motion: by how much quick runs of that
//! engine and of the one that is given differ. Gas is of one cylinder at the speeds that are judged, idle on the coarsest mesh,
//! trains are the usual one: what is left out is left out of both.

use super::fields::Field;
use crate::candidate::breathing::{Breathing, Effort, breathing_of, report, samples_at};
use crate::candidate::{Resolved, Stages, key};
use crate::choose::idling::idle_vacuum;
use crate::choose::motion::in_motion;
use crate::choose::region::{figures_of, gas_of};
use crate::given::{Given, Place};
use crate::limits::{ControlFinding, Findings, GasFinding, Strayed};
use crate::quantity::Pressure;
use crate::response::judged;
use crate::tolerance::AWAY;
use rayon::prelude::*;
use std::sync::Arc;

/// Figures of what strays with one field off, the one way and the other; `None` where it moves nothing that is looked at.
type Both = Option<[Vec<f64>; 2]>;

/// Findings with every field off either way, as far as it moves them: of the candidate they were run of, and of others of the same
/// engine, whose fields move as much.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Strays(Vec<(Place, [Strayed; 2])>);

impl Strays {
    /// Runs every field off either way, but those that `kept` has of the same engine, off by as much. `stop` ends it with `None`.
    pub fn of(
        resolved: &Resolved,
        fields: &[Field],
        findings: &Findings,
        (kept, stop): (&Stages, &(dyn Fn() -> bool + Sync)),
    ) -> Option<Self> {
        let wanted = wanted(findings);
        let engine = key(&(as_run(&resolved.given), wanted));
        let keyed = |field: &Field| key(&(engine, field.place, field.variable.spread.sd()));
        let known: Vec<_> = fields.iter().map(|field| kept.strays.kept(keyed(field))).collect();
        if known.iter().all(Option::is_some) {
            return Some(Self::told(fields, known.into_iter().flatten()));
        }
        let stages = Stages::default();
        let quick = Quick::of(resolved, wanted, &stages, stop)?;
        let off = |field: &Field, steps: f64| {
            let mut given = resolved.given.clone();
            given.shift(field.place, steps * field.variable.spread.sd())?;
            quick.strayed(&Resolved::new(given, &stages), Depth::WhatMatters)
        };
        let both = |field: &Field| Some([off(field, -AWAY)?.figures(), off(field, AWAY)?.figures()]);
        let run = |(field, known): (&Field, Option<Arc<Both>>)| {
            if known.is_some() || stop() {
                return known;
            }
            let found = Arc::new(both(field));
            // What was stopped in the middle is no result.
            (!stop()).then(|| kept.strays.keep(keyed(field), Arc::clone(&found)))?;
            Some(found)
        };
        let found: Vec<_> = fields.par_iter().zip(known).map(run).collect();
        (!stop()).then(|| Self::told(fields, found.into_iter().flatten()))
    }

    /// One of each field, in their order.
    fn told(fields: &[Field], found: impl Iterator<Item = Arc<Both>>) -> Self {
        let of = |(field, both): (&Field, Arc<Both>)| {
            let both = both.as_ref().as_ref()?;
            Some((field.place, [Strayed::of(&both[0])?, Strayed::of(&both[1])?]))
        };
        Self(fields.iter().zip(found).filter_map(of).collect())
    }

    /// The same without what parts bear in motion, for whom nothing checks what a response makes of it.
    #[must_use]
    pub fn without_loads(self) -> Self {
        let plain = |(place, by): (Place, [Strayed; 2])| (place, by.map(Strayed::without_loads));
        Self(self.0.into_iter().map(plain).collect())
    }

    /// What is found with the field at `place` off, the one way or the other; `None` where it moves nothing of it.
    pub(super) fn moved(&self, findings: &Findings, place: Place, way: usize) -> Option<Findings> {
        let (_, by) = self.0.iter().find(|(own, _)| *own == place)?;
        Some(findings.moved_by(&by[way]))
    }
}

/// A candidate as far as quick runs read it: what it costs and what anybody wants of its limits move nothing that runs, so that a
/// search with a limit moved runs no engine again.
fn as_run(given: &Given) -> Given {
    let mut own = given.clone();
    (own.own_limits, own.prices) = Default::default();
    let target = &mut own.target;
    // Whether a vacuum is wanted says whether idle is run.
    target.idle_vacuum = target.idle_vacuum.map(|_| Pressure::from_si(0.0));
    (target.budget, target.inspection_miles, target.inspection_hours, target.inspection_passes) = Default::default();
    own
}

/// Gas and trains of a candidate as quick runs find them. `stop` ends it with `None`.
pub fn found_quickly(resolved: &Resolved, stages: &Stages, stop: &(dyn Fn() -> bool + Sync)) -> Option<Findings> {
    Some(Quick::of(resolved, (true, true), stages, stop)?.found)
}

/// Whether findings have gas and trains.
pub(super) const fn wanted(findings: &Findings) -> (bool, bool) {
    (findings.gas.is_some(), findings.control.is_some())
}

/// Which runs a difference is worth.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Depth {
    /// Gas is run anew only where more than its valves' motion at speed differs.
    WhatMatters,
    /// All.
    Everything,
}

/// What quick runs find of the engine that is given.
pub(super) struct Quick<'a> {
    breathing: Option<Breathing>,
    found: Findings,
    stages: &'a Stages,
    stop: &'a (dyn Fn() -> bool + Sync),
}

impl<'a> Quick<'a> {
    /// Of gas and of trains, as they are wanted; `stop` ends it with `None`.
    pub fn of(
        resolved: &Resolved,
        (wants_gas, wants_trains): (bool, bool),
        stages: &'a Stages,
        stop: &'a (dyn Fn() -> bool + Sync),
    ) -> Option<Self> {
        let breathing = wants_gas.then(|| breathing_of(resolved).ok()).flatten();
        let mut own = Self { breathing, found: Findings::default(), stages, stop };
        own.found.gas = own.breathing.as_ref().and_then(|breathing| own.gas(resolved, breathing));
        own.found.control = wants_trains.then(|| own.control(resolved)).flatten();
        (!stop()).then_some(own)
    }

    /// By how much what is found of `moved` differs; `None` where nothing that is looked at does.
    pub fn strayed(&self, moved: &Resolved, depth: Depth) -> Option<Strayed> {
        let breathing = self.breathing.as_ref().and_then(|own| {
            let moved = breathing_of(moved).ok()?;
            let is_same = match depth {
                Depth::WhatMatters => steady(own) == steady(&moved),
                Depth::Everything => *own == moved,
            };
            (!is_same).then_some(moved)
        });
        let gas = breathing.map_or_else(|| self.found.gas.clone(), |breathing| self.gas(moved, &breathing));
        let control = self.found.control.as_ref().and_then(|_| self.control(moved));
        let found = Findings { gas, control, moved: None };
        (found != self.found).then(|| Strayed::between(&found, &self.found))
    }

    fn gas(&self, resolved: &Resolved, breathing: &Breathing) -> Option<GasFinding> {
        let (least, last) = judged(breathing.band, breathing.wanted.1);
        let speeds = breathing.speeds(Effort::Fast).into_iter().filter(|rpm| (least..=last).contains(rpm));
        let (speeds, level) = (speeds.collect::<Vec<f64>>(), breathing.strongest());
        let samples = samples_at(breathing, (Effort::Fast, level), &speeds, self.stop).ok()?;
        let curve = report(breathing, Effort::Fast, level, &samples, None);
        let idle_vacuum = idle_vacuum(resolved, true, self.stages, self.stop);
        Some(GasFinding { idle_vacuum, ..gas_of(&figures_of(breathing, &curve)) })
    }

    fn control(&self, resolved: &Resolved) -> Option<ControlFinding> {
        in_motion(resolved, self.stages, self.stop)
    }
}

/// The same with valves that move without dynamics.
fn steady(breathing: &Breathing) -> Breathing {
    let mut own = breathing.clone();
    own.trains = None;
    own
}
