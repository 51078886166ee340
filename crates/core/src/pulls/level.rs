//! Pulls brought to the same speeds, and the figures of each.

use crate::peaks::peak;
use crate::table::held;

/// Most speeds, and the steps they may have, rpm.
const MOST: f64 = 90.0;
const STEPS: [f64; 4] = [50.0, 100.0, 200.0, 250.0];

/// Even speeds over what `ranges` have in common, rpm; none where they have nothing.
pub fn common(ranges: impl Iterator<Item = (f64, f64)>) -> Vec<f64> {
    let (low, high) = ranges.fold((0.0_f64, f64::INFINITY), |(low, high), own| (low.max(own.0), high.min(own.1)));
    let step = STEPS.into_iter().find(|step| (high - low) / step <= MOST).unwrap_or(STEPS[STEPS.len() - 1]);
    let (first, last) = ((low / step - 1e-6).ceil(), (high / step + 1e-6).floor());
    if !(last.is_finite() && first <= last) {
        return Vec::new();
    }
    (0..=(last - first) as usize).map(|own| step * (first + own as f64)).collect()
}

/// Torque of a pull at each of `speeds`: a line of least squares through the points within a step on either side, weighted by a
/// tent; between its neighbours where it has fewer than three there. `points`: (rpm, torque) in rising speed.
pub fn at(points: &[(f64, f64)], speeds: &[f64]) -> Vec<f64> {
    let step = speeds.windows(2).next().map_or(STEPS[0], |pair| pair[1] - pair[0]);
    speeds.iter().map(|rpm| about(points, *rpm, step).unwrap_or_else(|| held(points, *rpm))).collect()
}

fn about(points: &[(f64, f64)], rpm: f64, step: f64) -> Option<f64> {
    let from = points.partition_point(|point| point.0 <= rpm - step);
    let to = points.partition_point(|point| point.0 < rpm + step);
    let near = points.get(from..to).filter(|near| near.len() > 2)?;
    let (mut sw, mut sx, mut sy, mut sxx, mut sxy) = (0.0, 0.0, 0.0, 0.0, 0.0);
    for (own, torque) in near {
        let x = (own - rpm) / step;
        let w = 1.0 - x.abs();
        (sw, sx, sy) = (sw + w, sx + w * x, sy + w * torque);
        (sxx, sxy) = (sxx + w * x * x, sxy + w * x * torque);
    }
    let determinant = sw * sxx - sx * sx;
    // Points that stand at one place give a mean and no slope.
    Some(if determinant > 1e-9 * sw * sw { (sy * sxx - sx * sxy) / determinant } else { sy / sw })
}

/// The upper of the middle values; nought of none.
pub fn median(values: &[f64]) -> f64 {
    let mut sorted = values.to_vec();
    sorted.sort_by(f64::total_cmp);
    sorted.get(sorted.len() / 2).copied().unwrap_or(0.0)
}

/// Figures of a pull.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Figures {
    /// N m.
    pub average_torque: f64,
    /// W.
    pub average_power: f64,
    /// N m, and where, rpm.
    pub peak_torque: (f64, f64),
    /// W, and where, rpm.
    pub peak_power: (f64, f64),
}

/// Figures of torque over even speeds, the averages over all of them.
pub fn figures(speeds: &[f64], torques: &[f64]) -> Option<Figures> {
    let powers: Vec<f64> =
        speeds.iter().zip(torques).map(|(rpm, torque)| torque * rpm * std::f64::consts::PI / 30.0).collect();
    let span = speeds.last()? - speeds.first()?;
    let average = |values: &[f64]| {
        let areas = speeds.windows(2).zip(values.windows(2)).map(|(x, y)| 0.5 * (y[0] + y[1]) * (x[1] - x[0]));
        areas.sum::<f64>() / span
    };
    let highest = |values: &[f64]| {
        let (rpm, own) = peak(speeds, values);
        (own, rpm)
    };
    (span > 0.0).then(|| Figures {
        average_torque: average(torques),
        average_power: average(&powers),
        peak_torque: highest(torques),
        peak_power: highest(&powers),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_straight_pull_is_found_at_every_speed_however_its_points_stand() {
        let points: Vec<(f64, f64)> =
            (0..300).map(|i| (2003.0 + 13.7 * f64::from(i), 300.0 + 0.137 * f64::from(i))).collect();
        let speeds = common([(2003.0, 6099.3)].into_iter());
        assert_eq!((speeds[0], speeds[1]), (2050.0, 2100.0));
        for (rpm, torque) in speeds.iter().zip(at(&points, &speeds)) {
            assert!((torque - (300.0 + (rpm - 2003.0) * 0.01)).abs() < 1e-9, "{rpm}");
        }
        let few = [(2000.0, 300.0), (2400.0, 304.0), (2800.0, 308.0)];
        assert_eq!(at(&few, &[2100.0, 2200.0]), [301.0, 302.0]);
        assert_eq!(common([(2000.0, 3000.0), (3500.0, 6000.0)].into_iter()), Vec::<f64>::new());
    }

    #[test]
    fn figures_are_those_of_the_curve() {
        let speeds: Vec<f64> = (0..41).map(|i| 2000.0 + 100.0 * f64::from(i)).collect();
        let torques: Vec<f64> = speeds.iter().map(|rpm| 500.0 - ((rpm - 4000.0) / 200.0).powi(2)).collect();
        let own = figures(&speeds, &torques).unwrap();
        // The mean of x^2 over -10 to 10 is 33.3; a trapezoid of a half adds h^2/6 = .0417.
        assert!((own.average_torque - (500.0 - 33.375)).abs() < 1e-9, "{own:?}");
        assert!((own.peak_torque.0 - 500.0).abs() < 1e-9 && (own.peak_torque.1 - 4000.0).abs() < 1e-6);
        assert!(own.peak_power.1 > 5000.0);
        assert_eq!(figures(&[2000.0], &[300.0]), None);
    }
}
