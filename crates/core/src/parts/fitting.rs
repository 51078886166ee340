//! A part put into a candidate.
//!
//! The candidate holds what the part is, not where it came from: a build stays whole without the shelf. What is set when
//! a part is fitted stays; what the old part was goes.

use super::kind::PartKind;
use super::part::Part;
use crate::document::{Fault, Side, get};
use serde_json::{Map, Value, json};

/// Fields of a shelf valve that belong to the head: they stand in the candidate's own changes of the engine.
pub(super) const OF_THE_HEAD: [&str; 3] = ["valve_diameter", "stem_diameter", "margin_thickness"];

/// Puts `part` into the candidate at `index`: on `side`, or on both.
pub fn fit_part(document: &mut Value, index: usize, part: &Part, side: Option<Side>) -> Result<(), Fault> {
    let shared = document.get("engine").cloned().unwrap_or(Value::Null);
    let no_candidate = || Fault::new("candidate", &index.to_string(), "a candidate of the document");
    let list = document.get_mut("candidates").and_then(|list| list.get_mut(index));
    let candidate = list.and_then(Value::as_object_mut).ok_or_else(no_candidate)?;
    match part.kind {
        PartKind::Cam => fit_cam(object(candidate, "cam"), part),
        PartKind::Lobe => {
            for side in sides(side) {
                let mut fields = part.fields.clone();
                fields.insert("part".to_owned(), Value::from(part.name.clone()));
                mark(&mut fields, &part.fields);
                object(candidate, "cam").insert(side.key().to_owned(), Value::Object(fields));
            }
            for key in ["events_050", "part", "price"] {
                object(candidate, "cam").shift_remove(key);
            }
        }
        PartKind::Valve => {
            fit_train(object(object(candidate, "train"), "valve"), part, side);
            for side in sides(side) {
                fit_head(candidate, &shared, part, side);
            }
        }
        kind => fit_train(object(object(candidate, "train"), kind.word()), part, side),
    }
    Ok(())
}

/// The side, or both.
pub(super) fn sides(side: Option<Side>) -> Vec<Side> {
    side.map_or_else(|| Side::BOTH.to_vec(), |side| vec![side])
}

/// The object at `key`, made when it is not there.
fn object<'a>(map: &'a mut Map<String, Value>, key: &str) -> &'a mut Map<String, Value> {
    let slot = map.entry(key).or_insert_with(|| json!({}));
    if !slot.is_object() {
        *slot = json!({});
    }
    match slot {
        Value::Object(map) => map,
        _ => unreachable!("made an object above"),
    }
}

/// Marks every field of `given` as from a card.
fn mark(target: &mut Map<String, Value>, given: &Map<String, Value>) {
    let marks = object(target, "sources");
    for key in given.iter().filter(|(_, value)| !value.is_object()).map(|(key, _)| key) {
        marks.insert(key.clone(), Value::from("card"));
    }
    if marks.is_empty() {
        target.shift_remove("sources");
    }
}

fn fit_cam(cam: &mut Map<String, Value>, part: &Part) {
    let kept = cam.get("intake_centreline").cloned();
    cam.clear();
    for (key, value) in &part.fields {
        let mut value = value.clone();
        if let Value::Object(lobe) = &mut value {
            let own = lobe.clone();
            mark(lobe, &own);
        }
        cam.insert(key.clone(), value);
    }
    if let (false, Some(kept)) = (cam.contains_key("intake_centreline") || cam.contains_key("events_050"), kept) {
        cam.insert("intake_centreline".to_owned(), kept);
    }
    mark(cam, &part.fields);
    name(cam, part);
}

/// Name and price of a part, as the document keeps them.
fn name(target: &mut Map<String, Value>, part: &Part) {
    target.insert("part".to_owned(), Value::from(part.name.clone()));
    match &part.price {
        Some(price) => target.insert("price".to_owned(), Value::from(price.clone())),
        None => target.shift_remove("price"),
    };
}

fn fit_train(node: &mut Map<String, Value>, part: &Part, side: Option<Side>) {
    if let Some(side) = side {
        let other = if side == Side::Intake { Side::Exhaust } else { Side::Intake };
        keep_for(node, part.kind, other);
        let own = object(node, side.key());
        clear(own, part.kind);
        put(own, part);
        return;
    }
    clear(node, part.kind);
    for side in Side::BOTH {
        if let Some(Value::Object(own)) = node.get_mut(side.key()) {
            clear(own, part.kind);
            if own.is_empty() {
                node.shift_remove(side.key());
            }
        }
    }
    put(node, part);
}

/// Moves what holds for both sides to `other`, which keeps what it has.
fn keep_for(node: &mut Map<String, Value>, kind: PartKind, other: Side) {
    let keys: Vec<String> = node.keys().filter(|key| kind.is_of_the_part(key)).cloned().collect();
    let moved: Vec<(String, Value)> =
        keys.into_iter().filter_map(|key| node.shift_remove(&key).map(|value| (key, value))).collect();
    let marks = node.get_mut("sources").and_then(Value::as_object_mut);
    let mut moved_marks = Map::new();
    if let Some(marks) = marks {
        for (key, _) in &moved {
            if let Some(mark) = marks.shift_remove(key) {
                moved_marks.insert(key.clone(), mark);
            }
        }
        if marks.is_empty() {
            node.shift_remove("sources");
        }
    }
    if moved.is_empty() {
        return;
    }
    let own = object(node, other.key());
    for (key, value) in moved {
        if let Some(mark) = moved_marks.shift_remove(&key)
            && !own.contains_key(&key)
        {
            object(own, "sources").insert(key.clone(), mark);
        }
        own.entry(key).or_insert(value);
    }
}

/// Takes away what the old part was.
fn clear(node: &mut Map<String, Value>, kind: PartKind) {
    let gone: Vec<String> = node.keys().filter(|key| kind.is_of_the_part(key)).cloned().collect();
    for key in &gone {
        node.shift_remove(key);
    }
    if let Some(Value::Object(marks)) = node.get_mut("sources") {
        marks.retain(|key, _| !kind.is_of_the_part(key));
        if marks.is_empty() {
            node.shift_remove("sources");
        }
    }
}

fn put(node: &mut Map<String, Value>, part: &Part) {
    let mut given = Map::new();
    for (key, value) in &part.fields {
        let of_the_head = part.kind == PartKind::Valve && OF_THE_HEAD.contains(&key.as_str());
        let set_already = part.kind.recommended().contains(&key.as_str()) && node.contains_key(key);
        if !of_the_head && !set_already {
            node.insert(key.clone(), value.clone());
            given.insert(key.clone(), value.clone());
        }
    }
    mark(node, &given);
    name(node, part);
}

/// Head, stem and margin of a valve become the candidate's own where the engine has others.
fn fit_head(candidate: &mut Map<String, Value>, shared: &Value, part: &Part, side: Side) {
    for key in OF_THE_HEAD {
        let Some(value) = part.fields.get(key) else { continue };
        let engine = shared.get(side.key()).and_then(|port| port.get(key));
        let own = candidate
            .get("changes")
            .is_some_and(|changes| get(changes, &format!("engine.{}.{key}", side.key())).is_some());
        if own || engine != Some(value) {
            let port = object(object(object(candidate, "changes"), "engine"), side.key());
            port.insert(key.to_owned(), value.clone());
        }
    }
}
