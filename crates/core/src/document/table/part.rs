//! Rows that every part one buys has, and the valve as one buys it.

use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Length, Mass, Money};
use crate::words::{ValveMaterial, Word};

/// What the part is called on the shelf; an edited one says so.
pub(super) const PART: Field =
    plain("part", "Part", Kind::Text(120), "What it is called on the parts shelf; an edited one says so.");

/// What it costs.
pub(super) const PRICE: Field =
    quantity("price", "Price", Money, ("0 USD", "100000 USD"), "Of the whole engine's set.");

/// Materials of valves.
pub(super) const VALVE_MATERIALS: Kind = Kind::Choice(ValveMaterial::WORDS);

/// A valve on the shelf: what the train has of it, and what the head must have for it.
pub static SHELF_VALVE: Object = Object {
    name: "shelf_valve",
    doc: "a valve as one buys it",
    sided: false,
    fields: &[
        quantity("mass", "Mass", Mass, ("15 g", "500 g"), "Weighed."),
        plain("material", "Material", VALVE_MATERIALS, "Of the head."),
        quantity("length", "Length", Length, ("2 in", "9 in"), "Face to tip."),
        quantity("valve_diameter", "Head diameter", Length, ("15 mm", "80 mm"), "Outside diameter of its head."),
        quantity("stem_diameter", "Stem diameter", Length, ("4 mm", "16 mm"), "Of its stem."),
        quantity("margin_thickness", "Margin", Length, ("0 in", "0.200 in"), "Cylindrical edge of its head."),
    ],
};
