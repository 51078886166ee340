//! Changes that may buy margin, each sized by what parts and machining allow.

use super::figures::INCH;
use super::rule::{How, Lever};
use crate::document::Side;
use crate::given::{Of, Place};

const DEG: f64 = std::f64::consts::PI / 180.0;
const RPM: f64 = std::f64::consts::PI / 30.0;

/// A lever on one field as the rule's side sees it.
macro_rules! lever {
    ($($(#[$doc:meta])* $name:ident = $of:ident . $key:literal by $step:expr, at most $most:literal, $how:ident;)+) => {$(
        $(#[$doc])*
        pub const $name: Lever = Lever {
            place: |side: Side| Place::new(Of::$of, $key, side),
            step: $step,
            most: $most as f64,
            how: How::$how,
        };
    )+};
}

lever! {
    /// The cam later as a whole.
    LATER = Cam."intake_centreline" by DEG, at most 8, Shims;
    /// The cam earlier as a whole.
    EARLIER = Cam."intake_centreline" by -DEG, at most 8, Shims;
    /// Lobes ground further apart.
    WIDER = Cam."lobe_separation" by 0.5 * DEG, at most 16, Part;
    /// A thicker gasket.
    THICKER_GASKET = Engine."gasket_thickness" by 0.005 * INCH, at most 4, Shims;
    /// The piston lower, by its pin or a taller deck left alone.
    DEEPER_DECK = Engine."deck_clearance" by 0.005 * INCH, at most 6, Machining;
    /// A pocket flycut deeper: crowns leave some sixty thousandths.
    DEEPER = Pocket."depth" by 0.005 * INCH, at most 12, Machining;
    /// A pocket cut wider.
    WIDER_POCKET = Pocket."diameter" by 0.010 * INCH, at most 12, Machining;
    /// Rockers of less ratio; they come in steps.
    LESS_RATIO = Rocker."ratio" by -0.05, at most 4, Part;
    /// A spring seat cut deeper, or locks and retainers that stand higher.
    TALLER = Spring."installed_height" by 0.005 * INCH, at most 16, Machining;
    /// Shims under the spring.
    SHORTER = Spring."installed_height" by -0.005 * INCH, at most 16, Shims;
    /// The guide's top cut lower for its seal.
    SEAL_LOWER = Port."seal_height" by -0.010 * INCH, at most 10, Machining;
    /// A lighter valve.
    LIGHTER_VALVE = Valve."mass" by -0.002, at most 20, Part;
    /// A lighter retainer.
    LIGHTER_RETAINER = Retainer."mass" by -0.001, at most 12, Part;
    /// An earlier shift.
    SHIFT_EARLIER = Target."shift_at" by -50.0 * RPM, at most 20, Plan;
    /// A narrower retainer.
    NARROWER_RETAINER = Retainer."diameter" by -0.010 * INCH, at most 15, Part;
    /// The slot lengthened.
    LONGER_SLOT = Rocker."slot_length" by 0.010 * INCH, at most 10, Machining;
    /// Spacers under the covers.
    TALLER_COVER = Port."cover_room" by 0.060 * INCH, at most 8, Part;
    /// The pushrod's hole ground wider.
    WIDER_HOLE = Port."pushrod_hole" by 0.015 * INCH, at most 10, Machining;
    /// Thinner pushrods.
    THINNER_PUSHROD = Pushrod."outside_diameter" by -INCH / 32.0, at most 4, Part;
    /// Thicker pushrods.
    THICKER_PUSHROD = Pushrod."outside_diameter" by INCH / 32.0, at most 6, Part;
    /// Pushrods with more wall.
    MORE_WALL = Pushrod."wall" by 0.020 * INCH, at most 3, Part;
    /// The pocket of the spring cut wider.
    WIDER_SPRING_POCKET = Port."spring_pocket" by 0.010 * INCH, at most 12, Machining;
    /// The pivot higher.
    PIVOT_HIGHER = Rocker."pivot_height" by 0.010 * INCH, at most 12, Shims;
    /// The pivot lower.
    PIVOT_LOWER = Rocker."pivot_height" by -0.010 * INCH, at most 12, Shims;
    /// The pivot nearer to the valve.
    PIVOT_OUT = Rocker."stem_offset" by -0.010 * INCH, at most 8, Shims;
    /// The pivot further from the valve.
    PIVOT_IN = Rocker."stem_offset" by 0.010 * INCH, at most 8, Shims;
    /// A cam on a larger base circle.
    LARGER_BASE = Cam."base_circle_diameter" by 0.020 * INCH, at most 10, Part;
    /// A cam on a smaller base circle.
    SMALLER_BASE = Cam."base_circle_diameter" by -0.010 * INCH, at most 20, Part;
    /// Less lash.
    LESS_LASH = Lifter."lash" by -0.001 * INCH, at most 10, Setting;
    /// More lash.
    MORE_LASH = Lifter."lash" by 0.001 * INCH, at most 10, Setting;
    /// More preload, by the adjuster or longer pushrods.
    MORE_PRELOAD = Lifter."preload" by 0.005 * INCH, at most 40, Setting;
    /// Less preload, by the adjuster or shorter pushrods.
    LESS_PRELOAD = Lifter."preload" by -0.005 * INCH, at most 40, Setting;
    /// A larger wheel.
    LARGER_WHEEL = Lifter."roller_diameter" by 0.060 * INCH, at most 2, Part;
    /// The lifter's bore honed.
    WIDER_BORE = Engine."lifter_bore" by 0.0005 * INCH, at most 6, Machining;
    /// A larger chamber.
    LARGER_CHAMBER = Engine."chamber_volume" by 1e-6, at most 10, Machining;
    /// A smaller chamber: the head milled.
    SMALLER_CHAMBER = Engine."chamber_volume" by -1e-6, at most 10, Machining;
    /// More dish.
    MORE_DISH = Engine."piston_volume" by 1e-6, at most 15, Part;
    /// Fuel of more octane.
    MORE_OCTANE = Engine."octane_ron" by 1.0, at most 9, Plan;
}
