//! What the stages found, in words: gaps with the fields that would close them, defaults that stood in.

use super::breathing::{BEARINGS_OF_BORE, ESTIMATED_FLOW, is_manifold_known, usual_manifold};
use super::resolve::{Gap, Part, Resolved};
use crate::cam::assumed_seat_timing;
use crate::document::{Ledger, Side};
use crate::given::{Place, Source};
use crate::quantity::{Dimension, UnitSystem, format_si};
use crate::report::{Block, Named};
use crate::words::Word;

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
    note_outside(resolved, source, ledger);
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

/// The same of what stands before and behind the ports, and of what rubs.
fn note_outside(resolved: &Resolved, source: &Source<'_>, ledger: &Ledger) {
    let (induction, engine) = (&resolved.given.induction, &resolved.given.engine);
    let primary = &resolved.given.primary;
    let note = |is_lacking: bool, place: Place, value: String, why: &str| {
        if is_lacking {
            ledger.assume(source.path(place), &value, why);
        }
    };
    if induction.is_given {
        let kind = usual_manifold(resolved).spoken();
        note(
            induction.manifold.is_none() && !is_manifold_known(induction),
            induction.at("manifold"),
            kind,
            "what such inductions usually have: common practice, no source",
        );
        note(
            induction.inlet_depression.is_none(),
            induction.at("inlet_depression"),
            "0 kPa".to_owned(),
            "an open inlet; an air box takes about 2.5 kPa",
        );
        note(
            induction.plenum_volume.is_none(),
            induction.at("plenum_volume"),
            "half the displacement".to_owned(),
            "common practice, no source",
        );
    }
    if primary.is_given {
        note(primary.back_pressure.is_none(), primary.at("back_pressure"), "0 kPa".to_owned(), "open pipes");
    }
    let (Some(bore), false) = (engine.bore, resolved.given.is_diesel()) else { return };
    let why = "of the bore, as V engines of the published friction data have it (SAE 890836, from memory)";
    let sized = |share: f64| format_si(share * bore.si(), Dimension::Length, UnitSystem::Inch);
    let [main, main_length, rod, rod_length] = BEARINGS_OF_BORE;
    note(engine.main_bearing_diameter.is_none(), engine.at("main_bearing_diameter"), sized(main), why);
    note(engine.main_bearing_length.is_none(), engine.at("main_bearing_length"), sized(main_length), why);
    note(engine.rod_bearing_diameter.is_none(), engine.at("rod_bearing_diameter"), sized(rod), why);
    note(engine.rod_bearing_length.is_none(), engine.at("rod_bearing_length"), sized(rod_length), why);
}
