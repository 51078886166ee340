//! The phasing window as a job: gaps and limits at once, torque as its curves are drafted.

use super::curve::{gap_of, halted};
use super::drafting::{drafted as drafted_curve, effort_of};
use super::findings::findings_in_motion;
use super::phasing_curves::Curves;
use super::phasing_words::{Phased, worded};
use crate::build::Build;
use crate::candidate::breathing::{Ended, breathing_of};
use crate::candidate::{Key, Part, Resolved, Stages, key, lack, together, worded as gap_worded};
use crate::choose::{gas_of, idle_vacuum, plan_of, stands};
use crate::document::{Fault, Ledger, Side, candidate_or_first};
use crate::given::{Given, Source};
use crate::limits::{Findings, GasFinding, Strayed};
use crate::quantity::Angle;
use crate::report::PhasingReport;
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// Crank degrees looked at either way beside what a phaser turns.
const REACH: f64 = 10.0;
/// Curves that are drafted over the whole range.
const CURVES: usize = 7;

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PhasingStep {
    /// Curves drafted.
    pub done: usize,
    /// Curves in all.
    pub of: usize,
    /// Gaps and limits, without torque.
    pub report: Box<PhasingReport>,
}

/// Turning the cam of one candidate.
pub struct PhasingJob {
    begun: Begun,
    stages: Arc<Stages>,
}

/// What a candidate is turned with.
struct Begun {
    resolved: Resolved,
    findings: Findings,
}

impl Begun {
    fn of(resolved: Resolved, stages: &Stages) -> Part<Self> {
        let [intake, exhaust] = Side::BOTH.map(|side| lack(&resolved.travel(side)));
        together([lack(&resolved.phasing), intake, exhaust])?;
        let findings = findings_in_motion(&resolved, stages);
        Ok(Self { resolved, findings })
    }

    fn key(&self) -> Key {
        key(&("phasing", &self.resolved.given, &self.findings))
    }

    fn phaser(&self) -> (f64, f64) {
        let cam = &self.resolved.given.cam;
        let deg = |angle: Option<Angle>| angle.map_or(0.0, Angle::as_deg);
        (deg(cam.phaser_retard), deg(cam.phaser_advance))
    }

    fn range(&self) -> (f64, f64) {
        let (back, forward) = self.phaser();
        (back + REACH, forward + REACH)
    }

    /// Gaps, limits and torque as far as there are curves; what the gas asks is held against the gas of each place.
    fn report(&self, curves: Option<&Curves>, stages: &Stages) -> PhasingReport {
        let found = |advance| self.found(curves, advance);
        let stands = stands(&self.resolved, &found, self.range(), stages);
        worded(&Phased { resolved: &self.resolved, stands: &stands, curves, phaser: self.phaser() })
    }

    /// What long work would find with the cam turned: what it found where the cam stands, moved by the difference of the drafted
    /// curves. Octane and vacuum found there say nothing of another place before these are drafted: until then the hand checks decide.
    fn found(&self, curves: Option<&Curves>, advance: f64) -> Findings {
        let gas = |deg: f64| curves.and_then(|curves| curves.gas.as_ref()).map(|gas| gas.at(deg));
        let (there, here) = (gas(advance), gas(0.0));
        let is_drafted = |of: fn(&GasFinding) -> Option<f64>| there.as_ref().is_some_and(|own| of(own).is_some());
        let (octane, vacuum) = (is_drafted(|own| own.octane_needed), is_drafted(|own| own.idle_vacuum));
        let only = |gas: Option<GasFinding>| Findings { gas, ..Findings::default() };
        let mut found = self.findings.moved_by(&Strayed::between(&only(there), &only(here)));
        if let Some(gas) = &mut found.gas {
            gas.octane_needed = gas.octane_needed.filter(|_| octane);
            gas.idle_vacuum = gas.idle_vacuum.filter(|_| vacuum);
        }
        found
    }

    /// Gaps and limits at once, then torque.
    fn run(&self, stages: &Stages, watch: &Watch<'_, PhasingStep>) -> Result<PhasingReport, Halted> {
        let gaps = Box::new(self.report(None, stages));
        let tell = |done: usize| (watch.report)(PhasingStep { done, of: CURVES, report: gaps.clone() });
        tell(0);
        let curves = match self.curves(&tell, stages, watch.stop) {
            Ok(curves) => curves,
            // An engine that cannot breathe yet has gaps all the same.
            Err(Ended::Gap(_)) => None,
            Err(stopped) => return Err(halted(stopped)),
        };
        Ok(self.report(curves.as_ref(), stages))
    }

    /// Every curve, and the parabolas through them.
    fn curves(
        &self,
        tell: &dyn Fn(usize),
        stages: &Stages,
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Option<Curves>, Ended> {
        let plan = plan_of(&breathing_of(&self.resolved)?);
        let (back, forward) = self.range();
        let (mut drafted, mut values, mut gas) = (Vec::new(), Vec::new(), Vec::new());
        for place in 0..CURVES {
            let advance = -back + (back + forward) * place as f64 / (CURVES - 1) as f64;
            let turned = self.resolved.turned(advance);
            let breathing = breathing_of(&turned)?;
            if let Some(columns) = drafted_curve(&breathing, effort_of(&breathing), stages, stop)?.as_ref() {
                let figures = plan.figures(&columns.speeds, &columns.values);
                drafted.push(advance);
                values.push(vec![figures.average_torque, figures.thirds[0], figures.peak_power]);
                let idle_vacuum = idle_vacuum(&turned, true, stages, stop);
                gas.push(GasFinding { idle_vacuum, ..gas_of(&figures) });
            }
            tell(place + 1);
        }
        Ok(Curves::through(drafted, values, &gas))
    }
}

impl PhasingJob {
    /// Of the candidate `id`, or of the first.
    ///
    /// # Errors
    /// A fault when there is no such candidate; inside, what its gaps lack.
    pub fn new(build: &Build, id: Option<&str>, stages: Arc<Stages>) -> Result<Result<Self, Halted>, Fault> {
        let views = build.candidates();
        let view = candidate_or_first(&views, id)?;
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let begun = Begun::of(Resolved::new(Given::read(&source), &stages), &stages);
        Ok(begun.map(|begun| Self { begun, stages }).map_err(|gap| {
            let (reason, needs) = gap_worded(&gap, &source);
            Halted::Lacks { reason, needs }
        }))
    }
}

impl Job for PhasingJob {
    type Step = PhasingStep;
    type Done = PhasingReport;

    fn key(&self) -> Key {
        self.begun.key()
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<PhasingReport>> {
        self.stages.phasings.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, PhasingStep>) -> Result<Arc<PhasingReport>, Halted> {
        let report = Arc::new(self.begun.run(&self.stages, watch)?);
        self.stages.phasings.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }
}

/// The window of a candidate at once, for the analysis.
pub(super) fn phasing(resolved: &Resolved, stages: &Stages) -> Part<PhasingReport> {
    Begun::of(resolved.clone(), stages)?.run(stages, &Watch::nobody()).map_err(gap_of)
}
