//! The analysis as it is answered: one fixed unit per quantity, named in its key. Every event key
//! names its reference; crank angle of curves counts from firing top dead centre, 0..720.

use crate::document::{Assumed, InputUsed, Side};
use crate::quantity::{Scale, Shown};
use serde::Serialize;

/// Derives what every part of the report has.
macro_rules! report {
    ($($(#[$doc:meta])* pub struct $name:ident { $($(#[$field_doc:meta])* $field:ident: $kind:ty,)+ })+) => {
        $($(#[$doc])*
        #[derive(Debug, Clone, PartialEq, Serialize)]
        #[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
        pub struct $name { $($(#[$field_doc])* pub $field: $kind,)+ })+
    };
}

/// One block of a candidate with its state.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "state", rename_all = "snake_case")]
pub enum Block<T> {
    /// Computed.
    Done(T),
    /// Being computed; only long parts ever are.
    Running,
    /// Left out of `parts`.
    NotAsked,
    /// It could not be computed.
    Failed {
        /// Why, as a sentence.
        reason: String,
        /// Paths of fields that would make it computable.
        needs: Vec<String>,
    },
}

impl<T> Block<T> {
    /// The block's content when it is done.
    pub const fn done(&self) -> Option<&T> {
        match self {
            Self::Done(value) => Some(value),
            _ => None,
        }
    }
}

/// One value for each side.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sides<T> {
    /// Intake.
    pub intake: T,
    /// Exhaust.
    pub exhaust: T,
}

impl<T> Sides<T> {
    /// The value of one side.
    pub const fn of(&self, side: Side) -> &T {
        match side {
            Side::Intake => &self.intake,
            Side::Exhaust => &self.exhaust,
        }
    }
}

report! {
    /// The answer to a build.
    pub struct Analysis {
        /// What all candidates share.
        engine: Block<EngineReport>,
        /// One entry for each candidate asked for.
        candidates: Vec<CandidateReport>,
        /// Every default that was used.
        assumed: Vec<Assumed>,
        /// Sentences a builder should read.
        warnings: Vec<String>,
        /// How lengths and angles of curves are shown.
        scales: Scales,
    }

    /// Factors that show the curves in either system.
    pub struct Scales {
        /// Lengths in inches.
        length_inch: Scale,
        /// Lengths in millimetres.
        length_metric: Scale,
        /// Crank angles.
        angle: Scale,
        /// Flows in cubic feet a minute.
        flow_inch: Scale,
        /// Flows in litres a second.
        flow_metric: Scale,
    }

    /// The shared engine.
    pub struct EngineReport {
        /// All cylinders, cm3.
        displacement_cc: f64,
        /// Static compression ratio; absent while a volume is unknown.
        compression_ratio: Option<f64>,
        /// Flat of the crown to the head, mm.
        quench_mm: f64,
    }

    /// One candidate.
    pub struct CandidateReport {
        /// Stable identifier.
        id: String,
        /// Name.
        name: String,
        /// The engine as this candidate has it, its changes made.
        engine: Block<EngineReport>,
        /// Events and durations.
        timing: Block<TimingReport>,
        /// Curves over the crank.
        strip: Block<StripReport>,
        /// Lift at lobe and valve.
        lift: Block<Sides<LiftReport>>,
        /// Follower motion.
        lobe: Block<Sides<LobeReport>>,
        /// Spring package.
        spring: Block<Sides<SpringReport>>,
        /// The hand check.
        control: Block<Sides<ControlReport>>,
        /// What must not touch.
        clearance: Block<ClearanceReport>,
        /// To scale, for the drawing.
        drawing: Block<DrawingReport>,
        /// Every rule with need, have and margin.
        limits: Vec<LimitReport>,
        /// What to measure next, what settles most first; with limits.
        measure_next: Vec<MeasureNext>,
    }

    /// A field worth measuring.
    pub struct MeasureNext {
        /// Its path.
        field: String,
        /// In words.
        label: String,
        /// What stands for it now; empty when it is unknown.
        value: String,
        /// Margins that rest on it.
        settles: Vec<String>,
    }

    /// One cylinder to scale, in the frame of the clearances; millimetres and degrees.
    pub struct DrawingReport {
        /// Cylinder bore.
        bore_mm: f64,
        /// Intake valve and what moves it.
        intake: ValveDrawing,
        /// Exhaust valve and what moves it.
        exhaust: ValveDrawing,
    }

    /// One valve with its train, as a section across the engine through the valve.
    pub struct ValveDrawing {
        /// Centre of the closed face across the engine; absent while it is unknown.
        offset_mm: Option<f64>,
        /// The same along the crank.
        offset_y_mm: Option<f64>,
        /// The port's other valve: across the engine and along the crank; absent when there is none.
        second_mm: Option<[f64; 2]>,
        /// Closed face's centre below the gasket face, negative above it.
        face_mm: f64,
        /// Tilt of the stem across the engine.
        tilt_deg: f64,
        /// Head diameter.
        head_mm: f64,
        /// Stem diameter.
        stem_mm: f64,
        /// Cylindrical edge of the head.
        margin_mm: f64,
        /// Pocket below it; absent for a flat crown.
        pocket: Option<PocketDrawing>,
        /// Spring, valve closed; absent while its height is unknown.
        spring: Option<SpringDrawing>,
        /// Rocker ratio; absent while unknown.
        ratio: Option<f64>,
        /// Pushrod length.
        pushrod_mm: Option<f64>,
        /// Pushrod diameter.
        pushrod_diameter_mm: Option<f64>,
        /// Whether the lifter has a roller.
        roller: bool,
        /// Diameter of roller or foot.
        follower_mm: f64,
        /// Radius of the base circle.
        base_radius_mm: f64,
        /// The flow table.
        flow: Vec<FlowPoint>,
        /// The reverse flow table.
        flow_reverse: Vec<FlowPoint>,
    }

    /// A row of a flow table.
    pub struct FlowPoint {
        /// Valve lift.
        lift_mm: f64,
        /// Flow of the whole port.
        flow_l_per_s: f64,
    }

    /// A pocket in the crown.
    pub struct PocketDrawing {
        /// Centre of its floor across the engine.
        offset_mm: f64,
        /// The same along the crank.
        offset_y_mm: f64,
        /// Floor's centre below the crown.
        floor_mm: f64,
        /// Its diameter.
        diameter_mm: f64,
        /// Tilt of its floor across the engine.
        tilt_deg: f64,
    }

    /// A spring as fitted.
    pub struct SpringDrawing {
        /// Seat to retainer, valve closed.
        installed_mm: f64,
        /// All coils touch at this height.
        bind_mm: Option<f64>,
        /// Outside diameter.
        outside_mm: f64,
        /// How far the retainer reaches below its seat.
        retainer_depth_mm: f64,
        /// Top of the seal above the spring seat.
        seal_mm: Option<f64>,
    }

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

    /// Curves over one cycle, a crank degree apart, both ends included.
    pub struct StripReport {
        /// 0 at firing top dead centre.
        crank_deg: Vec<f64>,
        /// Crown below the head's gasket face.
        piston_mm: Vec<f64>,
        /// Intake valve lift.
        intake_lift_mm: Vec<f64>,
        /// Exhaust valve lift.
        exhaust_lift_mm: Vec<f64>,
        /// Intake valve velocity, mm per crank degree.
        intake_velocity_mm_per_deg: Vec<f64>,
        /// Exhaust valve velocity, mm per crank degree.
        exhaust_velocity_mm_per_deg: Vec<f64>,
        /// Gap of the intake valve along its stem; absent while its place is unknown.
        intake_clearance_mm: Option<Vec<f64>>,
        /// Gap of the exhaust valve along its stem.
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
    }

    /// Follower motion of one side; angles in cam degrees from full lift.
    pub struct LobeReport {
        /// Largest velocity on either flank.
        peak_velocity_mm_per_cam_deg: f64,
        /// Largest acceleration.
        peak_acceleration_mm_per_cam_deg2: f64,
        /// Most negative acceleration.
        minimum_acceleration_mm_per_cam_deg2: f64,
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

    /// Spring package of one side at this cam's lift.
    pub struct SpringReport {
        /// Valve closed.
        seat_load_n: f64,
        /// At full net lift.
        open_load_n: f64,
        /// Mean over the lift.
        rate_n_per_mm: f64,
        /// Travel left at full net lift.
        to_coil_bind_mm: Option<f64>,
        /// First surge frequency.
        surge_frequency_hz: Option<f64>,
        /// Corrected shear stress at full lift; only for springs known by wire.
        stress_open_mpa: Option<f64>,
        /// Seat load less the push of boost (intake) or drive pressure (exhaust).
        seat_reserve_n: Option<f64>,
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

    /// What a rule needs.
    pub struct NeedReport {
        /// At least.
        min: Option<f64>,
        /// At most.
        max: Option<f64>,
    }

    /// One rule held against the candidate.
    pub struct LimitReport {
        /// Stable identifier of the rule.
        id: String,
        /// The side it is about.
        side: Option<Side>,
        /// In words.
        title: String,
        /// How need and have compare.
        sense: Sense,
        /// What is needed.
        need: NeedReport,
        /// What there is; absent when unknown.
        have: Option<f64>,
        /// What is left over, positive when met.
        margin: Option<f64>,
        /// Unit of need, have and margin.
        unit: String,
        /// Need, have and margin as read, in both systems.
        shown: Option<LimitShown>,
        /// In one word.
        verdict: Verdict,
        /// Whose rule it is.
        school: String,
        /// Where the figure comes from.
        source: String,
        /// The step of the work it belongs to.
        place: Place,
        /// How have is computed.
        formula: String,
        /// What went into it.
        inputs: Vec<InputUsed>,
        /// Fields that would make it known.
        missing: Vec<String>,
        /// Single changes that buy margin, computed by running them; empty unless asked for.
        remedies: Vec<Remedy>,
        /// The field to go to.
        edit_field: String,
    }

    /// Figures of a limit as read.
    pub struct LimitShown {
        /// What is needed, such as `.080 in` or `105 to 130 lbf`.
        need: Shown,
        /// What there is.
        have: Shown,
        /// What is left, with its sign.
        margin: Shown,
        /// Where have lies on a bar, 0 to 1.
        have_at: f64,
        /// Where the bounds lie on that bar.
        need_at: Vec<f64>,
    }

    /// A single change and what it buys.
    pub struct Remedy {
        /// The field changed.
        field: String,
        /// What it is called.
        label: String,
        /// From this text.
        from: String,
        /// To this text.
        to: String,
        /// Margin gained, in the limit's unit.
        gain: f64,
        /// Margin gained, as read.
        gain_shown: Shown,
        /// The verdict it leads to.
        verdict: Verdict,
    }
}

/// The step of the work a limit belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Place {
    /// Valve events.
    Events,
    /// The lobe.
    Lobe,
    /// The lifter.
    Lifter,
    /// The rocker.
    Rocker,
    /// The spring package.
    Spring,
    /// What must not touch.
    Clearance,
}

/// How a rule compares.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Sense {
    /// Have must not be below need.
    AtLeast,
    /// Have must not be above need.
    AtMost,
    /// Have must lie between both.
    Within,
}

/// A verdict; a planning aid below any maker's instruction or machinist's measurement.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Verdict {
    /// Met with room.
    Ok,
    /// Met, with little left.
    Tight,
    /// Not met.
    Fails,
    /// A field is missing.
    Unknown,
}

impl Verdict {
    /// In one word.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Ok => "ok",
            Self::Tight => "tight",
            Self::Fails => "fails",
            Self::Unknown => "unknown",
        }
    }
}
