//! Gaps at speed, term by term.

use serde::Serialize;

report! {
    /// What is left between valve and piston at speed.
    pub struct AtSpeedReport {
        /// Speeds, rising to shift plus overspeed.
        speed_rpm: Vec<f64>,
        /// Intake valve.
        intake: AtSpeedSide,
        /// Exhaust valve.
        exhaust: AtSpeedSide,
        /// Flat of the crown to the head.
        piston_to_head_mm: Vec<f64>,
        /// Crank degrees by which the cam runs late.
        lag_deg: Vec<f64>,
    }

    /// One valve.
    pub struct AtSpeedSide {
        /// Least gap along the stem at rest: cold, by hand, on time.
        at_rest_mm: f64,
        /// Least gap at every speed.
        minimum_mm: Vec<f64>,
        /// Where, crank degrees from firing top dead centre.
        at_deg: Vec<f64>,
        /// What lies between the two, one after another: their sum is the difference.
        terms: Vec<GrowthTerm>,
    }

    /// One term of a gap's way from rest to speed.
    pub struct GrowthTerm {
        /// Stable identifier.
        id: String,
        /// In words.
        name: String,
        /// What it does to the gap at every speed; what it takes is negative.
        mm: Vec<f64>,
        /// The field that says it, where one does.
        field: Option<String>,
        /// Where it is from, in words.
        how: String,
        /// Whether it is assumed.
        is_assumed: bool,
    }
}
