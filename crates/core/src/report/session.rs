//! What the sessions at the bench come to.

use super::block::Named;
use crate::document::Side;
use crate::quantity::Shown;
use serde::Serialize;

/// Readings against what was expected.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SessionVerdict {
    /// Within the doubt of both.
    Agrees,
    /// Beyond it.
    Differs,
    /// Readings that cannot be as they are: look again before they are believed.
    Questioned,
    /// Not enough was read, or not enough is known.
    Unclear,
}

report! {
    /// One session.
    pub struct SessionReport {
        /// Its identifier.
        id: String,
        /// What is measured.
        kind: String,
        /// The same in words.
        title: String,
        /// Cylinder, where it is of one.
        cylinder: Option<usize>,
        /// Valve, where it is of one.
        side: Option<Side>,
        /// Readings so far.
        readings: usize,
        /// What they come to.
        figures: Vec<SessionFigure>,
        /// Against what was expected.
        verdict: SessionVerdict,
        /// In a sentence.
        says: Shown,
        /// What to look at again before they are believed.
        questions: Vec<String>,
        /// What the document would say by them.
        suggests: Vec<Suggestion>,
        /// Fields that it lacks.
        needs: Vec<Named>,
        /// What to read next; absent where it has what it asks for.
        next: Option<NextReading>,
    }

    /// One reading to take.
    pub struct NextReading {
        /// The table of the session it goes into.
        table: String,
        /// Its columns, those that stand already and those that are read.
        cells: Vec<NextCell>,
        /// What it is, in words.
        says: String,
        /// Which tool, and where it sits.
        tool: String,
        /// Which of all, from one.
        place: usize,
        /// All.
        of: usize,
    }

    /// One column of a reading.
    pub struct NextCell {
        /// What it is.
        label: String,
        /// The text that stands already; absent where it is read.
        given: Option<String>,
    }

    /// One figure of a session.
    pub struct SessionFigure {
        /// What it is.
        label: String,
        /// As it was read.
        read: Shown,
        /// As far as it may be off.
        doubt: Option<Shown>,
        /// As it was expected.
        expected: Option<Shown>,
        /// The one less the other.
        off: Option<Shown>,
        /// Whether that is beyond the doubt.
        stands_out: bool,
    }

    /// A field as readings have it.
    pub struct Suggestion {
        /// Path of the field.
        field: String,
        /// What it is called.
        label: String,
        /// As it is.
        from: String,
        /// As it would be: a text that the field takes.
        to: String,
        /// Why.
        why: Shown,
    }
}
