//! One edit made: the change it names, and what goes with every change.

use super::edits::Edit;
use super::{
    assembly, cam_edit, candidates, lobe_import, marks, pulls, rocker_edit, service, sessions, tolerances, valve_motion,
};
use crate::begin::{card_cam, put_card_cam};
use crate::build::Build;
use crate::candidate::{Gap, Resolved, Stages};
use crate::document::{Fault, Faults, paste, set_field, set_rows, set_source};
use crate::parts::{fit_part, mark_edited};
use crate::quantity::UnitSystem;

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
