//! Fitting the model to the pull a document holds.

use super::{Build, Fault, Part, Stages, unknown_candidate};
use crate::candidate::Inputs;
use crate::candidate::breathing::calibration::{Fitted, Pull, error, fit, read_pull, torques};
use crate::candidate::breathing::constants::Constants;
use crate::candidate::breathing::{Breathing, Effort, breathing_uncalibrated};
use crate::document::Ledger;
use crate::quantity::{Dimension, UnitSystem, format_si};
use serde::Serialize;

/// One field the fit would write, and its text.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FittedField {
    /// Path of the field.
    pub field: String,
    /// What it is called.
    pub label: String,
    /// Its text.
    pub text: String,
}

/// What a fit came to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CalibrationReport {
    /// Speeds of the pull that were computed.
    pub speed_rpm: Vec<f64>,
    /// Torque measured, in the plan's air.
    pub measured_nm: Vec<f64>,
    /// Torque with the usual constants.
    pub before_nm: Vec<f64>,
    /// Torque with the fitted ones.
    pub after_nm: Vec<f64>,
    /// Root mean square of the relative error before.
    pub before_error: f64,
    /// The same after.
    pub after_error: f64,
    /// What the document would keep.
    pub fields: Vec<FittedField>,
}

/// What a fit is made of.
pub struct CalibrationInputs {
    breathing: Breathing,
    pull: Pull,
    name: String,
}

/// The pull of `build` and the candidate it is of; `Err` inside when something is missing.
///
/// # Errors
/// A fault when the pull names a candidate that is not there.
pub fn calibration_inputs(build: &Build, stages: &Stages) -> Result<Part<CalibrationInputs>, Fault> {
    let views = build.candidates();
    let ledger = Ledger::default();
    let pull = build.pull(&ledger);
    let view = match pull.word("candidate") {
        Some(id) => views.iter().find(|view| view.id == id),
        None => views.first(),
    };
    let unknown = || unknown_candidate(&pull.path_of("candidate"), pull.word("candidate").unwrap_or("nothing"), &views);
    let view = view.ok_or_else(unknown)?;
    let inputs = Inputs::resolve(view, &ledger, stages);
    Ok(breathing_uncalibrated(&inputs).and_then(|breathing| {
        let pull = read_pull(&pull, &breathing)?;
        Ok(CalibrationInputs { breathing, pull, name: view.name.clone() })
    }))
}

impl CalibrationInputs {
    /// Fits on drafts, or on one cylinder where the document does not say how they are joined, then judges in full.
    /// `tell` hears how many of how many curves are done.
    pub fn fit(&self, stop: &(dyn Fn() -> bool + Sync), tell: impl Fn(usize, usize)) -> Part<CalibrationReport> {
        let joined = self.breathing.can(Effort::Full).is_ok();
        let efforts = if joined { (Effort::Draft, Effort::Full) } else { (Effort::Fast, Effort::Fast) };
        let Fitted { constants, .. } = fit(&self.breathing, &self.pull, efforts.0, stop, tell)?;
        // As the document will keep them: what is written is what is judged.
        let kept = rounded(&constants);
        let full = |constants: &Constants| torques(&self.breathing, &self.pull, constants, efforts.1, stop);
        let (before_nm, after_nm) = (full(&Constants::default())?, full(&kept)?);
        let after_error = error(&self.pull, &after_nm);
        Ok(CalibrationReport {
            before_error: error(&self.pull, &before_nm),
            fields: self.fields(&kept, after_error),
            after_error,
            speed_rpm: self.pull.speeds.clone(),
            measured_nm: self.pull.torques.clone(),
            before_nm,
            after_nm,
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
