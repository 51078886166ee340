//! Curves that were drafted with the cam turned, as a parabola each over the advance.

use crate::limits::GasFinding;
use crate::response::{Fit, Terms, fit};

/// Torque, low torque and power over the advance, and what limits ask of the gas.
pub(super) struct Curves {
    /// Crank degrees forward at which curves were drafted.
    pub drafted: Vec<f64>,
    /// Average torque, torque of the lowest third, N m, and peak power, W, of each.
    pub values: Vec<Vec<f64>>,
    /// Through these.
    pub torque: Over,
    /// Through what the gas of each asks.
    pub gas: Option<GasOver>,
}

impl Curves {
    /// `None` where too few settled.
    pub fn through(drafted: Vec<f64>, values: Vec<Vec<f64>>, gas: &[GasFinding]) -> Option<Self> {
        let torque = Over::through(&drafted, &values)?;
        let gas = GasOver::through(&drafted, gas);
        Some(Self { drafted, values, torque, gas })
    }
}

/// Columns over the advance.
pub(super) struct Over {
    fit: Fit,
    /// Degrees that count as one.
    whole: f64,
}

impl Over {
    fn through(drafted: &[f64], values: &[Vec<f64>]) -> Option<Self> {
        let whole = drafted.last()? - drafted.first()?;
        let places: Vec<Vec<f64>> = drafted.iter().map(|deg| vec![deg / whole]).collect();
        Some(Self { fit: fit(Terms::Products, &places, values)?, whole })
    }

    /// Every column at an advance, crank degrees.
    pub fn at(&self, advance: f64) -> Vec<f64> {
        self.fit.polynomial.at(&[advance / self.whole])
    }

    /// Root of the mean square of what a column misses of `values` that are left out.
    pub fn missed(&self, values: &[Vec<f64>], column: usize) -> f64 {
        self.fit.missed(values, column)
    }
}

/// What limits ask of the gas over the advance.
pub(super) struct GasOver {
    over: Over,
    /// Which figures every drafted curve has.
    known: [bool; GasFinding::FIGURES],
}

impl GasOver {
    fn through(drafted: &[f64], gas: &[GasFinding]) -> Option<Self> {
        let figures: Vec<_> = gas.iter().map(GasFinding::figures).collect();
        let known = std::array::from_fn(|i| figures.iter().all(|own| own[i].is_finite()));
        let masked = |own: &[f64; GasFinding::FIGURES]| {
            own.iter().zip(known).map(|(value, known)| if known { *value } else { 0.0 }).collect()
        };
        let rows: Vec<Vec<f64>> = figures.iter().map(masked).collect();
        Some(Self { over: Over::through(drafted, &rows)?, known })
    }

    /// At an advance, crank degrees.
    pub fn at(&self, advance: f64) -> GasFinding {
        let values = self.over.at(advance);
        GasFinding::of_figures(&std::array::from_fn(|i| if self.known[i] { values[i] } else { f64::NAN }))
    }
}
