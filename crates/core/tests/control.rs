//! The train in motion as it is asked for: the job, what it lacks, what the margins make of it, and whether a builder of the
//! trade would agree with its speeds.

use crate::support::{DEMOS, finite};
use serde_json::Value;
use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};
use upper_lobe_core::analysis::{
    Build, ControlJob, DynamicsReport, Halted, Job, LimitedBy, PartName, Request, Stages, Verdict, Watch, analyze,
};

fn job(document: &str, threshold_mm: Option<f64>, stages: &Arc<Stages>) -> Result<ControlJob, Halted> {
    let build = Build::read(document).expect("in order");
    ControlJob::new(&build, Some("a"), threshold_mm, Arc::clone(stages)).expect("a candidate")
}

fn report(document: &str, threshold_mm: Option<f64>, stages: &Arc<Stages>) -> Arc<DynamicsReport> {
    job(document, threshold_mm, stages).expect("complete").run(&Watch::nobody()).expect("a report")
}

fn with(document: &str, change: impl FnOnce(&mut Value)) -> String {
    let mut build: Value = serde_json::from_str(document).expect("JSON");
    change(&mut build);
    build.to_string()
}

#[test]
fn speeds_are_those_of_the_trade() {
    // Hydraulic rollers with factory-weight valves hold to some 6,500 to 7,200 rpm, light solid trains far beyond 8,000, a
    // diesel's heavy train well past its governor (common practice, no source).
    for (demo, (low, high)) in DEMOS.iter().zip([(6200.0, 7400.0), (8000.0, 10_000.0), (3600.0, 5400.0)]) {
        let found = report(demo, None, &Arc::new(Stages::default()));
        finite(&format!("{found:?}"), std::slice::from_ref(&found.says));
        for side in [&found.intake, &found.exhaust] {
            let limit = side.limiting_speed_rpm.expect("a limit");
            assert!((low..=high).contains(&limit), "{limit}");
            let [from, to] = side.limiting_speed_band_rpm.expect("a band");
            assert!(from <= limit && limit <= to && side.limited_by != LimitedBy::None);
            assert!(side.beside_hand_check.as_ref().is_some_and(|words| words.contains("hand check")));
            // Slowly nothing is lost, and lift on the nose grows before it is.
            assert!(side.minimum_contact_n[0] > 100.0 && side.loft_mm[0] < 1e-3 && side.bounce_mm[0] < 0.05);
            let most = side.maximum_lift_mm.iter().copied().fold(0.0, f64::max);
            assert!(most > side.maximum_lift_mm[0]);
        }
        let gains: Vec<f64> = found.what_buys_speed.iter().map(|change| change.gain_rpm).collect();
        assert!(gains.len() >= 9 && gains.is_sorted_by(|a, b| a >= b), "{gains:?}");
        let lighter = found.what_buys_speed.iter().find(|change| change.change == "lighter valve").expect("tried");
        assert!(lighter.gain_rpm > 0.0 && lighter.field.is_some() && lighter.from.is_some());
    }
}

#[test]
fn the_same_train_has_the_same_report_every_time() {
    let fresh = || report(DEMOS[0], Some(0.4), &Arc::new(Stages::default()));
    assert_eq!(*fresh(), *fresh());
}

#[test]
fn a_stricter_threshold_is_crossed_sooner() {
    let stages = Arc::new(Stages::default());
    let limit = |mm: f64| report(DEMOS[0], Some(mm), &stages).intake.limiting_speed_rpm.expect("a limit");
    let limits = [0.15, 0.508, 1.2].map(limit);
    assert!(limits.is_sorted() && limits[0] + 100.0 < limits[2], "{limits:?}");
}

#[test]
fn it_can_be_stopped_and_then_keeps_nothing() {
    let stages = Arc::new(Stages::default());
    let job = job(DEMOS[0], None, &stages).expect("complete");
    let told = AtomicUsize::new(0);
    let ended = job.run(&Watch {
        report: &|step| {
            assert!(step.done <= step.of);
            told.fetch_add(1, Ordering::Relaxed);
        },
        stop: &|| told.load(Ordering::Relaxed) >= 2,
    });
    assert_eq!(ended.err(), Some(Halted::Stopped));
    assert!(job.kept().is_none() && told.load(Ordering::Relaxed) == 2);
}

#[test]
fn everything_it_lacks_is_asked_at_once() {
    let bare = with(DEMOS[0], |build| {
        let train = &mut build["candidates"][0]["train"];
        train["lifter"].as_object_mut().unwrap().remove("mass");
        train["spring"].as_object_mut().unwrap().remove("mass");
    });
    let Err(Halted::Lacks { reason, needs }) = job(&bare, None, &Arc::new(Stages::default())) else {
        panic!("it lacks two masses")
    };
    let fields: Vec<_> = needs.iter().map(|named| named.field.rsplit("train.").next().unwrap_or_default()).collect();
    assert!(fields.contains(&"lifter.mass") && fields.contains(&"spring.mass"), "{fields:?} {reason}");
}

#[test]
fn margins_take_up_what_was_computed_and_the_hand_check_becomes_advice() {
    // Springs of half their load: the hand check fails by itself, and is advice beside the computed limit that fails too.
    let soft = with(DEMOS[0], |build| {
        build["candidates"][0]["train"]["spring"]["points"] =
            serde_json::json!([["1.800 in", "70 lbf"], ["1.280 in", "150 lbf"]]);
    });
    let build = Build::read(&soft).expect("in order");
    let stages = Arc::new(Stages::default());
    let verdicts = |stages: &Stages| {
        let request = Request::of(Some("a".to_owned()), vec![PartName::Limits]);
        let found = analyze(&build, &request, stages).expect("an analysis").candidates.remove(0).limits;
        ["hand_check", "limiting_speed"].map(|id| found.iter().find(|line| line.id == id).map(|line| line.verdict))
    };
    assert_eq!(verdicts(&stages), [Some(Verdict::Fails), None]);
    report(&soft, None, &stages);
    assert_eq!(verdicts(&stages), [Some(Verdict::Advice), Some(Verdict::Fails)]);
}
