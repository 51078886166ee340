//! What is wrong with a measured curve, as a job: symptoms at once, then every cause that the model knows run in it and laid over what is
//! off.

use super::causes::{CAUSES, Cause, Sign};
use super::curve::halted;
use super::drafting::{drafted, effort_of};
use super::pulled::{FIRST, Pulled, pulled};
use super::pulling::{Plan, Tested};
use crate::build::Build;
use crate::candidate::breathing::breathing_of;
use crate::candidate::{Key, Resolved, Stages, key};
use crate::document::{Fault, Ledger, candidate_or_first};
use crate::given::{Given, Source};
use crate::pulls::level::at;
use crate::pulls::symptoms::{Symptom, Trust, explained, scatter, symptoms};
use crate::quantity::Shown;
use crate::report::{CauseReport, DiagnosisReport, SymptomReport};
use crate::table::held;
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// What a cause that was not run is taken to explain.
const NOT_RUN: f64 = 0.35;
/// Below that share of what is off a cause that was run explains nothing.
const NOTHING: f64 = 0.05;
/// A change of torque that is none, as a share.
const HARDLY: f64 = 0.003;
/// Minutes that a dollar counts.
const MINUTES: f64 = 1.0;

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DiagnosisStep {
    /// Curves computed.
    pub done: usize,
    /// Curves in all.
    pub of: usize,
    /// As far as it is known; absent until the reference is there.
    pub report: Option<Box<DiagnosisReport>>,
}

/// Looking into what is wrong with a candidate's pulls.
pub struct DiagnosisJob {
    resolved: Resolved,
    name: String,
    speeds: Vec<f64>,
    measured: Vec<f64>,
    /// Of pulls of another day; the model's draft where there is none.
    before: Option<(String, Vec<f64>)>,
    scatter: Option<Symptom>,
    on_rollers: bool,
    stages: Arc<Stages>,
}

impl DiagnosisJob {
    /// Of the pulls of candidate `id`, or of the first: held against what the model predicts, or against its pulls of the day `day`.
    ///
    /// # Errors
    /// No such candidate, no pull of it, or none of that day.
    pub fn new(build: &Build, id: Option<&str>, day: Option<&str>, stages: Arc<Stages>) -> Result<Self, Fault> {
        let views = build.candidates();
        let view = candidate_or_first(&views, id)?;
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let resolved = Resolved::new(Given::read(&source), &stages);
        let all: Vec<Pulled> = pulled(build, None).into_iter().filter(|own| own.candidate == view.id).collect();
        // The single old pull counts where there is no other.
        let has_more = all.iter().any(|own| own.id != FIRST);
        let all: Vec<Pulled> = all.into_iter().filter(|own| !has_more || own.id != FIRST).collect();
        let (before, now): (Vec<Pulled>, Vec<Pulled>) = all.into_iter().partition(|own| day == Some(own.day.as_str()));
        let plan = Plan::of(build);
        let tested = Tested::of(&now, &plan);
        if tested.speeds.len() < 3 {
            let needs = "a pull of it that counts, over enough speeds";
            return Err(Fault::new("pulls", &view.name, needs));
        }
        let before =
            day.map(|day| earlier(&before, &plan, &tested.speeds).map(|own| (day.to_owned(), own))).transpose()?;
        let measured = tested.mean(0);
        let residuals = now.iter().filter(|own| own.left_out.is_none()).flat_map(residuals).collect::<Vec<_>>();
        Ok(Self {
            resolved,
            name: view.name.clone(),
            scatter: scatter(&residuals),
            on_rollers: now.iter().any(|own| own.on_rollers),
            speeds: tested.speeds,
            measured,
            before,
            stages,
        })
    }

    /// Torque of a draft at the speeds of the pulls.
    fn drafted(&self, resolved: &Resolved, stop: &(dyn Fn() -> bool + Sync)) -> Result<Vec<f64>, Halted> {
        let lacks = |reason: String| Halted::Lacks { reason, needs: Vec::new() };
        let breathing = breathing_of(resolved).map_err(|gap| lacks(gap.reason))?;
        let curve = drafted(&breathing, effort_of(&breathing), &self.stages, stop).map_err(halted)?;
        let curve = curve.as_ref().as_ref().ok_or_else(|| lacks("the gas does not settle".to_owned()))?;
        // Torque is the first of what is kept of a curve, a value a speed.
        let points: Vec<(f64, f64)> = curve.speeds.iter().copied().zip(curve.values.iter().copied()).collect();
        Ok(self.speeds.iter().map(|rpm| held(&points, *rpm)).collect())
    }

    fn symptoms(&self, reference: &[f64]) -> Vec<Symptom> {
        let trust = if self.before.is_some() { Trust::BEFORE } else { Trust::PREDICTED };
        let mut found = symptoms(&self.speeds, &self.measured, reference, trust);
        found.extend(self.scatter.clone());
        found
    }

    fn report(&self, reference: &[f64], found: &[Symptom], run: &[Run]) -> DiagnosisReport {
        let mut causes: Vec<(f64, CauseReport)> =
            run.iter().filter_map(|own| own.report(found, (&self.measured, reference))).collect();
        let whole: f64 = causes.iter().map(|own| own.1.share).sum();
        causes.iter_mut().for_each(|own| own.1.share /= whole.max(f64::MIN_POSITIVE));
        // The order that finds it soonest: what is likely for the time it takes [search of boxes: Bellman; from memory].
        causes.sort_by(|a, b| b.0.total_cmp(&a.0));
        let against = match &self.before {
            Some((day, _)) => format!("its own pulls of {day}"),
            None => "what the model predicts".to_owned(),
        };
        DiagnosisReport {
            says: self.says(found, &against, &causes),
            candidate: self.name.clone(),
            against,
            speed_rpm: self.speeds.clone(),
            measured_nm: self.measured.clone(),
            reference_nm: reference.to_vec(),
            symptoms: found.iter().map(told).collect(),
            causes: causes.into_iter().map(|own| own.1).collect(),
            to_run: run.iter().filter(|own| own.is_waiting).count(),
        }
    }

    fn says(&self, found: &[Symptom], against: &str, causes: &[(f64, CauseReport)]) -> Shown {
        let name = &self.name;
        let Some(first) = found.first() else {
            return Shown::plain(format!("Nothing is wrong with {name} beside {against}."));
        };
        let next = causes.first().map(|(_, own)| format!(" Look into this first: {}.", own.title.to_lowercase()));
        Shown::plain(format!("{name}: {}{}", told(first).says, next.unwrap_or_default()))
    }
}

/// The mean of the pulls of an earlier day at the speeds of the later ones.
fn earlier(pulls: &[Pulled], plan: &Plan, speeds: &[f64]) -> Result<Vec<f64>, Fault> {
    let tested = Tested::of(pulls, plan);
    if tested.speeds.len() < 3 {
        return Err(Fault::new("day", "that day", "a day with a pull that counts, over enough speeds"));
    }
    let points: Vec<(f64, f64)> = tested.speeds.iter().copied().zip(tested.mean(0)).collect();
    Ok(speeds.iter().map(|rpm| held(&points, *rpm)).collect())
}

/// Every counted point of a pull as a share off the pull's own smooth curve.
fn residuals(pull: &Pulled) -> Vec<(f64, f64)> {
    let speeds: Vec<f64> = pull.counted.iter().map(|own| own.0).collect();
    let (Some(first), Some(last)) = (speeds.first(), speeds.last()) else { return Vec::new() };
    let even: Vec<f64> = (0..=((last - first) / 100.0) as usize).map(|own| first + 100.0 * own as f64).collect();
    let smooth: Vec<(f64, f64)> = even.iter().copied().zip(at(&pull.counted, &even)).collect();
    pull.counted.iter().map(|(rpm, torque)| (*rpm, torque / held(&smooth, *rpm) - 1.0)).collect()
}

/// A cause as far as it was run.
struct Run {
    cause: &'static Cause,
    /// Relative change of torque that it makes, at the speeds of the pulls.
    makes: Option<Vec<f64>>,
    is_waiting: bool,
}

impl Run {
    /// How soon it is best looked into, and the cause; `None` where it makes none of what is wrong.
    fn report(&self, found: &[Symptom], (measured, reference): (&[f64], &[f64])) -> Option<(f64, CauseReport)> {
        let behind = |symptom: &Symptom| {
            let sign = Sign::of(symptom);
            self.cause.behind.iter().find(|(own, _)| *own == sign).map_or(0.0, |(_, often)| *often)
        };
        let often: f64 = found.iter().map(behind).sum();
        let off: Vec<f64> = measured.iter().zip(reference).map(|(own, other)| own / other - 1.0).collect();
        // What hardly moves torque would have to be made absurdly strong to explain anything.
        let moves = |makes: &&Vec<f64>| makes.iter().any(|by| by.abs() > HARDLY);
        let fit = self.makes.as_ref().map(|own| Some(own).filter(moves).map_or((0.0, 0.0), |own| explained(&off, own)));
        let least = if self.cause.by_control { NOT_RUN } else { NOTHING };
        let weight = often * fit.map_or(NOT_RUN, |(share, _)| share.max(least));
        let cost = f64::from(self.cause.minutes) + MINUTES * f64::from(self.cause.usd);
        let report = CauseReport {
            id: self.cause.id.to_owned(),
            title: self.cause.title.to_owned(),
            because: self.cause.because.to_owned(),
            test: self.cause.test.to_owned(),
            minutes: self.cause.minutes,
            usd: self.cause.usd,
            share: weight,
            tried: self.cause.tried.to_owned(),
            explains: fit.map(|own| own.0),
            times: fit.map(|own| own.1).filter(|times| *times > 0.0),
            torque_nm: self
                .makes
                .as_ref()
                .map(|makes| reference.iter().zip(makes).map(|(torque, by)| torque * (1.0 + by)).collect()),
        };
        (often > 0.0).then(|| (weight / cost.max(5.0), report))
    }
}

fn told(symptom: &Symptom) -> SymptomReport {
    let percent = |share: f64| format!("{:.1} %", 100.0 * share);
    let (kind, from_rpm, says) = match symptom {
        Symptom::NoseOver { from, falls } => (
            "nose_over",
            Some(*from),
            format!("it noses over from {from:.0} rpm on, {} lost by its end that was there before.", percent(*falls)),
        ),
        Symptom::Flat { from, falls } => (
            "flat",
            Some(*from),
            format!(
                "power stands still from {from:.0} rpm on, {} of the torque lost by where it should peak.",
                percent(*falls)
            ),
        ),
        Symptom::Fades { falls } => {
            ("fades", None, format!("it loses more and more with speed, {} by its end.", percent(*falls)))
        }
        Symptom::Sag { from, to, deep } => {
            ("sag", Some(*from), format!("it sags between {from:.0} and {to:.0} rpm by {}.", percent(*deep)))
        }
        Symptom::Low { by } => ("low", None, format!("it is low all over, by {}.", percent(*by))),
        Symptom::Scatter { from, times } => (
            "scatter",
            Some(*from),
            format!("its points scatter from {from:.0} rpm on, {times:.0} times as much as below: as a misfire does."),
        ),
    };
    SymptomReport { kind: kind.to_owned(), from_rpm, says }
}

impl Job for DiagnosisJob {
    type Step = DiagnosisStep;
    type Done = DiagnosisReport;

    fn key(&self) -> Key {
        key(&(&self.resolved.given, &self.speeds, &self.measured, &self.before, &self.scatter, self.on_rollers))
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<DiagnosisReport>> {
        self.stages.diagnoses.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, DiagnosisStep>) -> Result<Arc<DiagnosisReport>, Halted> {
        let mut run: Vec<Run> = CAUSES
            .iter()
            .filter(|cause| (cause.applies)(&self.resolved, self.on_rollers))
            .map(|cause| Run { cause, makes: None, is_waiting: cause.made.is_some() })
            .collect();
        let of = 1 + run.iter().filter(|own| own.is_waiting).count();
        let tell = |done: usize, report: Option<Box<DiagnosisReport>>| {
            (watch.report)(DiagnosisStep { done, of, report });
        };
        tell(0, None);
        let sound = self.drafted(&self.resolved, watch.stop)?;
        let reference = self.before.as_ref().map_or_else(|| sound.clone(), |own| own.1.clone());
        let found = self.symptoms(&reference);
        let mut done = 1;
        // With nothing wrong there is nothing to explain.
        if found.is_empty() {
            run.clear();
        }
        for place in 0..run.len() {
            tell(done, Some(Box::new(self.report(&reference, &found, &run))));
            let Some(made) = run[place].cause.made else { continue };
            let mut given = self.resolved.given.clone();
            if made(&mut given).is_some() {
                match self.drafted(&Resolved::new(given, &self.stages), watch.stop) {
                    Ok(torque) => {
                        run[place].makes =
                            Some(torque.iter().zip(&sound).map(|(own, base)| own / base - 1.0).collect());
                    }
                    Err(Halted::Stopped) => return Err(Halted::Stopped),
                    // What the model cannot run is looked into all the same.
                    Err(Halted::Lacks { .. }) => {}
                }
            }
            run[place].is_waiting = false;
            done += 1;
        }
        let report = Arc::new(self.report(&reference, &found, &run));
        self.stages.diagnoses.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }
}
