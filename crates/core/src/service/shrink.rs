//! Several estimates of the same kind, drawn to what they have in common: a normal model of two levels.
//!
//! `y_i ~ N(theta_i, v_i)`, `theta_i ~ N(mean, spread)`. The spread is that of Paule and Mandel (J. Res. Natl. Bur. Stand. 87, 1982,
//! 377): the one at which the weighted squares about the mean are what they are expected to be. The mean is weighted by
//! `1/(v_i + spread)`, and each `theta_i` given the spread lies between its own estimate and the mean in proportion to both variances
//! [Gelman et al., *Bayesian Data Analysis*, 3rd ed., eq. 5.17 to 5.20]. What the mean itself may be off goes into every doubt.

/// An estimate with its variance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Estimate {
    /// What it is.
    pub value: f64,
    /// Variance of that; infinite where nothing is known.
    pub variance: f64,
}

/// What estimates have in common.
#[derive(Debug, Clone, PartialEq)]
pub struct Shrunk {
    /// Their mean.
    pub mean: Estimate,
    /// Variance between them, beyond what each may be off.
    pub spread: f64,
    /// Each drawn to the mean, in their order.
    pub each: Vec<Estimate>,
    /// What one that nobody looked at yet is expected to be.
    pub next: Estimate,
}

/// Halvings of the range that holds the spread.
const HALVINGS: usize = 80;

/// Draws estimates to their mean; `outside` is what was expected of the mean before any of them. `None` where nothing is known.
pub fn shrink(estimates: &[Estimate], outside: Option<Estimate>) -> Option<Shrunk> {
    let known: Vec<Estimate> = estimates.iter().copied().filter(|own| own.variance.is_finite()).collect();
    let spread = spread(&known);
    let mean = mean(&known, spread, outside)?;
    let each = estimates.iter().map(|own| drawn(*own, mean, spread)).collect();
    Some(Shrunk { mean, spread, each, next: Estimate { value: mean.value, variance: mean.variance + spread } })
}

fn mean(known: &[Estimate], spread: f64, outside: Option<Estimate>) -> Option<Estimate> {
    let all =
        known.iter().map(|own| (own.value, own.variance + spread)).chain(outside.map(|own| (own.value, own.variance)));
    let (weights, sum) = all.fold((0.0, 0.0), |(weights, sum), (value, variance)| {
        let weight = 1.0 / variance.max(f64::MIN_POSITIVE);
        (weights + weight, sum + weight * value)
    });
    (weights > 0.0 && weights.is_finite()).then(|| Estimate { value: sum / weights, variance: 1.0 / weights })
}

/// One estimate given mean and spread; with no spread it is the mean.
fn drawn(own: Estimate, mean: Estimate, spread: f64) -> Estimate {
    // Share of its own estimate that it keeps.
    let own_share = if own.variance.is_finite() { spread / (spread + own.variance) } else { 0.0 };
    let common = 1.0 - own_share;
    let own_value = if own.variance.is_finite() { own.value } else { 0.0 };
    let left = if own.variance.is_finite() { own_share * own.variance } else { spread };
    Estimate { value: own_share * own_value + common * mean.value, variance: left + common * common * mean.variance }
}

/// Paule and Mandel's variance between estimates; nought where they differ no more than each may be off.
fn spread(known: &[Estimate]) -> f64 {
    let Some(freedom) = known.len().checked_sub(1).filter(|own| *own > 0).map(|own| own as f64) else { return 0.0 };
    let squares = |spread: f64| {
        let mean = mean(known, spread, None).map_or(0.0, |own| own.value);
        known.iter().map(|own| (own.value - mean).powi(2) / (own.variance + spread).max(f64::MIN_POSITIVE)).sum::<f64>()
    };
    if squares(0.0) <= freedom {
        return 0.0;
    }
    let middle = known.iter().map(|own| own.value).sum::<f64>() / known.len() as f64;
    let widest = known.iter().map(|own| (own.value - middle).powi(2)).sum::<f64>();
    let (mut low, mut high) = (0.0, widest);
    for _ in 0..HALVINGS {
        let at = 0.5 * (low + high);
        if squares(at) > freedom { low = at } else { high = at }
    }
    0.5 * (low + high)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn estimates(of: &[(f64, f64)]) -> Vec<Estimate> {
        of.iter().map(|(value, variance)| Estimate { value: *value, variance: *variance }).collect()
    }

    /// Coaching in eight schools [Rubin 1981; Gelman et al., *Bayesian Data Analysis*, table 5.2 and section 5.5]: pooled 7.7, its
    /// variance 16.6, and no spread beyond what each may be off.
    #[test]
    fn eight_schools_are_one() {
        let effects = [28.0, 8.0, -3.0, 7.0, -1.0, 1.0, 18.0, 12.0];
        let errors = [15.0, 10.0, 16.0, 11.0, 9.0, 11.0, 10.0, 18.0];
        let all: Vec<(f64, f64)> = effects.iter().zip(errors).map(|(y, e): (&f64, f64)| (*y, e * e)).collect();
        let found = shrink(&estimates(&all), None).unwrap();
        assert!((found.mean.value - 7.7).abs() < 0.05, "{found:?}");
        assert!((found.mean.variance - 16.6).abs() < 0.05, "{found:?}");
        assert_eq!(found.spread, 0.0);
        assert!(found.each.iter().all(|own| (own.value - found.mean.value).abs() < 1e-12));
    }

    /// Thirteen trials of a vaccine [Colditz et al. 1994, log risk ratios as handbooks of meta-analysis print them]: Paule and Mandel's
    /// spread and mean by statsmodels' `combine_effects(method_re="iterated")`, `tests/reference/service.py`.
    #[test]
    fn trials_that_differ_keep_their_spread() {
        let all = estimates(&[
            (-0.8893, 0.3256),
            (-1.5854, 0.1946),
            (-1.3481, 0.4154),
            (-1.4416, 0.0200),
            (-0.2175, 0.0512),
            (-0.7861, 0.0069),
            (-1.6209, 0.2230),
            (0.0120, 0.0040),
            (-0.4694, 0.0564),
            (-1.3713, 0.0730),
            (-0.3394, 0.0124),
            (0.4459, 0.5325),
            (-0.0173, 0.0714),
        ]);
        let found = shrink(&all, None).unwrap();
        assert!((found.spread - 0.318_082).abs() < 2e-6, "{}", found.spread);
        assert!((found.mean.value + 0.714_970).abs() < 2e-6, "{}", found.mean.value);
        assert!((found.mean.variance.sqrt() - 0.180_895).abs() < 2e-6, "{}", found.mean.variance.sqrt());
        // By hand, eq. 5.17 for the eighth: its own .0040 against .3181.
        let share = found.spread / (found.spread + 0.0040);
        assert!((found.each[7].value - (share * 0.0120 + (1.0 - share) * found.mean.value)).abs() < 1e-12);
    }

    #[test]
    fn what_is_not_known_is_what_the_others_are() {
        let mut all = estimates(&[(1.0, 0.01), (2.0, 0.01), (3.0, 0.01)]);
        all.push(Estimate { value: f64::NAN, variance: f64::INFINITY });
        let found = shrink(&all, None).unwrap();
        assert!((found.each[3].value - 2.0).abs() < 1e-9);
        assert!((found.each[3].variance - found.next.variance).abs() < 1e-12);
        assert!(found.each[0].value > 1.0 && found.each[0].value < 1.1);
        assert_eq!(shrink(&all[3..], None), None);
        let outside = Estimate { value: 5.0, variance: 0.25 };
        assert_eq!(shrink(&[], Some(outside)).unwrap().next, outside);
    }
}
