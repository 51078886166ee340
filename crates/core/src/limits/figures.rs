//! The figures of the default limits, in one place. Common practice, no source, partly from memory;
//! a shop may set its own.

use crate::words::{Core, Guide, LifterKind};

/// Where every figure here comes from.
pub const SOURCE: &str = "common practice, no source";

/// Inches in a metre's place: figures are written in the trade's thousandths.
pub const INCH: f64 = 0.0254;

/// Valve to piston at rest: (intake, exhaust), in.
pub const PISTON_GENEROUS: (f64, f64) = (0.080, 0.100);
/// The same of a governed diesel, whose valves stand nearly flush over a flat crown and lift little at overlap (from memory), in.
pub const PISTON_DIESEL: (f64, f64) = (0.050, 0.080);
/// The same for an engineered set-up, in.
pub const PISTON_ENGINEERED: (f64, f64) = (0.050, 0.080);
/// Added with aluminium rods: (intake, exhaust), in.
pub const PISTON_ALUMINIUM: (f64, f64) = (0.015, 0.030);
/// The same with the lift the valve has in motion, in: what growth of rod, crank, bearings and piston takes.
pub const PISTON_IN_MOTION: (f64, f64) = (0.035, 0.050);
/// Valve to piston is tight with less than this left, in.
pub const PISTON_TIGHT: f64 = 0.015;

/// An engineered set-up with a growth budget may come down to this at rest, in: one was run at .035 on the intake and did
/// not touch; the exhaust's is assumed.
pub const PISTON_BUDGETED: (f64, f64) = (0.035, 0.060);

/// What must be left at speed once every term is taken off, for what nobody counts, in (assumed): valve to piston.
pub const PISTON_AT_SPEED: f64 = 0.010;
/// The same between the heads; of the pocket's wall; of retainer and coils; of rocker and rod, in (assumed).
pub const HEADS_AT_SPEED: f64 = 0.030;
pub const RADIAL_AT_SPEED: f64 = 0.020;
pub const SPRING_AT_SPEED: f64 = 0.025;
pub const ROOM_AT_SPEED: f64 = 0.010;
/// With less than this left beyond it is tight, in.
pub const AT_SPEED_TIGHT: f64 = 0.010;
/// Rod or its bolt to camshaft and block, by feeler, in.
pub const ROD_ROOM: f64 = 0.050;

/// Valve edge to pocket wall, in.
pub const RADIAL: f64 = 0.050;
/// Valve to valve and retainer to seal, in.
pub const HARDWARE: f64 = 0.060;
/// Valve edge to cylinder wall, in.
pub const BORE_WALL: f64 = 0.040;
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

/// Usual loads of one kind of lifter up to a speed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpringBand {
    /// Highest shift plus overspeed it is for, rpm.
    pub to: f64,
    /// Seat load, lbf.
    pub seat: (f64, f64),
    /// Load at full net lift, lbf.
    pub open: (f64, f64),
}

/// A band of the table below.
const fn loads(to: f64, seat: (f64, f64), open: (f64, f64)) -> SpringBand {
    SpringBand { to, seat, open }
}

const HYDRAULIC_FLAT: [SpringBand; 1] = [loads(6000.0, (100.0, 130.0), (240.0, 320.0))];
const SOLID_FLAT: [SpringBand; 1] = [loads(7000.0, (120.0, 150.0), (300.0, 380.0))];
/// The last one with short-travel lifters.
const HYDRAULIC_ROLLER: [SpringBand; 3] = [
    loads(6500.0, (120.0, 150.0), (300.0, 380.0)),
    loads(7200.0, (140.0, 170.0), (360.0, 420.0)),
    loads(8000.0, (160.0, 200.0), (430.0, 520.0)),
];
const SOLID_ROLLER: [SpringBand; 3] = [
    loads(7500.0, (190.0, 250.0), (450.0, 600.0)),
    loads(8500.0, (240.0, 300.0), (600.0, 750.0)),
    loads(f64::INFINITY, (270.0, 350.0), (700.0, 900.0)),
];

/// Usual loads of a kind of lifter up to a top speed, rpm; beyond a kind's last speed that of its last.
pub fn spring_band(kind: LifterKind, top_rpm: f64) -> SpringBand {
    let bands: &[SpringBand] = match kind {
        LifterKind::HydraulicFlat => &HYDRAULIC_FLAT,
        LifterKind::SolidFlat => &SOLID_FLAT,
        LifterKind::HydraulicRoller => &HYDRAULIC_ROLLER,
        LifterKind::SolidRoller => &SOLID_ROLLER,
    };
    // A rounding error of a turn must not ask for the next band.
    bands.iter().find(|band| top_rpm <= band.to + 0.5).copied().unwrap_or(bands[bands.len() - 1])
}

/// Share of a load band on each side that counts as tight: outside the middle two thirds.
pub const BAND_EDGE: f64 = 1.0 / 6.0;

/// Seat load that must be left against gas, as a share of the wanted band's lower end.
pub const RESERVE_SHARE: f64 = 0.70;
/// The same of a diesel's valve, lbf.
pub const RESERVE_DIESEL: f64 = 25.0;
/// The reserve is tight with less than this share, or this load in lbf, over its need.
pub const RESERVE_TIGHT: f64 = 0.10;
pub const RESERVE_TIGHT_LOAD: f64 = 10.0;

/// Trapped compression that petrol of a research octane number stands; lines between, extended beyond.
pub const TRAPPED_BY_RON: [(f64, f64); 7] =
    [(83.0, 7.1), (87.0, 7.5), (91.0, 7.9), (95.0, 8.3), (98.0, 8.7), (104.0, 9.4), (110.0, 10.2)];
/// The same of a blend with 85 % ethanol, and of methanol: 1.0 and 1.5 more than petrol of 98.
pub const TRAPPED_E85: f64 = 9.7;
pub const TRAPPED_METHANOL: f64 = 10.2;
/// Taken from it for each bar of boost, with a charge cooler and without.
pub const TRAPPED_COOLED_PER_BAR: f64 = 1.2;
pub const TRAPPED_PER_BAR: f64 = 1.7;
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

/// Overlap at .050 that a water-jacketed exhaust stands before its water is drawn back, crank degrees, for 5.7 litres
/// (from memory).
pub const REVERSION_OVERLAP: f64 = 6.0;

/// The overlap that an engine of `displacement` cm3 stands where one of 5.7 litres stands `overlap`: a larger engine
/// stands more above zero, and less far below it (common practice, no source).
pub fn overlap_in(displacement: f64, overlap: f64) -> f64 {
    let share = displacement / OVERLAP_DISPLACEMENT;
    if overlap >= 0.0 { overlap * share } else { overlap / share }
}

/// Ratings are tight with less than this share left.
pub const RATING_TIGHT: f64 = 0.03;

/// The last so much of lift, in, ...
pub const LAST_LIFT: f64 = 0.050;
/// ... should still bring this share of flow.
pub const LAST_LIFT_FLOW: f64 = 0.02;

/// Greatest Hertz stress of lobe and follower by the core, Pa: rolling, or sliding under a flat foot (from memory).
pub const fn contact_stress(core: Core, sliding: bool) -> f64 {
    match (core, sliding) {
        (Core::CastIron, false) => 1.05e9,
        (Core::DuctileIron, false) => 1.20e9,
        (Core::Steel, false) => 1.75e9,
        (Core::CastIron, true) => 0.85e9,
        // A flat foot never goes on steel; what it would be held to says so.
        (Core::DuctileIron | Core::Steel, true) => 0.95e9,
    }
}
/// Stress is tight with less than this share left.
pub const STRESS_TIGHT: f64 = 0.08;
/// Least radius of a nose, and less than this over it is tight, in (from memory).
pub const NOSE: f64 = 0.120;
pub const NOSE_TIGHT: f64 = 0.020;
/// Greatest fall of a lobe's velocity on its nose, in for each square of a cam degree, and less than this under it is tight:
/// lobes that are ground for pushrod engines, flat and roller, lie near .00022 to .00026 (from memory).
pub const NOSE_FALL: f64 = 0.00028;
pub const NOSE_FALL_TIGHT: f64 = 0.00002;
/// Lobes no higher than this, in, are near full lift at .200: their cards tell enough below it (assumed).
pub const LOW_LOBE: f64 = 0.280;
/// Greatest pressure angle of a roller lifter, deg, and how much under it is tight.
pub const PRESSURE_ANGLE: f64 = 30.0;
pub const PRESSURE_ANGLE_TIGHT: f64 = 2.0;
/// Farthest the tip may run from the stem's axis, of the stem's diameter; tight with less than this left, in.
pub const PATTERN_SHARE: f64 = 0.25;
pub const PATTERN_TIGHT: f64 = 0.010;
/// Least buckling load of a pushrod over its static load, and how much over it is tight.
pub const BUCKLING: f64 = 3.0;
pub const BUCKLING_TIGHT: f64 = 0.5;
/// The same over the largest load in motion.
pub const PUSHROD_IN_MOTION: f64 = 1.5;
pub const PUSHROD_IN_MOTION_TIGHT: f64 = 0.25;
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

/// Play of a cam's journals in their bearings, from and to, in (common practice, no source: .002 to .004 is usual).
pub const JOURNAL_PLAY: [f64; 2] = [0.001, 0.008];
/// Greatest pressure of a stem on the top of its guide, Pa: assumed, so that a plain pad reaches iron's where the trade
/// ends its use; bronze asks for a roller tip sooner.
pub const fn guide_pressure(material: Guide) -> f64 {
    match material {
        Guide::Bronze => 1.6e6,
        Guide::PowderMetal => 2.1e6,
        Guide::Iron => 1.9e6,
    }
}
/// It is tight with less than this share left.
pub const GUIDE_TIGHT: f64 = 0.08;

/// Room a hydraulic plunger keeps from its bottom, and less than this over nothing is tight, in.
pub const PRELOAD_BOTTOM: f64 = 0.005;
pub const PRELOAD_TIGHT: f64 = 0.001;
/// Least lash of the cold engine, and less than this over it is tight, in.
pub const COLD_LASH: f64 = 0.003;
pub const COLD_LASH_TIGHT: f64 = 0.003;

/// Share of a wire's strength above which springs break soon, and less than this under it is tight.
pub const WIRE_MOST: f64 = 0.70;
pub const WIRE_TIGHT: f64 = 0.03;
/// The same for a long life, and with a stated interval: share, and how much under it is tight.
pub const WIRE_LIFE: (f64, f64) = (0.52, 0.03);
pub const WIRE_INTERVAL: (f64, f64) = (0.62, 0.03);
/// Least surge frequency over cam turns a second (from memory).
pub const SURGE_ORDER: f64 = 6.0;

/// Octane numbers that a later spark makes up for before the engine gives up much.
pub const LATER_SPARK: f64 = 10.0;
/// Room below a pressure ceiling under which it is tight, Pa.
pub const CEILING_TIGHT: f64 = 5e5;
/// Room above the vacuum wanted under which it is tight, Pa: 1 inHg.
pub const VACUUM_TIGHT: f64 = 3386.0;
