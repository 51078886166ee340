//! Pressures and flows of the last cycle, for pictures.

/// Degrees between the entries of a trace.
pub const TRACE_STEP: f64 = 1.0;
const ENTRIES: usize = 720;

/// What the first cylinder saw in its last cycle, every degree from firing top dead centre.
#[derive(Debug, Clone, PartialEq)]
pub struct Trace {
    /// Cylinder pressure, Pa.
    pub cylinder: Vec<f64>,
    /// Pressure in the runner at the valve, Pa.
    pub intake: Vec<f64>,
    /// Pressure in the primary at the valve, Pa.
    pub exhaust: Vec<f64>,
    /// Through the intake valve into the cylinder, kg/s.
    pub intake_flow: Vec<f64>,
    /// Through the exhaust valve out of the cylinder, kg/s.
    pub exhaust_flow: Vec<f64>,
}

impl Default for Trace {
    fn default() -> Self {
        let empty = || vec![0.0; ENTRIES];
        Self { cylinder: empty(), intake: empty(), exhaust: empty(), intake_flow: empty(), exhaust_flow: empty() }
    }
}

impl Trace {
    /// Writes the entries from the last written angle to `own`; a step may jump over some.
    pub(super) fn put(&mut self, own: f64, cylinder: f64, pipes: [f64; 2], flows: [f64; 2]) {
        let at = (own / TRACE_STEP) as usize % ENTRIES;
        for i in [at, (at + 1) % ENTRIES] {
            self.cylinder[i] = cylinder;
            (self.intake[i], self.exhaust[i]) = (pipes[0], pipes[1]);
            (self.intake_flow[i], self.exhaust_flow[i]) = (flows[0], flows[1]);
        }
    }
}
