//! The figures of the default limits, in one place. Common practice, no source, partly from memory;
//! a shop may set its own.

use crate::cam::LifterKind;

/// Where every figure here comes from.
pub const SOURCE: &str = "common practice, no source";

/// Inches in a metre's place: figures are written in the trade's thousandths.
pub const INCH: f64 = 0.0254;

/// Valve to piston at rest: (intake, exhaust), in.
pub const PISTON_GENEROUS: (f64, f64) = (0.080, 0.100);
/// The same for an engineered set-up, in.
pub const PISTON_ENGINEERED: (f64, f64) = (0.050, 0.080);
/// Added on the exhaust with aluminium rods, in.
pub const PISTON_ALUMINIUM_EXHAUST: f64 = 0.030;
/// Valve to piston is tight with less than this left, in.
pub const PISTON_TIGHT: f64 = 0.015;

/// Valve edge to pocket wall, in.
pub const RADIAL: f64 = 0.050;
/// Valve to valve and retainer to seal, in.
pub const HARDWARE: f64 = 0.060;
/// Radial and hardware clearances are tight with less than this left, in.
pub const HARDWARE_TIGHT: f64 = 0.010;

/// Piston to head at rest with steel or titanium rods, in.
pub const HEAD_STEEL: f64 = 0.035;
/// Piston to head at rest with aluminium rods, in.
pub const HEAD_ALUMINIUM: f64 = 0.060;
/// Piston to head is tight with less than this left, in.
pub const HEAD_TIGHT: f64 = 0.006;

/// Travel left to coil bind at full net lift, in.
pub const COIL_BIND: f64 = 0.060;
/// Coil bind is tight with less than this left, in.
pub const COIL_BIND_TIGHT: f64 = 0.020;

/// Wanted seat load, lbf.
pub const fn seat_load(kind: LifterKind) -> (f64, f64) {
    match kind {
        LifterKind::HydraulicFlat => (105.0, 130.0),
        LifterKind::SolidFlat => (120.0, 150.0),
        LifterKind::HydraulicRoller => (130.0, 165.0),
        LifterKind::SolidRoller => (190.0, 280.0),
    }
}

/// Wanted load at full net lift, lbf; short-travel hydraulic rollers bear more.
pub const fn open_load(kind: LifterKind, short_travel: bool) -> (f64, f64) {
    match kind {
        LifterKind::HydraulicFlat => (240.0, 320.0),
        LifterKind::SolidFlat => (300.0, 380.0),
        LifterKind::HydraulicRoller if short_travel => (330.0, 480.0),
        LifterKind::HydraulicRoller => (330.0, 420.0),
        LifterKind::SolidRoller => (480.0, 750.0),
    }
}

/// Share of a load band on each side that counts as tight: outside the middle two thirds.
pub const BAND_EDGE: f64 = 1.0 / 6.0;

/// Seat load that must be left against gas, as a share of the wanted band's lower end.
pub const RESERVE_SHARE: f64 = 0.70;
/// The reserve is tight with less than this share over its need.
pub const RESERVE_TIGHT: f64 = 0.10;

/// Trapped compression that petrol of a research octane number stands.
pub const TRAPPED_BY_RON: [(f64, f64); 4] = [(91.0, 7.9), (95.0, 8.3), (98.0, 8.7), (104.0, 9.4)];
/// Taken from it for each bar of boost over [`FREE_BOOST_BAR`].
pub const TRAPPED_PER_BAR: f64 = 0.5;
/// Boost that takes nothing, bar.
pub const FREE_BOOST_BAR: f64 = 0.3;
/// Trapped compression of petrol is tight with less than this left.
pub const TRAPPED_TIGHT: f64 = 0.25;
/// Trapped compression a diesel needs to start cold.
pub const TRAPPED_DIESEL: f64 = 13.0;
/// The diesel's is tight with less than this left.
pub const TRAPPED_DIESEL_TIGHT: f64 = 0.7;

/// Overlap at .050 that leaves so much vacuum at idle: (inHg, crank degrees), for 5.7 litres.
pub const OVERLAP_BY_VACUUM: [(f64, f64); 4] = [(9.0, 26.0), (12.0, 14.0), (15.0, 3.0), (18.0, -8.0)];
/// Displacement the overlaps are for, cm3.
pub const OVERLAP_DISPLACEMENT: f64 = 5700.0;
/// Overlap is tight with less than this left, crank degrees.
pub const OVERLAP_TIGHT: f64 = 4.0;

/// Ratings are tight with less than this share left.
pub const RATING_TIGHT: f64 = 0.03;

/// The last so much of lift, in, ...
pub const LAST_LIFT: f64 = 0.050;
/// ... should still bring this share of flow.
pub const LAST_LIFT_FLOW: f64 = 0.02;

/// Greatest Hertz stress of lobe and follower by the core, Pa.
pub fn contact_stress(core: Option<&str>) -> f64 {
    match core {
        Some("cast_iron") => 1.05e9,
        Some("ductile_iron") => 1.20e9,
        _ => 1.75e9,
    }
}
/// Stress is tight with less than this share left.
pub const STRESS_TIGHT: f64 = 0.08;
/// Least radius of a nose, and less than this over it is tight, in (from memory).
pub const NOSE: f64 = 0.120;
pub const NOSE_TIGHT: f64 = 0.020;
/// Greatest pressure angle of a roller lifter, deg, and how much under it is tight.
pub const PRESSURE_ANGLE: f64 = 30.0;
pub const PRESSURE_ANGLE_TIGHT: f64 = 2.0;
/// Farthest the tip may run from the stem's axis, of the stem's diameter; tight with less than this left, in.
pub const PATTERN_SHARE: f64 = 0.25;
pub const PATTERN_TIGHT: f64 = 0.010;
/// Least buckling load of a pushrod over its static load, and how much over it is tight.
pub const BUCKLING: f64 = 3.0;
pub const BUCKLING_TIGHT: f64 = 0.5;
/// Room of rocker to retainer, of a stud to the ends of its slot, of the rocker to its cover, in (from memory).
pub const RETAINER_ROOM: f64 = 0.040;
pub const SLOT_END: f64 = 0.040;
pub const COVER_ROOM: f64 = 0.060;
/// Room of a pushrod on each side of its hole, in (from memory).
pub const HOLE: f64 = 0.020;
/// Least difference of spring pocket and spring, in (from memory).
pub const POCKET_ROOM: f64 = 0.010;
/// Lash is tight with less than this to the end of its ramp, in at the lobe.
pub const RAMP_TIGHT: f64 = 0.001;
/// Least between a lobe's nose and the bearings it passes, and less than this left is tight, in (from memory).
pub const THROUGH_BEARING: f64 = 0.005;
pub const THROUGH_TIGHT: f64 = 0.010;
/// Hardened depth a regrind must leave, and less than this left is tight, in (assumed).
pub const CASE_LEFT: f64 = 0.030;
pub const CASE_TIGHT: f64 = 0.010;
/// Clearance of a lifter in its bore, in (from memory).
pub const LIFTER_BORE: (f64, f64) = (0.0010, 0.0025);
/// A retainer takes a spring whose top differs by no more than this, in (assumed).
pub const SPRING_TOP: f64 = 0.030;

/// Greatest pressure of a stem on the top of its guide, Pa: assumed, so that a plain pad reaches iron's where the trade
/// ends its use; bronze asks for a roller tip sooner.
pub fn guide_pressure(material: &str) -> f64 {
    match material {
        "bronze" => 1.6e6,
        "powder_metal" => 2.1e6,
        _ => 1.9e6,
    }
}
/// It is tight with less than this share left.
pub const GUIDE_TIGHT: f64 = 0.08;
