//! Gaps at speed: every term against the same gap reached another way, and the signs builders know, written down before they
//! were run.

use crate::support::DEMOS;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{AtSpeedReport, AtSpeedSide, Block, Build, PartName, Request, Stages, analyze};

/// A demo build with fields changed, each a path of keys and a value.
fn changed(demo: usize, changes: &[(&str, Value)]) -> Build {
    let mut value: Value = serde_json::from_str(DEMOS[demo]).unwrap();
    for (path, to) in changes {
        let (parent, key) = path.rsplit_once('.').unwrap_or(("", path));
        let keys = parent.split('.').filter(|key| !key.is_empty());
        let place = keys.fold(&mut value, |value, key| match key.parse::<usize>() {
            Ok(index) => &mut value[index],
            Err(_) => &mut value[key],
        });
        place[key] = to.clone();
    }
    Build::from_value(value).unwrap()
}

fn report_of(build: &Build) -> AtSpeedReport {
    let request = Request::of(Some("a".to_owned()), vec![PartName::AtSpeed]);
    let analysis = analyze(build, &request, &Stages::default()).unwrap();
    analysis.candidates[0].at_speed.done().expect("gaps").clone()
}

/// The least gaps at rest, intake and exhaust, mm.
fn at_rest(build: &Build) -> [f64; 2] {
    let request = Request::of(Some("a".to_owned()), vec![PartName::Clearance]);
    let analysis = analyze(build, &request, &Stages::default()).unwrap();
    let clearance = analysis.candidates[0].clearance.done().expect("gaps");
    [clearance.intake.piston_minimum_mm, clearance.exhaust.piston_minimum_mm]
}

/// A term at the fastest speed, mm.
fn term(side: &AtSpeedSide, id: &str) -> f64 {
    *side.terms.iter().find(|term| term.id == id).expect("a term").mm.last().unwrap()
}

/// Nothing grows and nothing lags.
fn still() -> Vec<(&'static str, Value)> {
    let none = json!({
        "rod_stretch": "0 in", "crank_bending": "0 in", "bearing_and_pin": "0 in", "piston_heat": "0 in",
        "piston_rock": "0 in", "block_heat": "0 in", "gasket_creep": "0 in", "cam_lag_per_1000_rpm": "0 deg",
    });
    vec![("growth", none)]
}

#[test]
fn terms_lead_from_the_gap_at_rest_to_the_one_at_speed() {
    for demo in 0..DEMOS.len() {
        let build = changed(demo, &[]);
        let (found, rest) = (report_of(&build), at_rest(&build));
        for (side, rest) in [(&found.intake, rest[0]), (&found.exhaust, rest[1])] {
            assert!((side.at_rest_mm - rest).abs() < 1e-3, "{} for {rest}", side.at_rest_mm);
            assert_eq!(side.terms.len(), 9);
            for (place, least) in side.minimum_mm.iter().enumerate() {
                let sum: f64 = side.terms.iter().map(|term| term.mm[place]).sum();
                assert!((side.at_rest_mm + sum - least).abs() < 1e-9);
            }
        }
        assert_eq!(found.speed_rpm.len(), found.intake.minimum_mm.len());
    }
}

#[test]
fn a_piston_that_grows_is_one_that_stands_nearer_to_the_head() {
    // The same gap as at rest with the deck lower by as much: another way through the frame.
    let grown = |by: &str| {
        let mut changes = still();
        changes[0].1["piston_heat"] = json!(by);
        report_of(&changed(1, &changes))
    };
    let (none, grown) = (grown("0 in"), grown("0.010 in"));
    let decked = at_rest(&changed(1, &[("engine.deck_clearance", json!("-0.006 in"))]));
    for (side, decked) in [(&grown.intake, decked[0]), (&grown.exhaust, decked[1])] {
        let after = side.at_rest_mm + term(side, "piston_heat");
        assert!((after - decked).abs() < 1e-4, "{after} for {decked}");
    }
    let lost = none.piston_to_head_mm.last().unwrap() - grown.piston_to_head_mm.last().unwrap();
    assert!((lost - 0.254).abs() < 1e-9);
}

#[test]
fn a_cam_that_lags_is_one_set_later() {
    let mut changes = still();
    changes[0].1["cam_lag_per_1000_rpm"] = json!("0.5 deg");
    let found = report_of(&changed(1, &changes));
    let late = found.lag_deg.last().unwrap();
    assert!((late - 0.5e-3 * found.speed_rpm.last().unwrap()).abs() < 1e-9);
    let build: Value = serde_json::from_str(DEMOS[1]).unwrap();
    let text = build["candidates"][0]["cam"]["intake_centreline"].as_str().unwrap();
    let centreline: f64 = text.trim_end_matches(" deg").parse().unwrap();
    let set =
        at_rest(&changed(1, &[("candidates.0.cam.intake_centreline", json!(format!("{} deg", centreline + late)))]));
    for (side, set) in [(&found.intake, set[0]), (&found.exhaust, set[1])] {
        let after = side.at_rest_mm + term(side, "cam_lag");
        assert!((after - set).abs() < 1e-4, "{after} for {set}");
    }
}

#[test]
fn signs_are_those_of_the_trade() {
    // Written down before they were run (common practice, no source): aluminium rods take more, stretch and heat; more speed takes
    // more by stretch, with its square; a looser drive gives to the intake, which follows the piston down, and takes from the
    // exhaust, which the piston follows up; a train that gives opens the intake later and gives too.
    let plain = report_of(&changed(1, &[]));
    let aluminium =
        report_of(&changed(1, &[("engine.rod_material", json!("aluminium")), ("engine.rod_mass", json!("490 g"))]));
    for (steel, aluminium) in [(&plain.intake, &aluminium.intake), (&plain.exhaust, &aluminium.exhaust)] {
        assert!(term(aluminium, "rod_stretch") < term(steel, "rod_stretch"));
        assert!(term(aluminium, "block_heat") < term(steel, "block_heat") - 0.05);
    }
    let stretch = &plain.intake.terms[0].mm;
    let ratio = stretch.last().unwrap() / stretch[0];
    let squared = (plain.speed_rpm.last().unwrap() / plain.speed_rpm[0]).powi(2);
    assert!((ratio / squared - 1.0).abs() < 0.01, "{ratio} for {squared}");
    assert!(term(&plain.intake, "cam_lag") > 0.0 && term(&plain.exhaust, "cam_lag") < 0.0);
    let chain = report_of(&changed(1, &[("engine.cam_drive", json!("chain"))]));
    assert!(term(&chain.intake, "cam_lag") > term(&plain.intake, "cam_lag"));
    assert!(term(&chain.exhaust, "cam_lag") < term(&plain.exhaust, "cam_lag"));
    assert!(term(&plain.intake, "lift_in_motion") > 0.0);
    // Stretch of steel rods is some .003 to .005 in at race speeds (common practice, no source).
    let inches = -term(&plain.intake, "rod_stretch") / 25.4;
    assert!((0.003..0.005).contains(&inches), "{inches}");
}

#[test]
fn what_is_said_replaces_what_is_usual_and_says_so() {
    let given =
        json!({ "piston_rock": "0.002 in", "rod_stretch": "0.005 in", "sources": { "piston_rock": "measured" } });
    let found = report_of(&changed(0, &[("growth", given)]));
    let of = |id: &str| found.exhaust.terms.iter().find(|term| term.id == id).unwrap();
    assert_eq!((of("piston_rock").how.as_str(), of("piston_rock").is_assumed), ("measured", false));
    assert_eq!((of("rod_stretch").how.as_str(), of("rod_stretch").is_assumed), ("given", false));
    assert!(of("piston_heat").is_assumed && of("piston_heat").field.as_deref() == Some("growth.piston_heat"));
    let plain = report_of(&changed(0, &[]));
    assert!(term(&found.exhaust, "piston_rock") > term(&plain.exhaust, "piston_rock"));
    // A gap needs its speed: without a shift there is none, and it is asked for.
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    value["target"].as_object_mut().unwrap().remove("shift_at");
    let request = Request::of(Some("a".to_owned()), vec![PartName::AtSpeed]);
    let analysis = analyze(&Build::from_value(value).unwrap(), &request, &Stages::default()).unwrap();
    let Block::Failed { needs, .. } = &analysis.candidates[0].at_speed else { panic!("nothing to compute") };
    assert!(needs.iter().any(|need| need.field == "target.shift_at"), "{needs:?}");
}
