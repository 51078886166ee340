//! Fields of `cam`: two lobes and their phasing.

use super::part::{PART, PRICE};
use super::plan::crank_angle;
use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Length};
use crate::words::{CamGear, Core, GroundFor, Snout, Word};

/// The camshaft of a candidate.
pub static CAM: Object = Object {
    name: "cam",
    doc: "lobes and their phasing",
    sided: false,
    fields: &[
        plain("intake", "Intake lobe", Kind::Object(&LOBE), "The intake lobe."),
        plain("exhaust", "Exhaust lobe", Kind::Object(&LOBE), "The exhaust lobe."),
        crank_angle(
            "lobe_separation",
            "Lobe separation",
            ("85 deg", "135 deg"),
            "Mean of the intake and exhaust centrelines, crank degrees as cards quote it.",
        ),
        crank_angle(
            "intake_centreline",
            "Intake centreline",
            ("80 deg", "140 deg"),
            "Centre of the intake's .050 events after top dead centre, as installed.",
        ),
        quantity(
            "phaser_advance",
            "Phaser advances",
            Angle,
            ("0 deg", "70 deg"),
            "Crank degrees by which a phaser that is kept turns the cam forward from where it is set.",
        ),
        quantity(
            "phaser_retard",
            "Phaser retards",
            Angle,
            ("0 deg", "70 deg"),
            "Crank degrees by which a phaser that is kept turns the cam back from where it is set.",
        ),
        plain(
            "events_050",
            "Events at .050",
            Kind::Object(&EVENTS),
            "The four events at .050 in lobe lift, instead of durations at .050, separation and centreline.",
        ),
        quantity("base_circle_diameter", "Base circle", Length, ("15 mm", "80 mm"), "Diameter of the base circle.")
            .or("1.45 in"),
        plain(
            "ground_for",
            "Ground for",
            Kind::Choice(GroundFor::WORDS),
            "The lifters its lobes are ground for; those of the candidate when absent.",
        ),
        quantity(
            "wheel_radius",
            "Grinding wheel",
            Length,
            ("1 in", "15 in"),
            "Radius of the wheel a hollow flank is ground with.",
        )
        .or("9 in"),
        plain("snout", "Snout", Kind::Choice(Snout::WORDS), "How the gear is bolted to it."),
        plain(
            "core_material",
            "Core material",
            Kind::Choice(Core::WORDS),
            "What the lobes are cut from: what they bear, and whether a flat foot may slide on it.",
        ),
        plain(
            "gear",
            "Its gear",
            Kind::Choice(CamGear::WORDS),
            "Cut from the core, or of iron pressed on: what a distributor or pump gear runs on.",
        )
        .or("core"),
        quantity(
            "bearing_diameter",
            "Smallest bearing",
            Length,
            ("20 mm", "100 mm"),
            "Bore of the bearings the lobes must pass when the cam goes in.",
        ),
        quantity(
            "journal_diameter",
            "Smallest journal",
            Length,
            ("20 mm", "100 mm"),
            "The journal that runs in the smallest bearing.",
        ),
        quantity(
            "eccentric_width",
            "Eccentric",
            Length,
            ("0 in", "2 in"),
            "Width of what drives a fuel pump's arm; nothing where it has none.",
        ),
        quantity(
            "base_circle_before",
            "Base circle before regrind",
            Length,
            ("15 mm", "80 mm"),
            "Of the cam it is reground from; absent for a new core.",
        ),
        quantity(
            "base_runout",
            "Base circle run-out",
            Length,
            ("0 in", "0.010 in"),
            "Whole reading of a dial on a base circle in one turn of the cam; it is taken as least on the nose's side.",
        ),
        quantity(
            "case_depth",
            "Hardened depth",
            Length,
            ("0.010 in", "0.500 in"),
            "How deep the unground core is hard; what the regrind takes must leave some of it.",
        )
        .or("0.090 in"),
        PART,
        PRICE,
    ],
};

const CARD_CHECKS: Kind = Kind::List { of: &CHECK_ROW, min: 1, max: 12 };
const FLANK_CHECKS: Kind = Kind::List { of: &FLANK_ROW, min: 1, max: 12 };

const CHECK_HEIGHT: Kind = Kind::Quantity { dimension: Length, min: "0.0005 in", max: "0.500 in" };
const CHECK_ANGLE: Kind = Kind::Quantity { dimension: Angle, min: "10 deg", max: "420 deg" };

const CHECK_ROW: Kind = Kind::Row(&[("Height", CHECK_HEIGHT), ("Duration", CHECK_ANGLE)]);
const FLANK_ROW: Kind = Kind::Row(&[("Height", CHECK_HEIGHT), ("To full lift", CHECK_ANGLE)]);

/// One lobe, from its card or measured.
pub static LOBE: Object =
    Object { name: "lobe", doc: "a lobe by its card or measured", sided: false, fields: LOBE_FIELDS };

const LOBE_FIELDS: &[Field] = &[
    quantity(
        "lobe_lift",
        "Lobe lift",
        Length,
        ("0.100 in", "0.700 in"),
        "Follower lift of the lobe, before the rocker.",
    ),
    plain(
        "checks",
        "Durations at lift",
        CARD_CHECKS,
        "Checking height in lobe lift and duration there in crank degrees.",
    ),
    plain("opening", "Opening flank", Kind::Object(&FLANK), "The opening flank when the lobe is asymmetric."),
    plain("closing", "Closing flank", Kind::Object(&FLANK), "The closing flank when the lobe is asymmetric."),
    plain("profile", "Measured profile", Kind::Object(&PROFILE), "Follower lift measured over the cam angle."),
    quantity(
        "lash_ramp",
        "Lash ramp to",
        Length,
        ("0.001 in", "0.060 in"),
        "Lobe lift at which the ramp for lash ends and the flank begins.",
    ),
    plain("part", "Lobe", Kind::Text(120), "What it is called on the parts shelf; an edited one says so."),
];

static FLANK: Object = Object {
    name: "flank",
    doc: "one flank of an asymmetric lobe",
    sided: false,
    fields: &[plain(
        "checks",
        "Angles at lift",
        FLANK_CHECKS,
        "Checking height and the crank angle between it and full lift on this flank.",
    )
    .required()],
};

static PROFILE: Object = Object {
    name: "profile",
    doc: "follower lift measured over the cam angle",
    sided: false,
    fields: &[
        plain(
            "cam_deg",
            "Cam angle",
            Kind::List { of: &Kind::Number { min: -360.0, max: 720.0 }, min: 12, max: 1440 },
            "Cam degrees, rising, any zero.",
        )
        .required(),
        plain(
            "lift",
            "Lift",
            Kind::List {
                of: &Kind::Quantity { dimension: Length, min: "-0.010 in", max: "0.700 in" },
                min: 12,
                max: 1440,
            },
            "Follower lift at each angle.",
        )
        .required(),
    ],
};

/// Clay in the pockets, squeezed by this cam.
pub static CLAY: Object = Object {
    name: "clay",
    doc: "clay in the pockets after the engine was turned twice by hand with this cam",
    sided: false,
    fields: &[
        plain("intake", "Intake clay", Kind::Object(&CLAY_SIDE), "Under the intake valve."),
        plain("exhaust", "Exhaust clay", Kind::Object(&CLAY_SIDE), "Under the exhaust valve."),
    ],
};

static CLAY_SIDE: Object = Object {
    name: "clay_side",
    doc: "clay under one valve",
    sided: false,
    fields: &[
        quantity(
            "floor",
            "Floor",
            Length,
            ("0 in", "0.500 in"),
            "Thinnest clay between valve and crown, square to the crown.",
        ),
        quantity(
            "wall",
            "Wall",
            Length,
            ("0 in", "0.500 in"),
            "Thinnest clay between the valve's edge and the pocket's wall.",
        ),
    ],
};

static EVENTS: Object = Object {
    name: "events_050",
    doc: "the four events at .050 in lobe lift",
    sided: false,
    fields: &[
        crank_angle("intake_opens_btdc", "Intake opens", EVENT, "Before top dead centre; negative when after.")
            .required(),
        crank_angle("intake_closes_abdc", "Intake closes", EVENT, "After bottom dead centre.").required(),
        crank_angle("exhaust_opens_bbdc", "Exhaust opens", EVENT, "Before bottom dead centre.").required(),
        crank_angle("exhaust_closes_atdc", "Exhaust closes", EVENT, "After top dead centre; negative when before.")
            .required(),
    ],
};

const EVENT: (&str, &str) = ("-90 deg", "150 deg");
