//! What the length of a pushrod rests on: stems, decks, pushrods with their places, and preload or lash as it was set.

use super::cells::{number, si, whose, word};
use super::session::{Bench, Session};
use super::sisters::{Sister, by_valve, far, of_all, spread_of};
use super::told::{Said, Told, beside, in_words, joined, read, sentence, text, valve};
use crate::bench::repeated;
use crate::candidate::bench_work::{cold_growth, matching_of};
use crate::candidate::follower::preload_band;
use crate::candidate::resolve::Gap;
use crate::document::Side;
use crate::given::{Needs, Of, Place, need};
use crate::quantity::{Dimension, INCH, Length, Shown, shown};
use crate::report::SessionFigure;
use crate::words::{BankEnd, CrownEdge, Word};
use serde_json::Value;

// Half widths that hold 95 of 100 (common practice, no source).
/// Stem height gauge, m.
const STEM: f64 = 0.002 * INCH;
/// Bridge with a dial, m.
const BRIDGE: f64 = 0.001 * INCH;
/// Feeler at a tip, m.
const FEELER: f64 = 0.001 * INCH;
/// Plunger travel by turns of an adjuster, m.
const TURNS: f64 = 0.005 * INCH;

/// A deck read further than this from the document, and near it with its sign turned, is asked for, m.
const TURNED: f64 = 0.004 * INCH;
/// A piston rocks by less than this from edge to edge, m (common practice, no source).
const ROCKS: f64 = 0.012 * INCH;

/// Heights of all stems, and what they make of preload or lash.
pub(super) fn stems(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("stems");
    let mut told = Told::unclear(rows.len(), "");
    let mut spreads = Vec::new();
    for side in Side::BOTH {
        let own = by_valve(&rows, side, 2);
        let sizes: Vec<f64> = own.iter().map(|own| own.size.mean).collect();
        let Some((mean, _)) = of_all(&sizes, STEM) else { continue };
        told.figures.extend(own.iter().map(|one| {
            let figure = beside(valve(one.cylinder, side), (one.size.mean, mean), STEM, Dimension::Length);
            SessionFigure { stands_out: false, ..figure }
        }));
        told.questions.extend(far(&own, side));
        let spread = spread_of(sizes.into_iter()).unwrap_or(0.0);
        spreads.push(stem_words(bench, side, spread));
    }
    if told.figures.is_empty() {
        return Told::unclear(rows.len(), "height of every stem above the seat of its spring");
    }
    told.says = joined(&spreads, "; ");
    told.judged()
}

/// How far stems spread, and preload with them where the train has no adjusters.
fn stem_words(bench: &Bench<'_>, side: Side, spread: f64) -> Shown {
    let within = sentence(spread, Dimension::Length, |by| format!("{} stems stand within {by}", side.key()));
    let is_hydraulic = bench.inputs.train(side).lifter.kind.is_some_and(|kind| kind.is_hydraulic());
    let Some(ratio) = ratio(bench, side).filter(|_| is_hydraulic) else { return within };
    let plunger = sentence(spread / ratio, Dimension::Length, |by| format!("which moves a plunger by {by}"));
    joined(&[within, plunger], ", ")
}

fn ratio(bench: &Bench<'_>, side: Side) -> Option<f64> {
    bench.inputs.side(side).lift.as_ref().ok().map(|lift| lift.ratio)
}

/// Pistons below the deck at the corners of each bank.
pub(super) fn decks(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("decks");
    let mut told = Told::unclear(rows.len(), "");
    let mut corners = Vec::new();
    for bank in 1..=bench.banks() {
        for end in BankEnd::ALL {
            let edge = |edge: &CrownEdge| deck_at(&rows, (bank, *end, *edge));
            let edges: Vec<f64> = CrownEdge::ALL.iter().filter_map(edge).collect();
            let [inside, outside] = edges[..] else { continue };
            corners.push(0.5 * (inside + outside));
            let label = format!("Bank {bank}, {}", end.word());
            told.figures.push(read(label.clone(), 0.5 * (inside + outside), Dimension::Length));
            if (inside - outside).abs() > ROCKS {
                let by = shown((inside - outside).abs(), Dimension::Length).inch;
                told.questions
                    .push(format!("{label}: its edges are {by} apart; was the piston held square, and above the pin?"));
            }
        }
    }
    let Some(mean) = repeated(&corners).map(|all| all.mean) else {
        return Told::unclear(
            rows.len(),
            "both edges of the piston at an end of a bank: their mean takes out the rock",
        );
    };
    let spread = spread_of(corners.iter().copied()).unwrap_or(0.0);
    let doubt = BRIDGE.max(0.5 * spread);
    told.says = sentence(spread, Dimension::Length, |by| format!("the corners lie within {by}"));
    let Some(planned) = bench.inputs.given.engine.deck_clearance.map(Length::si) else {
        return said_deck(told, (mean, doubt));
    };
    if (mean - planned).abs() > TURNED && (mean + planned).abs() < 0.5 * (mean - planned).abs() {
        told.questions.push("they fit with above and below exchanged: a piston below the deck is positive".to_owned());
    }
    told.figures.push(beside("All corners".to_owned(), (mean, planned), doubt, Dimension::Length));
    if (mean - planned).abs() > BRIDGE { said_deck(told, (mean, doubt)).judged() } else { told.judged() }
}

fn said_deck(mut told: Told, found: (f64, f64)) -> Told {
    if told.questions.is_empty() {
        let place = Place::new(Of::Engine, "deck_clearance", Side::Intake);
        let why = Shown::plain("mean of the corners, which spread as far as the tolerance says");
        told.said.push(Said::quantity(place, found, Dimension::Length, why));
    }
    told
}

fn deck_at(rows: &[&[Value]], (bank, end, edge): (usize, BankEnd, CrownEdge)) -> Option<f64> {
    let is_own = |row: &&&[Value]| {
        number(row) == Some(bank) && word(row, 1) == Some(end.word()) && word(row, 2) == Some(edge.word())
    };
    let own: Vec<f64> = rows.iter().filter(is_own).filter_map(|row| si::<Length>(row, 3)).collect();
    Some(repeated(&own)?.mean)
}

/// Pushrods and the length every place wants: which goes where.
pub(super) fn pushrods(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let (lengths, places) = (session.node.cells("lengths"), session.node.cells("places"));
    let mut told = Told::unclear(lengths.len() + places.len(), "");
    let rods = numbered(&lengths);
    let wanted: Vec<(usize, Side, f64)> = in_order(&places);
    for (what, values) in [
        ("pushrods", rods.iter().map(|own| own.1).collect::<Vec<f64>>()),
        ("places", wanted.iter().map(|own| own.2).collect()),
    ] {
        if let Some(spread) = spread_of(values.iter().copied()) {
            told.figures.push(read(format!("{} {what} spread by", values.len()), spread, Dimension::Length));
        }
    }
    for side in Side::BOTH {
        told.questions.extend(far(&by_valve(&places, side, 2), side));
    }
    if rods.is_empty() || wanted.is_empty() {
        return Told { says: Shown::plain("length of each pushrod, and the length that every place wants"), ..told };
    }
    let own = |of: fn(&(usize, f64)) -> f64| rods.iter().map(of).collect::<Vec<f64>>();
    let at: Vec<f64> = wanted.iter().map(|own| own.2).collect();
    let Some(pairs) = ratio(bench, Side::Intake)
        .and_then(|ratio| matching_of(bench.inputs, (&own(|rod| rod.1), &at), Side::Intake, ratio))
    else {
        return Told { says: Shown::plain("fewer pushrods than places"), ..told };
    };
    told.figures.extend(pairs.iter().map(|pair| {
        let (cylinder, side, _) = wanted[pair.place];
        let shims = if pair.shims == 0 { String::new() } else { format!(", {} shims under its stand", pair.shims) };
        let words = |left: &str| format!("pushrod {}{shims}: {left}", rods[pair.pushrod].0);
        in_words(valve(cylinder, side), sentence(pair.preload, Dimension::Length, words))
    }));
    let left = spread_of(pairs.iter().map(|pair| pair.preload)).unwrap_or(0.0);
    told.says = sentence(left, Dimension::Length, |by| format!("placed as below, preloads lie within {by}"));
    told.said = said_matching(bench, &rods, &wanted, told.questions.is_empty());
    told.judged()
}

/// Both tables of the matching, where every pushrod and every place was read.
fn said_matching(bench: &Bench<'_>, rods: &[(usize, f64)], wanted: &[(usize, Side, f64)], is_sure: bool) -> Vec<Said> {
    let count = bench.inputs.given.engine.cylinders.map_or(0, |count| 2 * count as usize);
    let in_turn = rods.iter().enumerate().all(|(place, rod)| rod.0 == place + 1);
    if !is_sure || !in_turn || wanted.len() != count {
        return Vec::new();
    }
    let row = |si: f64| vec![text(si, Dimension::Length)];
    let rows = |key: &'static str, rows: Vec<Vec<String>>| {
        Said::rows(Place::new(Of::Matching, key, Side::Intake), rows, Shown::plain("as read"))
    };
    let at = wanted.iter().map(|own| row(own.2)).collect();
    vec![rows("pushrods", rods.iter().map(|rod| row(rod.1)).collect()), rows("places", at)]
}

/// Mean length of everything that is numbered.
fn numbered(rows: &[&[Value]]) -> Vec<(usize, f64)> {
    let of = |number_of: usize| -> Vec<f64> {
        rows.iter().filter(|row| number(row) == Some(number_of)).filter_map(|row| si::<Length>(row, 1)).collect()
    };
    (1..=64).filter_map(|number| Some((number, repeated(&of(number))?.mean))).collect()
}

/// Mean of every valve, cylinder by cylinder, intake first.
fn in_order(rows: &[&[Value]]) -> Vec<(usize, Side, f64)> {
    let mut valves: Vec<(usize, Side)> = rows.iter().filter_map(|row| whose(row)).collect();
    valves.sort_by_key(|(cylinder, side)| (*cylinder, *side == Side::Exhaust));
    valves.dedup();
    let mean = |(cylinder, side): (usize, Side)| {
        let own = by_valve(rows, side, 2);
        let found = own.iter().find(|own| own.cylinder == cylinder)?;
        Some((cylinder, side, found.size.mean))
    };
    valves.into_iter().filter_map(mean).collect()
}

/// Preload or lash, valve by valve, against what is planned.
pub(super) fn adjustment(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("adjustments");
    let is_cold = session.node.word("engine_is") != Some("hot");
    let mut told = Told::unclear(rows.len(), "");
    let mut notes = Vec::new();
    for side in Side::BOTH {
        let own = by_valve(&rows, side, 2);
        if own.is_empty() {
            continue;
        }
        let wanted = match wanted(bench, side, is_cold) {
            Ok(wanted) => wanted,
            Err(gap) => return Told::lacking(rows.len(), gap),
        };
        told.figures.extend(own.iter().map(|one| {
            let label = format!("{}, {}", valve(one.cylinder, side), wanted.word);
            beside(label, (one.size.mean, wanted.planned), wanted.tool, Dimension::Length)
        }));
        told.questions.extend(far(&own, side));
        notes.extend(own.iter().filter_map(|one| wanted.note(one, side)));
        told.said.extend(wanted.said(&own, side));
    }
    if told.figures.is_empty() {
        return Told::unclear(
            rows.len(),
            "both valves of a cylinder at its firing top dead centre stand on their base circles",
        );
    }
    told.says = if notes.is_empty() { Shown::plain("as planned, or taken over below") } else { joined(&notes, "; ") };
    if !told.questions.is_empty() {
        told.said.clear();
    }
    told.judged()
}

/// What preload or lash should be.
pub(super) struct Wanted {
    word: &'static str,
    /// At this warmth, m.
    pub planned: f64,
    /// What it becomes hot, less what it is now, m.
    grows: f64,
    tool: f64,
    /// What it has to lie within, m.
    band: (f64, f64),
    key: &'static str,
}

pub(super) fn wanted(bench: &Bench<'_>, side: Side, is_cold: bool) -> Result<Wanted, Gap> {
    let lifter = &bench.inputs.train(side).lifter;
    let mut needs = Needs::default();
    if lifter.kind.is_some_and(|kind| kind.is_hydraulic()) {
        let planned = need!(needs, lifter.preload).si();
        needs.met(())?;
        let band = preload_band(lifter).unwrap_or((0.0, lifter.travel.map_or(f64::MAX, Length::si)));
        return Ok(Wanted { word: "preload", planned, grows: 0.0, tool: TURNS, band, key: "preload" });
    }
    needs.note(lifter.kind, lifter.at("kind"));
    let hot = need!(needs, lifter.lash).si();
    needs.met(())?;
    let ratio = bench.inputs.side(side).lift.clone()?.ratio;
    let grows = if is_cold { cold_growth(bench.inputs, side, ratio)? } else { 0.0 };
    Ok(Wanted { word: "lash", planned: hot - grows, grows, tool: FEELER, band: (0.0, f64::MAX), key: "lash" })
}

impl Wanted {
    /// What is wrong with one of them.
    fn note(&self, one: &Sister, side: Side) -> Option<Shown> {
        let (low, high) = self.band;
        let name = valve(one.cylinder, side);
        let size = one.size.mean;
        if size <= 0.0 {
            return Some(Shown::plain(format!("{name} has no {}", self.word)));
        }
        let way = if size < low { "less" } else { "more" };
        (!(low..=high).contains(&size)).then(|| {
            sentence(size, Dimension::Length, |found| format!("{name}: {found} is {way} than its school wants"))
        })
    }

    /// The mean of all as the lifter's own, hot.
    fn said(&self, own: &[Sister], side: Side) -> Option<Said> {
        let sizes: Vec<f64> = own.iter().map(|own| own.size.mean).collect();
        let (mean, doubt) = of_all(&sizes, self.tool)?;
        let why = Shown::plain(if self.grows == 0.0 { "mean of all" } else { "mean of all, and what it grows by hot" });
        let place = Place::new(Of::Lifter, self.key, side);
        let differs = (mean - self.planned).abs() > self.tool && mean > 0.0;
        differs.then(|| Said::quantity(place, (mean + self.grows, doubt), Dimension::Length, why))
    }
}
