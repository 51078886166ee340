//! Fields of `engine.intake`, `engine.exhaust` and `engine.induction`: ports, what carries gas to and from them, what meters it.

use crate::document::field::{Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Area, Flow, Length, Pressure, Volume};
use crate::words::{ChargerKind, ExhaustManifold, FaceSpot, Guide, Induction, IntakeManifold, MixtureKind, Word};

/// The rows both ports have, then the rows given.
macro_rules! port_fields {
    ($($own:expr),+ $(,)?) => {
        &[
            plain("valves", "Valves a port", Kind::Integer { min: 1, max: 2 }, "Valves that share this port.").or("1"),
            quantity("valve_diameter", "Valve diameter", Length, ("15 mm", "80 mm"), "Outside diameter of the valve head."),
            quantity("stem_diameter", "Stem diameter", Length, ("4 mm", "16 mm"), "Stem in the guide.").or("11/32 in"),
            plain("guide_material", "Guide material", Kind::Choice(Guide::WORDS), "What the stem runs in."),
            quantity("valve_angle", "Valve angle", Angle, ("-45 deg", "45 deg"),
                "Tilt of the stem across the engine, positive when it leans to the intake side.").or("0 deg"),
            quantity("valve_cant", "Valve cant", Angle, ("-30 deg", "30 deg"),
                "Tilt of the stem along the crank, positive when it leans to negative y.").or("0 deg"),
            quantity("valve_offset_x", "Valve offset x", Length, ("-5 in", "5 in"),
                "Centre of the closed valve's face across the engine, positive to the exhaust side."),
            quantity("valve_offset_y", "Valve offset y", Length, ("-5 in", "5 in"),
                "Centre of the closed valve's face along the crank."),
            quantity("second_offset_x", "Second valve, offset x", Length, ("-5 in", "5 in"),
                "The same of the port's other valve, when two share it.").when("valves", &["2"]),
            quantity("second_offset_y", "Second valve, offset y", Length, ("-5 in", "5 in"),
                "The same of the port's other valve along the crank.").when("valves", &["2"]),
            quantity("face_recess", "Face recess", Length, ("-0.500 in", "1.500 in"),
                "Height of the closed valve's lowest edge above the gasket face."),
            quantity("margin_thickness", "Margin", Length, ("0 in", "0.200 in"), "Cylindrical edge of the valve head.").or("0.060 in"),
            quantity("piston_drop", "Drop to piston", Length, ("0 in", "3 in"),
                "Valve to piston along the stem at overlap top dead centre, by dial with a light spring, from its seat; it stands above the frame, and over a dome nothing else tells."),
            plain("drops", "Drops at degrees", Kind::List { of: &DROP_ROW, min: 1, max: 24 },
                "The same at crank degrees after overlap top dead centre, before it negative: they stand above the frame like the drop at top."),
            quantity("valve_height", "Valve height", Length, ("-0.500 in", "1.500 in"),
                "Gasket face down to the closed valve by depth gauge, square to the face; positive when the valve lies deeper than the face."),
            plain("valve_height_at", "Gauge meets", Kind::Choice(FaceSpot::WORDS), "The edge nearest to the gasket face, or the middle of the valve's face.").or("edge"),
            plain("pocket", "Pocket", Kind::Object(&POCKET), "Valve pocket in the piston crown; absent for a flat crown."),
            quantity("seal_height", "Seal height", Length, ("0 in", "3 in"), "Top of the valve seal above the spring seat."),
            quantity("flow_depression", "Flow depression", Pressure, ("1 inH2O", "80 inH2O"), "Test depression of the flow table.").or("28 inH2O"),
            plain("flow", "Flow table", Kind::List { of: &FLOW_ROW, min: 2, max: 40 }, "Valve lift and flow of the whole port."),
            quantity("spring_pocket", "Spring pocket", Length, ("0.700 in", "2.800 in"), "Diameter that the spring's foot stands in."),
            quantity("guide_length", "Guide length", Length, ("0.800 in", "4 in"), "Of the guide the stem runs in.").or("2 in"),
            quantity("tip_to_guide", "Tip to guide", Length, ("0.300 in", "4 in"), "Tip of the closed valve's stem to the top of the guide.").or("1.4 in"),
            quantity("pushrod_hole", "Pushrod hole", Length, ("0.200 in", "1.500 in"), "Width of hole or guide plate across the engine, where the pushrod passes."),
            quantity("pushrod_hole_below", "Hole below cup", Length, ("0.200 in", "8 in"), "Rocker's cup to that place, along the pushrod.").or("1.5 in"),
            quantity("cover_room", "Cover room", Length, ("0.200 in", "5 in"), "Tip of the closed valve's stem to the cover's inside, along the stem."),
            plain("flow_reverse", "Reverse flow", Kind::List { of: &FLOW_ROW, min: 2, max: 40 }, "The same in the reverse direction."),
            $($own),+
        ]
    };
}

const DROP_ROW: Kind = Kind::Row(&[
    ("After top", Kind::Quantity { dimension: Angle, min: "-60 deg", max: "60 deg" }),
    ("Drop", Kind::Quantity { dimension: Length, min: "0 in", max: "5 in" }),
]);

const FLOW_ROW: Kind = Kind::Row(&[
    ("Lift", Kind::Quantity { dimension: Length, min: "0 in", max: "2 in" }),
    ("Flow", Kind::Quantity { dimension: Flow, min: "0 cfm", max: "2000 cfm" }),
]);

/// The intake side of the head.
pub static INTAKE_PORT: Object = Object {
    name: "intake_port",
    doc: "intake valve, pocket, flow and runner",
    sided: false,
    fields: port_fields![
        quantity("runner_length", "Runner length", Length, ("0 in", "60 in"), "Manifold runner, plenum to head."),
        quantity("port_length", "Port length", Length, ("0 in", "20 in"), "Head face to valve."),
        quantity(
            "port_volume",
            "Port volume",
            Volume,
            ("5 cc", "1200 cc"),
            "Head face to valve by burette; over the port's length it gives the mean section."
        ),
        quantity(
            "smallest_section",
            "Smallest section",
            Area,
            ("0.2 in2", "12 in2"),
            "Of the port, mostly beside the pushrod."
        ),
        plain(
            "runner_lengths",
            "Runners of unequal length",
            Kind::List { of: &RUNNER, min: 1, max: 12 },
            "One for each cylinder number, instead of one length for all."
        ),
        quantity("runner_diameter", "Runner diameter", Length, ("0.4 in", "5 in"), "Mean bore of runner and port."),
        quantity(
            "acoustic_end",
            "Waves' end allowance",
            Length,
            ("0 in", "12 in"),
            "Length the waves see beyond the metal: mouth, plenum turn and port bowl."
        )
        .or("1.6 in"),
    ],
};

/// The exhaust side of the head.
pub static EXHAUST_PORT: Object = Object {
    name: "exhaust_port",
    doc: "exhaust valve, pocket, flow and primary",
    sided: false,
    fields: port_fields![
        plain(
            "manifold",
            "Exhaust manifold",
            Kind::Choice(ExhaustManifold::WORDS),
            "What carries the exhaust away from the heads; lengths and bores nobody measured are those of its kind."
        ),
        quantity("primary_length", "Primary length", Length, ("0 in", "120 in"), "Primary pipe, head to collector.")
            .or_by("manifold", PRIMARY_LENGTHS),
        plain(
            "primary_lengths",
            "Primaries of unequal length",
            Kind::List { of: &PRIMARY, min: 1, max: 12 },
            "One for each cylinder number, instead of one length for all."
        ),
        quantity("primary_diameter", "Primary diameter", Length, ("0.4 in", "5 in"), "Bore of the primary pipe.")
            .or_by("manifold", PRIMARY_DIAMETERS),
        plain(
            "bend_loss",
            "Bends, velocity heads",
            Kind::Number { min: 0.0, max: 6.0 },
            "What the bends of a primary cost, in velocity heads of its bore."
        )
        .or_by("manifold", BEND_LOSSES)
        .or("0.6"),
        quantity(
            "back_pressure",
            "Back pressure",
            Pressure,
            ("0 kPa", "80 kPa"),
            "Gauge, behind the collectors or the turbine, at the wanted speed of peak power; 0 for open pipes."
        ),
        plain("collector", "Collector", Kind::Object(&COLLECTOR), "Where primaries meet."),
    ],
};

/// Pipes by kind of manifold: common practice, no source.
const PRIMARY_LENGTHS: &[(&str, &str)] =
    &[("headers", "30 in"), ("cast", "7 in"), ("log", "3 in"), ("water_jacketed", "6 in")];
const PRIMARY_DIAMETERS: &[(&str, &str)] =
    &[("headers", "1.625 in"), ("cast", "1.55 in"), ("log", "1.6 in"), ("water_jacketed", "1.6 in")];

/// A smooth bend of 90 degrees loses .2 to .3, a tight cast one .5 to .8 [Idelchik, diagrams of section 6; from memory]; a
/// primary has two or three.
const BEND_LOSSES: &[(&str, &str)] = &[("headers", "0.6"), ("cast", "1.0"), ("log", "1.0"), ("water_jacketed", "1.0")];

static RUNNER: Kind = Kind::Quantity { dimension: Length, min: "0 in", max: "60 in" };
static PRIMARY: Kind = Kind::Quantity { dimension: Length, min: "0 in", max: "120 in" };

static POCKET: Object = Object {
    name: "pocket",
    doc: "a valve pocket in the piston crown",
    sided: false,
    fields: &[
        quantity("depth", "Depth", Length, ("0 in", "1 in"), "Below the crown at its deepest edge.").required(),
        quantity("diameter", "Diameter", Length, ("10 mm", "90 mm"), "Of the pocket's floor.").required(),
        quantity("offset_x", "Offset x", Length, ("-5 in", "5 in"), "Floor's centre across the engine.").required(),
        quantity("offset_y", "Offset y", Length, ("-5 in", "5 in"), "Floor's centre along the crank.").required(),
        quantity(
            "floor_angle",
            "Floor angle",
            Angle,
            ("-45 deg", "45 deg"),
            "Tilt of the floor; the valve's angle when absent.",
        ),
    ],
};

static COLLECTOR: Object = Object {
    name: "collector",
    doc: "where primaries meet",
    sided: false,
    fields: &[
        quantity("length", "Length", Length, ("0 in", "60 in"), "Collector length."),
        quantity("diameter", "Diameter", Length, ("0.5 in", "8 in"), "Collector bore."),
        quantity(
            "merge_angle",
            "Merge angle",
            Angle,
            ("0 deg", "120 deg"),
            "Between primaries and the pipe behind them; small angles carry momentum on.",
        ),
        plain(
            "cylinders",
            "Cylinders",
            Kind::List { of: &Kind::List { of: &Kind::Integer { min: 1, max: 12 }, min: 1, max: 12 }, min: 1, max: 12 },
            "Which cylinders meet in which collector.",
        ),
    ],
};

/// Inductions with a throttle of a rated flow before the plenum.
const METERED: &[&str] = &["carburettor", "throttle"];

const BOOSTED: &[&str] = &["boosted"];

/// What the runners breathe from.
pub static INDUCTION: Object = Object {
    name: "induction",
    doc: "what the runners breathe from",
    sided: false,
    fields: &[
        plain("kind", "Kind", Kind::Choice(Induction::WORDS), "What meters the air."),
        quantity("throttle_flow", "Throttle flow", Flow, ("10 cfm", "5000 cfm"), "Rated flow, all bores.")
            .when("kind", METERED),
        quantity("throttle_depression", "Rated at", Pressure, ("0.1 inHg", "30 inHg"), "Depression of that rating.")
            .or("1.5 inHg")
            .when("kind", METERED),
        quantity("plenum_volume", "Plenum", Volume, ("0 l", "40 l"), "Volume behind the throttle."),
        plain(
            "mixture",
            "Mixture",
            Kind::Choice(MixtureKind::WORDS),
            "Where the fuel meets the air; vapour takes room, and its cold makes air denser.",
        )
        .or_by("kind", &[("carburettor", "carburettor")])
        .or("port_injection"),
        plain(
            "manifold",
            "Intake manifold",
            Kind::Choice(IntakeManifold::WORDS),
            "Its kind tells what it costs the head's flow.",
        ),
        plain(
            "manifold_loss",
            "Manifold's loss",
            Kind::Number { min: 0.0, max: 6.0 },
            "In velocity heads of the runner; of its kind when absent.",
        ),
        quantity(
            "flow_without_manifold",
            "Head alone flows",
            Flow,
            ("10 cfm", "2000 cfm"),
            "One port on the bench without the manifold, at the flow table's depression.",
        ),
        quantity(
            "flow_with_manifold",
            "With the manifold",
            Flow,
            ("10 cfm", "2000 cfm"),
            "The same through the manifold: the loss follows from both.",
        ),
        quantity(
            "inlet_depression",
            "Inlet depression",
            Pressure,
            ("0 kPa", "40 kPa"),
            "Below outside, before the throttle, at the wanted speed of peak power; an air box takes about 2.5 kPa.",
        ),
        plain("charger", "Charger", Kind::Choice(ChargerKind::WORDS), "Driven by the exhaust or from the crank.")
            .or("turbine")
            .when("kind", BOOSTED),
        plain(
            "compressor_efficiency",
            "Compressor efficiency",
            Kind::Number { min: 0.2, max: 0.95 },
            "Isentropic, of turbocharger or blower.",
        )
        .or("0.68")
        .when("kind", BOOSTED),
        plain(
            "turbine_efficiency",
            "Turbine efficiency",
            Kind::Number { min: 0.2, max: 0.95 },
            "With its bearings; used where the drive pressure is not given.",
        )
        .or("0.65")
        .when("charger", &["turbine"]),
        plain(
            "wastegate",
            "Past the turbine",
            Kind::Number { min: 0.0, max: 0.7 },
            "Share of the exhaust that the wastegate lets by.",
        )
        .or("0")
        .when("charger", &["turbine"]),
        plain(
            "cooler_effectiveness",
            "Cooler effectiveness",
            Kind::Number { min: 0.0, max: 1.0 },
            "Share of the charge's heating above outside air that the cooler takes back; 0 without one.",
        )
        .or("0.7")
        .when("kind", BOOSTED),
    ],
};
