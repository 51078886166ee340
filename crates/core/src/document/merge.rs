//! Two sets of edits from one revision made into one document, field by field.
//!
//! What only one side changed is taken from it. What both changed differently is a conflict: mine
//! stands unless it is given up. Nothing is ever dropped silently: conflicts name both texts.

use super::difference::{find, ids, label_of, text_of};
use super::path::join;
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};

/// Whose text a conflict takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Take {
    /// This tab's.
    #[default]
    Mine,
    /// What was saved in between.
    Theirs,
}

/// A field both sides changed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Conflict {
    /// Path, candidates by identifier.
    pub field: String,
    /// In words.
    pub label: String,
    /// Where both began.
    pub base: String,
    /// This tab's text; empty when it was removed.
    pub mine: String,
    /// The saved text; empty when it was removed.
    pub theirs: String,
    /// Which one the merged document has.
    pub taken: Take,
}

/// A merged document, not yet checked.
#[derive(Debug, Clone, PartialEq)]
pub struct Merge {
    /// The document.
    pub value: Value,
    /// Every field both sides changed.
    pub conflicts: Vec<Conflict>,
}

/// Merges `mine` and `theirs`, both made from `base`; conflicts in `theirs_for` take theirs.
pub fn merge(base: &Value, mine: &Value, theirs: &Value, theirs_for: &[String]) -> Merge {
    let mut work = Work { mine, theirs, theirs_for, conflicts: Vec::new() };
    let value = work.three(Some(base), Some(mine), Some(theirs), "").unwrap_or(Value::Null);
    Merge { value, conflicts: work.conflicts }
}

/// `theirs` with the candidate `id` of `mine` added under a free identifier, so that nothing of theirs
/// moves. What `mine` has otherwise in engine and target goes into the candidate's own changes.
/// `None` when `mine` has no such candidate.
pub fn adopt(mine: &Value, theirs: &Value, id: &str) -> Option<Value> {
    let mut own = find(mine.get("candidates"), id)?.clone();
    let mut whole = theirs.clone();
    let taken = ids(theirs.get("candidates"));
    let free = (2..).map(|n| format!("{id}-{n}")).find(|free| !taken.contains(&free.as_str()))?;
    own["id"] = Value::from(free);
    own["name"] = Value::from(format!("{} (kept)", own["name"].as_str().unwrap_or(id)));
    let mut changes = own.get("changes").and_then(Value::as_object).cloned().unwrap_or_default();
    for key in ["engine", "target"] {
        let mut wanted = mine.get(key).cloned().unwrap_or_default();
        if let Some(patch) = changes.get(key) {
            json_patch::merge(&mut wanted, patch);
        }
        match merge_patch(theirs.get(key).unwrap_or(&Value::Null), &wanted) {
            Some(patch) => changes.insert(key.to_owned(), patch),
            None => changes.shift_remove(key),
        };
    }
    match changes.is_empty() {
        true => own.as_object_mut()?.shift_remove("changes"),
        false => own.as_object_mut()?.insert("changes".to_owned(), Value::Object(changes)),
    };
    let list = whole.as_object_mut()?.entry("candidates").or_insert_with(|| Value::Array(Vec::new()));
    list.as_array_mut()?.push(own);
    Some(whole)
}

/// The RFC 7396 patch that makes `to` of `from`; `None` when they are the same.
fn merge_patch(from: &Value, to: &Value) -> Option<Value> {
    if from == to {
        return None;
    }
    let (Some(one), Some(other)) = (from.as_object(), to.as_object()) else { return Some(to.clone()) };
    let mut patch = Map::new();
    for (key, value) in other {
        if let Some(change) = merge_patch(one.get(key).unwrap_or(&Value::Null), value) {
            patch.insert(key.clone(), change);
        }
    }
    for key in one.keys().filter(|key| !other.contains_key(*key)) {
        patch.insert(key.clone(), Value::Null);
    }
    Some(Value::Object(patch))
}

/// Lists beside the candidates whose entries are told apart by their identifiers.
const BY_ID: &[&str] = &["bench", "pulls", "service", "valve_motion"];

/// Whether every entry of a list has an identifier; so do those of no list.
fn has_ids(list: Option<&Value>) -> bool {
    list.is_none_or(|list| list.as_array().is_some_and(|all| all.len() == ids(Some(list)).len()))
}

struct Work<'a> {
    mine: &'a Value,
    theirs: &'a Value,
    theirs_for: &'a [String],
    conflicts: Vec<Conflict>,
}

impl Work<'_> {
    fn three(
        &mut self,
        base: Option<&Value>,
        mine: Option<&Value>,
        theirs: Option<&Value>,
        path: &str,
    ) -> Option<Value> {
        if mine == theirs || base == theirs {
            return mine.cloned();
        }
        if base == mine {
            return theirs.cloned();
        }
        if path == "candidates" || (BY_ID.contains(&path) && [base, mine, theirs].into_iter().all(has_ids)) {
            return Some(self.entries(base, mine, theirs, path));
        }
        if let (Some(Value::Object(own)), Some(Value::Object(other))) = (mine, theirs) {
            return Some(self.objects(base, own, other, path));
        }
        self.conflict(base, mine, theirs, path)
    }

    fn objects(
        &mut self,
        base: Option<&Value>,
        mine: &Map<String, Value>,
        theirs: &Map<String, Value>,
        path: &str,
    ) -> Value {
        let mut merged = Map::new();
        let new = theirs.keys().filter(|key| !mine.contains_key(*key));
        for key in mine.keys().chain(new) {
            let from = base.and_then(|b| b.get(key));
            if let Some(value) = self.three(from, mine.get(key), theirs.get(key), &join(path, key)) {
                merged.insert(key.clone(), value);
            }
        }
        Value::Object(merged)
    }

    /// A list entry by entry. One that both sides began under the same identifier is two: theirs goes behind mine under a free one.
    fn entries(&mut self, base: Option<&Value>, mine: Option<&Value>, theirs: Option<&Value>, path: &str) -> Value {
        let own = ids(mine);
        let new = ids(theirs).into_iter().filter(|id| !own.contains(id));
        let all: Vec<&str> = own.iter().copied().chain(new).collect();
        let mut merged: Vec<Value> = Vec::new();
        let mut begun_twice: Vec<&Value> = Vec::new();
        for id in &all {
            let (from, one, other) = (find(base, id), find(mine, id), find(theirs, id));
            match (from, one, other) {
                (None, Some(one), Some(other)) if one != other && path != "candidates" => {
                    merged.push(one.clone());
                    begun_twice.push(other);
                }
                _ => merged.extend(self.three(from, one, other, &format!("{path}[{id}]"))),
            }
        }
        for other in begun_twice {
            let mut other = other.clone();
            let id = other["id"].as_str().unwrap_or_default().to_owned();
            let is_free = |free: &String| merged.iter().all(|own| own["id"].as_str() != Some(free));
            if let Some(free) = (2..).map(|n| format!("{id}-{n}")).find(is_free) {
                other["id"] = Value::from(free);
            }
            merged.push(other);
        }
        Value::Array(merged)
    }

    fn conflict(
        &mut self,
        base: Option<&Value>,
        mine: Option<&Value>,
        theirs: Option<&Value>,
        path: &str,
    ) -> Option<Value> {
        let taken = if self.theirs_for.iter().any(|p| p == path) { Take::Theirs } else { Take::Mine };
        let text = |value: Option<&Value>| value.map(text_of).unwrap_or_default();
        self.conflicts.push(Conflict {
            field: path.to_owned(),
            label: label_of(path, self.mine, self.theirs),
            base: text(base),
            mine: text(mine),
            theirs: text(theirs),
            taken,
        });
        match taken {
            Take::Mine => mine.cloned(),
            Take::Theirs => theirs.cloned(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn base() -> Value {
        json!({
            "name": "x", "engine": { "bore": "4 in", "stroke": "3 in" },
            "candidates": [{ "id": "a", "name": "A", "cam": { "lobe_separation": "112 deg" } }]
        })
    }

    #[test]
    fn edits_of_different_fields_are_both_kept() {
        let (mut mine, mut theirs) = (base(), base());
        mine["engine"]["bore"] = "4.03 in".into();
        theirs["candidates"][0]["cam"]["lobe_separation"] = "110 deg".into();
        theirs["engine"]["rod_length"] = "6 in".into();
        let merged = merge(&base(), &mine, &theirs, &[]);
        assert_eq!(merged.conflicts, []);
        assert_eq!(merged.value["engine"], json!({ "bore": "4.03 in", "stroke": "3 in", "rod_length": "6 in" }));
        assert_eq!(merged.value["candidates"][0]["cam"]["lobe_separation"], "110 deg");
    }

    #[test]
    fn pulls_and_sessions_of_both_are_kept_also_under_one_identifier() {
        let mut from = base();
        from["pulls"] = json!([{ "id": "p1", "day": "one" }]);
        let (mut mine, mut theirs) = (from.clone(), from.clone());
        mine["pulls"] = json!([{ "id": "p1", "day": "one", "note": "cold" }, { "id": "p2", "day": "mine" }]);
        theirs["pulls"] = json!([{ "id": "p1", "day": "two" }, { "id": "p2", "day": "theirs" }, { "id": "p3" }]);
        theirs["bench"] = json!([{ "id": "s1" }]);
        mine["bench"] = json!([{ "id": "s2" }]);
        let merged = merge(&from, &mine, &theirs, &[]);
        assert_eq!(merged.conflicts, []);
        assert_eq!(
            merged.value["pulls"],
            json!([{ "id": "p1", "day": "two", "note": "cold" }, { "id": "p2", "day": "mine" }, { "id": "p3" }, { "id": "p2-2", "day": "theirs" }])
        );
        assert_eq!(merged.value["bench"], json!([{ "id": "s2" }, { "id": "s1" }]));
        // Without identifiers a list is one field, as it was.
        mine["pulls"] = json!([{ "day": "mine" }]);
        assert_eq!(merge(&from, &mine, &theirs, &[]).conflicts.len(), 1);
    }

    #[test]
    fn a_field_both_changed_is_told_and_taken_as_chosen() {
        let (mut mine, mut theirs) = (base(), base());
        mine["candidates"][0]["cam"]["lobe_separation"] = "108 deg".into();
        theirs["candidates"][0]["cam"]["lobe_separation"] = "114 deg".into();
        let field = "candidates[a].cam.lobe_separation".to_owned();
        let kept = merge(&base(), &mine, &theirs, &[]);
        assert_eq!(kept.value, mine);
        let [conflict] = kept.conflicts.as_slice() else { panic!("{:?}", kept.conflicts) };
        assert_eq!((conflict.field.as_str(), conflict.label.as_str()), (field.as_str(), "A: lobe separation"));
        assert_eq!(
            (conflict.base.as_str(), conflict.mine.as_str(), conflict.theirs.as_str()),
            ("112 deg", "108 deg", "114 deg")
        );
        assert_eq!(merge(&base(), &mine, &theirs, &[field]).value, theirs);
    }

    #[test]
    fn a_kept_candidate_brings_its_engine_along_and_moves_nothing_of_theirs() {
        let (mut mine, mut theirs) = (base(), base());
        mine["engine"]["bore"] = "4.03 in".into();
        mine["candidates"][0]["cam"]["lobe_separation"] = "108 deg".into();
        theirs["engine"]["rod_length"] = "6 in".into();
        let kept = adopt(&mine, &theirs, "a").unwrap();
        assert_eq!(kept["candidates"][0], theirs["candidates"][0]);
        let own = &kept["candidates"][1];
        assert_eq!((own["id"].as_str(), own["name"].as_str()), (Some("a-2"), Some("A (kept)")));
        // Merged back by an RFC 7396 library, the engine is mine again.
        let mut engine = kept["engine"].clone();
        json_patch::merge(&mut engine, &own["changes"]["engine"]);
        assert_eq!(engine, mine["engine"]);
        assert_eq!(adopt(&mine, &theirs, "z"), None);
    }

    #[test]
    fn candidates_made_on_both_sides_are_both_kept_and_one_removed_stays_removed() {
        let (mut mine, mut theirs) = (base(), base());
        mine["candidates"] = json!([{ "id": "m", "name": "M" }]);
        theirs["candidates"][0]["name"] = "A again".into();
        theirs["candidates"].as_array_mut().unwrap().push(json!({ "id": "t", "name": "T" }));
        let merged = merge(&base(), &mine, &theirs, &[]);
        // Mine removed a, theirs renamed it: told, and mine stands.
        assert_eq!(merged.conflicts.len(), 1);
        assert_eq!(ids(merged.value.get("candidates")), ["m", "t"]);
    }
}
