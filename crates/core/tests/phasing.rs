//! The phasing window against the same cam typed elsewhere: gaps by edits of the document, torque by curves of turned cams, signs
//! written down before they were run.

use crate::support::DEMOS;
use serde_json::{Value, json};
use std::sync::LazyLock;
use upper_lobe_core::analysis::{
    Build, CardNumber, Edit, PartName, PhasingReport, Request, Stages, UnitSystem, analyze, apply,
};

fn turned(value: Value) -> PhasingReport {
    let request = Request::of(Some("a".to_owned()), vec![PartName::Phasing]);
    let analysis = analyze(&Build::from_value(value).unwrap(), &request, &Stages::default()).unwrap();
    analysis.candidates[0].phasing.done().expect("a window").clone()
}

fn demo(place: usize) -> Value {
    serde_json::from_str(DEMOS[place]).unwrap()
}

static TOW: LazyLock<PhasingReport> = LazyLock::new(|| turned(demo(0)));

fn at(report: &PhasingReport, advance: f64) -> usize {
    report.advance_deg.iter().position(|deg| (deg - advance).abs() < 1e-9).expect("a place")
}

#[test]
fn a_turned_cam_has_the_gaps_of_one_typed_there() {
    let (build, stages) = (Build::read(DEMOS[0]).unwrap(), Stages::default());
    let report = &*TOW;
    for advance in [-7.0, 2.5, 9.0] {
        let place = at(report, advance);
        let number = CardNumber::IntakeCentreline;
        let text = format!("{} deg", report.intake_centreline_deg[place]);
        let edit = Edit::TypeCard { candidate: "a".to_owned(), number, text };
        let typed = apply(&build, &edit, UnitSystem::Inch, &stages).unwrap();
        let request = Request::of(Some("a".to_owned()), vec![PartName::Clearance, PartName::AtSpeed]);
        let analysis = analyze(&typed, &request, &stages).unwrap();
        let (rest, speed) =
            (analysis.candidates[0].clearance.done().unwrap(), analysis.candidates[0].at_speed.done().unwrap());
        let least = |gaps: &[f64]| gaps.iter().copied().fold(f64::INFINITY, f64::min);
        let own = |gaps: &Option<Vec<f64>>| gaps.as_ref().expect("known")[place];
        assert!((own(&report.intake_clearance_mm) - rest.intake.piston_minimum_mm).abs() < 1e-3);
        assert!((own(&report.exhaust_clearance_mm) - rest.exhaust.piston_minimum_mm).abs() < 1e-3);
        // What the train in motion adds was found where the cam stands; it is some thousandths and changes little.
        assert!((own(&report.intake_at_speed_mm) - least(&speed.intake.minimum_mm)).abs() < 0.05);
        assert!((own(&report.exhaust_at_speed_mm) - least(&speed.exhaust.minimum_mm)).abs() < 0.05);
    }
}

#[test]
fn signs_are_those_of_the_trade() {
    // Written down before they were run (common practice, no source): an advanced cam brings the intake nearer to the piston and
    // takes the exhaust from it; it makes more torque low down against less power; a looser chain narrows where it may be set
    // from the retarded side and leaves the intake more at speed.
    let report = &*TOW;
    let falls = |gaps: &Option<Vec<f64>>| gaps.as_ref().expect("known").windows(2).all(|two| two[1] < two[0]);
    let rises = |gaps: &Option<Vec<f64>>| gaps.as_ref().expect("known").windows(2).all(|two| two[1] > two[0]);
    assert!(falls(&report.intake_clearance_mm) && falls(&report.intake_at_speed_mm));
    assert!(rises(&report.exhaust_clearance_mm) && rises(&report.exhaust_at_speed_mm));
    let torque = report.torque.as_ref().expect("it breathes");
    let (back, forward) = (at(report, -4.0), at(report, 4.0));
    assert!(torque.low_torque_nm[forward] > torque.low_torque_nm[back]);
    assert!(torque.peak_power_kw[forward] < torque.peak_power_kw[back]);
    assert!(torque.off_share < 0.004, "{}", torque.off_share);
    let mut loose = demo(0);
    loose["engine"]["drive_stretch"] = json!("4 deg");
    loose["growth"] = json!({ "cam_lag_per_1000_rpm": "1 deg" });
    let loose = turned(loose);
    let set = |report: &PhasingReport| report.set_deg.expect("it can be set");
    assert!(set(&loose)[0] > set(report)[0]);
    let middle = at(report, 0.0);
    let own = |gaps: &Option<Vec<f64>>| gaps.as_ref().expect("known")[middle];
    assert!(own(&loose.intake_at_speed_mm) > own(&report.intake_at_speed_mm));
    assert!(own(&loose.exhaust_at_speed_mm) < own(&report.exhaust_at_speed_mm));
}

#[test]
fn the_window_ends_where_a_limit_fails() {
    let report = &*TOW;
    let [from, to] = report.window_deg.expect("a window");
    let free = report.free_deg.expect("nothing touches");
    assert!(free[0] <= from && free[1] >= to);
    for (deg, fails) in report.advance_deg.iter().zip(&report.fails) {
        if (from..=to).contains(deg) {
            assert!(fails.is_empty(), "{deg}: {fails:?}");
        }
    }
    let beyond = at(report, to + 0.5);
    assert!(!report.fails[beyond].is_empty());
    assert_eq!(report.stretch_deg, 1.5, "a chain's usual, assumed");
    assert_eq!(report.set_deg, Some([from + 1.5, to]));
    // Keyways: in the window or not, and the centreline each leads to.
    assert!(report.steps_assumed);
    for step in &report.steps {
        assert_eq!(step.in_window, (from + 1.5..=to).contains(&step.advance_deg), "{}", step.advance_deg);
        assert_eq!(step.in_window, step.fails.is_empty(), "{}", step.advance_deg);
    }
}

#[test]
fn a_phaser_beyond_all_clearance_is_said() {
    let mut value = demo(0);
    value["candidates"][0]["cam"]["phaser_advance"] = json!("40 deg");
    value["engine"]["timing_steps"] = json!(["-4 deg", "0 deg"]);
    let report = turned(value);
    assert_eq!((report.set_deg, report.best_deg), (None, None));
    assert!(report.says.inch.contains("cannot be set so that it stays clear"), "{}", report.says.inch);
    assert_eq!(*report.advance_deg.last().unwrap(), 50.0);
    let steps: Vec<_> = report.steps.iter().map(|step| (step.advance_deg, step.in_window)).collect();
    assert_eq!((steps, report.steps_assumed), (vec![(-4.0, false), (0.0, false)], false));
}

#[test]
fn what_the_gas_asks_is_held_against_the_gas_of_each_place() {
    // Written down before it was run (common practice, no source): an advanced cam closes its intake earlier, traps more and
    // needs more octane. With a fuel that is just enough where the cam stands, forward of it a limit fails and back of it none.
    let stages = Stages::default();
    let analysis = |value: &Value, parts: Vec<PartName>| {
        let request = Request::of(Some("a".to_owned()), parts);
        analyze(&Build::from_value(value.clone()).unwrap(), &request, &stages).unwrap().candidates.swap_remove(0)
    };
    let octane = |value: &Value| {
        let limits = analysis(value, vec![PartName::Breathing, PartName::Limits]).limits;
        limits.into_iter().find(|limit| limit.id == "octane").expect("computed").margin.expect("known")
    };
    let fails = |report: &PhasingReport, deg: f64| report.fails[at(report, deg)].clone();
    let mut value = demo(0);
    let ron = 95.0 - octane(&value) + 0.1;
    value["engine"]["octane_ron"] = json!(format!("{ron:.1} RON"));
    assert!((0.0..0.2).contains(&octane(&value)));
    let computed = analysis(&value, vec![PartName::Phasing]).phasing.done().expect("a window").clone();
    let by_hand = turned(value.clone());
    assert_eq!((fails(&computed, 0.0), fails(&computed, -8.0)), (Vec::new(), Vec::new()));
    assert_eq!(fails(&computed, 8.0), ["Octane needed"]);
    // Where no curve was computed the hand check decides, and it is the more careful one.
    assert_eq!(fails(&by_hand, 0.0), ["Dynamic compression"]);
    // As much as of a cam that is typed there.
    let number = CardNumber::IntakeCentreline;
    let text = format!("{} deg", computed.intake_centreline_deg[at(&computed, 8.0)]);
    let edit = Edit::TypeCard { candidate: "a".to_owned(), number, text };
    let build = Build::from_value(value).unwrap();
    let typed = apply(&build, &edit, UnitSystem::Inch, &stages).unwrap();
    assert!(octane(typed.value()) < 0.0);
}
