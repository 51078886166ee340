//! Fields of `growth`: what brings piston and valve together in a running engine, each by itself.

use super::super::field::{Field, Object, quantity};
use crate::quantity::Dimension::{Angle, Length};

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
];
