//! "Can these springs stay?" against the margins it is made from.

use crate::support::DEMOS;
use serde_json::Value;
use upper_lobe_core::analysis::{Build, PartName, Request, SpringsStay, Stages, Verdict, analyze};

fn stay(change: impl FnOnce(&mut Value)) -> SpringsStay {
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    change(&mut value["candidates"][0]["train"]["spring"]);
    let build = Build::from_value(value).expect("a good document");
    let report = analyze(&build, &Request::of(Some("a".into()), PartName::cheap()), &Stages::default()).unwrap();
    report.candidates[0].springs_stay.clone().expect("a sentence")
}

#[test]
fn springs_that_meet_every_rule_can_stay_and_the_figures_are_those_of_the_margins() {
    let stay = stay(|_| {});
    assert_eq!(stay.verdict, Verdict::Tight);
    assert!(stay.says.inch.starts_with("These springs can stay, with little to spare: intake valve float speed (rigid) 5852 rpm, at least 5800 rpm."), "{}", stay.says.inch);
    // 136 lbf on the tester at 1.800 in; the exhaust lifts .522 in, its bind stands at 1.165: 1.800 - .522 - 1.165 = .113 in,
    // less what the true ratio adds.
    assert!(stay.says.inch.contains("136 lbf closed"), "{}", stay.says.inch);
    assert!(stay.says.inch.contains(" in to bind"), "{}", stay.says.inch);
}

#[test]
fn a_spring_that_binds_cannot_stay_and_says_why() {
    let stay = stay(|spring| spring["coil_bind_height"] = "1.270 in".into());
    assert_eq!(stay.verdict, Verdict::Fails);
    assert!(stay.says.inch.starts_with("These springs cannot stay: "), "{}", stay.says.inch);
    assert!(stay.says.inch.contains("coil-bind clearance"), "{}", stay.says.inch);
    assert!(stay.says.metric.contains("at least 1.52 mm"), "{}", stay.says.metric);
}

#[test]
fn what_nobody_measured_is_asked_for_and_never_a_yes() {
    let stay = stay(|spring| {
        spring.as_object_mut().unwrap().remove("coil_bind_height");
    });
    assert_eq!(stay.verdict, Verdict::Unknown);
    assert!(
        stay.says.inch.contains("not known without") && stay.says.inch.contains("coil bind height"),
        "{}",
        stay.says.inch
    );
}
