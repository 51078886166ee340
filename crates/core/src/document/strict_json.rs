//! JSON as strictly as a shared format needs it: a key given twice is an error, not a silent loss.

use super::fault::Fault;
use serde::de::{Deserialize, Deserializer, MapAccess, SeqAccess, Visitor};
use serde_json::{Map, Number, Value};
use std::fmt;

/// Largest document that is read, in bytes. A complete build with many candidates takes about 200 kB.
pub const MAX_BYTES: usize = 4 * 1024 * 1024;

/// Reads `text` as one JSON value, keeping key order and numbers as typed.
pub fn read(text: &str) -> Result<Value, Fault> {
    if text.len() > MAX_BYTES {
        return Err(Fault::new("document", &format!("{} bytes", text.len()), format!("at most {MAX_BYTES} bytes"))
            .cure("keep measured curves out of the document or split it into two builds"));
    }
    serde_json::from_str::<Strict>(text).map(|strict| strict.0).map_err(|error| {
        Fault::new("document", &error.to_string(), "JSON text with every key once")
            .cure("correct the text at the line and column named")
    })
}

struct Strict(Value);

impl<'de> Deserialize<'de> for Strict {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        deserializer.deserialize_any(StrictVisitor).map(Strict)
    }
}

struct StrictVisitor;

impl<'de> Visitor<'de> for StrictVisitor {
    type Value = Value;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("a JSON value")
    }

    fn visit_bool<E>(self, value: bool) -> Result<Value, E> {
        Ok(Value::Bool(value))
    }

    fn visit_i64<E>(self, value: i64) -> Result<Value, E> {
        Ok(Value::Number(value.into()))
    }

    fn visit_u64<E>(self, value: u64) -> Result<Value, E> {
        Ok(Value::Number(value.into()))
    }

    fn visit_f64<E>(self, value: f64) -> Result<Value, E> {
        Ok(Number::from_f64(value).map_or(Value::Null, Value::Number))
    }

    fn visit_str<E>(self, value: &str) -> Result<Value, E> {
        Ok(Value::String(value.to_owned()))
    }

    fn visit_unit<E>(self) -> Result<Value, E> {
        Ok(Value::Null)
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut items: A) -> Result<Value, A::Error> {
        let mut list = Vec::new();
        while let Some(Strict(item)) = items.next_element()? {
            list.push(item);
        }
        Ok(Value::Array(list))
    }

    fn visit_map<A: MapAccess<'de>>(self, mut entries: A) -> Result<Value, A::Error> {
        let mut map = Map::new();
        while let Some(key) = entries.next_key::<String>()? {
            // serde_json hands an arbitrary-precision number over as a map with this one key.
            if map.is_empty() && key == "$serde_json::private::Number" {
                let digits: String = entries.next_value()?;
                let number = digits.parse::<Number>().map_err(serde::de::Error::custom)?;
                return Ok(Value::Number(number));
            }
            let Strict(value) = entries.next_value()?;
            if map.insert(key.clone(), value).is_some() {
                return Err(serde::de::Error::custom(format!("key \"{key}\" is given twice")));
            }
        }
        Ok(Value::Object(map))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn key_order_and_typed_numbers_survive() {
        let text = r#"{"z":1.60,"a":[0,1.0,-2.50],"m":null}"#;
        assert_eq!(serde_json::to_string(&read(text).unwrap()).unwrap(), text);
    }

    #[test]
    fn a_key_given_twice_is_refused_by_name() {
        let fault = read(r#"{"engine":{"bore":"4 in","bore":"5 in"}}"#).unwrap_err();
        assert!(fault.given.contains("\"bore\" is given twice"), "{}", fault.given);
    }

    #[test]
    fn depth_and_size_are_bounded() {
        assert!(read(&"[".repeat(100_000)).is_err());
        assert!(read(&" ".repeat(MAX_BYTES + 1)).is_err());
    }
}
