//! What became of a build: plan, orders, readings, pulls and service by their days, each with the revision it came with.

use crate::quantity::Shown;
use serde::Serialize;

/// What an event is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum HistoryKind {
    /// Plan, engine or candidates were changed.
    Plan,
    /// Something was read at the bench.
    Bench,
    /// Lines of the assembly were signed or undone.
    Assembly,
    /// Pulls on the dyno.
    Dyno,
    /// The service log.
    Service,
}

report! {
    /// What became of a build.
    pub struct HistoryReport {
        /// In one sentence.
        says: Shown,
        /// Every event by its day, those without one first.
        events: Vec<HistoryEvent>,
    }

    /// One event.
    pub struct HistoryEvent {
        /// Day, as 2026-06-01; empty where nobody wrote it down.
        day: String,
        /// What it is of.
        kind: HistoryKind,
        /// What it was.
        title: String,
        /// What came of it.
        says: Shown,
        /// Whose hand; empty where nobody wrote it down.
        by: String,
        /// The revision it came with; absent while it is not saved.
        revision: Option<i64>,
    }
}
