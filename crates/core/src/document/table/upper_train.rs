//! Fields of `train` from the rocker to the valve.

use super::part::{PART, PRICE, VALVE_MATERIALS};
use crate::document::field::{Kind, Object, plain, quantity, sided};
use crate::quantity::Dimension::{Angle, Force, Length, Mass};
use crate::words::{LightMetal, Mount, RockerGeometry, SpringForm, Tip, Wire, Word};

/// Multiplies the lobe's lift.
pub static ROCKER: Object = sided(
    "rocker",
    "multiplies the lobe's lift",
    &[
        plain("mount", "Mount", Kind::Choice(Mount::WORDS), "What it pivots on."),
        plain("tip", "Tip", Kind::Choice(Tip::WORDS), "What touches the valve."),
        plain("material", "Material", Kind::Choice(LightMetal::WORDS), "Of the body."),
        plain("ratio", "Ratio", Kind::Number { min: 1.0, max: 2.5 }, "Nominal ratio of valve lift to lobe lift."),
        quantity("rated_lift", "Rated lift", Length, ("0.300 in", "1.200 in"), "Largest valve lift the maker allows."),
        quantity("tip_side_mass", "Tip-side mass", Mass, ("1 g", "120 g"), "Weighed in a stand at the tip."),
        quantity("mass", "Whole rocker", Mass, ("10 g", "500 g"), "Weighed; three times its tip side when absent."),
        quantity(
            "pivot_to_tip",
            "Pivot to tip",
            Length,
            ("0.800 in", "4 in"),
            "Pivot to the centre of the roller, or of the pad's radius.",
        ),
        quantity("pivot_to_cup", "Pivot to cup", Length, ("0.400 in", "3 in"), "Pivot to the pushrod's end."),
        quantity("tip_radius", "Tip radius", Length, ("0.100 in", "1.500 in"), "Of the roller, or of a plain pad.")
            .or("0.250 in")
            .beside("pivot_to_tip"),
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
        .or("0.100 in")
        .beside("pivot_to_tip"),
        quantity(
            "pushrod_angle",
            "Pushrod angle",
            Angle,
            ("-45 deg", "45 deg"),
            "Between pushrod and stem, seen along the crank, valve closed.",
        )
        .or("0 deg")
        .beside("pivot_to_tip"),
        plain(
            "geometry",
            "Geometry",
            Kind::Choice(RockerGeometry::WORDS),
            "Square to the stem at half lift, or never past square: square at full lift.",
        )
        .or("half_lift")
        .beside("pivot_to_tip"),
        quantity("stud_diameter", "Stud diameter", Length, ("0.25 in", "0.75 in"), "Of a stud mount.")
            .when("mount", STUD),
        quantity(
            "slot_length",
            "Stud slot",
            Length,
            ("0.300 in", "2 in"),
            "Length of the slot in the body that the stud passes.",
        )
        .when("mount", STUD),
        quantity(
            "slot_depth",
            "Slot depth",
            Length,
            ("0 in", "1 in"),
            "Thickness of the body where the slot is, the pivot in its middle.",
        )
        .or("0.250 in")
        .when("mount", STUD),
        quantity(
            "body_depth",
            "Underside",
            Length,
            ("0 in", "1 in"),
            "Lowest part of the body near the tip, below the line from pivot to tip's centre.",
        ),
        quantity(
            "top_height",
            "Height over pivot",
            Length,
            ("0 in", "2.500 in"),
            "Highest part over the pivot: nut and lock of a stud, bolt of a shaft.",
        ),
        quantity(
            "adjuster_height",
            "Adjuster",
            Length,
            ("0 in", "2 in"),
            "Highest part of adjuster and lock over the pushrod's end; nothing without one.",
        )
        .or("0.200 in"),
        quantity("cup_diameter", "Cup for ball", Length, ("0.200 in", "0.500 in"), "Ball of the pushrod it takes."),
        PART,
        PRICE,
    ],
);

const STUD: &[&str] = &["stud"];

pub(super) static BRIDGE: Object = sided(
    "bridge",
    "what one rocker opens two valves of a port with",
    &[quantity("mass", "Mass", Mass, ("5 g", "600 g"), "The whole bridge, with its adjuster.")],
);

pub(super) static READINGS: Object = sided(
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

pub(super) static VALVE: Object = sided(
    "valve",
    "the valve itself",
    &[
        quantity("mass", "Mass", Mass, ("15 g", "500 g"), "Weighed."),
        plain("material", "Material", VALVE_MATERIALS, "Of the head."),
        quantity("length", "Length", Length, ("2 in", "9 in"), "Face to tip."),
        quantity("lash_cap_mass", "Lash cap", Mass, ("0 g", "30 g"), "Cap on its tip, where there is one."),
        PART,
        PRICE,
    ],
);

/// Retainer and locks.
pub static RETAINER: Object = sided(
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
        quantity("diameter", "Diameter", Length, ("0.500 in", "2.500 in"), "Its largest."),
        quantity(
            "below_tip",
            "Below the tip",
            Length,
            ("-0.100 in", "0.600 in"),
            "Its highest edge below the tip of the stem, or of a lash cap.",
        )
        .or("0.200 in"),
        quantity(
            "spring_diameter",
            "Takes a spring of",
            Length,
            ("0.500 in", "2.500 in"),
            "Outside diameter of the spring it is cut for, at its top.",
        ),
        PART,
        PRICE,
    ],
);

/// The spring package as fitted.
pub static SPRING: Object = sided(
    "spring",
    "the spring package as fitted",
    &[
        plain("form", "Form", Kind::Choice(SpringForm::WORDS), "Shape of the package."),
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
        quantity(
            "top_diameter",
            "Diameter at the top",
            Length,
            ("0.500 in", "2.500 in"),
            "Under the retainer, of a beehive or a cone; that of the foot when absent.",
        )
        .when("form", &["beehive", "conical"]),
        quantity(
            "friction",
            "Friction",
            Force,
            ("0 lbf", "60 lbf"),
            "Half of what a tester shows more going down than coming up at one height: a damper, or coils that rub.",
        ),
        plain("points", "Tester points", Kind::List { of: &POINT, min: 2, max: 24 }, "Height and load, two or more."),
        plain(
            "coils",
            "Coils",
            Kind::List { of: &Kind::Object(&COIL), min: 1, max: 3 },
            "Springs known by their wire, outer first.",
        ),
        PART,
        PRICE,
    ],
);

/// Installed heights of every valve, and what may go under their springs.
pub static HEIGHTS: Object = sided(
    "heights",
    "installed heights of every valve, to be evened with shims",
    &[
        plain(
            "measured",
            "Measured heights",
            Kind::List { of: &HEIGHT, min: 1, max: 32 },
            "Of every valve of this side, cylinder 1 first, each with its own retainer and locks.",
        ),
        plain(
            "kit",
            "Shims come in",
            Kind::List { of: &SHIM, min: 1, max: 6 },
            "Thicknesses of the kit; .015, .030 and .060 in when absent.",
        ),
        plain(
            "locks",
            "Other locks",
            Kind::List { of: &LOCK, min: 1, max: 4 },
            "How much higher than those it was measured with other locks at hand hold a retainer, lower where negative: for valves no shim brings there.",
        ),
        quantity(
            "wanted",
            "Height wanted",
            Length,
            ("0.800 in", "3.500 in"),
            "The spring's installed height when absent.",
        ),
        quantity(
            "within",
            "Heights may differ by",
            Length,
            ("0.001 in", "0.030 in"),
            "Each way from the height they are brought to.",
        )
        .or("0.005 in"),
        quantity(
            "seats_cut",
            "Spring seats cut by",
            Length,
            ("0 in", "0.200 in"),
            "Deeper than they were measured at.",
        ),
        quantity(
            "retainers_higher",
            "Retainers higher by",
            Length,
            ("-0.150 in", "0.150 in"),
            "Other retainers or locks than they were measured with hold the spring taller, or shorter where negative.",
        ),
    ],
);

static HEIGHT: Kind = Kind::Quantity { dimension: Length, min: "0.800 in", max: "3.500 in" };
static LOCK: Kind = Kind::Quantity { dimension: Length, min: "-0.150 in", max: "0.150 in" };
static SHIM: Kind = Kind::Quantity { dimension: Length, min: "0.005 in", max: "0.120 in" };

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
        plain("material", "Material", Kind::Choice(Wire::WORDS), "Of the wire.").or("chrome_silicon"),
    ],
};
