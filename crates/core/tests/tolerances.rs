//! Tolerances: closed forms, published tables and SciPy's quasi-Monte-Carlo for the figures; the document, its defaults and whole
//! computations of demo builds for what is made of them.

use crate::support::DEMOS;
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};
use upper_lobe_core::analysis::{
    Build, Edit, Halted, Job, PartName, Request, Stages, ToleranceJob, ToleranceLimit, ToleranceReport, UnitSystem,
    Watch, analyze, apply,
};
use upper_lobe_core::tolerance::{Cast, Effect, Model, Outcome, Response, Spread, Variable, hold, simulate};
use upper_lobe_core::words::{SpreadShape, Word};

const CAST: Cast = Cast { cylinders: 8, banks: 2, engines: 20_000, seed: 2026 };

fn variable(shape: SpreadShape, half: f64, (engine, bank): (f64, f64)) -> Variable {
    Variable { spread: Spread { half, shape }, engine, bank, known: 0.0 }
}

/// One limit that is `middle` and what is added for each variable: a slope and a curve.
fn model(middle: f64, parts: &[(Variable, f64, f64)]) -> Model {
    let effect = |(variable, (_, slope, curve)): (usize, &(Variable, f64, f64))| Effect {
        variable,
        slope: *slope,
        curve: *curve,
    };
    let response = Response { middle, effects: parts.iter().enumerate().map(effect).collect() };
    Model {
        variables: parts.iter().map(|(variable, ..)| *variable).collect(),
        margins: vec![response.clone()],
        haves: vec![response],
        counts: vec![true],
        of_engine: vec![false],
    }
}

fn outcome(model: &Model) -> Outcome {
    simulate(model, &CAST).limits[0].clone()
}

/// Three standard deviations of a share found in so many draws.
fn doubt(share: f64, draws: f64) -> f64 {
    3.0 * (share * (1.0 - share) / draws).sqrt() + 1e-4
}

#[test]
fn sums_of_spreads_are_those_of_closed_form() {
    let alone = (0.0, 0.0);
    // Normal: the root of the sum of squares; .005 for a 3-4-5.
    let of_sd = |sd: f64| 1.959_964 * sd;
    let parts = [
        (variable(SpreadShape::Normal, of_sd(0.003), alone), 1.0, 0.0),
        (variable(SpreadShape::Normal, of_sd(0.004), alone), -1.0, 0.0),
    ];
    let found = outcome(&model(0.010, &parts));
    assert!((found.sd / 0.005 - 1.0).abs() < 0.02 && (found.mean - 0.010).abs() < 2e-4, "{} {}", found.mean, found.sd);
    // Two standard deviations left: 2.275 % fail [tables of the normal distribution].
    assert!((found.fails_one - 0.022_75).abs() < doubt(0.022_75, 160_000.0), "{}", found.fails_one);
    assert!((found.fails_any - (1.0 - 0.977_25_f64.powi(8))).abs() < doubt(0.17, 20_000.0), "{}", found.fails_any);
    // Two uniform spreads of half width 1: a triangle to 2, of which (2 - 1.5)^2/8 lie beyond 1.5.
    let uniform = (variable(SpreadShape::Uniform, 1.0, alone), 1.0, 0.0);
    let found = outcome(&model(1.5, &[uniform, uniform]));
    assert!((found.fails_one - 0.031_25).abs() < doubt(0.031_25, 160_000.0), "{}", found.fails_one);
}

#[test]
fn capability_gives_the_fallout_of_the_published_table() {
    // One-sided fallout in parts per million by the capability ratio [Montgomery, Introduction to Statistical Quality Control,
    // table of process fallout for normal processes; from memory]: .25, .50, .75, 1.00.
    for (ratio, ppm) in [(0.25, 226_628.0), (0.50, 66_807.0), (0.75, 12_225.0), (1.00, 1_350.0)] {
        let part = (variable(SpreadShape::Normal, 1.959_964, (0.0, 0.0)), 1.0, 0.0);
        let found = outcome(&model(3.0 * ratio, &[part])).fails_one;
        assert!((found - ppm * 1e-6).abs() < doubt(ppm * 1e-6, 160_000.0), "{ratio}: {found}");
    }
}

#[test]
fn chances_agree_with_scipys_quasi_monte_carlo() {
    let reference: Value = serde_json::from_str(include_str!("reference/tolerance_qmc.json")).expect("JSON");
    for case in reference.as_array().expect("cases") {
        let part = |own: &Value| {
            let number = |place: usize| own[place].as_f64().expect("a number");
            let shape = SpreadShape::from_word(own[0].as_str().expect("a word")).expect("a shape");
            (variable(shape, number(1), (number(4), number(5))), number(2), number(3))
        };
        let parts: Vec<_> = case["x"].as_array().expect("variables").iter().map(part).collect();
        let found = outcome(&model(case["m0"].as_f64().expect("a number"), &parts));
        let of = |key: &str| case[key].as_f64().expect("a number");
        let name = &case["name"];
        // Twenty thousand engines stray by their own; SciPy's half a million scrambled Sobol points by far less.
        assert!((found.mean - of("mean")).abs() < 4.0 * of("sd") / 20_000_f64.sqrt(), "{name} {}", found.mean);
        assert!((found.sd / of("sd") - 1.0).abs() < 0.03, "{name} {}", found.sd);
        // Cylinders of an engine that share a cause count less than as many of their own: an engine each is the safe count.
        assert!(
            (found.fails_one - of("fails_one")).abs() < doubt(of("fails_one"), 20_000.0),
            "{name} {}",
            found.fails_one
        );
        assert!(
            (found.fails_any - of("fails_any")).abs() < doubt(of("fails_any"), 20_000.0),
            "{name} {}",
            found.fails_any
        );
    }
}

#[test]
fn knowing_and_holding_a_dimension_are_worth_what_closed_forms_say() {
    let shared = |sd: f64| variable(SpreadShape::Normal, 1.959_964 * sd, (1.0, 0.0));
    let model = model(0.010, &[(shared(0.004), 1.0, 0.0), (shared(0.003), 1.0, 0.0)]);
    let found = simulate(&model, &CAST);
    // Both: 2 standard deviations of .005. Without the first 3.33 of .003, without the second 2.5 of .004 [normal tables].
    assert!((found.any - 0.022_75).abs() < doubt(0.022_75, 20_000.0), "{}", found.any);
    assert!(found.any_if_known[0] < 0.000_43 + doubt(0.000_43, 20_000.0), "{}", found.any_if_known[0]);
    assert!((found.any_if_known[1] - 0.006_21).abs() < doubt(0.006_21, 20_000.0), "{}", found.any_if_known[1]);
    // One in a hundred is 2.326 standard deviations: .0043 in all, so the first may keep sqrt(.0043^2 - .003^2) = .00308.
    let held = hold(&model, 0, 0, 0.01, &CAST).expect("it can be held");
    assert!((held.share - 0.00308 / 0.004).abs() < 0.06, "{}", held.share);
    assert_eq!(hold(&model, 0, 0, 0.03, &CAST), None, "nothing to hold");
    assert_eq!(hold(&model, 0, 1, 0.000_1, &CAST), None, "the other alone is too much");
    // Or .0116 has to be left: .0016 more.
    assert!((found.limits[0].more_for(0.01) - 0.001_63).abs() < 3e-4, "{}", found.limits[0].more_for(0.01));
}

/// The tow build with tolerances, its first candidate.
fn drawn(tolerances: Value) -> ToleranceReport {
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    value["tolerances"] = tolerances;
    let build = Build::from_value(value).unwrap();
    ToleranceJob::new(&build, Some("a"), Arc::default()).unwrap().run(&Watch::nobody()).unwrap().as_ref().clone()
}

static USUAL: LazyLock<ToleranceReport> = LazyLock::new(|| drawn(json!([])));

fn of<'a>(report: &'a ToleranceReport, id: &str) -> &'a ToleranceLimit {
    report.limits.iter().find(|limit| limit.id == id).unwrap_or_else(|| panic!("{id}"))
}

#[test]
fn a_stack_of_two_dimensions_spreads_as_by_hand() {
    // Piston to head is deck and gasket: .002 and .003 in of plus-minus are .0036 together, .00184 of standard deviation.
    let report = drawn(json!([
        { "field": "engine.deck_clearance", "plus_minus": "0.002 in", "shared": "cylinder" },
        { "field": "engine.gasket_thickness", "plus_minus": "0.003 in", "shared": "cylinder" },
    ]));
    let found = of(&report, "piston_to_head");
    assert!((found.sd / (0.003_606 / 1.96 * 25.4) - 1.0).abs() < 0.02, "{}", found.sd);
    let share = |field: &str| found.drivers.iter().find(|driver| driver.field == field).map(|driver| driver.share);
    assert!((share("engine.gasket_thickness").unwrap() - 9.0 / 13.0).abs() < 1e-6);
    assert!((share("engine.deck_clearance").unwrap() - 4.0 / 13.0).abs() < 1e-6);
    assert!(
        (found.mean - found.nominal).abs() < 0.002
            && (found.p99 - found.p50 - 2.326 * found.sd).abs() < 0.05 * found.sd
    );
}

#[test]
fn responses_agree_with_runs_in_full() {
    let report = &*USUAL;
    assert_eq!((report.samples, report.cylinders), (20_000, 8));
    assert!(report.checked_runs >= 500 && report.checked_disagree < 0.02, "{}", report.checked_disagree);
    for limit in &report.limits {
        let off = limit.off_share.expect("it was checked");
        // Clearances are smooth in what they are made of: what is decided by responses is near the runs.
        if ["piston_clearance", "piston_at_speed", "coil_bind", "retainer_to_seal"].contains(&limit.id.as_str()) {
            assert!(off < 0.12 && !limit.in_full, "{}: {off}", limit.title);
        }
        let shares: f64 = limit.drivers.iter().map(|driver| driver.share).sum();
        assert!(shares <= 1.0 + 1e-9 && shares > 0.5, "{}: {shares}", limit.title);
        assert!(limit.fails_any_share >= limit.fails_share - 1e-12, "{}", limit.title);
    }
    // The middle of the band over the overlap is least where the limit's own middle is.
    let band = &report.overlap.as_ref().expect("it was computed in full").intake;
    let limit = report.limits.iter().find(|own| own.title == "Intake valve to piston").unwrap();
    let least = band.middle_mm.iter().copied().fold(f64::INFINITY, f64::min);
    assert!((least - limit.p50).abs() < 0.1 * limit.sd + 0.02, "{least} for {}", limit.p50);
    let ordered =
        band.low_mm.iter().zip(&band.middle_mm).zip(&band.high_mm).all(|((low, mid), high)| low < mid && mid < high);
    assert!(ordered);
    for first in &report.measure_first {
        assert!((report.any_fails_share - first.any_fails_share_if_known - first.worth_share).abs() < 1e-12);
    }
}

#[test]
fn wider_tolerances_fail_more_and_measuring_fails_less() {
    let wide = drawn(json!([{ "field": "engine.deck_clearance", "plus_minus": "0.020 in" }]));
    let chance = |report: &ToleranceReport| of(report, "piston_to_head").fails_any_share;
    assert!(chance(&wide) > chance(&USUAL) + 0.1, "{}", chance(&wide));
    assert_eq!(wide.measure_first[0].field, "engine.deck_clearance");
    let own = wide.fields.iter().find(|field| field.field == "engine.deck_clearance").unwrap();
    assert_eq!((own.is_own, own.plus_minus.inch.as_str()), (true, "± .0200 in"));
    let remedy = of(&wide, "piston_to_head").remedy.as_ref().expect("it fails too often");
    assert_eq!(remedy.field, "engine.deck_clearance");
    assert!(remedy.hold.is_some());
    // A batch or a bank in common fails together: fewer engines than with as many of their own.
    let alone = drawn(json!([{ "field": "engine.deck_clearance", "plus_minus": "0.020 in", "shared": "cylinder" }]));
    assert!(chance(&alone) > chance(&wide));
}

#[test]
fn the_same_document_gives_the_same_chances_and_they_stand_beside_verdicts() {
    let (build, stages) = (Build::read(DEMOS[0]).unwrap(), Arc::new(Stages::default()));
    let job = ToleranceJob::new(&build, Some("a"), Arc::clone(&stages)).unwrap();
    let report = job.run(&Watch::nobody()).unwrap();
    let fresh = ToleranceJob::new(&build, Some("a"), Arc::default()).unwrap().run(&Watch::nobody()).unwrap();
    assert_eq!(serde_json::to_string(&*report).unwrap(), serde_json::to_string(&*fresh).unwrap());
    assert!(job.kept().is_some());
    let request = Request::of(Some("a".to_owned()), vec![PartName::AtSpeed, PartName::Limits]);
    let lines = analyze(&build, &request, &stages).unwrap().candidates.remove(0).limits;
    let line = lines.iter().find(|line| line.id == "valve_to_valve").unwrap();
    let chance = line.chance.as_ref().expect("it was drawn");
    assert_eq!(chance.any, of(&report, "valve_to_valve").fails_any_share);
    assert!(chance.says.contains("in 100 engines fail"), "{}", chance.says);
    // What is computed of the same engine since takes them away no more than it moves them.
    let mut parts = request.parts.clone();
    parts.push(PartName::Dynamics);
    let turned = Request::of(Some("a".to_owned()), parts);
    let lines = analyze(&build, &turned, &stages).unwrap().candidates.remove(0).limits;
    assert!(lines.iter().any(|line| line.id == "valve_to_valve" && line.chance.is_some()));
    // Another engine has no chances until it is drawn.
    let edit = Edit::Set { field: "engine.deck_clearance".to_owned(), text: "0.010".to_owned() };
    let changed = apply(&build, &edit, UnitSystem::Inch, &stages).unwrap();
    let lines = analyze(&changed, &request, &stages).unwrap().candidates.remove(0).limits;
    assert!(lines.iter().all(|line| line.chance.is_none()));
}

#[test]
fn tolerances_that_cannot_be_are_refused_at_their_field() {
    let refused = |entry: Value| {
        let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
        value["tolerances"] = json!([entry]);
        let faults = Build::from_value(value).unwrap_err();
        faults.faults.iter().map(|fault| (fault.field.clone(), fault.needs.clone())).collect::<Vec<_>>()
    };
    let one = |field: &str, needs: &str| vec![(format!("tolerances[0].{field}"), needs.to_owned())];
    assert_eq!(
        refused(json!({ "field": "engine.fuel", "plus_minus": "1 in" })),
        one("field", "the path of a field that is a quantity or a number")
    );
    assert_eq!(
        refused(json!({ "field": "engine.bore", "plus_minus": "3 lbf" })),
        one("plus_minus", "a length with its unit, above nothing")
    );
    assert_eq!(
        refused(json!({ "field": "engine.bore", "plus_minus": "9 in" })),
        one("plus_minus", "less than the value it is of")
    );
    assert_eq!(
        refused(json!({ "field": "candidates[a].train.rocker.ratio", "plus_minus": "-0.1" })),
        one("plus_minus", "a plain number above nothing")
    );
}

#[test]
fn nothing_known_has_no_chances_and_what_jumps_counts_by_runs_in_full() {
    let run = |value: Value| {
        let build = Build::from_value(value).unwrap();
        ToleranceJob::new(&build, None, Arc::default()).unwrap().run(&Watch::nobody())
    };
    let empty =
        json!({ "format": "upper-lobe.build", "version": 1, "name": "x", "candidates": [{ "id": "a", "name": "A" }] });
    assert!(matches!(run(empty), Err(Halted::Lacks { .. })));
    // A load in the middle of its band that may lie beyond it: the band opens there, and the margin jumps.
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    value["tolerances"] = json!([{ "field": "candidates[a].train.spring.points", "plus_minus": "90 lbf" }]);
    let report = run(value).unwrap();
    let load = of(&report, "seat_load");
    assert!(load.in_full && load.remedy.is_none());
    // An engine fails some limit at least as often as it fails any one, and no oftener than all of them together.
    let counted = report.limits.iter().filter(|own| !own.is_advice && !own.fails_as_given);
    let shares: Vec<f64> = counted.map(|own| own.fails_any_share).collect();
    let (most, sum) = (shares.iter().copied().fold(0.0, f64::max), shares.iter().sum::<f64>());
    // Those in full are of 250 engines.
    assert!(
        report.any_fails_share > most - 0.1 && report.any_fails_share < sum + 0.1,
        "{} {shares:?}",
        report.any_fails_share
    );
}
