//! Edits of a build as people make them: a field typed, a source marked, an event dragged, a card
//! number changed. Every edit gives a whole new checked document or refuses and changes nothing.

mod assembly;
pub(crate) mod cam_edit;
mod candidates;
mod entries;
mod lobe_import;
pub(crate) mod marks;
mod pulls;
mod rocker_edit;
mod service;
mod sessions;
mod tolerances;
mod valve_motion;

use crate::begin::{card_cam, put_card_cam};
use crate::build::Build;
use crate::candidate::{Gap, Resolved, Stages};
use crate::document::{Fault, Faults, Side, paste, set_field, set_rows, set_source};
use crate::parts::{Part, fit_part, mark_edited};
use crate::pulls::file::Mapped;
use crate::quantity::UnitSystem;
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

/// What pulls of one file share, as typed; empty where nothing is said.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct SharedOfPulls {
    /// Identifier of the candidate that was on the dyno.
    pub candidate: String,
    /// Day, as 2026-03-09.
    pub day: String,
    /// Boost level.
    pub level: String,
    /// The air it is stated in.
    pub air: String,
    /// `engine` or `chassis`.
    pub dyno: String,
    /// Name of the file.
    pub file: String,
}

/// What traces of one file share, as typed; empty where nothing is said.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct SharedOfMotion {
    /// Identifier of the candidate whose train it was.
    pub candidate: String,
    /// `intake` or `exhaust`.
    pub side: String,
    /// `rig` or `engine`.
    pub turned_by: String,
    /// Day, as 2026-03-09.
    pub day: String,
    /// Name of the file.
    pub file: String,
}

impl SharedOfMotion {
    fn fields(&self) -> [(&'static str, &str); 5] {
        let Self { candidate, side, turned_by, day, file } = self;
        [("candidate", candidate), ("side", side), ("turned_by", turned_by), ("day", day), ("file", file)]
    }
}

impl SharedOfPulls {
    fn fields(&self) -> Vec<(&'static str, &str)> {
        let Self { candidate, day, level, air, dyno, file } = self;
        vec![("candidate", candidate), ("day", day), ("level", level), ("air", air), ("dyno", dyno), ("file", file)]
    }
}

impl Edit {
    /// Whether it changes values where they stand, with no word on where the new ones come from.
    const fn is_of_values(&self) -> bool {
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

/// `build` with `edits` made one after another, all or none.
///
/// # Errors
/// The faults of the first that is refused.
pub fn apply_all(build: Build, edits: &[Edit], system: UnitSystem, stages: &Stages) -> Result<Build, Faults> {
    edits.iter().try_fold(build, |build, edit| apply(&build, edit, system, stages))
}

/// `build` with `edit` made. Bare numbers take the units of `system`.
pub fn apply(build: &Build, edit: &Edit, system: UnitSystem, stages: &Stages) -> Result<Build, Faults> {
    let mut value = build.value().clone();
    match edit {
        Edit::Set { field, text } => {
            set_field(&mut value, field, text, system)?;
            rocker_edit::follow(build.value(), &mut value, field)?;
            marks::follow_manifold(&mut value, field);
        }
        Edit::Rows { field, rows } => set_rows(&mut value, field, rows, system)?,
        Edit::Paste { field, text } => paste(&mut value, field, text, system)?,
        Edit::ImportLobe { candidate, side, text } => {
            let index = candidates::index_of(&mut value, candidate)?;
            lobe_import::import(&mut value, index, side.key(), text, system)?;
        }
        Edit::TakeFlank { candidate, from, side, opening } => {
            candidates::take_flank(&mut value, (candidate, from), side.key(), *opening)?;
        }
        Edit::UsePart { candidate, part, side } => {
            let index = candidates::index_of(&mut value, candidate)?;
            fit_part(&mut value, index, &part.clone().checked()?, *side)?;
        }
        Edit::Duplicate { candidate, to, name } => {
            candidates::duplicate(&mut value, candidate, to, name)?;
            tolerances::copied(&mut value, candidate, to);
        }
        Edit::AddCandidate { to, name } => candidates::add(&mut value, to, name)?,
        Edit::KeepCandidate { to, name, candidate } => candidates::keep(&mut value, candidate, to, name)?,
        Edit::RemoveCandidate { candidate } => {
            tolerances::by_identifier(&mut value);
            candidates::remove(&mut value, candidate)?;
            tolerances::removed(&mut value, candidate);
        }
        Edit::PlaceCandidate { candidate, place } => {
            tolerances::by_identifier(&mut value);
            candidates::place(&mut value, candidate, *place)?;
        }
        Edit::Tolerance { field, plus_minus, shape, shared } => {
            let how = [("shape", shape.as_deref()), ("shared", shared.as_deref())];
            tolerances::put(&mut value, field, plus_minus, how, system)?;
        }
        Edit::BeginSession { session, kind, candidate, date, by } => {
            let fields = [("kind", &**kind), ("candidate", candidate), ("date", date), ("by", by)];
            sessions::begin(&mut value, session, &fields)?;
        }
        Edit::TakeReading { session, table, cells } => sessions::take(&mut value, (session, table), cells, system)?,
        Edit::TakeBack { session, table, of } => sessions::take_back(&mut value, (session, table), *of)?,
        Edit::LeaveSuggestion { session, label, to } => sessions::leave(&mut value, session, (label, to))?,
        Edit::SignLine { line, candidate, by, at } => assembly::sign(&mut value, (line, candidate), by, at)?,
        Edit::UndoLine { line, candidate, by, at, reason } => {
            assembly::undo(&mut value, (line, candidate), by, at, reason)?;
        }
        Edit::TakePulls { text, mapped, runs, drawn, shared } => {
            let shared = pulls::Shared { fields: shared.fields(), drawn: *drawn };
            pulls::take(&mut value, text, mapped, runs, &shared)?;
        }
        Edit::BeginEntry { entry, date, at, event, candidate, by } => {
            let fields = [("date", &**date), ("at", at), ("event", event), ("candidate", candidate), ("by", by)];
            service::begin(&mut value, entry, &fields)?;
        }
        Edit::ReadValve { entry, table, cylinder, side, text } => {
            service::read(&mut value, (entry, table), (*cylinder, side.key()), text, system)?;
        }
        Edit::RemoveEntry { entry } => service::remove(&mut value, entry)?,
        Edit::HoldLimit { limit, at_least, at_most, reason } => {
            service::hold(&mut value, limit, [("at_least", &**at_least), ("at_most", at_most)], reason)?;
        }
        Edit::TakeMotion { text, shared } => valve_motion::take(&mut value, text, &shared.fields(), system)?,
        Edit::RemoveMotion { trace } => valve_motion::remove(&mut value, trace)?,
        Edit::RemovePull { pull } => pulls::remove(&mut value, pull)?,
        Edit::RemoveSession { session } => sessions::remove(&mut value, session)?,
        Edit::Source { field, source } => set_source(&mut value, field, source)?,
        Edit::CardCam { candidate } => {
            let index = candidates::index_of(&mut value, candidate)?;
            let resolved = build.candidates().get(index).map(|view| Resolved::of(view, stages));
            let card = resolved.as_ref().map(card_cam);
            match card {
                Some(Ok(card)) => put_card_cam(&mut value, index, &card),
                Some(Err(gap)) => return Err(no_card(candidate, &gap).into()),
                None => {}
            }
        }
        Edit::MoveEvent { candidate, event, crank_deg } => {
            if !crank_deg.is_finite() {
                return Err(Fault::new("crank_deg", &crank_deg.to_string(), "a finite crank angle").into());
            }
            let cam = cam_edit::CamEdit::begin(build, candidate, stages)?;
            cam.move_event(*event, event.quoted(*crank_deg)).write(&mut value)?;
        }
        Edit::TypeEvent { candidate, event, text } => {
            let cam = cam_edit::CamEdit::begin(build, candidate, stages)?;
            let to = cam_edit::degrees(&cam.path("events_050"), text)?;
            cam.move_event(*event, to).write(&mut value)?;
        }
        Edit::TypeCard { candidate, number, text } => {
            let cam = cam_edit::CamEdit::begin(build, candidate, stages)?;
            let to = cam_edit::degrees(&cam.path(cam_edit::key_of(*number)), text)?;
            cam.set_card(*number, to).write(&mut value)?;
        }
    }
    if edit.is_of_values() {
        marks::go_with_their_values(build.value(), &mut value);
    }
    // A part from the shelf is what its name says, also where one of that name had been edited.
    if !matches!(edit, Edit::UsePart { .. }) {
        mark_edited(build.value(), &mut value);
    }
    Build::from_value(value)
}

/// The refusal of a card's cam for want of something.
fn no_card(candidate: &str, gap: &Gap) -> Fault {
    let needs: Vec<_> = gap.needs.iter().map(|place| place.key.replace('_', " ")).collect();
    let needs = if needs.is_empty() { gap.reason.clone() } else { format!("a value for {}", needs.join(", ")) };
    Fault::new("candidate", candidate, needs)
}
