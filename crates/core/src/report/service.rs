//! The service log: what wears and how quickly, what is due, what broke.

use crate::document::Side;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// Everything of a service log.
    pub struct ServiceReport {
        /// In one sentence.
        says: Shown,
        /// What is done with the readings, stated.
        model: String,
        /// Identifier of the candidate that the last entry which names one has in the engine; absent where none does.
        in_engine: Option<String>,
        /// What use is counted in: `mi`, `h` or `passes`.
        unit: String,
        /// How many cylinders it has.
        cylinders: usize,
        /// How far it has run, by the last entry.
        now: Option<f64>,
        /// The same as read, and by what it runs in a month where the log tells.
        now_shown: Option<Shown>,
        /// How far it may have run by the day it is read, if it ran on as before; absent where the log does not tell.
        by_today: Option<Shown>,
        /// By how much it runs in a day, where two entries on different days say so.
        per_day: Option<f64>,
        /// Every entry, by its day.
        entries: Vec<ServiceEntry>,
        /// What wears.
        trends: Vec<WearTrend>,
        /// What is due, the first first.
        next: Vec<DueReport>,
        /// What broke, with what its limit had.
        failures: Vec<FailureReport>,
        /// Cautions.
        cautions: Vec<String>,
    }

    /// One entry.
    pub struct ServiceEntry {
        /// Identifier.
        id: String,
        /// Path of it in the document.
        field: String,
        /// Day, as typed.
        date: String,
        /// Use, as typed.
        at: String,
        /// The document's word for what was done.
        event: String,
        /// What was done and read, in a sentence.
        says: Shown,
        /// Why it is not counted with; empty where it is.
        problem: String,
        /// What is asked about its readings.
        asks: Vec<Shown>,
    }

    /// What one figure of the valves does over use.
    pub struct WearTrend {
        /// Key of the reading.
        what: String,
        /// In words.
        title: String,
        /// Unit of the numbers.
        unit: String,
        /// Mean rate over a round amount of use: 1,000 mi, 100 h or 10 passes.
        per_1000: f64,
        /// Half width of its interval, 95 of 100.
        per_1000_doubt: f64,
        /// Both, as read.
        rate: Shown,
        /// The valve that reaches its limit first.
        valve: String,
        /// What that valve has now, by its line.
        now: f64,
        /// The same as read.
        now_shown: Shown,
        /// What it must not come to.
        limit: f64,
        /// The same as read.
        limit_shown: Shown,
        /// Where that comes from.
        why: String,
        /// Use at which its line is there; absent where it does not go there.
        reached_at: Option<f64>,
        /// Use it is not there before, 95 of 100.
        not_before: f64,
        /// Use after which it is; absent where readings do not tell that it wears.
        not_after: Option<f64>,
        /// The same in a sentence, with days where the log tells how much it runs.
        reached: Shown,
        /// What engines like it did, where the shop has any; else empty.
        like: Shown,
        /// Whether lines begin at what the build says instead of at a reading.
        begins_as_built: bool,
        /// Every valve.
        valves: Vec<ValveTrend>,
    }

    /// One valve.
    pub struct ValveTrend {
        /// Cylinder.
        cylinder: usize,
        /// Side.
        side: Side,
        /// Rate over that round amount of use.
        per_1000: f64,
        /// Use of each reading.
        at: Vec<f64>,
        /// What was read.
        read: Vec<f64>,
        /// What it has now, by its line.
        now: f64,
        /// As read.
        now_shown: Shown,
        /// What it must not come to.
        limit: f64,
        /// Use at which its line is there.
        reached_at: Option<f64>,
        /// Not before.
        not_before: f64,
    }

    /// Something that is due.
    pub struct DueReport {
        /// Stable identifier.
        id: String,
        /// What is to be done.
        what: String,
        /// Use at which.
        at: f64,
        /// As read.
        at_shown: Shown,
        /// Day that is expected on, as 2026-06-01, where the log tells how much it runs.
        on: Option<String>,
        /// Why then.
        why: Shown,
        /// Whether that is past.
        overdue: bool,
    }

    /// Something that broke.
    pub struct FailureReport {
        /// Identifier of the entry.
        id: String,
        /// In a sentence.
        says: Shown,
        /// The limit it speaks about; absent where it names none.
        limit: Option<String>,
        /// What that limit is called.
        title: String,
        /// What there is of it now, and what it needs.
        stands: Shown,
        /// A figure of the shop's own that would have warned, as the limit is written; absent where none can be said.
        at_least: Option<String>,
        /// The same for a limit from above.
        at_most: Option<String>,
        /// The reason that goes with it.
        reason: String,
        /// Whether the shop holds to a figure of its own with this reason already.
        is_held: bool,
    }
}
