//! Fields of `target`: what the build is for, in numbers.

use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Length, Money, Pressure, Speed, Temperature};
use crate::words::{ClearanceSchool, LifterKind, Scored, Word};

/// The plan.
pub static TARGET: Object =
    Object { name: "target", doc: "what the build is for, in numbers", sided: false, fields: FIELDS };

const RPM: (&str, &str) = ("300 rpm", "15000 rpm");

const FIELDS: &[Field] = &[
    quantity("band_from", "Band from", Speed, RPM, "Lowest speed of the band the torque is wanted in."),
    quantity("band_to", "Band to", Speed, RPM, "Highest speed of the band."),
    quantity("peak_power_at", "Power peak at", Speed, RPM, "Where peak power should fall."),
    quantity("shift_at", "Shift at", Speed, RPM, "Where it is shifted or governed."),
    quantity(
        "overspeed_by",
        "Missed shift, above the shift",
        Speed,
        ("0 rpm", "4000 rpm"),
        "How far a missed shift runs past the shift point.",
    )
    .or("600 rpm"),
    quantity("idle_at", "Idle at", Speed, ("300 rpm", "2500 rpm"), "Idle speed wanted."),
    quantity(
        "idle_vacuum",
        "Idle vacuum",
        Pressure,
        ("0 inHg", "25 inHg"),
        "Manifold vacuum wanted at idle, for brakes and an even idle.",
    ),
    plain(
        "existing",
        "In the engine now",
        Kind::Text(40),
        "Identifier of the candidate that is fitted now: an order says what another one drags along.",
    ),
    quantity("budget", "Budget", Money, ("1 USD", "1000000 USD"), "What the owner pays."),
    plain(
        "inspection_miles",
        "Inspection interval",
        Kind::Integer { min: 0, max: 300_000 },
        "Miles between inspections the owner accepts.",
    ),
    plain(
        "inspection_hours",
        "Inspection, hours",
        Kind::Integer { min: 1, max: 20_000 },
        "Running hours between inspections the owner accepts.",
    ),
    plain(
        "inspection_passes",
        "Inspection, passes",
        Kind::Integer { min: 1, max: 10_000 },
        "Passes between inspections the owner accepts.",
    ),
    plain("keep", "Keep", Kind::List { of: &Kind::Choice(KEEPABLE), min: 0, max: 12 }, "Parts that must stay."),
    plain("rules", "Class rules", Kind::Object(&RULES), "What the class the engine runs in allows."),
    plain("ambient", "Ambient", Kind::Object(&AMBIENT), "The air the engine breathes."),
    plain(
        "boost",
        "Boost levels",
        Kind::List { of: &BOOST_LEVEL, min: 0, max: 24 },
        "Manifold and drive pressure over speed, as gauges show them.",
    ),
    plain(
        "score",
        "Score board",
        Kind::List { of: &SCORE_COLUMN_KIND, min: 0, max: 24 },
        "Columns candidates are ranked by, as a contest or a customer sets them; where there are none, peak and average of torque and power, and off the track what it costs to live with.",
    ),
    plain(
        "piston_clearance_school",
        "Piston clearance school",
        Kind::Choice(ClearanceSchool::WORDS),
        "Conventional minima, or tight ones proven by a growth budget.",
    )
    .or("generous"),
];

const KEEPABLE: &[&str] = &[
    "heads",
    "covers",
    "rockers",
    "pushrods",
    "lifters",
    "springs",
    "valves",
    "brake_vacuum",
    "deactivation",
    "variable_timing",
    "accessories",
];

static RULES: Object = Object {
    name: "class_rules",
    doc: "what the class the engine runs in allows",
    sided: false,
    fields: &[
        quantity("maximum_lift", "Most valve lift", Length, ("0.200 in", "1.200 in"), "At the valve, lash at zero."),
        plain("lifter", "Lifter kind", Kind::Choice(LifterKind::WORDS), "The only kind allowed."),
        plain("stock_ratio", "Stock rocker ratio", Kind::Number { min: 1.0, max: 2.5 }, "The only ratio allowed."),
    ],
};

static AMBIENT: Object = Object {
    name: "ambient",
    doc: "the air the engine breathes",
    sided: false,
    fields: &[
        quantity("pressure", "Pressure", Pressure, ("50 kPa", "110 kPa"), "Absolute barometric pressure.").or("99 kPa"),
        quantity("temperature", "Temperature", Temperature, ("-40 C", "60 C"), "Air temperature.").or("25 C"),
        plain("humidity", "Humidity", Kind::Number { min: 0.0, max: 1.0 }, "Relative humidity, 0 to 1.").or("0"),
    ],
};

static BOOST_LEVEL: Kind = Kind::Object(&BOOST);

static SCORE_COLUMN_KIND: Kind = Kind::Object(&SCORE_COLUMN);

static SCORE_COLUMN: Object = Object {
    name: "score_column",
    doc: "a column of the score board",
    sided: false,
    fields: &[
        plain("column", "Column", Kind::Choice(Scored::WORDS), "What is ranked.").required(),
        plain("weight", "Weight", Kind::Number { min: 0.0, max: 100.0 }, "What a rank in it counts.").or("1"),
        quantity("from", "From", Speed, RPM, "Lowest speed it is over; the band's where absent."),
        quantity("to", "To", Speed, RPM, "Highest speed it is over; the band's where absent."),
    ],
};

static BOOST: Object = Object {
    name: "boost_level",
    doc: "pressures at one speed",
    sided: false,
    fields: &[
        quantity("at", "At", Speed, RPM, "Speed of the reading.").required(),
        quantity("manifold", "Manifold", Pressure, ("-14.5 psi", "100 psi"), "Gauge pressure in the intake manifold.")
            .required(),
        quantity(
            "drive",
            "Drive",
            Pressure,
            ("0 psi", "200 psi"),
            "Gauge pressure ahead of the turbine; worked out when absent.",
        ),
        plain("level", "Level", Kind::Text(40), "Boost level this reading belongs to; each level gets a curve."),
    ],
};

/// Range of a crank angle between events; shared by the cam's rows.
pub(super) const fn crank_angle(
    key: &'static str,
    label: &'static str,
    range: (&'static str, &'static str),
    doc: &'static str,
) -> Field {
    quantity(key, label, Angle, range, doc)
}
