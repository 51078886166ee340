//! Entries of `service`: what was measured, changed and found while the engine was run.

use super::limits::LIMIT_IDS;
use crate::document::field::{Field, Kind, Object, plain};
use crate::quantity::Dimension::{Force, Length};
use crate::words::{ServiceEvent, ServicePart, Warmth, Word};

static ONE_ENTRY: Kind = Kind::Object(&SERVICE_ENTRY);

/// The list of them.
pub const SERVICE: Kind = Kind::List { of: &ONE_ENTRY, min: 0, max: 400 };

/// One entry of the log.
pub static SERVICE_ENTRY: Object = Object {
    name: "service",
    doc: "one entry of the service log, with what was read at it",
    sided: false,
    fields: FIELDS,
};

const CYLINDER: Kind = Kind::Integer { min: 1, max: 16 };
const SIDE: Kind = Kind::Choice(&["intake", "exhaust"]);

/// A table of one reading for each valve.
macro_rules! of_valves {
    ($name:ident, $title:literal, $dimension:ident, $min:literal, $max:literal) => {
        static $name: Kind = Kind::Row(&[
            ("Cylinder", CYLINDER),
            ("Side", SIDE),
            ($title, Kind::Quantity { dimension: $dimension, min: $min, max: $max }),
        ]);
    };
}

of_valves!(SEAT_LOAD, "Seat load", Force, "0 lbf", "1000 lbf");
of_valves!(LASH, "Lash", Length, "-0.100 in", "0.200 in");
of_valves!(GUIDE_PLAY, "Guide play", Length, "0 in", "0.100 in");
of_valves!(LOBE_LIFT, "Lobe lift", Length, "0 in", "1 in");

const fn table(of: &'static Kind) -> Kind {
    Kind::List { of, min: 0, max: 64 }
}

static CHANGED: Kind = Kind::Choice(ServicePart::WORDS);

const FIELDS: &[Field] = &[
    plain("id", "Id", Kind::Text(40), "Stable identifier.").required(),
    plain("date", "Date", Kind::Text(10), "Day, as 2026-06-01.").required(),
    plain("at", "At", Kind::Text(40), "How far it had run: miles or kilometres, hours or passes, as 18500 mi."),
    plain("event", "What", Kind::Choice(ServiceEvent::WORDS), "What was done.").required(),
    plain("by", "By", Kind::Text(80), "Whose hand."),
    plain(
        "candidate",
        "Candidate",
        Kind::Text(40),
        "Identifier of the candidate in the engine; the first when absent.",
    ),
    plain("readings", "Readings", Kind::Object(&READINGS), "What was read, valve by valve."),
    plain(
        "changed",
        "Changed",
        Kind::List { of: &CHANGED, min: 0, max: 10 },
        "Parts that were renewed: their wear begins anew.",
    ),
    plain("why", "Why", Kind::Text(400), "Why it was done."),
    plain("finding", "Finding", Kind::Text(400), "What was found: where it broke, how it looked, what came before."),
    plain("limit", "Limit", Kind::Choice(LIMIT_IDS), "Which limit the finding speaks about.")
        .when("event", &["failure"]),
    plain("note", "Note", Kind::Text(400), "Anything worth knowing."),
];

/// What was read at an entry.
pub static READINGS: Object = Object {
    name: "service_readings",
    doc: "what was read of the valves",
    sided: false,
    fields: &[
        plain(
            "engine_is",
            "Engine is",
            Kind::Choice(Warmth::WORDS),
            "Lash grows or shrinks while an engine warms: trends of it are of cold engines.",
        )
        .or("cold"),
        plain("seat_load", "Seat load", table(&SEAT_LOAD), "Spring load with the valve on its seat."),
        plain("lash", "Lash", table(&LASH), "Lash at the valve, as it was found."),
        plain("guide_play", "Guide play", table(&GUIDE_PLAY), "Stem in its guide, across the rocker's sweep."),
        plain("lobe_lift", "Lobe lift", table(&LOBE_LIFT), "Lift of the lobe by dial at the lifter or the pushrod."),
    ],
};
