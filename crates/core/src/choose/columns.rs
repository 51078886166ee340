//! What is kept of a curve at every speed, for responses and searches.

use crate::report::BreathingReport;

/// One of the columns of a curve.
type Column = fn(&BreathingReport) -> Option<&Vec<f64>>;

/// What is computed of a curve at every speed.
const COLUMNS: [Column; 8] = [
    |curve| Some(&curve.torque_nm),
    |curve| curve.octane_needed.as_ref(),
    |curve| Some(&curve.peak_cylinder_pressure_kpa),
    |curve| Some(&curve.exhaust_opening_kpa),
    |curve| Some(&curve.exhaust_temperature_c),
    |curve| Some(&curve.air_fuel),
    |curve| curve.boost_kpa.as_ref(),
    |curve| curve.drive_kpa.as_ref(),
];

/// Every column of a curve, one after another.
pub(super) fn columns_of(curve: &BreathingReport) -> Vec<f64> {
    COLUMNS.iter().filter_map(|column| column(curve)).flatten().copied().collect()
}
