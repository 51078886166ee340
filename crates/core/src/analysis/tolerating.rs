//! Limits under tolerances as a job: a response of every limit, engines drawn on them by the thousand, and some of them computed
//! in full as a check; gas and trains, which take seconds, last.

use super::curve::gap_of;
use super::drawing::{Begun, Drawing, Stop, Trust, keyed};
use super::tolerance_words::worded;
use crate::build::Build;
use crate::candidate::{Key, Part, Resolved, Stages, key};
use crate::choose::{Run, Toleranced, toleranced};
use crate::document::{Fault, Ledger, candidate_or_first};
use crate::given::{Given, Source};
use crate::limits::Findings;
use crate::report::{Chance, LimitReport, ToleranceReport};
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// Cylinders computed in full as a check, and of limits whose response is off.
const CHECKED: usize = 500;
const IN_FULL: usize = 2000;
/// The same with gas and trains, which take a fifth of a second each.
const CHECKED_GAS: usize = 60;
const IN_FULL_GAS: usize = 180;

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ToleranceStep {
    /// What is being done, in words.
    pub doing: String,
    /// As far as it is known.
    pub report: Box<ToleranceReport>,
}

/// Holding every limit of a candidate against its tolerances.
pub struct ToleranceJob {
    build: Build,
    index: usize,
    begun: Begun,
    stages: Arc<Stages>,
}

/// Stands for the candidate and its tolerances, whatever was computed of its gas and its trains since.
fn by_document(resolved: &Resolved, fields: &[Toleranced]) -> Key {
    key(&(&resolved.given, fields))
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

/// Tells how far it is.
type Tell<'a> = &'a dyn Fn(&Drawing<'_>, &str);

/// Draws, checks, and draws in full what the responses do not hold: what is of metal, then what stands on gas and trains.
fn run(
    begun: &Begun,
    (source, stages): (&Source<'_>, &Stages),
    watch: &Watch<'_, ToleranceStep>,
) -> Result<ToleranceReport, Halted> {
    let tell = |drawing: &Drawing<'_>, doing: &str| {
        let report = Box::new(worded(drawing, source));
        (watch.report)(ToleranceStep { doing: doing.to_owned(), report });
    };
    let drawing = Drawing::of(begun, watch.stop).ok_or(Halted::Stopped)?;
    if drawing.responses.limits.is_empty() && !begun.has_gas_or_trains() {
        let reason = "no limit is known yet that anything could be off from".to_owned();
        return Err(Halted::Lacks { reason, needs: Vec::new() });
    }
    let drawing = metal(drawing, (watch.stop, &tell)).ok_or(Halted::Stopped)?;
    if !begun.has_gas_or_trains() {
        return Ok(worded(&drawing, source));
    }
    tell(&drawing, "running gas and trains with every field off by itself");
    let drawing = gas_and_trains((begun, stages), drawing, (watch.stop, &tell)).ok_or(Halted::Stopped)?;
    Ok(worded(&drawing, source))
}

fn metal<'a>(mut drawing: Drawing<'a>, (stop, tell): (Stop<'_>, Tell<'_>)) -> Option<Drawing<'a>> {
    tell(&drawing, "holding it against whole computations");
    drawing.hold((&drawing.all(), CHECKED), (Run::Metal, false), stop)?;
    let off = drawing.off();
    if !off.is_empty() {
        tell(&drawing, "computing in full what its responses miss");
        drawing.hold((&off, IN_FULL), (Run::Metal, true), stop)?;
    }
    Some(drawing)
}

fn gas_and_trains<'a>(
    (begun, stages): (&'a Begun, &Stages),
    by_metal: Drawing<'a>,
    (stop, tell): (Stop<'_>, Tell<'_>),
) -> Option<Drawing<'a>> {
    let (mut drawing, moved) = by_metal.straying(&begun.strays((stages, stop))?, stop)?;
    tell(&drawing, "holding it against gas and trains of whole engines");
    drawing.hold((&moved, CHECKED_GAS), (Run::GasAndTrains, false), stop)?;
    // What jumps counts by runs in full alone.
    let lost: Vec<usize> = moved.into_iter().filter(|place| drawing.trust(*place) == Some(Trust::Lost)).collect();
    if !lost.is_empty() {
        tell(&drawing, "running gas and trains of what jumps");
        drawing.hold((&lost, IN_FULL_GAS), (Run::GasAndTrains, true), stop)?;
    }
    Some(drawing)
}

/// Keeps a result for whoever asks for the same, and for the margins also when a curve has come since.
fn keep(begun: &Begun, report: &Arc<ToleranceReport>, stages: &Stages) {
    stages.tolerances.keep(begun.key(), Arc::clone(report));
    stages.tolerances.keep(by_document(&begun.resolved, &begun.fields), Arc::clone(report));
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
        let source = Source::new(&views[self.index], &ledger);
        let report = Arc::new(run(&self.begun, (&source, &self.stages), watch)?);
        keep(&self.begun, &report, &self.stages);
        Ok(report)
    }
}

/// The tolerances of a candidate at once, for the analysis.
pub(super) fn drawn(resolved: &Resolved, source: &Source<'_>, stages: &Stages) -> Part<ToleranceReport> {
    let begun = Begun::of(resolved.clone(), source, stages);
    if let Some(report) = stages.tolerances.kept(begun.key()) {
        return Ok(report.as_ref().clone());
    }
    let report = Arc::new(run(&begun, (source, stages), &Watch::nobody()).map_err(gap_of)?);
    keep(&begun, &report, stages);
    Ok(report.as_ref().clone())
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
