//! What the stages found, in words: gaps with the fields that would close them, defaults that stood in.

use super::breathing::ESTIMATED_FLOW;
use super::resolve::{Gap, Part, Resolved};
use crate::cam::assumed_seat_timing;
use crate::document::{Ledger, Side};
use crate::given::Source;
use crate::report::{Block, Named};

/// A gap as a sentence, and the fields that would close it.
pub fn worded(gap: &Gap, source: &Source<'_>) -> (String, Vec<Named>) {
    let mut needs: Vec<Named> = Vec::new();
    for place in &gap.needs {
        let named = Named::at(source.path(*place));
        if !needs.contains(&named) {
            needs.push(named);
        }
    }
    let labels = || needs.iter().map(|named| named.label.as_str()).collect::<Vec<_>>().join("; ");
    let reason = match (gap.reason.is_empty(), needs.is_empty()) {
        (true, _) => format!("needs {}", labels()),
        (false, true) => gap.reason.clone(),
        (false, false) => format!("{}: needs {}", gap.reason, labels()),
    };
    (reason, needs)
}

/// A part as a block of the report.
pub fn block<T>(part: Part<T>, source: &Source<'_>) -> Block<T> {
    match part {
        Ok(value) => Block::Done(value),
        Err(gap) => {
            let (reason, needs) = worded(&gap, source);
            Block::Failed { reason, needs }
        }
    }
}

/// Notes what stood in for values that have no default in the table.
pub fn note_assumed(resolved: &Resolved, source: &Source<'_>, ledger: &Ledger) {
    for side in Side::BOTH {
        if let Some(deg) = assumed_seat_timing(&resolved.given, side) {
            let checks = source.path(resolved.given.lobe(side).at("checks"));
            let value = format!("{} duration at .006 in of about {deg:.0} deg", side.key());
            let why = "the card gives no seat timing: common allowance for this lifter kind, no source";
            ledger.assume(format!("{checks}.006"), &value, why);
        }
        let port = resolved.port(side);
        if port.flow.is_none() && port.valve_diameter.is_some() {
            ledger.assume(source.path(port.at("flow")), "estimated", ESTIMATED_FLOW);
        }
    }
}
