//! What decisions do to a curve, what a fit to a pull comes to, and what is proposed to choose.

use crate::quantity::Shown;
use crate::response::Decision;
use serde::Serialize;

/// What a decision does to the curve.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Effect {
    /// Stable identifier of the decision.
    pub id: String,
    /// In words.
    pub label: String,
    /// By how much, in words.
    pub change: String,
    /// Relative change of average torque over the band; absent when it cannot be made.
    pub average_torque: Option<f64>,
    /// Relative change of peak power.
    pub peak_power: Option<f64>,
    /// Change of the speed of peak power.
    pub peak_power_rpm: Option<f64>,
    /// Why it cannot be made.
    pub trouble: Option<String>,
}

/// One field the fit would write, and its text.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FittedField {
    /// Path of the field.
    pub field: String,
    /// What it is called.
    pub label: String,
    /// Its text.
    pub text: String,
}

/// What a fit came to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CalibrationReport {
    /// Speeds of the pull that were computed.
    pub speed_rpm: Vec<f64>,
    /// Torque measured, in the plan's air.
    pub measured_nm: Vec<f64>,
    /// Torque with the usual constants.
    pub before_nm: Vec<f64>,
    /// Torque with the fitted ones.
    pub after_nm: Vec<f64>,
    /// Root mean square of the relative error before.
    pub before_error: f64,
    /// The same after.
    pub after_error: f64,
    /// What the document would keep.
    pub fields: Vec<FittedField>,
    /// Every combination that was on the dyno, one after another at the speeds above.
    pub of: Vec<CalibratedOn>,
    /// What each constant alone would explain, the one that explains most first.
    pub explains: Vec<ExplainsReport>,
}

/// One combination that was on the dyno.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CalibratedOn {
    /// Its name.
    pub name: String,
    /// How many of the speeds are its own.
    pub speeds: usize,
}

/// A constant by itself.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ExplainsReport {
    /// What it is called.
    pub label: String,
    /// What it would have to be.
    pub text: String,
    /// Root mean square of the relative error it would leave.
    pub left_error: f64,
}

/// One decision with its reason.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BecauseReport {
    /// What was decided.
    pub decision: String,
    /// As read.
    pub value: Shown,
    /// Why.
    pub why: Shown,
    /// Where the rule is from.
    pub source: String,
}

report! {
    /// What there is to choose of a candidate.
    pub struct ChooseReport {
        /// What is climbed by, in words.
        aim: String,
        /// What torque was computed by, in words.
        computed_by: String,
        /// How far predictions lie off computed cams that were left out, as shares.
        off: OffReport,
        /// Its curve as it stands, by the same.
        stands: FollowReport,
        /// The decisions of the cam, in the builder's order, each with the others as they stand.
        decisions: Vec<DecisionReport>,
        /// The same cam as its card says it: durations about their centrelines, separation with the intake held, the whole cam
        /// turned.
        card: Vec<DecisionReport>,
        /// Whole candidates: as it stands, by the four events, by the card.
        proposals: Vec<ProposalReport>,
        /// Where the schools differ, and what that does; what costs most first.
        differ: Vec<DifferReport>,
        /// Lobes that were measured and are taken by their durations here.
        by_card: Vec<String>,
        /// Decisions beside the cam, each by itself with the cam as it stands; none until they are asked for.
        hardware: Vec<HardwareReport>,
    }

    /// A decision beside the cam.
    pub struct HardwareReport {
        /// What it gives and takes.
        decision: DecisionReport,
        /// The curve as it stands, by the same response.
        stands: FollowReport,
        /// What is written where for each value.
        fields: Vec<FieldTexts>,
    }

    /// A field with what is written into it for each value of a decision.
    pub struct FieldTexts {
        /// Its path in the document.
        field: String,
        /// As typed, one for each value.
        text: Vec<String>,
    }

    /// How far predictions lie off computed cams that were left out: root of the mean square, as shares.
    pub struct OffReport {
        /// Of average torque.
        average_torque: f64,
        /// Of peak power.
        peak_power: f64,
        /// Of torque at every speed.
        torque: f64,
    }

    /// One decision over its range.
    pub struct DecisionReport {
        /// Which.
        decision: Decision,
        /// In words.
        title: String,
        /// Degrees or millimetres; absent for a plain number.
        unit: Option<String>,
        /// Where the candidate stands.
        now: f64,
        /// As read.
        now_shown: Shown,
        /// Values, rising.
        value: Vec<f64>,
        /// Each as read.
        value_shown: Vec<Shown>,
        /// Average torque over the band against how the candidate stands, as a share.
        average_torque: Vec<f64>,
        /// The same over the lowest third of the band.
        low: Vec<f64>,
        /// Over the middle third.
        middle: Vec<f64>,
        /// Over the highest third.
        high: Vec<f64>,
        /// Power where its peak is wanted, as a share.
        power_wanted: Vec<f64>,
        /// What else it moves, each with what is left over.
        reserves: Vec<ReserveReport>,
        /// Limits that do not hold over a part of the range.
        broken: Vec<BrokenReport>,
        /// What is proposed.
        proposed: f64,
        /// As read.
        proposed_shown: Shown,
        /// Values that are as good a choice, as read.
        range_shown: [Shown; 2],
        /// The same.
        range: [f64; 2],
        /// Why.
        why: Shown,
    }

    /// What is left over of a limit along a decision.
    pub struct ReserveReport {
        /// Stable identifier of the limit.
        id: String,
        /// In words.
        title: String,
        /// What is left at each value, in its own unit.
        left: Vec<f64>,
        /// The same, as read, with its sign.
        left_shown: Vec<Shown>,
        /// How far that may be off, as read.
        off_shown: Shown,
    }

    /// A limit that does not hold over a part of a range.
    pub struct BrokenReport {
        /// Stable identifier of the limit.
        id: String,
        /// In words.
        title: String,
        /// First and last value at which it does not hold.
        from: f64,
        /// Last.
        to: f64,
        /// Whether it is broken where the candidate stands, too.
        is_broken_now: bool,
    }

    /// A whole candidate that somebody proposes.
    pub struct ProposalReport {
        /// `as_it_stands`, `events_first`, `card_first` or `search`.
        school: String,
        /// In words.
        title: String,
        /// The candidate as the document holds it; absent for the one that stands there already.
        candidate: Option<serde_json::Value>,
        /// Decisions, each with its reason.
        because: Vec<BecauseReport>,
        /// Its figures.
        figures: Option<FiguresReport>,
        /// How much better it is by what is climbed by, as a share.
        gain: Option<f64>,
        /// Limits it breaks, worst first.
        broken: Vec<ShortReport>,
        /// Limits that are met with little left.
        tight: Vec<ShortReport>,
        /// Why there is none.
        lacks: Option<String>,
    }

    /// What is left over of one limit.
    pub struct ShortReport {
        /// Stable identifier of the limit.
        id: String,
        /// In words.
        title: String,
        /// What is left, as read, with its sign.
        left: Shown,
        /// Whether it is broken as the candidate stands, too.
        is_broken_now: bool,
    }

    /// Figures of a curve.
    pub struct FiguresReport {
        /// Mean over the band.
        average_torque_nm: f64,
        /// Over the lowest, middle and highest third of it.
        thirds_nm: [f64; 3],
        /// Greatest power.
        peak_power_kw: f64,
        /// Where.
        peak_power_rpm: f64,
        /// Where its peak is wanted.
        power_wanted_kw: f64,
        /// Greatest torque.
        peak_torque_nm: f64,
        /// Octane number at the edge of knock.
        octane_needed: Option<f64>,
    }

    /// Torque that follows a drag: a polynomial through drafted cams around the candidate.
    pub struct FollowReport {
        /// Stands for the cams it was made of: curves of other cams are not compared.
        made_of: String,
        /// Speeds.
        speed_rpm: Vec<f64>,
        /// Torque at each.
        torque_nm: Vec<f64>,
        /// Power at each.
        power_kw: Vec<f64>,
        /// Mean over the band.
        average_torque_nm: f64,
        /// Greatest power.
        peak_power_kw: f64,
        /// Where.
        peak_power_rpm: f64,
        /// Root of the mean square of what it misses of cams that were left out, as a share of torque.
        off_share: f64,
        /// Whether the cam lies among those that were computed; beyond them it only guesses.
        is_inside: bool,
        /// Whether whole engines were computed, on a coarse mesh; else one cylinder by itself.
        is_drafted: bool,
        /// Where what is beside the cam and the numbers of the card stand, in the units of their decisions.
        stands_at: Vec<StandsAt>,
    }

    /// Where a decision stands.
    pub struct StandsAt {
        /// Which.
        decision: Decision,
        /// Degrees, millimetres or a plain number.
        at: f64,
    }

    /// An event on which the schools differ.
    pub struct DifferReport {
        /// Which.
        decision: Decision,
        /// In a sentence.
        words: Shown,
    }
}
