//! Fitting the model to the pull a document holds, as a job.

use super::curve::halted;
use crate::build::Build;
use crate::candidate::breathing::calibration::{Fitted, Pull, error, fit, read_pull, torques};
use crate::candidate::breathing::constants::Constants;
use crate::candidate::breathing::{Breathing, Effort, breathing_uncalibrated};
use crate::candidate::{Key, Resolved, Stages, key, worded};
use crate::document::{Fault, Ledger, unknown_candidate};
use crate::given::{Given, Source};
use crate::quantity::{Dimension, UnitSystem, format_si};
use crate::report::{CalibrationReport, FittedField};
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// How far a fit is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CalibrationStep {
    /// Curves computed.
    pub done: usize,
    /// Curves at most.
    pub of: usize,
}

/// Fitting the named constants to a pull.
pub struct CalibrationJob {
    breathing: Breathing,
    pull: Pull,
    name: String,
    stages: Arc<Stages>,
}

impl CalibrationJob {
    /// A fit to the pull of `build`, for the candidate it is of.
    ///
    /// # Errors
    /// A fault when the pull names a candidate that is not there; inside, what is missing.
    pub fn new(build: &Build, stages: Arc<Stages>) -> Result<Result<Self, Halted>, Fault> {
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
            Ok((breathing, pull))
        });
        Ok(match found {
            Ok((breathing, pull)) => Ok(Self { breathing, pull, name: view.name.clone(), stages }),
            Err(gap) => {
                let (reason, needs) = worded(&gap, &source);
                Err(Halted::Lacks { reason, needs })
            }
        })
    }

    fn fields(&self, constants: &Constants, remaining: f64) -> Vec<FittedField> {
        let field = |key: &str, label: &str, text: String| FittedField {
            field: format!("calibration.{key}"),
            label: label.to_owned(),
            text,
        };
        let speed = |rpm: Option<&f64>| format!("{:.0} rpm", rpm.copied().unwrap_or(0.0));
        vec![
            field("port_flow", "Port flow", format!("{:.3}", constants.port_flow)),
            field("friction", "Friction", format!("{:.3}", constants.friction)),
            field("burning", "Heat released", format!("{:.3}", constants.burning)),
            field(
                "intake_length",
                "Intake longer by",
                format_si(constants.intake_length, Dimension::Length, UnitSystem::Metric),
            ),
            field("remaining", "Error left", format!("{remaining:.4}")),
            field("from", "From", speed(self.pull.speeds.first())),
            field("to", "To", speed(self.pull.speeds.last())),
            field("pulled", "Fitted to", format!("a pull of {}", self.name)),
        ]
    }
}

impl Job for CalibrationJob {
    type Step = CalibrationStep;
    type Done = CalibrationReport;

    fn key(&self) -> Key {
        key(&(&self.breathing, &self.pull, &self.name))
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<CalibrationReport>> {
        self.stages.fits.kept(self.key())
    }

    /// Fits on drafts, or on one cylinder where the document does not say how they are joined, then judges in full.
    fn run(&self, watch: &Watch<'_, CalibrationStep>) -> Result<Arc<CalibrationReport>, Halted> {
        let joined = self.breathing.can(Effort::Full).is_ok();
        let efforts = if joined { (Effort::Draft, Effort::Full) } else { (Effort::Fast, Effort::Fast) };
        let tell = |done, of| (watch.report)(CalibrationStep { done, of });
        let found = fit(&self.breathing, &self.pull, efforts.0, watch.stop, tell).map_err(halted)?;
        let Fitted { constants, .. } = found;
        // As the document will keep them: what is written is what is judged.
        let kept = rounded(&constants);
        let full = |constants: &Constants| {
            torques(&self.breathing, &self.pull, constants, efforts.1, watch.stop).map_err(halted)
        };
        let (before_nm, after_nm) = (full(&Constants::default())?, full(&kept)?);
        let after_error = error(&self.pull, &after_nm);
        let report = Arc::new(CalibrationReport {
            before_error: error(&self.pull, &before_nm),
            fields: self.fields(&kept, after_error),
            after_error,
            speed_rpm: self.pull.speeds.clone(),
            measured_nm: self.pull.torques.clone(),
            before_nm,
            after_nm,
        });
        self.stages.fits.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }
}

/// To the digits a document keeps.
fn rounded(constants: &Constants) -> Constants {
    let to = |value: f64, digits: f64| (value * digits).round() / digits;
    Constants {
        port_flow: to(constants.port_flow, 1e3),
        friction: to(constants.friction, 1e3),
        burning: to(constants.burning, 1e3),
        intake_length: to(constants.intake_length, 1e5),
    }
}
