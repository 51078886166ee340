//! What differs between two documents or two parts of one, field by field.
//!
//! A table is one field: rows belong together. Candidates are told apart by their identifier, not
//! by their place.

use super::path::join;
use super::rows::{in_a_sentence, spoken_label};
use serde::Serialize;
use serde_json::Value;

/// One field that differs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Difference {
    /// Path in the newer document; a candidate stands by its identifier: `candidates[b].cam`.
    pub field: String,
    /// In words, with the candidate's name.
    pub label: String,
    /// Text in the older one; empty when it is not given there.
    pub before: String,
    /// Text in the newer one; empty when it is not given there.
    pub after: String,
}

/// Every field that differs between `before` and `after`, in the order of the documents.
pub fn differences(before: &Value, after: &Value) -> Vec<Difference> {
    let mut found = Vec::new();
    walk(Some(before), Some(after), "", &mut |path, one, other| {
        found.push(Difference {
            field: path.to_owned(),
            label: label_of(path, after, before),
            before: one.map(text_of).unwrap_or_default(),
            after: other.map(text_of).unwrap_or_default(),
        });
    });
    found
}

/// Calls `tell` for every leaf that differs.
pub(super) fn walk<'a>(
    before: Option<&'a Value>,
    after: Option<&'a Value>,
    path: &str,
    tell: &mut impl FnMut(&str, Option<&'a Value>, Option<&'a Value>),
) {
    if before == after {
        return;
    }
    if path == "candidates" {
        for id in ids(before).into_iter().chain(ids(after).into_iter().filter(|id| find(before, id).is_none())) {
            walk(find(before, id), find(after, id), &format!("{path}[{id}]"), tell);
        }
        return;
    }
    let object = |value: Option<&'a Value>| value.and_then(Value::as_object);
    let (one, other) = (object(before), object(after));
    let nested = (one.is_some() || before.is_none()) && (other.is_some() || after.is_none());
    if !nested {
        tell(path, before, after);
        return;
    }
    let keys = one.into_iter().flat_map(|m| m.keys());
    let new = other.into_iter().flat_map(|m| m.keys()).filter(|key| one.is_none_or(|m| !m.contains_key(*key)));
    for key in keys.chain(new) {
        walk(one.and_then(|m| m.get(key)), other.and_then(|m| m.get(key)), &join(path, key), tell);
    }
}

/// Identifiers of a list of candidates.
pub(super) fn ids(list: Option<&Value>) -> Vec<&str> {
    let items = list.and_then(Value::as_array).into_iter().flatten();
    items.filter_map(|candidate| candidate.get("id")?.as_str()).collect()
}

/// The candidate of that identifier.
pub(super) fn find<'a>(list: Option<&'a Value>, id: &str) -> Option<&'a Value> {
    list?.as_array()?.iter().find(|candidate| candidate.get("id").and_then(Value::as_str) == Some(id))
}

/// What people call the field at `path`, where candidates stand by their identifiers.
pub(super) fn label_of(path: &str, after: &Value, before: &Value) -> String {
    let Some((id, inside)) = path.strip_prefix("candidates[").and_then(|rest| rest.split_once(']')) else {
        return spoken_label(path);
    };
    let name = |document: &Value| Some(find(document.get("candidates"), id)?.get("name")?.as_str()?.to_owned());
    let name = name(after).or_else(|| name(before)).unwrap_or_else(|| id.to_owned());
    format!("{name}: {}", in_a_sentence(&spoken_label(&format!("candidates[0]{inside}"))))
}

/// A value as text.
pub(crate) fn text_of(value: &Value) -> String {
    match value {
        Value::String(text) => text.clone(),
        Value::Array(rows) => {
            let row = |row: &Value| match row {
                Value::Array(cells) => cells.iter().map(text_of).collect::<Vec<_>>().join(" "),
                Value::Object(map) => map.values().map(text_of).collect::<Vec<_>>().join(" "),
                other => text_of(other),
            };
            rows.iter().map(row).collect::<Vec<_>>().join("; ")
        }
        other => other.to_string(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn fields_are_told_by_label_and_candidates_by_identifier() {
        let before = json!({
            "engine": { "bore": "4 in", "intake": { "flow": [["0.1 in", "60 cfm"]] } },
            "candidates": [{ "id": "a", "name": "A", "cam": { "lobe_separation": "112 deg" } }, { "id": "b", "name": "B" }]
        });
        let after = json!({
            "engine": { "bore": "4.03 in", "intake": { "flow": [["0.1 in", "61 cfm"]] } },
            "candidates": [{ "id": "b", "name": "B" }, { "id": "a", "name": "A", "cam": { "lobe_separation": "110 deg" } }]
        });
        let lines: Vec<_> =
            differences(&before, &after).into_iter().map(|d| (d.field, d.label, d.before, d.after)).collect();
        let text = |t: (&str, &str, &str, &str)| (t.0.to_owned(), t.1.to_owned(), t.2.to_owned(), t.3.to_owned());
        assert_eq!(
            lines,
            [
                ("engine.bore", "Bore", "4 in", "4.03 in"),
                ("engine.intake.flow", "Intake flow table", "0.1 in 60 cfm", "0.1 in 61 cfm"),
                ("candidates[a].cam.lobe_separation", "A: lobe separation", "112 deg", "110 deg"),
            ]
            .map(text)
        );
        assert_eq!(differences(&after, &after), []);
    }
}
