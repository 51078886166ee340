//! How one value spreads around what is given for it.

use crate::words::SpreadShape;
use std::f64::consts::SQRT_2;

/// Standard deviations of a normal spread that hold 95 of 100 between minus and plus [tables of the normal distribution].
pub const HOLDS_95: f64 = 1.959_963_984_540_054;

/// A spread around zero, symmetric.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// The plus-minus: of a normal spread it holds 95 of 100, of the others all.
    pub half: f64,
    /// Its shape.
    pub shape: SpreadShape,
}

impl Spread {
    /// A normal one of this standard deviation.
    pub const fn of_sd(sd: f64) -> Self {
        Self { half: sd * HOLDS_95, shape: SpreadShape::Normal }
    }

    /// Standard deviation: `half/1.96`, `half/sqrt 3`, `half/sqrt 6` [any book on statistics; JCGM 100, 4.3].
    pub fn sd(&self) -> f64 {
        match self.shape {
            SpreadShape::Normal => self.half / HOLDS_95,
            SpreadShape::Uniform => self.half / 3_f64.sqrt(),
            SpreadShape::Triangular => self.half / 6_f64.sqrt(),
        }
    }

    /// Fourth moment over the square of the variance: what a square of the deviation spreads by.
    pub const fn kurtosis(&self) -> f64 {
        match self.shape {
            SpreadShape::Normal => 3.0,
            SpreadShape::Uniform => 1.8,
            SpreadShape::Triangular => 2.4,
        }
    }

    /// The deviation that stands as far out in this spread as `z` stands in the standard normal one.
    pub fn at(&self, z: f64) -> f64 {
        match self.shape {
            SpreadShape::Normal => z * self.sd(),
            SpreadShape::Uniform => self.half * libm::erf(z / SQRT_2),
            SpreadShape::Triangular => {
                // Within a triangle from -1 to 1 the share below x <= 0 is (1 + x)^2/2.
                let below = 0.5 * libm::erfc(z.abs() / SQRT_2);
                self.half * (1.0 - (2.0 * below).sqrt()).copysign(z)
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_plus_minus_holds_what_it_says() {
        let normal = Spread { half: 0.003, shape: SpreadShape::Normal };
        // 1.959964 standard deviations hold 95 % [tables of the normal distribution].
        assert!((normal.at(1.959_964) - 0.003).abs() < 1e-9);
        for shape in [SpreadShape::Uniform, SpreadShape::Triangular] {
            let spread = Spread { half: 0.003, shape };
            assert!(spread.at(6.0) <= 0.003 && spread.at(6.0) > 0.002_99);
            assert_eq!(spread.at(0.0), 0.0);
            assert!((spread.at(-1.3) + spread.at(1.3)).abs() < 1e-15);
        }
        // A quarter of a triangle lies below minus (1 - 1/sqrt 2) of its half; a quarter of the bell below -.67449.
        let triangle = Spread { half: 1.0, shape: SpreadShape::Triangular };
        assert!((triangle.at(-0.674_489_75) + (1.0 - 0.5_f64.sqrt())).abs() < 1e-7);
    }

    #[test]
    fn moments_are_those_of_the_shapes() {
        // By a fine sum over the standard normal.
        for shape in [SpreadShape::Normal, SpreadShape::Uniform, SpreadShape::Triangular] {
            let spread = Spread { half: 2.0, shape };
            let weight = |z: f64| (-0.5 * z * z).exp() / (2.0 * std::f64::consts::PI).sqrt() * 1e-3;
            let moment = |power: i32| {
                (-8000..=8000).map(|i| f64::from(i) * 1e-3).map(|z| weight(z) * spread.at(z).powi(power)).sum::<f64>()
            };
            assert!((moment(2).sqrt() / spread.sd() - 1.0).abs() < 1e-5, "{shape:?}");
            assert!((moment(4) / moment(2).powi(2) / spread.kurtosis() - 1.0).abs() < 1e-4, "{shape:?}");
        }
    }
}
