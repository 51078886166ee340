//! The report for an owner: what it says is what every other page says, and what is missing says so.

use crate::support::DEMOS;
use serde_json::{Value, json};
use std::sync::Arc;
use upper_lobe_core::analysis::{
    Around, Build, OwnerReport, PartName, Request, Stages, Verdict, analyze, order_card, owner_of, service_of,
};

const AROUND: Around<'_> = Around { today: Some("2026-05-20"), revisions: &[], like: &[] };

fn report(build: &Build, id: &str) -> OwnerReport {
    owner_of(build, Some(id), &AROUND, &Arc::new(Stages::default())).expect("a report")
}

/// The towing demo with three pulls each of its first two candidates: straight lines of torque, by hand.
fn pulled() -> Build {
    let mut document = Build::read(DEMOS[0]).expect("the demo").value().clone();
    let pull = |place: usize, candidate: &str, torque: f64| {
        let point = |k: i32| json!([format!("{} rpm", 2000 + 100 * k), format!("{torque} N m")]);
        let points: Vec<Value> = (0..35).map(point).collect();
        json!({ "id": format!("p{place}"), "candidate": candidate, "day": "2026-04-02", "drawn": place, "air": "as_planned", "points": points })
    };
    document.as_object_mut().expect("an object").remove("pull");
    document["pulls"] = json!([
        pull(1, "a", 500.0),
        pull(2, "b", 520.5),
        pull(3, "b", 521.0),
        pull(4, "a", 501.0),
        pull(5, "a", 500.5),
        pull(6, "b", 520.0)
    ]);
    Build::from_value(document).expect("a document in order")
}

#[test]
fn it_says_what_the_other_pages_say() {
    let (build, stages) = (Build::read(DEMOS[1]).expect("the strip demo"), Stages::default());
    let own = report(&build, "a");
    let asked = Request::of(Some("a".to_owned()), vec![PartName::Limits]);
    let limits = analyze(&build, &asked, &stages).expect("limits").candidates.remove(0).limits;
    assert_eq!(own.margins.len(), limits.len());
    for limit in &limits {
        let same = own.margins.iter().find(|one| one.id == limit.id && one.side == limit.side).expect("each limit");
        assert_eq!((same.verdict, same.have), (limit.verdict, limit.have), "{}", limit.id);
    }
    // Worst first: nobody has to look for what is not met.
    assert!(own.margins.windows(2).all(|pair| pair[0].verdict.rank() >= pair[1].verdict.rank()));
    let met = limits.iter().filter(|own| matches!(own.verdict, Verdict::Ok | Verdict::Tight)).count();
    assert!(own.says[0].inch.starts_with(&format!("{met} of {} limits are met", limits.len())), "{}", own.says[0].inch);
    assert_eq!(own.card, order_card(&build, "a", &stages).expect("a card"));
    assert_eq!(own.service, service_of(&build, (AROUND.today, &[]), &stages).expect("a log"));
    for caution in own.card.cautions.iter().chain(&own.service.cautions) {
        assert_eq!(own.cautions.iter().filter(|one| *one == caution).count(), 1, "{caution}");
    }
    assert!(own.torque.predicted.is_some() && own.torque.measured.is_none() && own.torque.pulled.is_none());
    assert_eq!(
        owner_of(&build, Some("nobody"), &AROUND, &Arc::new(stages)).expect_err("no such one").field,
        "candidate"
    );
}

#[test]
fn prediction_and_pulls_are_laid_over_each_other() {
    let own = report(&pulled(), "b");
    let (measured, predicted) = (own.torque.measured.expect("pulls"), own.torque.predicted.expect("a draft"));
    // 520.5 N m at every speed; power by hand at 3,000 rpm, 314.159 rad/s.
    assert!(measured.torque_nm.iter().all(|torque| (torque - 520.5).abs() < 0.6), "{:?}", measured.torque_nm);
    let place = measured.speed_rpm.iter().position(|rpm| (rpm - 3000.0).abs() < 1.0).expect("3,000 rpm");
    assert!((measured.power_kw[place] - measured.torque_nm[place] * 0.314_159).abs() < 0.01);
    // The sentence's mean, by straight lines between the predicted speeds.
    let between = |rpm: f64| {
        let next = predicted.speed_rpm.partition_point(|own| *own < rpm).clamp(1, predicted.speed_rpm.len() - 1);
        let (a, b) = (predicted.speed_rpm[next - 1], predicted.speed_rpm[next]);
        let part = (rpm - a) / (b - a);
        predicted.torque_nm[next - 1] * (1.0 - part) + predicted.torque_nm[next] * part
    };
    let off: Vec<f64> =
        measured.speed_rpm.iter().zip(&measured.torque_nm).map(|(rpm, torque)| torque / between(*rpm) - 1.0).collect();
    let mean = 100.0 * off.iter().sum::<f64>() / off.len() as f64;
    let said = own.torque.apart.expect("both are there").inch;
    assert!(said.contains(&format!("{mean:+.1} % on the mean")), "{mean} {said}");
    assert!(own.torque.against.starts_with('A'), "{}", own.torque.against);
    assert!(
        own.torque.believed.iter().any(|own| own.metric.contains("average torque: +20")),
        "{:?}",
        own.torque.believed
    );
}

#[test]
fn whoever_names_no_candidate_gets_the_one_that_the_log_has_in_the_engine() {
    let mut document = Build::read(DEMOS[0]).expect("the demo").value().clone();
    let entry = |id: &str, date: &str, candidate: &str| json!({ "id": id, "date": date, "at": "0 mi", "event": "oil", "candidate": candidate });
    document["service"] = json!([entry("y", "2026-03-01", "b"), entry("x", "2026-02-01", "a")]);
    let build = Build::from_value(document).expect("a document in order");
    let stages = Arc::new(Stages::default());
    let own = |asked| owner_of(&build, asked, &AROUND, &stages).expect("a report");
    let (of_b, of_a) = (own(None), own(Some("a")));
    assert!(of_b.candidate.starts_with('B') && !of_b.says[0].inch.contains("The log has"), "{:?}", of_b.says[0]);
    let said = format!("The log has {} in the engine: this is a report of {}.", of_b.candidate, of_a.candidate);
    assert_eq!(of_a.says[0].inch, said);
}

#[test]
fn a_build_that_lacks_everything_gets_a_report_that_says_so() {
    let own = report(&Build::blank("Nothing yet").expect("a name"), "a");
    assert!(own.torque.predicted.is_none() && !own.torque.trust.is_empty());
    assert!(own.strip.is_none() && own.torque.measured.is_none());
    assert!(own.says[0].inch.contains("not known: "), "{}", own.says[0].inch);
}
