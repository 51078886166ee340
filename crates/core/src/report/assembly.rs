//! Putting an engine together, line by line.

use serde::Serialize;

/// Where a line stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LineState {
    /// Signed, and everything it waits for too.
    Done,
    /// It can be done now.
    Open,
    /// Something before it is not done.
    Waits,
    /// Signed, although something before it is not done: that was undone, or left out.
    OutOfOrder,
}

report! {
    /// The whole of it.
    pub struct AssemblyReport {
        /// Every line in its order.
        lines: Vec<AssemblyLine>,
        /// Lines that are done.
        done: usize,
        /// What can hurt while it is put together.
        cautions: Vec<String>,
    }

    /// One line.
    pub struct AssemblyLine {
        /// Stable identifier.
        id: String,
        /// Part of the work.
        phase: String,
        /// What is done.
        what: String,
        /// How, with what, and why.
        how: String,
        /// Where it stands.
        state: LineState,
        /// What it waits for, in words.
        waits_for: Vec<String>,
        /// Who signed it; absent where nobody did.
        by: Option<String>,
        /// When, as it was written.
        at: Option<String>,
        /// Why it was undone last; absent where it was not.
        undone: Option<String>,
        /// The kind of session at the bench that it rests on.
        session: Option<String>,
        /// What that session came to, in words; absent without one.
        found: Option<String>,
    }
}
