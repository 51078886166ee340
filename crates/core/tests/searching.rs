//! A search finds what is planted, keeps limits, says what cannot be met, and is the same however it is run.

use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, LazyLock};
use upper_lobe_core::analysis::{
    BesideSetup, Build, Goal, Halted, Job, PartKind, PartName, Request, SearchJob, SearchReport, SearchSetup,
    SearchStep, Share, ShelfPart, Stages, Start, UnitSystem, Watch, analyze, read_sheet,
};
use upper_lobe_core::candidate::Resolved;
use upper_lobe_core::choose::{idle_vacuum, open_kinds};
use upper_lobe_core::report::FinalistReport;
use upper_lobe_core::response::Decision;

const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const STRIP: &str = include_str!("../../../demo/quarry-lane-427-strip.json");
/// Brute force: 576 of the strip's cams, limits of all and curves in full of those that hold (`benches/grid.rs`).
const GRID: &str = include_str!("reference/grid_strip.csv");
const SHELF: &str = include_str!("../../../demo/parts.csv");

/// Results that these searches share, by their inputs: what one has computed no other computes again, as in the application.
/// That it makes no difference has a test of its own.
fn shared() -> Arc<Stages> {
    static KEPT: LazyLock<Arc<Stages>> = LazyLock::new(Arc::default);
    Arc::clone(&KEPT)
}

fn shelf() -> Vec<ShelfPart> {
    read_sheet(SHELF, UnitSystem::Inch).unwrap()
}

fn job(build: &Build, setup: &SearchSetup, shelf: Vec<ShelfPart>, stages: &Arc<Stages>) -> SearchJob {
    SearchJob::new(build, None, shelf, setup.clone(), Arc::clone(stages)).unwrap().unwrap()
}

fn found(build: &Build, setup: &SearchSetup, shelf: Vec<ShelfPart>) -> SearchReport {
    let report = job(build, setup, shelf, &shared()).run(&Watch::nobody()).unwrap();
    report.as_ref().clone()
}

fn timing() -> SearchSetup {
    SearchSetup { start: Start::Timing, evaluations: 2, ..SearchSetup::default() }
}

/// The tow build without its firing order: one cylinder instead of eight is computed. Nor does it want a vacuum: idle has a test
/// of its own.
fn one_cylinder() -> serde_json::Value {
    let mut value = alone(TOW);
    value["target"].as_object_mut().unwrap().remove("idle_vacuum").unwrap();
    value
}

/// A build without its firing order.
fn alone(demo: &str) -> serde_json::Value {
    let mut value: serde_json::Value = serde_json::from_str(demo).unwrap();
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
    let found = |setup: &SearchSetup| found(&build, setup, Vec::new());
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
    // An engine that turns fast: its cycles take the least to compute.
    let build = Build::from_value(alone(STRIP)).unwrap();
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

/// The tow build with one cylinder, on at most so much octane.
fn on_octane(most: f64) -> SearchReport {
    let own = format!(r#"[{{ "limit": "octane", "at_most": "{most:.2} RON", "reason": "to see what it costs" }}]"#);
    found(&changed(&["limits"], &own), &SearchSetup { evaluations: 6, ..timing() }, Vec::new())
}

#[test]
fn what_full_curves_teach_moves_the_best_and_a_limit_is_priced_as_a_search_with_it_moved_finds() {
    let (before, after) = (on_octane(98.5), on_octane(99.5));
    let best = &before.finalists[0];
    // By every half degree in full: 7 deg later needs 98.45 RON, everything earlier more; without the limit 3 later is best.
    assert!(best.broken.is_empty(), "{:?}", best.broken);
    assert!((best.point.choice[0].value + 7.0).abs() <= 1.0, "{:?}", best.point.choice);
    let torque = |report: &SearchReport| report.finalists[0].point.average_torque_nm;
    let price = before
        .prices
        .iter()
        .find(|price| price.limits.len() == 1 && price.limits[0].limit == "octane")
        .expect("octane holds it back");
    let found = torque(&after) - torque(&before);
    assert!(found > 0.0);
    // Predictions of one cylinder, a step of half a degree and a jagged octane: within a factor of two.
    let share = price.average_torque_nm / found;
    assert!((0.5..2.0).contains(&share), "{} for {found}", price.average_torque_nm);
}

#[test]
fn a_few_curves_in_full_find_what_a_grid_of_hundreds_does() {
    let gain = |line: &str| -> Option<f64> {
        let cells: Vec<&str> = line.split(',').collect();
        (cells[6].parse::<f64>().ok()? <= 0.0).then(|| cells[7].parse().ok())?
    };
    let grid: Vec<f64> = GRID.lines().skip(1).filter_map(gain).collect();
    assert_eq!((GRID.lines().count() - 1, grid.len()), (576, 54));
    let most = grid.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let setup = SearchSetup { evaluations: 2, ..SearchSetup::default() };
    let report = found(&Build::read(STRIP).unwrap(), &setup, Vec::new());
    let best = &report.finalists[0];
    assert!(best.broken.is_empty(), "{:?}", best.broken);
    assert!(best.gain > most - 0.003, "{} for {most}", best.gain);
    assert!(report.evaluations.full < 8);
    // What it says of its best, and of what stands, is what the builder reads of them afterwards, wherever he looks.
    let mut value = Build::read(STRIP).unwrap().value().clone();
    let mut kept = best.candidate.clone().unwrap();
    kept["id"] = "kept".into();
    value["candidates"].as_array_mut().unwrap().push(kept);
    let build = Build::from_value(value).unwrap();
    for (id, said) in [("a", &report.stands), ("kept", best)] {
        let request = Request::of(Some(id.to_owned()), vec![PartName::Breathing]);
        let analysis = analyze(&build, &request, &Stages::default()).unwrap();
        let curve = analysis.candidates[0].breathing.done().unwrap().clone();
        let apart = said.figures.average_torque_nm / curve.average_torque_nm.unwrap() - 1.0;
        assert!(apart.abs() < 1e-3, "{id}: {apart}");
    }
}

#[test]
fn finalists_are_held_against_each_other_as_they_are_built() {
    let build = Build::from_value(alone(STRIP)).unwrap();
    let setup = SearchSetup { evaluations: 4, ..SearchSetup::default() };
    let report = found(&build, &setup, Vec::new());
    let best = &report.finalists[0];
    let (fails, sure) = (best.fails_share.unwrap(), best.sure_built.unwrap());
    assert!((0.0..=1.0).contains(&fails) && (fails == 0.0) == best.fails_most.is_none());
    // What strays and what fails when it is built makes it no surer.
    assert!(sure <= best.sure.unwrap() + 1e-12 && sure <= 1.0 - fails + 1e-12, "{sure}");
    assert!(report.stands.fails_share.is_some() && report.stands.sure_built.is_none());
    let changes: Vec<f64> = best.measure_first.iter().filter_map(|own| own.changes_share).collect();
    assert!(changes.windows(2).all(|two| two[0] >= two[1]), "{changes:?}");
    // With a bound on failures something is kept of limits, the best fails less by what was chosen, and no finalist that fails
    // more than is allowed, or than what stands, comes before one that fails less.
    let by_choice = best.fails_by_choice_share.unwrap();
    assert!(report.kept.is_empty() && by_choice <= fails + 1e-12);
    let most = 0.25 * by_choice;
    let bounded = found(&build, &SearchSetup { most_fails: Some(most), ..setup }, Vec::new());
    assert!(!bounded.kept.is_empty());
    let allowed = most.max(bounded.stands.fails_by_choice_share.unwrap());
    let chosen = |own: &FinalistReport| own.fails_by_choice_share.unwrap();
    assert!(chosen(&bounded.finalists[0]) < by_choice, "{} for {by_choice}", chosen(&bounded.finalists[0]));
    let own = bounded.finalists.iter().filter(|own| own.broken.is_empty());
    let within: Vec<bool> = own.map(|own| chosen(own) <= allowed).collect();
    assert!(within.windows(2).all(|two| two[0] >= two[1]), "{within:?}");
    let absurd = SearchSetup { most_fails: Some(2.0), ..SearchSetup::default() };
    assert!(SearchJob::new(&build, None, Vec::new(), absurd, Arc::default()).is_err());
}

#[test]
fn only_a_ratio_leaves_the_lobes_as_they_are_on_any_rocker() {
    let build = Build::from_value(one_cylinder()).unwrap();
    let setup = SearchSetup { start: Start::Ratio, evaluations: 4, ..SearchSetup::default() };
    let lobe_lift = |candidate: &serde_json::Value| candidate["cam"]["intake"]["lobe_lift"].clone();
    let before = lobe_lift(&build.value()["candidates"][0]);
    // Whatever is made, where there is no shelf; else what lies on it.
    for parts in [Vec::new(), shelf()] {
        let has_parts = !parts.is_empty();
        let report = found(&build, &setup, parts);
        let best = &report.finalists[0];
        assert!(best.broken.is_empty() && best.gain > 0.001, "{} {:?}", best.gain, best.broken);
        let ratio = best.point.choice.iter().find(|own| own.decision == Decision::Ratio).unwrap().value;
        assert!(ratio > 1.6, "more lift at the valve: {ratio}");
        let candidate = best.candidate.as_ref().unwrap();
        assert_eq!(lobe_lift(candidate), before);
        let written: f64 = candidate["train"]["rocker"]["ratio"].to_string().trim_matches('"').parse().unwrap();
        assert!((written - ratio).abs() < 1e-9, "{written} for {ratio}");
        assert_eq!(report.kits[best.point.kit].parts.is_empty(), !has_parts);
    }
}

#[test]
fn compression_and_pipes_end_where_whole_engines_knock_not_where_one_cylinder_does() {
    let setup = SearchSetup { start: Start::Breathing, evaluations: 2, ..SearchSetup::default() };
    let report = found(&Build::read(STRIP).unwrap(), &setup, Vec::new());
    let best = &report.finalists[0];
    assert!(best.broken.is_empty(), "{:?}", best.broken);
    assert!(best.gain > 0.01, "{}", best.gain);
    // Octane is what binds it, and has a price.
    assert!(best.binds.iter().any(|own| own.limit == "octane" && own.price_per_unit.is_some()), "{:?}", best.binds);
    // However often a region moved, pipes stay within two fifths of what stands: 7.2 and 31 in.
    let at = |decision| best.point.choice.iter().find(|own| own.decision == decision).unwrap().value / 0.0254;
    assert!((7.2 * 0.6 - 0.3..=7.2 * 1.4 + 0.3).contains(&at(Decision::Runner)), "{}", at(Decision::Runner));
    assert!((31.0 * 0.6 - 1.0..=31.0 * 1.4 + 1.0).contains(&at(Decision::Primary)), "{}", at(Decision::Primary));
}

#[test]
fn candidates_beside_are_computed_as_finalists_are_and_begun_at() {
    let value = one_cylinder();
    let other = value["candidates"][1].clone();
    let build = Build::from_value(value).unwrap();
    let beside = vec![BesideSetup { title: "By hand".into(), candidate: other.clone() }];
    let report = found(&build, &SearchSetup { beside: beside.clone(), ..timing() }, Vec::new());
    let own = &report.beside[0];
    assert_eq!((own.title.as_str(), own.candidate.as_ref()), ("By hand", Some(&other)));
    // The same candidate in its own search, as it stands.
    let id = other["id"].as_str().unwrap();
    let alone = SearchJob::new(&build, Some(id), Vec::new(), timing(), shared()).unwrap().unwrap();
    let alone = alone.run(&Watch::nobody()).unwrap();
    assert_eq!(own.figures, alone.stands.figures);
    assert_eq!(report.differ[0].title, "By hand");
    assert!(report.differ[0].words.iter().all(|words| words.inch.contains("as found than by hand")));
    // What is no candidate of this engine is refused with its place.
    let broken = vec![BesideSetup { title: "None".into(), candidate: serde_json::json!({ "name": "None" }) }];
    let refused = SearchJob::new(&build, None, Vec::new(), SearchSetup { beside: broken, ..timing() }, Arc::default());
    assert_eq!(refused.err().unwrap().field, "beside[0]");
}

#[test]
fn a_search_keeps_the_vacuum_that_a_plan_wants_and_finds_it_quickly() {
    let stages = shared();
    let vacuum = |build: &Build, is_quick: bool| {
        let resolved = Resolved::of(&build.candidates()[0], &stages);
        idle_vacuum(&resolved, is_quick, &stages, &|| false)
    };
    let tow = changed(&["target", "idle_vacuum"], r#""17 inHg""#);
    let (quick, result) = (vacuum(&tow, true).unwrap(), vacuum(&tow, false).unwrap());
    assert!((quick - result).abs() < 340.0, "{quick} for {result}");
    assert_eq!(vacuum(&Build::read(STRIP).unwrap(), true), None);
    let report = found(&tow, &timing(), Vec::new());
    assert!(report.limits.iter().any(|limit| limit.id == "idle_vacuum"));
    let place = report.limits.iter().position(|limit| limit.id == "idle_vacuum").unwrap();
    let left = report.stands.point.left[place].unwrap();
    let wanted = 17.0 * 3386.389;
    assert!((left - 1e-3 * (result - wanted)).abs() < 0.05, "{left} kPa for {result}");
}
