//! Entries of `bench`: what was read, session by session, as it was read.

use super::super::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Force, Length, Pressure};
use crate::words::{AnglesOf, DegreeMethod, DialOn, FlankWord, LashState, SessionKind, SpringUsed, Word};

static ONE_SESSION: Kind = Kind::Object(&SESSION);

/// The list of them.
pub const SESSIONS: Kind = Kind::List { of: &ONE_SESSION, min: 0, max: 400 };

/// One session at the bench.
pub static SESSION: Object = Object {
    name: "session",
    doc: "readings of one session at the bench, as they were read",
    sided: false,
    fields: SESSION_FIELDS,
};

const CYLINDER: Kind = Kind::Integer { min: 1, max: 16 };
const SIDE: Kind = Kind::Choice(&["intake", "exhaust"]);
const WHEEL: Kind = Kind::Quantity { dimension: Angle, min: "-720 deg", max: "1440 deg" };
const DIAL: Kind = Kind::Quantity { dimension: Length, min: "-0.200 in", max: "2 in" };
const SIZE: Kind = Kind::Quantity { dimension: Length, min: "0 in", max: "20 in" };
const LOAD: Kind = Kind::Quantity { dimension: Force, min: "0 lbf", max: "3000 lbf" };
const GAUGE: Kind = Kind::Quantity { dimension: Pressure, min: "0 psi", max: "1000 psi" };

static READING: Kind = Kind::Row(&[("Height", DIAL), ("Flank", Kind::Choice(FlankWord::WORDS)), ("Wheel", WHEEL)]);
static LOBE_POINT: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Side", SIDE), ("Angle", WHEEL), ("Dial", DIAL)]);
static CALIPER: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Side", SIDE), ("Nose to heel", SIZE), ("Base", SIZE)]);
static SPRING_LOAD: Kind =
    Kind::Row(&[("Spring", Kind::Integer { min: 1, max: 64 }), ("Height", SIZE), ("Load", LOAD)]);
static VALVE_HEIGHT: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Side", SIDE), ("Height", SIZE)]);
static DROP: Kind = Kind::Row(&[("After top dead centre", WHEEL), ("Drop", DIAL)]);
static LIFT: Kind = Kind::Row(&[("Spring", Kind::Choice(SpringUsed::WORDS)), ("Lift", DIAL)]);
static PRESSURE: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Gauge", GAUGE)]);
static LEAK: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Supply", GAUGE), ("Cylinder gauge", GAUGE)]);

/// A table of rows of one kind.
const fn table(of: &'static Kind) -> Kind {
    Kind::List { of, min: 0, max: 4000 }
}

const SESSION_FIELDS: &[Field] = &[
    plain("id", "Id", Kind::Text(40), "Stable identifier.").required(),
    plain("kind", "Kind", Kind::Choice(SessionKind::WORDS), "What is measured.").required(),
    plain("date", "Date", Kind::Text(10), "Day, as 2026-03-02."),
    plain("by", "By", Kind::Text(80), "Whose hand."),
    plain(
        "candidate",
        "Candidate",
        Kind::Text(40),
        "Identifier of the candidate whose parts were in; the first when absent.",
    ),
    plain("cylinder", "Cylinder", CYLINDER, "Which cylinder.").or("1"),
    plain("side", "Side", SIDE, "Which valve.").or("intake"),
    plain(
        "method",
        "Method",
        Kind::Choice(DegreeMethod::WORDS),
        "Heights above the base on both flanks, or equal drops on both sides of full lift.",
    )
    .or("events")
    .when("kind", &["degree_in"]),
    plain("dial_on", "Dial on", Kind::Choice(DialOn::WORDS), "Where the dial stands.")
        .or("lifter")
        .when("kind", &["degree_in"]),
    plain(
        "lash",
        "Lash",
        Kind::Choice(LashState::WORDS),
        "Whether running lash was in while it was read at the valve.",
    )
    .or("out")
    .when("kind", &["degree_in"]),
    quantity(
        "stop_before",
        "Piston stop, one way",
        Angle,
        ("-180 deg", "180 deg"),
        "Wheel where the piston meets the stop from the one side; the middle of both is top dead centre.",
    )
    .when("kind", &["degree_in"]),
    quantity(
        "stop_after",
        "Piston stop, other way",
        Angle,
        ("-180 deg", "180 deg"),
        "Wheel where it meets the stop from the other side.",
    )
    .when("kind", &["degree_in"]),
    plain(
        "readings",
        "Wheel",
        table(&READING),
        "Height, flank, and the wheel's angle from firing top dead centre of the overlap, before it negative.",
    )
    .when("kind", &["degree_in"]),
    plain("angles", "Angles of", Kind::Choice(AnglesOf::WORDS), "Whether the wheel turns with the cam or the crank.")
        .or("cam")
        .when("kind", &["lobe_map"]),
    plain("lobes", "Lobes", table(&LOBE_POINT), "Dial over angle for any number of lobes, one after another.")
        .when("kind", &["lobe_map"]),
    plain("calipers", "Caliper", table(&CALIPER), "Across nose and heel, and across the base, lobe by lobe.")
        .when("kind", &["lobe_map"]),
    plain(
        "loads",
        "Tester",
        table(&SPRING_LOAD),
        "Load at a height, spring by spring, numbered as they lie on the bench.",
    )
    .when("kind", &["springs"]),
    plain("heights", "Installed heights", table(&VALVE_HEIGHT), "Installed height of every valve without shims.")
        .when("kind", &["installed_heights"]),
    plain("lifts", "Lift", table(&LIFT), "Lift at the valve with a light checking spring, and with the real one.")
        .when("kind", &["lift_check"]),
    quantity("light_load", "Light load", Force, ("0 lbf", "200 lbf"), "Load of the checking spring at full lift.")
        .when("kind", &["lift_check"]),
    quantity("real_load", "Real load", Force, ("0 lbf", "3000 lbf"), "Load of the real spring at full lift.")
        .when("kind", &["lift_check"]),
    plain("drops", "Drops", table(&DROP), "How far the valve drops to the piston about overlap top dead centre.")
        .when("kind", &["valve_drop"]),
    plain("pressures", "Gauge", table(&PRESSURE), "Compression of every cylinder, cranked with the throttle open.")
        .when("kind", &["compression"]),
    plain("leaks", "Gauges", table(&LEAK), "Supply and cylinder gauge of every cylinder at firing top dead centre.")
        .when("kind", &["leak_down"]),
    plain("note", "Note", Kind::Text(400), "Anything worth knowing."),
];
