//! Rows that every part one buys has.

use crate::document::field::{Field, Kind, plain, quantity};
use crate::quantity::Dimension::Money;

/// What the part is called on the shelf; an edited one says so.
pub(super) const PART: Field =
    plain("part", "Part", Kind::Text(120), "What it is called on the parts shelf; an edited one says so.");

/// What it costs.
pub(super) const PRICE: Field =
    quantity("price", "Price", Money, ("0 USD", "100000 USD"), "Of the whole engine's set.");
