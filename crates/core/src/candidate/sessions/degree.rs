//! A cam degreed in against the document's lobe, centreline and separation.

use super::cells::{si, word};
use super::session::{Bench, Session};
use super::told::{Said, Told, beside, sentence};
use crate::bench::{Cranked, Degreed, Expected, Misread, Read, degreed, misread, wheel_error};
use crate::cam::Flank;
use crate::candidate::bench::WHEEL;
use crate::candidate::resolve::{Part, full_lift_at};
use crate::document::{Node, Side};
use crate::given::{Of, Place};
use crate::quantity::{Angle, Dimension, INCH, Length, Shown, shown};
use crate::report::SessionFigure;
use serde_json::Value;

/// A dial on the lifter, m, half width that holds 95 of 100 (common practice, no source).
const DIAL: f64 = 0.001 * INCH;
/// Two readings of one place may differ by this, deg; beyond, the wheel has slipped or one was misread.
const REPEATS: f64 = 1.5;
/// Middles at several heights may differ by this, deg: another flank than the card's moves them by less.
const APART: f64 = 2.0;

pub(super) fn told(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let read = readings(&session.node);
    let count = read.len();
    let expected = match expected(bench, session) {
        Ok(expected) => expected,
        Err(gap) => return Told::lacking(count, gap),
    };
    let zero = zero_of(bench, session);
    let read: Vec<Read> = read.into_iter().map(|own| Read { deg: own.deg - zero.unwrap_or(0.0), ..own }).collect();
    if let Some(how) = misread(&read, &expected) {
        return Told { questions: vec![question(how)], ..Told::unclear(count, "these readings cannot be as they are") };
    }
    let Some(found) = degreed(&read, &expected) else {
        return Told::unclear(count, "one height on both flanks is the least that tells anything");
    };
    let doubt = doubt(&found, zero.is_some());
    Told {
        figures: figures(&found, (&expected, centreline(bench, session.side)), session, doubt),
        says: says(&found, bench, doubt),
        questions: questions(&found),
        said: said(&found, bench, session, doubt),
        ..Told::unclear(count, "")
    }
    .judged()
}

/// Rows of height, flank and wheel.
fn readings(node: &Node<'_>) -> Vec<Read> {
    let one = |row: &[Value]| {
        Some(Read {
            height: si::<Length>(row, 0)?,
            flank: if word(row, 1)? == "opening" { Flank::Opening } else { Flank::Closing },
            deg: si::<Angle>(row, 2)?.to_degrees(),
        })
    };
    node.cells("readings").into_iter().filter_map(one).collect()
}

/// Where the document's lobe should pass.
pub(super) fn expected<'a>(bench: &'a Bench<'_>, session: &Session<'_>) -> Part<Expected<'a>> {
    let own = bench.inputs.side(session.side);
    let (lobe, phasing) = (own.lobe()?, bench.inputs.phasing.clone()?);
    // A steeper flank puts full lift off the middle of the events that a centreline is counted to.
    let centre = full_lift_at(session.side, &phasing, lobe) - 360.0;
    let from_top = session.node.word("method") == Some("full_lift");
    if session.node.word("dial_on") != Some("valve") {
        return Ok(Expected { lobe, centre, ratio: 1.0, lash: 0.0, from_top });
    }
    let lift = own.lift.clone()?;
    let lash = if session.node.word("lash") == Some("in") { lift.lash.si() } else { 0.0 };
    Ok(Expected { lobe, centre, ratio: lift.ratio, lash, from_top })
}

/// Crank degrees of the middle of a lobe's events as the document has it, before top dead centre negative.
fn centreline(bench: &Bench<'_>, side: Side) -> f64 {
    bench.inputs.phasing.as_ref().map_or(0.0, |phasing| match side {
        Side::Intake => phasing.intake_centreline,
        Side::Exhaust => -phasing.exhaust_centreline,
    })
}

/// What the wheel reads too much by the piston stop; `None` where no stop was read.
fn zero_of(bench: &Bench<'_>, session: &Session<'_>) -> Option<f64> {
    let stop = |key: &str| session.node.quantity::<Angle>(key).map(Angle::as_deg);
    let stops = (stop("stop_before")?, stop("stop_after")?);
    let engine = &bench.inputs.given.engine;
    let crank = engine.stroke.zip(engine.rod_length).map(|(stroke, rod)| Cranked {
        radius: 0.5 * stroke.si(),
        rod: rod.si(),
        offset: engine.pin_offset.map_or(0.0, Length::si),
    });
    Some(wheel_error(stops, crank))
}

/// Half width that holds 95 of 100 of where the lobe stands, deg: the wheel at every reading, and its zero. Dial errors of both
/// flanks go against each other.
fn doubt(found: &Degreed, has_stop: bool) -> f64 {
    let readings = 2.0 * found.heights.len() as f64;
    let zero = if has_stop { WHEEL / 2.0_f64.sqrt() } else { 2.0 * WHEEL };
    (WHEEL / readings.sqrt()).hypot(zero)
}

/// The same of a duration: the wheel twice, and the dial where the flank rises.
fn duration_doubt(height: f64, expected: &Expected<'_>) -> f64 {
    let per_dial = |flank: Flank| {
        let (low, high) = (expected.at(height - 0.5 * DIAL, flank), expected.at(height + 0.5 * DIAL, flank));
        low.zip(high).map_or(0.0, |(low, high)| (high - low).abs())
    };
    (WHEEL * 2.0_f64.sqrt()).hypot(per_dial(Flank::Opening) + per_dial(Flank::Closing))
}

fn degrees(deg: f64) -> f64 {
    deg.to_radians()
}

fn figures(
    found: &Degreed,
    (expected, centreline): (&Expected<'_>, f64),
    session: &Session<'_>,
    doubt: f64,
) -> Vec<SessionFigure> {
    let label = format!("{} centreline", if session.side == Side::Intake { "Intake" } else { "Exhaust" });
    let centre = (degrees((centreline + found.late).abs()), degrees(centreline.abs()));
    let mut figures = vec![beside(label, centre, degrees(doubt), Dimension::Angle)];
    if !expected.from_top {
        figures.extend(found.heights.iter().map(|own| {
            let label = format!("Duration at {}", shown(own.height, Dimension::Length).inch);
            let (read, longer) = (own.duration(), own.longer);
            let off = duration_doubt(own.height, expected);
            beside(label, (degrees(read), degrees(read - longer)), degrees(off), Dimension::Angle)
        }));
    }
    figures
}

/// Advanced or retarded by so much, and which keyway or bushing brings it nearest.
fn says(found: &Degreed, bench: &Bench<'_>, doubt: f64) -> Shown {
    let late = found.late;
    let where_it_is = match late.abs() <= doubt {
        true => format!("as the document has it, within {doubt:.1} deg"),
        false if late > 0.0 => format!("{late:.1} deg retarded (± {doubt:.1})"),
        false => format!("{:.1} deg advanced (± {doubt:.1})", -late),
    };
    let steps = bench.inputs.given.engine.timing_steps.as_deref().unwrap_or_default();
    let left = |step: f64| (late - step).abs();
    let best = steps.iter().map(|step| step.as_deg()).min_by(|a, b| left(*a).total_cmp(&left(*b)));
    let key = match best {
        Some(step) if late.abs() > doubt && left(step) < late.abs() => {
            let way = if step >= 0.0 { "forward" } else { "back" };
            format!("; the place {:.1} deg {way} leaves {:.1} deg", step.abs(), left(step))
        }
        Some(_) if late.abs() > doubt => "; no place of this timing set brings it nearer".to_owned(),
        _ => String::new(),
    };
    // What comes with the miles: a chain stretches, and the cam falls back.
    let stretch = bench.inputs.given.engine.drive_stretch.map_or(0.0, Angle::as_deg);
    let later = if stretch > 0.0 {
        let then = late + stretch;
        let way = if then > 0.0 { "retarded" } else { "advanced" };
        format!("; {:.1} deg {way} once the drive has stretched by {stretch:.1}", then.abs())
    } else {
        String::new()
    };
    Shown::plain(format!("{where_it_is}{key}{later}"))
}

fn questions(found: &Degreed) -> Vec<String> {
    let repeats = (found.repeats_within > REPEATS).then(|| {
        format!("two readings of one place differ by {:.1} deg: has the wheel slipped?", found.repeats_within)
    });
    let apart = (found.apart > APART).then(|| {
        format!(
            "heights put the lobe {:.1} deg apart: has the wheel slipped between them, or is it another lobe than the card's?",
            found.apart
        )
    });
    repeats.into_iter().chain(apart).collect()
}

fn question(how: Misread) -> String {
    let how = match how {
        Misread::Sides => "they fit with before and after top dead centre exchanged",
        Misread::OtherTop => "they fit from the other top dead centre: count from the overlap's",
        Misread::Flanks => "they fit with opening and closing exchanged",
        Misread::AsQuoted => {
            "they fit as events are quoted, from the dead centre each is near; the wheel counts from the overlap's top dead centre"
        }
    };
    format!("far off as they stand; {how}")
}

/// Centreline, or separation with the intake's place, as read.
fn said(found: &Degreed, bench: &Bench<'_>, session: &Session<'_>, doubt: f64) -> Vec<Said> {
    if found.late.abs() <= doubt || !questions(found).is_empty() {
        return Vec::new();
    }
    let cam = bench.source.node(Of::Cam, Side::Intake);
    let (key, deg) = match (session.side, &bench.inputs.phasing) {
        (Side::Intake, _) => ("intake_centreline", centreline(bench, Side::Intake) + found.late),
        (Side::Exhaust, Ok(phasing)) => ("lobe_separation", phasing.separation() - 0.5 * found.late),
        (Side::Exhaust, Err(_)) => return Vec::new(),
    };
    // Where a document has events instead of a centreline, they are dragged on the strip.
    if !cam.has(key) {
        return Vec::new();
    }
    let why = sentence(degrees(found.late.abs()), Dimension::Angle, |off| {
        format!("read {off} {}", if found.late > 0.0 { "later than it says" } else { "earlier than it says" })
    });
    let place = Place::new(Of::Cam, key, Side::Intake);
    // Separation takes half of what its lobe is off by.
    let doubt = if session.side == Side::Intake { doubt } else { 0.5 * doubt };
    vec![Said::quantity(place, (degrees(deg), degrees(doubt)), Dimension::Angle, why)]
}
