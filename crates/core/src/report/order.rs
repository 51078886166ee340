//! What an order card says: texts in both systems, the same for screen, paper, JSON and CSV.

use super::block::Named;
use crate::document::Side;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// Everything a grinder asks for, with what is bought beside it.
    pub struct OrderCard {
        /// Name of the build.
        build: String,
        /// Name of the candidate.
        candidate: String,
        /// Each lobe line by line, intake before exhaust.
        lines: Vec<OrderLine>,
        /// What holds for the whole cam and what it goes into.
        facts: Vec<OrderFact>,
        /// What a grinder asks for and nobody gave.
        missing: Vec<Named>,
        /// What is bought with it.
        parts: Vec<OrderPart>,
        /// Sum of the prices given; absent where none is.
        total: Option<Shown>,
        /// What to do when it comes, in order.
        checklist: Vec<String>,
        /// What can hurt.
        cautions: Vec<String>,
    }

    /// One line of one lobe.
    pub struct OrderLine {
        /// Which lobe.
        side: Side,
        /// In words.
        label: String,
        /// As the card asks for it.
        asked: Shown,
        /// To be ground, so that it runs as asked; absent where nothing is compensated.
        ground: Option<Shown>,
        /// As it then runs at the valve; absent where that is no figure of its own.
        running: Option<Shown>,
    }

    /// One fact of the whole cam.
    pub struct OrderFact {
        /// In words.
        label: String,
        /// As read.
        value: Shown,
        /// Whether it is only assumed.
        assumed: bool,
    }

    /// A part that is bought.
    pub struct OrderPart {
        /// Kind, in a word.
        kind: String,
        /// Its name.
        name: String,
        /// What it costs; absent where nobody said.
        price: Option<Shown>,
    }
}
