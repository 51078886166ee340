//! What an order card says: texts in both systems, the same for screen, paper, JSON and CSV.

use super::block::Named;
use crate::document::Side;
use crate::quantity::Shown;
use serde::Serialize;

/// Where a part is on its way.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartState {
    /// Nobody asked for it yet.
    ToBuy,
    /// It was ordered.
    Ordered,
    /// It lies on the bench.
    Here,
}

impl PartState {
    /// In words.
    pub const fn words(self) -> &'static str {
        match self {
            Self::ToBuy => "to buy",
            Self::Ordered => "ordered",
            Self::Here => "here",
        }
    }
}

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
        /// Sums of the prices given; absent where none is.
        bill: Option<Bill>,
        /// What it drags along beside what is in the engine now; absent where nobody said which candidate that is.
        drags_along: Option<Vec<crate::parts::Drag>>,
        /// Work on castings and valves that is planned.
        machining: Vec<Machining>,
        /// What never goes together in it.
        conflicts: Vec<NeverTogether>,
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
        /// As the card that came with it says; absent while none came.
        delivered: Option<Shown>,
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
        /// The same as a number, in the document's money.
        money: Option<f64>,
        /// Where it is on its way.
        state: PartState,
        /// How long it takes to come.
        lead_time: Option<String>,
        /// What was noted of it.
        note: Option<String>,
    }

    /// Sums against the budget.
    pub struct Bill {
        /// All prices that are given.
        total: Shown,
        /// Of what is ordered or here.
        spent: Shown,
        /// Of what is still to be bought.
        left: Shown,
        /// What the owner pays; absent where nobody said.
        budget: Option<Shown>,
        /// More than that; absent where it is not.
        over: Option<Shown>,
        /// Parts without a price.
        unpriced: usize,
    }

    /// A piece of work on a casting or a valve.
    pub struct Machining {
        /// What is done.
        what: String,
        /// What it does to the preload.
        preload: Shown,
        /// What to measure again.
        then: String,
    }

    /// Two things that never go together.
    pub struct NeverTogether {
        /// What it is about.
        title: String,
        /// What is there.
        have: Shown,
        /// What has to be.
        need: Shown,
        /// Why.
        why: String,
    }
}
