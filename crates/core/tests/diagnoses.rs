//! What is wrong with pulls, planted through the model's own door: a document with a fault in it is drafted, its torque is written down
//! as pulls of the sound document, and the fault is looked for.

use crate::support::DEMOS;
use serde_json::{Value, json};
use std::sync::Arc;
use upper_lobe_core::analysis::{Build, CurveJob, DiagnosisJob, DiagnosisReport, Effort, Job, Stages, Watch};

/// Torque of the first candidate as a draft has it: rpm and N m.
fn drafted(document: &Value, stages: &Arc<Stages>) -> Vec<(f64, f64)> {
    let build = Build::from_value(document.clone()).expect("a build");
    let job =
        CurveJob::new(&build, None, (Effort::Draft, None), Arc::clone(stages)).expect("a candidate").expect("complete");
    let curve = job.run(&Watch::nobody()).expect("a curve");
    curve.report.speed_rpm.iter().copied().zip(curve.report.torque_nm.iter().copied()).collect()
}

/// The torque as two pulls of a day: every 50 rpm, a share of a thousandth apart.
fn pulls(points: &[(f64, f64)], day: &str) -> Vec<Value> {
    let (from, to) = (points[0].0, points[points.len() - 1].0);
    let at = |rpm: f64| {
        let above = points.iter().position(|own| own.0 >= rpm).unwrap_or(points.len() - 1).max(1);
        let (a, b) = (points[above - 1], points[above]);
        a.1 + (rpm - a.0) / (b.0 - a.0) * (b.1 - a.1)
    };
    let pull = |nth: u32| {
        let count = ((to - from) / 50.0) as u32;
        let point = |i: u32| {
            let rpm = from + 50.0 * f64::from(i);
            json!([format!("{rpm:.0} rpm"), format!("{:.2} N m", at(rpm) * (1.0 + 0.0005 * f64::from(nth)))])
        };
        json!({ "id": format!("{day} {nth}"), "candidate": "a", "day": day, "points": (0..=count).map(point).collect::<Vec<_>>() })
    };
    (0..2).map(pull).collect()
}

fn diagnosed(document: &Value, day: Option<&str>, stages: &Arc<Stages>) -> Arc<DiagnosisReport> {
    let build = Build::from_value(document.clone()).expect("a build");
    let job = DiagnosisJob::new(&build, Some("a"), day, Arc::clone(stages)).expect("pulls");
    job.run(&Watch::nobody()).expect("a diagnosis")
}

fn sound(demo: usize) -> Value {
    let mut document: Value = serde_json::from_str(DEMOS[demo]).expect("JSON");
    document.as_object_mut().expect("an object").shift_remove("pull");
    document
}

#[test]
fn a_sound_engine_has_nothing_wrong() {
    let stages = Arc::new(Stages::default());
    let mut document = sound(0);
    document["pulls"] = Value::from(pulls(&drafted(&document, &stages), "2026-03-09"));
    let own = diagnosed(&document, None, &stages);
    assert!(own.symptoms.is_empty() && own.causes.is_empty(), "{:?}", own.symptoms);
    assert!(own.says.inch.contains("Nothing is wrong"), "{}", own.says.inch);
}

#[test]
fn a_held_back_exhaust_is_found_by_what_it_does() {
    let stages = Arc::new(Stages::default());
    let mut document = sound(0);
    let mut faulty = document.clone();
    faulty["engine"]["exhaust"]["back_pressure"] = json!("28 kPa");
    let before = pulls(&drafted(&document, &stages), "2026-03-09");
    let after = pulls(&drafted(&faulty, &stages), "2026-06-09");
    document["pulls"] = Value::from([before, after].concat());
    let own = diagnosed(&document, Some("2026-03-09"), &stages);
    assert!(!own.symptoms.is_empty(), "{}", own.says.inch);
    let exhaust = own.causes.iter().find(|cause| cause.id == "exhaust").expect("it is a cause");
    assert!(exhaust.explains.expect("it was run") > 0.9, "{exhaust:?}");
    for cause in &own.causes {
        println!("{} share {:.2} explains {:?} times {:?}", cause.id, cause.share, cause.explains, cause.times);
    }
    // As strong as was planted beside what was tried: the demo has 10 kPa, so that 18 kPa more are 1.2 times the 15 that are tried.
    assert!((1.1..1.3).contains(&exhaust.times.expect("it was run")), "{:?}", exhaust.times);
    assert!(
        own.causes.iter().take(3).any(|cause| cause.id == "exhaust"),
        "{:?}",
        own.causes.iter().map(|own| &own.id).collect::<Vec<_>>()
    );
}

#[test]
fn a_steeper_fall_past_the_peak_leads_to_the_springs_and_a_flat_top_to_the_preload() {
    let stages = Arc::new(Stages::default());
    // A tow with hydraulic lifters and not adjustable: power stands still from 3,900 rpm on.
    let mut document = sound(0);
    let before = drafted(&document, &stages);
    let nose: Vec<(f64, f64)> =
        before.iter().map(|(rpm, own)| (*rpm, own * (1.0 - 0.06 * ((rpm - 4900.0) / 500.0).max(0.0)))).collect();
    document["pulls"] = Value::from([pulls(&before, "2026-03-09"), pulls(&nose, "2026-06-09")].concat());
    let own = diagnosed(&document, Some("2026-03-09"), &stages);
    println!(
        "{}: {:?}",
        own.says.inch,
        own.causes.iter().map(|own| (&own.id, own.share, own.explains)).collect::<Vec<_>>()
    );
    assert_eq!(own.symptoms[0].kind, "nose_over");
    assert!((own.symptoms[0].from_rpm.expect("a speed") - 4900.0).abs() <= 200.0, "{:?}", own.symptoms);
    assert_eq!(own.causes.iter().max_by(|a, b| a.share.total_cmp(&b.share)).expect("causes").id, "springs");
    let power = |at: (f64, f64)| at.0 * at.1;
    let still = before.iter().find(|own| own.0 > 3700.0).copied().expect("a speed");
    let flat: Vec<(f64, f64)> = before
        .iter()
        .map(|own| if own.0 > still.0 { (own.0, own.1.min(power(still) / own.0)) } else { *own })
        .collect();
    document["pulls"] = Value::from([pulls(&before, "2026-03-09"), pulls(&flat, "2026-06-09")].concat());
    let own = diagnosed(&document, Some("2026-03-09"), &stages);
    println!(
        "{}: {:?}",
        own.says.inch,
        own.causes.iter().map(|own| (&own.id, own.share, own.explains)).collect::<Vec<_>>()
    );
    assert_eq!(own.symptoms[0].kind, "flat");
    assert_eq!(own.causes[0].id, "preload");
}

#[test]
fn what_is_not_there_is_refused_by_name() {
    let stages = Arc::new(Stages::default());
    let build = Build::from_value(sound(0)).expect("a build");
    let refused = |id: Option<&str>, day: Option<&str>| DiagnosisJob::new(&build, id, day, Arc::clone(&stages)).err();
    assert_eq!(refused(Some("z"), None).expect("no such candidate").field, "candidate");
    assert_eq!(refused(Some("a"), None).expect("no pull").field, "pulls");
    let mut document = sound(0);
    document["pulls"] = Value::from(pulls(&[(2000.0, 400.0), (5000.0, 420.0)], "2026-03-09"));
    let build = Build::from_value(document).expect("a build");
    assert_eq!(DiagnosisJob::new(&build, None, Some("2020-01-01"), stages).err().expect("no such day").field, "day");
}
