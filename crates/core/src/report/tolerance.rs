//! How likely limits fail, given how well things are made and measured.

use super::limit::LimitShown;
use crate::document::Side;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// All limits of a candidate under its tolerances.
    pub struct ToleranceReport {
        /// Engines drawn by lot.
        samples: usize,
        /// The lot: the same gives the same.
        seed: u64,
        /// Cylinders of each engine.
        cylinders: usize,
        /// Share of engines that is wished for at most to fail a limit.
        wanted_share: f64,
        /// Every limit that spreads, the likeliest to fail first.
        limits: Vec<ToleranceLimit>,
        /// Share of engines of which any limit fails that is met as things are given.
        any_fails_share: f64,
        /// What to measure first: what lowers that share most.
        measure_first: Vec<MeasureFirst>,
        /// How far every field is taken to be off.
        fields: Vec<TolerancedField>,
        /// Limits that nothing moves, or whose gas or trains were not run with fields off, or not yet: not in this.
        held: Vec<String>,
        /// Which limits join once long work was done, in a sentence; absent where all are in it.
        joins: Option<String>,
        /// Runs of the whole computation that responses were held against; nothing while they run.
        checked_runs: usize,
        /// Runs with gas and trains that their limits' responses were held against; nothing where none were found, or while they run.
        checked_gas_runs: usize,
        /// Largest share of those runs in which a response and the run did not agree whether a limit is met.
        checked_disagree: f64,
        /// Gaps between valve and piston over the overlap; nothing until cylinders were computed in full.
        overlap: Option<OverlapBands>,
        /// What it says, in a sentence.
        says: String,
    }

    /// Gaps between valve and piston at rest over the overlap, in drawn cylinders.
    pub struct OverlapBands {
        /// Crank degrees from firing top dead centre.
        crank_deg: Vec<f64>,
        /// Intake.
        intake: GapBand,
        /// Exhaust.
        exhaust: GapBand,
    }

    /// A gap as a band.
    pub struct GapBand {
        /// One of a hundred cylinders lies below.
        low_mm: Vec<f64>,
        /// Half of them lie below.
        middle_mm: Vec<f64>,
        /// Ninety-nine of a hundred lie below.
        high_mm: Vec<f64>,
    }

    /// One limit under the tolerances; figures in the limit's unit.
    pub struct ToleranceLimit {
        /// Identifier of the rule.
        id: String,
        /// Its side.
        side: Option<Side>,
        /// In words.
        title: String,
        /// Unit of the figures.
        unit: String,
        /// Need, have and margin as things are given, as read.
        shown: LimitShown,
        /// What there is as things are given.
        nominal: f64,
        /// Mean in one cylinder.
        mean: f64,
        /// Standard deviation.
        sd: f64,
        /// One of a hundred cylinders lies below.
        p01: f64,
        /// Half of them lie below.
        p50: f64,
        /// Ninety-nine of a hundred lie below.
        p99: f64,
        /// The last three as read.
        percentiles: Vec<Shown>,
        /// Least that is needed.
        need_min: Option<f64>,
        /// Most that is allowed.
        need_max: Option<f64>,
        /// Share of cylinders that fail.
        fails_share: f64,
        /// Share of engines with any that fails.
        fails_any_share: f64,
        /// The same in words.
        says: String,
        /// Whether it fails as things are given already.
        fails_as_given: bool,
        /// Whether failing is advice only.
        is_advice: bool,
        /// Whether the shares are of runs in full, since the response was off.
        in_full: bool,
        /// Whether its spread is that of the runs in full, since no response follows them: it has no drivers.
        by_runs: bool,
        /// What the response is off by in runs in full, of the standard deviation; absent while they run.
        off_share: Option<f64>,
        /// Share of those runs in which it and the response do not agree.
        disagree_share: Option<f64>,
        /// What drives it, the largest first: shares of the variance.
        drivers: Vec<Driver>,
        /// What would bring it to the wanted share.
        remedy: Option<ToleranceRemedy>,
        /// Where the picture's first bar begins.
        from: f64,
        /// How wide each bar is.
        width: f64,
        /// Share of cylinders in every bar.
        bars: Vec<f64>,
    }

    /// One field's part in a spread.
    pub struct Driver {
        /// Its path.
        field: String,
        /// In words.
        label: String,
        /// Share of the variance.
        share: f64,
    }

    /// What would bring a limit to the wanted chance.
    pub struct ToleranceRemedy {
        /// The field that drives it most.
        field: String,
        /// In words.
        label: String,
        /// How tightly it must be held, plus-minus; absent where that alone does not bring it there.
        hold: Option<Shown>,
        /// Or how much more must be left as things are given.
        more: Shown,
    }

    /// A field worth measuring.
    pub struct MeasureFirst {
        /// Its path.
        field: String,
        /// In words.
        label: String,
        /// How far it is taken to be off now.
        now: Shown,
        /// How far once it is measured.
        then: Shown,
        /// Share of engines of which any limit fails, once it is measured and set as it is given.
        any_fails_share_if_known: f64,
        /// What it is worth: by how much that is less.
        worth_share: f64,
        /// The limits it moves most.
        settles: Vec<String>,
    }

    /// How far one field is taken to be off.
    pub struct TolerancedField {
        /// Its path.
        field: String,
        /// In words.
        label: String,
        /// Plus-minus.
        plus_minus: Shown,
        /// How it spreads.
        shape: String,
        /// Who shares it.
        shared: String,
        /// Where its value is from.
        source: String,
        /// Whether the document says the spread itself.
        is_own: bool,
        /// Largest share of any limit's variance.
        drives: f64,
    }

    /// A limit's chance beside its verdict.
    pub struct Chance {
        /// Share of cylinders that fail.
        one: f64,
        /// Share of engines with any that fails.
        any: f64,
        /// In words.
        says: String,
    }
}
