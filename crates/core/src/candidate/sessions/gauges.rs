//! Compression and leak-down of all cylinders.

use super::cells::{number, si};
use super::session::Session;
use super::told::{Told, in_words, read};
use crate::bench::{compression_spread, leak_area, leak_share};
use crate::quantity::{Dimension, Pressure, Shown};
use crate::report::SessionFigure;

/// Least share of the best cylinder's compression that any other should have (common practice, no source).
const EVEN: f64 = 0.75;
/// Leaks that a fresh engine and a used one may have (common practice, no source).
const FRESH: f64 = 0.05;
const USED: f64 = 0.20;
/// Air outside, Pa.
const OUTSIDE: f64 = 101_325.0;

/// Gauges of all cylinders beside the best of them.
pub(super) fn compression(session: &Session<'_>) -> Told {
    let rows = session.node.cells("pressures");
    let all: Vec<(usize, f64)> = rows.iter().filter_map(|row| Some((number(row)?, si::<Pressure>(row, 1)?))).collect();
    let Some(share) = compression_spread(&all.iter().map(|own| own.1).collect::<Vec<f64>>()) else {
        return Told::unclear(rows.len(), "two cylinders are the least that can be compared");
    };
    let best = all.iter().map(|own| own.1).fold(0.0, f64::max);
    let figure = |(cylinder, pa): &(usize, f64)| SessionFigure {
        stands_out: *pa < EVEN * best,
        ..read(format!("Cylinder {cylinder}"), *pa, Dimension::Pressure)
    };
    let worst = all.iter().min_by(|a, b| a.1.total_cmp(&b.1)).map_or(0, |own| own.0);
    let says = format!("cylinder {worst} has {:.0} % of the best; 75 % is the least usually taken", 100.0 * share);
    Told { figures: all.iter().map(figure).collect(), says: Shown::plain(says), ..Told::unclear(rows.len(), "") }
        .judged()
}

/// What each cylinder loses of the supply, and its leak as so much of the tester's orifice.
pub(super) fn leak_down(session: &Session<'_>) -> Told {
    let rows = session.node.cells("leaks");
    let all: Vec<(usize, f64, f64)> = rows
        .iter()
        .filter_map(|row| Some((number(row)?, si::<Pressure>(row, 1)?, si::<Pressure>(row, 2)?)))
        .filter(|(_, supply, _)| *supply > 0.0)
        .collect();
    let mut told = Told::unclear(rows.len(), "");
    let mut worst: Option<(usize, f64)> = None;
    for (cylinder, supply, own) in all {
        if own > supply {
            told.questions
                .push(format!("cylinder {cylinder}: more pressure in it than is supplied; are the gauges exchanged?"));
            continue;
        }
        let share = leak_share(supply, own);
        let area = leak_area(supply + OUTSIDE, own + OUTSIDE, OUTSIDE);
        let words = format!("{:.0} %, a leak of {area:.2} of the tester's orifice", 100.0 * share);
        told.figures.push(SessionFigure {
            stands_out: share > USED,
            ..in_words(format!("Cylinder {cylinder}"), Shown::plain(words))
        });
        if worst.is_none_or(|(_, most)| share > most) {
            worst = Some((cylinder, share));
        }
    }
    let Some((cylinder, share)) = worst else {
        return Told {
            questions: told.questions,
            ..Told::unclear(rows.len(), "supply and cylinder gauge of each cylinder")
        };
    };
    let words = match share {
        share if share <= FRESH => "as a fresh engine's should be",
        share if share <= USED => {
            "more than a fresh engine's; where does it hiss: intake, exhaust, crankcase, coolant?"
        }
        _ => "too much to build on: where does it hiss: intake, exhaust, crankcase, coolant?",
    };
    told.says = Shown::plain(format!("cylinder {cylinder} loses most, {:.0} %: {words}", 100.0 * share));
    told.judged()
}
