//! A lobe from measured lift: the quintic spline that balances distance from the points against
//! jerk, at rest at both ends.
//!
//! Minimises `sum (s(x_i) - y_i)^2 + lambda int s'''^2 dx`. The residual is reported, never hidden.

use super::bspline::{Basis, DEGREE};
use super::fit::{gram_of_jerk, taylor};
use super::lobe::Lobe;
use crate::programme::{Rows, minimise};
use crate::quantity::Length;
use thiserror::Error;

/// Cam degrees in one knot span.
const SPAN_DEG: f64 = 4.0;
/// Least weight of jerk against distance, in spans and metres. It smooths reading noise of a few
/// micrometres and leaves a ground lobe's shape within about 5 micrometres; noisier readings take more.
const SMOOTHING: f64 = 2e-3;

/// Why measured points are not a lobe.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum ProfileRefusal {
    /// The points do not reach the base circle on both sides.
    #[error("the profile must begin and end on the base circle, within .003 in of zero lift")]
    NotClosed,
    /// Too narrow or too wide to be one lobe.
    #[error("the profile spans {0:.0} cam degrees; one lobe takes 60 to 360")]
    Width(f64),
    /// The fit did not come to an end.
    #[error("no smooth lobe follows these points")]
    NoFit,
    /// The fitted lobe rises or falls twice.
    #[error("the profile rises or falls more than once: check the reading near {0:.0} cam degrees")]
    NotOneLobe(f64),
}

/// The lobe through `points` of cam degree (rising, any zero) and lift.
pub fn lobe_of_points(points: &[(f64, Length)]) -> Result<Lobe, ProfileRefusal> {
    let (first, last) = (points[0], points[points.len() - 1]);
    let width = last.0 - first.0;
    if !(60.0..=360.0).contains(&width) {
        return Err(ProfileRefusal::Width(width));
    }
    if first.1.as_inches().abs() > 0.003 || last.1.as_inches().abs() > 0.003 {
        return Err(ProfileRefusal::NotClosed);
    }
    let basis = Basis::new((width / SPAN_DEG).ceil() as usize);
    let span_deg = width / basis.spans() as f64;
    let mut smoothing = SMOOTHING;
    let mut coefficients = fit(&basis, points, span_deg, smoothing).ok_or(ProfileRefusal::NoFit)?;
    // Noise of a dial has no memory, what smoothing takes off a lobe has: more of it as long as what is left over between
    // neighbours is noise.
    while smoothing < MOST_SMOOTHING {
        smoothing *= STEP;
        let Some(next) = fit(&basis, points, span_deg, smoothing) else { break };
        if memory(&basis, &next, span_deg, points) > MEMORY {
            break;
        }
        coefficients = next;
    }
    build(&basis, &coefficients, span_deg, points)
}

/// Most smoothing tried, and how much more each try takes.
const MOST_SMOOTHING: f64 = 1e4;
const STEP: f64 = 1.8;
/// Correlation of neighbouring distances above which they are no noise: found best for the acceleration of lobes in closed
/// form under noise of 1 to 25 micrometres (our own experiment, of which `tests/lobe_cards.rs` keeps some cases).
const MEMORY: f64 = 0.05;

/// Correlation of the distances of neighbouring points from the spline [lag-one autocorrelation: Box and Jenkins; from
/// memory].
fn memory(basis: &Basis, coefficients: &[f64], span_deg: f64, points: &[(f64, Length)]) -> f64 {
    let off = |(angle, lift): &(f64, Length)| {
        let row = basis.row((angle - points[0].0) / span_deg);
        (0..=DEGREE).map(|i| row.values[0][i] * coefficients[row.first + i]).sum::<f64>() - lift.si()
    };
    let off: Vec<f64> = points.iter().map(off).collect();
    let together: f64 = off.windows(2).map(|two| two[0] * two[1]).sum();
    together / off.iter().map(|one| one * one).sum::<f64>().max(f64::MIN_POSITIVE)
}

fn fit(basis: &Basis, points: &[(f64, Length)], span_deg: f64, smoothing: f64) -> Option<Vec<f64>> {
    let scale = 1e-3; // millimetres keep the programme well scaled
    let start = points[0].0;
    let mut normal = gram_of_jerk(basis);
    normal.iter_mut().flatten().for_each(|h| *h *= smoothing);
    let mut linear = vec![0.0; basis.len()];
    for (angle, lift) in points {
        let row = basis.row((angle - start) / span_deg);
        for i in 0..=DEGREE {
            linear[row.first + i] -= row.values[0][i] * lift.si() / scale;
            for j in 0..=DEGREE {
                normal[row.first + i][row.first + j] += row.values[0][i] * row.values[0][j];
            }
        }
    }
    let mut upper = Vec::new();
    for (i, row) in normal.iter().enumerate() {
        upper.extend(row.iter().enumerate().skip(i).take(DEGREE + 1).map(|(j, h)| (i, j, *h)));
    }
    let mut rest = Rows::default();
    for i in 0..3 {
        rest.push([(i, 1.0)], 0.0);
        rest.push([(basis.len() - 1 - i, 1.0)], 0.0);
    }
    let (_, x) = minimise(basis.len(), &upper, &linear, rest, Rows::default())?;
    Some(x.into_iter().map(|c| c * scale).collect())
}

fn build(basis: &Basis, coefficients: &[f64], span_deg: f64, points: &[(f64, Length)]) -> Result<Lobe, ProfileRefusal> {
    let pieces: Vec<[f64; 6]> =
        (0..basis.spans()).map(|span| taylor(basis, coefficients, span, span as f64, span_deg, 1.0)).collect();
    let from = |zero: f64| (0..=basis.spans()).map(move |i| i as f64 * span_deg - zero).collect();
    let raw = Lobe::new(from(0.0), pieces.clone(), None);
    let peak = full_lift(&raw, basis.spans() as f64 * span_deg);
    one_rise(&raw, peak, points[0].0)?;
    let residual =
        points.iter().map(|(angle, lift)| (raw.at(angle - points[0].0).lift - lift.si()).abs()).fold(0.0, f64::max);
    Ok(Lobe::new(from(peak), pieces, Some(residual)))
}

/// Angle of full lift: the highest of a fine grid, then bisection on velocity.
fn full_lift(lobe: &Lobe, width: f64) -> f64 {
    let grid = (0..=(width * 4.0) as usize).map(|i| i as f64 / 4.0);
    let top = grid.max_by(|a, b| lobe.at(*a).lift.total_cmp(&lobe.at(*b).lift)).unwrap_or(0.0);
    let (mut low, mut high) = ((top - 0.5).max(0.0), (top + 0.5).min(width));
    for _ in 0..50 {
        let middle = 0.5 * (low + high);
        if lobe.at(middle).velocity > 0.0 { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}

/// Refuses a fit that, above the ramps, is not monotone on each side of full lift.
fn one_rise(lobe: &Lobe, peak: f64, start: f64) -> Result<(), ProfileRefusal> {
    let (_, width) = lobe.extent();
    let ramp = 0.004 * 0.0254;
    for i in 0..(width * 2.0) as usize {
        let angle = i as f64 / 2.0;
        let now = lobe.at(angle);
        let against = if angle < peak { now.velocity < -1e-6 } else { now.velocity > 1e-6 };
        if now.lift > ramp && (angle - peak).abs() > 1.0 && against {
            return Err(ProfileRefusal::NotOneLobe(angle + start));
        }
    }
    Ok(())
}
