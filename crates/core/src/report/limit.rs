//! Margins: what a rule needs, what there is, what buys it back, what to measure next.

use super::block::Named;
use crate::document::{InputUsed, Side};
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// A field worth measuring.
    pub struct MeasureNext {
        /// Its path.
        field: String,
        /// In words.
        label: String,
        /// What stands for it now; empty when it is unknown.
        value: String,
        /// Margins that rest on it.
        settles: Vec<String>,
        /// Share of engines in which measuring it would change the choice, where that was drawn.
        changes_share: Option<f64>,
        /// The kind of session at the bench that measures it; absent where none does.
        session: Option<String>,
    }

    /// What a rule needs.
    pub struct NeedReport {
        /// At least.
        min: Option<f64>,
        /// At most.
        max: Option<f64>,
    }

    /// One rule held against the candidate.
    pub struct LimitReport {
        /// Stable identifier of the rule.
        id: String,
        /// The side it is about.
        side: Option<Side>,
        /// In words.
        title: String,
        /// How need and have compare.
        sense: Sense,
        /// What is needed.
        need: NeedReport,
        /// What there is; absent when unknown.
        have: Option<f64>,
        /// What is left over, positive when met.
        margin: Option<f64>,
        /// Unit of need, have and margin.
        unit: String,
        /// Need, have and margin as read, in both systems.
        shown: Option<LimitShown>,
        /// In one word.
        verdict: Verdict,
        /// Whose rule it is.
        school: String,
        /// Where the figure comes from.
        source: String,
        /// The step of the work it belongs to.
        place: Place,
        /// How have is computed.
        formula: String,
        /// Whether what breathing computed went into it, in place of an estimate.
        computed: bool,
        /// What there is by the estimate without breathing, where both are known and differ.
        estimate: Option<Shown>,
        /// How likely it fails, where tolerances were drawn.
        chance: Option<super::tolerance::Chance>,
        /// What goes with the verdict: what it rests on, what it costs, why it is unknown.
        note: Option<Shown>,
        /// What went into it.
        inputs: Vec<InputUsed>,
        /// Fields that would make it known.
        missing: Vec<Named>,
        /// Changes that buy margin, each run against every limit; empty unless asked for.
        remedies: Vec<Remedy>,
        /// The field to go to.
        edit_field: String,
    }

    /// Figures of a limit as read.
    pub struct LimitShown {
        /// What is needed, such as `.080 in` or `105 to 130 lbf`.
        need: Shown,
        /// What there is.
        have: Shown,
        /// What is left, with its sign.
        margin: Shown,
        /// Where have lies on a bar, 0 to 1.
        have_at: f64,
        /// Where the bounds lie on that bar.
        need_at: Vec<f64>,
    }

    /// One field of a remedy.
    pub struct RemedyChange {
        /// The field changed.
        field: String,
        /// What it is called.
        label: String,
        /// From this text.
        from: String,
        /// To this text; empty where it is removed.
        to: String,
    }

    /// A part of the shelf by name.
    pub struct RemedyPart {
        /// Its kind.
        kind: String,
        /// Its name.
        name: String,
    }

    /// A margin that a remedy makes worse.
    pub struct Worsened {
        /// Identifier of the rule.
        id: String,
        /// Its side.
        side: Option<Side>,
        /// In words.
        title: String,
        /// Its verdict before.
        from: Verdict,
        /// Its verdict after.
        to: Verdict,
        /// What is left over after, as read.
        margin: Shown,
    }

    /// A change of one, two or three fields, or a part of the shelf, and what it buys.
    pub struct Remedy {
        /// What changes; all of it together.
        changes: Vec<RemedyChange>,
        /// How it is done.
        how: String,
        /// The part of the shelf it puts in, instead of single fields.
        part: Option<RemedyPart>,
        /// What it costs in parts, where that is known.
        price: Option<Shown>,
        /// Limits it makes worse; none of them was met and now fails.
        worsens: Vec<Worsened>,
        /// Margin gained, in the limit's unit.
        gain: f64,
        /// Margin gained, as read.
        gain_shown: Shown,
        /// The verdict it leads to.
        verdict: Verdict,
    }
}

/// The step of the work a limit belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Place {
    /// The plan.
    Plan,
    /// Valve events.
    Events,
    /// The lobe.
    Lobe,
    /// The lifter.
    Lifter,
    /// The rocker.
    Rocker,
    /// The pushrod.
    Pushrod,
    /// The spring package.
    Spring,
    /// The train in motion.
    Control,
    /// What must not touch.
    Clearance,
    /// Torque and power.
    Torque,
}

impl Place {
    /// Every place, in the builder's order.
    pub const ALL: [Self; 10] = [
        Self::Plan,
        Self::Events,
        Self::Lobe,
        Self::Lifter,
        Self::Rocker,
        Self::Pushrod,
        Self::Spring,
        Self::Control,
        Self::Clearance,
        Self::Torque,
    ];
}

/// How a rule compares.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Sense {
    /// Have must not be below need.
    AtLeast,
    /// Have must not be above need.
    AtMost,
    /// Have must lie between both.
    Within,
}

/// A verdict; a planning aid below any maker's instruction or machinist's measurement.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Verdict {
    /// Met with room.
    Ok,
    /// Met, with little left.
    Tight,
    /// Not met.
    Fails,
    /// Not met, and only advice.
    Advice,
    /// A field is missing.
    Unknown,
}

impl Verdict {
    /// Met with room first, failing last.
    pub const fn rank(self) -> u8 {
        match self {
            Self::Ok => 0,
            Self::Tight => 1,
            Self::Advice => 2,
            Self::Unknown => 3,
            Self::Fails => 4,
        }
    }

    /// In one word.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Ok => "ok",
            Self::Tight => "tight",
            Self::Fails => "fails",
            Self::Advice => "advice",
            Self::Unknown => "unknown",
        }
    }
}
