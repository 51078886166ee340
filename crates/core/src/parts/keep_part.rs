//! What a candidate has, taken out as a part of its own.

use super::edited::EDITED;
use super::fitting::OF_THE_HEAD;
use super::kind::PartKind;
use super::part::Part;
use crate::document::{Fault, Faults, Side, get};
use serde_json::{Map, Value};

/// What `candidate` has of `kind` on `side`, as a part of its own called `name`.
///
/// # Errors
/// When there is nothing of it, or it is no part.
pub fn part_of(document: &Value, index: usize, kind: PartKind, side: Side, name: &str) -> Result<Part, Faults> {
    let nothing = || Fault::new(kind.word(), "nothing", format!("a {} in this candidate", kind.word()));
    let candidate = get(document, &format!("candidates[{index}]")).ok_or_else(nothing)?;
    let node = match kind {
        PartKind::Cam => candidate.get("cam"),
        PartKind::Lobe => candidate.get("cam").and_then(|cam| cam.get(side.key())),
        _ => candidate.get("train").and_then(|train| train.get(kind.word())),
    };
    let node = node.and_then(Value::as_object).ok_or_else(nothing)?;
    let mut flat = node.clone();
    // Of a cam the sides are lobes of their own; of the train, what holds for one side alone.
    if !matches!(kind, PartKind::Cam | PartKind::Lobe)
        && let Some(Value::Object(own)) = node.get(side.key())
    {
        flat.extend(own.clone());
    }
    let text = |key: &str| flat.get(key).and_then(Value::as_str).map(str::to_owned);
    let mut fields: Map<String, Value> =
        flat.iter().filter(|(key, _)| kind.knows(key)).map(|(key, value)| (key.clone(), value.clone())).collect();
    for lobe in fields.values_mut().filter_map(Value::as_object_mut) {
        lobe.retain(|key, _| !matches!(key.as_str(), "sources" | "part"));
    }
    if kind == PartKind::Valve {
        for key in OF_THE_HEAD {
            let at = |root: &str| get(document, &format!("{root}.{}.{key}", side.key())).cloned();
            let own = at(&format!("candidates[{index}].changes.engine"));
            if let Some(value) = own.or_else(|| at("engine")) {
                fields.insert(key.to_owned(), value);
            }
        }
    }
    let copy_of = text("part").map(|old| old.trim_end_matches(EDITED).to_owned()).filter(|old| old != name);
    let part = Part {
        kind,
        name: name.trim().to_owned(),
        price: text("price"),
        lead_time: None,
        copy_of,
        notes: None,
        fields,
    };
    part.checked()
}
