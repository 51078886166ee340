//! A part that was changed after it came from the shelf says so in its name: a named copy.

use super::kind::PartKind;
use crate::document::{Side, get};
use serde_json::{Map, Value};

/// Said of such a part.
pub(super) const EDITED: &str = ", edited";

/// Says of every part in `after` that was changed since `before` that it is an edited one.
pub fn mark_edited(before: &Value, after: &mut Value) {
    let old = candidates(before);
    for candidate in after.get_mut("candidates").and_then(Value::as_array_mut).into_iter().flatten() {
        let Some(old) = old.iter().find(|old| old.get("id") == candidate.get("id")) else { continue };
        if old == candidate {
            continue;
        }
        let edited = |place: Place| Some((edited_name(old, candidate, &place)?, place.path));
        let found: Vec<(String, String)> = places().into_iter().filter_map(edited).collect();
        for (name, path) in found {
            if let Some(Value::Object(node)) = candidate.pointer_mut(&format!("/{}", path.replace('.', "/"))) {
                node.insert("part".to_owned(), Value::from(name));
            }
        }
    }
}

fn candidates(document: &Value) -> &[Value] {
    document.get("candidates").and_then(Value::as_array).map_or(&[], Vec::as_slice)
}

/// Where a part stands in a candidate.
struct Place {
    kind: PartKind,
    path: String,
    /// Where its name stands when it has none of its own: a side that differs from the plain part.
    plain: Option<String>,
}

fn places() -> Vec<Place> {
    let at = |kind, path: &str| Place { kind, path: path.to_owned(), plain: None };
    let mut found = vec![at(PartKind::Cam, "cam"), at(PartKind::Lobe, "cam.intake"), at(PartKind::Lobe, "cam.exhaust")];
    for kind in PartKind::ALL.into_iter().filter(|kind| !matches!(kind, PartKind::Cam | PartKind::Lobe)) {
        let path = format!("train.{}", kind.word());
        let of_side = |side: Side| {
            let own = format!("{path}.{}", side.key());
            Place { kind, path: own, plain: Some(path.clone()) }
        };
        found.extend(Side::BOTH.map(of_side));
        found.push(at(kind, &path));
    }
    found
}

/// The name of a part that stands where it stood, and is not what it was.
fn edited_name(old: &Value, new: &Value, place: &Place) -> Option<String> {
    let named = |candidate: &Value| -> Option<String> {
        let name = |path: &str| Some(get(candidate, path)?.get("part")?.as_str()?.to_owned());
        name(&place.path).or_else(|| name(place.plain.as_ref()?))
    };
    let name = named(new).filter(|name| !name.ends_with(EDITED))?;
    if named(old).as_deref() != Some(&name) {
        return None;
    }
    let own = |candidate: &Value| -> Map<String, Value> {
        let map = get(candidate, &place.path).and_then(Value::as_object);
        let keys = map.into_iter().flatten().filter(|(key, _)| makes_another(place.kind, key));
        keys.map(|(key, value)| (key.clone(), bare(value))).collect()
    };
    (get(new, &place.path).is_some() && own(old) != own(new)).then(|| format!("{name}{EDITED}"))
}

/// Whether a change of `key` makes another part of it: a name or a price does not.
fn makes_another(kind: PartKind, key: &str) -> bool {
    !matches!(key, "part" | "price") && kind.is_of_the_part(key)
}

/// A lobe without its marks and name.
fn bare(value: &Value) -> Value {
    let mut value = value.clone();
    if let Value::Object(map) = &mut value {
        map.retain(|key, _| !matches!(key.as_str(), "sources" | "part"));
    }
    value
}
