//! Two sets of figures of which each has its own spread.

use super::mixed::Contrast;
use statrs::distribution::{ContinuousCDF, FisherSnedecor};

/// How often a difference of spreads that is none alarms.
const ALARMS: f64 = 0.05;

/// What `one` has more than `other`, each with its own spread [Welch 1947; degrees of freedom by Satterthwaite 1946]; `None` of
/// fewer than two figures on a side, or of figures that do not scatter at all.
pub fn welch(one: &[f64], other: &[f64]) -> Option<Contrast> {
    let [(mean, part, own), (against, its_part, its)] = [share(one)?, share(other)?];
    let square = part + its_part;
    (square > 0.0).then(|| Contrast {
        difference: mean - against,
        error: square.sqrt(),
        freedom: square * square / (part * part / own + its_part * its_part / its),
    })
}

/// Mean, variance of it, and degrees of freedom.
fn share(values: &[f64]) -> Option<(f64, f64, f64)> {
    let (count, freedom) = (values.len() as f64, values.len() as f64 - 1.0);
    if values.len() < 2 {
        return None;
    }
    let mean = values.iter().sum::<f64>() / count;
    let variance = values.iter().map(|own| (own - mean) * (own - mean)).sum::<f64>() / freedom;
    Some((mean, variance / count, freedom))
}

/// How many times as much `one` scatters as `other`, where that is beyond chance: the F test of both variances, 1 in 20.
pub fn scatters_otherwise(one: &[f64], other: &[f64]) -> Option<f64> {
    let [(_, part, own), (_, its_part, its)] = [share(one)?, share(other)?];
    let ratio = part * (own + 1.0) / (its_part * (its + 1.0));
    let below = FisherSnedecor::new(own, its).ok().filter(|_| ratio.is_finite())?.cdf(ratio);
    (2.0 * below.min(1.0 - below) < ALARMS).then_some(ratio.sqrt())
}
