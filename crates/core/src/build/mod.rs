//! A whole build: a document whose fields are each in order and agree with each other.
//!
//! [`Build::read`] refuses with every fault at once or returns a document everything after may trust.

mod agreement;
mod consistency;

use crate::document::{
    BUILD, CandidateView, FORMAT, Fault, Faults, Ledger, Node, PULL, VERSION, candidates, check_object, print,
    read_json, shared,
};
use serde_json::Value;
use std::collections::HashSet;

/// A checked build document.
#[derive(Debug, Clone, PartialEq)]
pub struct Build {
    value: Value,
}

impl Build {
    /// Reads and checks a document.
    ///
    /// # Errors
    /// Every fault at once.
    pub fn read(text: &str) -> Result<Self, Faults> {
        Self::from_value(read_json(text)?)
    }

    /// Checks a value that is already JSON.
    ///
    /// # Errors
    /// Every fault at once.
    pub fn from_value(value: Value) -> Result<Self, Faults> {
        let mut faults = Vec::new();
        refuse_newer(&value, &mut faults);
        if faults.is_empty() {
            check_object(&value, &BUILD, "", &mut faults);
        }
        if faults.is_empty() {
            consistency::check(&value, &mut faults);
            agreement::check(&value, &mut faults);
            // What holds for both sides is met once for each.
            let mut met = HashSet::new();
            faults.retain(|fault| met.insert((fault.field.clone(), fault.needs.clone())));
        }
        if faults.is_empty() { Ok(Self { value }) } else { Err(Faults { faults }) }
    }

    /// A build with nothing in it but its name and an empty candidate.
    ///
    /// # Errors
    /// A name that is none.
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

    /// The document as text: two-space indented, a list of plain values in one line, key order and typed numbers kept.
    pub fn text(&self) -> String {
        Self::text_of(&self.value)
    }

    /// The same of a value that is not checked yet.
    pub fn text_of(value: &Value) -> String {
        print(value)
    }

    /// The build's name.
    pub fn name(&self) -> &str {
        self.value.get("name").and_then(Value::as_str).unwrap_or_default()
    }

    /// The last candidate as the document holds it.
    pub fn last_candidate(&self) -> Option<&Value> {
        self.value()["candidates"].as_array()?.last()
    }

    /// The same with this candidate in the place of the one at `index`, whose identifier it takes: what refers to it still does.
    ///
    /// # Errors
    /// What is wrong with it, every fault at once.
    pub fn with_candidate(&self, index: usize, candidate: &Value) -> Result<Self, Faults> {
        let mut value = self.value.clone();
        if let Some(place) = value["candidates"].get_mut(index) {
            let id = place["id"].clone();
            place.clone_from(candidate);
            if let Some(object) = place.as_object_mut() {
                object.insert("id".to_owned(), id);
            }
        }
        Self::from_value(value)
    }

    /// The candidates in order.
    pub fn candidates(&self) -> Vec<CandidateView<'_>> {
        candidates(&self.value)
    }

    /// What all candidates share, as a candidate with nothing of its own.
    pub fn shared(&self) -> CandidateView<'_> {
        shared(&self.value)
    }

    /// What a dyno measured.
    pub fn pull<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(self.value.get("pull"), &PULL, "pull", ledger)
    }
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
