//! What deviations do to one limit: `m(x) = m0 + sum (g_i x_i + h_i x_i^2/2)`, each `g` and `h` from two runs of the whole
//! computation at `sqrt 3` standard deviations either way. With these places the mean and variance of a quadratic are exact,
//! whatever its size. Products of two variables are not in it: runs in full say what that costs.

use super::draw::Variable;

/// Where a variable is run, in its standard deviations.
pub const AWAY: f64 = 1.732_050_807_568_877_2;

/// What one variable does.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Effect {
    /// Which.
    pub variable: usize,
    /// For its deviation.
    pub slope: f64,
    /// For half the square of its deviation.
    pub curve: f64,
}

impl Effect {
    /// From what was found `step` below, in the middle and above.
    pub fn through(variable: usize, step: f64, [below, middle, above]: [f64; 3]) -> Self {
        let slope = (above - below) / (2.0 * step);
        let curve = (above + below - 2.0 * middle) / (step * step);
        Self { variable, slope, curve }
    }

    /// At a deviation.
    #[inline]
    pub fn at(&self, deviation: f64) -> f64 {
        deviation * (self.slope + 0.5 * self.curve * deviation)
    }

    /// Variance it brings.
    pub fn variance(&self, variables: &[Variable]) -> f64 {
        let spread = variables[self.variable].spread;
        let own = spread.sd().powi(2);
        own * self.slope.powi(2) + 0.25 * self.curve.powi(2) * own * own * (spread.kurtosis() - 1.0)
    }
}

/// One figure as deviations move it.
#[derive(Debug, Clone, PartialEq)]
pub struct Response {
    /// Without any.
    pub middle: f64,
    /// What every variable does that does anything.
    pub effects: Vec<Effect>,
}

impl Response {
    /// At the deviations of one cylinder.
    #[inline]
    pub fn at(&self, deviations: &[f64]) -> f64 {
        self.effects.iter().fold(self.middle, |sum, effect| sum + effect.at(deviations[effect.variable]))
    }

    /// Standard deviation.
    pub fn sd(&self, variables: &[Variable]) -> f64 {
        self.effects.iter().map(|effect| effect.variance(variables)).sum::<f64>().sqrt()
    }

    /// The variables with their shares of the variance, the largest first.
    pub fn drivers(&self, variables: &[Variable]) -> Vec<(usize, f64)> {
        let all = self.sd(variables).powi(2);
        let share = |effect: &Effect| (effect.variable, effect.variance(variables) / all);
        let mut found: Vec<(usize, f64)> = self.effects.iter().map(share).filter(|(_, share)| *share > 0.0).collect();
        found.sort_by(|a, b| b.1.total_cmp(&a.1));
        found
    }
}
