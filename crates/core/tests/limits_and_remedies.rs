//! Margins as a whole: a snapshot of a build's lines, facts of the trade, remedies that do what they say.

use serde_json::{Value, json};
use upper_lobe_core::analysis::{LimitReport, Request, Stages, Verdict, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::{set_field, set_source};
use upper_lobe_core::quantity::UnitSystem;

const EXAMPLE: &str = include_str!("data/example_build.json");

fn limits(value: &Value) -> Vec<LimitReport> {
    let build = Build::from_value(value.clone()).unwrap_or_else(|f| panic!("{:?}", f.faults));
    let answer = analyze(&build, &Request::default(), &Stages::default()).expect("analysed");
    answer.candidates[0].limits.clone()
}

fn example() -> Value {
    Build::read(EXAMPLE).expect("the example reads").value().clone()
}

fn line<'a>(limits: &'a [LimitReport], title: &str) -> &'a LimitReport {
    limits.iter().find(|l| l.title == title).unwrap_or_else(|| panic!("no line {title}"))
}

#[test]
fn the_examples_margins_read_as_kept() {
    let lines: Vec<String> = limits(&example())
        .iter()
        .map(|l| {
            let Some(shown) = l.shown.as_ref() else {
                return format!(
                    "{}: {:?}, needs {}",
                    l.title,
                    l.verdict,
                    l.missing.iter().map(|named| named.label.as_str()).collect::<Vec<_>>().join("; ")
                );
            };
            format!(
                "{}: {:?}, needs {}, has {}, left {}",
                l.title, l.verdict, shown.need.inch, shown.have.inch, shown.margin.inch
            )
        })
        .collect();
    insta::assert_json_snapshot!(lines);
}

#[test]
fn a_missing_field_leaves_the_verdict_unknown_and_is_named() {
    let mut value = example();
    for path in [
        "engine.octane_ron",
        "candidates[0].train.spring.coil_bind_height",
        "engine.intake.valve_offset_x",
        "candidates[0].train.rocker.rated_lift",
    ] {
        set_field(&mut value, path, "", UnitSystem::Inch).expect("a field");
    }
    let lines = limits(&value);
    for (title, field) in [
        ("Dynamic compression", "engine.octane_ron"),
        ("Intake coil-bind clearance", "candidates[0].train.spring.coil_bind_height"),
        ("Intake valve to piston", "engine.intake.valve_offset_x"),
        ("Exhaust rocker rated lift", "candidates[0].train.rocker.rated_lift"),
    ] {
        let line = line(&lines, title);
        let missing: Vec<&str> = line.missing.iter().map(|named| named.field.as_str()).collect();
        assert_eq!((line.verdict, missing), (Verdict::Unknown, vec![field]), "{title}");
        assert_eq!(line.edit_field, field);
    }
}

#[test]
fn schools_and_materials_move_the_need() {
    let need = |change: &[(&str, &str)], title: &str| {
        let mut value = example();
        for (path, text) in change {
            match path.split_once(".sources.") {
                Some((object, key)) => set_source(&mut value, &format!("{object}.{key}"), text).expect("a field"),
                None => set_field(&mut value, path, text, UnitSystem::Inch).expect("a field"),
            }
        }
        line(&limits(&value), title).need.min.expect("a least") / 25.4
    };
    let near = |have: f64, inches: f64| (have - inches).abs() < 1e-9;
    // Common practice, no source: the table of default limits.
    assert!(near(need(&[], "Intake valve to piston"), 0.080));
    assert!(near(need(&[], "Exhaust valve to piston"), 0.100));
    // Engineered is available with a growth budget only, and one that is assumed is none.
    let mut engineered = vec![("target.piston_clearance_school", "engineered")];
    assert!(near(need(&engineered, "Intake valve to piston"), 0.080));
    let terms = ["crank_bending", "bearing_and_pin", "piston_heat", "piston_rock"];
    let fields = terms.map(|term| (format!("growth.{term}"), format!("growth.sources.{term}")));
    engineered.extend(fields.iter().map(|(field, _)| (field.as_str(), "0.004 in")));
    assert!(near(need(&engineered, "Intake valve to piston"), 0.035));
    assert!(near(need(&engineered, "Exhaust valve to piston"), 0.060));
    engineered.push((fields[2].1.as_str(), "assumed"));
    assert!(near(need(&engineered, "Intake valve to piston"), 0.080));
    let diesel = [("engine.combustion", "diesel"), ("engine.fuel", "diesel")];
    assert!(near(need(&diesel, "Intake valve to piston"), 0.050));
    let aluminium = [("engine.rod_material", "aluminium")];
    assert!(near(need(&aluminium, "Exhaust valve to piston"), 0.130));
    assert!(near(need(&aluminium, "Intake valve to piston"), 0.095));
    assert!(near(need(&aluminium, "Piston to head"), 0.060));
}

#[test]
fn boost_and_drive_pressure_push_the_valves_open() {
    let mut value = example();
    value["target"]["boost"] = json!([{ "at": "2000 rpm", "manifold": "6 psi", "drive": "9 psi" }, { "at": "5000 rpm", "manifold": "14 psi", "drive": "20 psi" }]);
    let lines = limits(&value);
    // By hand: 14 psi on a 2.00 in head less an 11/32 in stem is 14 x 3.0488 = 42.68 lbf of 138.
    let left = line(&lines, "Intake seat load against pressure").have.expect("known") / 4.448_221_615;
    assert!((left - (138.0 - 42.68)).abs() < 0.01, "{left}");
    // 20 psi on 1.57 in less 11/32 in: 20 x 1.8431 = 36.86 lbf.
    let left = line(&lines, "Exhaust seat load against pressure").have.expect("known") / 4.448_221_615;
    assert!((left - (138.0 - 36.86)).abs() < 0.01, "{left}");
    // 1.7 less for each bar without a cooler: 14 psi is .9653 bar.
    let allowed = line(&lines, "Dynamic compression").need.max.expect("a most");
    assert!((allowed - (8.3 - 1.7 * 0.9653)).abs() < 1e-3, "{allowed}");
}

#[test]
fn a_diesel_needs_compression_to_start_and_has_no_idle_overlap() {
    let mut value = example();
    for field in ["engine.combustion", "engine.fuel"] {
        set_field(&mut value, field, "diesel", UnitSystem::Inch).expect("a field");
    }
    let lines = limits(&value);
    let cold = line(&lines, "Dynamic compression");
    assert_eq!((cold.need.min, cold.verdict), (Some(13.0), Verdict::Fails));
    assert!(lines.iter().all(|l| l.id != "idle_overlap"));
}

/// Common practice, no source: hydraulic rollers with factory-weight valves and about 155 / 390 lbf
/// run to 7,000 to 7,200 rpm. The hand check of such a train must put the limit within a tenth.
#[test]
fn the_hand_check_puts_a_known_train_where_practice_puts_it() {
    let mut value = example();
    let cam = &mut value["candidates"][0]["cam"];
    for side in ["intake", "exhaust"] {
        cam[side] = json!({ "lobe_lift": "0.360 in", "checks": [["0.006 in", "282 deg"], ["0.050 in", "230 deg"], ["0.200 in", "149 deg"]] });
    }
    let train = &mut value["candidates"][0]["train"];
    train["rocker"]["ratio"] = 1.65.into();
    train["rocker"]["tip_side_mass"] = "7 g".into();
    train["lifter"]["mass"] = "110 g".into();
    train["valve"] = json!({ "mass": "95 g", "material": "stainless" });
    train["retainer"]["mass"] = "17 g".into();
    train["spring"]["mass"] = "90 g".into();
    train["spring"]["points"] = json!([["1.800 in", "155 lbf"], ["1.206 in", "390 lbf"]]);
    let have = line(&limits(&value), "Intake valve float speed (rigid)").have.expect("known");
    assert!((6400.0..=7800.0).contains(&have), "{have}");
}
