//! Fields of `engine`: cylinder, combustion, bearings.

use super::ports::{EXHAUST_PORT, INDUCTION, INTAKE_PORT};
use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Length, Mass, Octane, Pressure, Speed, Volume};
use crate::words::{
    Accessories, CamDrive, Casting, ChainRows, Combustion, DistributorGear, FuelKind, Layout, RodMaterial, Snout, Word,
};

/// The engine.
pub static ENGINE: Object =
    Object { name: "engine", doc: "everything the candidates share", sided: false, fields: FIELDS };

const FIELDS: &[Field] = &[
    plain("layout", "Layout", Kind::Choice(Layout::WORDS), "Arrangement of the cylinders."),
    plain("cylinders", "Cylinders", Kind::Integer { min: 1, max: 12 }, "Number of cylinders.").or("8"),
    plain(
        "firing_order",
        "Firing order",
        Kind::List { of: &Kind::Integer { min: 1, max: 12 }, min: 1, max: 12 },
        "Cylinder numbers in the order they fire.",
    ),
    plain("combustion", "Combustion", Kind::Choice(Combustion::WORDS), "How the charge is lit.").or("spark"),
    plain("fuel", "Fuel", Kind::Choice(FuelKind::WORDS), "What it burns."),
    quantity(
        "octane_ron",
        "Octane",
        Octane,
        ("80 RON", "120 RON"),
        "A number alone is research octane; the pump's (R+M)/2 is written so, and is taken as 4.5 less.",
    )
    .when("combustion", &["spark"]),
    plain("air_fuel_ratio", "Air-fuel ratio", Kind::Number { min: 3.0, max: 80.0 }, "Mass of air for one of fuel.")
        .when("combustion", &["spark"]),
    quantity("bore", "Bore", Length, ("30 mm", "250 mm"), "Cylinder bore."),
    quantity("stroke", "Stroke", Length, ("30 mm", "300 mm"), "Twice the crank throw."),
    quantity("rod_length", "Rod length", Length, ("60 mm", "600 mm"), "Centre to centre."),
    quantity(
        "pin_offset",
        "Pin offset",
        Length,
        ("-5 mm", "5 mm"),
        "Offset of the piston pin from the bore axis, positive towards the major thrust side.",
    )
    .or("0 in"),
    quantity(
        "deck_clearance",
        "Deck clearance",
        Length,
        ("-0.120 in", "0.250 in"),
        "Piston crown below the deck at top dead centre; negative when it stands out.",
    ),
    quantity(
        "gasket_thickness",
        "Gasket, crushed",
        Length,
        ("0 in", "0.250 in"),
        "Crushed thickness of the head gasket.",
    ),
    quantity(
        "gasket_bore",
        "Gasket bore",
        Length,
        ("30 mm", "260 mm"),
        "Bore of the head gasket; the cylinder bore when absent.",
    ),
    quantity(
        "chamber_volume",
        "Chamber",
        Volume,
        ("0 cc", "400 cc"),
        "Combustion chamber in the head, valves and plug in place.",
    ),
    quantity(
        "piston_volume",
        "Piston volume, dish +",
        Volume,
        ("-120 cc", "400 cc"),
        "Positive when the crown adds volume (dish, pockets), negative for a dome.",
    )
    .or("0 cc"),
    quantity(
        "chamber_fill",
        "Chamber by burette",
        Volume,
        ("1 cc", "400 cc"),
        "Filled into the chamber under a plate on the gasket face, valves and plug in place.",
    ),
    quantity(
        "cylinder_fill",
        "Cylinder by burette",
        Volume,
        ("1 cc", "1500 cc"),
        "Filled into the cylinder under a plate on the deck, the piston sealed with grease and well down, so that a dome is below the plate.",
    ),
    quantity(
        "piston_down",
        "Piston down",
        Length,
        ("-0.250 in", "3 in"),
        "Flat of the crown below the deck while the cylinder was filled.",
    ),
    quantity("piston_assembly_mass", "Piston assembly", Mass, ("100 g", "6000 g"), "Piston, pin, rings and locks."),
    quantity(
        "rod_to_cam",
        "Rod to cam",
        Length,
        ("-0.250 in", "2 in"),
        "Least gap from any rod or its bolt to the camshaft, by feeler over two turns.",
    ),
    quantity(
        "rod_to_block",
        "Rod to block",
        Length,
        ("-0.250 in", "2 in"),
        "Least gap from any rod or counterweight to block and pan rail, by feeler.",
    ),
    quantity("rod_mass", "Rod", Mass, ("100 g", "8000 g"), "Whole connecting rod."),
    plain(
        "rod_material",
        "Rod material",
        Kind::Choice(RodMaterial::WORDS),
        "Aluminium rods grow more; the piston limits know it.",
    )
    .or("steel"),
    plain("block_material", "Block", Kind::Choice(Casting::WORDS), "What the block is cast of; lash grows with it.")
        .or("iron"),
    plain("head_material", "Heads", Kind::Choice(Casting::WORDS), "What the heads are cast of; lash grows with them.")
        .or("iron"),
    plain("cam_drive", "Cam drive", Kind::Choice(CamDrive::WORDS), "What turns the camshaft.").or("chain"),
    quantity(
        "drive_stretch",
        "Drive stretch to come",
        Angle,
        ("0 deg", "12 deg"),
        "Crank degrees by which a worn drive will let the cam run later than it was set.",
    )
    .or_by("cam_drive", &[("chain", "1.5 deg"), ("gear", "0.3 deg"), ("belt", "1 deg")]),
    plain(
        "timing_steps",
        "Timing steps",
        Kind::List { of: &TIMING_STEP, min: 0, max: 24 },
        "Crank degrees of advance that keyways or bushings of the timing set reach beside how it stands now; retard is negative.",
    ),
    plain(
        "chain_rows",
        "Chain rows",
        Kind::Choice(ChainRows::WORDS),
        "A double row wants spacers behind the oil pump and room in the cover.",
    )
    .when("cam_drive", &["chain"]),
    quantity(
        "pump_arm_width",
        "Fuel pump's arm",
        Length,
        ("0.1 in", "2 in"),
        "Width of the arm or rod a mechanical fuel pump runs on the cam's eccentric with.",
    ),
    plain("drive_fits", "Drive fits", Kind::Choice(Snout::WORDS), "The snout its gear is bored for."),
    plain(
        "distributor_gear",
        "Distributor gear",
        Kind::Choice(DistributorGear::WORDS),
        "Gear of distributor or oil pump that runs on the cam's.",
    ),
    quantity("lifter_bore", "Lifter bore", Length, ("0.600 in", "1.200 in"), "Smallest of all, by bore gauge."),
    quantity("head_stud", "Rocker stud", Length, ("0.25 in", "0.75 in"), "Diameter of the studs in the heads."),
    quantity(
        "spark_retard",
        "Retard from best timing",
        Angle,
        ("0 deg", "25 deg"),
        "How much later than best timing the spark is set, for the octane there is.",
    )
    .or("0 deg")
    .when("combustion", &["spark"]),
    quantity("cranking_speed", "Cranking speed", Speed, ("60 rpm", "500 rpm"), "What the starter turns it at.")
        .or("200 rpm"),
    plain("intake", "Intake port", Kind::Object(&INTAKE_PORT), "Intake valve, pocket, flow and runner."),
    plain("exhaust", "Exhaust port", Kind::Object(&EXHAUST_PORT), "Exhaust valve, pocket, flow and primary."),
    plain(
        "fuelling",
        "Fuelling",
        Kind::List { of: &FUEL_POINT, min: 1, max: 24 },
        "Diesel fuel for each stroke and cylinder over speed.",
    )
    .when("combustion", &["diesel"]),
    plain(
        "smoke_air_fuel",
        "Smoke limit",
        Kind::Number { min: 12.0, max: 60.0 },
        "Least air-fuel ratio a diesel is fuelled to, instead of a table.",
    )
    .when("combustion", &["diesel"]),
    quantity(
        "injection_start",
        "Burning begins",
        Angle,
        ("-30 deg", "30 deg"),
        "First burning of a diesel after firing top dead centre, at every speed.",
    )
    .or("2 deg")
    .when("combustion", &["diesel"]),
    plain(
        "injection",
        "Burning begins over speed",
        Kind::List { of: &INJECTION_ROW, min: 1, max: 24 },
        "First burning after firing top dead centre at each speed, instead of one for all.",
    )
    .when("combustion", &["diesel"]),
    quantity(
        "rail_pressure",
        "Rail pressure",
        Pressure,
        ("20 MPa", "350 MPa"),
        "Fuel pressure before the injectors; higher burns sooner.",
    )
    .or("140 MPa")
    .when("combustion", &["diesel"]),
    quantity(
        "pressure_ceiling",
        "Pressure ceiling",
        Pressure,
        ("2 MPa", "40 MPa"),
        "Highest cylinder pressure that block, gasket and rods are trusted with, absolute.",
    ),
    plain(
        "accessories",
        "Crank drives",
        Kind::Choice(Accessories::WORDS),
        "What the crank turns besides itself; on a dyno the oil pump alone.",
    )
    .or("oil_pump"),
    plain(
        "main_bearings",
        "Main bearings",
        Kind::Integer { min: 1, max: 13 },
        "How many; as the layout has them when absent.",
    ),
    quantity(
        "main_bearing_diameter",
        "Main bearing diameter",
        Length,
        ("25 mm", "200 mm"),
        "Diameter of the main journals; .64 of the bore when absent.",
    ),
    quantity(
        "main_bearing_length",
        "Main bearing length",
        Length,
        ("5 mm", "100 mm"),
        "Width of one main bearing; .23 of the bore when absent.",
    ),
    quantity(
        "rod_bearing_diameter",
        "Rod bearing diameter",
        Length,
        ("20 mm", "180 mm"),
        "Diameter of the crank pins; .53 of the bore when absent.",
    ),
    quantity(
        "rod_bearing_length",
        "Rod bearing length",
        Length,
        ("5 mm", "90 mm"),
        "Width of one rod bearing; .22 of the bore when absent.",
    ),
    plain("induction", "Induction", Kind::Object(&INDUCTION), "What the runners breathe from."),
];

static TIMING_STEP: Kind = Kind::Quantity { dimension: Angle, min: "-30 deg", max: "30 deg" };

static INJECTION_ROW: Kind = Kind::Row(&[
    ("At", Kind::Quantity { dimension: Speed, min: "300 rpm", max: "15000 rpm" }),
    ("Burning begins", Kind::Quantity { dimension: Angle, min: "-30 deg", max: "30 deg" }),
]);

static FUEL_POINT: Kind = Kind::Object(&FUEL);

static FUEL: Object = Object {
    name: "fuel_point",
    doc: "fuel for a stroke at one speed",
    sided: false,
    fields: &[
        quantity("at", "At", Speed, ("300 rpm", "15000 rpm"), "Crank speed.").required(),
        quantity("fuel", "Fuel", Mass, ("1 mg", "2000 mg"), "For each stroke and cylinder.").required(),
    ],
};
