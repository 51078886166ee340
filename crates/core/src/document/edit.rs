//! One change of one field, from text as typed to the document's JSON.

use super::fault::Fault;
use super::field::Kind;
use super::path::{Step, steps};
use super::rows::kind_at;
use crate::quantity::{Dimension, UnitSystem, scale, with_unit};
use serde_json::{Map, Number, Value};

/// Puts `text` into the field at `path`; an empty text removes it. A bare number gets the field's
/// unit: in inches and pounds or metric as `system` says, for quantities that have both.
pub fn set_field(document: &mut Value, path: &str, text: &str, system: UnitSystem) -> Result<(), Fault> {
    let unknown = || Fault::new(path, text, "a field of the build document");
    let steps = steps(path).ok_or_else(unknown)?;
    let kind = kind_at(&steps).ok_or_else(unknown)?;
    let value = value_of(kind, text.trim(), path, system)?;
    put(document, &steps, value).ok_or_else(unknown)
}

/// Marks where the field at `path` comes from; an empty source removes the mark.
pub fn set_source(document: &mut Value, path: &str, source: &str) -> Result<(), Fault> {
    let unknown = || Fault::new(path, source, "a field of the build document");
    let mut steps = steps(path).ok_or_else(unknown)?;
    kind_at(&steps).ok_or_else(unknown)?;
    let Some(Step::Key(key)) = steps.pop() else { return Err(unknown()) };
    steps.push(Step::Key("sources".to_owned()));
    steps.push(Step::Key(key));
    let value = (!source.is_empty()).then(|| Value::from(source));
    put(document, &steps, value).ok_or_else(unknown)
}

/// Puts `value` at `path`, making the objects on the way; a path that leads nowhere changes nothing.
pub(crate) fn put_value(document: &mut Value, path: &str, value: Value) {
    if let Some(steps) = steps(path) {
        put(document, &steps, Some(value));
    }
}

/// The JSON of a text typed for `kind`; `None` for an empty one.
pub(crate) fn value_of(kind: &Kind, text: &str, path: &str, system: UnitSystem) -> Result<Option<Value>, Fault> {
    if text.is_empty() {
        return Ok(None);
    }
    let refuse = || Fault::of_kind(path, text, kind);
    match kind {
        Kind::Quantity { dimension, .. } => {
            let unit = bare_unit(kind, *dimension, system);
            with_unit(text, *dimension, unit)
                .map(|text| Some(Value::from(text)))
                .map_err(|reason| refuse().cure(format!("{reason}; a number alone is read as {unit}")))
        }
        Kind::Number { .. } | Kind::Integer { .. } => {
            let digits = if text.starts_with('.') { format!("0{text}") } else { text.to_owned() };
            let number = digits.parse::<Number>().map_err(|_| refuse().cure("write a plain number"))?;
            Ok(Some(Value::Number(number)))
        }
        Kind::Flag => text.parse().map(|flag: bool| Some(Value::Bool(flag))).map_err(|_| refuse()),
        Kind::Text(_) | Kind::Choice(_) => Ok(Some(Value::from(text))),
        Kind::List { .. } | Kind::Row(_) | Kind::Object(_) | Kind::Patch => {
            let value = super::strict_json::read(text).map_err(|_| refuse().cure("write it as JSON"))?;
            Ok(Some(value))
        }
    }
}

/// The row's own unit where it belongs to `system` or has no other; else the system's unit.
pub(super) fn bare_unit(kind: &Kind, dimension: Dimension, system: UnitSystem) -> &'static str {
    let own = kind.bare_unit();
    match dimension {
        Dimension::Length | Dimension::Force | Dimension::SpringRate => scale(dimension, system).unit,
        Dimension::Flow => scale(dimension, system).unit,
        _ => own,
    }
}

/// Writes or removes the value at `steps`; objects on the way are made, lists grow by one at most.
pub(super) fn put(document: &mut Value, steps: &[Step], value: Option<Value>) -> Option<()> {
    let Some((step, rest)) = steps.split_first() else {
        *document = value?;
        return Some(());
    };
    match step {
        Step::Key(key) => {
            if document.is_null() {
                *document = Value::Object(Map::new());
            }
            let map = document.as_object_mut()?;
            if rest.is_empty() {
                match value {
                    Some(value) => map.insert(key.clone(), value),
                    None => map.shift_remove(key),
                };
                return Some(());
            }
            if value.is_none() && !map.contains_key(key) {
                return Some(());
            }
            put(map.entry(key.clone()).or_insert(Value::Null), rest, value)
        }
        Step::Index(index) => {
            if document.is_null() {
                *document = Value::Array(Vec::new());
            }
            let list = document.as_array_mut()?;
            if *index == list.len() && value.is_some() {
                list.push(Value::Null);
            }
            if rest.is_empty() && value.is_none() {
                if *index < list.len() {
                    list.remove(*index);
                }
                return Some(());
            }
            put(list.get_mut(*index)?, rest, value)
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn a_bare_number_takes_the_unit_of_the_chosen_system() {
        let mut document = json!({});
        set_field(&mut document, "engine.bore", "4.030", UnitSystem::Inch).unwrap();
        set_field(&mut document, "engine.stroke", ".95", UnitSystem::Metric).unwrap();
        set_field(&mut document, "candidates[0].train.rocker.exhaust.ratio", "1.60", UnitSystem::Inch).unwrap();
        assert_eq!(
            document.to_string(),
            r#"{"engine":{"bore":"4.030 in","stroke":"0.95 mm"},"candidates":[{"train":{"rocker":{"exhaust":{"ratio":1.60}}}}]}"#
        );
    }

    #[test]
    fn an_empty_text_removes_and_makes_nothing() {
        let mut document = json!({"engine": {"bore": "4 in"}});
        set_field(&mut document, "engine.bore", " ", UnitSystem::Inch).unwrap();
        set_field(&mut document, "target.shift_at", "", UnitSystem::Inch).unwrap();
        assert_eq!(document, json!({"engine": {}}));
    }

    #[test]
    fn a_path_that_is_no_field_is_refused_and_changes_nothing() {
        let before = json!({"candidates": [{"id": "a"}]});
        for path in
            ["engine.bores", "candidates[3].id", "name.x", "candidates.id", "x", "", "candidates[0].train.valve.intake"]
        {
            let mut document = before.clone();
            let _ = set_field(&mut document, path, "1", UnitSystem::Inch).unwrap_err();
            assert_eq!(document, before, "{path}");
        }
    }
}
