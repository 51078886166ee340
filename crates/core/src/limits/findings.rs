//! What long work found of a candidate, which rules may use beside what the document gives: the gas now.

use crate::quantity::Pressure;

/// Everything that was found; a rule says which of it goes into it.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Findings {
    /// What breathing found.
    pub gas: Option<GasFinding>,
}

/// What breathing found that limits ask for, greatest over the speeds.
#[derive(Debug, Clone, PartialEq)]
pub struct GasFinding {
    /// Octane number at the edge of knock, for a spark engine.
    pub octane_needed: Option<f64>,
    /// Highest cylinder pressure, Pa.
    pub peak_pressure: f64,
    /// Highest cylinder pressure as the exhaust valve opens, Pa.
    pub opening_pressure: f64,
    /// Manifold vacuum at idle, Pa, where it was computed; zero when it does not idle.
    pub idle_vacuum: Option<f64>,
    /// Manifold and drive pressure, gauge, for a boosted engine.
    pub boost: Option<(Pressure, Pressure)>,
}
