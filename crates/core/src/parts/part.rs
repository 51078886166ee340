//! One part of the shelf: what it is called, what it costs, and its fields as a build document would hold them.

use super::kind::PartKind;
use crate::document::{Fault, Faults, Kind, Object, check_object, in_a_sentence, text_of};
use crate::quantity::{Dimension, parse};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};

/// A part on the shelf; kind and name together tell it from others.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Part {
    /// What it is.
    pub kind: PartKind,
    /// What it is called; one name for one part of a kind.
    pub name: String,
    /// Of the set for an engine, or of one side's valves, with its currency.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<String>,
    /// How long it takes to come, in words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lead_time: Option<String>,
    /// The part it was made from by changing something.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub copy_of: Option<String>,
    /// Anything worth knowing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub notes: Option<String>,
    /// Its fields, as the build document writes them.
    #[cfg_attr(feature = "openapi", schema(value_type = Object))]
    pub fields: Map<String, Value>,
}

/// Longest name and longest note.
const NAME: usize = 120;
const NOTES: usize = 1000;

impl Part {
    /// The same part, checked, its fields in the order of the table.
    ///
    /// # Errors
    /// Every fault at once.
    pub fn checked(self) -> Result<Self, Faults> {
        let mut faults = Vec::new();
        let texts = [("name", Some(&self.name), NAME), ("lead_time", self.lead_time.as_ref(), NAME)];
        let more = [("copy_of", self.copy_of.as_ref(), NAME), ("notes", self.notes.as_ref(), NOTES)];
        for (key, text, most) in texts.into_iter().chain(more) {
            faults.extend(text.and_then(|text| text_fault(key, text, most)));
        }
        if let Some(price) = &self.price
            && !parse(price, Dimension::Money).is_ok_and(|amount| (0.0..=1e5).contains(&amount))
        {
            faults.push(Fault::new("price", price, "an amount of money with its currency, 0 USD to 100000 USD"));
        }
        let known = self.fields.iter().filter(|(key, _)| self.kind.knows(key) || !self.is_setting(key));
        let known: Map<String, Value> = known.map(|(key, value)| (key.clone(), value.clone())).collect();
        for key in self.fields.keys().filter(|key| !known.contains_key(*key)) {
            let needs = format!("a field of the {} itself", self.kind.word());
            faults.push(Fault::new(key.clone(), key, needs).cure("it is set when the part is fitted: leave it out"));
        }
        check_object(&Value::Object(known), self.kind.object(), "", &mut faults);
        // A part is one thing: what differs by side is two parts.
        if self.kind.object().sided {
            for side in ["intake", "exhaust"].into_iter().filter(|side| self.fields.contains_key(*side)) {
                faults.push(Fault::new(side, side, "one part for both sides").cure("make it two parts"));
            }
        }
        if self.fields.is_empty() {
            faults.push(Fault::new("fields", "none", "at least one field of the part"));
        }
        if !faults.is_empty() {
            return Err(Faults { faults });
        }
        let fields = in_order(self.fields, self.kind.object());
        Ok(Self { fields, ..self })
    }

    fn is_setting(&self, key: &str) -> bool {
        self.kind.settings().contains(&key) || matches!(key, "part" | "price" | "sources")
    }

    /// Its fields as they were typed, label and text, the most telling first.
    pub fn summary(&self) -> Vec<PartFigure> {
        let telling = self.kind.telling();
        let mut leaves = self.kind.leaves();
        leaves.sort_by_key(|(path, _)| telling.iter().position(|own| own == path).unwrap_or(telling.len()));
        let value = Value::Object(self.fields.clone());
        let figures = leaves.into_iter().filter_map(|(path, field)| {
            let found = crate::document::get(&value, &path)?;
            let text = match (&field.kind, found) {
                (Kind::Object(_), _) => "measured".to_owned(),
                (Kind::Choice(_), Value::String(word)) => word.replace('_', " "),
                _ => text_of(found),
            };
            let side = path.split_once('.').map(|(side, _)| format!("{side} ")).unwrap_or_default();
            Some(PartFigure {
                label: if side.is_empty() { field.label.to_owned() } else { side + &in_a_sentence(field.label) },
                text,
                telling: telling.contains(&path.as_str()),
            })
        });
        figures.collect()
    }
}

/// Fields in the order of their table, so that equal parts are equal texts.
fn in_order(mut fields: Map<String, Value>, object: &Object) -> Map<String, Value> {
    let mut sorted = Map::new();
    for field in object.fields {
        match (fields.shift_remove(field.key), &field.kind) {
            (Some(Value::Object(inner)), Kind::Object(table)) => {
                sorted.insert(field.key.to_owned(), Value::Object(in_order(inner, table)));
            }
            (Some(value), _) => {
                sorted.insert(field.key.to_owned(), value);
            }
            (None, _) => {}
        }
    }
    sorted
}

/// A figure of a part, as typed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PartFigure {
    /// What it is.
    pub label: String,
    /// As typed.
    pub text: String,
    /// Whether it tells this part from others of its kind.
    pub telling: bool,
}

/// Why a text is no name: too long, empty, or something a spreadsheet would take for a formula.
fn text_fault(key: &str, text: &str, most: usize) -> Option<Fault> {
    if text.trim().is_empty() || text.chars().count() > most || text.chars().any(char::is_control) {
        return Some(Fault::new(key, text, format!("a text of 1 to {most} characters in one line")));
    }
    let formula = text.starts_with(['=', '+', '-', '@']);
    formula.then(|| {
        let needs = "a text that does not begin with = + - or @";
        Fault::new(key, text, needs).cure("a spreadsheet would take it for a formula: begin with a letter")
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn part(kind: PartKind, fields: &Value) -> Part {
        let fields = fields.as_object().cloned().unwrap();
        let name = "Plain".to_owned();
        Part { kind, name, price: None, lead_time: None, copy_of: None, notes: None, fields }
    }

    #[test]
    fn every_fault_of_a_part_comes_at_once() {
        let bad = Part {
            name: "=1+1".to_owned(),
            price: Some("cheap".to_owned()),
            ..part(PartKind::Lifter, &json!({ "kind": "round", "lash": "0.016 in", "intake": {}, "colour": "blue" }))
        };
        let fields: Vec<String> = bad.checked().unwrap_err().faults.into_iter().map(|fault| fault.field).collect();
        assert_eq!(fields, ["name", "price", "lash", "kind", "colour", "intake"]);
    }

    #[test]
    fn settings_are_refused_and_recommended_ones_taken() {
        let spring = json!({ "form": "single", "installed_height": "1.8 in" });
        assert!(part(PartKind::Spring, &spring).checked().is_ok());
        let rocker = part(PartKind::Rocker, &json!({ "ratio": 1.6, "pivot_height": "0.1 in" }));
        assert_eq!(rocker.checked().unwrap_err().faults[0].field, "pivot_height");
    }

    #[test]
    fn a_summary_has_texts_as_typed() {
        let spring = part(PartKind::Spring, &json!({ "form": "beehive", "points": [["1.800 in", "136 lbf"]] }));
        let figures: Vec<String> = spring.summary().into_iter().map(|f| format!("{}: {}", f.label, f.text)).collect();
        assert_eq!(figures, ["Tester points: 1.800 in 136 lbf", "Form: beehive"]);
    }
}
