//! A search finds what is planted, keeps limits, says what cannot be met, and is the same however it is run.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use upper_lobe_core::analysis::{
    Build, Goal, Halted, Job, PartKind, SearchJob, SearchReport, SearchSetup, SearchStep, Share, ShelfPart, Stages,
    Start, UnitSystem, Watch, read_sheet,
};
use upper_lobe_core::choose::open_kinds;

const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const SHELF: &str = include_str!("../../../demo/parts.csv");

fn shelf() -> Vec<ShelfPart> {
    read_sheet(SHELF, UnitSystem::Inch).unwrap()
}

fn job(build: &Build, setup: &SearchSetup, shelf: Vec<ShelfPart>, stages: &Arc<Stages>) -> SearchJob {
    SearchJob::new(build, None, shelf, setup.clone(), Arc::clone(stages)).unwrap().unwrap()
}

fn found(build: &Build, setup: &SearchSetup, shelf: Vec<ShelfPart>) -> SearchReport {
    let report = job(build, setup, shelf, &Arc::default()).run(&Watch::nobody()).unwrap();
    report.as_ref().clone()
}

fn timing() -> SearchSetup {
    SearchSetup { start: Start::Timing, evaluations: 2, ..SearchSetup::default() }
}

/// The tow build without its firing order: one cylinder instead of eight is computed.
fn one_cylinder() -> serde_json::Value {
    let mut value: serde_json::Value = serde_json::from_str(TOW).unwrap();
    value["engine"].as_object_mut().unwrap().remove("firing_order").unwrap();
    value
}

/// The same with a field changed.
fn changed(field: &[&str], to: &str) -> Build {
    let mut value = one_cylinder();
    let (last, path) = field.split_last().unwrap();
    let place = path.iter().fold(&mut value, |value, key| match key.parse::<usize>() {
        Ok(index) => &mut value[index],
        Err(_) => &mut value[*key],
    });
    place[*last] = serde_json::from_str(to).unwrap();
    Build::read(&value.to_string()).unwrap()
}

#[test]
fn a_search_of_one_decision_agrees_with_every_value_computed_in_full() {
    let build = Build::from_value(one_cylinder()).unwrap();
    let stages = Arc::default();
    let found = |setup: &SearchSetup| job(&build, setup, Vec::new(), &stages).run(&Watch::nobody()).unwrap();
    let report = found(&timing());
    assert!(report.impossible.is_none());
    let best = &report.finalists[0];
    assert!(best.broken.is_empty(), "{:?}", best.broken);
    // Every other way to set it, one by one, in full, by choices an earlier search would hand over.
    let from = |advance: f64| {
        vec![upper_lobe_core::analysis::Decided {
            decision: upper_lobe_core::response::Decision::Advance,
            value: advance,
        }]
    };
    let all: Vec<f64> = [-4.0, -2.0, 2.0, 4.0].to_vec();
    let setup = SearchSetup { evaluations: 6, from: all.iter().map(|by| from(*by)).collect(), ..timing() };
    let every = found(&setup);
    let most = every.finalists.iter().filter(|own| own.broken.is_empty()).map(|own| own.gain).fold(0.0, f64::max);
    assert!(most - best.gain < 0.003, "{most} for {}", best.gain);
}

#[test]
fn the_same_seed_gives_the_same_bits_on_one_thread_in_shares_and_begun_again() {
    let build = Build::from_value(one_cylinder()).unwrap();
    // Two machines, each with its own share, that hand over their points after every round.
    let stages: [Arc<Stages>; 2] = [Arc::default(), Arc::default()];
    let mut rounds = 0;
    let shared = loop {
        rounds += 1;
        assert!(rounds < 20, "no end of rounds");
        for (index, own) in stages.iter().enumerate() {
            job(&build, &timing(), Vec::new(), own).shared(Share { index, of: 2 }, &Watch::nobody()).unwrap();
        }
        for (from, to) in [(0, 1), (1, 0)] {
            for (key, point) in stages[from].points.all() {
                stages[to].points.keep(key, point);
            }
        }
        let merged = Share { index: usize::MAX, of: usize::MAX };
        if let Some(report) = job(&build, &timing(), Vec::new(), &stages[0]).shared(merged, &Watch::nobody()).unwrap() {
            break serde_json::to_string(&report).unwrap();
        }
    };
    assert!(rounds > 1);
    // On one thread, stopped in the middle and begun again: what was computed is taken.
    let one = rayon::ThreadPoolBuilder::new().num_threads(1).build().unwrap();
    let stages: Arc<Stages> = Arc::default();
    let is_enough = AtomicBool::new(false);
    let report = |step: SearchStep| {
        is_enough.fetch_or(step.doing.contains("near the best"), Ordering::Relaxed);
    };
    let watch = Watch { report: &report, stop: &|| is_enough.load(Ordering::Relaxed) };
    let halted = one.install(|| job(&build, &timing(), Vec::new(), &stages).run(&watch));
    assert_eq!(halted.unwrap_err(), Halted::Stopped);
    assert!(!stages.points.all().is_empty());
    let again = one.install(|| job(&build, &timing(), Vec::new(), &stages).run(&Watch::nobody()).unwrap());
    assert_eq!(shared, serde_json::to_string(again.as_ref()).unwrap());
}

#[test]
fn springs_alone_are_chosen_from_the_shelf_and_what_the_plan_keeps_stays() {
    let setup = SearchSetup {
        start: Start::Springs,
        goals: vec![Goal::Control, Goal::Money],
        evaluations: 4,
        ..SearchSetup::default()
    };
    let report = found(&Build::from_value(one_cylinder()).unwrap(), &setup, shelf());
    let stands = report.stands.point.control_rpm.unwrap();
    let best = report.finalists.iter().filter(|own| own.broken.is_empty());
    let most = best.filter_map(|own| own.point.control_rpm).fold(0.0, f64::max);
    assert!(most > stands + 100.0, "{most} for {stands}");
    assert!(report.kits[1..].iter().all(|kit| kit.parts.iter().all(|part| part.kind != "rocker")), "{:?}", report.kits);
    // A plan that keeps its springs has none to choose.
    let kept = changed(&["target", "keep"], r#"["springs", "rockers"]"#);
    assert_eq!(open_kinds(&kept, Start::Springs.kinds()), [PartKind::Retainer]);
}

#[test]
fn what_cannot_be_met_is_named_with_how_much_it_lacks() {
    let own = r#"[{ "limit": "octane", "at_most": "60 RON", "reason": "to see what cannot be met" }]"#;
    let report = found(&changed(&["limits"], own), &timing(), Vec::new());
    let impossible = report.impossible.expect("no cam runs on sixty");
    assert_eq!(impossible.limit, "octane");
    assert!(impossible.short_by.inch.ends_with("RON"), "{:?}", impossible.short_by);
}
