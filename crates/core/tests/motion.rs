//! From lobe to valve on the example: what readings and geometry change, and what never goes together.

#![allow(clippy::expect_used, clippy::unwrap_used)]

use serde_json::{Value, json};
use upper_lobe_core::analysis::{CandidateReport, PartName, Request, Stages, analyze};
use upper_lobe_core::document::Build;

const EXAMPLE: &str = include_str!("data/example_build.json");

fn report(change: impl FnOnce(&mut Value)) -> CandidateReport {
    let mut value = Build::read(EXAMPLE).unwrap().value().clone();
    change(&mut value["candidates"][0]);
    let build = Build::from_value(value).expect("in order");
    let request = Request { candidate: None, parts: PartName::cheap() };
    analyze(&build, &request, &Stages::default()).unwrap().candidates.remove(0)
}

fn with_readings(candidate: &mut Value) {
    // 4 % more ratio than the card says, by a light spring; .030 less under the real one.
    candidate["train"]["readings"] =
        json!({ "intake": { "light_spring_lift": "0.566 in", "running_lift": "0.536 in", "running_load": "350 lbf" } });
}

#[test]
fn readings_tell_ratio_and_flex_and_the_budget_ends_on_the_measured_lift() {
    let found = report(with_readings);
    let intake = &found.train.done().unwrap().intake;
    assert!((intake.true_ratio - 0.566 / 0.330).abs() < 1e-9, "{}", intake.true_ratio);
    // The reading was made with a solid lifter in place of the hydraulic one: .005 in of give come off on top.
    let expected = (0.536 - 0.005 * intake.true_ratio) * 25.4;
    let running = intake.budget.last().unwrap().lift_mm;
    assert!((running - expected).abs() < 0.02, "{running} {expected}");
    let parts: f64 = intake.shares.iter().map(|share| share.flex_mm).sum();
    assert!((parts - 0.030 * 25.4).abs() < 0.02, "{parts}");
}

#[test]
fn what_must_not_touch_stands_on_the_larger_ratio() {
    let (nominal, real) = (report(|_| ()), report(with_readings));
    let gap = |found: &CandidateReport| found.clearance.done().unwrap().intake.piston_minimum_mm;
    let bind = |found: &CandidateReport| found.spring.done().unwrap().intake.to_coil_bind_mm.unwrap();
    assert!(gap(&real) < gap(&nominal) - 0.03, "{} {}", gap(&real), gap(&nominal));
    assert!((bind(&nominal) - bind(&real) - (0.566 - 0.330 * 1.65) * 25.4).abs() < 1e-6);
    // The exhaust has no readings and stays what it was.
    let exhaust = |found: &CandidateReport| found.clearance.done().unwrap().exhaust.piston_minimum_mm;
    assert!((exhaust(&real) - exhaust(&nominal)).abs() < 1e-12);
}

#[test]
fn the_order_is_more_than_the_card_and_runs_as_the_card_says() {
    let found = report(|_| ());
    let order = found.train.done().unwrap().intake.order.clone().expect("a card");
    for check in &order.checks {
        // Makers add about two degrees for flex (common practice, no source).
        assert!((0.5..6.0).contains(&(check.order_deg - check.card_deg)), "{check:?}");
        if let Some(running) = check.running_deg {
            assert!((running - check.card_deg).abs() < 0.2, "{check:?}");
        }
    }
}

#[test]
fn what_never_goes_together_fails_with_its_reason() {
    let broken = |change: fn(&mut Value)| -> Vec<String> {
        let found = report(change);
        found.limits.iter().filter(|l| l.school.starts_with("never")).map(|l| l.id.clone()).collect()
    };
    assert_eq!(broken(|_| ()), Vec::<String>::new());
    assert_eq!(broken(|c| c["cam"]["ground_for"] = "flat".into()), ["lifter_on_cam"; 2]);
    assert_eq!(broken(|c| c["train"]["lifter"]["anti_rotation"] = "none".into()), ["roller_turns"; 2]);
    assert_eq!(broken(|c| c["train"]["lifter"]["most_lift"] = "0.332 in".into()), ["lifter_lift"]);
    // A cup .45 in from its pivot cannot follow .33 in of lobe from so low.
    let locked = |c: &mut Value| {
        c["train"]["rocker"]["pivot_to_tip"] = "1.4 in".into();
        c["train"]["rocker"]["pivot_to_cup"] = "0.42 in".into();
        c["train"]["rocker"]["cup_drop"] = "-0.2 in".into();
    };
    assert_eq!(broken(locked), ["rocker_locks"; 2]);
}
