//! Fields of `train`: from lifter to valve. Plain fields hold for both sides, `intake` and
//! `exhaust` objects override them field by field.

use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Angle, Force, Length, Mass, Speed};

/// The train of a candidate.
pub static TRAIN: Object = Object {
    name: "train",
    doc: "from lifter to valve",
    sided: false,
    fields: &[
        plain("lifter", "Lifter", Kind::Object(&LIFTER), "What rides on the lobe."),
        plain("pushrod", "Pushrod", Kind::Object(&PUSHROD), "Between lifter and rocker."),
        plain(
            "preload_work",
            "Preload work",
            Kind::Object(&PRELOAD_WORK),
            "Milling, gaskets, stems and shims that move the preload.",
        ),
        plain("matching", "Matching", Kind::Object(&MATCHING), "Which pushrod goes where."),
        plain("rocker", "Rocker", Kind::Object(&ROCKER), "Multiplies the lobe's lift."),
        plain("bridge", "Bridge", Kind::Object(&BRIDGE), "What one rocker opens two valves of a port with."),
        plain("valve", "Valve", Kind::Object(&VALVE), "The valve itself."),
        plain(
            "readings",
            "Readings",
            Kind::Object(&READINGS),
            "Lift at the valve as measured, to know ratio and flex by.",
        ),
        plain("retainer", "Retainer", Kind::Object(&RETAINER), "Retainer and locks."),
        plain("spring", "Spring", Kind::Object(&SPRING), "The spring package as fitted."),
    ],
};

/// Lifter kinds, in the order of the trade.
pub const LIFTER_KINDS: &[&str] = &["hydraulic_flat", "solid_flat", "hydraulic_roller", "solid_roller"];

const FLAT: &[&str] = &["hydraulic_flat", "solid_flat"];
const ROLLER: &[&str] = &["hydraulic_roller", "solid_roller"];
const HYDRAULIC: &[&str] = &["hydraulic_flat", "hydraulic_roller"];
const SOLID: &[&str] = &["solid_flat", "solid_roller"];

const fn sided(name: &'static str, doc: &'static str, fields: &'static [Field]) -> Object {
    Object { name, doc, fields, sided: true }
}

static LIFTER: Object = sided(
    "lifter",
    "what rides on the lobe",
    &[
        plain("kind", "Kind", Kind::Choice(LIFTER_KINDS), "Flat or roller, hydraulic or solid."),
        plain(
            "variant",
            "Variant",
            Kind::Choice(&["standard", "short_travel", "anti_pump_up"]),
            "Design of a hydraulic lifter.",
        )
        .or("standard")
        .when("kind", HYDRAULIC),
        quantity("mass", "Mass", Mass, ("20 g", "400 g"), "Whole lifter, link bar's half included."),
        quantity("face_diameter", "Face diameter", Length, ("0.600 in", "1.800 in"), "Foot of a flat lifter.")
            .or("0.842 in")
            .when("kind", FLAT),
        quantity(
            "face_margin",
            "Face margin",
            Length,
            ("0 in", "0.100 in"),
            "Edge of a flat lifter's face the contact must stay inside of.",
        )
        .or("0.020 in")
        .when("kind", FLAT),
        quantity("roller_diameter", "Roller diameter", Length, ("0.500 in", "1.500 in"), "Wheel of a roller lifter.")
            .or("0.750 in")
            .when("kind", ROLLER),
        plain(
            "anti_rotation",
            "Kept from turning by",
            Kind::Choice(&["link_bar", "guide_tray", "keyway", "none"]),
            "What keeps a roller square to the lobe.",
        )
        .when("kind", ROLLER),
        quantity("travel", "Plunger travel", Length, ("0 in", "0.300 in"), "Whole travel of the plunger.")
            .when("kind", HYDRAULIC),
        quantity("preload", "Preload", Length, ("0 in", "0.250 in"), "Plunger travel taken up at rest.")
            .when("kind", HYDRAULIC),
        plain(
            "preload_school",
            "Preload school",
            Kind::Choice(&["series", "light", "deep"]),
            "As engines leave the works; so light that pump-up cannot hold the valve open; or close to the bottom, with short travel.",
        )
        .or("series")
        .when("kind", HYDRAULIC),
        quantity("lash", "Lash, hot", Length, ("0 in", "0.060 in"), "Hot clearance at the valve of a solid lifter.")
            .when("kind", SOLID),
        quantity(
            "give",
            "Give",
            Length,
            ("0 in", "0.060 in"),
            "Lost motion of a hydraulic lifter at its plunger: aerated oil gives way as if it ran lash.",
        )
        .or("0.005 in")
        .when("kind", HYDRAULIC),
        quantity(
            "roller_width",
            "Roller width",
            Length,
            ("0.200 in", "1.200 in"),
            "Length of the line that carries the load.",
        )
        .or("0.450 in")
        .when("kind", ROLLER),
        quantity("most_lift", "Most lobe lift", Length, ("0.100 in", "0.700 in"), "What a deactivating lifter takes when it is switched off.")
            .when("kind", HYDRAULIC),
        quantity("rated_speed", "Rated speed", Speed, ("2000 rpm", "15000 rpm"), "What the maker rates it to."),
    ],
);

static PRELOAD_WORK: Object = sided(
    "preload_work",
    "work that moves the preload of a train without adjusters",
    &[
        quantity("head_milled", "Head milled by", Length, ("0 in", "0.200 in"), "Taken off the head's face."),
        quantity("deck_milled", "Deck milled by", Length, ("0 in", "0.200 in"), "Taken off the deck."),
        quantity(
            "gasket_thicker",
            "Gasket thicker by",
            Length,
            ("-0.100 in", "0.100 in"),
            "Crushed, than the one the preload was measured with.",
        ),
        quantity(
            "stem_higher",
            "Stem higher by",
            Length,
            ("-0.150 in", "0.150 in"),
            "Tip of the stem, after seat and valve work.",
        ),
        quantity(
            "base_circle_smaller",
            "Base circle smaller by",
            Length,
            ("-0.200 in", "0.200 in"),
            "Diameter of the base circle, after a regrind.",
        ),
        quantity("stand_shim", "Shim under the stand", Length, ("0 in", "0.200 in"), "Under the rocker's stand."),
        quantity(
            "pushrod_longer",
            "Pushrod longer by",
            Length,
            ("-0.300 in", "0.300 in"),
            "Than the one the preload was measured with.",
        ),
    ],
);

static MATCHING: Object = Object {
    name: "matching",
    doc: "measured pushrods and places, to be matched pair by pair",
    sided: false,
    fields: &[
        plain(
            "pushrods",
            "Pushrods",
            Kind::List { of: &LENGTH, min: 1, max: 64 },
            "Length of each, in the order they lie on the bench.",
        ),
        plain(
            "places",
            "Places",
            Kind::List { of: &PLACE, min: 1, max: 64 },
            "Length of pushrod that gives no preload at each place, by an adjustable one, in order.",
        ),
        quantity(
            "preload",
            "Preload wanted",
            Length,
            ("0 in", "0.250 in"),
            "At the plunger; that of the lifter when absent.",
        ),
        quantity(
            "shim_step",
            "Shims come in",
            Length,
            ("0.002 in", "0.060 in"),
            "Thickness of a shim for the stands; none when absent.",
        ),
    ],
};

static LENGTH: Kind = Kind::Quantity { dimension: Length, min: "3 in", max: "20 in" };
static PLACE: Kind = Kind::Quantity { dimension: Length, min: "3 in", max: "20 in" };

static PUSHROD: Object = sided(
    "pushrod",
    "between lifter and rocker",
    &[
        quantity("length", "Length", Length, ("3 in", "20 in"), "Effective length."),
        quantity("outside_diameter", "Outside diameter", Length, ("0.200 in", "1 in"), "Of the tube."),
        quantity("wall", "Wall", Length, ("0.020 in", "0.300 in"), "Of the tube."),
        quantity("mass", "Mass", Mass, ("10 g", "600 g"), "Weighed; from a steel tube of these sizes when absent."),
    ],
);

static ROCKER: Object = sided(
    "rocker",
    "multiplies the lobe's lift",
    &[
        plain("mount", "Mount", Kind::Choice(&["stud", "pedestal", "shaft", "paired_shaft"]), "What it pivots on."),
        plain("tip", "Tip", Kind::Choice(&["roller", "pad"]), "What touches the valve."),
        plain("material", "Material", Kind::Choice(&["steel", "aluminium"]), "Of the body."),
        plain("ratio", "Ratio", Kind::Number { min: 1.0, max: 2.5 }, "Nominal ratio of valve lift to lobe lift."),
        quantity("rated_lift", "Rated lift", Length, ("0.300 in", "1.200 in"), "Largest valve lift the maker allows."),
        quantity("tip_side_mass", "Tip-side mass", Mass, ("1 g", "120 g"), "Weighed in a stand at the tip."),
        quantity(
            "pivot_to_tip",
            "Pivot to tip",
            Length,
            ("0.800 in", "4 in"),
            "Pivot to the centre of the roller, or of the pad's radius.",
        ),
        quantity("pivot_to_cup", "Pivot to cup", Length, ("0.400 in", "3 in"), "Pivot to the pushrod's end."),
        quantity("tip_radius", "Tip radius", Length, ("0.100 in", "1.500 in"), "Of the roller, or of a plain pad.")
            .or("0.250 in"),
        quantity(
            "pivot_height",
            "Pivot above stem",
            Length,
            ("-1 in", "1.500 in"),
            "Pivot above the tip of the closed valve's stem, along the stem; square at half lift when absent.",
        ),
        quantity(
            "stem_offset",
            "Pivot to stem",
            Length,
            ("0.800 in", "4 in"),
            "Pivot to the stem's axis, square to it; the pattern is centred on the tip when absent.",
        ),
        quantity(
            "cup_drop",
            "Cup below pivot",
            Length,
            ("-1 in", "1.500 in"),
            "Pushrod's end below the pivot with the valve closed, along the stem.",
        )
        .or("0.100 in"),
        quantity(
            "pushrod_angle",
            "Pushrod angle",
            Angle,
            ("-45 deg", "45 deg"),
            "Between pushrod and stem, seen along the crank, valve closed.",
        )
        .or("0 deg"),
        plain(
            "geometry",
            "Geometry",
            Kind::Choice(&["half_lift", "full_lift"]),
            "Square to the stem at half lift, or never past square: square at full lift.",
        )
        .or("half_lift"),
        quantity("stud_diameter", "Stud diameter", Length, ("0.25 in", "0.75 in"), "Of a stud mount.")
            .when("mount", &["stud"]),
    ],
);

static BRIDGE: Object = sided(
    "bridge",
    "what one rocker opens two valves of a port with",
    &[quantity("mass", "Mass", Mass, ("5 g", "600 g"), "The whole bridge, with its adjuster.")],
);

static READINGS: Object = sided(
    "readings",
    "lift at the valve by dial, solid lifter in place",
    &[
        quantity(
            "light_spring_lift",
            "Lift, light spring",
            Length,
            ("0.100 in", "1.200 in"),
            "Full valve lift with a checking spring.",
        ),
        quantity(
            "light_spring_load",
            "Load of it",
            Force,
            ("0 lbf", "100 lbf"),
            "Of the checking spring at that lift.",
        )
        .or("0 lbf"),
        quantity(
            "running_lift",
            "Lift, real spring",
            Length,
            ("0.100 in", "1.200 in"),
            "Full valve lift with the real spring.",
        ),
        quantity(
            "running_load",
            "Load of it",
            Force,
            ("20 lbf", "2000 lbf"),
            "Of the real spring at that lift; from the tester points when absent.",
        ),
    ],
);

static VALVE: Object = sided(
    "valve",
    "the valve itself",
    &[
        quantity("mass", "Mass", Mass, ("15 g", "500 g"), "Weighed."),
        plain(
            "material",
            "Material",
            Kind::Choice(&["stainless", "titanium", "nickel_alloy", "sodium_filled", "steel"]),
            "Of the head.",
        ),
    ],
);

static RETAINER: Object = sided(
    "retainer",
    "retainer and locks",
    &[
        quantity("mass", "Mass", Mass, ("3 g", "120 g"), "Retainer alone."),
        quantity("locks_mass", "Locks", Mass, ("1 g", "30 g"), "Both locks.").or("5 g"),
        quantity(
            "depth",
            "Depth",
            Length,
            ("0 in", "0.500 in"),
            "How far the retainer reaches below its spring seat, towards the seal.",
        )
        .or("0.190 in"),
    ],
);

static SPRING: Object = sided(
    "spring",
    "the spring package as fitted",
    &[
        plain(
            "form",
            "Form",
            Kind::Choice(&["single", "beehive", "conical", "dual", "triple"]),
            "Shape of the package.",
        ),
        quantity(
            "installed_height",
            "Installed height",
            Length,
            ("0.800 in", "3.500 in"),
            "Seat to retainer, valve closed.",
        ),
        quantity(
            "coil_bind_height",
            "Coil bind height",
            Length,
            ("0.400 in", "3 in"),
            "Measured solid; from the coils when absent.",
        ),
        quantity("mass", "Mass", Mass, ("20 g", "500 g"), "Whole package; from the coils when absent."),
        quantity(
            "outside_diameter",
            "Outside diameter",
            Length,
            ("0.700 in", "2.500 in"),
            "Largest, against pocket and rocker.",
        ),
        plain("points", "Tester points", Kind::List { of: &POINT, min: 2, max: 24 }, "Height and load, two or more."),
        plain(
            "coils",
            "Coils",
            Kind::List { of: &Kind::Object(&COIL), min: 1, max: 3 },
            "Springs known by their wire, outer first.",
        ),
    ],
);

const POINT: Kind = Kind::Row(&[
    ("Height", Kind::Quantity { dimension: Length, min: "0.400 in", max: "4 in" }),
    ("Load", Kind::Quantity { dimension: Force, min: "0 lbf", max: "2000 lbf" }),
]);

static COIL: Object = Object {
    name: "coil",
    doc: "one spring known by its wire",
    sided: false,
    fields: &[
        quantity("wire_diameter", "Wire", Length, ("0.060 in", "0.400 in"), "Wire diameter.").required(),
        quantity("mean_diameter", "Mean diameter", Length, ("0.400 in", "3 in"), "Outside diameter less one wire.")
            .required(),
        plain("active_coils", "Active coils", Kind::Number { min: 1.0, max: 20.0 }, "Coils that move.").required(),
        plain("total_coils", "Total coils", Kind::Number { min: 1.5, max: 24.0 }, "All coils, ends ground.").required(),
        quantity("free_length", "Free length", Length, ("0.800 in", "5 in"), "Unloaded.").required(),
        quantity(
            "seat_offset",
            "Seat offset",
            Length,
            ("-0.250 in", "0.250 in"),
            "How much shorter than the installed height this coil sits.",
        )
        .or("0 in"),
        plain(
            "material",
            "Material",
            Kind::Choice(&["music_wire", "oil_tempered", "chrome_vanadium", "chrome_silicon"]),
            "Of the wire.",
        )
        .or("chrome_silicon"),
    ],
};
