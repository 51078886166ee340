//! Every edit, as a request names it.

use super::pulls::SharedOfPulls;
use super::valve_motion::SharedOfMotion;
use crate::document::Side;
use crate::parts::Part;
use crate::pulls::file::Mapped;
use serde::{Deserialize, Serialize};

/// One of the four events, at .050 in of lobe lift.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Event {
    /// Before top dead centre.
    IntakeOpens,
    /// After bottom dead centre.
    IntakeCloses,
    /// Before bottom dead centre.
    ExhaustOpens,
    /// After top dead centre.
    ExhaustCloses,
}

impl Event {
    /// All four, in the order of the cycle.
    pub const ALL: [Self; 4] = [Self::ExhaustOpens, Self::IntakeOpens, Self::ExhaustCloses, Self::IntakeCloses];

    /// Which valve.
    pub const fn side(self) -> Side {
        match self {
            Self::IntakeOpens | Self::IntakeCloses => Side::Intake,
            Self::ExhaustOpens | Self::ExhaustCloses => Side::Exhaust,
        }
    }

    /// Dead centre the event is quoted from, crank degrees, and whether it counts before it.
    pub const fn reference(self) -> (f64, bool) {
        match self {
            Self::IntakeOpens => (360.0, true),
            Self::IntakeCloses => (540.0, false),
            Self::ExhaustOpens => (180.0, true),
            Self::ExhaustCloses => (360.0, false),
        }
    }

    /// Crank degree of an event quoted as `value`.
    pub fn crank_deg(self, value: f64) -> f64 {
        let (dead_centre, before) = self.reference();
        if before { dead_centre - value } else { dead_centre + value }
    }

    /// The event as quoted when it happens at `crank_deg`.
    pub fn quoted(self, crank_deg: f64) -> f64 {
        let (dead_centre, before) = self.reference();
        if before { dead_centre - crank_deg } else { crank_deg - dead_centre }
    }
}

/// A number of the card that moves the events.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CardNumber {
    /// Intake duration at .050, centreline held.
    IntakeDuration,
    /// Exhaust duration at .050, centreline held.
    ExhaustDuration,
    /// Separation, intake centreline held.
    LobeSeparation,
    /// Intake centreline, separation held: the cam as a whole.
    IntakeCentreline,
}

/// One edit.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Edit {
    /// Text typed into a field; empty removes it.
    Set {
        /// Path of the field.
        field: String,
        /// As typed.
        text: String,
    },
    /// A whole table.
    Rows {
        /// Path of the table.
        field: String,
        /// Texts as typed, row by row; empty rows are left out.
        rows: Vec<Vec<String>>,
    },
    /// A whole table as pasted from a spreadsheet.
    Paste {
        /// Path of the table.
        field: String,
        /// As pasted.
        text: String,
    },
    /// A measured lobe from the text of a file.
    ImportLobe {
        /// Identifier of the candidate.
        candidate: String,
        /// Which lobe.
        side: Side,
        /// The file.
        text: String,
    },
    /// One flank of another candidate's lobe in the place of this one's.
    TakeFlank {
        /// Identifier of the candidate.
        candidate: String,
        /// Whose flank.
        from: String,
        /// Which lobe.
        side: Side,
        /// The opening one, or else the closing one.
        opening: bool,
    },
    /// A part of the shelf in the place of what a candidate has.
    UsePart {
        /// Identifier of the candidate.
        candidate: String,
        /// The part.
        part: Part,
        /// Only on this side; on both when absent.
        #[serde(default)]
        side: Option<Side>,
    },
    /// A copy of a candidate at the end of the list.
    Duplicate {
        /// Identifier of the one copied.
        candidate: String,
        /// Identifier of the copy.
        to: String,
        /// Name of the copy.
        name: String,
    },
    /// An empty candidate at the end of the list.
    AddCandidate {
        /// Its identifier.
        to: String,
        /// Its name.
        name: String,
    },
    /// A whole candidate at the end of the list, as a proposal or another document has it.
    KeepCandidate {
        /// Its identifier here.
        to: String,
        /// Its name.
        name: String,
        /// The candidate.
        candidate: serde_json::Value,
    },
    /// A candidate taken out; undo and earlier revisions still have it.
    RemoveCandidate {
        /// Its identifier.
        candidate: String,
    },
    /// A candidate moved to another place in the list.
    PlaceCandidate {
        /// Its identifier.
        candidate: String,
        /// The place, from zero.
        place: usize,
    },
    /// How far a field may be off; an empty text leaves that to its source again.
    Tolerance {
        /// Path of the field.
        field: String,
        /// As typed.
        plus_minus: String,
        /// `normal`, `uniform` or `triangular`; as it was, or normal, when absent.
        #[serde(default)]
        shape: Option<String>,
        /// `cylinder`, `bank` or `engine`; as it was, or by the kind of field, when absent.
        #[serde(default)]
        shared: Option<String>,
    },
    /// A session at the bench begun.
    BeginSession {
        /// Its identifier.
        session: String,
        /// What is measured.
        kind: String,
        /// Identifier of the candidate whose parts are in.
        candidate: String,
        /// Day, as 2026-03-02.
        #[serde(default)]
        date: String,
        /// Whose hand.
        #[serde(default)]
        by: String,
    },
    /// One reading more.
    TakeReading {
        /// Identifier of the session.
        session: String,
        /// Its table.
        table: String,
        /// Texts as typed, one for each column.
        cells: Vec<String>,
    },
    /// The last reading of a table taken back.
    TakeBack {
        /// Identifier of the session.
        session: String,
        /// Its table.
        table: String,
        /// How many rows it had for who takes it back; with others since, another's reading would go.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        of: Option<usize>,
    },
    /// What a session would say of a field, left as it is.
    LeaveSuggestion {
        /// Identifier of the session.
        session: String,
        /// What the field is called.
        label: String,
        /// As it would be.
        to: String,
    },
    /// A session taken out with its readings.
    RemoveSession {
        /// Its identifier.
        session: String,
    },
    /// Runs of a dyno's file taken over as pulls.
    TakePulls {
        /// The file's text.
        text: String,
        /// What its columns hold; what its heading says when empty.
        mapped: Vec<Mapped>,
        /// Which of its runs, from nought.
        runs: Vec<usize>,
        /// Place in the day of the first.
        drawn: usize,
        /// What they share.
        shared: SharedOfPulls,
    },
    /// A pull taken out.
    RemovePull {
        /// Its identifier.
        pull: String,
    },
    /// A file of measured valve motion taken over, a trace for every speed.
    TakeMotion {
        /// The file's text.
        text: String,
        /// What its traces share.
        shared: SharedOfMotion,
    },
    /// A trace of it taken out.
    RemoveMotion {
        /// Its identifier.
        trace: String,
    },
    /// An entry of the service log begun.
    BeginEntry {
        /// Its identifier.
        entry: String,
        /// Day, as 2026-06-01.
        date: String,
        /// How far it had run, as 18500 mi.
        #[serde(default)]
        at: String,
        /// What was done.
        event: String,
        /// Identifier of the candidate in the engine.
        #[serde(default)]
        candidate: String,
        /// Whose hand.
        #[serde(default)]
        by: String,
    },
    /// What was read of one valve at an entry, in the place of what was read of it before; an empty text takes that out.
    ReadValve {
        /// Identifier of the entry.
        entry: String,
        /// `seat_load`, `lash`, `guide_play` or `lobe_lift`.
        table: String,
        /// Its cylinder.
        cylinder: u32,
        /// Its side.
        side: Side,
        /// As typed.
        text: String,
    },
    /// An entry of the service log taken out with its readings.
    RemoveEntry {
        /// Its identifier.
        entry: String,
    },
    /// A figure of the shop's own for a limit, on both sides.
    HoldLimit {
        /// Identifier of the limit.
        limit: String,
        /// Least that is needed, with its unit; empty for none.
        #[serde(default)]
        at_least: String,
        /// Most that is allowed, with its unit; empty for none.
        #[serde(default)]
        at_most: String,
        /// Why this shop holds to it.
        reason: String,
    },
    /// A line of the assembly signed.
    SignLine {
        /// Its identifier.
        line: String,
        /// Identifier of the candidate that is built.
        candidate: String,
        /// Who signs.
        by: String,
        /// When, as 2026-03-02 14:20.
        at: String,
    },
    /// A signed line of the assembly undone; what was signed stays in the document.
    UndoLine {
        /// Its identifier.
        line: String,
        /// Identifier of the candidate that is built.
        candidate: String,
        /// Who undoes it.
        by: String,
        /// When.
        at: String,
        /// Why.
        reason: String,
    },
    /// Where a field comes from.
    Source {
        /// Path of the field.
        field: String,
        /// `measured`, `card`, `assumed`, or empty for no mark.
        source: String,
    },
    /// A first cam by the card rules of the trade in the place of a candidate's.
    CardCam {
        /// Identifier of the candidate.
        candidate: String,
    },
    /// An event moved to a crank degree, the other three held.
    MoveEvent {
        /// Identifier of the candidate.
        candidate: String,
        /// Which event.
        event: Event,
        /// Where to, 0..720 from firing top dead centre.
        crank_deg: f64,
    },
    /// An event typed as quoted.
    TypeEvent {
        /// Identifier of the candidate.
        candidate: String,
        /// Which event.
        event: Event,
        /// As typed, degrees.
        text: String,
    },
    /// A number of the card typed.
    TypeCard {
        /// Identifier of the candidate.
        candidate: String,
        /// Which number.
        number: CardNumber,
        /// As typed, degrees.
        text: String,
    },
}

impl Edit {
    /// Whether it changes values where they stand, with no word on where the new ones come from.
    pub(super) const fn is_of_values(&self) -> bool {
        matches!(
            self,
            Self::Set { .. }
                | Self::Rows { .. }
                | Self::Paste { .. }
                | Self::MoveEvent { .. }
                | Self::TypeEvent { .. }
                | Self::TypeCard { .. }
        )
    }
}
