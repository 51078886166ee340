//! The order of assembly: what waits for what, what of it is signed, and which session at the bench a line rests on.

mod lines;

use super::resolve::Resolved;
use crate::document::Side;
use crate::given::{Of, Source};
use crate::report::{AssemblyLine, AssemblyReport, LineState, SessionReport, SessionVerdict};
use crate::words::{LifterKind, Word};
use lines::{Line, lines};

/// Who signed a line or took that back last.
struct Signed {
    line: String,
    by: String,
    at: String,
    /// Why it was undone; empty where it was signed.
    undone: String,
}

/// Every line of this candidate with what was signed.
pub fn assembly(inputs: &Resolved, source: &Source<'_>, sessions: &[SessionReport]) -> AssemblyReport {
    let all = lines(inputs);
    let build = source.node(Of::Build, Side::Intake);
    let own = |text: &str| text.is_empty() || text == source.candidate_id();
    let log: Vec<Signed> = build
        .children("assembly")
        .iter()
        .filter(|entry| own(&entry.text("candidate")))
        .map(|entry| Signed {
            line: entry.text("line"),
            by: entry.text("by"),
            at: entry.text("at"),
            undone: entry.text("undone"),
        })
        .collect();
    // The last word on a line counts.
    let last = |id: &str| log.iter().rev().find(|own| own.line == id);
    let is_signed = |id: &str| last(id).is_some_and(|own| own.undone.is_empty());
    let told = |line: &Line| {
        let open: Vec<&Line> = line.waits.iter().filter_map(|id| all.iter().find(|own| own.id == *id)).collect();
        let open: Vec<&Line> = open.into_iter().filter(|own| !is_signed(own.id)).collect();
        let entry = last(line.id);
        let signed = entry.filter(|own| own.undone.is_empty());
        AssemblyLine {
            id: line.id.to_owned(),
            phase: line.phase.to_owned(),
            what: line.what.to_owned(),
            how: line.how.clone(),
            state: match (signed.is_some(), open.is_empty()) {
                (true, true) => LineState::Done,
                (true, false) => LineState::OutOfOrder,
                (false, true) => LineState::Open,
                (false, false) => LineState::Waits,
            },
            waits_for: open.iter().map(|own| own.what.to_owned()).collect(),
            by: signed.map(|own| own.by.clone()),
            at: signed.map(|own| own.at.clone()),
            undone: entry.filter(|own| !own.undone.is_empty()).map(|own| own.undone.clone()),
            session: line.session.map(|kind| kind.word().to_owned()),
            found: line.session.map(|kind| found(sessions, kind.word())),
        }
    };
    let lines: Vec<AssemblyLine> = all.iter().map(told).collect();
    let done = lines.iter().filter(|line| line.state == LineState::Done).count();
    AssemblyReport { lines, done, cautions: cautions(inputs) }
}

/// What the last session of a kind came to.
fn found(sessions: &[SessionReport], kind: &str) -> String {
    let own = sessions.iter().rev().find(|own| own.kind == kind);
    match own.map(|own| (own.verdict, own.next.is_some())) {
        None => "not measured yet",
        Some((SessionVerdict::Questioned, _)) => "measured, to be looked at again",
        Some((SessionVerdict::Unclear, _)) | Some((_, true)) => "begun",
        Some((SessionVerdict::Agrees, false)) => "measured, agrees",
        Some((SessionVerdict::Differs, false)) => "measured, differs from the plan",
    }
    .to_owned()
}

fn cautions(inputs: &Resolved) -> Vec<String> {
    let mut list = vec![
        "A compressed spring and its retainer can injure: a proper compressor, eye protection.".to_owned(),
        "Turn the engine by hand only, plugs or injectors out, while anything is checked.".to_owned(),
        "Heavy parts, sharp machined edges, solvents and hot caustic cleaning: lift with help, gloves, fresh air."
            .to_owned(),
        "The maker's sheet of each part, and a competent machinist, stand above every line of this.".to_owned(),
    ];
    if inputs.train(Side::Intake).lifter.kind.is_some_and(LifterKind::is_flat) {
        list.push("A flat cam is run in at once and never idles first: a lobe can be lost in minutes.".to_owned());
    }
    list
}
