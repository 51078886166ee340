//! Brute force over a grid of 576 of the strip build's cams, to hold a search against: every one that keeps its limits is
//! computed in full. Prints a row each; some ten minutes on two cores.

#![allow(clippy::expect_used)]

use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::{Effort, breathing_of};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::choose::{Aim, By, Frame, Points, Standing, gas_of, in_motion, plan_of};
use upper_lobe_core::document::Side;
use upper_lobe_core::limits::{Findings, limits};
use upper_lobe_core::response::{Choice, Decision, Figures};

const STRIP: &str = include_str!("../../../demo/quarry-lane-427-strip.json");
const INCH: f64 = 0.0254;

/// Values of each decision, degrees and inches of lobe lift.
const GRID: [(Decision, &[f64]); 6] = [
    (Decision::IntakeCloses, &[50.0, 54.0, 58.0, 62.0]),
    (Decision::ExhaustOpens, &[56.0, 61.0, 66.0, 71.0]),
    (Decision::IntakeOpens, &[18.0, 22.0, 26.0]),
    (Decision::ExhaustCloses, &[18.0, 22.0, 26.0]),
    (Decision::IntakeLift, &[0.420, 0.440]),
    (Decision::ExhaustLift, &[0.375, 0.410]),
];

fn main() {
    let (build, stages) = (Build::read(STRIP).expect("in order"), Stages::default());
    let resolved = Resolved::of(&build.candidates()[0], &stages);
    let frame = Frame::of(&resolved).expect("a cam");
    let plan = plan_of(&breathing_of(&resolved).expect("an engine"));
    let points = Points::of(&frame, &stages);
    let in_full = |choice: &Choice| -> Option<Figures> {
        let computed = points.computed(choice, By::at(Effort::Full, Effort::Draft), &|| false).ok()?;
        let columns = computed.as_ref().as_ref()?;
        Some(plan.figures(&columns.speeds, &columns.values))
    };
    let aim = Aim::of(&resolved.given, in_full(frame.now()).expect("a curve"));
    // Limits first, gas last: a cam that breaks one is never the best.
    let standing = |choice: &Choice, figures: Option<&Figures>| {
        let own = frame.at(choice, &stages);
        let has_lobes = Side::BOTH.into_iter().all(|side| own.side(side).lobe().is_ok());
        let findings = Findings { gas: figures.map(gas_of), control: in_motion(&own, &stages, &|| false), moved: None };
        has_lobes.then(|| Standing::of(&limits(&own, &findings, &stages)))
    };
    println!("closing,opening,intake_opens,exhaust_closes,intake_lift_in,exhaust_lift_in,broken,gain");
    for choice in grid(frame.now()) {
        let of = |decision: Decision| choice.get(decision).expect("decided");
        let events = GRID[..4].iter().map(|(decision, _)| format!("{}", of(*decision)));
        let lifts = GRID[4..].iter().map(|(decision, _)| format!("{:.3}", of(*decision) / INCH));
        let place = events.chain(lifts).collect::<Vec<_>>().join(",");
        let before = standing(&choice, None).map(|standing| standing.broken());
        if before.is_none_or(|broken| broken > 0.0) {
            println!("{place},{},", before.map_or("no lobe".to_owned(), |broken| format!("{broken:.3}")));
            continue;
        }
        let figures = in_full(&choice);
        let broken = figures.as_ref().and_then(|own| standing(&choice, Some(own))).map_or(1.0, |own| own.broken());
        println!("{place},{broken:.3},{}", figures.map_or(String::new(), |own| format!("{:.5}", aim.gain(&own))));
    }
}

fn grid(now: &Choice) -> Vec<Choice> {
    GRID.iter().fold(vec![*now], |all, (decision, values)| {
        let scale = if matches!(decision, Decision::IntakeLift | Decision::ExhaustLift) { INCH } else { 1.0 };
        all.iter().flat_map(|choice| values.iter().map(|value| choice.with(*decision, value * scale))).collect()
    })
}
