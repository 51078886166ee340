//! Lobes mapped by dial or caliper: each against the card, its sisters and its turn.

use super::cells::{si, whose};
use super::session::{Bench, Session};
use super::told::{Said, To, Told, beside, joined, middle_of, read, sentence, signed, valve};
use crate::bench::{Compared, caliper_lift, compared, mapped};
use crate::candidate::breathing::firing;
use crate::document::{Node, Side};
use crate::given::{Of, Place};
use crate::quantity::{Angle, Dimension, INCH, Length, Shown, shown};
use crate::report::{SessionFigure, SessionVerdict};
use crate::words::{AnglesOf, Word};
use serde_json::Value;

/// A lobe lower than most of its sisters by this is worn, or ground wrongly (common practice, no source), and lifts by dial or
/// caliper are good to this, m.
const WORN: f64 = 0.003 * INCH;
const SURE: f64 = 0.001 * INCH;
/// Lobes stand where they should within this, crank deg (common practice, no source).
const STANDS: f64 = 1.0;
/// Fewest points of a map that can stand for a lobe: every ten degrees of the cam.
const MEASURED: usize = 36;
/// A base may run out by this, m.
const RUNS_OUT: f64 = 0.001 * INCH;

/// One lobe as it was read.
struct Lobe {
    cylinder: usize,
    side: Side,
    lift: f64,
    /// Crank degrees of its middle by the wheel, of a map.
    centre: Option<f64>,
    runs_out: f64,
}

pub(super) fn told(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let (maps, readings) = maps(&session.node);
    let calipers = calipers(&session.node);
    let count = readings + calipers.len();
    let lobes: Vec<Lobe> = maps.into_iter().chain(calipers).collect();
    if lobes.is_empty() {
        return Told::unclear(
            count,
            "a lobe wants nine points that go up and down again, or nose to heel with its base",
        );
    }
    let mut told = Told::unclear(count, "");
    let mut notes: Vec<Shown> = Vec::new();
    for side in Side::BOTH {
        let own: Vec<&Lobe> = lobes.iter().filter(|lobe| lobe.side == side).collect();
        if own.is_empty() {
            continue;
        }
        let beside = sisters(bench, &own);
        told.figures.extend(own.iter().zip(&beside).flat_map(|(lobe, beside)| figures(bench, lobe, beside)));
        for (lobe, beside) in own.iter().zip(&beside) {
            notes.extend(note(lobe, beside));
        }
        let all: Vec<(&Lobe, &(f64, Option<f64>))> = own.iter().copied().zip(&beside).collect();
        told.said.extend(lobe_said(session, side, &all).or_else(|| lift_said(bench, side, &own)));
    }
    let runs_out = lobes.iter().filter(|lobe| lobe.runs_out > RUNS_OUT);
    told.questions.extend(runs_out.map(|lobe| {
        let by = shown(lobe.runs_out, Dimension::Length).inch;
        format!(
            "{}: its base runs out by {by}; is the dial square, and the core straight?",
            valve(lobe.cylinder, lobe.side)
        )
    }));
    if notes.is_empty() {
        told.says = Shown::plain("lobes agree with each other");
        return told.judged();
    }
    Told { verdict: SessionVerdict::Differs, says: joined(&notes, "; "), ..told }
}

/// The mapped lobes, in crank degrees, and how many readings they are.
fn maps(node: &Node<'_>) -> (Vec<Lobe>, usize) {
    let rows = node.cells("lobes");
    let mut order: Vec<(usize, Side)> = Vec::new();
    for own in rows.iter().filter_map(|row| whose(row)) {
        if !order.contains(&own) {
            order.push(own);
        }
    }
    let map = |own: &(usize, Side)| {
        let found = mapped(&points(node, *own))?;
        Some(Lobe {
            cylinder: own.0,
            side: own.1,
            lift: found.lift,
            centre: Some(found.centre),
            runs_out: found.runs_out,
        })
    };
    (order.iter().filter_map(map).collect(), rows.len())
}

/// What was read of one lobe: crank degrees, rising, and the dial.
fn points(node: &Node<'_>, of: (usize, Side)) -> Vec<(f64, f64)> {
    let of_cam = node.word("angles").and_then(AnglesOf::from_word) != Some(AnglesOf::Crank);
    let scale = if of_cam { 2.0 } else { 1.0 };
    let point = |row: &&[Value]| Some((scale * si::<Angle>(row, 2)?.to_degrees(), si::<Length>(row, 3)?));
    let rows = node.cells("lobes");
    let mut points: Vec<(f64, f64)> = rows.iter().filter(|row| whose(row) == Some(of)).filter_map(point).collect();
    points.sort_by(|a, b| a.0.total_cmp(&b.0));
    points
}

/// The first mapped lobe of a side that has points enough and is as high as most, in the place of the card's.
fn lobe_said(session: &Session<'_>, side: Side, lobes: &[(&Lobe, &(f64, Option<f64>))]) -> Option<Said> {
    let is_sound = |(lobe, beside): &&(&Lobe, &(f64, Option<f64>))| lobe.centre.is_some() && beside.0.abs() <= WORN;
    let lobe = lobes.iter().find(is_sound)?.0;
    let points = points(&session.node, (lobe.cylinder, side));
    let base = points.iter().map(|own| own.1).fold(f64::MAX, f64::min);
    let row = |(deg, dial): &(f64, f64)| format!("{:.3} {:.5} mm\n", 0.5 * deg, 1e3 * (dial - base));
    let text: String = points.iter().map(row).collect();
    let place = Place::new(Of::Lobe, "profile", side);
    let why = Shown::plain(format!("as cylinder {} was mapped", lobe.cylinder));
    (points.len() >= MEASURED).then_some(Said { place, to: To::Lobe(text, points.len()), doubt: None, why })
}

fn calipers(node: &Node<'_>) -> Vec<Lobe> {
    let one = |row: &[Value]| {
        let (cylinder, side) = whose(row)?;
        let lift = caliper_lift(si::<Length>(row, 2)?, si::<Length>(row, 3)?);
        (lift > 0.0).then_some(Lobe { cylinder, side, lift, centre: None, runs_out: 0.0 })
    };
    node.cells("calipers").into_iter().filter_map(one).collect()
}

/// Lobes of one side beside each other; places only where all were mapped on one wheel.
fn sisters(bench: &Bench<'_>, lobes: &[&Lobe]) -> Vec<(f64, Option<f64>)> {
    let turns = firing(bench.inputs, bench.inputs.given.engine.cylinders.map_or(8, |count| count as usize));
    let all: Vec<(f64, f64)> = lobes.iter().map(|lobe| (lobe.lift, lobe.centre.unwrap_or(0.0))).collect();
    let turn: Vec<f64> = lobes.iter().map(|lobe| turns.get(lobe.cylinder - 1).copied().unwrap_or(0.0)).collect();
    let is_mapped = lobes.len() > 2 && lobes.iter().all(|lobe| lobe.centre.is_some());
    let beside = |own: Compared| (own.lift, is_mapped.then(|| own.late - 720.0 * (own.late / 720.0).round()));
    compared(&all, &turn).into_iter().map(beside).collect()
}

fn figures(bench: &Bench<'_>, lobe: &Lobe, (_, late): &(f64, Option<f64>)) -> Vec<SessionFigure> {
    let name = valve(lobe.cylinder, lobe.side);
    let card = bench.inputs.given.lobe(lobe.side).lobe_lift.map(Length::si);
    let lift = match card {
        Some(card) => beside(format!("{name}, lift"), (lobe.lift, card), WORN, Dimension::Length),
        None => read(format!("{name}, lift"), lobe.lift, Dimension::Length),
    };
    let place = late.map(|late| SessionFigure {
        off: Some(signed(late.to_radians(), Dimension::Angle)),
        stands_out: late.abs() > STANDS,
        ..read(format!("{name}, from where its sisters put it"), late.abs().to_radians(), Dimension::Angle)
    });
    std::iter::once(lift).chain(place).collect()
}

/// What is wrong with a lobe beside its sisters.
fn note(lobe: &Lobe, (lift, late): &(f64, Option<f64>)) -> Option<Shown> {
    let name = valve(lobe.cylinder, lobe.side);
    if *lift < -WORN {
        return Some(sentence(-lift, Dimension::Length, |by| {
            format!("{name} is worn: {by} less than most of its sisters")
        }));
    }
    if *lift > WORN {
        return Some(sentence(*lift, Dimension::Length, |by| {
            format!("{name} stands {by} higher than most: is it another lobe?")
        }));
    }
    let late = late.filter(|late| late.abs() > STANDS)?;
    let way = if late > 0.0 { "late" } else { "early" };
    Some(Shown::plain(format!("{name} is ground {:.1} deg {way}", late.abs())))
}

/// Lobe lift as most lobes have it, where it is not the card's.
fn lift_said(bench: &Bench<'_>, side: Side, lobes: &[&Lobe]) -> Option<Said> {
    let most = middle_of(lobes.iter().map(|lobe| lobe.lift))?;
    let lobe = bench.inputs.given.lobe(side);
    let card = lobe.lobe_lift.map(Length::si)?;
    let why = sentence((most - card).abs(), Dimension::Length, |by| {
        format!("most {} lobes lift {by} {} than the card", side.key(), if most > card { "more" } else { "less" })
    });
    let place = Place::new(Of::Lobe, "lobe_lift", side);
    ((most - card).abs() > SURE).then(|| Said::quantity(place, (most, SURE), Dimension::Length, why))
}
