//! Engine, curves, lift, lobe, spring, control and clearances of a candidate.

use super::limit::Verdict;
use crate::quantity::Shown;
use serde::{Serialize, Serializer};

report! {
    /// The shared engine.
    pub struct EngineReport {
        /// All cylinders, cm3.
        displacement_cc: f64,
        /// Static compression ratio; absent while a volume is unknown.
        compression_ratio: Option<f64>,
        /// Flat of the crown to the head, mm.
        quench_mm: f64,
    }

    /// Curves over one cycle, a crank degree apart, both ends included.
    pub struct StripReport {
        /// 0 at firing top dead centre.
        #[serde(serialize_with = "short")]
        crank_deg: Vec<f64>,
        /// Crown below the head's gasket face.
        #[serde(serialize_with = "short")]
        piston_mm: Vec<f64>,
        /// Intake valve lift.
        #[serde(serialize_with = "short")]
        intake_lift_mm: Vec<f64>,
        /// Exhaust valve lift.
        #[serde(serialize_with = "short")]
        exhaust_lift_mm: Vec<f64>,
        /// Lift the intake valve gets turning slowly: less give, lash and flex, by the true ratio; absent while rigid.
        #[serde(serialize_with = "short_where_known")]
        intake_running_mm: Option<Vec<f64>>,
        /// The same of the exhaust.
        #[serde(serialize_with = "short_where_known")]
        exhaust_running_mm: Option<Vec<f64>>,
        /// Intake valve velocity, mm per crank degree.
        #[serde(serialize_with = "short")]
        intake_velocity_mm_per_deg: Vec<f64>,
        /// Exhaust valve velocity, mm per crank degree.
        #[serde(serialize_with = "short")]
        exhaust_velocity_mm_per_deg: Vec<f64>,
        /// Gap of the intake valve along its stem; absent while its place is unknown.
        #[serde(serialize_with = "short_where_known")]
        intake_clearance_mm: Option<Vec<f64>>,
        /// Gap of the exhaust valve along its stem.
        #[serde(serialize_with = "short_where_known")]
        exhaust_clearance_mm: Option<Vec<f64>>,
        /// Crown below the gasket face at which a closed intake valve's lowest edge sits; negative above.
        intake_face_mm: Option<f64>,
        /// The same for the exhaust.
        exhaust_face_mm: Option<f64>,
    }

    /// Lift of one side.
    pub struct LiftReport {
        /// At the lobe.
        lobe_mm: f64,
        /// Times ratio.
        gross_mm: f64,
        /// Less lash.
        net_mm: f64,
        /// While it turns slowly: less give, lash and what the train gives under the spring, by the true ratio.
        running_mm: f64,
    }

    /// Follower motion of one side; angles in cam degrees from full lift.
    pub struct LobeReport {
        /// Largest velocity on either flank.
        peak_velocity_mm_per_cam_deg: f64,
        /// Largest acceleration.
        peak_acceleration_mm_per_cam_deg2: f64,
        /// Most negative acceleration.
        minimum_acceleration_mm_per_cam_deg2: f64,
        /// Smallest radius of the surface where it bulges.
        minimum_radius_mm: f64,
        /// Smallest radius where it is hollow; absent where it nowhere is.
        hollow_radius_mm: Option<f64>,
        /// Greatest angle between the follower's way and the normal; zero under a flat foot.
        pressure_angle_deg: f64,
        /// Farthest the contact wanders from the middle of a flat foot; absent under a roller.
        foot_offset_mm: Option<f64>,
        /// Greatest Hertz stress under the spring, turning slowly; absent while the spring is unknown.
        contact_stress_mpa: Option<f64>,
        /// The same as read.
        contact_stress: Option<Shown>,
        /// Largest distance from measured points; absent for a lobe made from its card.
        residual_mm: Option<f64>,
        /// Cam angle.
        cam_deg: Vec<f64>,
        /// Follower lift.
        lift_mm: Vec<f64>,
        /// mm per cam degree.
        velocity: Vec<f64>,
        /// mm per cam degree squared.
        acceleration: Vec<f64>,
        /// mm per cam degree cubed.
        jerk: Vec<f64>,
    }

    /// Whether the springs can stay under this cam.
    pub struct SpringsStay {
        /// The worst verdict of the rules that decide it.
        verdict: Verdict,
        /// The sentence, with its figures.
        says: Shown,
    }

    /// The hand check of one side: rigid parts.
    pub struct ControlReport {
        /// Crank speed at which a rigid train would leave the lobe.
        hand_check_rpm: f64,
        /// Cam degree from full lift where it would.
        hand_check_at_cam_deg: f64,
        /// Moving mass seen from the valve.
        effective_mass_g: f64,
    }

    /// What must not touch, at rest.
    pub struct ClearanceReport {
        /// Intake valve.
        intake: ValveClearance,
        /// Exhaust valve.
        exhaust: ValveClearance,
        /// Between the heads.
        valve_to_valve_mm: Option<f64>,
        /// Flat of the crown to the head.
        piston_to_head_mm: f64,
    }

    /// Clearances of one valve.
    pub struct ValveClearance {
        /// Smallest gap along the stem.
        piston_minimum_mm: f64,
        /// Straight down the bore at the same angle.
        piston_minimum_vertical_mm: f64,
        /// Square to the surface at the same angle.
        piston_minimum_normal_mm: f64,
        /// Crank degrees from firing top dead centre.
        piston_minimum_at_deg: f64,
        /// For a degree of cam advance.
        per_degree_of_advance_mm: f64,
        /// To the pocket's wall; absent without a pocket.
        radial_mm: Option<f64>,
        /// Retainer to seal at full lift; absent while a height is unknown.
        retainer_to_seal_mm: Option<f64>,
    }
}

/// Curves a degree apart are mostly nothing and whole degrees: `0` instead of `0.0` is a quarter of such an answer.
fn short<S: Serializer>(curve: &[f64], serializer: S) -> Result<S::Ok, S::Error> {
    serializer.collect_seq(curve.iter().map(|value| Short(*value)))
}

fn short_where_known<S: Serializer>(curve: &Option<Vec<f64>>, serializer: S) -> Result<S::Ok, S::Error> {
    curve.as_ref().map(|curve| curve.iter().map(|value| Short(*value)).collect::<Vec<_>>()).serialize(serializer)
}

/// A number that is written without its point where it is whole.
struct Short(f64);

impl Serialize for Short {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        if self.0.fract() == 0.0 && self.0.abs() < 1e9 {
            serializer.serialize_i64(self.0 as i64)
        } else {
            serializer.serialize_f64(self.0)
        }
    }
}
