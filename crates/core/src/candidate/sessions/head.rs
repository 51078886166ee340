//! Heads: seats and guides, chambers and ports by burette, ports on the flow bench.

use super::cells::{number, si, whose, word};
use super::session::{Bench, Session};
use super::sisters::{of_all, spread_of};
use super::told::{Said, Told, beside, in_words, joined, middle_of, read, sentence, text, valve};
use crate::bench::repeated;
use crate::candidate::bench::BURETTE;
use crate::document::Side;
use crate::engine::read_cylinder;
use crate::given::{Of, Place};
use crate::quantity::{Dimension, Flow, INCH, Length, Pressure, Shown, Volume, shown, shown_fine};
use crate::report::SessionFigure;
use crate::words::{FilledOf, HeadCheck, Word};
use serde_json::Value;

/// Chambers of one set further apart than this are asked for, m^3 (common practice, no source: 3 cc).
const CHAMBERS: f64 = 3e-6;
/// A flow bench repeats within this share (common practice, no source).
const REPEATS: f64 = 0.015;
/// Flow below that of a lower lift by more than this share is asked for: ports turn, but seldom so much.
const FALLS: f64 = 0.05;

/// Most that a check may read, m (common practice, no source; the machinist's own sheet stands above it).
pub(super) const fn most(check: HeadCheck, side: Side) -> f64 {
    match (check, side) {
        (HeadCheck::SeatRunOut, _) => 0.002 * INCH,
        (HeadCheck::GuidePlay, Side::Intake) => 0.003 * INCH,
        (HeadCheck::GuidePlay, Side::Exhaust) => 0.004 * INCH,
        (HeadCheck::GuideOvality, _) => 0.0005 * INCH,
    }
}

/// Most play of a guide, m.
pub const fn most_play(side: Side) -> f64 {
    most(HeadCheck::GuidePlay, side)
}

/// Seats and guides, valve by valve.
pub(super) fn checks(session: &Session<'_>) -> Told {
    let rows = session.node.cells("checks");
    let mut told = Told::unclear(rows.len(), "");
    let mut notes = Vec::new();
    if session.node.word("cracks") == Some("found") {
        notes.push(Shown::plain("a crack was found: the head is a machinist's decision before anything else"));
    }
    for row in &rows {
        let Some(((cylinder, side), check, size)) = checked(row) else { continue };
        let (what, most) = (check.word().replace('_', " "), most(check, side));
        let name = valve(cylinder, side);
        let figure = in_words(format!("{name}, {what}"), shown_fine(size));
        told.figures.push(SessionFigure {
            expected: Some(shown_fine(most).said(|most| format!("at most {most}"))),
            stands_out: size > most,
            ..figure
        });
        if size > most {
            notes.push(shown_fine(size).said(|size| format!("{name}: {what} {size}")));
        }
    }
    if told.figures.is_empty() && notes.is_empty() {
        return Told::unclear(rows.len(), "run-out of every seat about its guide, play and ovality of every guide");
    }
    told.says = match notes.is_empty() {
        true if session.node.word("cracks").is_none() => {
            Shown::plain("seats and guides as they should be; cracks were not looked for yet")
        }
        true => Shown::plain("seats and guides as they should be"),
        false => joined(&notes, "; "),
    };
    let is_cracked = session.node.word("cracks") == Some("found");
    let told = told.judged();
    if is_cracked { told.differing() } else { told }
}

fn checked(row: &[Value]) -> Option<((usize, Side), HeadCheck, f64)> {
    Some((whose(row)?, HeadCheck::from_word(word(row, 2)?)?, si::<Length>(row, 3)?))
}

/// Chambers and ports as they were filled.
pub(super) fn volumes(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("volumes");
    let all: Vec<(usize, FilledOf, f64)> = rows.iter().filter_map(|row| filled(row)).collect();
    let mut told = Told::unclear(rows.len(), "cubic centimetres of each chamber, valves and plug in");
    let chambers: Vec<(usize, f64)> =
        all.iter().filter(|own| own.1 == FilledOf::Chamber).map(|own| (own.0, own.2)).collect();
    let sizes: Vec<f64> = chambers.iter().map(|own| own.1).collect();
    let engine = &bench.inputs.given.engine;
    if let Some((mean, doubt)) = of_all(&sizes, BURETTE) {
        told.figures.extend(chambers.iter().map(|(cylinder, size)| {
            let figure = beside(format!("Chamber {cylinder}"), (*size, mean), BURETTE, Dimension::Volume);
            SessionFigure { stands_out: (size - mean).abs() > CHAMBERS, ..figure }
        }));
        told.says = chamber_words(bench, &sizes);
        let planned = engine.chamber_volume.map(Volume::si);
        told.questions.extend(odd_chambers(&chambers));
        if planned.is_none_or(|planned| (mean - planned).abs() > BURETTE) && told.questions.is_empty() {
            let place = Place::new(Of::Engine, "chamber_volume", Side::Intake);
            let why = Shown::plain("mean of the chambers that were filled");
            told.said.push(Said::quantity(place, (mean, doubt), Dimension::Volume, why));
        }
    }
    for (of, side) in [(FilledOf::IntakePort, Side::Intake), (FilledOf::ExhaustPort, Side::Exhaust)] {
        let own: Vec<f64> = all.iter().filter(|own| own.1 == of).map(|own| own.2).collect();
        let Some((mean, doubt)) = of_all(&own, BURETTE) else { continue };
        told.figures.push(read(format!("{} port", capital(side)), mean, Dimension::Volume));
        // Only the intake's is a field: waves feel what its runner holds.
        if side == Side::Intake {
            let place = Place::new(Of::Port, "port_volume", side);
            told.said.push(Said::quantity(place, (mean, doubt), Dimension::Volume, Shown::plain("as filled")));
        }
    }
    if told.figures.is_empty() { told } else { told.judged() }
}

const fn capital(side: Side) -> &'static str {
    match side {
        Side::Intake => "Intake",
        Side::Exhaust => "Exhaust",
    }
}

fn filled(row: &[Value]) -> Option<(usize, FilledOf, f64)> {
    Some((number(row)?, FilledOf::from_word(word(row, 1)?)?, si::<Volume>(row, 2)?))
}

/// How far chambers spread, and compression with them.
fn chamber_words(bench: &Bench<'_>, sizes: &[f64]) -> Shown {
    let spread = spread_of(sizes.iter().copied()).unwrap_or(0.0);
    let within = sentence(spread, Dimension::Volume, |by| format!("{} chambers within {by}", sizes.len()));
    let ratio = |size: f64| {
        let mut engine = bench.inputs.given.engine.clone();
        engine.chamber_volume = Some(Volume::from_si(size));
        read_cylinder(&engine).ok()?.compression_ratio()
    };
    let ends = (sizes.iter().copied().reduce(f64::max), sizes.iter().copied().reduce(f64::min));
    let Some((low, high)) = ends.0.and_then(ratio).zip(ends.1.and_then(ratio)) else { return within };
    joined(&[within, Shown::plain(format!("compression {low:.2} to {high:.2}"))], ", ")
}

fn odd_chambers(chambers: &[(usize, f64)]) -> Vec<String> {
    let middle = middle_of(chambers.iter().map(|own| own.1)).unwrap_or(0.0);
    let odd = chambers.iter().filter(|own| chambers.len() > 2 && (own.1 - middle).abs() > CHAMBERS);
    let twice = |cylinder: usize| chambers.iter().filter(|own| own.0 == cylinder).count() > 1;
    odd.filter(|own| !twice(own.0))
        .map(|(cylinder, size)| {
            let by = shown((size - middle).abs(), Dimension::Volume).metric;
            format!("chamber {cylinder} lies {by} from its sisters: a bubble, or a valve that leaks? Fill it again")
        })
        .collect()
}

/// Ports at lifts, as the flow table takes them.
pub(super) fn flows(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let rows = session.node.cells("flows");
    let mut told = Told::unclear(rows.len(), "flow of a port at each lift, and the depression it was held at");
    let mut notes = Vec::new();
    for side in Side::BOTH {
        let points = flow_points(&rows, side);
        let Some(best) = points.iter().map(|own| own.1).reduce(f64::max) else { continue };
        told.figures.extend(points.iter().map(|(lift, flow)| flow_figure(bench, side, (*lift, *flow))));
        told.questions.extend(falling(&points, side));
        notes.push(sentence(best, Dimension::Flow, |best| format!("{} flows at most {best}", side.key())));
        if points.len() > 1 {
            let row = |(lift, flow): &(f64, f64)| vec![text(*lift, Dimension::Length), text(*flow, Dimension::Flow)];
            let rows = points.iter().map(row).collect();
            told.said.push(Said::rows(Place::new(Of::Port, "flow", side), rows, Shown::plain("as read")));
        }
        if let Some(depression) = session.node.quantity::<Pressure>("depression") {
            let place = Place::new(Of::Port, "flow_depression", side);
            let to = super::told::To::Text(session.node.text("depression"));
            let now = bench.inputs.port(side).flow_depression;
            if now != Some(depression) {
                told.said.push(Said { place, to, doubt: None, why: Shown::plain("as the bench was held") });
            }
        }
    }
    if told.figures.is_empty() {
        return told;
    }
    if session.node.quantity::<Pressure>("depression").is_none() {
        told.questions.push("at which depression? The same flow is another port's at another one".to_owned());
    }
    if !told.questions.is_empty() {
        told.said.clear();
    }
    told.says = joined(&notes, ", ");
    told.judged()
}

/// Mean flow at every lift, the lowest first.
fn flow_points(rows: &[&[Value]], side: Side) -> Vec<(f64, f64)> {
    let own = rows.iter().filter(|row| word(row, 0) == Some(side.key()));
    let all: Vec<(f64, f64)> = own.filter_map(|row| Some((si::<Length>(row, 1)?, si::<Flow>(row, 2)?))).collect();
    let mut lifts: Vec<f64> = all.iter().map(|own| own.0).collect();
    lifts.sort_by(f64::total_cmp);
    lifts.dedup();
    let mean = |lift: &f64| {
        let own: Vec<f64> = all.iter().filter(|own| own.0 == *lift).map(|own| own.1).collect();
        Some((*lift, repeated(&own)?.mean))
    };
    lifts.iter().filter_map(mean).collect()
}

fn flow_figure(bench: &Bench<'_>, side: Side, (lift, flow): (f64, f64)) -> SessionFigure {
    let label = format!("{} at {}", capital(side), shown(lift, Dimension::Length).inch);
    let table = bench.inputs.port(side).flow.as_deref().unwrap_or_default();
    let near = table.iter().find(|own| (own.0.si() - lift).abs() < 1e-6);
    match near {
        Some((_, stood)) => beside(label, (flow, stood.si()), REPEATS * stood.si(), Dimension::Flow),
        None => read(label, flow, Dimension::Flow),
    }
}

/// Flow that falls much while the valve opens.
fn falling(points: &[(f64, f64)], side: Side) -> Vec<String> {
    let falls = points.windows(2).filter(|two| two[1].1 < (1.0 - FALLS) * two[0].1);
    falls
        .map(|two| {
            let at = shown(two[1].0, Dimension::Length).inch;
            format!("{} flow falls at {at}: exchanged rows, or does the port turn there? Read it again", side.key())
        })
        .collect()
}
