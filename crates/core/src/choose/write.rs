//! A choice written into the document as a candidate of its own.

use super::frame::{Frame, card_rows, quickens};
use crate::build::Build;
use crate::cam::Flank;
use crate::candidate::{Resolved, Stages};
use crate::document::{Faults, Side, get, get_mut, put_value};
use crate::edit::cam_edit::CamEdit;
use crate::edit::{Edit, apply, marks};
use crate::quantity::{Angle, Dimension, UnitSystem, parse, restate};
use crate::response::{Choice, Decision};
use serde_json::{Value, json};

/// What a new candidate is called.
#[derive(Debug, Clone, Copy)]
pub struct Called<'a> {
    /// Its identifier.
    pub id: &'a str,
    /// Its name.
    pub name: &'a str,
}

/// `build` with a copy of the candidate at `index` at its end, decided as `choice` says.
///
/// # Errors
/// Where the document refuses a value.
pub fn written(
    (build, index): (&Build, usize),
    frame: &Frame,
    choice: &Choice,
    called: Called<'_>,
    stages: &Stages,
) -> Result<Build, Faults> {
    let views = build.candidates();
    let Some(view) = views.get(index) else { return Ok(build.clone()) };
    let copy = Edit::Duplicate { candidate: view.id.clone(), to: called.id.to_owned(), name: called.name.to_owned() };
    let mut own = apply(build, &copy, UnitSystem::Inch, stages)?;
    let path = format!("candidates[{}]", views.len());
    let changed = |decision: Decision| {
        let (to, now) = (choice.get(decision)?, frame.now().get(decision)?);
        ((to - now).abs() > 1e-9).then_some(to)
    };
    let events = Decision::CAM[..4].iter().chain([&Decision::Advance]);
    let cam = events.into_iter().any(|decision| changed(*decision).is_some());
    let lifts = [Decision::IntakeLift, Decision::ExhaustLift].map(&changed);
    let quicker = changed(Decision::Quickness);
    if cam || lifts.iter().any(Option::is_some) || quicker.is_some() {
        let mut value = own.value().clone();
        let resolved = Resolved::of(&views[index], stages);
        for side in &frame.carded {
            put_card(&mut value, &path, *side, &resolved);
        }
        for (side, lift) in Side::BOTH.into_iter().zip(lifts) {
            if let Some(lift) = lift {
                put_length(&mut value, &format!("{path}.cam.{}.lobe_lift", side.key()), lift);
            }
        }
        if let Some(quicker) = quicker {
            for side in Side::BOTH {
                reshape(&mut value, &format!("{path}.cam.{}", side.key()), quicker);
            }
        }
        // Another lift on the same flanks may be no lobe until the events have moved too: they move on the old lobe.
        CamEdit::begin(build, &view.id, stages)?
            .of_index(views.len())
            .set_events(frame.events(choice))
            .write(&mut value)?;
        for key in ["part", "price"] {
            forget(&mut value, &format!("{path}.cam"), key);
        }
        // What was measured, or stood on a card, was another cam.
        if let (Some(was), Some(now)) = (get(own.value(), &path), get_mut(&mut value, &path)) {
            marks::go_with_their_values(was, now);
        }
        own = Build::from_value(value)?;
    }
    for decision in Decision::HARDWARE {
        let Some(to) = changed(decision) else { continue };
        for Text { field, text, .. } in texts(&own, &path, frame, decision, to).iter().filter(|own| own.moves) {
            own = set(&own, field, text, stages)?;
        }
    }
    Ok(own)
}

fn set(build: &Build, field: &str, text: &str, stages: &Stages) -> Result<Build, Faults> {
    apply(build, &Edit::Set { field: field.to_owned(), text: text.to_owned() }, UnitSystem::Inch, stages)
}

/// What is written into a field.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Text {
    /// Its path.
    pub field: String,
    /// As typed.
    pub text: String,
    /// Whether it is another value than there is.
    pub moves: bool,
}

/// What is written where for a decision beside the cam, in the candidate at `path`, in the units of what is there. What
/// belongs to the engine is written as this candidate alone has it.
pub fn texts(build: &Build, path: &str, frame: &Frame, decision: Decision, to: f64) -> Vec<Text> {
    let engine = |field: &str, dimension: Dimension, to: Option<f64>| {
        let own = format!("{path}.changes.engine.{field}");
        let text = |field: &str| get(build.value(), field).and_then(Value::as_str).map(str::to_owned);
        let now = text(&own).or_else(|| text(&format!("engine.{field}")))?;
        let moves = parse(&now, dimension).is_ok_and(|now| to.is_some_and(|to| (now - to).abs() > 1e-9 * now.abs()));
        Some(Text { field: own, text: restate(&now, dimension, to?)?, moves })
    };
    match decision {
        Decision::Ratio => {
            let own = rocker_fields(build.value(), path).into_iter();
            own.map(|field| Text { field, text: format!("{to:.2}"), moves: true }).collect()
        }
        Decision::Compression => {
            let own = frame.given(&Choice::nothing().with(Decision::Compression, to)).engine;
            let chamber = engine("chamber_volume", Dimension::Volume, own.chamber_volume.map(|volume| volume.si()));
            let piston = engine("piston_volume", Dimension::Volume, own.piston_volume.map(|volume| volume.si()));
            chamber.into_iter().chain(piston).collect()
        }
        Decision::Runner => engine("intake.runner_length", Dimension::Length, Some(to)).into_iter().collect(),
        Decision::Primary => engine("exhaust.primary_length", Dimension::Length, Some(to)).into_iter().collect(),
        _ => Vec::new(),
    }
}

/// Where the ratio of both rockers stands: once for both, or with each side.
fn rocker_fields(document: &Value, path: &str) -> Vec<String> {
    let plain = format!("{path}.train.rocker.ratio");
    let own = Side::BOTH.map(|side| format!("{path}.train.rocker.{}.ratio", side.key()));
    own.into_iter().chain([plain]).filter(|field| get(document, field).is_some()).collect()
}

fn put_length(document: &mut Value, field: &str, metres: f64) {
    let now = get(document, field).and_then(Value::as_str).map(str::to_owned);
    if let Some(text) = now.and_then(|now| restate(&now, Dimension::Length, metres)) {
        put_value(document, field, json!(text));
    }
}

/// Takes a key and its mark out of an object.
fn forget(document: &mut Value, path: &str, key: &str) {
    if let Some(object) = get_mut(document, path).and_then(Value::as_object_mut) {
        object.shift_remove(key);
        if let Some(Value::Object(marks)) = object.get_mut("sources") {
            marks.shift_remove(key);
        }
    }
}

/// A quicker lobe: what [`Frame::given`] does to the numbers, done to the texts.
fn reshape(document: &mut Value, lobe: &str, quicker: f64) {
    for (checks, share) in [("checks", 1.0), ("opening.checks", 0.5), ("closing.checks", 0.5)] {
        let path = format!("{lobe}.{checks}");
        let rows = get(document, &path).and_then(Value::as_array).cloned().unwrap_or_default();
        for (place, row) in rows.iter().enumerate() {
            let text = |column: usize| row.get(column).and_then(Value::as_str);
            let height = text(0).and_then(|text| parse(text, Dimension::Length).ok());
            let angle = text(1).and_then(|text| parse(text, Dimension::Angle).ok());
            if let (Some(height), Some(angle)) = (height, angle) {
                let deg = Angle::from_si(angle).as_deg() - share * quicker * quickens(height);
                put_value(document, &format!("{path}[{place}][1]"), json!(degrees(deg)));
            }
        }
    }
}

/// A measured lobe by its card, as the frame takes it.
fn put_card(document: &mut Value, path: &str, side: Side, resolved: &Resolved) {
    let Ok(lobe) = resolved.side(side).lobe() else { return };
    let lobe_path = format!("{path}.cam.{}", side.key());
    forget(document, &lobe_path, "profile");
    put_value(document, &format!("{lobe_path}.lobe_lift"), json!(format!("{:.4} in", lobe.lift().as_inches())));
    for (flank, key) in [(Flank::Opening, "opening"), (Flank::Closing, "closing")] {
        let rows =
            card_rows(lobe, flank).map(|(height, deg)| json!([format!("{:.3} in", height.as_inches()), degrees(deg)]));
        put_value(document, &format!("{lobe_path}.{key}"), json!({ "checks": rows.collect::<Vec<_>>() }));
    }
}

/// Degrees with at most four decimals.
fn degrees(deg: f64) -> String {
    format!("{} deg", (deg * 1e4).round() / 1e4 + 0.0)
}
