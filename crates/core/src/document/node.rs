//! Typed reading of a checked document: side overrides, defaults, and the ledger of what was
//! assumed or missing.

use super::difference::text_of;
use super::field::{Field, Kind, Object, quantity_text};
use super::path::join;
use super::rows::spoken_label;
use crate::quantity::{OfDimension, parse};
use serde::Serialize;
use serde_json::{Map, Value};
use std::cell::RefCell;

/// Intake or exhaust.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, serde::Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// The intake valve.
    Intake,
    /// The exhaust valve.
    Exhaust,
}

impl Side {
    /// Both, intake first.
    pub const BOTH: [Self; 2] = [Self::Intake, Self::Exhaust];

    /// Its place in a pair.
    pub const fn index(self) -> usize {
        match self {
            Self::Intake => 0,
            Self::Exhaust => 1,
        }
    }

    /// The side of that key.
    pub fn of_key(key: &str) -> Option<Self> {
        Self::BOTH.into_iter().find(|side| side.key() == key)
    }

    /// The key in the document.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Intake => "intake",
            Self::Exhaust => "exhaust",
        }
    }
}

/// A default that was used.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Assumed {
    /// Path of the absent field.
    pub field: String,
    /// The text used.
    pub value: String,
    /// Why this value.
    pub why: String,
}

/// Where an input of a result comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Origin {
    /// Measured on the bench.
    Measured,
    /// From a card or a sheet.
    Card,
    /// Marked as assumed, or a default of the table.
    Assumed,
    /// Given without a mark.
    Unmarked,
    /// Computed from other inputs.
    Computed,
}

/// An input of a result with its origin.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct InputUsed {
    /// Path of the field.
    pub field: String,
    /// What it is called.
    pub label: String,
    /// The text used.
    pub value: String,
    /// Where it comes from.
    pub origin: Origin,
}

/// Collects the defaults that were used while a document is read.
#[derive(Debug, Default)]
pub struct Ledger(RefCell<Vec<Assumed>>);

impl Ledger {
    /// Notes an assumption once.
    pub fn assume(&self, field: String, value: &str, why: &str) {
        let mut list = self.0.borrow_mut();
        if !list.iter().any(|a| a.field == field) {
            list.push(Assumed { field, value: value.to_owned(), why: why.to_owned() });
        }
    }

    /// What was assumed, in the order it was used.
    pub fn into_assumed(self) -> Vec<Assumed> {
        self.0.into_inner()
    }
}

/// One object of a checked document, seen from one side.
#[derive(Clone)]
pub struct Node<'a> {
    /// The side's own fields first, then the plain ones.
    layers: Vec<(&'a Map<String, Value>, String)>,
    /// A candidate's own changes, which are in the layers already, and where they stand.
    changes: Option<(&'a Map<String, Value>, String)>,
    object: &'static Object,
    path: String,
    ledger: &'a Ledger,
}

impl<'a> Node<'a> {
    /// The object `value` at `path`; an absent or foreign value reads as an empty object.
    pub fn new(value: Option<&'a Value>, object: &'static Object, path: &str, ledger: &'a Ledger) -> Self {
        let layers = value.and_then(Value::as_object).map(|map| (map, path.to_owned())).into_iter().collect();
        Self { layers, changes: None, object, path: path.to_owned(), ledger }
    }

    /// The same object, knowing which of its fields a candidate changed and at which path it did.
    pub fn changed_by(mut self, changes: Option<&'a Value>, path: &str) -> Self {
        self.changes = changes.and_then(Value::as_object).map(|map| (map, path.to_owned()));
        self
    }

    /// The child object at `key`.
    pub fn child(&self, key: &str) -> Self {
        let object = match self.object.field(key).map(|f| &f.kind) {
            Some(Kind::Object(object)) => object,
            _ => self.object,
        };
        let child = Self::new(self.raw(key).map(|(value, _)| value), object, &join(&self.path, key), self.ledger);
        match &self.changes {
            Some((map, path)) => child.changed_by(map.get(key), &join(path, key)),
            None => child,
        }
    }

    /// The objects of the list at `key`.
    pub fn children(&self, key: &str) -> Vec<Self> {
        let Some(Kind::List { of: Kind::Object(object), .. }) = self.object.field(key).map(|f| &f.kind) else {
            return Vec::new();
        };
        let items = self.raw(key).and_then(|(value, _)| value.as_array());
        items
            .into_iter()
            .flatten()
            .enumerate()
            .map(|(place, item)| {
                let path = format!("{}[{place}]", self.path_of(key));
                Self::new(Some(item), object, &path, self.ledger)
            })
            .collect()
    }

    /// The same object with the overrides of `side` on top.
    pub fn side(mut self, side: Side) -> Self {
        let own = self.layers.first().and_then(|(map, _)| map.get(side.key()));
        if let (true, Some(Value::Object(own))) = (self.object.sided, own) {
            self.layers.insert(0, (own, join(&self.path, side.key())));
        }
        self
    }

    /// Path of the object.
    pub fn path(&self) -> &str {
        &self.path
    }

    /// Path of `key` where it stands, or where it would stand.
    pub fn path_of(&self, key: &str) -> String {
        if let Some((map, path)) = &self.changes
            && map.contains_key(key)
        {
            return join(path, key);
        }
        self.raw(key).map_or_else(|| join(&self.path, key), |(_, path)| path)
    }

    /// Whether `key` is given.
    pub fn has(&self, key: &str) -> bool {
        self.raw(key).is_some()
    }

    /// Whether the object is given at all.
    pub fn is_given(&self) -> bool {
        !self.layers.is_empty()
    }

    /// Notes an assumption that is not a default of the table.
    pub fn assume(&self, field: String, value: &str, why: &str) {
        self.ledger.assume(field, value, why);
    }

    /// Whether `key` says something here: it is given, or has a default and applies.
    pub fn stands(&self, key: &str) -> bool {
        let Some(field) = self.object.field(key) else { return self.has(key) };
        if self.has(key) { self.applies(field) } else { self.assumed(field).is_some() && self.uses(field) }
    }

    fn raw(&self, key: &str) -> Option<(&'a Value, String)> {
        debug_assert!(self.object.field(key).is_some(), "{key} is not in the table of {}", self.object.name);
        self.layers.iter().find_map(|(map, path)| map.get(key).map(|value| (value, join(path, key))))
    }

    fn default_of(&self, key: &str) -> Option<&'static str> {
        let field: &Field = self.object.field(key)?;
        let default = self.assumed(field)?;
        if self.uses(field) {
            self.note_default(key, default);
        }
        Some(default)
    }

    /// Whether a default of `field` stands for something: its object is there, or every engine has it, and the neighbour it
    /// hangs on says so.
    fn uses(&self, field: &Field) -> bool {
        let stands = self.is_given() || matches!(self.object.name, "ambient" | "target" | "engine" | "growth");
        let beside = field.beside.is_none_or(|neighbour| self.has(neighbour));
        stands && beside && self.applies(field)
    }

    /// Whether the neighbour that gives `field` its meaning says that it has one; a neighbour without a meaning says nothing.
    fn applies(&self, field: &Field) -> bool {
        field.when.is_none_or(|(neighbour, words)| {
            let own = self.object.field(neighbour);
            let word = self.word_given(neighbour);
            let word = word.or_else(|| Some(own.filter(|own| self.applies(own))?.default?.to_owned()));
            word.is_some_and(|word| words.contains(&word.as_str()))
        })
    }

    /// What is given at `key` as one word.
    fn word_given(&self, key: &str) -> Option<String> {
        self.raw(key).map(|(value, _)| value.as_str().map_or_else(|| value.to_string(), str::to_owned))
    }

    /// The text assumed while `field` is absent, by what its neighbours say.
    fn assumed(&self, field: &Field) -> Option<&'static str> {
        field.default_beside(|neighbour| self.word_given(neighbour))
    }

    fn note_default(&self, key: &str, default: &str) {
        self.ledger.assume(join(&self.path, key), default, "default of the table: common practice, no source");
    }

    /// The quantity at `key` or its default.
    pub fn quantity<Q: OfDimension>(&self, key: &str) -> Option<Q> {
        let text = match self.raw(key) {
            Some((value, _)) => quantity_text(value, Q::DIMENSION)?,
            None => self.default_of(key)?.into(),
        };
        parse(&text, Q::DIMENSION).ok().map(Q::of_si)
    }

    /// The number at `key` or its default.
    pub fn number(&self, key: &str) -> Option<f64> {
        match self.raw(key) {
            Some((value, _)) => value.as_f64(),
            None => self.default_of(key)?.parse().ok(),
        }
    }

    /// How many items the list at `key` has.
    pub fn count(&self, key: &str) -> Option<usize> {
        self.raw(key)?.0.as_array().map(Vec::len)
    }

    /// The word or text at `key` or its default.
    pub fn word(&self, key: &str) -> Option<&'a str> {
        match self.raw(key) {
            Some((value, _)) => value.as_str(),
            None => self.default_of(key),
        }
    }

    /// The quantities of a list of texts.
    pub fn quantities<Q: OfDimension>(&self, key: &str) -> Option<Vec<Q>> {
        let (value, _) = self.raw(key)?;
        value.as_array()?.iter().map(of_value).collect()
    }

    /// The texts of a list.
    pub fn words(&self, key: &str) -> Vec<&'a str> {
        let items = self.raw(key).and_then(|(value, _)| value.as_array());
        items.into_iter().flatten().filter_map(Value::as_str).collect()
    }

    /// The numbers of a list.
    pub fn numbers(&self, key: &str) -> Option<Vec<f64>> {
        let (value, _) = self.raw(key)?;
        value.as_array()?.iter().map(Value::as_f64).collect()
    }

    /// The lists of numbers of a list.
    pub fn number_lists(&self, key: &str) -> Option<Vec<Vec<f64>>> {
        let (value, _) = self.raw(key)?;
        value.as_array()?.iter().map(|list| list.as_array()?.iter().map(Value::as_f64).collect()).collect()
    }

    /// The rows of a two-column table.
    pub fn rows<A: OfDimension, B: OfDimension>(&self, key: &str) -> Option<Vec<(A, B)>> {
        let (value, _) = self.raw(key)?;
        let rows = value.as_array()?.iter();
        rows.map(|row| Some((of_value(row.get(0)?)?, of_value(row.get(1)?)?))).collect()
    }

    /// The rows of a table of any kinds, as they are written; none where it is not given.
    pub fn cells(&self, key: &str) -> Vec<&'a [Value]> {
        let rows = self.raw(key).and_then(|(value, _)| value.as_array());
        rows.into_iter().flatten().filter_map(|row| row.as_array().map(Vec::as_slice)).collect()
    }

    /// How many entries the list at `key` has.
    pub fn entries(&self, key: &str) -> usize {
        self.raw(key).and_then(|(value, _)| value.as_array()).map_or(0, Vec::len)
    }

    /// What is given at `key`, as text; empty where nothing is.
    pub fn text(&self, key: &str) -> String {
        self.raw(key).map(|(value, _)| text_of(value)).unwrap_or_default()
    }

    /// `key` as an input of a result, with its text and origin.
    pub fn input(&self, key: &str) -> InputUsed {
        let field = self.path_of(key);
        match self.raw(key) {
            None => {
                let value = self.object.field(key).and_then(|f| self.assumed(f)).unwrap_or("unknown");
                InputUsed { label: spoken_label(&field), field, value: value.to_owned(), origin: Origin::Assumed }
            }
            Some((value, _)) => {
                let text = match value {
                    // A table is named by its size: its rows stand in the document.
                    Value::Array(rows) => format!("{} rows", rows.len()),
                    Value::Object(_) => "a table".to_owned(),
                    plain => text_of(plain),
                };
                InputUsed { label: spoken_label(&field), field, value: text, origin: self.mark(key) }
            }
        }
    }

    fn mark(&self, key: &str) -> Origin {
        let layer = self.layers.iter().find(|(map, _)| map.contains_key(key));
        let word = layer.and_then(|(map, _)| map.get("sources")).and_then(|s| s.get(key)).and_then(Value::as_str);
        match word {
            Some("measured") => Origin::Measured,
            Some("card") => Origin::Card,
            Some("assumed") => Origin::Assumed,
            _ => Origin::Unmarked,
        }
    }
}

/// A quantity as a table's cell holds it.
pub fn of_value<Q: OfDimension>(value: &Value) -> Option<Q> {
    parse(value.as_str()?, Q::DIMENSION).ok().map(Q::of_si)
}
