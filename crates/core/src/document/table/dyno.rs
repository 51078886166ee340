//! Fields of `pull`, `pulls`, `dyno_test` and `calibration`: what a dyno measured, how it was gone about, and what was learned from it.

use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Length, Pressure, Speed, Temperature, Torque};
use crate::words::{CalibratedBy, DynoKind, PullAir, TracedOf, Word};

const RPM: (&str, &str) = ("300 rpm", "15000 rpm");

static ONE_PULL: Kind = Kind::Object(&PULL);
/// The list of them.
pub const PULLS: Kind = Kind::List { of: &ONE_PULL, min: 0, max: 400 };

/// Outside air an engine may be run in.
const AIR: (&str, &str) = ("50 kPa", "110 kPa");
const WEATHER: (&str, &str) = ("-40 C", "60 C");
const WARMTH: (&str, &str) = ("0 C", "180 C");

/// A pull on the dyno.
pub static PULL: Object =
    Object { name: "pull", doc: "torque over speed as a dyno measured it", sided: false, fields: PULL_FIELDS };

const PULL_FIELDS: &[Field] = &[
    plain("id", "Id", Kind::Text(40), "Stable identifier."),
    plain(
        "candidate",
        "Candidate",
        Kind::Text(40),
        "Identifier of the candidate that was on the dyno; the first when absent.",
    ),
    plain(
        "day",
        "Day",
        Kind::Text(10),
        "Day, as 2026-03-09: what was set up anew between two days is not alike on both.",
    ),
    plain(
        "drawn",
        "Place in the day",
        Kind::Integer { min: 1, max: 400 },
        "Which pull of its day it was: an engine drifts from pull to pull.",
    ),
    plain("control", "Control", Kind::Flag, "Whether it was a pull of the combination that is run first and last."),
    plain("level", "Boost level", Kind::Text(40), "Boost level it was pulled on; the strongest when absent."),
    plain(
        "air",
        "Air it is stated in",
        Kind::Choice(PullAir::WORDS),
        "The standard air the pull was corrected to; the day's or the plan's own air when it was not.",
    ),
    quantity("pressure", "Barometer", Pressure, AIR, "Outside pressure at the dyno, not reduced to sea level."),
    quantity("temperature", "Air", Temperature, WEATHER, "Temperature of the air that the engine breathes."),
    plain("humidity", "Humidity", Kind::Number { min: 0.0, max: 1.0 }, "Relative humidity, 0 to 1."),
    quantity("oil", "Oil", Temperature, WARMTH, "Temperature of the oil as the pull began."),
    quantity("water", "Water", Temperature, WARMTH, "Temperature of the coolant as the pull began."),
    quantity(
        "spark",
        "Spark",
        Angle,
        ("-20 deg", "80 deg"),
        "Ignition or injection before top dead centre, held over the pull.",
    ),
    plain(
        "dyno",
        "Dyno",
        Kind::Choice(DynoKind::WORDS),
        "Where it was measured: at the crank, or at the wheels with a loss between.",
    )
    .or("engine"),
    plain(
        "loss",
        "Loss to the wheels",
        Kind::Number { min: 0.0, max: 0.5 },
        "Share of the crank's torque that gearbox, axle and tyres take.",
    )
    .or("0.15")
    .when("dyno", &["chassis"]),
    plain("file", "File", Kind::Text(200), "Name of the file it came in."),
    plain("left_out", "Left out", Kind::Text(200), "Why this pull is not counted; it is kept all the same."),
    quantity("from", "Counted from", Speed, RPM, "Slowest speed that counts; where the roll-on ends, when absent."),
    quantity("to", "Counted to", Speed, RPM, "Fastest speed that counts; where the throttle closes, when absent."),
    plain("note", "Note", Kind::Text(400), "Day, fuel, spark, oil and water temperature."),
    plain(
        "points",
        "Points",
        Kind::List { of: &POINT, min: 3, max: MOST_POINTS },
        "Speed, and torque as the dyno has it, in the order it was read.",
    ),
    plain(
        "traces",
        "Read beside",
        Kind::List { of: &ONE_TRACE, min: 0, max: 8 },
        "What else was read at the same points.",
    ),
];

/// Most points of one pull.
pub const MOST_POINTS: usize = 600;

static ONE_TRACE: Kind = Kind::Object(&TRACE);
static READ: Kind = Kind::Number { min: -1e6, max: 1e6 };

/// Something read beside torque, point by point.
pub static TRACE: Object = Object {
    name: "trace",
    doc: "something read beside torque, point by point",
    sided: false,
    fields: &[
        plain("of", "Of", Kind::Choice(TracedOf::WORDS), "What was read.").required(),
        plain("unit", "Unit", Kind::Text(20), "As the dyno writes it."),
        plain("values", "Values", Kind::List { of: &READ, min: 3, max: MOST_POINTS }, "One for each point.").required(),
    ],
};

static POINT: Kind = Kind::Row(&[
    ("Speed", Kind::Quantity { dimension: Speed, min: "0 rpm", max: "15000 rpm" }),
    ("Torque", Kind::Quantity { dimension: Torque, min: "-1000 lbf ft", max: "5000 lbf ft" }),
]);

static CANDIDATE: Kind = Kind::Text(40);

/// How combinations are compared on the dyno.
pub static DYNO_TEST: Object = Object {
    name: "dyno_test",
    doc: "how combinations are compared on the dyno: which, how often, in which order, and what is held",
    sided: false,
    fields: &[
        plain("control", "Control", Kind::Text(40), "Identifier of the candidate that is pulled first and last."),
        plain(
            "against",
            "Against it",
            Kind::List { of: &CANDIDATE, min: 0, max: 16 },
            "Identifiers of the candidates that are held against it; all others when absent.",
        ),
        plain("pulls_each", "Pulls each", Kind::Integer { min: 1, max: 40 }, "Pulls of each combination in a row.")
            .or("3"),
        plain(
            "lot",
            "Lot",
            Kind::Integer { min: 0, max: 999_999 },
            "Number the order is drawn by; the same gives the same.",
        )
        .or("1"),
        quantity(
            "sure_of",
            "To be sure of",
            Torque,
            ("0.1 lbf ft", "500 lbf ft"),
            "Difference of the average torque that the test is to find.",
        )
        .or("3 lbf ft"),
        quantity("oil_from", "Oil from", Temperature, WARMTH, "Least temperature of the oil a pull begins at."),
        quantity("oil_to", "Oil to", Temperature, WARMTH, "Most of it."),
        quantity("water_from", "Water from", Temperature, WARMTH, "Least temperature of the coolant a pull begins at."),
        quantity("water_to", "Water to", Temperature, WARMTH, "Most of it."),
        quantity("spark", "Spark held at", Angle, ("-20 deg", "80 deg"), "Ignition or injection of every pull."),
        plain("fuel", "Fuel held", Kind::Text(120), "Which fuel, from which drum."),
        plain("cool_down", "Between pulls", Kind::Text(120), "What is done between two pulls."),
    ],
};

/// Constants fitted to a pull.
pub static CALIBRATION: Object = Object {
    name: "calibration",
    doc: "constants of the breathing model fitted to a pull, the same for every candidate",
    sided: false,
    fields: CALIBRATION_FIELDS,
};

const CALIBRATION_FIELDS: &[Field] = &[
    plain("port_flow", "Port flow", Kind::Number { min: 0.85, max: 1.15 }, "Flow of both ports over the bench's."),
    plain("friction", "Friction", Kind::Number { min: 0.5, max: 1.6 }, "Friction over what the correlation says."),
    plain(
        "burning",
        "Heat released",
        Kind::Number { min: 0.9, max: 1.06 },
        "Heat the fuel releases over what is usual.",
    ),
    quantity(
        "intake_length",
        "Intake longer by",
        Length,
        ("-60 mm", "100 mm"),
        "Acoustic length of the intake over what its metal and the end given make.",
    ),
    plain(
        "remaining",
        "Error left",
        Kind::Number { min: 0.0, max: 1.0 },
        "Root mean square of what is left of the error, as a share.",
    ),
    quantity("from", "From", Speed, RPM, "Slowest speed of the pull."),
    quantity("to", "To", Speed, RPM, "Fastest speed of the pull."),
    plain("pulled", "Fitted to", Kind::Text(200), "Whose pull it was."),
    plain(
        "by",
        "Learned from",
        Kind::Choice(CalibratedBy::WORDS),
        "Pulls of the build itself, or of the shop's other builds of its kind.",
    ),
    plain(
        "information",
        "What the fit left behind",
        Kind::List { of: &Kind::Number { min: -1e9, max: 1e9 }, min: 16, max: 16 },
        "Points, their squared errors in those of a good pull, how these change with each constant and that with each pair: what the shop's other builds learn from.",
    ),
];
