//! What a search comes to: finalists computed in full, the front they stand on, what every limit costs.

use super::choosing::{BecauseReport, FiguresReport, ShortReport};
use super::limit::{MeasureNext, RemedyChange};
use crate::choose::Goal;
use crate::document::Side;
use crate::parts::Drag;
use crate::quantity::Shown;
use crate::response::Decision;
use serde::{Deserialize, Serialize};

/// One decision of a choice: angles in crank degrees, lengths in m.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Decided {
    /// Which.
    pub decision: Decision,
    /// Its value.
    pub value: f64,
}

/// By what a point of a search is known.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum KnownBy {
    /// One cylinder, coarse.
    Screened,
    /// All cylinders, coarse.
    Drafted,
    /// A polynomial through computed points.
    Foreseen,
    /// Computed in full, its trains in motion.
    Full,
}

report! {
    /// What a search came to.
    pub struct SearchReport {
        /// What finalists are ordered by, in words.
        aim: String,
        /// What was searched for, in this order.
        goals: Vec<GoalReport>,
        /// What may be changed, in words.
        open: Vec<String>,
        /// Hardware that was searched with; what stands comes first.
        kits: Vec<KitReport>,
        /// Limits, as points name what is left of them.
        limits: Vec<BoundReport>,
        /// How the candidate stands, computed in full.
        stands: FinalistReport,
        /// Candidates computed in full with their trains in motion, the best first: those that break nothing before those
        /// that do.
        finalists: Vec<FinalistReport>,
        /// Candidates it was held against, computed as the finalists are.
        beside: Vec<FinalistReport>,
        /// Where the best found differs from each of them, and what that does.
        differ: Vec<BesideDiffer>,
        /// What no other choice beats in every goal, as far as it is foreseen.
        front: Vec<SearchPoint>,
        /// What a little more of each limit that binds would buy.
        prices: Vec<PriceReport>,
        /// What was kept of limits so that no more engines fail than were allowed to.
        kept: Vec<MoreReport>,
        /// Candidates looked at.
        evaluations: Evaluations,
        /// How far the torque that was searched with lies off drafted cams left out, as a share.
        off_share: f64,
        /// What cannot be met, where no choice meets every limit.
        impossible: Option<ImpossibleReport>,
    }

    /// Where the best found differs from a candidate beside it.
    pub struct BesideDiffer {
        /// What that candidate is called.
        title: String,
        /// A sentence for each event and lift, what does most first.
        words: Vec<Shown>,
    }

    /// A goal of a search.
    pub struct GoalReport {
        /// Which.
        goal: Goal,
        /// As a heading.
        title: String,
    }

    /// Hardware that was searched with.
    pub struct KitReport {
        /// In words.
        title: String,
        /// Parts that are bought for it.
        parts: Vec<KitPart>,
        /// Shims and settings that go with them.
        settings: Vec<RemedyChange>,
        /// What else they drag along.
        drags: Vec<Drag>,
        /// What all parts of the candidate cost then.
        money: Shown,
    }

    /// A part of a kit.
    pub struct KitPart {
        /// Its kind, in a word.
        kind: String,
        /// Its name.
        name: String,
        /// What it costs, as given.
        price: Option<String>,
        /// How long it takes to come, in words.
        lead_time: Option<String>,
    }

    /// A limit on one side.
    pub struct BoundReport {
        /// Stable identifier of the rule.
        id: String,
        /// The side.
        side: Option<Side>,
        /// In words.
        title: String,
        /// Unit of what is left.
        unit: String,
    }

    /// A choice with its hardware.
    pub struct SearchPoint {
        /// Place of its hardware among the kits.
        kit: usize,
        /// By what it is known.
        by: KnownBy,
        /// The decisions.
        choice: Vec<Decided>,
        /// The same as read, in the builder's order.
        decisions: Vec<DecidedShown>,
        /// Average torque over the band.
        average_torque_nm: f64,
        /// Over its lowest third.
        low_torque_nm: f64,
        /// Power where its peak is wanted.
        power_wanted_kw: f64,
        /// Greatest power.
        peak_power_kw: f64,
        /// Rpm of control beyond a missed shift; absent while the trains are not known whole.
        control_rpm: Option<f64>,
        /// Between two looks at the springs, in what the use counts.
        interval: Option<f64>,
        /// What its parts cost.
        money_usd: f64,
        /// What is left of each limit, in its unit; absent where it is not known.
        left: Vec<Option<f64>>,
        /// Whether it breaks none.
        holds: bool,
        /// The candidate as the document holds it; of points of a front.
        candidate: Option<serde_json::Value>,
    }

    /// A decision as read.
    pub struct DecidedShown {
        /// In words.
        title: String,
        /// As read.
        value: Shown,
    }

    /// A candidate computed in full.
    pub struct FinalistReport {
        /// What it is called.
        title: String,
        /// The candidate as the document holds it; absent for the one that stands there already.
        candidate: Option<serde_json::Value>,
        /// Its choice and what it came to.
        point: SearchPoint,
        /// Its figures.
        figures: FiguresReport,
        /// What each goal came to, as read.
        goals: Vec<Shown>,
        /// How much better it is than what stands by what finalists are ordered by, as a share.
        gain: f64,
        /// How sure that is, as a share; absent for what stands.
        sure: Option<f64>,
        /// How sure it is that the best finalist is better.
        sure_best_is_better: Option<f64>,
        /// What binds it: limits with less left than makes them tight.
        binds: Vec<BindReport>,
        /// Share of engines, built with the tolerances, of which any limit fails that is met as it is given.
        fails_share: Option<f64>,
        /// The same of limits that the choice moves.
        fails_by_choice_share: Option<f64>,
        /// The limit that fails most of them.
        fails_most: Option<String>,
        /// How sure it is that it is better than what stands and holds when it is built with the tolerances.
        sure_built: Option<f64>,
        /// Limits it breaks, worst first.
        broken: Vec<ShortReport>,
        /// Each decision and why; of the best ones.
        because: Vec<BecauseReport>,
        /// What to measure before ordering, because it could change the choice.
        measure_first: Vec<MeasureNext>,
        /// How far its average torque against that of the best finalist was foreseen off, as a share.
        off_share: Option<f64>,
        /// How long springs go between two looks, and what sets it, in words.
        interval: Option<String>,
    }

    /// A limit that binds.
    pub struct BindReport {
        /// Stable identifier of the rule.
        limit: String,
        /// The side.
        side: Option<Side>,
        /// In words.
        title: String,
        /// What is left, as read.
        left: Shown,
        /// What one unit more of it buys in average torque, N m; absent where nothing was found to buy.
        price_per_unit: Option<f64>,
    }

    /// A little more of a limit.
    pub struct MoreReport {
        /// Stable identifier of the rule.
        limit: String,
        /// The side.
        side: Option<Side>,
        /// In words.
        title: String,
        /// How much more, as read.
        by: Shown,
    }

    /// What a little more of a limit buys, or of two that hold together: everything chosen anew with them moved, and compared.
    pub struct PriceReport {
        /// Which; two where each alone buys less.
        limits: Vec<MoreReport>,
        /// Average torque that it buys.
        average_torque_nm: f64,
        /// Power where its peak is wanted that it buys.
        power_wanted_kw: f64,
        /// The same, as read.
        buys: Shown,
    }

    /// Candidates looked at.
    pub struct Evaluations {
        /// One cylinder, coarse.
        screened: usize,
        /// All cylinders, coarse.
        drafted: usize,
        /// In full, with dynamics.
        full: usize,
    }

    /// What cannot be met.
    pub struct ImpossibleReport {
        /// Stable identifier of the limit that lacks most.
        limit: String,
        /// The side.
        side: Option<Side>,
        /// In words.
        title: String,
        /// By how much, as read.
        short_by: Shown,
        /// Everything else that is not met by the nearest.
        others: Vec<ShortReport>,
        /// The candidate that comes nearest.
        nearest: Option<serde_json::Value>,
    }
}
