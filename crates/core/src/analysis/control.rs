//! The valve train in motion as a job, as a film, and as the analysis asks for it; what limits ask of it.

use super::curve::{gap_of, kept_curve};
use super::speed_bought::Variants;
use super::turning::{ControlStep, USUAL_TOP, trains, turned, usual};
use crate::build::Build;
use crate::candidate::dynamics::{SideTrain, THRESHOLD, film_of, side_train};
use crate::candidate::{Gap, Key, Part, Resolved, Stages, closed_gap, key, worded};
use crate::document::{Fault, Ledger, Side, candidate_or_first};
use crate::given::{Given, Source};
use crate::limits::{ControlFinding, InMotion};
use crate::parts::Part as ShelfPart;
use crate::report::{Curve, DynamicsReport, DynamicsSide, FilmReport};
use crate::work::{Class, Halted, Job, Watch};
use std::sync::Arc;

/// Speeds that are filmed, rpm.
const FILMED: std::ops::RangeInclusive<f64> = 300.0..=20_000.0;

/// Turning the trains of one candidate.
pub struct ControlJob {
    resolved: Resolved,
    threshold: f64,
    /// Only where the usual train loses control, for what follows a drag.
    is_preview: bool,
    /// What breathing found of it.
    curve: Option<(Key, Arc<Curve>)>,
    /// The document and the candidate's place in it, for what buys speed.
    build: Build,
    index: usize,
    shelf: Arc<[ShelfPart]>,
    stages: Arc<Stages>,
}

impl ControlJob {
    /// Of the candidate `id`, or of the first, with a threshold in mm or the usual one; see [`Self::preview`].
    ///
    /// # Errors
    /// A fault when there is no such candidate; inside, what is missing.
    pub fn new(
        build: &Build,
        id: Option<&str>,
        threshold_mm: Option<f64>,
        (shelf, stages): (Arc<[ShelfPart]>, Arc<Stages>),
    ) -> Result<Result<Self, Halted>, Fault> {
        let views = build.candidates();
        let view = candidate_or_first(&views, id)?;
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let resolved = Resolved::new(Given::read(&source), &stages);
        let curve = kept_curve(&resolved, &stages);
        if let Err(gap) = trains(&resolved, None) {
            let (reason, needs) = worded(&gap, &source);
            return Ok(Err(Halted::Lacks { reason, needs }));
        }
        let (build, index) = (build.clone(), view.index);
        let threshold = threshold_mm.map_or(THRESHOLD, |mm| mm.clamp(0.05, 3.0) * 1e-3);
        Ok(Ok(Self { resolved, threshold, is_preview: false, curve, build, index, shelf, stages }))
    }
}

impl ControlJob {
    /// The same, but no more than where the usual train loses control: a tenth of a second.
    #[must_use]
    pub fn preview(self) -> Self {
        Self { is_preview: true, ..self }
    }
}

impl Job for ControlJob {
    type Step = ControlStep;
    type Done = DynamicsReport;

    fn key(&self) -> Key {
        let curve = self.curve.as_ref().map(|(key, _)| *key);
        // A shelf changes what buys speed, not the limit.
        key(&(keyed(&self.resolved, curve, self.threshold), names(&self.shelf), self.is_preview))
    }

    fn class(&self) -> Class {
        if self.is_preview { Class::Preview } else { Class::Result }
    }

    fn kept(&self) -> Option<Arc<DynamicsReport>> {
        self.stages.motions.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, ControlStep>) -> Result<Arc<DynamicsReport>, Halted> {
        let curve = self.curve.as_ref().map(|(_, curve)| curve.as_ref());
        let (build, index, shelf) = (&self.build, self.index, self.shelf.as_ref());
        let variants = Variants { build, index, resolved: &self.resolved, shelf, stages: &self.stages };
        if self.is_preview {
            let report = Arc::new(usual(&variants, curve, self.threshold, watch.stop)?);
            self.stages.motions.keep(self.key(), Arc::clone(&report));
            return Ok(report);
        }
        let report = Arc::new(turned(&variants, curve, self.threshold, watch)?);
        self.stages.motions.keep(self.key(), Arc::clone(&report));
        // Limits ask for it without a shelf.
        let curve = self.curve.as_ref().map(|(key, _)| *key);
        self.stages.motions.keep(keyed(&self.resolved, curve, self.threshold), Arc::clone(&report));
        Ok(report)
    }
}

/// Stands for the parts of a shelf.
fn names(shelf: &[ShelfPart]) -> Key {
    key(&shelf)
}

/// Both trains of the candidate `id`, or of the first, through a cycle at `rpm`: some milliseconds.
///
/// # Errors
/// A fault when there is no such candidate or speed; inside, what is missing.
pub fn film(build: &Build, id: Option<&str>, rpm: f64, stages: &Stages) -> Result<Result<FilmReport, Halted>, Fault> {
    if !FILMED.contains(&rpm) {
        let needs = format!("a speed, {:.0} to {:.0} rpm", FILMED.start(), FILMED.end());
        return Err(Fault::new("rpm", &rpm.to_string(), needs));
    }
    let views = build.candidates();
    let view = candidate_or_first(&views, id)?;
    let ledger = Ledger::default();
    let source = Source::new(view, &ledger);
    let resolved = Resolved::new(Given::read(&source), stages);
    let curve = kept_curve(&resolved, stages);
    let filmed = trains(&resolved, curve.as_ref().map(|(_, curve)| curve.as_ref())).and_then(|[intake, exhaust]| {
        let side = |train: &SideTrain<'_>| film_of(train, rpm).ok_or_else(|| Gap::because("the springs have no mass"));
        Ok(FilmReport { rpm, intake: side(&intake)?, exhaust: side(&exhaust)? })
    });
    Ok(filmed.map_err(|gap| {
        let (reason, needs) = worded(&gap, &source);
        Halted::Lacks { reason, needs }
    }))
}

/// Stands for everything a report of `resolved` depends on.
fn keyed(resolved: &Resolved, curve: Option<Key>, threshold: f64) -> Key {
    let target = &resolved.given.target;
    let speeds = (target.shift_at, target.overspeed_by);
    let trains = Side::BOTH.map(|side| side_train(resolved, side).ok().map(|train| train.key()));
    // What buys speed changes fields of the train and the card as they are given.
    let given = Side::BOTH.map(|side| (resolved.train(side).clone(), resolved.given.lobe(side).clone()));
    key(&(trains, given, around(resolved), speeds, curve, threshold))
}

/// What is held against the motion but does not make it: core, tube and crown.
fn around(resolved: &Resolved) -> impl std::fmt::Debug {
    let closed = Side::BOTH.map(|side| closed_gap(resolved, side).ok());
    (resolved.given.cam.core_material, closed)
}

/// The key with the usual threshold.
pub(super) fn motion_key(resolved: &Resolved, curve: Option<Key>) -> Key {
    keyed(resolved, curve, THRESHOLD)
}

/// The report of a candidate at once, for the analysis.
pub(super) fn in_motion(variants: &Variants<'_>) -> Part<DynamicsReport> {
    trains(variants.resolved, None)?;
    let curve = kept_curve(variants.resolved, variants.stages);
    let motion = motion_key(variants.resolved, curve.as_ref().map(|(key, _)| *key));
    let with_shelf = key(&(motion, names(variants.shelf)));
    if let Some(report) = variants.stages.motions.kept(with_shelf) {
        return Ok(report.as_ref().clone());
    }
    let curve = curve.as_ref().map(|(_, curve)| curve.as_ref());
    let report = Arc::new(turned(variants, curve, THRESHOLD, &Watch::nobody()).map_err(gap_of)?);
    // For what looks at it later; limits ask for it without a shelf.
    variants.stages.motions.keep(with_shelf, Arc::clone(&report));
    variants.stages.motions.keep(motion, Arc::clone(&report));
    Ok(report.as_ref().clone())
}

/// What limits ask of it.
pub(super) fn control_finding(report: &DynamicsReport) -> ControlFinding {
    let reached = report.missed_rpm.unwrap_or(USUAL_TOP);
    let of = |side: &DynamicsSide| InMotion::of(side, reached, report.looked_to_rpm);
    ControlFinding { sides: [of(&report.intake), of(&report.exhaust)] }
}
