//! Gaps at speed, term by term.

use crate::quantity::Shown;
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
        /// Head to head, where both valves' places and motions are known.
        valve_to_valve_mm: Option<Vec<f64>>,
        /// Whether the growth is a budget: every term that nobody can compute is given, or a running engine showed it.
        has_budget: bool,
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
        /// Edge to pocket wall, less what valve and piston sway; the same at every speed.
        radial_mm: Option<f64>,
        /// Retainer to seal at the most lift in motion, at every speed.
        retainer_to_seal_mm: Option<Vec<f64>>,
        /// Travel left to coil bind at the most lift in motion, at every speed.
        coil_bind_mm: Option<Vec<f64>>,
        /// What running engines showed of it.
        marks: Vec<MarkReport>,
    }

    /// What one witness mark says.
    pub struct MarkReport {
        /// Its identifier.
        id: String,
        /// The speed it was run to.
        rpm: f64,
        /// What it left.
        left_mm: f64,
        /// What the terms leave there.
        computed_mm: f64,
        /// In words.
        says: Shown,
        /// The field that would take it up, unless both agree.
        field: Option<String>,
        /// The text that field would take.
        to: Option<String>,
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
