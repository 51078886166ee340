//! Dips of a torque curve between two humps, and what the gas says of them.

use super::work::Sample;
use crate::report::DipReport;

/// Depth from which a dip is told, share of torque.
const TOLD: f64 = 0.02;

/// What is looked at of one speed.
#[derive(Clone, Copy)]
struct Row {
    rpm: f64,
    torque: f64,
    residual: f64,
    filling: f64,
}

/// Every dip between two neighbouring humps that is at least [`TOLD`] deep, in rising speed.
pub fn dips(samples: &[Sample]) -> Vec<DipReport> {
    let row = |sample: &Sample| Row {
        rpm: sample.point.rpm,
        torque: sample.torque,
        residual: sample.point.residual,
        filling: sample.point.volumetric_efficiency,
    };
    dips_of(&samples.iter().map(row).collect::<Vec<Row>>())
}

fn dips_of(rows: &[Row]) -> Vec<DipReport> {
    let is_top = |i: &usize| rows[*i].torque > rows[i - 1].torque && rows[*i].torque >= rows[i + 1].torque;
    let tops: Vec<usize> = (1..rows.len().saturating_sub(1)).filter(is_top).collect();
    tops.windows(2).filter_map(|pair| dip(&rows[pair[0]..=pair[1]])).collect()
}

/// The dip between the humps at both ends of `rows`.
fn dip(rows: &[Row]) -> Option<DipReport> {
    let (first, second) = (rows.first()?, rows.last()?);
    let low = rows.iter().min_by(|a, b| a.torque.total_cmp(&b.torque))?;
    let place = (low.rpm - first.rpm) / (second.rpm - first.rpm);
    let between = |of: fn(&Row) -> f64| of(first) + place * (of(second) - of(first));
    let share = 1.0 - low.torque / between(|row| row.torque);
    (share >= TOLD).then(|| DipReport {
        rpm: low.rpm,
        share,
        why: why(low.residual - between(|row| row.residual), 1.0 - low.filling / between(|row| row.filling)),
    })
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

#[cfg(test)]
mod tests {
    use super::*;

    fn rows(torque: &[f64], residual: &[f64], filling: &[f64]) -> Vec<Row> {
        (0..torque.len())
            .map(|i| Row {
                rpm: 2000.0 + 500.0 * i as f64,
                torque: torque[i],
                residual: residual[i],
                filling: filling[i],
            })
            .collect()
    }

    #[test]
    fn a_dip_is_told_by_what_the_gas_does_there() {
        let torque = [380.0, 400.0, 370.0, 410.0, 390.0];
        let filling = [0.86, 0.90, 0.85, 0.92, 0.88];
        let burned = dips_of(&rows(&torque, &[0.04, 0.04, 0.07, 0.04, 0.04], &filling));
        // 400 and 410 on both sides: 370 lies 8.6 % below 405.
        assert!((burned[0].share - (1.0 - 370.0 / 405.0)).abs() < 1e-12 && burned[0].rpm == 3000.0, "{burned:?}");
        assert!(burned[0].why.starts_with("the exhaust's waves") && burned[0].why.contains("3.0 % more burned gas"));
        let starved = dips_of(&rows(&torque, &[0.04; 5], &filling));
        assert!(starved[0].why.starts_with("the intake's waves") && starved[0].why.contains("7 % less air"));
    }

    #[test]
    fn a_ripple_and_a_curve_with_one_hump_have_no_dip() {
        let even = [0.04; 5];
        assert!(dips_of(&rows(&[380.0, 400.0, 396.0, 401.0, 390.0], &even, &[0.9; 5])).is_empty());
        assert!(dips_of(&rows(&[380.0, 400.0, 410.0, 405.0, 390.0], &even, &[0.9; 5])).is_empty());
        assert!(dips_of(&[]).is_empty());
    }
}
