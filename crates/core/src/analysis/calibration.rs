//! Fitting the model to the pulls a document holds, as a job.

use super::curve::halted;
use super::pulling::measured;
use crate::build::Build;
use crate::candidate::breathing::calibration::{Fitted, Pull, Subject, fit, read_pull, root_mean_square, torques_of};
use crate::candidate::breathing::constants::{Calibrated, Constants};
use crate::candidate::breathing::{Effort, breathing_uncalibrated};
use crate::candidate::{Gap, Key, Resolved, Stages, key, worded};
use crate::document::{Fault, Ledger, unknown_candidate};
use crate::given::{Given, Source};
use crate::quantity::{Dimension, UnitSystem, format_si};
use crate::report::{CalibratedOn, CalibrationReport, ExplainsReport, FittedField};
use crate::shop_twin::Learned;
use crate::words::{CalibratedBy, Word};
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// Torque read over torque computed that a pull of the same engine may have (common practice, no source).
const LIKE: std::ops::RangeInclusive<f64> = 0.4..=2.5;

/// How far a fit is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CalibrationStep {
    /// Curves computed.
    pub done: usize,
    /// Curves at most.
    pub of: usize,
}

/// Fitting the named constants to all pulls of a document together.
pub struct CalibrationJob {
    subjects: Vec<Subject>,
    names: Vec<String>,
    stages: Arc<Stages>,
}

impl CalibrationJob {
    /// A fit to the pulls of `build`, each combination for its candidate: the means of those that count, or the single old pull.
    ///
    /// # Errors
    /// A fault when a pull names a candidate that is not there; inside, what is missing.
    pub fn new(build: &Build, stages: Arc<Stages>) -> Result<Result<Self, Halted>, Fault> {
        let measured = measured(build);
        if measured.is_empty() {
            return Self::of_single(build, stages);
        }
        let views = build.candidates();
        let (mut subjects, mut names) = (Vec::new(), Vec::new());
        for own in measured {
            let view = views.iter().find(|view| view.id == own.candidate);
            let view = view.ok_or_else(|| unknown_candidate("pulls", &own.candidate, &views))?;
            let ledger = Ledger::default();
            let source = Source::new(view, &ledger);
            match breathing_uncalibrated(&Resolved::new(Given::read(&source), &stages)) {
                Ok(breathing) => {
                    let Some(pull) = Pull::of(&own.points, own.level.as_deref(), &breathing) else { continue };
                    subjects.push(Subject { breathing, pull });
                    names.push(own.name);
                }
                Err(gap) => return Ok(Err(lacks(&gap, &source))),
            }
        }
        if subjects.is_empty() {
            let reason = "the pulls need at least three different speeds".to_owned();
            return Ok(Err(Halted::Lacks { reason, needs: Vec::new() }));
        }
        Ok(Ok(Self { subjects, names, stages }))
    }

    fn of_single(build: &Build, stages: Arc<Stages>) -> Result<Result<Self, Halted>, Fault> {
        let views = build.candidates();
        let ledger = Ledger::default();
        let pull = build.pull(&ledger);
        let view = match pull.word("candidate") {
            Some(id) => views.iter().find(|view| view.id == id),
            None => views.first(),
        };
        let named = pull.word("candidate").unwrap_or("nothing");
        let view = view.ok_or_else(|| unknown_candidate(&pull.path_of("candidate"), named, &views))?;
        let source = Source::new(view, &ledger);
        let resolved = Resolved::new(Given::read(&source), &stages);
        let found = breathing_uncalibrated(&resolved).and_then(|breathing| {
            let pull = read_pull(&resolved.given.pull, &breathing)?;
            Ok(Subject { breathing, pull })
        });
        Ok(match found {
            Ok(subject) => Ok(Self { subjects: vec![subject], names: vec![view.name.clone()], stages }),
            Err(gap) => Err(lacks(&gap, &source)),
        })
    }

    /// What was read where it is nothing like what the model has of this engine: no constants make that good.
    fn is_no_pull_of_this(&self, before: &[f64]) -> Option<String> {
        let rows = self.speeds().into_iter().zip(self.measured().into_iter().zip(before));
        let (rpm, (read, model)) = rows.into_iter().find(|(_, (read, model))| !LIKE.contains(&(read / *model)))?;
        let torque = |nm: f64| format_si(nm, Dimension::Torque, UnitSystem::Metric);
        Some(format!(
            "at {rpm:.0} rpm the pulls have {}, the model {}: that is another engine, another unit, or a throttle that was not open",
            torque(read),
            torque(*model)
        ))
    }

    fn measured(&self) -> Vec<f64> {
        self.subjects.iter().flat_map(|own| own.pull.torques.iter().copied()).collect()
    }

    fn speeds(&self) -> Vec<f64> {
        self.subjects.iter().flat_map(|own| own.pull.speeds.iter().copied()).collect()
    }

    fn fields(&self, constants: &Constants, remaining: f64) -> Vec<FittedField> {
        let speeds = self.speeds();
        let (from, to) = (speeds.iter().copied().reduce(f64::min), speeds.iter().copied().reduce(f64::max));
        fitted_fields(&Calibrated {
            constants: *constants,
            remaining,
            speeds: (from.unwrap_or(0.0), to.unwrap_or(0.0)),
            pulled: pulled_of(&self.names),
            by: CalibratedBy::Pull,
        })
    }
}

/// What the constants are called, in their order.
pub const LABELS: [&str; 4] = ["Port flow", "Friction", "Heat released", "Intake longer by"];

/// What a document keeps of constants, as it keeps it.
pub fn fitted_fields(own: &Calibrated) -> Vec<FittedField> {
    let constants = &own.constants;
    let speed = |rpm: f64| format!("{rpm:.0} rpm");
    vec![
        field("port_flow", LABELS[0], format!("{:.3}", constants.port_flow)),
        field("friction", LABELS[1], format!("{:.3}", constants.friction)),
        field("burning", LABELS[2], format!("{:.3}", constants.burning)),
        field("intake_length", LABELS[3], format_si(constants.intake_length, Dimension::Length, UnitSystem::Metric)),
        field("remaining", "Error left", format!("{:.4}", own.remaining)),
        field("from", "From", speed(own.speeds.0)),
        field("to", "To", speed(own.speeds.1)),
        field("pulled", "Fitted to", own.pulled.clone()),
        field("by", "Learned from", own.by.word().to_owned()),
    ]
}

/// One field of a calibration.
fn field(key: &str, label: &str, text: String) -> FittedField {
    FittedField { field: format!("calibration.{key}"), label: label.to_owned(), text }
}

/// What the shop's other builds learn from a fit, as a document keeps it.
fn information(learned: &Learned) -> FittedField {
    let numbers: Vec<String> = learned.numbers().iter().map(|own| format!("{own:.3}")).collect();
    field("information", "What the fit left behind", format!("[{}]", numbers.join(", ")))
}

impl CalibrationJob {
    /// Each constant by itself, in words.
    fn explains(&self, alone: [(f64, f64); 4]) -> Vec<ExplainsReport> {
        let named = |k: usize| {
            let mut values: [f64; 4] = Constants::default().into();
            values[k] = alone[k].0;
            let field = self.fields(&rounded(&Constants::from(values)), alone[k].1).swap_remove(k);
            ExplainsReport { label: field.label, text: field.text, left_error: alone[k].1 }
        };
        let mut all: Vec<ExplainsReport> = (0..4).map(named).collect();
        all.sort_by(|a, b| a.left_error.total_cmp(&b.left_error));
        all
    }
}

impl Job for CalibrationJob {
    type Step = CalibrationStep;
    type Done = CalibrationReport;

    fn key(&self) -> Key {
        key(&(&self.subjects, &self.names))
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<CalibrationReport>> {
        self.stages.fits.kept(self.key())
    }

    /// Fits on drafts, or on one cylinder where the document does not say how they are joined, then judges in full.
    fn run(&self, watch: &Watch<'_, CalibrationStep>) -> Result<Arc<CalibrationReport>, Halted> {
        let joined = self.subjects.iter().all(|own| own.breathing.can(Effort::Full).is_ok());
        let efforts = if joined { (Effort::Draft, Effort::Full) } else { (Effort::Fast, Effort::Fast) };
        let tell = |done, of| (watch.report)(CalibrationStep { done, of });
        let found = fit(&self.subjects, efforts.0, watch.stop, tell).map_err(halted)?;
        let Fitted { constants, alone, learned, .. } = found;
        // As the document will keep them: what is written is what is judged.
        let kept = rounded(&constants);
        let full = |constants: &Constants| torques_of(&self.subjects, constants, efforts.1, watch.stop).map_err(halted);
        let (before_nm, after_nm) = (full(&Constants::default())?, full(&kept)?);
        let measured_nm = self.measured();
        if let Some(reason) = self.is_no_pull_of_this(&before_nm) {
            return Err(Halted::Lacks { reason, needs: Vec::new() });
        }
        let error = |found: &[f64]| {
            let errors: Vec<f64> = found.iter().zip(&measured_nm).map(|(found, own)| found / own - 1.0).collect();
            root_mean_square(&errors)
        };
        let after_error = error(&after_nm);
        let report = Arc::new(CalibrationReport {
            before_error: error(&before_nm),
            fields: [self.fields(&kept, after_error), vec![information(&learned)]].concat(),
            after_error,
            speed_rpm: self.speeds(),
            of: self.subjects.iter().zip(&self.names).map(on).collect(),
            explains: self.explains(alone),
            measured_nm,
            before_nm,
            after_nm,
        });
        self.stages.fits.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }
}

fn on((subject, name): (&Subject, &String)) -> CalibratedOn {
    CalibratedOn { name: name.clone(), speeds: subject.pull.speeds.len() }
}

fn lacks(gap: &Gap, source: &Source<'_>) -> Halted {
    let (reason, needs) = worded(gap, source);
    Halted::Lacks { reason, needs }
}

/// Whose pulls they were, in at most as many letters as a document keeps.
fn pulled_of(names: &[String]) -> String {
    let text = match names {
        [one] => format!("a pull of {one}"),
        several => format!("pulls of {}", several.join(", ")),
    };
    text.chars().take(200).collect()
}

/// To the digits a document keeps.
pub fn rounded(constants: &Constants) -> Constants {
    let to = |value: f64, digits: f64| (value * digits).round() / digits;
    Constants {
        port_flow: to(constants.port_flow, 1e3),
        friction: to(constants.friction, 1e3),
        burning: to(constants.burning, 1e3),
        intake_length: to(constants.intake_length, 1e5),
    }
}
