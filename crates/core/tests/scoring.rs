//! The score board: ranks as contests and SciPy count them, values that are those of the curve, and what it makes of candidates
//! that lack something.

use crate::support::DEMOS;
use serde_json::{Value, json};
use std::sync::Arc;
use upper_lobe_core::analysis::{
    Build, Halted, Job, PartName, Request, ScoreJob, ScoreReport, ScoreStep, Stages, Watch, analyze,
};
use upper_lobe_core::choose::{Better, points_of, ranks};

fn numbers(value: &Value) -> Vec<f64> {
    value.as_array().unwrap().iter().map(|number| number.as_f64().unwrap()).collect()
}

#[test]
fn ranks_and_points_are_those_of_scipys_rankdata() {
    let cases: Vec<Value> = serde_json::from_str(include_str!("reference/ranks.json")).unwrap();
    for case in &cases {
        let columns: Vec<Vec<f64>> = case["columns"].as_array().unwrap().iter().map(numbers).collect();
        let higher = case["higher_is_better"].as_array().unwrap().iter();
        let own: Vec<Vec<usize>> = columns
            .iter()
            .zip(higher)
            .map(|(column, higher)| {
                let better = if higher.as_bool().unwrap() { Better::Higher } else { Better::Lower };
                ranks(&column.iter().copied().map(Some).collect::<Vec<_>>(), better)
            })
            .collect();
        assert_eq!(json!(own), case["ranks"]);
        let points = points_of(&own, &numbers(&case["weights"]), columns[0].len());
        assert_eq!(points, numbers(&case["points"]));
        let places = ranks(&points.into_iter().map(Some).collect::<Vec<_>>(), Better::Lower);
        assert_eq!(json!(places), case["places"]);
    }
    // Who has no value comes after everybody who has one, whichever way it counts.
    for (better, wanted) in [(Better::Higher, [2, 3, 1, 3]), (Better::Lower, [1, 3, 2, 3])] {
        assert_eq!(ranks(&[Some(1.0), None, Some(2.0), None], better), wanted);
    }
}

/// The tow build of one cylinder with a second candidate of more duration and a third that has no lobes.
fn three(score: Value) -> Build {
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    value["engine"].as_object_mut().unwrap().remove("firing_order").unwrap();
    value["target"]["score"] = score;
    let first = value["candidates"][0].clone();
    let (mut later, mut bare) = (first.clone(), first.clone());
    (later["id"], later["name"]) = (json!("later"), json!("Later"));
    later["cam"]["intake_centreline"] = json!("116 deg");
    (bare["id"], bare["name"]) = (json!("bare"), json!("Bare"));
    bare["cam"].as_object_mut().unwrap().remove("intake").unwrap();
    value["candidates"] = json!([first, later, bare]);
    Build::from_value(value).unwrap()
}

fn board(build: &Build, stages: &Arc<Stages>) -> Arc<ScoreReport> {
    ScoreJob::new(build, Arc::clone(stages)).unwrap().run(&Watch::nobody()).unwrap()
}

#[test]
fn a_board_has_the_values_of_the_curves_and_says_what_is_not_known() {
    let stages = Arc::default();
    let asked = json!([
        { "column": "average_torque", "weight": 2 },
        { "column": "peak_power" },
        { "column": "average_torque", "from": "3000 rpm", "to": "4000 rpm" },
        { "column": "under_curve", "to": "12000 rpm" },
        { "column": "money" },
        { "column": "guide_pressure" },
    ]);
    let build = three(asked);
    let report = board(&build, &stages);
    let request = Request::of(Some("a".to_owned()), vec![PartName::Breathing]);
    let analysis = analyze(&build, &request, &stages).unwrap();
    let curve = analysis.candidates[0].breathing.done().expect("a curve").clone();
    let first = &report.rows[0];
    assert!((first.values[0].unwrap() - curve.average_torque_nm.unwrap()).abs() < 0.06);
    assert!((first.values[1].unwrap() - curve.peak_power_kw).abs() < 0.06);
    // A mean lies between the least and the most of its speeds; nobody computed torque at twelve thousand.
    let within: Vec<f64> = curve
        .speed_rpm
        .iter()
        .zip(&curve.torque_nm)
        .filter(|(rpm, _)| (2900.0..4100.0).contains(*rpm))
        .map(|(_, torque)| *torque)
        .collect();
    let (least, most) =
        (within.iter().copied().fold(f64::INFINITY, f64::min), within.iter().copied().fold(0.0, f64::max));
    assert!((least - 1.0..most + 1.0).contains(&first.values[2].unwrap()), "{least} {most}");
    assert_eq!(first.values[3], None);
    // Later is better on top and worse low down (common practice, no source).
    let later = &report.rows[1];
    assert!(later.values[2].unwrap() < first.values[2].unwrap());
    assert_eq!((first.ranks[2], later.ranks[2]), (1, 2));
    // The same parts cost the same: they tie, and the one without a lobe with them.
    assert_eq!(report.rows.iter().map(|row| row.ranks[4]).collect::<Vec<_>>(), [1, 1, 1]);
    // Guides wear by pressure times travel: lobes lifted by 2 % more wear them by more than its pressure tells.
    let mut higher = build.value().clone();
    for side in ["intake", "exhaust"] {
        let lobe = &mut higher["candidates"][0]["cam"][side]["lobe_lift"];
        let inches: f64 = lobe.as_str().unwrap().trim_end_matches(" in").parse().unwrap();
        *lobe = json!(format!("{:.4} in", 1.02 * inches));
    }
    let higher = board(&Build::from_value(higher).unwrap(), &stages);
    let told = |report: &ScoreReport| (report.rows[0].costs.guide_wear.unwrap(), report.rows[0].values[5].unwrap());
    let ((wear, pressure), (wears, presses)) = (told(&report), told(&higher));
    let travel = (wears / wear) / (presses / pressure);
    // The column's pressures are told apart by .01 MPa: .7 % of one.
    assert!((1.02 / 1.014..1.02 * 1.014).contains(&travel), "{travel}");
    let bare = &report.rows[2];
    assert!(bare.lacks.is_some() && bare.values[0].is_none() && bare.ranks[0] == 3);
    for row in &report.rows {
        let sum: f64 = report.columns.iter().zip(&row.ranks).map(|(column, rank)| column.weight * *rank as f64).sum();
        assert!((sum - row.points).abs() < 1e-12);
    }
}

#[test]
fn a_board_nobody_set_up_is_a_contests_and_what_is_raced_is_not_asked_what_it_costs() {
    let titles = |demo: &str| -> Vec<String> {
        let stages = Arc::default();
        let seen = std::sync::Mutex::new(Vec::new());
        let mut value: Value = serde_json::from_str(demo).unwrap();
        value["engine"].as_object_mut().unwrap().remove("firing_order").unwrap();
        let job = ScoreJob::new(&Build::from_value(value).unwrap(), stages).unwrap();
        // Its headings are known before a curve is: it is stopped with the first candidate.
        let report =
            |step: ScoreStep| *seen.lock().unwrap() = step.report.columns.iter().map(|c| c.id.clone()).collect();
        let stop = || !seen.lock().unwrap().is_empty();
        let halted = job.run(&Watch { report: &report, stop: &stop });
        assert!(halted.is_ok() || halted.unwrap_err() == Halted::Stopped);
        seen.into_inner().unwrap()
    };
    let contest = ["average_torque", "average_power", "peak_torque", "peak_power"];
    assert_eq!(titles(DEMOS[1])[..], contest);
    assert_eq!(titles(DEMOS[0])[..4], contest);
    assert_eq!(titles(DEMOS[0])[4..], ["control", "life", "money"]);
}
