//! Fields of `train` up to the pushrod. Plain fields hold for both sides, `intake` and
//! `exhaust` objects override them field by field.

use super::part::{PART, PRICE};
use super::upper_train::{BRIDGE, HEIGHTS, READINGS, RETAINER, ROCKER, SPRING, VALVE};
use crate::document::field::{Kind, Object, plain, quantity, sided};
use crate::quantity::Dimension::{Force, Length, Mass, Pressure, Speed};
use crate::words::{AntiRotation, LifterKind, LifterVariant, LightMetal, PreloadSchool, Word};

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
        plain("heights", "Installed heights", Kind::Object(&HEIGHTS), "Of every valve, to be evened with shims."),
    ],
};

const FLAT: &[&str] = &["hydraulic_flat", "solid_flat"];
const ROLLER: &[&str] = &["hydraulic_roller", "solid_roller"];
const HYDRAULIC: &[&str] = &["hydraulic_flat", "hydraulic_roller"];
const SOLID: &[&str] = &["solid_flat", "solid_roller"];

/// What rides on the lobe.
pub static LIFTER: Object = sided(
    "lifter",
    "what rides on the lobe",
    &[
        plain("kind", "Kind", Kind::Choice(LifterKind::WORDS), "Flat or roller, hydraulic or solid."),
        plain(
            "variant",
            "Variant",
            Kind::Choice(LifterVariant::WORDS),
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
            Kind::Choice(AntiRotation::WORDS),
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
            Kind::Choice(PreloadSchool::WORDS),
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
        quantity(
            "rated_load",
            "Rated load",
            Force,
            ("100 lbf", "4000 lbf"),
            "Greatest load on its seat the maker allows, open spring times ratio.",
        ),
        plain(
            "bleed_seconds",
            "Bleeds in, s",
            Kind::Number { min: 1.0, max: 600.0 },
            "Seconds the plunger takes to go down .125 in under 50 lbf in a leak-down tester, hot oil.",
        )
        .when("kind", HYDRAULIC),
        quantity("plunger_diameter", "Plunger", Length, ("0.350 in", "0.800 in"), "Diameter of the plunger in its body.")
            .or("0.562 in")
            .when("kind", HYDRAULIC),
        quantity(
            "oil_height",
            "Oil below plunger",
            Length,
            ("0.050 in", "0.600 in"),
            "Height of the oil column the plunger stands on at its preload, the check valve's room with it.",
        )
        .or("0.200 in")
        .when("kind", HYDRAULIC),
        quantity(
            "oil_pressure",
            "Oil pressure",
            Pressure,
            ("5 psi", "150 psi"),
            "At the lifters, at speed; more of it pumps a plunger up faster.",
        )
        .or("55 psi")
        .when("kind", HYDRAULIC),
        plain(
            "air_fraction",
            "Air in the oil",
            Kind::Number { min: 0.001, max: 0.15 },
            "Share of air by volume in the oil below the plunger; half a per cent to four where nobody knows.",
        )
        .when("kind", HYDRAULIC),
        quantity("body_diameter", "Body diameter", Length, ("0.600 in", "1.200 in"), "In its bore, by micrometer."),
        quantity(
            "seat_height",
            "Pushrod seat",
            Length,
            ("0.300 in", "4 in"),
            "Contact with the lobe to the pushrod's seat, plunger up: a taller lifter wants a shorter pushrod.",
        ),
        PART,
        PRICE,
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
            "lash_cap",
            "Lash cap added",
            Length,
            ("0 in", "0.200 in"),
            "Height a cap adds over the stem: it turns, spreads the wear, and is mass at the valve.",
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
            "Length of pushrod that gives no preload at each place, by an adjustable one: cylinder 1 intake, 1 exhaust, 2 intake and so on.",
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

/// Between lifter and rocker.
pub static PUSHROD: Object = sided(
    "pushrod",
    "between lifter and rocker",
    &[
        quantity("length", "Length", Length, ("3 in", "20 in"), "Effective length."),
        quantity("outside_diameter", "Outside diameter", Length, ("0.200 in", "1 in"), "Of the tube."),
        quantity("wall", "Wall", Length, ("0.020 in", "0.300 in"), "Of the tube."),
        plain("material", "Material", Kind::Choice(LightMetal::WORDS), "Of the tube.").or("steel"),
        quantity("mass", "Mass", Mass, ("10 g", "600 g"), "Weighed; from a tube of these sizes when absent."),
        quantity(
            "checked_length",
            "Checked length",
            Length,
            ("3 in", "20 in"),
            "Of an adjustable pushrod that takes up all play and no more, valve closed.",
        ),
        quantity("end_diameter", "End ball", Length, ("0.200 in", "0.500 in"), "Ball at its ends."),
        PART,
        PRICE,
    ],
);
