//! Rows of the table by the path of a document, and what a sentence calls them.

use super::field::{Field, Kind, Object};
use super::path::{Step, steps};
use super::table::BUILD;

/// What the field at `path` may hold.
pub fn kind_of(path: &str) -> Option<&'static Kind> {
    kind_at(&steps(path)?)
}

/// What a sentence calls the field at `path`: its side, its owner and its name, as in "Intake valve mass". The path
/// itself when the table does not know it.
pub fn spoken_label(path: &str) -> String {
    let Some(field) = field_at(path) else { return path.to_owned() };
    let side = path.split(['.', '[']).find(|part| matches!(*part, "intake" | "exhaust"));
    // A mass is the valve's or the retainer's: say whose. The engine's and the cam's need no owner.
    let parent = path.rsplit_once('.').map(|(parent, _)| parent);
    let parent = parent.map(|parent| parent.trim_end_matches(".intake").trim_end_matches(".exhaust"));
    let owner = parent.and_then(field_at).filter(|owner| !WHOLES.contains(&owner.key));
    let mut words = field.label.to_owned();
    for before in [owner.map(|owner| owner.label), side].into_iter().flatten() {
        if !words.to_lowercase().contains(&before.to_lowercase()) {
            words = format!("{before} {}", in_a_sentence(&words));
        }
    }
    capital(&words)
}

/// Objects that need no naming: everything is part of one of them.
const WHOLES: [&str; 6] = ["engine", "cam", "target", "candidates", "train", "changes"];

/// A label behind other words: its first letter is small unless the word is written in capitals.
pub fn in_a_sentence(label: &str) -> String {
    let mut letters = label.chars();
    match (letters.next(), letters.clone().next()) {
        (Some(first), second) if !second.is_some_and(char::is_uppercase) => {
            first.to_lowercase().chain(letters).collect()
        }
        _ => label.to_owned(),
    }
}

/// A label at the head of a sentence.
fn capital(label: &str) -> String {
    let mut letters = label.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// The row of the table that `steps` lead to, side overrides included.
pub(super) fn kind_at(steps: &[Step]) -> Option<&'static Kind> {
    let mut object: &'static Object = &BUILD;
    let mut kind: Option<&'static Kind> = None;
    for (place, step) in steps.iter().enumerate() {
        match (step, kind) {
            (Step::Index(_), Some(Kind::List { of, .. })) => kind = Some(*of),
            (Step::Index(index), Some(Kind::Row(kinds))) => kind = Some(&kinds.get(*index)?.1),
            // A candidate's changes have the rows of what they change.
            (Step::Key(key), Some(Kind::Patch)) if matches!(key.as_str(), "engine" | "target") => {
                kind = Some(&BUILD.field(key)?.kind);
            }
            (Step::Key(key), None | Some(Kind::Object(_))) => {
                if let Some(Kind::Object(inner)) = kind {
                    object = inner;
                }
                let is_side = object.sided && (key == "intake" || key == "exhaust");
                if is_side && place + 1 < steps.len() {
                    // The override object has the same rows.
                    kind = None;
                    continue;
                }
                kind = Some(&object.field(key)?.kind);
            }
            _ => return None,
        }
    }
    kind
}

/// The field of the table at `path`, for labels and help.
pub(super) fn field_at(path: &str) -> Option<&'static Field> {
    let steps = steps(path)?;
    let mut object: &'static Object = &BUILD;
    let mut found = None;
    for step in &steps {
        let Step::Key(key) = step else { continue };
        if object.sided && (key == "intake" || key == "exhaust") {
            continue;
        }
        let field = object.field(key)?;
        found = Some(field);
        object = match &field.kind {
            Kind::Object(inner) | Kind::List { of: Kind::Object(inner), .. } => inner,
            Kind::Patch => &BUILD,
            _ => object,
        };
    }
    found
}
