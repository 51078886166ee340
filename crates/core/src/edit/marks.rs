//! Where a value comes from is said of that value: another one in its place was neither measured nor assumed yet.

use crate::document::{get, get_mut};
use serde_json::{Map, Value};

/// Takes its mark off every value that differs from what it was; a mark that changed with it stays.
pub fn go_with_their_values(before: &Value, after: &mut Value) {
    match after {
        Value::Object(map) => {
            unmark(before.as_object(), map);
            for (key, value) in map.iter_mut().filter(|(key, _)| *key != "sources") {
                go_with_their_values(before.get(key.as_str()).unwrap_or(&Value::Null), value);
            }
        }
        Value::Array(list) => {
            for (place, value) in list.iter_mut().enumerate() {
                go_with_their_values(before.get(place).unwrap_or(&Value::Null), value);
            }
        }
        _ => {}
    }
}

fn unmark(before: Option<&Map<String, Value>>, after: &mut Map<String, Value>) {
    let Some(before) = before else { return };
    let mark = |map: &Map<String, Value>, key: &str| map.get("sources")?.get(key)?.as_str().map(str::to_owned);
    let moved: Vec<String> = after
        .iter()
        .filter(|(key, value)| before.get(*key).is_some_and(|was| was != *value))
        .filter(|(key, _)| mark(before, key) == mark(after, key))
        .map(|(key, _)| key.clone())
        .collect();
    let Some(Value::Object(marks)) = after.get_mut("sources") else { return };
    for key in &moved {
        marks.shift_remove(key);
    }
    if marks.is_empty() {
        after.shift_remove("sources");
    }
}

/// Pipes that were assumed for one kind of exhaust are not assumed for another: they become the new kind's.
pub fn follow_manifold(document: &mut Value, path: &str) {
    let Some(port) = path.strip_suffix(".manifold") else { return };
    for key in ["primary_length", "primary_diameter"] {
        let mark = get(document, &format!("{port}.sources.{key}")).and_then(Value::as_str);
        if mark != Some("assumed") {
            continue;
        }
        if let Some(map) = get_mut(document, port).and_then(Value::as_object_mut) {
            map.shift_remove(key);
            if let Some(Value::Object(marks)) = map.get_mut("sources") {
                marks.shift_remove(key);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn a_changed_value_is_assumed_no_longer_and_its_neighbours_stay_so() {
        let before = json!({"engine": {"bore": "4 in", "stroke": "3.5 in", "sources": {"bore": "assumed", "stroke": "assumed"}}});
        let mut after = before.clone();
        after["engine"]["bore"] = json!("4.04 in");
        go_with_their_values(&before, &mut after);
        assert_eq!(after["engine"]["sources"], json!({"stroke": "assumed"}));
    }

    #[test]
    fn a_mark_that_was_just_set_stands() {
        let before = json!({"engine": {"bore": "4 in"}});
        let mut after = json!({"engine": {"bore": "4.1 in", "sources": {"bore": "assumed"}}});
        go_with_their_values(&before, &mut after);
        assert_eq!(after["engine"]["sources"], json!({"bore": "assumed"}));
    }

    #[test]
    fn another_exhaust_has_pipes_of_its_own_kind() {
        let mut document = json!({"engine": {"exhaust": {"manifold": "log", "primary_length": "30 in", "primary_diameter": "1.7 in",
            "sources": {"primary_length": "assumed", "primary_diameter": "measured"}}}});
        follow_manifold(&mut document, "engine.exhaust.manifold");
        assert_eq!(document["engine"]["exhaust"]["primary_length"], Value::Null);
        assert_eq!(document["engine"]["exhaust"]["primary_diameter"], "1.7 in");
    }
}
