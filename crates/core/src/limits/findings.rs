//! What long work found of a candidate, which rules may use beside what the document gives: the gas, and the train in motion.

use crate::quantity::{Pressure, Speed};

/// Everything that was found; a rule says which of it goes into it.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Findings {
    /// What breathing found.
    pub gas: Option<GasFinding>,
    /// What the train in motion found.
    pub control: Option<ControlFinding>,
}

/// Where control is lost.
#[derive(Debug, Clone, PartialEq)]
pub struct ControlFinding {
    /// Intake and exhaust.
    pub sides: [InMotion; 2],
}

impl ControlFinding {
    /// Where only the limiting speeds are known, rpm.
    pub fn of_rpm(speeds: [f64; 2]) -> Self {
        let of = |speed: f64| InMotion {
            speed: Speed::rpm(speed).si(),
            low: Speed::rpm(speed).si(),
            piston: None,
            pushrod: None,
            lobe: None,
            wire: None,
        };
        Self { sides: speeds.map(of) }
    }
}

/// One valve in motion; what parts bear is the most up to a missed shift, absent where it is not known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct InMotion {
    /// Limiting speed, rad/s of the crank, the median of the draws; one beyond the speeds looked at counts as the highest.
    pub speed: f64,
    /// Nine of ten draws lie above.
    pub low: f64,
    /// Least gap to the piston along the stem, m.
    pub piston: Option<f64>,
    /// Load the pushrod buckles at over what it bears.
    pub pushrod: Option<f64>,
    /// Contact stress on the lobe, Pa.
    pub lobe: Option<f64>,
    /// Share of its strength that any wire bears.
    pub wire: Option<f64>,
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
