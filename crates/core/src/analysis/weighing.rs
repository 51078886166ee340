//! What edits would move, before they are made: every margin at once, and torque by quick curves of both.

use super::analyze::{PartName, Request, analyze};
use super::curve::{breathing_inputs, halted};
use super::drafting::{drafted, effort_of};
use crate::build::Build;
use crate::candidate::breathing::{Breathing, Effort, Ended};
use crate::candidate::{Key, Stages, key};
use crate::choose::plan_of;
use crate::document::{Faults, Side};
use crate::edit::{Edit, apply_all};
use crate::quantity::{Shown, UnitSystem};
use crate::report::{LimitReport, Verdict};
use crate::response::Figures;
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// What edits would move.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Weighed {
    /// Margins that read otherwise, the worst first.
    pub margins: Vec<MarginMoved>,
    /// Margins that stay as they are.
    pub still: usize,
    /// Average and peak; absent where no curve can be computed.
    pub torque: Option<TorqueMoved>,
}

/// One margin, before and after.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MarginMoved {
    /// Stable identifier of the rule.
    pub id: String,
    /// The side it is about.
    pub side: Option<Side>,
    /// In words.
    pub title: String,
    /// What there is now; absent while unknown.
    pub from: Option<Shown>,
    /// What there would be.
    pub to: Option<Shown>,
    /// In one word, now.
    pub before: Verdict,
    /// In one word, then.
    pub after: Verdict,
}

/// Torque and power, as shares of what they are.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TorqueMoved {
    /// Average over the band.
    pub average_torque: f64,
    /// Highest power.
    pub peak_power: f64,
}

/// Margins, before torque is there.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WeighStep {
    /// What edits would move, without torque.
    pub weighed: Weighed,
}

/// Weighing edits of one candidate, all of them together: margins at once, torque when both curves are drafted.
pub struct WeighJob {
    now: Build,
    then: Build,
    id: Option<String>,
    stages: Arc<Stages>,
}

impl WeighJob {
    /// Of the candidate `id`, or of the first.
    ///
    /// # Errors
    /// The faults of an edit that is refused.
    pub fn new(
        build: &Build,
        edits: &[Edit],
        id: Option<&str>,
        system: UnitSystem,
        stages: Arc<Stages>,
    ) -> Result<Self, Faults> {
        let then = apply_all(build.clone(), edits, system, &stages)?;
        Ok(Self { now: build.clone(), then, id: id.map(str::to_owned), stages })
    }

    fn limits(&self, build: &Build) -> Vec<LimitReport> {
        let request = Request::of(self.id.clone(), vec![PartName::Limits, PartName::AtSpeed]);
        let found = analyze(build, &request, &self.stages).map(|own| own.candidates).unwrap_or_default();
        found.into_iter().next().map_or_else(Vec::new, |own| own.limits)
    }

    fn margins(&self) -> Weighed {
        let (now, then) = (self.limits(&self.now), self.limits(&self.then));
        let mut margins: Vec<MarginMoved> = then.iter().filter_map(|line| moved(&now, line)).collect();
        margins.sort_by_key(|own| rank(own.after));
        Weighed { still: then.len() - margins.len(), margins, torque: None }
    }

    /// Both curves as quickly as the document allows; of the same gas nothing is run.
    fn torque(&self, stop: &(dyn Fn() -> bool + Sync)) -> Result<Option<TorqueMoved>, Ended> {
        let inputs = |build: &Build| breathing_inputs(build, self.id.as_deref(), None, &self.stages).ok()?.ok();
        let Some((now, then)) = inputs(&self.now).zip(inputs(&self.then)) else { return Ok(None) };
        if now == then {
            return Ok(Some(TorqueMoved { average_torque: 0.0, peak_power: 0.0 }));
        }
        let quick = [&now, &then].iter().all(|own| effort_of(own) == Effort::Draft);
        let effort = if quick { Effort::Draft } else { Effort::Fast };
        let figures = |own: &Breathing| -> Result<Option<Figures>, Ended> {
            let curve = drafted(own, effort, &self.stages, stop)?;
            Ok(curve.as_ref().as_ref().map(|curve| plan_of(own).figures(&curve.speeds, &curve.values)))
        };
        let Some((before, after)) = figures(&now)?.zip(figures(&then)?) else { return Ok(None) };
        Ok(Some(TorqueMoved {
            average_torque: after.average_torque / before.average_torque - 1.0,
            peak_power: after.peak_power / before.peak_power - 1.0,
        }))
    }
}

impl Job for WeighJob {
    type Step = WeighStep;
    type Done = Weighed;

    fn key(&self) -> Key {
        key(&("weighed", self.now.text(), self.then.text(), &self.id))
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<Weighed>> {
        // Curves are kept; the rest is quicker than what there is to look up.
        None
    }

    fn run(&self, watch: &Watch<'_, WeighStep>) -> Result<Arc<Weighed>, Halted> {
        let weighed = self.margins();
        (watch.report)(WeighStep { weighed: weighed.clone() });
        let torque = match self.torque(watch.stop) {
            Ok(torque) => torque,
            Err(Ended::Gap(_)) => None,
            Err(stopped) => return Err(halted(stopped)),
        };
        Ok(Arc::new(Weighed { torque, ..weighed }))
    }
}

/// A limit that reads otherwise than it does now.
fn moved(now: &[LimitReport], then: &LimitReport) -> Option<MarginMoved> {
    let before = now.iter().find(|own| own.id == then.id && own.side == then.side);
    let have = |line: &LimitReport| line.shown.as_ref().map(|shown| shown.have.clone());
    let (from, to) = (before.and_then(have), have(then));
    let verdict = before.map_or(Verdict::Unknown, |own| own.verdict);
    let read = |shown: &Option<Shown>| shown.as_ref().map(|shown| shown.inch.clone());
    (read(&from) != read(&to) || verdict != then.verdict).then(|| MarginMoved {
        id: then.id.clone(),
        side: then.side,
        title: then.title.clone(),
        from,
        to,
        before: verdict,
        after: then.verdict,
    })
}

const fn rank(verdict: Verdict) -> u8 {
    match verdict {
        Verdict::Fails => 0,
        Verdict::Tight => 1,
        Verdict::Unknown => 2,
        Verdict::Advice => 3,
        Verdict::Ok => 4,
    }
}
