//! Pulls in a document, used as a shop uses them: planned, taken in from files, compared, questioned.

use crate::support::DEMOS;
use rand_distr::{Distribution, Normal};
use rand_pcg::rand_core::SeedableRng;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{
    Believed, Build, Edit, Fault, FlagKind, PullsReport, SharedOfPulls, Stages, TestPlanReport, UnitSystem, apply,
    dyno_of, pull_file, pulls_of,
};

const POUND_FOOT: f64 = 1.355_817_948;

/// Torque of a made-up engine, lbf ft, and what the second candidate has more from 4,200 rpm on.
fn torque(rpm: f64, is_b: bool) -> f64 {
    let own = 400.0 - ((rpm - 3900.0) / 210.0).powi(2);
    own + if is_b { 8.0 / (1.0 + (-(rpm - 4200.0) / 150.0).exp()) } else { 0.0 }
}

/// A file of one pull with a roll-on, noise, and a spike now and then.
fn file(seed: u64, is_b: bool, share: f64) -> String {
    let mut lot = rand_pcg::Pcg64::seed_from_u64(seed);
    let noise = Normal::new(0.0, 1.0).expect("a spread");
    let whole = 1.0 + 0.0025 * noise.sample(&mut lot);
    let mut text = "Dyno cell two\nRPM,STP Torque (ft-lb),Oil Temp (F)\n".to_owned();
    for i in 0..300 {
        let rpm = 1900.0 + 13.0 * f64::from(i);
        let throttle = (0.4 + 0.06 * f64::from(i)).min(1.0);
        let spike = if i == 140 { 40.0 } else { 0.0 };
        let own = torque(rpm, is_b) * whole * share * throttle + 0.6 * noise.sample(&mut lot) + spike;
        text += &format!("{rpm:.0},{own:.1},195\n");
    }
    text
}

fn tow() -> Value {
    let mut document = Build::read(DEMOS[0]).expect("the demo").value().clone();
    document.as_object_mut().expect("an object").shift_remove("pull");
    document["dyno_test"] =
        json!({ "control": "a", "against": ["b"], "pulls_each": 3, "oil_from": "85 C", "oil_to": "100 C" });
    document
}

fn take(build: &Build, text: &str, candidate: &str, drawn: usize) -> Build {
    let read = pull_file(text, None).expect("a table");
    assert_eq!(read.lacks, None);
    let mapped = read.columns.iter().map(|own| json!({ "holds": own.holds, "unit": own.unit })).collect::<Vec<Value>>();
    let edit = Edit::TakePulls {
        text: text.to_owned(),
        mapped: serde_json::from_value(Value::from(mapped)).expect("a mapping"),
        runs: (0..read.runs.len()).collect(),
        drawn,
        shared: SharedOfPulls {
            candidate: candidate.to_owned(),
            day: "2026-03-09".to_owned(),
            ..SharedOfPulls::default()
        },
    };
    apply(build, &edit, UnitSystem::Inch, &Stages::default()).expect("it is taken over")
}

/// Control, the other, control again, three pulls each, with a drift of -.1 % a pull.
fn tested(seed: u64) -> Build {
    let mut build = Build::from_value(tow()).expect("a build");
    for pull in 0..9 {
        let is_b = (3..6).contains(&pull);
        let share = 1.0 - 0.001 * pull as f64;
        build = take(&build, &file(seed + pull, is_b, share), if is_b { "b" } else { "a" }, pull as usize + 1);
    }
    build
}

fn report(build: &Build) -> PullsReport {
    pulls_of(build, None).expect("an analysis")
}

fn planned(build: &Build) -> Result<TestPlanReport, Fault> {
    dyno_of(build, None).map(|own| own.plan.expect("a candidate to run"))
}

fn plan(build: &Build) -> TestPlanReport {
    planned(build).expect("a plan")
}

#[test]
fn a_difference_is_found_with_its_place_and_its_doubt() {
    let own = report(&tested(11));
    let average = own.differences.iter().find(|own| own.what == "average_torque").expect("it is compared");
    // The planted difference over the band, by hand: the mean of the logistic step over the speeds that are averaged.
    let [from, to] = own.band_rpm.expect("a band");
    let mean = (0..=1000)
        .map(|i| from + (to - from) * f64::from(i) / 1000.0)
        .map(|rpm| torque(rpm, true) - torque(rpm, false))
        .sum::<f64>()
        / 1001.0;
    assert!(average.low < mean * POUND_FOOT && mean * POUND_FOOT < average.high, "{mean} {average:?}");
    assert!(own.baseline.as_deref() == Some("a") && own.rows.len() == 2 && own.rows[0].n == 6);
    let over = &own.over_speed[0];
    assert!(over.real_rpm.iter().all(|[from, _]| *from > 3800.0) && !over.real_rpm.is_empty(), "{:?}", over.real_rpm);
    // The board: what has more of every figure is first, with a rank of one in each.
    let first = &own.board[0];
    assert!(first.candidate == "b" && first.place == 1 && own.board[1].place == 2, "{:?}", own.board);
    assert!((first.points - first.ranks.iter().sum::<usize>() as f64).abs() < 1e-9);
    // Everything but roll-on and spike is counted, and said.
    let pull = &own.pulls[0];
    assert!(
        pull.trimmed.contains("before the throttle was open") && pull.trimmed.contains("1 far off"),
        "{}",
        pull.trimmed
    );
    assert!(own.flags.is_empty(), "{:?}", own.flags);
}

#[test]
fn over_many_tests_intervals_hold_and_nothing_is_believed_that_is_not_there() {
    let (mut held, mut alarms) = (0, 0);
    let tests = 60;
    for seed in 0..tests {
        let mut document = tested(100 * seed).value().clone();
        // Nothing differs: the second candidate's pulls are the control's.
        for (place, pull) in document["pulls"].as_array_mut().expect("pulls").iter_mut().enumerate() {
            if (3..6).contains(&place) {
                let points = pull["points"].as_array_mut().expect("points");
                for point in points {
                    let number = |own: &Value| {
                        own.as_str().and_then(|own| own.split(' ').next()?.parse::<f64>().ok()).expect("a number")
                    };
                    let rpm = number(&point[0]);
                    let less = torque(rpm, true) - torque(rpm, false);
                    point[1] = json!(format!("{:.2} lbf ft", number(&point[1]) - less));
                }
            }
        }
        let own = report(&Build::from_value(document).expect("a build"));
        let average = own.differences.iter().find(|own| own.what == "average_torque").expect("it is compared");
        held += usize::from(average.low <= 0.0 && 0.0 <= average.high);
        alarms += usize::from(!own.over_speed[0].real_rpm.is_empty());
    }
    println!("of {tests} tests without a difference {held} intervals hold nought, {alarms} bands alarm");
    // 95 of 100: at least 51 of 60 in all but one of 700 such sets.
    assert!(held >= 51 && alarms <= 9, "{held} {alarms}");
}

#[test]
fn pulls_that_cannot_be_compared_are_kept_and_named() {
    let build = tested(31);
    let mut document = build.value().clone();
    let pulls = document["pulls"].as_array_mut().expect("pulls");
    let twice = pulls[1].clone();
    pulls.push(twice);
    pulls[9]["id"] = json!("again");
    let mut other = pulls[2].clone();
    other["id"] = json!("other");
    for point in other["points"].as_array_mut().expect("points") {
        point[1] = json!(point[1].as_str().expect("a text").replace("lbf ft", "N m"));
    }
    pulls.push(other);
    let mut short = pulls[2].clone();
    short["id"] = json!("short");
    short.as_object_mut().expect("an object").shift_remove("traces");
    short["points"] = json!(short["points"].as_array().expect("points")[30..120].to_vec());
    pulls.push(short);
    pulls[0]["oil"] = json!("60 C");
    let before = report(&build);
    let own = report(&Build::from_value(document.clone()).expect("a build"));
    let kind = |id: &str| own.flags.iter().find(|flag| flag.pull == id).map(|flag| flag.kind);
    assert_eq!(kind("again"), Some(FlagKind::Twice));
    assert_eq!(kind("other"), Some(FlagKind::Stranger));
    assert_eq!(kind("short"), Some(FlagKind::Short));
    assert_eq!(kind("p1"), Some(FlagKind::NotHeld));
    // They change nothing of what is compared.
    assert_eq!(own.differences, before.differences);
    // What somebody leaves out is out.
    document["pulls"][4]["left_out"] = json!("knock");
    let own = report(&Build::from_value(document).expect("a build"));
    assert!(!own.pulls[4].counted && own.pulls[4].why_not == "knock" && own.rows[1].n == 2);
}

#[test]
fn standard_airs_are_as_by_hand_and_raw_is_kept() {
    let mut document = tow();
    document["target"]["ambient"] = json!({ "pressure": "99 kPa", "temperature": "25 C", "humidity": 0.0 });
    let points =
        json!([["2000 rpm", "400 N m"], ["3000 rpm", "420 N m"], ["4000 rpm", "410 N m"], ["5000 rpm", "380 N m"]]);
    let pull = |id: &str, more: Value| {
        let mut own = json!({ "id": id, "candidate": "a", "points": points });
        own.as_object_mut().expect("an object").extend(more.as_object().expect("an object").clone());
        own
    };
    let thin = json!({ "air": "as_measured", "pressure": "85 kPa", "temperature": "30 C", "humidity": 0.5 });
    document["pulls"] = json!([
        pull("plan", json!({})),
        pull("j1349", json!({ "air": "sae_j1349" })),
        pull("j607", json!({ "air": "sae_j607" })),
        pull("day", thin),
        pull("wheels", json!({ "dyno": "chassis", "loss": 0.2 })),
    ]);
    let build = Build::from_value(document).expect("a build");
    let factor = |air: Option<&str>, id: &str| {
        let own = pulls_of(&build, air).expect("an analysis");
        own.pulls.iter().find(|own| own.id == id).expect("the pull").factor
    };
    // The plan's air is that of SAE J1349: dry, 99 kPa, 25 C. SAE J607 to it: 101.325/99 x sqrt(298.15/288.71) = 1.0401, by hand.
    for (air, id, wanted) in [
        (None, "plan", 1.0),
        (None, "j1349", 1.0),
        (None, "j607", 1.0 / 1.0401),
        (Some("sae_j607"), "j607", 1.0),
        (Some("sae_j607"), "plan", 1.0401),
        // 85 kPa, 30 C, half humid: 1.2413, by hand (pulls/air.rs).
        (None, "day", 1.2413),
        (Some("sae_j607"), "day", 1.2413 * 1.0401),
        (None, "wheels", 1.25),
    ] {
        assert!((factor(air, id) / wanted - 1.0).abs() < 2e-4, "{air:?} {id}: {}", factor(air, id));
    }
    assert!(pulls_of(&build, Some("sae_j9")).is_err());
    assert_eq!(build.value()["pulls"][3]["points"], points, "as written");
}

#[test]
fn a_plan_is_drawn_by_lot_and_says_which_pull_is_next() {
    let mut build = Build::from_value(tow()).expect("a build");
    let own = plan(&build);
    let ids: Vec<&str> = own.order.iter().map(|own| own.candidate.as_str()).collect();
    assert_eq!(ids, ["a", "a", "a", "b", "b", "b", "a", "a", "a"]);
    assert_eq!((own.next, own.order[3].changed, own.order[4].changed), (Some(0), true, false));
    assert!(own.held[0].metric.contains("oil 85 C to 100 C"), "{:?}", own.held);
    for pull in 0..4 {
        build = take(&build, &file(pull, pull == 3, 1.0), if pull == 3 { "b" } else { "a" }, pull as usize + 1);
    }
    let own = plan(&build);
    assert_eq!((own.next, own.order[3].pull.as_deref()), (Some(4), Some("p4")));
    // The whole of it with a candidate that is not there.
    let mut document = tow();
    document["dyno_test"]["against"] = json!(["z"]);
    assert!(planned(&Build::from_value(document).expect("a build")).unwrap_err().field.contains("against"));
}

#[test]
fn too_few_pulls_say_what_would_make_it_sure() {
    let mut build = Build::from_value(tow()).expect("a build");
    assert!(report(&build).says.inch.contains("No pull yet"));
    for (pull, id) in [(0, "a"), (1, "b")] {
        build = take(&build, &file(pull, id == "b", 1.0), id, pull as usize + 1);
    }
    let own = report(&build);
    assert!(own.differences.is_empty() && own.surer[0].inch.contains("at least twice"), "{:?}", own.surer);
    // Three each without the control at the end: drift and difference are nearly one, and that is said.
    for (pull, id) in [(2, "a"), (3, "a"), (4, "b"), (5, "b")] {
        build = take(&build, &file(pull, id == "b", 1.0), id, pull as usize + 1);
    }
    let own = report(&build);
    assert!(own.surer.iter().any(|own| own.inch.contains("again at the end")), "{:?}", own.surer);
    assert!(own.differences.iter().all(|own| own.believed == Believed::NotShown || own.certain_share > 0.95));
}

#[test]
fn the_old_single_pull_is_the_first_of_them() {
    let own = report(&Build::read(DEMOS[0]).expect("the demo"));
    assert_eq!((own.pulls.len(), own.pulls[0].id.as_str(), own.pulls[0].candidate.as_str()), (1, "pull", "a"));
    assert!(own.pulls[0].counted && own.says.inch.contains("nothing to compare"), "{}", own.says.inch);
}
