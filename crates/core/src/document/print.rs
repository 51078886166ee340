//! A document as text: two spaces a level, and a list of plain values in one line, as people write tables.

use serde_json::Value;

/// The text of `value`, with the order of its keys and its numbers as typed.
pub fn print(value: &Value) -> String {
    let mut text = String::new();
    put(value, 0, &mut text);
    text
}

fn put(value: &Value, level: usize, text: &mut String) {
    match value {
        Value::Object(map) if !map.is_empty() => {
            let items = map.iter().map(|(key, value)| (Some(key.as_str()), value));
            block(items, ['{', '}'], level, text);
        }
        Value::Array(items) if !items.is_empty() => {
            if items.iter().any(|item| item.is_object() || item.is_array()) {
                block(items.iter().map(|value| (None, value)), ['[', ']'], level, text);
                return;
            }
            text.push('[');
            for (place, item) in items.iter().enumerate() {
                text.push_str(if place == 0 { "" } else { ", " });
                text.push_str(&item.to_string());
            }
            text.push(']');
        }
        plain => text.push_str(&plain.to_string()),
    }
}

fn block<'v>(
    items: impl Iterator<Item = (Option<&'v str>, &'v Value)>,
    [open, close]: [char; 2],
    level: usize,
    text: &mut String,
) {
    text.push(open);
    for (place, (key, value)) in items.enumerate() {
        text.push_str(if place == 0 { "\n" } else { ",\n" });
        indent(level + 1, text);
        if let Some(key) = key {
            text.push_str(&Value::from(key).to_string());
            text.push_str(": ");
        }
        put(value, level + 1, text);
    }
    text.push('\n');
    indent(level, text);
    text.push(close);
}

fn indent(level: usize, text: &mut String) {
    text.extend(std::iter::repeat_n("  ", level));
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::read_json;

    #[test]
    fn tables_stand_row_by_row_and_the_text_reads_back_as_it_was() {
        let text = r#"{
  "name": "A \"quoted\" name",
  "empty": [],
  "none": {},
  "order": [1, 8, 4.50],
  "flow": [
    ["0.100 in", "64 cfm"],
    ["0.200 in", "128 cfm"]
  ],
  "ports": [
    {
      "at": "5 mm"
    }
  ]
}"#;
        let value = read_json(text).unwrap();
        assert_eq!(print(&value), text);
        assert_eq!(read_json(&print(&value)).unwrap(), value);
    }
}
