//! Dips of a torque curve between two humps, and what the gas says of them.

use super::work::Sample;
use crate::report::DipReport;

/// Depth from which a dip is told, share of torque.
const TOLD: f64 = 0.02;

/// Every dip between two neighbouring humps that is at least [`TOLD`] deep, in rising speed.
pub fn dips(samples: &[Sample]) -> Vec<DipReport> {
    let torque: Vec<f64> = samples.iter().map(|sample| sample.torque).collect();
    let tops: Vec<usize> = (1..torque.len().saturating_sub(1))
        .filter(|i| torque[*i] > torque[i - 1] && torque[*i] >= torque[i + 1])
        .collect();
    tops.windows(2).filter_map(|pair| dip(samples, pair[0], pair[1])).collect()
}

fn dip(samples: &[Sample], first: usize, second: usize) -> Option<DipReport> {
    let low = (first + 1..second).min_by(|a, b| samples[*a].torque.total_cmp(&samples[*b].torque))?;
    let place = (rpm(&samples[low]) - rpm(&samples[first])) / (rpm(&samples[second]) - rpm(&samples[first]));
    let between = |of: fn(&Sample) -> f64| of(&samples[first]) + place * (of(&samples[second]) - of(&samples[first]));
    let share = 1.0 - samples[low].torque / between(|s| s.torque);
    (share >= TOLD).then(|| DipReport {
        rpm: rpm(&samples[low]),
        share,
        why: why(
            samples[low].point.residual - between(|s| s.point.residual),
            1.0 - samples[low].point.volumetric_efficiency / between(|s| s.point.volumetric_efficiency),
        ),
    })
}

fn rpm(sample: &Sample) -> f64 {
    sample.point.rpm
}

/// Burned gas that stays tells of the exhaust's waves, air alone that is missing of the intake's.
fn why(more_residual: f64, less_air: f64) -> String {
    let told = |share: f64| format!("{:.0} %", 100.0 * share.max(0.0));
    if more_residual > 0.003 {
        format!(
            "the exhaust's waves come back while both valves are open: {:.1} % more burned gas stays and {} less air comes in; primary length, collector or overlap move it",
            100.0 * more_residual,
            told(less_air)
        )
    } else {
        format!(
            "the intake's waves are out of step as the valve closes: {} less air comes in; runner length or intake closing move it",
            told(less_air)
        )
    }
}
