//! Entries of `bench`: what was read, session by session, as it was read.

use super::super::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Flow, Force, Length, Mass, Pressure, Volume};
use crate::words::{
    AnglesOf, BankEnd, ClayAt, Cracks, CrownEdge, DegreeMethod, DialOn, FilledOf, FlankWord, HeadCheck, LashState,
    MappedBy, SessionKind, SpringUsed, Warmth, Word,
};

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

static STEM: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Side", SIDE), ("Height", SIZE)]);
static DECK: Kind = Kind::Row(&[
    ("Bank", Kind::Integer { min: 1, max: 2 }),
    ("End", Kind::Choice(BankEnd::WORDS)),
    ("Edge", Kind::Choice(CrownEdge::WORDS)),
    ("Below the deck", DIAL),
]);
static PUSHROD: Kind = Kind::Row(&[("Pushrod", Kind::Integer { min: 1, max: 64 }), ("Length", SIZE)]);
static PLACE: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Side", SIDE), ("Length", SIZE)]);
static ADJUSTED: Kind = Kind::Row(&[("Cylinder", CYLINDER), ("Side", SIDE), ("Found", DIAL)]);
static SQUEEZED: Kind = Kind::Row(&[("Side", SIDE), ("Where", Kind::Choice(ClayAt::WORDS)), ("Thickness", SIZE)]);
static CHECKED: Kind = Kind::Row(&[
    ("Cylinder", CYLINDER),
    ("Side", SIDE),
    ("Check", Kind::Choice(HeadCheck::WORDS)),
    ("Size", Kind::Quantity { dimension: Length, min: "0 in", max: "0.100 in" }),
]);
const GRAMS: Kind = Kind::Quantity { dimension: Mass, min: "0 g", max: "500 g" };
static WEIGHED: Kind =
    Kind::Row(&[("Rocker", Kind::Integer { min: 1, max: 64 }), ("Tip side", GRAMS), ("Cup side", GRAMS)]);
static FILLED: Kind = Kind::Row(&[
    ("Cylinder", CYLINDER),
    ("Of", Kind::Choice(FilledOf::WORDS)),
    ("Volume", Kind::Quantity { dimension: Volume, min: "0 cc", max: "2000 cc" }),
]);
static FLOWED: Kind = Kind::Row(&[
    ("Side", SIDE),
    ("Lift", SIZE),
    ("Flow", Kind::Quantity { dimension: Flow, min: "0 cfm", max: "2000 cfm" }),
]);

static CARD_DURATION: Kind = Kind::Row(&[
    ("Side", SIDE),
    ("Height", SIZE),
    ("Duration", Kind::Quantity { dimension: Angle, min: "10 deg", max: "420 deg" }),
]);
static CARD_LIFT: Kind = Kind::Row(&[("Side", SIDE), ("Lobe lift", SIZE)]);

static LEFT: Kind = Kind::Row(&[("Field", Kind::Text(120)), ("As", Kind::Text(60))]);

/// A table of rows of one kind.
const fn table(of: &'static Kind) -> Kind {
    Kind::List { of, min: 0, max: 4000 }
}

/// A line of the assembly signed or undone.
pub static SIGNED: Object = Object {
    name: "signed",
    doc: "a line of the assembly, signed or undone",
    sided: false,
    fields: &[
        plain("line", "Line", Kind::Text(40), "Identifier of the line.").required(),
        plain("candidate", "Candidate", Kind::Text(40), "Identifier of the candidate that is built."),
        plain("by", "By", Kind::Text(80), "Who."),
        plain("at", "At", Kind::Text(20), "When, as 2026-03-02 14:20."),
        plain("undone", "Undone", Kind::Text(200), "Why; absent where it was signed."),
    ],
};

/// Kinds that are of one valve.
const OF_ONE: &[&str] = &["degree_in", "lift_check", "valve_drop", "lobe_map"];

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
    plain("cylinder", "Cylinder", CYLINDER, "Which cylinder.").or("1").when("kind", OF_ONE),
    plain("side", "Side", SIDE, "Which valve.").or("intake").when("kind", OF_ONE),
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
    plain(
        "mapped_by",
        "Mapped by",
        Kind::Choice(MappedBy::WORDS),
        "Every lobe by caliper, or one over its angle by dial.",
    )
    .or("caliper")
    .when("kind", &["lobe_map"]),
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
    plain("stems", "Stems", table(&STEM), "Height of every stem's tip above the spring's seat.")
        .when("kind", &["stems"]),
    plain(
        "decks",
        "Decks",
        table(&DECK),
        "Piston below the deck at top dead centre, at both edges of the pistons at both ends; above it negative.",
    )
    .when("kind", &["decks"]),
    plain("lengths", "Pushrods", table(&PUSHROD), "Effective length of each, numbered as they lie on the bench.")
        .when("kind", &["pushrods"]),
    plain(
        "places",
        "Places",
        table(&PLACE),
        "Length of an adjustable pushrod that takes up all play and no more, valve by valve.",
    )
    .when("kind", &["pushrods"]),
    plain("engine_is", "Engine is", Kind::Choice(Warmth::WORDS), "Lash grows or shrinks while an engine warms.")
        .or("cold")
        .when("kind", &["adjustment"]),
    plain(
        "adjustments",
        "Found",
        table(&ADJUSTED),
        "Preload at the plunger, or lash at the valve, with the lifter on its base circle.",
    )
    .when("kind", &["adjustment"]),
    plain("clays", "Clay", table(&SQUEEZED), "Thinnest clay after two turns by hand.").when("kind", &["clay"]),
    plain(
        "cracks",
        "Cracks",
        Kind::Choice(Cracks::WORDS),
        "Whether the casting was looked at for cracks, and what was found.",
    )
    .when("kind", &["head"]),
    plain("checks", "Checks", table(&CHECKED), "Seat run-out about the guide, guide play and ovality, valve by valve.")
        .when("kind", &["head"]),
    plain("masses", "Stand", table(&WEIGHED), "Each side of a rocker by itself, its pivot held in the stand.")
        .when("kind", &["rocker_mass"]),
    plain("volumes", "Burette", table(&FILLED), "Chambers under a plate, ports from flange to valve.")
        .when("kind", &["volumes"]),
    quantity("depression", "Depression", Pressure, ("1 inH2O", "80 inH2O"), "Test depression of the flow bench.")
        .when("kind", &["flow"]),
    plain("flows", "Flow bench", table(&FLOWED), "Flow of a port at a lift; a port read again is averaged.")
        .when("kind", &["flow"]),
    plain(
        "durations",
        "Durations",
        table(&CARD_DURATION),
        "Checking height in lobe lift and duration there, as the maker's card has them.",
    )
    .when("kind", &["cam_card"]),
    plain("lobe_lifts", "Lobe lifts", table(&CARD_LIFT), "As the maker's card has them.").when("kind", &["cam_card"]),
    plain(
        "left",
        "Left as it was",
        table(&LEFT),
        "What these readings would say of a field and nobody took; offered again when they say something else.",
    ),
    plain("note", "Note", Kind::Text(400), "Anything worth knowing."),
];
