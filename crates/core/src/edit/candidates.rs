//! Edits of the list of candidates.

use crate::document::Fault;
use serde_json::{Value, json};

/// Appends a copy of `candidate`.
pub fn duplicate(document: &mut Value, candidate: &str, to: &str, name: &str) -> Result<(), Fault> {
    let list = list(document)?;
    let mut copy = list[place_of(list, candidate)?].clone();
    copy["id"] = Value::from(to);
    copy["name"] = Value::from(name);
    list.push(copy);
    Ok(())
}

/// Appends an empty candidate.
pub fn add(document: &mut Value, to: &str, name: &str) -> Result<(), Fault> {
    list(document)?.push(json!({ "id": to, "name": name }));
    Ok(())
}

/// Takes `candidate` out.
pub fn remove(document: &mut Value, candidate: &str) -> Result<(), Fault> {
    let list = list(document)?;
    list.remove(place_of(list, candidate)?);
    Ok(())
}

/// Moves `candidate` to `place`; beyond the end is the end.
pub fn place(document: &mut Value, candidate: &str, place: usize) -> Result<(), Fault> {
    let list = list(document)?;
    let moved = list.remove(place_of(list, candidate)?);
    list.insert(place.min(list.len()), moved);
    Ok(())
}

/// The list, made when it is absent.
fn list(document: &mut Value) -> Result<&mut Vec<Value>, Fault> {
    let slot = document.as_object_mut().map(|map| map.entry("candidates").or_insert_with(|| json!([])));
    slot.and_then(Value::as_array_mut).ok_or_else(|| Fault::new("candidates", "no list", "a list of candidates"))
}

fn place_of(list: &[Value], candidate: &str) -> Result<usize, Fault> {
    let ids = || list.iter().filter_map(|c| c["id"].as_str());
    ids()
        .position(|id| id == candidate)
        .ok_or_else(|| Fault::new("candidate", candidate, format!("one of {}", ids().collect::<Vec<_>>().join(", "))))
}
