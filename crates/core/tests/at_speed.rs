//! Gaps at speed: every term against the same gap reached another way, and the signs builders know, written down before they
//! were run.

use crate::support::DEMOS;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{
    AtSpeedReport, AtSpeedSide, Block, Build, Edit, PartName, Request, Side, Stages, UnitSystem, analyze, apply,
};

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
        "valve_stretch": "0 in",
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
            assert_eq!(side.terms.len(), 11);
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

#[test]
fn a_mark_of_a_running_engine_gives_the_growth_that_was_there_to_every_candidate() {
    let (build, stages) = (changed(1, &[]), Stages::default());
    let left = |build: &Build| {
        let found = report_of(build);
        (found.exhaust.minimum_mm.iter().copied().fold(f64::INFINITY, f64::min), found)
    };
    // A soft wire left .030 in at the highest speed where the terms leave more.
    let (before, plain) = left(&build);
    let rpm = *plain.speed_rpm.last().unwrap();
    let marked = |kind: &str, gap: &str| {
        let mark = json!([{ "id": "m1", "candidate": "a", "side": "exhaust", "at": format!("{rpm} rpm"), "kind": kind, "gap": gap }]);
        let mut value: Value = serde_json::from_str(DEMOS[1]).unwrap();
        value["growth"]["witness"] = mark;
        Build::from_value(value).unwrap()
    };
    let with = marked("mark", "0.030 in");
    let (_, found) = left(&with);
    let mark = &found.exhaust.marks[0];
    assert!(mark.computed_mm > mark.left_mm && (mark.left_mm - 0.762).abs() < 1e-9, "{mark:?}");
    assert!(found.intake.marks.is_empty());
    // Taken up, the terms leave what the mark left: the piston stood that much higher, for every candidate.
    let (field, to) = (mark.field.clone().unwrap(), mark.to.clone().unwrap());
    assert_eq!(field, "growth.beyond");
    let edit = Edit::Set { field, text: to };
    let taken = apply(&with, &edit, UnitSystem::Inch, &stages).unwrap();
    let (_, found) = left(&taken);
    assert!(found.exhaust.marks[0].field.is_none(), "{:?}", found.exhaust.marks[0]);
    assert!((found.exhaust.marks[0].computed_mm - 0.762).abs() < 0.05, "{:?}", found.exhaust.marks[0]);
    assert!(found.has_budget && term(&found.exhaust, "beyond") < 0.0);
    let own = |build: &Build| {
        let request = Request::of(Some("b".to_owned()), vec![PartName::AtSpeed]);
        let analysis = analyze(build, &request, &Stages::default()).unwrap();
        *analysis.candidates[0].at_speed.done().unwrap().exhaust.minimum_mm.last().unwrap()
    };
    assert!(own(&taken) < own(&with) - 0.1);
    // A touch says at least so much; a clean piston of an engine that the terms leave room says nothing against them.
    let touched = left(&marked("touch", "0 in")).1;
    assert!(
        touched.exhaust.marks[0].says.inch.contains("more than the terms"),
        "{}",
        touched.exhaust.marks[0].says.inch
    );
    let clean = left(&marked("no_touch", "0 in")).1;
    assert_eq!(clean.exhaust.marks[0].says.inch, "agrees with the terms");
    assert!(before > 0.762);
}

#[test]
fn rules_at_speed_hold_what_the_block_shows() {
    for demo in 0..DEMOS.len() {
        let request = Request::of(Some("a".to_owned()), vec![PartName::AtSpeed, PartName::Limits]);
        let analysis = analyze(&changed(demo, &[]), &request, &Stages::default()).unwrap();
        let (found, limits) = (analysis.candidates[0].at_speed.done().unwrap(), &analysis.candidates[0].limits);
        let have = |id: &str, side: Option<Side>| {
            limits.iter().find(|line| line.id == id && line.side == side).and_then(|line| line.have)
        };
        let least = |gaps: &[f64]| gaps.iter().copied().fold(f64::INFINITY, f64::min);
        for (side, own) in [(Side::Intake, &found.intake), (Side::Exhaust, &found.exhaust)] {
            let near = |id: &str, shown: f64| {
                let have = have(id, Some(side)).unwrap_or_else(|| panic!("{demo} {id}"));
                assert!((have - shown).abs() < 1e-6, "{demo} {id}: {have} for {shown}");
            };
            near("piston_at_speed", least(&own.minimum_mm));
            near("retainer_at_speed", least(own.retainer_to_seal_mm.as_ref().unwrap()));
            near("bind_at_speed", least(own.coil_bind_mm.as_ref().unwrap()));
            // Sway of valve and piston, as assumed: .006 and .002 in.
            if let (Some(rest), Some(speed)) = (have("radial", Some(side)), have("radial_at_speed", Some(side))) {
                assert!((rest - speed - 0.2032).abs() < 1e-6);
                assert!((own.radial_mm.unwrap() - speed).abs() < 1e-6);
            }
        }
        let heads = least(found.valve_to_valve_mm.as_ref().unwrap());
        assert!((have("valves_at_speed", None).unwrap() - heads).abs() < 1e-6);
        // A valve's own stretch is no piston's.
        let rest = have("piston_to_head", None).unwrap();
        let up: f64 = rest - found.piston_to_head_mm.last().unwrap();
        let rises = [
            "rod_stretch",
            "crank_bending",
            "bearing_and_pin",
            "piston_heat",
            "piston_rock",
            "block_heat",
            "gasket_creep",
        ];
        assert!(
            up > 0.0 && found.intake.terms.iter().filter(|own| rises.contains(&own.id.as_str())).count() == rises.len()
        );
        assert!((have("head_at_speed", None).unwrap() - found.piston_to_head_mm.last().unwrap()).abs() < 1e-6);
    }
}

#[test]
fn a_rod_near_cam_and_block_comes_nearer_at_speed() {
    let given = [("engine.rod_to_cam", json!("0.060 in")), ("engine.rod_to_block", json!("0.080 in"))];
    let request = Request::of(Some("a".to_owned()), vec![PartName::Limits]);
    let analysis = analyze(&changed(1, &given), &request, &Stages::default()).unwrap();
    let have = |id: &str| analysis.candidates[0].limits.iter().find(|line| line.id == id).unwrap().have.unwrap();
    assert!((have("rod_room") - 1.524).abs() < 1e-9, "the smaller of both");
    // Stretch of the rods (.0032 to .0042 in at 8,100 rpm), .003 of bending and .0028 of play, as the demo gives them.
    let taken = (have("rod_room") - have("rod_at_speed")) / 25.4;
    assert!((0.0085..0.0105).contains(&taken), "{taken}");
    let without = analyze(&changed(1, &[]), &request, &Stages::default()).unwrap();
    assert!(without.candidates[0].limits.iter().all(|line| !line.id.starts_with("rod_")));
}
