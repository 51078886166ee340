//! Peaks of a curve over speed.

/// Peak of a curve by the parabola of least squares through the five points around its highest; the highest point
/// itself where the parabola has no peak among them.
pub fn peak(x: &[f64], y: &[f64]) -> (f64, f64) {
    let top = (0..y.len()).max_by(|a, b| y[*a].total_cmp(&y[*b])).unwrap_or(0);
    peak_at(x, y, top)
}

/// How far a curve dips between two humps, of the highest: less is the ripple of single waves.
const DIP: f64 = 0.03;

/// Every hump of a curve, the highest first: a point above both neighbours with a dip of at least [`DIP`] on the way to
/// any higher one. The ends of the curve are humps only where nothing is higher.
pub fn humps(x: &[f64], y: &[f64]) -> Vec<(f64, f64)> {
    let highest = y.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let stands_out = |i: usize| {
        let ends = (i == 0 || i + 1 == y.len()) && y[i] < highest;
        let before = !ends && (i == 0 || y[i - 1] < y[i]);
        let after = i + 1 == y.len() || y[i + 1] <= y[i];
        let higher_left = (0..i).rev().find(|j| y[*j] > y[i]);
        let higher_right = (i + 1..y.len()).find(|j| y[*j] > y[i]);
        let dips =
            |from: usize, to: usize| y[from..=to].iter().copied().fold(f64::INFINITY, f64::min) < y[i] - DIP * highest;
        before && after && higher_left.is_none_or(|j| dips(j, i)) && higher_right.is_none_or(|j| dips(i, j))
    };
    let mut found: Vec<_> = (0..y.len()).filter(|i| stands_out(*i)).map(|i| peak_at(x, y, i)).collect();
    found.sort_by(|a, b| b.1.total_cmp(&a.1));
    found
}

fn peak_at(x: &[f64], y: &[f64], top: usize) -> (f64, f64) {
    let first = top.saturating_sub(2).min(y.len().saturating_sub(5));
    let (x5, y5) = (&x[first..y.len().min(first + 5)], &y[first..y.len().min(first + 5)]);
    let highest = (x.get(top).copied().unwrap_or(0.0), y.get(top).copied().unwrap_or(0.0));
    // At an end of the curve the parabola would guess at what was not computed.
    if x5.len() < 5 || top == 0 || top + 1 == y.len() {
        return highest;
    }
    let Some((at, height)) = vertex(x5, y5) else { return highest };
    if at < x5[0] || at > x5[4] { highest } else { (at, height) }
}

/// Vertex of the parabola of least squares through some points, where it is a peak; by Gram's orthogonal polynomials, so
/// that the points need not be evenly spaced [Forsythe 1957; from memory].
pub(crate) fn vertex(x: &[f64], y: &[f64]) -> Option<(f64, f64)> {
    let mean = |of: &dyn Fn(usize) -> f64| (0..x.len()).map(of).sum::<f64>() / x.len() as f64;
    let middle = mean(&|i| x[i]);
    let u = |i: usize| x[i] - middle;
    let (second, third) = (mean(&|i| u(i).powi(2)), mean(&|i| u(i).powi(3)));
    // P2 = u^2 - (third/second) u - second stands square on 1 and u.
    let p2 = |i: usize| u(i) * (u(i) - third / second) - second;
    let a = mean(&|i| y[i] * p2(i)) / mean(&|i| p2(i).powi(2));
    let b = mean(&|i| y[i] * u(i)) / second - a * third / second;
    let c = mean(&|i| y[i]) - a * second;
    let at = -0.5 * b / a;
    (a < 0.0).then(|| (middle + at, c - 0.25 * b * b / a))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_peak_between_points_is_found_and_one_at_the_end_is_told_as_it_is() {
        let x: Vec<f64> = (0..13).map(|i| 2000.0 + 300.0 * f64::from(i)).collect();
        let curve: Vec<f64> = x.iter().map(|rpm| 500.0 - ((rpm - 4130.0) / 1000.0).powi(2)).collect();
        let (at, height) = peak(&x, &curve);
        assert!((at - 4130.0).abs() < 1e-6 && (height - 500.0).abs() < 1e-9);
        // Points that stand unevenly tell the same.
        let uneven: Vec<f64> = [2000.0, 2500.0, 3600.0, 3750.0, 4000.0, 4300.0, 5000.0, 5200.0].to_vec();
        let curve: Vec<f64> = uneven.iter().map(|rpm| 500.0 - ((rpm - 4130.0) / 1000.0).powi(2)).collect();
        let (at, height) = peak(&uneven, &curve);
        assert!((at - 4130.0).abs() < 1e-6 && (height - 500.0).abs() < 1e-9, "{at} {height}");
        let rising: Vec<f64> = x.iter().map(|rpm| rpm * 0.1).collect();
        assert_eq!(peak(&x, &rising), (5600.0, 560.0));
    }

    #[test]
    fn two_humps_are_two_and_a_ripple_is_none() {
        let x: Vec<f64> = (0..25).map(|i| 2000.0 + 200.0 * f64::from(i)).collect();
        let bump = |rpm: f64, at: f64| (-((rpm - at) / 600.0).powi(2)).exp();
        let two: Vec<f64> = x.iter().map(|rpm| 400.0 + 60.0 * bump(*rpm, 3200.0) + 80.0 * bump(*rpm, 5600.0)).collect();
        let found = humps(&x, &two);
        assert_eq!(found.len(), 2, "{found:?}");
        assert!((found[0].0 - 5600.0).abs() < 60.0 && (found[1].0 - 3200.0).abs() < 60.0, "{found:?}");
        let ripple: Vec<f64> =
            x.iter().enumerate().map(|(i, rpm)| 400.0 + 80.0 * bump(*rpm, 4000.0) + (i % 2) as f64).collect();
        assert_eq!(humps(&x, &ripple).len(), 1);
    }
}
