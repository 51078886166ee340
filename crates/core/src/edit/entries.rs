//! Lists of entries at the top of a document, each entry with an identifier.

use crate::document::Fault;
use serde_json::{Map, Value, json};

/// The list at `key`, made where there is none.
pub fn list<'a>(document: &'a mut Value, key: &str) -> Result<&'a mut Vec<Value>, Fault> {
    let slot = document.as_object_mut().map(|map| map.entry(key).or_insert_with(|| json!([])));
    slot.and_then(Value::as_array_mut).ok_or_else(|| Fault::new(key, "no list", "a list of entries"))
}

/// The mark with the next number that no entry has.
pub fn free_id(list: &[Value], mark: &str) -> String {
    let is_taken = |id: &str| list.iter().any(|own| own["id"].as_str() == Some(id));
    let mut number = list.len() + 1;
    while is_taken(&format!("{mark}{number}")) {
        number += 1;
    }
    format!("{mark}{number}")
}

/// The entry `id` of the list at `key`, each of which is `called` so.
pub fn own<'a>(
    document: &'a mut Value,
    (key, called): (&str, &str),
    id: &str,
) -> Result<&'a mut Map<String, Value>, Fault> {
    let found = list(document, key)?.iter_mut().find(|entry| entry["id"].as_str() == Some(id));
    found.and_then(Value::as_object_mut).ok_or_else(|| Fault::new(called, id, format!("the identifier of a {called}")))
}

/// An entry with these fields at the end of the list; empty ones are left out.
pub fn begin(
    document: &mut Value,
    (key, called): (&str, &str),
    id: &str,
    fields: &[(&str, &str)],
) -> Result<(), Fault> {
    let list = list(document, key)?;
    if list.iter().any(|own| own["id"].as_str() == Some(id)) {
        return Err(Fault::new(called, id, format!("an identifier that no {called} has")));
    }
    let given = fields.iter().filter(|(_, text)| !text.is_empty());
    let mut entry = Map::from_iter([("id".to_owned(), json!(id))]);
    entry.extend(given.map(|(key, text)| ((*key).to_owned(), json!(text))));
    list.push(Value::Object(entry));
    Ok(())
}

/// The entry `id` taken out; a list without any left leaves no trace.
pub fn remove(document: &mut Value, (key, called): (&str, &str), id: &str) -> Result<(), Fault> {
    own(document, (key, called), id)?;
    let list = list(document, key)?;
    list.retain(|entry| entry["id"].as_str() != Some(id));
    if list.is_empty() {
        document.as_object_mut().map(|map| map.shift_remove(key));
    }
    Ok(())
}
