//! The build document: JSON as people exchange it, checked against one table, read into typed parts.
//!
//! [`Build::read`] refuses with every fault at once or returns a document everything after may
//! trust. The text stays as typed; edits change only the keys they name.

mod check;
mod consistency;
mod difference;
mod edit;
mod fault;
mod field;
mod form;
mod merge;
mod node;
mod path;
mod schema;
mod strict_json;
mod table;
mod tabular;

pub use difference::{Difference, differences};
pub use edit::{field_label, kind_of, set_field, set_source};
pub use fault::{Fault, Faults};
pub use field::{Field, Kind, Object};
pub use form::{FormColumn, FormField, FormTable, form_fields};
pub use merge::{Conflict, Merge, Take, adopt, merge};
pub use node::{Assumed, InputUsed, Ledger, Node, Origin, Side};
pub use path::{Step, get, join, steps};
pub use schema::json_schema;
pub use strict_json::MAX_BYTES;
pub use table::{
    BUILD, CALIBRATION, CAM, CANDIDATE, ENGINE, EXHAUST_PORT, FORMAT, INTAKE_PORT, LIFTER, LIMIT_IDS, LOBE, PULL,
    PUSHROD, RETAINER, ROCKER, SHELF_VALVE, SHOP_LIMIT, SOURCES, SPRING, TARGET, TRAIN, VERSION, limit_dimension,
    limit_figure,
};
pub use tabular::{cells, paste, set_rows};

pub(crate) use check::check_object;
pub(crate) use difference::text_of;
pub(crate) use edit::value_of;
pub(crate) use tabular::{columns_of, table_of};

use serde_json::Value;

/// A checked build document.
#[derive(Debug, Clone, PartialEq)]
pub struct Build {
    value: Value,
}

/// One candidate with the engine and target it sees, its `changes` merged in.
#[derive(Debug, Clone, PartialEq)]
pub struct CandidateView {
    /// Place in the document.
    pub index: usize,
    /// Stable identifier.
    pub id: String,
    /// Name as given.
    pub name: String,
    engine: Value,
    target: Value,
    candidate: Value,
    limits: Value,
    calibration: Value,
    pull: Value,
}

impl Build {
    /// Reads and checks a document.
    pub fn read(text: &str) -> Result<Self, Faults> {
        Self::from_value(strict_json::read(text)?)
    }

    /// Checks a value that is already JSON.
    pub fn from_value(value: Value) -> Result<Self, Faults> {
        let mut faults = Vec::new();
        refuse_newer(&value, &mut faults);
        if faults.is_empty() {
            check::check_object(&value, &BUILD, "", &mut faults);
        }
        if faults.is_empty() {
            consistency::check(&value, &mut faults);
        }
        if faults.is_empty() { Ok(Self { value }) } else { Err(Faults { faults }) }
    }

    /// A build with nothing in it but its name and an empty candidate.
    pub fn blank(name: &str) -> Result<Self, Faults> {
        Self::from_value(serde_json::json!({
            "format": FORMAT, "version": VERSION, "name": name,
            "target": {}, "engine": {}, "candidates": [{ "id": "a", "name": "A" }],
        }))
    }

    /// The document as JSON.
    pub const fn value(&self) -> &Value {
        &self.value
    }

    /// The document as text: two-space indented, key order and typed numbers kept.
    pub fn text(&self) -> String {
        Self::text_of(&self.value)
    }

    /// The same of a value that is not checked yet.
    pub fn text_of(value: &Value) -> String {
        // A JSON value with string keys always prints.
        serde_json::to_string_pretty(value).unwrap_or_default()
    }

    /// The build's name.
    pub fn name(&self) -> &str {
        self.value.get("name").and_then(Value::as_str).unwrap_or_default()
    }

    /// The candidates in order.
    pub fn candidates(&self) -> Vec<CandidateView> {
        let list = self.value.get("candidates").and_then(Value::as_array);
        let items = list.into_iter().flatten().enumerate();
        items.map(|(index, candidate)| self.view(index, candidate)).collect()
    }

    /// What all candidates share, as a candidate with nothing of its own.
    pub fn shared(&self) -> CandidateView {
        self.view(usize::MAX, &Value::Null)
    }

    fn view(&self, index: usize, candidate: &Value) -> CandidateView {
        let word = |key: &str| candidate.get(key).and_then(Value::as_str).unwrap_or_default().to_owned();
        let merged = |key: &str| {
            let mut part = self.value.get(key).cloned().unwrap_or(Value::Null);
            if let Some(patch) = candidate.get("changes").and_then(|c| c.get(key)) {
                json_patch::merge(&mut part, patch);
            }
            part
        };
        CandidateView {
            index,
            id: word("id"),
            name: word("name"),
            engine: merged("engine"),
            target: merged("target"),
            candidate: candidate.clone(),
            limits: self.value.get("limits").cloned().unwrap_or(Value::Null),
            calibration: self.value.get("calibration").cloned().unwrap_or(Value::Null),
            pull: self.pull_of(index, &word("id")).cloned().unwrap_or(Value::Null),
        }
    }

    /// The pull, when it is of this candidate: the one it names, or the first.
    fn pull_of(&self, index: usize, id: &str) -> Option<&Value> {
        let pull = self.value.get("pull")?;
        let own = pull.get("candidate").and_then(Value::as_str).map_or(index == 0, |named| named == id);
        own.then_some(pull)
    }

    /// What a dyno measured.
    pub fn pull<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(self.value.get("pull"), &PULL, "pull", ledger)
    }

    /// The shared engine, without any candidate's changes.
    pub fn engine<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(self.value.get("engine"), &ENGINE, "engine", ledger)
    }
}

impl CandidateView {
    /// What was learned from a pull.
    pub fn calibration<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(Some(&self.calibration), &CALIBRATION, "calibration", ledger)
    }

    /// What a dyno measured of this candidate.
    pub fn pull<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(Some(&self.pull), &PULL, "pull", ledger)
    }

    /// The engine as this candidate sees it.
    pub fn engine<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        let path = format!("candidates[{}].changes.engine", self.index);
        Node::new(Some(&self.engine), &ENGINE, "engine", ledger).changed_by(self.changes("engine"), &path)
    }

    fn changes(&self, key: &str) -> Option<&Value> {
        self.candidate.get("changes").and_then(|changes| changes.get(key))
    }

    /// The target as this candidate sees it.
    pub fn target<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        let path = format!("candidates[{}].changes.target", self.index);
        Node::new(Some(&self.target), &TARGET, "target", ledger).changed_by(self.changes("target"), &path)
    }

    /// The shop's own limits.
    pub fn shop_limits<'a>(&'a self, ledger: &'a Ledger) -> Vec<Node<'a>> {
        let items = self.limits.as_array().into_iter().flatten().enumerate();
        items.map(|(i, item)| Node::new(Some(item), &SHOP_LIMIT, &format!("limits[{i}]"), ledger)).collect()
    }

    /// The candidate itself.
    pub fn node<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        let path = format!("candidates[{}]", self.index);
        Node::new(Some(&self.candidate), &CANDIDATE, &path, ledger)
    }
}

/// The refusal of a candidate that is not there, naming those that are.
pub(crate) fn unknown_candidate(field: &str, id: &str, views: &[CandidateView]) -> Fault {
    let ids: Vec<_> = views.iter().map(|v| v.id.as_str()).collect();
    Fault::new(field, id, format!("one of {}", ids.join(", ")))
}

/// A document of a newer version is refused for that reason alone, not for keys it may well have.
fn refuse_newer(value: &Value, faults: &mut Vec<Fault>) {
    if let Some(version) = value.get("version").and_then(Value::as_i64)
        && version > VERSION
    {
        let needs = format!("version {VERSION} or older");
        faults.push(
            Fault::new("version", &version.to_string(), needs)
                .cure("open it with a newer Upper Lobe, or save it there as this version"),
        );
    }
}
