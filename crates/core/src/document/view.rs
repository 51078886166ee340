//! One candidate of a document as values, its own changes merged in.

use super::fault::Fault;
use super::node::{Ledger, Node};
use super::table::{BUILD, CALIBRATION, CANDIDATE, ENGINE, PULL, SHOP_LIMIT, TARGET};
use serde_json::Value;
use std::borrow::Cow;

/// One candidate with the engine and target it sees, its `changes` merged in.
#[derive(Debug, Clone, PartialEq)]
pub struct CandidateView<'d> {
    /// Place in the document.
    pub index: usize,
    /// Stable identifier.
    pub id: String,
    /// Name as given.
    pub name: String,
    engine: Cow<'d, Value>,
    target: Cow<'d, Value>,
    candidate: &'d Value,
    limits: &'d Value,
    calibration: &'d Value,
    pull: &'d Value,
    build: &'d Value,
}

/// The candidates of a document in order.
pub fn candidates(document: &Value) -> Vec<CandidateView<'_>> {
    let list = document.get("candidates").and_then(Value::as_array);
    list.into_iter().flatten().enumerate().map(|(index, candidate)| view(document, index, candidate)).collect()
}

/// What all candidates share, as a candidate with nothing of its own.
pub fn shared(document: &Value) -> CandidateView<'_> {
    view(document, usize::MAX, &NOTHING)
}

/// Stands where a document has nothing.
static NOTHING: Value = Value::Null;

fn view<'d>(document: &'d Value, index: usize, candidate: &'d Value) -> CandidateView<'d> {
    let word = |key: &str| candidate.get(key).and_then(Value::as_str).unwrap_or_default().to_owned();
    let shared = |key: &str| document.get(key).unwrap_or(&NOTHING);
    let merged = |key: &str| match candidate.get("changes").and_then(|c| c.get(key)) {
        None => Cow::Borrowed(shared(key)),
        Some(patch) => {
            let mut part = shared(key).clone();
            json_patch::merge(&mut part, patch);
            Cow::Owned(part)
        }
    };
    CandidateView {
        index,
        id: word("id"),
        name: word("name"),
        engine: merged("engine"),
        target: merged("target"),
        candidate,
        limits: shared("limits"),
        calibration: shared("calibration"),
        pull: pull_of(document, index, &word("id")).unwrap_or(&NOTHING),
        build: document,
    }
}

/// The pull, when it is of this candidate: the one it names, or the first.
fn pull_of<'a>(document: &'a Value, index: usize, id: &str) -> Option<&'a Value> {
    let pull = document.get("pull")?;
    let own = pull.get("candidate").and_then(Value::as_str).map_or(index == 0, |named| named == id);
    own.then_some(pull)
}

impl CandidateView<'_> {
    /// The whole document: what stands beside target, engine and candidates.
    pub fn build<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(Some(self.build), &BUILD, "", ledger)
    }

    /// What was learned from a pull.
    pub fn calibration<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(Some(self.calibration), &CALIBRATION, "calibration", ledger)
    }

    /// What a dyno measured of this candidate.
    pub fn pull<'a>(&'a self, ledger: &'a Ledger) -> Node<'a> {
        Node::new(Some(self.pull), &PULL, "pull", ledger)
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
        Node::new(Some(self.candidate), &CANDIDATE, &path, ledger)
    }
}

/// The candidate of that identifier, or the first.
pub(crate) fn candidate_or_first<'v, 'd>(
    views: &'v [CandidateView<'d>],
    id: Option<&str>,
) -> Result<&'v CandidateView<'d>, Fault> {
    let found = match id {
        Some(id) => views.iter().find(|view| view.id == id),
        None => views.first(),
    };
    found.ok_or_else(|| unknown_candidate("candidate", id.unwrap_or_default(), views))
}

/// The refusal of a candidate that is not there, naming those that are.
pub(crate) fn unknown_candidate(field: &str, id: &str, views: &[CandidateView<'_>]) -> Fault {
    let ids: Vec<_> = views.iter().map(|v| v.id.as_str()).collect();
    Fault::new(field, id, format!("one of {}", ids.join(", ")))
}
