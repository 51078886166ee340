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

/// Appends a whole candidate under another id and name.
pub fn keep(document: &mut Value, candidate: &Value, to: &str, name: &str) -> Result<(), Fault> {
    let mut kept = candidate.clone();
    let Some(own) = kept.as_object_mut() else {
        return Err(Fault::new("candidate", &candidate.to_string(), "an object as the document holds it"));
    };
    // Which one it is stands first, as everywhere.
    own.shift_insert(0, "id".to_owned(), Value::from(to));
    own.shift_insert(1, "name".to_owned(), Value::from(name));
    list(document)?.push(kept);
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

/// Where `candidate` stands.
pub fn index_of(document: &mut Value, candidate: &str) -> Result<usize, Fault> {
    place_of(list(document)?, candidate)
}

/// Puts one flank of `from` in the place of that of `candidate`; the other flank stays what it was.
pub fn take_flank(
    document: &mut Value,
    (candidate, from): (&str, &str),
    side: &str,
    opening: bool,
) -> Result<(), Fault> {
    let list = list(document)?;
    let (to, source) = (place_of(list, candidate)?, place_of(list, from)?);
    let flank = |index: usize, opening: bool| {
        let lobe = &list[index]["cam"][side];
        let path = format!("candidates[{index}].cam.{side}.checks");
        flank_of(lobe, opening).ok_or_else(|| Fault::new(path, "no card", "a lobe by its card, not a measured one"))
    };
    let (opens, closes) =
        if opening { (flank(source, true)?, flank(to, false)?) } else { (flank(to, true)?, flank(source, false)?) };
    let lobe = &mut list[to]["cam"][side];
    if let Some(map) = lobe.as_object_mut() {
        map.remove("checks");
        map.insert("opening".to_owned(), json!({ "checks": opens }));
        map.insert("closing".to_owned(), json!({ "checks": closes }));
    }
    Ok(())
}

/// Heights and angles to full lift of one flank; half the durations of a symmetric card.
fn flank_of(lobe: &Value, opening: bool) -> Option<Value> {
    if let Some(own) = lobe.get(if opening { "opening" } else { "closing" }) {
        return own.get("checks").cloned();
    }
    let rows = lobe.get("checks")?.as_array()?.iter().map(|row| {
        let text = row.get(1)?.as_str()?;
        let degrees: f64 = text.trim_end_matches("deg").trim().parse().ok()?;
        Some(json!([row.get(0)?, format!("{} deg", 0.5 * degrees)]))
    });
    rows.collect::<Option<Vec<_>>>().map(Value::Array)
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
