//! One cylinder to scale.

use serde::Serialize;

report! {
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
        /// Face to tip; absent while nobody measured it.
        length_mm: Option<f64>,
        /// Retainer below the tip.
        below_tip_mm: f64,
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
}
