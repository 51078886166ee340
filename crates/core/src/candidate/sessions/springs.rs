//! Springs from the tester: which lie apart, and which goes under which valve with which shims so that seat loads are even.

use super::cells::{number, si};
use super::session::{Bench, Session};
use super::sisters::{by_valve, spread_of};
use super::told::{Told, beside, in_words, middle_of, sentence, valve};
use crate::bench::{Fitted, Tested, fitted, load_at};
use crate::candidate::spring::kit;
use crate::document::Side;
use crate::quantity::{Dimension, Force, Length, Shown, shown};
use crate::report::SessionFigure;
use crate::train::heights::piles;
use crate::words::SessionKind;
use serde_json::Value;

/// A spring tester, N, half width that holds 95 of 100 (common practice, no source: 2 lbf).
const TESTER: f64 = 2.0 * 4.448_221_6;
/// Springs of one set may lie apart by this share of their load (common practice, no source).
const APART: f64 = 0.10;

pub(super) fn told(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("loads");
    let springs = tested(&rows);
    let height = Side::BOTH.map(|side| bench.inputs.train(side).spring.installed_height.map(Length::si));
    let Some(at) = height[0].or(height[1]) else {
        return Told::unclear(rows.len(), "an installed height is needed to say what springs bear there");
    };
    let loads: Vec<(usize, f64)> =
        springs.iter().filter_map(|(number, spring)| Some((*number, load_at(spring, at)?))).collect();
    if loads.is_empty() {
        return Told::unclear(rows.len(), "two heights of each spring are the least: near the seat and near full lift");
    }
    let mean = loads.iter().map(|own| own.1).sum::<f64>() / loads.len() as f64;
    let mut told = Told::unclear(rows.len(), "");
    let mut sorted = loads.clone();
    sorted.sort_by(|a, b| a.1.total_cmp(&b.1));
    told.figures = sorted
        .iter()
        .map(|(number, load)| {
            let figure = beside(format!("Spring {number}"), (*load, mean), TESTER, Dimension::Force);
            SessionFigure { stands_out: (load - mean).abs() > APART * mean, ..figure }
        })
        .collect();
    told.questions.extend(rising(&springs));
    let spread = sorted[sorted.len() - 1].1 - sorted[0].1;
    let apart = sentence(spread, Dimension::Force, |by| format!("{} springs lie within {by} on the seat", loads.len()));
    let placed = placed(bench, &springs);
    told.says = match &placed {
        Some((fits, spread)) => {
            told.figures.extend(fits.iter().map(|own| own.figure(&springs)));
            let even = shown(*spread, Dimension::Force);
            let words =
                |apart: &str, even: &str| format!("{apart}; placed and shimmed as below, seat loads lie within {even}");
            Shown { inch: words(&apart.inch, &even.inch), metric: words(&apart.metric, &even.metric) }
        }
        None => apart,
    };
    told.judged()
}

/// Every spring with its readings, the tallest height first.
fn tested(rows: &[&[Value]]) -> Vec<(usize, Tested)> {
    let row = |row: &&[Value]| Some((number(row)?, si::<Length>(row, 1)?, si::<Force>(row, 2)?));
    let all: Vec<(usize, f64, f64)> = rows.iter().filter_map(row).collect();
    let mut numbers: Vec<usize> = all.iter().map(|own| own.0).collect();
    numbers.sort_unstable();
    numbers.dedup();
    let spring = |number: usize| {
        let mut points: Vec<(f64, f64)> = all.iter().filter(|own| own.0 == number).map(|own| (own.1, own.2)).collect();
        points.sort_by(|a, b| b.0.total_cmp(&a.0));
        (number, Tested(points))
    };
    numbers.into_iter().map(spring).collect()
}

/// Springs that bear less when they are shorter: their columns are exchanged, or a reading is wrong.
fn rising(springs: &[(usize, Tested)]) -> Vec<String> {
    let falls = |spring: &Tested| spring.0.windows(2).any(|two| two[1].1 <= two[0].1 && two[1].0 < two[0].0);
    let odd = springs.iter().filter(|(_, spring)| falls(spring));
    odd.map(|(number, _)| format!("spring {number} bears no more when it is shorter: are heights and loads exchanged?"))
        .collect()
}

/// A valve with its spring.
struct Place {
    cylinder: usize,
    side: Side,
    fit: Fitted,
}

impl Place {
    fn figure(&self, springs: &[(usize, Tested)]) -> SessionFigure {
        let number = springs[self.fit.spring].0;
        let thick = |own: &f64| shown(*own, Dimension::Length);
        let words = |of: fn(Shown) -> String| {
            let shims: Vec<String> = self.fit.shims.iter().map(|own| of(thick(own))).collect();
            let shims = if shims.is_empty() { "no shim".to_owned() } else { format!("shims {}", shims.join(" + ")) };
            let (height, load) =
                (of(shown(self.fit.height, Dimension::Length)), of(shown(self.fit.load, Dimension::Force)));
            format!("spring {number}, {shims}: {load} at {height}")
        };
        let read = Shown { inch: words(|own| own.inch), metric: words(|own| own.metric) };
        in_words(valve(self.cylinder, self.side), read)
    }
}

/// Springs under the valves whose heights were read, so that seat loads come nearest to what the middle one bears at the height
/// that is planned; and by how much they differ. `None` without heights, or with too few springs.
fn placed(bench: &Bench<'_>, springs: &[(usize, Tested)]) -> Option<(Vec<Place>, f64)> {
    let session = bench.all.iter().rev().find(|own| own.kind == SessionKind::InstalledHeights)?;
    let rows = session.node.cells("heights");
    let valves: Vec<(usize, Side, f64)> = Side::BOTH
        .into_iter()
        .flat_map(|side| by_valve(&rows, side, 2).into_iter().map(move |own| (own.cylinder, side, own.size.mean)))
        .collect();
    let heights: Vec<f64> = valves.iter().map(|own| own.2).collect();
    let tested: Vec<Tested> = springs.iter().map(|own| own.1.clone()).collect();
    let piles = piles(&kit(&bench.inputs.train(Side::Intake).heights));
    // What most of them bear at the height that is planned: one that lies apart does not move it.
    let nominal = bench.inputs.train(Side::Intake).spring.installed_height.map(Length::si)?;
    let wanted = middle_of(tested.iter().filter_map(|spring| load_at(spring, nominal)))?;
    let fits = fitted(&tested, &heights, &vec![wanted; heights.len()], &piles)?;
    let spread = spread_of(fits.iter().map(|own| own.load))?;
    let place =
        |((cylinder, side, _), fit): (&(usize, Side, f64), Fitted)| Place { cylinder: *cylinder, side: *side, fit };
    Some((valves.iter().zip(fits).map(place).collect(), spread))
}
