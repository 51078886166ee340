//! A session at the bench on paper, or as a sheet of columns.

use crate::build::Build;
use crate::candidate::{Resolved, Stages, session_ahead, session_played, session_sheet};
use crate::document::{Fault, Ledger};
use crate::given::{Given, Source};
use crate::report::{NextReading, PlayedReading, SessionSheet};

/// The session `id`, of whichever candidate it is.
///
/// # Errors
/// There is no such session.
pub fn sheet_of(build: &Build, id: &str, stages: &Stages) -> Result<SessionSheet, Fault> {
    of_session(build, id, stages, session_sheet)
}

/// What the session `id` still asks for, in its order.
///
/// # Errors
/// There is no such session.
pub fn ahead_of(build: &Build, id: &str, stages: &Stages) -> Result<Vec<NextReading>, Fault> {
    of_session(build, id, stages, session_ahead)
}

/// Every reading that the session `id` asks for, as the document's engine would give it: what a stand-in plays.
///
/// # Errors
/// There is no such session.
pub fn played_of(build: &Build, id: &str, stages: &Stages) -> Result<Vec<PlayedReading>, Fault> {
    of_session(build, id, stages, session_played)
}

pub(super) fn of_session<T>(
    build: &Build,
    id: &str,
    stages: &Stages,
    of: impl Fn(&Resolved, &Source<'_>, bool, &str) -> Option<T>,
) -> Result<T, Fault> {
    let found = build.candidates().iter().find_map(|view| {
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        of(&Resolved::new(Given::read(&source), stages), &source, view.index == 0, id)
    });
    found.ok_or_else(|| Fault::new("session", id, "the identifier of a session at the bench"))
}

/// The same as CSV: a line a reading, table by table, what is read in front.
///
/// # Errors
/// None that a text in memory gives.
pub fn sheet_csv(sheet: &SessionSheet) -> Result<String, csv::Error> {
    let mut lines = csv::WriterBuilder::new().flexible(true).from_writer(Vec::new());
    for table in &sheet.tables {
        lines.write_record([table.title.clone()].iter().chain(&table.columns))?;
        for row in &table.rows {
            lines.write_record([row.says.clone()].iter().chain(&row.cells))?;
        }
    }
    let bytes = lines.into_inner().map_err(|error| error.into_error())?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}
