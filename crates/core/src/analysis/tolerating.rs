//! Limits under tolerances as a job: a response of every limit, engines drawn on them by the thousand, and some of them computed
//! in full as a check.

use super::curve::gap_of;
use super::findings::findings_in_motion;
use super::tolerance_words::{Drawn, worded};
use crate::build::Build;
use crate::candidate::{Key, Part, Resolved, Stages, key};
use crate::choose::{
    Agreement, Band, InFull, Responded, Toleranced, cast_of, model_of, respond, run_in_full, toleranced,
};
use crate::document::{Fault, Ledger, candidate_or_first};
use crate::given::{Given, Source};
use crate::limits::Findings;
use crate::report::{Chance, LimitReport, ToleranceReport};
use crate::tolerance::{Cast, Model, Simulated, simulate};
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// Engines drawn, and the lot.
const ENGINES: usize = 20_000;
const SEED: u64 = 2026;
/// Cylinders computed in full as a check, and of a limit whose response is off.
const CHECKED: usize = 500;
const IN_FULL: usize = 2000;
/// Beyond this share of the standard deviation, or of the runs that do not agree, a response is off.
const OFF: f64 = 0.2;
const DISAGREE: f64 = 0.01;
/// Beyond this share of the standard deviation there is no response at all.
const LOST: f64 = 1.0;
/// A limit with so many standard deviations left does not fail, whatever its response is off by.
const FAR: f64 = 6.0;

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ToleranceStep {
    /// By the responses alone, while runs in full are under way.
    pub report: Box<ToleranceReport>,
}

/// Holding every limit of a candidate against its tolerances.
pub struct ToleranceJob {
    build: Build,
    index: usize,
    begun: Begun,
    stages: Arc<Stages>,
}

/// Runs in full of every limit, whether they stand for its response, and gaps over the overlap.
type Checked<'a> = (&'a [Option<(Agreement, bool)>], &'a [Option<Band>; 2]);

/// What a candidate is held against the tolerances with.
struct Begun {
    resolved: Resolved,
    fields: Vec<Toleranced>,
    findings: Findings,
}

/// Stands for the candidate and its tolerances, whatever was computed of its gas and its trains since.
fn by_document(resolved: &Resolved, fields: &[Toleranced]) -> Key {
    key(&(&resolved.given, fields))
}

/// Stands for everything the result depends on.
fn keyed(resolved: &Resolved, fields: &[Toleranced], findings: &Findings) -> Key {
    key(&(&resolved.given, fields, findings))
}

impl ToleranceJob {
    /// Of the candidate `id`, or of the first.
    ///
    /// # Errors
    /// A fault when there is no such candidate.
    pub fn new(build: &Build, id: Option<&str>, stages: Arc<Stages>) -> Result<Self, Fault> {
        let views = build.candidates();
        let view = candidate_or_first(&views, id)?;
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let begun = Begun::of(Resolved::new(Given::read(&source), &stages), &source, &stages);
        Ok(Self { build: build.clone(), index: view.index, begun, stages })
    }
}

impl Begun {
    fn of(resolved: Resolved, source: &Source<'_>, stages: &Stages) -> Self {
        let (fields, findings) = (toleranced(&resolved, source), findings_in_motion(&resolved, stages));
        Self { resolved, fields, findings }
    }

    fn key(&self) -> Key {
        keyed(&self.resolved, &self.fields, &self.findings)
    }

    /// Keeps a result for whoever asks for the same, and for the margins also when a curve has come since.
    fn keep(&self, report: &Arc<ToleranceReport>, stages: &Stages) {
        stages.tolerances.keep(self.key(), Arc::clone(report));
        stages.tolerances.keep(by_document(&self.resolved, &self.fields), Arc::clone(report));
    }

    fn cast(&self) -> Cast {
        cast_of(&self.resolved, ENGINES, SEED)
    }

    /// Every limit in so many cylinders in full, whole engines at a time.
    fn in_full(&self, limits: &[Responded], cylinders: usize, stop: &(dyn Fn() -> bool + Sync)) -> Option<InFull> {
        let cast = self.cast();
        let cast = Cast { engines: cylinders.div_ceil(cast.cylinders), ..cast };
        run_in_full(&self.resolved, &self.fields, &self.findings, limits, &cast, stop)
    }

    /// Draws, checks, and draws in full what the responses do not hold.
    fn run(&self, source: &Source<'_>, watch: &Watch<'_, ToleranceStep>) -> Result<ToleranceReport, Halted> {
        // Cylinders that nobody builds are not kept beside those that somebody does.
        let own = Stages::default();
        let responses =
            respond(&self.resolved, &self.fields, &self.findings, (&own, watch.stop)).ok_or(Halted::Stopped)?;
        if responses.limits.is_empty() {
            let reason = "no limit is known yet that anything could be off from".to_owned();
            return Err(Halted::Lacks { reason, needs: Vec::new() });
        }
        let mut model = model_of(&self.fields, &responses);
        let mut simulated = simulate(&model, &self.cast());
        let report = |model: &Model, simulated: &Simulated, checked: Checked<'_>| {
            let ((agreements, overlap), fields, cast) = (checked, &self.fields, self.cast());
            worded(&Drawn { fields, responses: &responses, model, simulated, agreements, overlap, cast }, source)
        };
        let tell = |report: ToleranceReport| (watch.report)(ToleranceStep { report: Box::new(report) });
        tell(report(&model, &simulated, (&vec![None; responses.limits.len()], &[None, None])));
        let checked = self.in_full(&responses.limits, CHECKED, watch.stop).ok_or(Halted::Stopped)?;
        let InFull { limits: checked, overlap } = checked;
        let is_off = |place: &usize| {
            let (limit, outcome, own) = (&responses.limits[*place], &simulated.limits[*place], &checked[*place]);
            let is_near = limit.found.margin() < FAR * outcome.sd.hypot(own.off());
            is_near && (limit.is_broken || own.disagree > DISAGREE || own.off() > OFF * outcome.sd)
        };
        let off: Vec<usize> = (0..responses.limits.len()).filter(is_off).collect();
        let mut agreements: Vec<_> = checked.iter().map(|own| Some((own.clone(), false))).collect();
        if !off.is_empty() {
            for place in &off {
                let own = &checked[*place];
                // A limit that jumps has no response: runs in full alone count.
                if responses.limits[*place].is_broken || own.off() > LOST * simulated.limits[*place].sd {
                    model.counts[*place] = false;
                } else {
                    model.doubt(*place, own.bias, own.scatter);
                }
            }
            simulated = simulate(&model, &self.cast());
            tell(report(&model, &simulated, (&agreements, &overlap)));
            let limits: Vec<Responded> = off.iter().map(|place| responses.limits[*place].clone()).collect();
            let found = self.in_full(&limits, IN_FULL, watch.stop).ok_or(Halted::Stopped)?;
            off.into_iter().zip(found.limits).for_each(|(place, own)| agreements[place] = Some((own, true)));
        }
        Ok(report(&model, &simulated, (&agreements, &overlap)))
    }
}

impl Job for ToleranceJob {
    type Step = ToleranceStep;
    type Done = ToleranceReport;

    fn key(&self) -> Key {
        self.begun.key()
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<ToleranceReport>> {
        self.stages.tolerances.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, ToleranceStep>) -> Result<Arc<ToleranceReport>, Halted> {
        let ledger = Ledger::default();
        let views = self.build.candidates();
        let report = Arc::new(self.begun.run(&Source::new(&views[self.index], &ledger), watch)?);
        self.begun.keep(&report, &self.stages);
        Ok(report)
    }
}

/// The tolerances of a candidate at once, for the analysis.
pub(super) fn drawn(resolved: &Resolved, source: &Source<'_>, stages: &Stages) -> Part<ToleranceReport> {
    let begun = Begun::of(resolved.clone(), source, stages);
    if let Some(report) = stages.tolerances.kept(begun.key()) {
        return Ok(report.as_ref().clone());
    }
    let report = begun.run(source, &Watch::nobody()).map_err(gap_of)?;
    begun.keep(&Arc::new(report.clone()), stages);
    Ok(report)
}

/// Puts chances beside the verdicts of a candidate, where its tolerances were drawn.
pub(super) fn put_chances(
    lines: &mut [LimitReport],
    (resolved, findings): (&Resolved, &Findings),
    source: &Source<'_>,
    stages: &Stages,
) {
    if stages.tolerances.is_empty() {
        return;
    }
    let fields = toleranced(resolved, source);
    let kept = |key: Key| stages.tolerances.kept(key);
    let own = kept(keyed(resolved, &fields, findings));
    // A curve that has come since moves what is drawn little or not at all: chances do not vanish for it.
    let Some(report) = own.or_else(|| kept(by_document(resolved, &fields))) else { return };
    for line in lines {
        // An engine does not fail by advice.
        let mut counted = report.limits.iter().filter(|own| !own.is_advice);
        let own = counted.find(|own| own.id == line.id && own.side == line.side);
        line.chance = own.map(|own| Chance { one: own.fails_share, any: own.fails_any_share, says: own.says.clone() });
    }
}
