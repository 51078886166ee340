//! Fields of `growth`: what brings piston and valve together in a running engine, each by itself.

use super::super::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Length, Speed};
use crate::words::{WitnessKind, Word};

/// What a gap measured cold and by hand loses on the way to speed.
pub static GROWTH: Object = Object {
    name: "growth",
    doc: "what brings piston and valve together in a running engine, term by term",
    sided: false,
    fields: GROWTH_FIELDS,
};

const SMALL: (&str, &str) = ("0 in", "0.060 in");

const GROWTH_FIELDS: &[Field] = &[
    quantity(
        "rod_stretch",
        "Rod stretch",
        Length,
        SMALL,
        "How much longer the rod is at overlap top dead centre at shift plus overspeed, with the square of speed; computed from masses and metal when absent.",
    ),
    quantity(
        "crank_bending",
        "Crank bending",
        Length,
        SMALL,
        "How much the crank gives between its mains at shift plus overspeed, with the square of speed.",
    )
    .or("0.003 in"),
    quantity(
        "bearing_and_pin",
        "Bearings and pin",
        Length,
        SMALL,
        "Clearance of mains, rod bearing and pin that inertia takes up.",
    )
    .or("0.003 in"),
    quantity("piston_heat", "Piston heat", Length, SMALL, "How much a hot crown stands further above its pin.")
        .or("0.006 in"),
    quantity("piston_rock", "Piston rock", Length, SMALL, "How much a rocking piston comes up under the valve.")
        .or("0.004 in"),
    quantity(
        "block_heat",
        "Block and rod heat",
        Length,
        ("-0.060 in", "0.060 in"),
        "How much less a hot block carries its deck away than hot rod and crank bring the pin up; computed from heights and metals when absent.",
    ),
    quantity("gasket_creep", "Gasket creep", Length, SMALL, "How much a gasket settles after it was crushed.")
        .or("0.001 in"),
    quantity(
        "cam_lag_per_1000_rpm",
        "Cam lag a 1,000 rpm",
        Angle,
        ("0 deg", "3 deg"),
        "Crank degrees by which drive and shaft let the cam run late for every thousand rpm; by its drive when absent.",
    ),
    quantity(
        "valve_stretch",
        "Valve stretch",
        Length,
        SMALL,
        "How much further a hot valve hangs into the cylinder, and its stem is pulled by inertia, at shift plus overspeed.",
    )
    .or("0.001 in"),
    quantity(
        "valve_sway",
        "Valve sway",
        Length,
        SMALL,
        "How far the open valve's head moves sideways: guide clearance times its reach, and what the stem bends.",
    )
    .or("0.006 in"),
    quantity("piston_sway", "Piston sway", Length, SMALL, "How far the piston moves sideways: half its skirt clearance.")
        .or("0.002 in"),
    quantity(
        "beyond",
        "Shown by a running engine",
        Length,
        ("-0.060 in", "0.060 in"),
        "What a running engine showed beyond all terms at shift plus overspeed, with the square of speed; a witness mark suggests it.",
    )
    .or("0 in"),
    plain(
        "witness",
        "Witness marks",
        Kind::List { of: &ONE_MARK, min: 0, max: 40 },
        "What running engines showed of gaps between valve and piston.",
    ),
];

static ONE_MARK: Kind = Kind::Object(&WITNESS_MARK);

/// One mark of a valve on a piston, or that there was none.
pub static WITNESS_MARK: Object = Object {
    name: "witness_mark",
    doc: "what a running engine showed of one gap between valve and piston",
    sided: false,
    fields: &[
        plain("id", "Id", Kind::Text(40), "Stable identifier.").required(),
        plain("candidate", "Candidate", Kind::Text(40), "Identifier of the candidate that was run.").required(),
        plain("side", "Side", Kind::Choice(&["intake", "exhaust"]), "Which valve.").required(),
        quantity("at", "Highest speed", Speed, ("500 rpm", "15000 rpm"), "Highest speed it was turned to.").required(),
        plain(
            "kind",
            "What was found",
            Kind::Choice(WitnessKind::WORDS),
            "A mark that left so much (clay or soft wire that ran), a touch, or a clean piston.",
        )
        .or("touch"),
        quantity("gap", "Gap left", Length, ("0 in", "0.250 in"), "What was left; nothing for a touch.").or("0 in"),
        plain("note", "Note", Kind::Text(400), "Where and how it was seen."),
    ],
};
