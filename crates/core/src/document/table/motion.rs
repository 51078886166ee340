//! Fields of `valve_motion` and `train_fit`: how a valve was seen to move in a running or turned engine, and what that says of the
//! train.

use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Length, Speed, SpringRate};
use crate::words::{LifterKind, Mount, SpringForm, Word};

const RPM: (&str, &str) = ("300 rpm", "15000 rpm");
/// Most points of one trace: half a degree of a cycle.
pub const MOST_OF_TRACE: usize = 1440;

static ONE_TRACE: Kind = Kind::Object(&MOTION_TRACE);
/// The list of them.
pub const TRACES: Kind = Kind::List { of: &ONE_TRACE, min: 0, max: 60 };

/// A valve's lift over the crank at one speed, as it was measured.
static MOTION_TRACE: Object = Object {
    name: "valve_motion",
    doc: "a valve's lift over the crank at one speed, as it was measured",
    sided: false,
    fields: &[
        plain("id", "Id", Kind::Text(40), "Stable identifier."),
        plain(
            "candidate",
            "Candidate",
            Kind::Text(40),
            "Identifier of the candidate whose train it was; the first when absent.",
        ),
        plain("side", "Valve", Kind::Choice(&["intake", "exhaust"]), "Which valve was looked at.").required(),
        quantity("speed", "Speed", Speed, RPM, "Speed of the crank, held.").required(),
        plain(
            "turned_by",
            "Turned by",
            Kind::Choice(&["rig", "engine"]),
            "A rig that turns the cam without gas on the heads, or the running engine.",
        )
        .or("rig"),
        plain("day", "Day", Kind::Text(10), "Day, as 2026-03-09."),
        plain("file", "File", Kind::Text(200), "Name of the file it came in."),
        plain("left_out", "Left out", Kind::Text(200), "Why it is not counted; it is kept all the same."),
        plain(
            "points",
            "Points",
            Kind::List { of: &POINT, min: 40, max: MOST_OF_TRACE },
            "Crank angle, from any zero, and lift of the valve, from any zero.",
        )
        .required(),
    ],
};

static POINT: Kind = Kind::Row(&[
    ("Crank", Kind::Quantity { dimension: Angle, min: "-720 deg", max: "1440 deg" }),
    ("Lift", Kind::Quantity { dimension: Length, min: "-5 mm", max: "30 mm" }),
]);

/// What measured motion says of what nobody measures on a train.
pub static TRAIN_FIT: Object = Object {
    name: "train_fit",
    doc: "what measured valve motion says of stiffness, damping and oil, for every candidate with such parts",
    sided: false,
    fields: FIT_FIELDS,
};

const SPREAD: Kind = Kind::List { of: &Kind::Number { min: -10.0, max: 10.0 }, min: 66, max: 66 };

const FIT_FIELDS: &[Field] = &[
    plain(
        "train_damping",
        "Damping of the train",
        Kind::Number { min: 0.025, max: 0.08 },
        "Share of critical of its own swing.",
    ),
    plain(
        "seat_damping",
        "Damping of the seat",
        Kind::Number { min: 0.08, max: 0.20 },
        "Share of critical with the valve on it.",
    ),
    quantity(
        "seat_stiffness",
        "Stiffness of the seat",
        SpringRate,
        ("30000 N/mm", "90000 N/mm"),
        "Of a seat with the head on it.",
    ),
    plain(
        "spring_damping",
        "Damping of the coils",
        Kind::Number { min: 0.6, max: 1.7 },
        "Of a coil's first mode over what its form has.",
    ),
    plain(
        "cam_stiffness",
        "Stiffness at the cam",
        Kind::Number { min: 0.75, max: 1.33 },
        "Of lifter, cam and contacts over the usual.",
    ),
    plain(
        "pivot_stiffness",
        "Stiffness of the pivot",
        Kind::Number { min: 0.8, max: 1.25 },
        "Of the rocker's pivot over the usual.",
    ),
    plain(
        "body_stiffness",
        "Stiffness of the rocker",
        Kind::Number { min: 0.85, max: 1.18 },
        "Of the rocker's body over the usual.",
    ),
    plain(
        "inertia",
        "Inertia of the rocker",
        Kind::Number { min: 0.88, max: 1.14 },
        "Over that of its tip-side mass at the tip.",
    ),
    plain("air", "Air in the oil", Kind::Number { min: 0.005, max: 0.04 }, "Share of volume, in a hydraulic lifter."),
    plain("leak", "Leak of the plunger", Kind::Number { min: 0.6, max: 1.7 }, "Over the usual."),
    plain(
        "moving_coils",
        "Coils that move",
        Kind::Number { min: 0.80, max: 0.96 },
        "Share of a spring's mass, where its coils are not known.",
    ),
    plain(
        "spread",
        "What it leaves open",
        SPREAD,
        "Root of the covariance, lower triangle row by row, of each place between low and high end on a scale of ratios.",
    ),
    plain(
        "mount",
        "Mount it was found on",
        Kind::Choice(Mount::WORDS),
        "Pivot and rocker carry over to rockers on such a mount.",
    ),
    plain(
        "lifter",
        "Lifter it was found with",
        Kind::Choice(LifterKind::WORDS),
        "Oil and cam side carry over to such lifters.",
    ),
    plain(
        "form",
        "Springs it was found with",
        Kind::Choice(SpringForm::WORDS),
        "What is of the coils carries over to such springs.",
    ),
    quantity(
        "remaining",
        "Left",
        Length,
        ("0 mm", "5 mm"),
        "Root mean square of what measured and computed lift are apart.",
    ),
    quantity("from", "From", Speed, RPM, "Slowest speed that was measured."),
    quantity("to", "To", Speed, RPM, "Fastest speed that was measured."),
    plain("measured", "Measured on", Kind::Text(200), "Whose train it was."),
];
