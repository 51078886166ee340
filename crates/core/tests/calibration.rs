//! The fit to a pull, on a twin: an engine whose constants are known is put on the dyno, and found again from its torque.

use serde_json::json;
use std::sync::Arc;
use upper_lobe_core::analysis::{CalibrationJob, Halted, Job, Watch};
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::calibration::{Pull, Subject, error, fit, torques};
use upper_lobe_core::candidate::breathing::constants::Constants;
use upper_lobe_core::candidate::breathing::{Breathing, Effort, breathing_of, breathing_uncalibrated};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::edit::{Edit, apply};
use upper_lobe_core::quantity::UnitSystem;

const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const GOING_ON: &(dyn Fn() -> bool + Sync) = &|| false;
/// An engine with ports that flow less, more friction and a longer intake than its document says.
const TRUTH: [f64; 4] = [0.95, 1.2, 0.985, 0.02];

fn breathing(build: &Build, index: usize, stages: &Stages) -> Breathing {
    let views = build.candidates();
    breathing_uncalibrated(&Resolved::of(&views[index], stages)).expect("complete")
}

/// What the dyno shows of it: the torque, wrong by up to half a per cent in a fixed pattern.
fn pull(breathing: &Breathing) -> Pull {
    let speeds: Vec<f64> = (0..9).map(|i| 2000.0 + 450.0 * f64::from(i)).collect();
    let blank = Pull { speeds, torques: vec![], level: 0 };
    let truth = torques(breathing, &blank, &Constants::from(TRUTH), Effort::Screening, GOING_ON).unwrap();
    let noise = [0.004, -0.005, 0.002, 0.003, -0.004, 0.005, -0.001, -0.003, 0.004];
    Pull { torques: truth.iter().zip(noise).map(|(torque, noise)| torque * (1.0 + noise)).collect(), ..blank }
}

#[test]
fn the_fit_finds_a_known_engine_and_carries_to_another_cam() {
    let (build, stages) = (Build::read(TOW).unwrap(), Stages::default());
    let (a, b) = (breathing(&build, 0, &stages), breathing(&build, 1, &stages));
    let measured = pull(&a);
    let subject = |breathing: &Breathing, pull: &Pull| Subject { breathing: breathing.clone(), pull: pull.clone() };
    let found = fit(&[subject(&a, &measured)], Effort::Screening, GOING_ON, |_, _| ()).unwrap();
    let (before, after) = (error(&measured, &found.before), error(&measured, &found.after));
    println!("{:?}: {before:.4} to {after:.4}", found.constants);
    assert!(before > 0.03 && after < 0.008, "{before} {after}");
    // The other candidate was never on the dyno: its own truth is met as well.
    let other = pull(&b);
    let of =
        |constants: &Constants| error(&other, &torques(&b, &other, constants, Effort::Screening, GOING_ON).unwrap());
    let (usual, carried) = (of(&Constants::default()), of(&found.constants));
    println!("another cam: {usual:.4} to {carried:.4}");
    assert!(carried < 0.35 * usual && carried < 0.015, "{usual} {carried}");
    // Both on the dyno say more than one: neither is worse off than by itself, and each is met by constants of both.
    let both = fit(&[subject(&a, &measured), subject(&b, &other)], Effort::Screening, GOING_ON, |_, _| ()).unwrap();
    let together = [error(&measured, &both.after[..9]), error(&other, &both.after[9..])];
    println!("both: {:?} {together:?}; alone {:?}", both.constants, both.alone);
    assert!(together.iter().all(|own| *own < 0.009), "{together:?}");
    // No constant explains by itself what four of them made; each leaves less than nothing at all would.
    assert!(both.alone.iter().all(|(_, left)| *left > 0.009 && *left < before.max(usual) * 1.001), "{:?}", both.alone);
}

#[test]
fn a_pull_in_a_document_is_read_in_its_own_air_and_its_result_is_written_back() {
    let stages = Arc::new(Stages::default());
    let mut value = Build::read(TOW).unwrap().value().clone();
    value["pull"] = json!({ "candidate": "a", "air": "sae_j607", "points": [["2500 rpm", "400 lb-ft"], ["3500 rpm", "420 lb-ft"], ["4500 rpm", "410 lb-ft"]] });
    let build = Build::from_value(value.clone()).unwrap();
    let report =
        CalibrationJob::new(&build, Arc::clone(&stages)).unwrap().expect("complete").run(&Watch::nobody()).unwrap();
    assert_eq!(report.speed_rpm, [2500.0, 3500.0, 4500.0]);
    // 400 lbf ft is 542.3 N m; the plan's air is thinner than that of the standard.
    assert!(report.measured_nm[0] < 542.3 && report.measured_nm[0] > 480.0, "{:?}", report.measured_nm);
    assert!(report.after_error < report.before_error);
    let kept = report.fields.iter().fold(build, |build, written| {
        let edit = Edit::Set { field: written.field.clone(), text: written.text.clone() };
        apply(&build, &edit, UnitSystem::Inch, &stages).expect("taken")
    });
    let views = kept.candidates();
    let calibrated = breathing_of(&Resolved::of(&views[1], &stages)).unwrap();
    assert!(calibrated.calibration.is_some() && (calibrated.setup.friction - 1.0).abs() > 1e-4);

    // Another engine, or another unit: said, not fitted.
    let mut other = value.clone();
    other["pull"]["points"] = json!([["2500 rpm", "40 lb-ft"], ["3500 rpm", "42 lb-ft"], ["4500 rpm", "41 lb-ft"]]);
    let job = CalibrationJob::new(&Build::from_value(other).unwrap(), Arc::clone(&stages)).unwrap().expect("complete");
    let Err(Halted::Lacks { reason, .. }) = job.run(&Watch::nobody()) else { panic!("fitted to another engine") };
    assert!(reason.starts_with("at 2500 rpm the pulls have ") && reason.contains("another engine"), "{reason}");

    value["pull"]["candidate"] = "nobody".into();
    let missing = CalibrationJob::new(&Build::from_value(value).unwrap(), stages);
    assert_eq!(missing.err().map(|fault| fault.field), Some("pull.candidate".to_owned()));
}
