//! Small things weighed and squeezed: clay between valve and piston, rockers in a stand.

use super::cells::{si, word};
use super::session::{Bench, Session};
use super::sisters::of_all;
use super::told::{Said, Told, beside, joined, read, sentence};
use crate::bench::repeated;
use crate::candidate::bench::CLAY;
use crate::document::Side;
use crate::given::{Of, Place};
use crate::quantity::{Dimension, Length, Mass, Shown};
use crate::words::{ClayAt, Word};
use serde_json::Value;

/// A bench scale under a stand's arm, kg, half width that holds 95 of 100 (common practice, no source: .2 g).
const SCALE: f64 = 0.2e-3;

/// The thinnest clay under each valve.
pub(super) fn clay(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("clays");
    let mut told = Told::unclear(rows.len(), "thinnest clay under each valve, and beside its edge");
    let mut notes = Vec::new();
    for side in Side::BOTH {
        let least = bench.closest(side);
        for at in ClayAt::ALL {
            let Some(size) = squeezed(&rows, side, *at) else { continue };
            let label = format!("{}, {}", side.key(), at.word());
            let expected = least.as_ref().and_then(|own| match at {
                ClayAt::Floor => Some(own.normal.si()),
                ClayAt::Wall => own.radial.map(Length::si),
            });
            told.figures.push(match expected {
                Some(expected) => beside(label.clone(), (size, expected), CLAY, Dimension::Length),
                None => read(label.clone(), size, Dimension::Length),
            });
            notes.push(sentence(size, Dimension::Length, |size| format!("{label} {size}")));
            let place = Place::new(Of::Clay, at.word(), side);
            told.said.push(Said::quantity(place, (size, CLAY), Dimension::Length, Shown::plain("as cut")));
        }
    }
    if told.figures.is_empty() {
        return told;
    }
    told.says = joined(&notes, ", ");
    told.judged()
}

fn squeezed(rows: &[&[Value]], side: Side, at: ClayAt) -> Option<f64> {
    let own = rows.iter().filter(|row| word(row, 0) == Some(side.key()) && word(row, 1) == Some(at.word()));
    // The thinnest of several cuts is what was left.
    own.filter_map(|row| si::<Length>(row, 2)).reduce(f64::min)
}

/// Rockers in a stand: what moves with the valve, and what both sides weigh.
pub(super) fn rockers(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("masses");
    let own: Vec<(f64, f64)> = rows.iter().filter_map(|row| Some((si::<Mass>(row, 1)?, si::<Mass>(row, 2)?))).collect();
    let tips: Vec<f64> = own.iter().map(|own| own.0).collect();
    let whole: Vec<f64> = own.iter().map(|own| own.0 + own.1).collect();
    let both = of_all(&tips, SCALE).zip(of_all(&whole, SCALE));
    let Some(((tip, tip_doubt), (mass, mass_doubt))) = both else {
        return Told::unclear(rows.len(), "grams of the tip side, then of the cup side");
    };
    let rocker = &bench.inputs.train(Side::Intake).rocker;
    let mut told = Told::unclear(rows.len(), "");
    let planned = [("Tip side", tip, rocker.tip_side_mass), ("Both sides", mass, rocker.mass)];
    told.figures = planned
        .into_iter()
        .map(|(label, found, planned)| match planned {
            Some(planned) => beside(label.to_owned(), (found, planned.si()), SCALE, Dimension::Mass),
            None => read(label.to_owned(), found, Dimension::Mass),
        })
        .collect();
    if repeated(&tips).is_some_and(|all| all.spread > 0.25 * all.mean) {
        told.questions.push("tip sides differ by a quarter: are both sides exchanged at one of them?".to_owned());
    }
    told.says = sentence(tip, Dimension::Mass, |tip| format!("{tip} move with the valve"));
    if told.questions.is_empty() {
        for (key, (found, doubt), planned) in
            [("tip_side_mass", (tip, tip_doubt), rocker.tip_side_mass), ("mass", (mass, mass_doubt), rocker.mass)]
        {
            if planned.is_none_or(|planned| (planned.si() - found).abs() > SCALE) {
                let place = Place::new(Of::Rocker, key, Side::Intake);
                let why = Shown::plain("mean of those that were weighed");
                told.said.push(Said::quantity(place, (found, doubt), Dimension::Mass, why));
            }
        }
    }
    told.judged()
}
