//! The document as a form: every field of the table with what is given, assumed and allowed.

use super::difference::text_of;
use super::edit::bare_unit;
use super::field::{Field, Kind, Object};
use super::path::{get, join};
use super::rows::{field_at, spoken_label};
use super::tabular::columns_of;
use crate::quantity::{Dimension, Shown, UnitSystem, parse, shown};
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
    /// What a sentence calls it, where no group stands around it.
    pub spoken: String,
    /// One sentence of help.
    pub help: String,
    /// What a refused value would need.
    pub needs: Shown,
    /// Text as typed, or the default; empty when unknown and for tables.
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
    /// Whether intake and exhaust may have their own.
    pub sided: bool,
    /// Whether it has a meaning beside the words its neighbours hold.
    pub applies: bool,
    /// Rows and columns, for tables.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub table: Option<FormTable>,
}

/// A table as a form shows it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FormTable {
    /// Its columns.
    pub columns: Vec<FormColumn>,
    /// Texts as typed, row by row.
    pub rows: Vec<Vec<String>>,
    /// Most rows.
    pub most: usize,
}

/// A column of a table.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FormColumn {
    /// Heading.
    pub label: String,
    /// Unit of a bare number when inches are shown; empty for other kinds.
    pub unit_inch: String,
    /// Unit of a bare number when metric is shown.
    pub unit_metric: String,
    /// The words of a closed list.
    pub choices: Vec<String>,
}

/// Every field of the document, in the builder's order, for the candidate at `index`.
pub fn form_fields(document: &Value, index: usize) -> Vec<FormField> {
    let mut walk = Walk { root: document, index, fields: Vec::new() };
    walk.object(&super::BUILD, "");
    walk.fields
}

/// Every field of the session `id` at the bench; none where there is no such session.
pub fn session_fields(document: &Value, id: &str) -> Vec<FormField> {
    entry_fields(document, ("bench", &super::SESSION), id)
}

/// Every field of the pull `id`; none where there is no such pull.
pub fn pull_fields(document: &Value, id: &str) -> Vec<FormField> {
    entry_fields(document, ("pulls", &super::PULL), id)
}

/// Every field of the entry `id` of the service log; none where there is no such entry.
pub fn service_fields(document: &Value, id: &str) -> Vec<FormField> {
    entry_fields(document, ("service", &super::SERVICE_ENTRY), id)
}

/// Every field of the entry `id` of a list of objects at the top of the document.
fn entry_fields(document: &Value, (key, object): (&str, &'static Object), id: &str) -> Vec<FormField> {
    let entries = document.get(key).and_then(Value::as_array);
    let place = entries.and_then(|list| list.iter().position(|own| own["id"].as_str() == Some(id)));
    let mut walk = Walk { root: document, index: 0, fields: Vec::new() };
    if let Some(place) = place {
        walk.object(object, &format!("{key}[{place}]"));
    }
    walk.fields.retain(|field| field.applies || field.given);
    walk.fields
}

/// Lists whose entries are asked for one by one: they would be most of what every edit is answered with.
const BY_ENTRY: &[&str] = &["bench", "pulls", "service", "valve_motion"];

struct Walk<'a> {
    root: &'a Value,
    index: usize,
    fields: Vec<FormField>,
}

impl Walk<'_> {
    fn object(&mut self, object: &'static Object, path: &str) {
        let of_side = |side: &str| get(self.root, &join(path, side)).and_then(Value::as_object);
        let own = if object.sided { [of_side("intake"), of_side("exhaust")] } else { [None, None] };
        for field in object.fields {
            let at = join(path, field.key);
            // With both sides of their own, a value for both would say nothing.
            let split = own.iter().all(|side| side.is_some_and(|map| map.contains_key(field.key)));
            if !split {
                self.field(object, field, path, &at);
            }
            for (side, map) in ["intake", "exhaust"].into_iter().zip(own) {
                if map.is_some_and(|map| map.contains_key(field.key)) {
                    let own = join(path, side);
                    self.field(object, field, path, &join(&own, field.key));
                }
            }
        }
    }

    /// One field of `object`, which stands at `path`; the field itself at `at`, which may be one side's own.
    fn field(&mut self, object: &'static Object, field: &'static Field, path: &str, at: &str) {
        let before = self.fields.len();
        self.kind(&field.kind, at, object.sided);
        // What an object's own fields hang on is theirs to say, unless the object has no meaning itself.
        if !self.applies(object, field, path, at) {
            for made in &mut self.fields[before..] {
                made.applies = false;
            }
        }
    }

    /// Whether the neighbour that gives a field its meaning says that it has one; so does a neighbour that says nothing, unless
    /// it has no meaning itself.
    fn applies(&self, object: &'static Object, field: &'static Field, path: &str, at: &str) -> bool {
        let Some((key, words)) = field.when else { return true };
        let own = object.field(key);
        let beside = at.rsplit_once('.').and_then(|(parent, _)| get(self.root, &join(parent, key)));
        if let Some(held) = beside.or_else(|| get(self.root, &join(path, key))) {
            return words.contains(&text_of(held).as_str());
        }
        if !own.is_none_or(|own| self.applies(object, own, path, at)) {
            return false;
        }
        own.and_then(|own| own.default).is_none_or(|word| words.contains(&word))
    }

    fn kind(&mut self, kind: &'static Kind, path: &str, sided: bool) {
        match kind {
            Kind::Object(object) if columns_of(object).is_none() => self.object(object, path),
            Kind::List { of, .. } if path == "candidates" => {
                let own = format!("{path}[{}]", self.index);
                if get(self.root, &own).is_some() {
                    self.kind(of, &own, false);
                }
            }
            Kind::Patch => self.changes(path),
            _ if BY_ENTRY.contains(&path) => {}
            leaf => self.fields.extend(form_field(self.root, leaf, path, sided)),
        }
    }

    /// What a candidate changes in engine and target: only what is given.
    fn changes(&mut self, path: &str) {
        let before = self.fields.len();
        for (key, object) in [("engine", &super::ENGINE), ("target", &super::TARGET)] {
            if get(self.root, &join(path, key)).is_some() {
                self.object(object, &join(path, key));
            }
        }
        let changed = self.fields.split_off(before);
        self.fields.extend(changed.into_iter().filter(|field| field.given));
    }
}

fn form_field(root: &Value, kind: &'static Kind, path: &str, sided: bool) -> Option<FormField> {
    let row = field_at(path)?;
    let given = get(root, path);
    let parent = path.rsplit_once('.').map_or("", |(parent, _)| parent);
    let default = row.default_beside(|neighbour| get(root, &join(parent, neighbour)).map(text_of));
    let table = table_of(given, kind);
    let text = match given {
        _ if table.is_some() => String::new(),
        Some(value) => text_of(value),
        None => default.unwrap_or_default().to_owned(),
    };
    let si = kind.dimension().and_then(|d| parse(&text, d).ok());
    let (unit_inch, unit_metric) = units_of(kind);
    Some(FormField {
        field: path.to_owned(),
        label: row.label.to_owned(),
        spoken: spoken_label(path),
        help: row.doc.to_owned(),
        needs: Shown { inch: kind.needs_in(UnitSystem::Inch), metric: kind.needs_in(UnitSystem::Metric) },
        shown: kind.dimension().zip(si).map(|(d, si)| shown_beside(&text, si, d)),
        si,
        choices: choices_of(kind),
        unit_inch,
        unit_metric,
        source: source_of(root, path, given.is_none() && default.is_some()),
        given: given.is_some(),
        text,
        sided,
        applies: true,
        table,
    })
}

/// What stands beside a text: a column of water or mercury is read as one, not as psi.
fn shown_beside(text: &str, si: f64, dimension: Dimension) -> Shown {
    let column = ["inH2O", "inHg"].into_iter().any(|unit| text.trim_end().ends_with(unit));
    let both = shown(si, dimension);
    if column { Shown { inch: text.to_owned(), ..both } } else { both }
}

fn units_of(kind: &Kind) -> (String, String) {
    let unit = |system| kind.dimension().map_or_else(String::new, |d| bare_unit(kind, d, system).to_owned());
    (unit(UnitSystem::Inch), unit(UnitSystem::Metric))
}

fn choices_of(kind: &Kind) -> Vec<String> {
    match kind {
        Kind::Choice(words) => words.iter().map(|w| (*w).to_owned()).collect(),
        Kind::Flag => ["true", "false"].map(str::to_owned).to_vec(),
        _ => Vec::new(),
    }
}

/// The rows of a list, or of an object of parallel lists.
fn table_of(given: Option<&Value>, kind: &'static Kind) -> Option<FormTable> {
    match kind {
        Kind::List { of, max, .. } => {
            let items = given.and_then(Value::as_array).map_or(&[][..], Vec::as_slice);
            let rows = items.iter().map(|item| cells_of(item, of)).collect();
            Some(FormTable { columns: item_columns(of), rows, most: *max })
        }
        Kind::Object(object) => {
            let keys = columns_of(object)?;
            let list = |key: &str| given.and_then(|v| v.get(key)).and_then(Value::as_array);
            let lists: Vec<_> = keys.iter().map(|key| list(key).map_or(&[][..], Vec::as_slice)).collect();
            let count = lists.iter().map(|l| l.len()).max().unwrap_or(0);
            let rows = (0..count).map(|i| lists.iter().map(|l| l.get(i).map(text_of).unwrap_or_default()).collect());
            let column = |field: &'static Field| match &field.kind {
                Kind::List { of, .. } => column(field.label, of),
                kind => column(field.label, kind),
            };
            Some(FormTable { columns: object.fields.iter().map(column).collect(), rows: rows.collect(), most: 1440 })
        }
        _ => None,
    }
}

fn item_columns(of: &'static Kind) -> Vec<FormColumn> {
    match of {
        Kind::Row(kinds) => kinds.iter().map(|(label, kind)| column(label, kind)).collect(),
        Kind::Object(object) => object.fields.iter().map(|field| column(field.label, &field.kind)).collect(),
        scalar => vec![column("", scalar)],
    }
}

fn column(label: &str, kind: &Kind) -> FormColumn {
    let (unit_inch, unit_metric) = units_of(kind);
    FormColumn { label: label.to_owned(), unit_inch, unit_metric, choices: choices_of(kind) }
}

fn cells_of(item: &Value, of: &'static Kind) -> Vec<String> {
    match (of, item) {
        (Kind::Row(_), Value::Array(cells)) => cells.iter().map(text_of).collect(),
        (Kind::Object(object), Value::Object(map)) => {
            object.fields.iter().map(|field| map.get(field.key).map(text_of).unwrap_or_default()).collect()
        }
        (Kind::List { .. }, Value::Array(members)) => {
            vec![members.iter().map(text_of).collect::<Vec<_>>().join(" ")]
        }
        (_, other) => vec![text_of(other)],
    }
}

fn source_of(root: &Value, path: &str, assumed: bool) -> String {
    if assumed {
        return "assumed".to_owned();
    }
    let (parent, key) = path.rsplit_once('.').unwrap_or(("", path));
    let marks = if parent.is_empty() { root.get("sources") } else { get(root, parent).and_then(|p| p.get("sources")) };
    marks.and_then(|m| m.get(key)).and_then(Value::as_str).unwrap_or("unmarked").to_owned()
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn applies(lifter: &Value) -> Vec<String> {
        let document = json!({ "format": "upper-lobe.build", "version": 1, "name": "Rig",
            "candidates": [{ "id": "a", "name": "A", "train": { "lifter": lifter } }] });

        let own = |field: &FormField| field.field.strip_prefix("candidates[0].train.lifter.").map(str::to_owned);
        form_fields(&document, 0).iter().filter(|field| field.applies).filter_map(own).collect()
    }

    #[test]
    fn a_lifter_asks_only_for_what_its_kind_has() {
        let solid_roller = applies(&json!({ "kind": "solid_roller" }));
        assert_eq!(
            solid_roller,
            [
                "kind",
                "mass",
                "roller_diameter",
                "anti_rotation",
                "lash",
                "roller_width",
                "rated_speed",
                "rated_load",
                "body_diameter",
                "seat_height",
                "part",
                "price"
            ]
        );
        let of_unknown_kind = applies(&json!({}));
        assert_eq!(of_unknown_kind.len(), 25, "nothing is hidden while the kind is not known");
    }

    #[test]
    fn a_side_of_its_own_kind_asks_for_its_own() {
        let mixed = json!({ "kind": "solid_roller", "lash": "0.020 in", "exhaust": { "kind": "solid_flat", "face_diameter": "0.842 in" } });
        let fields = applies(&mixed);
        assert!(fields.contains(&"exhaust.face_diameter".to_owned()), "{fields:?}");
        assert!(!fields.contains(&"face_margin".to_owned()), "{fields:?}");
    }

    #[test]
    fn what_hangs_on_a_field_without_a_meaning_has_none_itself() {
        let asked = |kind: &str, more: Value| {
            let mut induction = json!({ "kind": kind });
            json_patch::merge(&mut induction, &more);
            let document = json!({ "format": "upper-lobe.build", "version": 1, "name": "Rig", "engine": { "induction": induction } });
            let fields = form_fields(&document, 0);
            let own = |key: &str| fields.iter().find(|f| f.field == format!("engine.induction.{key}")).unwrap().applies;
            ["charger", "turbine_efficiency", "wastegate"].map(own)
        };
        // A charger is a turbine where nobody says otherwise, but only where there is a charger.
        assert_eq!(asked("throttle", json!({})), [false, false, false]);
        assert_eq!(asked("boosted", json!({})), [true, true, true]);
        assert_eq!(asked("boosted", json!({ "charger": "blower" })), [true, false, false]);
    }
}
