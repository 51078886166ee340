//! Events and durations.

use serde::Serialize;

report! {
    /// Events and durations of a candidate.
    pub struct TimingReport {
        /// Intake: opens before top, closes after bottom dead centre.
        intake: SideTiming,
        /// Exhaust: opens before bottom, closes after top dead centre.
        exhaust: SideTiming,
        /// Mean of both centrelines.
        lobe_separation_deg: f64,
        /// Separation less intake centreline.
        advance_deg: f64,
        /// Overlap at .006 in of lobe lift.
        overlap_006_deg: f64,
        /// Overlap at .050 in of lobe lift.
        overlap_050_deg: f64,
        /// Compression ratio from the seat timing (.006).
        trapped_compression_ratio: Option<f64>,
        /// Compression ratio from closing at .050.
        trapped_compression_050_ratio: Option<f64>,
    }

    /// Events and durations of one side.
    pub struct SideTiming {
        /// Centre of the .050 events: after top dead centre for the intake, before it for the exhaust.
        centreline_deg: f64,
        /// Full lift, same reference.
        centre_of_lift_deg: f64,
        /// Duration at each height of the card.
        durations: Vec<DurationAt>,
        /// Duration at .006 in.
        duration_006_deg: f64,
        /// Duration at .050 in.
        duration_050_deg: f64,
        /// Duration at .200 in; absent on a lobe that low.
        duration_200_deg: Option<f64>,
        /// Opens at .006 in.
        opens_006_deg: f64,
        /// Closes at .006 in.
        closes_006_deg: f64,
        /// Opens at .050 in.
        opens_050_deg: f64,
        /// Closes at .050 in.
        closes_050_deg: f64,
    }

    /// A duration at a height of lobe lift.
    pub struct DurationAt {
        /// Lobe lift, mm.
        height_mm: f64,
        /// Crank degrees.
        deg: f64,
    }
}
