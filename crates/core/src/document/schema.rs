//! The published JSON Schema (draft 2020-12) of the build document, from the one table.
//!
//! Ranges of quantities stand in the descriptions: JSON Schema cannot compare a number inside a text.

use super::field::{Field, Kind, Object};
use super::table::{BUILD, SOURCES};
use serde_json::{Map, Value, json};

/// The schema of a build document.
pub fn json_schema() -> Value {
    let mut definitions = Map::new();
    let root = object_schema(&BUILD, &mut definitions);
    let mut schema = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Upper Lobe build document",
    });
    if let (Some(schema), Value::Object(root)) = (schema.as_object_mut(), root) {
        schema.extend(root);
        schema.insert("$defs".to_owned(), Value::Object(definitions));
    }
    schema
}

fn object_schema(object: &'static Object, definitions: &mut Map<String, Value>) -> Value {
    let mut properties: Map<String, Value> =
        object.fields.iter().map(|f| (f.key.to_owned(), field_schema(f, definitions))).collect();
    properties.insert("sources".to_owned(), sources_schema(object));
    if object.sided {
        let plain = json!({
            "type": "object",
            "description": "overrides for this side",
            "properties": properties.clone(),
            "additionalProperties": false,
        });
        properties.insert("intake".to_owned(), plain.clone());
        properties.insert("exhaust".to_owned(), plain);
    }
    let required: Vec<&str> = object.fields.iter().filter(|f| f.required).map(|f| f.key).collect();
    json!({
        "type": "object",
        "description": object.doc,
        "properties": properties,
        "required": required,
        "additionalProperties": false,
    })
}

fn sources_schema(object: &Object) -> Value {
    let marks: Map<String, Value> =
        object.fields.iter().map(|f| (f.key.to_owned(), json!({ "enum": SOURCES }))).collect();
    json!({ "type": "object", "description": "where values come from", "properties": marks, "additionalProperties": false })
}

fn field_schema(field: &'static Field, definitions: &mut Map<String, Value>) -> Value {
    let mut schema = kind_schema(&field.kind, definitions);
    if let Some(map) = schema.as_object_mut() {
        let mut description = field.doc.to_owned();
        if let Kind::Quantity { min, max, .. } = &field.kind {
            description.push_str(&format!(" {min} to {max}."));
        }
        if let Some((neighbour, texts)) = field.default_by {
            let each: Vec<_> = texts.iter().map(|(word, text)| format!("{text} for {word}")).collect();
            description.push_str(&format!(" When absent, by {neighbour}: {}.", each.join(", ")));
        }
        if let Some(default) = field.default {
            description.push_str(&format!(" Assumed {default} when absent."));
        }
        map.insert("title".to_owned(), Value::from(field.label));
        map.insert("description".to_owned(), Value::from(description));
    }
    schema
}

fn kind_schema(kind: &'static Kind, definitions: &mut Map<String, Value>) -> Value {
    match kind {
        Kind::Quantity { dimension, .. } => {
            let units: Vec<String> = dimension.units().iter().map(|u| escape(u.symbol)).collect();
            let number = r"[-+\u2212]?(\d+ \d+/\d+|\d+/\d+|\d+\.?\d*|\.\d+)";
            let text = json!({ "type": "string", "maxLength": 40, "pattern": format!("^\\s*{number}\\s*({})\\s*$", units.join("|")) });
            match (dimension.bare(), kind.si_range()) {
                (Some(_), Ok((min, max))) => {
                    json!({ "anyOf": [{ "type": "number", "minimum": min, "maximum": max }, text] })
                }
                _ => text,
            }
        }
        Kind::Number { min, max } => json!({ "type": "number", "minimum": min, "maximum": max }),
        Kind::Integer { min, max } => json!({ "type": "integer", "minimum": min, "maximum": max }),
        Kind::Flag => json!({ "type": "boolean" }),
        Kind::Text(most) => json!({ "type": "string", "minLength": 1, "maxLength": most }),
        Kind::Choice(words) => json!({ "enum": words }),
        Kind::Object(object) => {
            if !definitions.contains_key(object.name) {
                definitions.insert(object.name.to_owned(), Value::Null);
                let schema = object_schema(object, definitions);
                definitions.insert(object.name.to_owned(), schema);
            }
            json!({ "$ref": format!("#/$defs/{}", object.name) })
        }
        Kind::List { of, min, max } => {
            json!({ "type": "array", "items": kind_schema(of, definitions), "minItems": min, "maxItems": max })
        }
        Kind::Row(kinds) => {
            let places: Vec<Value> = kinds.iter().map(|(_, kind)| kind_schema(kind, definitions)).collect();
            json!({ "type": "array", "prefixItems": places, "minItems": kinds.len(), "maxItems": kinds.len(), "items": false })
        }
        Kind::Patch => json!({
            "type": "object",
            "properties": { "engine": { "type": "object" }, "target": { "type": "object" } },
            "additionalProperties": false,
        }),
    }
}

fn escape(symbol: &str) -> String {
    symbol.chars().fold(String::new(), |mut pattern, c| {
        if matches!(c, '/' | '(' | ')' | '+') {
            pattern.push('\\');
        }
        pattern.push(c);
        pattern
    })
}
