//! What decisions do to a curve, and what a fit to a pull comes to.

use serde::Serialize;

/// What a decision does to the curve.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Effect {
    /// Stable identifier of the decision.
    pub id: String,
    /// In words.
    pub label: String,
    /// By how much, in words.
    pub change: String,
    /// Relative change of average torque over the band; absent when it cannot be made.
    pub average_torque: Option<f64>,
    /// Relative change of peak power.
    pub peak_power: Option<f64>,
    /// Change of the speed of peak power.
    pub peak_power_rpm: Option<f64>,
    /// Why it cannot be made.
    pub trouble: Option<String>,
}

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
