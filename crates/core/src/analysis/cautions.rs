//! Sentences a builder should read beside what the limits say.

use crate::candidate::Resolved;
use crate::document::{CandidateView, Side};
use crate::words::LifterKind;

/// Cautions that belong to what the document says; what holds for both sides is said once.
pub fn warn(resolved: &Resolved, view: &CandidateView, warnings: &mut Vec<String>) {
    let [intake, exhaust] = Side::BOTH.map(|side| cautions(resolved, side));
    for caution in &intake {
        let whose = if exhaust.contains(caution) { "" } else { "intake " };
        warnings.push(format!("{}: {whose}{caution}", view.name));
    }
    for caution in exhaust.iter().filter(|caution| !intake.contains(caution)) {
        warnings.push(format!("{}: exhaust {caution}", view.name));
    }
    warnings.extend(engine(resolved).into_iter().map(|caution| format!("{}: {caution}", view.name)));
}

fn cautions(resolved: &Resolved, side: Side) -> Vec<&'static str> {
    let flat = resolved.train(side).lifter.kind.is_some_and(LifterKind::is_flat);
    let break_in = "flat lifters: break in with reduced spring load and the right oil, without idling; a lobe can be lost in minutes";
    if flat { vec![break_in] } else { Vec::new() }
}

/// What is odd about the engine as a whole.
fn engine(resolved: &Resolved) -> Vec<&'static str> {
    let dome = resolved.given.engine.piston_volume.is_some_and(|volume| volume.si() < 0.0);
    if dome {
        vec!["the piston has a dome: piston to head and to plug is not judged by the deck alone, check it by clay"]
    } else {
        Vec::new()
    }
}
