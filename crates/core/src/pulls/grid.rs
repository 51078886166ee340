//! One design fitted many times: what does not depend on values is worked out once.

use super::mixed::{Contrast, Design, RATIOS, Rows, between};
use faer::Mat;

/// Ratios between which is interpolated.
const RATIOS_LOOKED_AT: usize = 25;

/// What is asked of a fit.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Target {
    /// The mean of a combination over the days it was run on.
    Mean(usize),
    /// What the first has more than the second.
    More(usize, usize),
}

impl Target {
    /// Of coefficients.
    fn of(self, coefficients: &[f64]) -> Option<f64> {
        match self {
            Self::Mean(one) => coefficients.get(one).copied(),
            Self::More(one, other) => Some(coefficients.get(one)? - coefficients.get(other)?),
        }
    }

    /// Its variance over that of a pull: days that were not run are nobody's question of a mean.
    fn variance(self, covariance: &Mat<f64>, rows: &Rows) -> f64 {
        match self {
            Self::Mean(one) => 1.0 / rows.pulls_of(one).max(1.0),
            Self::More(one, other) => between(covariance, one, other),
        }
    }
}

/// A design at one ratio.
struct AtRatio {
    ratio: f64,
    /// Degrees of freedom of every target.
    freedoms: Vec<f64>,
    /// What of minus twice the restricted likelihood does not depend on values.
    constant: f64,
    columns: Vec<Vec<f64>>,
    inverse: Mat<f64>,
}

/// A design and what is asked of it.
pub(super) struct Grid {
    rows: Rows,
    targets: Vec<Target>,
    looked_at: Vec<AtRatio>,
}

/// What is asked, and what is left of every pull.
pub(super) struct Found {
    pub contrasts: Vec<Contrast>,
    pub left: Vec<f64>,
}

impl Grid {
    /// `None` where the design does not tell them apart.
    pub fn of(design: &Design, targets: &[Target]) -> Option<Self> {
        let rows = Rows::of(design)?;
        let (low, high) = (RATIOS[0], RATIOS[1]);
        let step = (high - low) / (RATIOS_LOOKED_AT - 1) as f64;
        let looked_at = if rows.has_days() { RATIOS_LOOKED_AT } else { 0 };
        let all = std::iter::once(0.0).chain((0..looked_at).map(|i| (low + step * i as f64).exp()));
        let looked_at = all.map(|ratio| AtRatio::of(&rows, targets, ratio)).collect::<Option<Vec<_>>>()?;
        Some(Self { rows, targets: targets.to_vec(), looked_at })
    }

    /// All of it of one figure of every pull.
    pub fn found(&self, values: &[f64]) -> Option<Found> {
        let deviance: Vec<f64> = self.looked_at.iter().map(|own| own.deviance(&self.rows, values)).collect();
        let best = (0..deviance.len()).min_by(|a, b| deviance[*a].total_cmp(&deviance[*b]))?;
        let (ratio, other, share) = self.bottom(best, &deviance);
        let solved = self.rows.solve(ratio, values)?;
        let variance = solved.squares / self.rows.freedom();
        let contrast = |(place, target): (usize, &Target)| {
            let (own, beside) = (self.looked_at[best].freedoms[place], self.looked_at[other].freedoms[place]);
            Some(Contrast {
                difference: target.of(&solved.coefficients)?,
                error: (variance * target.variance(&solved.inverse, &self.rows)).sqrt(),
                freedom: own + share * (beside - own),
            })
        };
        let contrasts = self.targets.iter().enumerate().map(contrast).collect::<Option<Vec<_>>>()?;
        Some(Found { contrasts, left: solved.left })
    }

    /// The ratio at the bottom of the parabola through the best and its neighbours, in logarithms; the neighbour on whose side it lies,
    /// and how far towards it.
    fn bottom(&self, best: usize, deviance: &[f64]) -> (f64, usize, f64) {
        if best < 2 || best + 1 >= self.looked_at.len() {
            return (self.looked_at[best].ratio, best, 0.0);
        }
        let [a, b, c] = [deviance[best - 1], deviance[best], deviance[best + 1]];
        let bend = a - 2.0 * b + c;
        let off = if bend > 0.0 { (0.5 * (a - c) / bend).clamp(-1.0, 1.0) } else { 0.0 };
        let other = if off < 0.0 { best - 1 } else { best + 1 };
        let (own, beside) = (self.looked_at[best].ratio.ln(), self.looked_at[other].ratio.ln());
        ((own + off.abs() * (beside - own)).exp(), other, off.abs())
    }
}

impl AtRatio {
    fn of(rows: &Rows, targets: &[Target], ratio: f64) -> Option<Self> {
        let (columns, inverse, constant) = rows.prepared(ratio)?;
        // Freedom is of the ratio alone: the scale of values does not move it.
        let freedom = |target: &Target| {
            if matches!(target, Target::Mean(_)) {
                return Some(rows.freedom());
            }
            let spread = |ratio: f64, variance: f64| Some(variance * target.variance(&rows.inverse(ratio)?, rows));
            rows.satterthwaite((ratio, 1.0), &spread)
        };
        let freedoms = targets.iter().map(freedom).collect::<Option<Vec<f64>>>()?;
        Some(Self { ratio, freedoms, constant, columns, inverse })
    }

    /// Minus twice the logarithm of the restricted likelihood.
    fn deviance(&self, rows: &Rows, values: &[f64]) -> f64 {
        let own = rows.shrunk(self.ratio, &|pull| values[pull]);
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        let right: Vec<f64> = self.columns.iter().map(|column| dot(column, &own)).collect();
        let p = right.len();
        let taken: f64 = (0..p).map(|i| (0..p).map(|j| right[i] * self.inverse[(i, j)] * right[j]).sum::<f64>()).sum();
        // What is left is the whole less what the coefficients take; values are about their mean, so little is lost to rounding.
        let squares = (dot(&own, &own) - taken).max(0.0);
        let variance = (squares / rows.freedom()).max(f64::MIN_POSITIVE);
        rows.freedom() * variance.ln() + self.constant
    }
}
