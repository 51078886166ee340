//! What the bench reads against what a pencil makes of it: recess, pocket depth and diameter, volumes and their doubts.
//! Nothing of the core computes the expected figures.

use crate::support::DEMOS;
use crate::support::by_hand::INCH;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{Analysis, BenchFinding, BenchVerdict, Build, PartName, Request, Stages, analyze};

const STROKE: f64 = 3.5 * INCH;
const ROD: f64 = 6.0 * INCH;

/// One cylinder with a deck of .010 in and a gasket of .040 in: the crown stands .050 in below the gasket face.
fn engine(intake: Value, more: Value) -> Value {
    let mut engine = json!({
        "cylinders": 1, "bore": "4.000 in", "stroke": "3.500 in", "rod_length": "6.000 in",
        "deck_clearance": "0.010 in", "gasket_thickness": "0.040 in", "intake": intake
    });
    engine.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    engine
}

fn findings(engine: Value) -> Vec<BenchFinding> {
    let value = json!({
        "format": "upper-lobe.build", "version": 1, "name": "By hand", "engine": engine,
        "candidates": [{ "id": "a", "name": "A", "cam": {}, "train": {} }]
    });
    let build = Build::from_value(value).expect("a good document");
    let report = analyze(&build, &Request::of(None, vec![PartName::Bench]), &Stages::default()).unwrap();
    report.candidates[0].bench.clone()
}

fn one(found: Vec<BenchFinding>, field: &str) -> BenchFinding {
    found.into_iter().find(|one| one.field == field).unwrap_or_else(|| panic!("nothing of {field}"))
}

/// The millimetres of a finding.
fn says(found: &BenchFinding) -> f64 {
    let text = &found.says.as_ref().unwrap_or_else(|| panic!("{found:?}")).metric;
    text.strip_suffix(" mm").or(text.strip_suffix(" cc")).unwrap().parse().unwrap()
}

/// Fall of the piston from top dead centre [slider-crank; Heywood ch. 2, from memory], mm.
fn fall(deg: f64) -> f64 {
    let (r, t) = (0.5 * STROKE, deg.to_radians());
    r * (1.0 - t.cos()) + ROD - (ROD * ROD - (r * t.sin()).powi(2)).sqrt()
}

#[test]
fn a_drop_over_a_flat_crown_gives_the_recess() {
    let cos = 20_f64.to_radians().cos();
    let drop = format!("{:.4} mm", (0.050 + 0.120) * INCH / cos);
    let valve = json!({ "valve_diameter": "2.000 in", "valve_angle": "20 deg", "piston_drop": drop });
    let found = one(findings(engine(valve, json!({}))), "engine.intake.face_recess");
    assert!((says(&found) - 0.120 * INCH).abs() < 0.006, "{found:?}");
    assert_eq!(found.verdict, BenchVerdict::New);
    // Dial .002 in times the cosine, deck and gasket .002 in: .0027 in.
    assert_eq!(found.doubt.unwrap().inch, ".003 in");
}

#[test]
fn drops_before_and_after_top_fall_with_the_crank_over_a_flat_crown_and_slower_in_a_pocket() {
    let cos = 20_f64.to_radians().cos();
    // Along the stem to a level crown: height over the cosine. To a floor square to the stem: height times the cosine.
    let flat = |deg: f64| ((0.050 + 0.120) * INCH + fall(deg)) / cos;
    let drops = |of: &dyn Fn(f64) -> f64| {
        [-15.0, 0.0, 20.0].map(|deg| json!([format!("{deg} deg"), format!("{:.4} mm", of(deg))]))
    };
    let valve = json!({ "valve_diameter": "2.000 in", "valve_angle": "20 deg", "drops": drops(&flat) });
    let found = one(findings(engine(valve, json!({}))), "engine.intake.face_recess");
    assert!((says(&found) - 0.120 * INCH).abs() < 0.006, "{found:?}");
    assert!(found.how.inch.ends_with("the drops agree within .000 in"), "{}", found.how.inch);

    // Face middle at x = 0; pocket floor square to the stem, its middle on the stem's line: the gap is how much deeper the
    // floor's middle lies, along the stem.
    let sin = 20_f64.to_radians().sin();
    let depth = 0.180 * INCH;
    let (valve_radius, pocket_radius) = (1.0 * INCH, 1.1 * INCH);
    let face_z = -0.120 * INCH - valve_radius * sin;
    let floor_x = 0.06 * INCH;
    let pocketed = |deg: f64| {
        let floor_z = 0.050 * INCH + fall(deg) + depth - pocket_radius * sin;
        floor_x * sin + (floor_z - face_z) * cos
    };
    let valve = json!({
        "valve_diameter": "2.000 in", "valve_angle": "20 deg", "face_recess": "0.120 in",
        "valve_offset_x": "0 in", "valve_offset_y": "0 in", "drops": drops(&pocketed),
        "pocket": { "depth": "0.100 in", "diameter": "2.200 in", "offset_x": "0.06 in", "offset_y": "0 in" }
    });
    let found = one(findings(engine(valve, json!({}))), "engine.intake.pocket.depth");
    assert!((says(&found) - depth).abs() < 0.011, "{found:?}");
    assert_eq!((found.verdict, found.surest), (BenchVerdict::Differs, true));
    assert!(found.how.inch.contains("lowest edge .120 in"), "{}", found.how.inch);
}

#[test]
fn a_wheel_set_three_degrees_off_shows_itself() {
    let drops =
        [-20.0, 20.0].map(|deg| json!([format!("{deg} deg"), format!("{:.4} mm", 0.170 * INCH + fall(deg + 3.0))]));
    let valve = json!({ "valve_diameter": "2.000 in", "valve_angle": "0 deg", "drops": drops });
    let found = one(findings(engine(valve, json!({}))), "engine.intake.face_recess");
    assert!(found.how.inch.contains("look for top dead centre"), "{}", found.how.inch);
}

#[test]
fn a_gauge_on_the_middle_of_the_face_reads_half_the_diameter_times_the_sine_deeper() {
    let height = 0.120 * INCH + 1.0 * INCH * 15_f64.to_radians().sin();
    let valve = json!({
        "valve_diameter": "2.000 in", "valve_angle": "15 deg",
        "valve_height": format!("{height:.4} mm"), "valve_height_at": "centre"
    });
    let found = one(findings(engine(valve, json!({}))), "engine.intake.face_recess");
    assert!((says(&found) - 0.120 * INCH).abs() < 0.006, "{found:?}");
    // .002 in of the gauge and a quarter of a degree at one inch, .0042 in: .0047 in together.
    assert_eq!(found.doubt.unwrap().inch, ".005 in");
    let valve = json!({ "valve_height": "0.118 in", "face_recess": "0.117 in" });
    let found = one(findings(engine(valve, json!({}))), "engine.intake.face_recess");
    assert_eq!((found.verdict, found.says.unwrap().inch.as_str()), (BenchVerdict::Agrees, ".118 in"));
}

#[test]
fn a_burette_gives_chamber_and_piston() {
    // Bore area 81.073 cm2; half an inch down holds 102.963 cc; 110.0 filled leaves 7.0 cc of dish, 95.0 a dome of 8.0.
    let filled = |fill: &str| {
        let more = json!({ "cylinder_fill": fill, "piston_down": "0.500 in", "chamber_fill": "63.4 cc" });
        findings(engine(json!({}), more))
    };
    let dish = one(filled("110.0 cc"), "engine.piston_volume");
    assert!((says(&dish) - 7.0).abs() < 0.06, "{dish:?}");
    // .3 cc of the burette, .002 in of depth .412 cc, .001 in of bore .051 cc: .51 cc.
    assert_eq!(dish.doubt.unwrap().metric, "0.5 cc");
    assert!((says(&one(filled("95.0 cc"), "engine.piston_volume")) + 8.0).abs() < 0.06);
    assert_eq!(says(&one(filled("95.0 cc"), "engine.chamber_volume")), 63.4);
    let lacking = one(findings(engine(json!({}), json!({ "cylinder_fill": "110 cc" }))), "engine.piston_volume");
    assert_eq!((lacking.verdict, lacking.needs[0].field.as_str()), (BenchVerdict::Unclear, "engine.piston_down"));
}

#[test]
fn a_drop_that_no_depth_explains_says_where_to_look() {
    let valve = |drop: &str| {
        json!({
            "valve_diameter": "2.000 in", "valve_angle": "0 deg", "face_recess": "0.120 in",
            "valve_offset_x": "0 in", "valve_offset_y": "0 in", "piston_drop": drop,
            "pocket": { "depth": "0.100 in", "diameter": "1.900 in", "offset_x": "0 in", "offset_y": "0 in" }
        })
    };
    // A pocket smaller than the valve: it meets the crown at .170 in whatever the depth.
    let wide = one(findings(engine(valve("0.260 in"), json!({}))), "engine.intake.pocket.depth");
    assert_eq!(wide.verdict, BenchVerdict::Unclear);
    assert!(wide.how.inch.contains("more than any depth leaves"), "{}", wide.how.inch);
    let short = one(findings(engine(valve("0.100 in"), json!({}))), "engine.intake.pocket.depth");
    assert!(short.how.inch.contains("less than a crown without any pocket"), "{}", short.how.inch);
}

fn analysed(demo: &str, change: impl FnOnce(&mut Value)) -> Analysis {
    let mut value: Value = serde_json::from_str(demo).unwrap();
    change(&mut value);
    let build = Build::from_value(value).expect("a good document");
    let request = Request::of(Some("a".into()), vec![PartName::Bench, PartName::Clearance, PartName::Limits]);
    analyze(&build, &request, &Stages::default()).unwrap()
}

#[test]
fn clay_gives_back_the_pocket_it_was_squeezed_in_and_a_wrong_field_is_not_passed_in_silence() {
    let report = analysed(DEMOS[1], |_| {});
    let before = report.candidates[0].clearance.done().unwrap().intake.clone();
    let radial = before.radial_mm.expect("the edge is in its pocket");
    let report = analysed(DEMOS[1], |value| {
        value["engine"]["intake"]["pocket"]["depth"] = "0.150 in".into();
        value["candidates"][0]["clay"] = json!({ "intake": {
            "floor": format!("{:.4} mm", before.piston_minimum_normal_mm), "wall": format!("{radial:.4} mm")
        } });
    });
    let demo: Value = serde_json::from_str(DEMOS[1]).unwrap();
    let pocket = &demo["engine"]["intake"]["pocket"];
    let inches = |key: &str| pocket[key].as_str().unwrap().strip_suffix(" in").unwrap().parse::<f64>().unwrap();
    let bench = &report.candidates[0].bench;
    let depth = one(bench.clone(), "engine.intake.pocket.depth");
    assert!((says(&depth) - inches("depth") * INCH).abs() < 0.02, "{depth:?}");
    assert_eq!(depth.verdict, BenchVerdict::Differs);
    assert!(report.warnings.iter().any(|w| w.ends_with("computed with: intake pocket depth")), "{:?}", report.warnings);
    let diameter = one(bench.clone(), "engine.intake.pocket.diameter");
    assert!((says(&diameter) - inches("diameter") * INCH).abs() < 0.1, "{diameter:?}");
    assert_eq!(diameter.verdict, BenchVerdict::Agrees);
}

#[test]
fn drops_at_degrees_stand_above_the_frame_as_the_drop_at_top_does() {
    // Dome: the frame knows nothing. By dial .300 in at top; a dome parallel to the valve draws away by the cosine.
    let tilt = |value: &Value| {
        let text = value["engine"]["intake"]["valve_angle"].as_str().unwrap().to_owned();
        text.strip_suffix(" deg").unwrap().parse::<f64>().unwrap().to_radians()
    };
    let domed = |drops: Value| {
        analysed(DEMOS[0], |value| {
            value["engine"]["piston_volume"] = "-6 cc".into();
            for side in ["intake", "exhaust"] {
                value["engine"][side].as_object_mut().unwrap().remove("pocket");
                value["engine"][side]["drops"] = drops.clone();
            }
        })
    };
    let least = |report: &Analysis| report.candidates[0].clearance.done().unwrap().intake.piston_minimum_mm;
    let at_top = least(&domed(json!([["0 deg", "0.300 in"]])));
    let demo: Value = serde_json::from_str(DEMOS[0]).unwrap();
    // Slider-crank of the demo's 3.750 in stroke and 6.125 in rod at ten degrees, its pin offset left aside (it moves top
    // dead centre with it): 1 - cos 10 = .015192; r .015192 + r^2 sin^2 10 / 2L.
    let r = 1.875 * INCH;
    let fell = r * (1.0 - 10_f64.to_radians().cos()) + (r * 10_f64.to_radians().sin()).powi(2) / (2.0 * 6.125 * INCH);
    let later = 0.300 * INCH + fell * tilt(&demo).cos();
    let at_ten = least(&domed(json!([["10 deg", format!("{later:.4} mm")]])));
    assert!((at_top - at_ten).abs() < 0.02, "{at_top} {at_ten}");
    // Of two that disagree the one counts that leaves least.
    let both = least(&domed(json!([["0 deg", "0.360 in"], ["0 deg", "0.300 in"]])));
    assert!((at_top - both).abs() < 1e-9, "{at_top} {both}");
    assert!(domed(json!([["0 deg", "0.300 in"]])).candidates[0].bench.is_empty(), "a dome has no depth below a flat");
}
