//! Torque and power as a job: points as they come, the whole curve kept by what it is computed from; and what limits ask
//! of it.

use crate::build::Build;
use crate::candidate::breathing::{Breathing, Effort, Ended, Sample, breathing_of, report, samples, trace};
use crate::candidate::{Gap, Key, Part, Resolved, Stages, key, worded};
use crate::document::{Fault, Ledger, candidate_or_first};
use crate::given::{Given, Source};
use crate::limits::GasFinding;
use crate::quantity::Pressure;
use crate::report::{BreathingReport, Curve};
use crate::response::judged;
use crate::work::{Class, Halted, Job, Watch, held};
use serde::Serialize;
use std::sync::{Arc, Mutex};

/// Points so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CurveStep {
    /// Points computed.
    pub done: usize,
    /// Points of the whole curve.
    pub of: usize,
    /// The curve so far.
    pub curve: Box<BreathingReport>,
}

/// Computing the curve of one candidate.
pub struct CurveJob {
    breathing: Breathing,
    effort: Effort,
    level: usize,
    stages: Arc<Stages>,
}

impl CurveJob {
    /// The curve of the candidate `id`, or of the first, on the boost level of that name, or on the strongest.
    ///
    /// # Errors
    /// A fault when there is no such candidate; inside, what is missing for a curve of this effort.
    pub fn new(
        build: &Build,
        id: Option<&str>,
        (effort, level): (Effort, Option<&str>),
        stages: Arc<Stages>,
    ) -> Result<Result<Self, Halted>, Fault> {
        Ok(breathing_inputs(build, id, Some(effort), &stages)?.map(|breathing| {
            let named = level.and_then(|name| breathing.air.levels.iter().position(|level| level.name == name));
            let level = named.unwrap_or_else(|| breathing.strongest());
            Self { breathing, effort, level, stages }
        }))
    }
}

impl Job for CurveJob {
    type Step = CurveStep;
    type Done = Curve;

    fn key(&self) -> Key {
        curve_key(&self.breathing, self.effort, self.level)
    }

    fn class(&self) -> Class {
        if matches!(self.effort, Effort::Preview | Effort::Screening) { Class::Preview } else { Class::Result }
    }

    fn kept(&self) -> Option<Arc<Curve>> {
        self.stages.curves.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, CurveStep>) -> Result<Arc<Curve>, Halted> {
        let Self { breathing, effort, level, stages } = self;
        let of = breathing.speeds(*effort).len();
        let so_far: Mutex<Vec<Sample>> = Mutex::default();
        let report_step = |sample: &Sample| {
            let mut found = held(&so_far);
            let at = found.partition_point(|other| other.point.rpm < sample.point.rpm);
            found.insert(at, sample.clone());
            // The last point comes with the whole curve; of a result nobody knows which it is, since speeds are added.
            if found.len() < of || effort.is_result() {
                let curve = Box::new(report(breathing, *effort, *level, &found, None));
                (watch.report)(CurveStep { done: found.len(), of: of.max(found.len()), curve });
            }
        };
        let curve = computed(breathing, (*effort, *level), watch.stop, report_step).map_err(halted)?;
        let curve = Arc::new(curve);
        stages.curves.keep(self.key(), Arc::clone(&curve));
        Ok(curve)
    }
}

/// The curve with its traces; of a result with idle and cranking, which do not follow a drag.
fn computed(
    breathing: &Breathing,
    (effort, level): (Effort, usize),
    stop: &(dyn Fn() -> bool + Sync),
    tell: impl Fn(&Sample) + Sync,
) -> Result<Curve, Ended> {
    let samples = samples(breathing, (effort, level), stop, tell)?;
    let ends = effort.is_result().then(|| breathing.idle_and_cranking(stop)).transpose()?;
    Ok(Curve {
        report: report(breathing, effort, level, &samples, ends.as_ref()),
        traces: samples.iter().map(|sample| trace(breathing, sample)).collect(),
    })
}

/// Whether the document says how the cylinders are joined, so that whole engines are drafted.
pub(super) fn can_draft(resolved: &Resolved) -> bool {
    breathing_of(resolved).is_ok_and(|breathing| breathing.can(Effort::Draft).is_ok())
}

/// The whole curve of a candidate on its strongest boost level, as deep as the document is whole enough for. It is kept for what
/// asks for it later.
///
/// # Errors
/// That it was stopped, or what is missing.
pub(super) fn deepest_curve(
    resolved: &Resolved,
    stages: &Stages,
    stop: &(dyn Fn() -> bool + Sync),
) -> Result<Arc<Curve>, Ended> {
    let breathing = breathing_of(resolved)?;
    let (effort, level) = (breathing.deepest(), breathing.strongest());
    let key = curve_key(&breathing, effort, level);
    if let Some(kept) = stages.curves.kept(key) {
        return Ok(kept);
    }
    let curve = Arc::new(computed(&breathing, (effort, level), stop, |_| ())?);
    stages.curves.keep(key, Arc::clone(&curve));
    Ok(curve)
}

/// The same at once, for the analysis.
pub(super) fn whole_curve(resolved: &Resolved, stages: &Stages) -> Part<BreathingReport> {
    let curve = deepest_curve(resolved, stages, &|| false).map_err(Ended::gap)?;
    Ok(curve.report.clone())
}

/// What a block of a report lacks where the work for it ended.
pub(super) fn gap_of(halted: Halted) -> Gap {
    match halted {
        Halted::Stopped => Gap::because("stopped"),
        Halted::Lacks { reason, .. } => Gap::because(reason),
    }
}

/// Why work on the gas ended, where nothing is missing any more.
pub(super) fn halted(ended: Ended) -> Halted {
    match ended {
        Ended::Stopped => Halted::Stopped,
        Ended::Gap(gap) => Halted::Lacks { reason: gap.reason, needs: Vec::new() },
    }
}

fn curve_key(breathing: &Breathing, effort: Effort, level: usize) -> Key {
    key(&(breathing, effort, level))
}

/// A whole curve of its strongest level, or that of one cylinder, with what stands for it.
pub(super) fn kept_curve(resolved: &Resolved, stages: &Stages) -> Option<(Key, Arc<Curve>)> {
    if stages.curves.is_empty() {
        return None;
    }
    let breathing = breathing_of(resolved).ok()?;
    let level = breathing.strongest();
    let kept = |effort| {
        let key = curve_key(&breathing, effort, level);
        Some((key, stages.curves.kept(key)?))
    };
    kept(Effort::Full).or_else(|| kept(Effort::Fast))
}

/// What the curve of the candidate `id`, or of the first, is computed from; with `effort`, enough for a curve of that one.
pub(super) fn breathing_inputs(
    build: &Build,
    id: Option<&str>,
    effort: Option<Effort>,
    stages: &Stages,
) -> Result<Result<Breathing, Halted>, Fault> {
    let views = build.candidates();
    let view = candidate_or_first(&views, id)?;
    let ledger = Ledger::default();
    let source = Source::new(view, &ledger);
    let breathing = breathing_of(&Resolved::new(Given::read(&source), stages)).and_then(|breathing| {
        effort.map_or(Ok(()), |effort| breathing.can(effort))?;
        Ok(breathing)
    });
    Ok(breathing.map_err(|gap| {
        let (reason, needs) = worded(&gap, &source);
        Halted::Lacks { reason, needs }
    }))
}

/// What limits ask of a curve, over the speeds that are judged.
pub(super) fn gas_finding(curve: &BreathingReport) -> GasFinding {
    let [from, to] = curve.band_rpm;
    let (least, last) = judged((from, to), curve.shift_rpm);
    let most = |values: &[f64]| {
        let judged = curve.speed_rpm.iter().zip(values).filter(|(rpm, _)| (least..=last).contains(*rpm));
        judged.map(|(_, value)| *value).fold(f64::NEG_INFINITY, f64::max)
    };
    let gauge = |values: &Option<Vec<f64>>| values.as_ref().map(|kpa| Pressure::from_si(most(kpa) * 1e3));
    GasFinding {
        octane_needed: curve.octane_needed.as_deref().map(&most),
        peak_pressure: most(&curve.peak_cylinder_pressure_kpa) * 1e3,
        opening_pressure: most(&curve.exhaust_opening_kpa) * 1e3,
        idle_vacuum: curve.idle.as_ref().map(|idle| idle.vacuum_kpa.unwrap_or(0.0) * 1e3),
        boost: gauge(&curve.boost_kpa).zip(gauge(&curve.drive_kpa)),
    }
}
