//! Fields of `pull` and `calibration`: what a dyno measured, and what was learned from it.

use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Length, Speed, Torque};
use crate::words::{DynoKind, PullAir, Word};

const RPM: (&str, &str) = ("300 rpm", "15000 rpm");

/// A pull on the dyno.
pub static PULL: Object =
    Object { name: "pull", doc: "torque over speed as a dyno measured it", sided: false, fields: PULL_FIELDS };

const PULL_FIELDS: &[Field] = &[
    plain(
        "candidate",
        "Candidate",
        Kind::Text(40),
        "Identifier of the candidate that was on the dyno; the first when absent.",
    ),
    plain("level", "Boost level", Kind::Text(40), "Boost level it was pulled on; the strongest when absent."),
    plain(
        "air",
        "Air it is stated in",
        Kind::Choice(PullAir::WORDS),
        "The standard air the pull was corrected to; the plan's own air when it was not.",
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
    plain("note", "Note", Kind::Text(400), "Day, fuel, spark, oil and water temperature."),
    plain("points", "Points", Kind::List { of: &POINT, min: 3, max: 600 }, "Speed, and torque as the dyno has it."),
];

static POINT: Kind = Kind::Row(&[
    ("Speed", Kind::Quantity { dimension: Speed, min: "300 rpm", max: "15000 rpm" }),
    ("Torque", Kind::Quantity { dimension: Torque, min: "1 lbf ft", max: "5000 lbf ft" }),
]);

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
];
