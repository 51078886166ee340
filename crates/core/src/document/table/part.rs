//! Rows that every part one buys has, and the valve as one buys it.

use crate::document::field::{Field, Kind, Object, plain, quantity};
use crate::quantity::Dimension::{Length, Mass, Money};
use crate::words::{Obtained, ValveMaterial, Word};

/// What the part is called on the shelf; an edited one says so.
pub(super) const PART: Field =
    plain("part", "Part", Kind::Text(120), "What it is called on the parts shelf; an edited one says so.");

/// What it costs.
pub(super) const PRICE: Field =
    quantity("price", "Price", Money, ("0 USD", "100000 USD"), "Of the whole engine's set.");

/// What is bought: the state of a part of a candidate, and what goes with it.
pub static BOUGHT: Object = Object {
    name: "bought",
    doc: "a part or a piece of work that is bought",
    sided: false,
    fields: &[
        plain("part", "Part", Kind::Text(120), "As the candidate's part is called; anything else is bought besides.")
            .required(),
        plain("state", "State", Kind::Choice(Obtained::WORDS), "Where it is on its way.").or("to_buy"),
        plain("lead_time", "Takes", Kind::Text(40), "How long it takes to come, in words."),
        quantity(
            "price",
            "Price",
            Money,
            ("0 USD", "100000 USD"),
            "What it costs; that of the candidate's part when absent.",
        ),
        plain("note", "Note", Kind::Text(200), "Maker, number, whom to ask."),
    ],
};

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
