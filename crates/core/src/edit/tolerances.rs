//! Edits of how far fields may be off. Entries name their candidate by its identifier, so that they stay with it.

use crate::document::{Fault, Tolerated, by_id, is_of};
use crate::quantity::{UnitSystem, scale, with_unit};
use serde_json::{Value, json};

/// Writes the tolerance of a field; an empty text takes it out.
pub fn put(
    document: &mut Value,
    field: &str,
    text: &str,
    how: [(&str, Option<&str>); 2],
    system: UnitSystem,
) -> Result<(), Fault> {
    by_identifier(document);
    let named = by_id(document, field);
    let tolerated = Tolerated::of(&named)
        .ok_or_else(|| Fault::new(field, text, "a field that is a quantity or a number: others are not off"))?;
    let text = with_its_unit(tolerated, text.trim(), field, system)?;
    let list = list(document)?;
    let place = list.iter().position(|own| own["field"].as_str() == Some(&named));
    if text.is_empty() {
        place.map(|place| list.remove(place));
        return Ok(());
    }
    let place = place.unwrap_or_else(|| {
        list.push(json!({ "id": named, "field": named }));
        list.len() - 1
    });
    list[place]["plus_minus"] = text.into();
    for (key, word) in how.into_iter().filter_map(|(key, word)| Some((key, word?))) {
        list[place][key] = word.into();
    }
    Ok(())
}

fn with_its_unit(tolerated: Tolerated, text: &str, field: &str, system: UnitSystem) -> Result<String, Fault> {
    match tolerated {
        Tolerated::Quantity(dimension) if !text.is_empty() => {
            let unit = scale(dimension, system).unit;
            let needs = || format!("{} with its unit", dimension.noun());
            let refuse =
                |reason| Fault::new(field, text, needs()).cure(format!("{reason}; a number alone is read as {unit}"));
            with_unit(text, dimension, unit).map_err(refuse)
        }
        Tolerated::Number if text.starts_with('.') => Ok(format!("0{text}")),
        _ => Ok(text.to_owned()),
    }
}

/// The tolerances of `candidate` once more for its copy.
pub fn copied(document: &mut Value, candidate: &str, to: &str) {
    by_identifier(document);
    let Ok(list) = list(document) else { return };
    let (from, to) = (format!("candidates[{candidate}]"), format!("candidates[{to}]"));
    let own: Vec<Value> = list.iter().filter(|own| field_of(own).starts_with(&from)).cloned().collect();
    for mut copy in own {
        let field = field_of(&copy).replacen(&from, &to, 1);
        copy["id"] = field.clone().into();
        copy["field"] = field.into();
        list.push(copy);
    }
    tidy(document);
}

/// Takes out the tolerances of a candidate that is no more.
pub fn removed(document: &mut Value, candidate: &str) {
    let Ok(list) = list(document) else { return };
    list.retain(|own| !is_of(field_of(own), candidate));
    tidy(document);
}

/// Entries by their candidates' identifiers.
pub fn by_identifier(document: &mut Value) {
    let named: Vec<String> = match document.get("tolerances").and_then(Value::as_array) {
        Some(list) => list.iter().map(|own| by_id(document, field_of(own))).collect(),
        None => return,
    };
    let Ok(list) = list(document) else { return };
    for (own, named) in list.iter_mut().zip(named).filter(|(own, named)| field_of(own) != named) {
        own["field"] = named.into();
    }
}

fn field_of(own: &Value) -> &str {
    own["field"].as_str().unwrap_or_default()
}

/// A list that became empty leaves no trace.
fn tidy(document: &mut Value) {
    let is_empty = document.get("tolerances").and_then(Value::as_array).is_some_and(Vec::is_empty);
    if let Some(map) = document.as_object_mut().filter(|_| is_empty) {
        map.shift_remove("tolerances");
    }
}

fn list(document: &mut Value) -> Result<&mut Vec<Value>, Fault> {
    let slot = document.as_object_mut().map(|map| map.entry("tolerances").or_insert_with(|| json!([])));
    slot.and_then(Value::as_array_mut).ok_or_else(|| Fault::new("tolerances", "no list", "a list of tolerances"))
}

#[cfg(test)]
mod tests {
    use super::*;

    const HEIGHT: &str = "candidates[0].train.spring.installed_height";

    fn build() -> Value {
        json!({ "candidates": [{ "id": "a" }, { "id": "b" }] })
    }

    #[test]
    fn a_tolerance_is_written_changed_and_taken_out_again() {
        let mut document = build();
        let none = [("shape", None), ("shared", None)];
        put(&mut document, HEIGHT, ".010", none, UnitSystem::Inch).unwrap();
        put(&mut document, HEIGHT, "0.2 mm", [("shape", Some("uniform")), none[1]], UnitSystem::Inch).unwrap();
        let own = &document["tolerances"];
        assert_eq!(own.as_array().unwrap().len(), 1);
        assert_eq!(own[0]["field"], "candidates[a].train.spring.installed_height");
        assert_eq!((own[0]["plus_minus"].as_str(), own[0]["shape"].as_str()), (Some("0.2 mm"), Some("uniform")));
        put(&mut document, HEIGHT, " ", none, UnitSystem::Inch).unwrap();
        tidy(&mut document);
        assert_eq!(document, build());
        let refused = put(&mut document, "engine.fuel", "1", none, UnitSystem::Inch).unwrap_err();
        assert_eq!(refused.field, "engine.fuel");
    }

    #[test]
    fn tolerances_stay_with_their_candidate() {
        let mut document = build();
        document["tolerances"] = json!([{ "field": HEIGHT, "plus_minus": "0.010 in" }]);
        copied(&mut document, "a", "c");
        let fields: Vec<&str> = document["tolerances"].as_array().unwrap().iter().map(field_of).collect();
        let of = |id: &str| format!("candidates[{id}].train.spring.installed_height");
        assert_eq!(fields, [of("a"), of("c")]);
        removed(&mut document, "a");
        assert_eq!(document["tolerances"][0]["field"], of("c"));
        removed(&mut document, "c");
        assert_eq!(document, build());
    }
}
