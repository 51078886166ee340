//! Engines drawn by lot: a deviation of every variable in every cylinder.

use super::spread::Spread;
use rand_distr::{Distribution, StandardNormal};
use rand_pcg::Pcg64;
use rand_pcg::rand_core::SeedableRng;

/// What one field may be off by, and who shares it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Variable {
    /// Its spread in one cylinder.
    pub spread: Spread,
    /// Share of the variance that all cylinders of an engine have in common.
    pub engine: f64,
    /// Share that those of a bank have in common beside that.
    pub bank: f64,
    /// What is left of the spread once the field is measured, of one; one where measuring tells nothing new.
    pub known: f64,
}

impl Variable {
    /// A scatter of this standard deviation that nobody shares and no measuring lessens.
    pub fn scatter(sd: f64) -> Self {
        Self { spread: Spread::of_sd(sd), engine: 0.0, bank: 0.0, known: 1.0 }
    }
}

/// Which engines are drawn.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cast {
    /// Cylinders of an engine.
    pub cylinders: usize,
    /// Its banks.
    pub banks: usize,
    /// Engines drawn.
    pub engines: usize,
    /// The lot.
    pub seed: u64,
}

impl Cast {
    /// Deviations of every variable in every cylinder of one engine, cylinder after cylinder: the same for the same seed and
    /// place, whoever draws and in whatever order.
    pub fn draw(&self, variables: &[Variable], engine: usize, out: &mut [f64]) {
        // One stream of the generator for every engine.
        let mut state = [0_u8; 32];
        state[..8].copy_from_slice(&self.seed.to_le_bytes());
        state[16..24].copy_from_slice(&(engine as u64).to_le_bytes());
        let mut lot = Pcg64::from_seed(state);
        let mut normal = || -> f64 { StandardNormal.sample(&mut lot) };
        for (place, variable) in variables.iter().enumerate() {
            let own = (1.0 - variable.engine - variable.bank).max(0.0);
            let whole = if variable.engine > 0.0 { normal() } else { 0.0 };
            let mut banks = [0.0; 2];
            if variable.bank > 0.0 {
                banks.iter_mut().for_each(|bank| *bank = normal());
            }
            for cylinder in 0..self.cylinders {
                let alone = if own > 0.0 { normal() } else { 0.0 };
                let bank = banks[cylinder % self.banks.clamp(1, 2)];
                let z = variable.engine.sqrt() * whole + variable.bank.sqrt() * bank + own.sqrt() * alone;
                out[cylinder * variables.len() + place] = variable.spread.at(z);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::words::SpreadShape;

    fn cast() -> Cast {
        Cast { cylinders: 8, banks: 2, engines: 4000, seed: 7 }
    }

    /// Mean product of the deviations of two cylinders over all engines, of the variance.
    fn shared(variable: Variable, one: usize, other: usize) -> f64 {
        let (cast, mut out) = (cast(), vec![0.0; 8]);
        let product = |engine| {
            cast.draw(&[variable], engine, &mut out);
            out[one] * out[other]
        };
        (0..cast.engines).map(product).sum::<f64>() / cast.engines as f64 / variable.spread.sd().powi(2)
    }

    #[test]
    fn cylinders_share_what_they_are_said_to_share() {
        let spread = Spread { half: 1.0, shape: SpreadShape::Normal };
        let variable = Variable { spread, engine: 0.3, bank: 0.5, known: 1.0 };
        // A mean of 4,000 products of unit variance strays by at most 1/63 x 1.4; three times that.
        for (one, other, expected) in [(0, 0, 1.0), (0, 2, 0.8), (0, 1, 0.3)] {
            let found = shared(variable, one, other);
            assert!((found - expected).abs() < 0.07, "{one} and {other}: {found} for {expected}");
        }
    }

    #[test]
    fn an_engine_is_the_same_whoever_draws_it() {
        let variable =
            Variable { spread: Spread { half: 1.0, shape: SpreadShape::Uniform }, engine: 0.0, bank: 0.0, known: 1.0 };
        let draw = |engine| {
            let mut out = vec![0.0; 8];
            cast().draw(&[variable], engine, &mut out);
            out
        };
        assert_eq!(draw(17), draw(17));
        assert_ne!(draw(17), draw(18));
    }
}
