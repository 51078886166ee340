//! Torque and power over speed.

use serde::Serialize;

report! {
    /// Torque and power of one candidate over speed, at the crank, in the air of the plan.
    pub struct BreathingReport {
        /// How it was computed.
        mode: String,
        /// Speeds.
        speed_rpm: Vec<f64>,
        /// Torque.
        torque_nm: Vec<f64>,
        /// Power.
        power_kw: Vec<f64>,
        /// Air taken in over the swept volume of outside air.
        volumetric_efficiency: Vec<f64>,
        /// Brake mean effective pressure.
        bmep_kpa: Vec<f64>,
        /// Burned share of the charge at intake closing.
        residual_fraction: Vec<f64>,
        /// Highest cylinder pressure, absolute.
        peak_cylinder_pressure_kpa: Vec<f64>,
        /// Whether the last two cycles of each point agree.
        converged: Vec<bool>,
        /// By a parabola through the five points around the highest.
        peak_torque_nm: f64,
        /// Speed of it.
        peak_torque_rpm: f64,
        /// By a parabola through the five points around the highest.
        peak_power_kw: f64,
        /// Speed of it.
        peak_power_rpm: f64,
        /// Over the band of the plan; absent while the band is unknown.
        average_torque_nm: Option<f64>,
        /// Over the band of the plan.
        average_power_kw: Option<f64>,
        /// What may be claimed without calibration, in words.
        error_band: String,
    }
}
