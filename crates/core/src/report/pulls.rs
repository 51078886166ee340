//! Pulls of a dyno: what counts of each, what differs between combinations and how sure that is, what is odd.

use crate::quantity::Shown;
use serde::Serialize;

/// What becomes of a point of a pull.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PointIs {
    /// It counts.
    Counted,
    /// Before the throttle was open.
    RollOn,
    /// After it had closed.
    ThrottleClosed,
    /// Far off its neighbours.
    Spike,
    /// The engine slowed down there.
    Slower,
    /// Somebody said so.
    OutOfRange,
}

/// What a flag is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FlagKind {
    /// A pull that is off by itself.
    Apart,
    /// Everything after it is off.
    Slipped,
    /// A reading that went wrong within it.
    Lies,
    /// It covers too little of the speeds of the others.
    Short,
    /// The same points as another one.
    Twice,
    /// Nothing like the others: another engine, or another unit.
    Stranger,
    /// It began outside of what the test holds.
    NotHeld,
}

/// How a difference stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Believed {
    /// Its interval does not hold nought.
    More,
    /// The same, the other way.
    Less,
    /// Its interval holds nought.
    NotShown,
}

report! {
    /// Everything of a document on the dyno.
    pub struct DynoReport {
        /// What the pulls come to.
        pulls: PullsReport,
        /// The test as it is to be run; absent while there is no candidate to run.
        plan: Option<TestPlanReport>,
    }

    /// Pulls of a dyno, analysed.
    pub struct PullsReport {
        /// In one sentence.
        says: Shown,
        /// The air that all figures are in.
        air: String,
        /// What is done with the pulls, stated.
        model: String,
        /// Identifier of what everything is held against.
        baseline: Option<String>,
        /// Speeds that averages are over.
        band_rpm: Option<[f64; 2]>,
        /// Speeds that all counted pulls have.
        speed_rpm: Vec<f64>,
        /// Every pull, in the order of the document.
        pulls: Vec<PullReport>,
        /// Every combination that was pulled, the baseline first.
        rows: Vec<CombinationReport>,
        /// Each other combination less the baseline, figure by figure.
        differences: Vec<DifferenceReport>,
        /// The same over speed.
        over_speed: Vec<OverSpeedReport>,
        /// Combinations that scatter otherwise than the baseline, with the difference by each its own spread.
        scatter: Vec<Shown>,
        /// By how much torque changes from pull to pull within a day.
        drift_per_pull: Option<DriftReport>,
        /// How well this dyno repeats.
        repeats: Option<RepeatsReport>,
        /// Combinations ranked on what was measured, each column counting once; empty where there is one.
        board: Vec<MeasuredRank>,
        /// What is odd.
        flags: Vec<PullFlag>,
        /// What would make it surer.
        surer: Vec<Shown>,
    }

    /// One pull.
    pub struct PullReport {
        /// Identifier.
        id: String,
        /// Path of it in the document.
        field: String,
        /// Identifier of the candidate that was on the dyno.
        candidate: String,
        /// Its name.
        name: String,
        /// Day, as typed.
        day: String,
        /// Which pull of its day.
        drawn: usize,
        /// Whether it counts.
        counted: bool,
        /// Why not.
        why_not: String,
        /// Speeds as read.
        speed_rpm: Vec<f64>,
        /// Torque at each in the air of the report, at the crank.
        torque_nm: Vec<f64>,
        /// What becomes of each point.
        points: Vec<PointIs>,
        /// What was trimmed, in words; empty where nothing was.
        trimmed: String,
        /// What its torque was multiplied by to be in that air at the crank.
        factor: f64,
        /// Average torque over the band.
        average_torque: Option<Shown>,
        /// The same.
        average_torque_nm: Option<f64>,
        /// Highest power.
        peak_power: Option<Shown>,
    }

    /// One combination.
    pub struct CombinationReport {
        /// Identifier of the candidate, with the boost level behind it where pulls name one.
        candidate: String,
        /// Name.
        name: String,
        /// Counted pulls.
        n: usize,
        /// Mean torque at the speeds of the report, drift taken out.
        torque_nm: Vec<f64>,
        /// Half width of the band that holds the mean in 95 of 100, where pulls tell it.
        doubt_nm: Vec<Option<f64>>,
        /// Mean average torque over the band.
        average_torque_nm: f64,
        /// Figures in words: what, mean, standard deviation of its pulls.
        figures: Vec<MeanFigure>,
    }

    /// One figure of a combination.
    pub struct MeanFigure {
        /// What it is.
        title: String,
        /// Mean.
        mean: Shown,
        /// Standard deviation of its pulls; absent of one.
        sd: Option<Shown>,
    }

    /// One difference.
    pub struct DifferenceReport {
        /// Identifier of the one.
        a: String,
        /// Identifier of the baseline.
        b: String,
        /// Name of the one.
        name: String,
        /// What differs: `average_torque`, `average_power`, `peak_torque`, `peak_power`, `peak_power_at`.
        what: String,
        /// The same in words.
        title: String,
        /// Unit of the numbers.
        unit: String,
        /// One less baseline.
        by: f64,
        /// Lower end of the interval that holds 95 of 100.
        low: f64,
        /// Its upper end.
        high: f64,
        /// How sure it is that the one has more, 0 to 1.
        certain_share: f64,
        /// The same in words.
        certain: String,
        /// Whether it is to be believed.
        believed: Believed,
        /// Difference and interval as read.
        shown: Shown,
    }

    /// A difference over speed.
    pub struct OverSpeedReport {
        /// Identifier of the one.
        a: String,
        /// Identifier of the baseline.
        b: String,
        /// One less baseline.
        by_nm: Vec<f64>,
        /// Half width of the interval at each speed by itself.
        alone_nm: Vec<f64>,
        /// Half width of the band that holds all speeds at once.
        together_nm: Vec<f64>,
        /// Ranges of speed in which the difference is beyond that band.
        real_rpm: Vec<[f64; 2]>,
        /// In a sentence.
        says: Shown,
    }

    /// One combination on the board of what was measured.
    pub struct MeasuredRank {
        /// Identifier.
        candidate: String,
        /// Name.
        name: String,
        /// Average torque, average power, peak torque, peak power.
        values: Vec<Shown>,
        /// Rank in each: one is best, values alike to a tenth of a newton metre or kilowatt share the lower number.
        ranks: Vec<usize>,
        /// Sum of the ranks: the lowest wins.
        points: f64,
        /// Place by points; equal points share the lower number.
        place: usize,
    }

    /// Drift within a day.
    pub struct DriftReport {
        /// N m for each pull.
        by_nm: f64,
        /// As read, with its interval.
        shown: Shown,
        /// Whether its interval leaves out nought.
        is_real: bool,
    }

    /// How well a dyno repeats.
    pub struct RepeatsReport {
        /// Standard deviation of a pull's average torque about its day and drift.
        sd_nm: f64,
        /// The same as read.
        shown: Shown,
        /// Degrees of freedom it rests on.
        freedom: f64,
    }

    /// Something odd about a pull.
    pub struct PullFlag {
        /// Identifier of the pull.
        pull: String,
        /// What about.
        kind: FlagKind,
        /// Speed from which on, where it is one.
        from_rpm: Option<f64>,
        /// In words.
        why: Shown,
    }

    /// A test as it is to be run.
    pub struct TestPlanReport {
        /// In a sentence: how many pulls, how sure.
        says: Shown,
        /// Every pull in its order.
        order: Vec<PlannedPull>,
        /// Place of the next one; absent when all are done.
        next: Option<usize>,
        /// Pulls of each that find the difference asked for.
        needed_each: Option<usize>,
        /// What a pull repeats to, that rests on.
        spread: Shown,
        /// What is held, in words.
        held: Vec<Shown>,
        /// Temperatures a pull may begin at.
        windows: HeldWindows,
        /// What a dyno cell is dangerous for.
        cautions: Vec<String>,
    }

    /// Least and most of what a pull may begin at.
    pub struct HeldWindows {
        /// Oil.
        oil_c: [Option<f64>; 2],
        /// Coolant.
        water_c: [Option<f64>; 2],
    }

    /// One pull of a plan.
    pub struct PlannedPull {
        /// Identifier of the candidate.
        candidate: String,
        /// Its name.
        name: String,
        /// Whether it is the control.
        control: bool,
        /// Which pull of its row in the order.
        nth: usize,
        /// Whether another combination has to be fitted before it.
        changed: bool,
        /// Identifier of the pull that was taken for it.
        pull: Option<String>,
    }

    /// A file of a dyno, read but not taken over.
    pub struct PullFileReport {
        /// What it is remembered by.
        signature: String,
        /// Its columns.
        columns: Vec<PullColumn>,
        /// Its runs.
        runs: Vec<PullRun>,
        /// What did not become a run, and what else to know.
        said: Vec<String>,
        /// Why nothing can be taken over yet.
        lacks: Option<String>,
        /// Lines before its heading.
        before: Vec<String>,
    }

    /// One column of it.
    pub struct PullColumn {
        /// Its heading.
        name: String,
        /// The unit its heading names.
        written: String,
        /// What it is taken to hold.
        holds: crate::pulls::file::Holds,
        /// In which unit.
        unit: String,
        /// Units it may be in.
        units: Vec<String>,
        /// Its first cells.
        cells: Vec<String>,
    }

    /// One run of it.
    pub struct PullRun {
        /// Line it begins at.
        line: usize,
        /// Points.
        count: usize,
        /// Slowest and fastest speed.
        range_rpm: [f64; 2],
        /// Highest torque.
        peak_torque: Shown,
        /// Speeds as read.
        speed_rpm: Vec<f64>,
        /// Torques as read, N m.
        torque_nm: Vec<f64>,
        /// What becomes of each point.
        points: Vec<PointIs>,
        /// What has to be looked at before it is believed.
        questions: Vec<String>,
    }
}
