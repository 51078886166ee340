//! The score board: candidates ranked column by column, and what the last of power costs.

use crate::choose::Better;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// Candidates as a contest or a customer counts them.
    pub struct ScoreReport {
        /// Columns, in the order asked for.
        columns: Vec<ScoreColumn>,
        /// Candidates, in the order of the document.
        rows: Vec<ScoreRow>,
        /// What the most powerful candidate that keeps every limit costs beside the next; absent where there are no two.
        last_power: Option<Shown>,
    }

    /// One column.
    pub struct ScoreColumn {
        /// Its word in the document.
        id: String,
        /// As a heading.
        title: String,
        /// Unit of the values.
        unit: String,
        /// How much a rank counts.
        weight: f64,
        /// Which way it counts.
        better: Better,
        /// Speeds it is over, where it is over some.
        over_rpm: Option<[f64; 2]>,
    }

    /// One candidate.
    pub struct ScoreRow {
        /// Identifier.
        candidate: String,
        /// Name.
        name: String,
        /// Values, in the order of the columns; absent where one is not known. Values that are told apart by less than a
        /// tenth of a newton metre or kilowatt, ten rpm or a dollar tie.
        values: Vec<Option<f64>>,
        /// The same as they are read.
        shown: Vec<Option<Shown>>,
        /// Ranks: one is best, equal values share the lower number, what is not known comes last.
        ranks: Vec<usize>,
        /// Sum of weight times rank: the lowest wins.
        points: f64,
        /// Place by points; equal points share the lower number.
        place: usize,
        /// Limits it breaks, by title.
        broken: Vec<String>,
        /// Why it has no curve, where it has none.
        lacks: Option<String>,
        /// What its power costs.
        costs: PowerCosts,
    }

    /// What a candidate gives in power and takes in life, money and reserve.
    pub struct PowerCosts {
        /// Greatest power.
        peak_power_kw: Option<f64>,
        /// Spring interval, in what it is counted.
        interval: Option<f64>,
        /// What intervals are counted in.
        counted_in: String,
        /// How quickly the guide that wears most does so, by pressure times travel: one is the pressure its material stands
        /// through half an inch of lift.
        guide_wear: Option<f64>,
        /// Parts.
        money_usd: f64,
        /// Rpm of control beyond a missed shift.
        control_rpm: Option<f64>,
    }
}
