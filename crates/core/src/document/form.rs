//! The document as a form: every field of the table with what is given, assumed and allowed.

use super::Build;
use super::edit::{bare_unit, field_at};
use super::field::{Kind, Object};
use super::path::{get, join};
use crate::quantity::{Shown, UnitSystem, parse, shown};
use serde::Serialize;
use serde_json::Value;

/// One field as a form shows it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FormField {
    /// Path in the document.
    pub field: String,
    /// What the form calls it.
    pub label: String,
    /// One sentence of help.
    pub help: String,
    /// What a refused value would need.
    pub needs: String,
    /// Text as typed, or the default; empty when unknown.
    pub text: String,
    /// In both displays, for quantities.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub shown: Option<Shown>,
    /// SI value, for quantities.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub si: Option<f64>,
    /// The words of a closed list.
    pub choices: Vec<String>,
    /// Unit of a bare number when inches are shown; empty for other kinds.
    pub unit_inch: String,
    /// Unit of a bare number when metric is shown.
    pub unit_metric: String,
    /// `measured`, `card`, `assumed`, or `unmarked`; a default in use is `assumed`.
    pub source: String,
    /// Whether the document gives it.
    pub given: bool,
}

/// Every scalar field of the document, in the builder's order, for the candidate at `index`.
pub fn form_fields(build: &Build, index: usize) -> Vec<FormField> {
    let mut fields = Vec::new();
    walk_object(build.value(), &super::BUILD, "", index, &mut fields);
    fields
}

fn walk_object(root: &Value, object: &'static Object, path: &str, index: usize, out: &mut Vec<FormField>) {
    for field in object.fields {
        walk_kind(root, &field.kind, &join(path, field.key), index, out);
    }
    if !object.sided {
        return;
    }
    for side in ["intake", "exhaust"] {
        let own = join(path, side);
        let given = get(root, &own).and_then(Value::as_object);
        for key in given.into_iter().flat_map(|map| map.keys()) {
            if let Some(field) = object.field(key) {
                walk_kind(root, &field.kind, &join(&own, key), index, out);
            }
        }
    }
}

fn walk_kind(root: &Value, kind: &'static Kind, path: &str, index: usize, out: &mut Vec<FormField>) {
    match kind {
        Kind::Object(object) => walk_object(root, object, path, index, out),
        Kind::List { of, .. } if path == "candidates" => {
            if get(root, &format!("{path}[{index}]")).is_some() {
                walk_kind(root, of, &format!("{path}[{index}]"), index, out);
            }
        }
        Kind::List { of, .. } => {
            let count = get(root, path).and_then(Value::as_array).map_or(0, Vec::len);
            for place in 0..count.min(MAX_ROWS) {
                walk_kind(root, of, &format!("{path}[{place}]"), index, out);
            }
        }
        Kind::Row(kinds) => {
            for (place, kind) in kinds.iter().enumerate() {
                walk_kind(root, kind, &format!("{path}[{place}]"), index, out);
            }
        }
        Kind::Patch => {}
        scalar => out.extend(form_field(root, scalar, path)),
    }
}

/// Rows of a long list that a form shows one by one.
const MAX_ROWS: usize = 40;

fn form_field(root: &Value, kind: &'static Kind, path: &str) -> Option<FormField> {
    let row = field_at(path)?;
    let given = get(root, path);
    let own_default = if path.ends_with(row.key) { row.default } else { None };
    let text = match given {
        Some(Value::String(text)) => text.clone(),
        Some(other) => other.to_string(),
        None => own_default.unwrap_or_default().to_owned(),
    };
    let si = kind.dimension().and_then(|d| parse(&text, d).ok());
    let units =
        kind.dimension().map(|d| (bare_unit(kind, d, UnitSystem::Inch), bare_unit(kind, d, UnitSystem::Metric)));
    let (unit_inch, unit_metric) = units.unwrap_or_default();
    let choices = match kind {
        Kind::Choice(words) => words.iter().map(|w| (*w).to_owned()).collect(),
        _ => Vec::new(),
    };
    Some(FormField {
        field: path.to_owned(),
        label: row.label.to_owned(),
        help: row.doc.to_owned(),
        needs: kind.needs(),
        shown: kind.dimension().zip(si).map(|(d, si)| shown(si, d)),
        si,
        choices,
        unit_inch: unit_inch.to_owned(),
        unit_metric: unit_metric.to_owned(),
        source: source_of(root, path, given.is_none() && own_default.is_some()),
        given: given.is_some(),
        text,
    })
}

fn source_of(root: &Value, path: &str, assumed: bool) -> String {
    if assumed {
        return "assumed".to_owned();
    }
    let (parent, key) = path.rsplit_once('.').unwrap_or(("", path));
    let marks = if parent.is_empty() { root.get("sources") } else { get(root, parent).and_then(|p| p.get("sources")) };
    marks.and_then(|m| m.get(key)).and_then(Value::as_str).unwrap_or("unmarked").to_owned()
}
