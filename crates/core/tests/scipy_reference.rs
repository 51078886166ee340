//! The lobe's quadratic programme and the closest approach against SciPy. The answers and the script
//! that made them stand in `reference/`.

use serde_json::Value;
use upper_lobe_core::analysis::{Request, Stages, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::cam::{LobeCard, lobe_of_card};
use upper_lobe_core::engine::CrankSlider;
use upper_lobe_core::quantity::{Angle, Length};
use upper_lobe_core::words::LifterKind;

fn reference() -> Value {
    serde_json::from_str(include_str!("reference/scipy.json")).expect("the reference is JSON")
}

fn numbers(value: &Value) -> Vec<f64> {
    value.as_array().expect("a list").iter().map(|v| v.as_f64().expect("a number")).collect()
}

#[test]
fn lobes_agree_with_scipys_active_set_solution() {
    for case in reference()["lobes"].as_array().expect("cases") {
        let name = case["name"].as_str().expect("a name");
        let kind = if name.starts_with("solid") { LifterKind::SolidRoller } else { LifterKind::HydraulicRoller };
        let heights = [0.006, 0.050, 0.200].map(Length::inches);
        let rows: Vec<_> = heights.into_iter().zip(numbers(&case["durations"])).collect();
        let lift = Length::inches(case["lift_in"].as_f64().expect("lift"));
        let lobe = lobe_of_card(&LobeCard::symmetric(lift, &rows, kind, None)).expect("a lobe");
        for (deg, expected) in numbers(&case["cam_deg"]).into_iter().zip(numbers(&case["lift_at_in"])) {
            let have = lobe.at(deg).lift / 0.0254;
            // Two solvers of one convex programme: they differ by the interior-point tolerance.
            assert!((have - expected).abs() < 2e-6, "{name} at {deg}: {have} against {expected}");
        }
        let peak = |of: fn(&upper_lobe_core::cam::Motion) -> f64| {
            lobe.sampled(0.05).map(|(_, m)| of(&m) / 0.0254).fold(0.0, f64::max)
        };
        for (have, key) in [
            (peak(|m| m.velocity), "peak_velocity"),
            (peak(|m| m.acceleration), "peak_acceleration"),
            (-peak(|m| -m.acceleration), "minimum_acceleration"),
        ] {
            let expected = case[key].as_f64().expect("a number");
            assert!((have / expected - 1.0).abs() < 2e-3, "{name} {key}: {have} against {expected}");
        }
    }
}

#[test]
fn the_closest_approach_agrees_with_brute_force_geometry() {
    let build = Build::read(include_str!("data/example_build.json")).expect("the example reads");
    let answer = analyze(&build, &Request::default(), &Stages::default()).expect("analysed");
    let clearance = answer.candidates[0].clearance.done().expect("clearance");
    let expected = &reference()["closest_approach"];
    let gap = expected["gap_in"].as_f64().expect("a gap");
    // 1440 places on the edge there, 48 with the lowest here.
    assert!((clearance.intake.piston_minimum_mm / 25.4 - gap).abs() < 1e-4);
    let at = expected["at_deg"].as_f64().expect("an angle");
    assert!((clearance.intake.piston_minimum_at_deg - at).abs() < 0.1);
}

#[test]
fn the_offset_slider_crank_agrees_with_root_finding() {
    let crank = CrankSlider::new(Length::mm(90.0), Length::mm(150.0), Length::mm(1.2)).expect("it turns");
    let expected = &reference()["slider_crank"];
    let stroke = expected["true_stroke_mm"].as_f64().expect("a stroke");
    assert!((crank.true_stroke().as_mm() - stroke).abs() < 1e-8);
    let half = Angle::from_si(expected["half_stroke_at_rad"].as_f64().expect("an angle"));
    assert!((crank.drop(half).as_mm() - 0.5 * stroke).abs() < 1e-8);
}
