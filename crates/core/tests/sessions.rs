//! Sessions at the bench on the demo builds: figures by hand from the cards, planted errors and misreadings, SciPy's assignment.

use crate::support::DEMOS;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{
    Build, ExpectedReport, PartName, Request, SessionReport, SessionVerdict, Stages, analyze, expected_of,
};
use upper_lobe_core::bench::{Tested, fitted};
use upper_lobe_core::train::heights::piles;

/// The tow demo's card: intake 210 at .050 about 107, exhaust 218 about 2 x 112 - 107 = 117.
pub const TOW: usize = 0;
/// The strip demo: solid rollers with .018 of lash on 1.7 rockers.
pub const STRIP: usize = 1;

/// What sessions of the first candidate come to, with `engine` fields put in.
pub fn told(demo: usize, engine: Value, bench: Value) -> Vec<SessionReport> {
    let mut value: Value = serde_json::from_str(DEMOS[demo]).expect("a demo");
    for (key, own) in engine.as_object().into_iter().flatten() {
        value["engine"][key] = own.clone();
    }
    value["bench"] = bench;
    let build = Build::from_value(value).expect("a document");
    let analysis = analyze(&build, &Request::of(None, vec![PartName::Sessions]), &Stages::default()).expect("a report");
    analysis.candidates[0].sessions.clone()
}

pub fn one(demo: usize, engine: Value, session: Value) -> SessionReport {
    told(demo, engine, json!([session])).remove(0)
}

/// A degree-in of the intake by events with these rows.
fn degree_in(rows: &[(&str, &str, f64)]) -> Value {
    let rows: Vec<Value> = rows.iter().map(|(at, flank, deg)| json!([at, flank, format!("{deg} deg")])).collect();
    json!({ "id": "s1", "kind": "degree_in", "readings": rows })
}

#[test]
fn a_cam_as_ordered_agrees_and_a_retarded_one_says_which_place_mends_it() {
    // By hand: 107 -/+ 105.
    let agrees = one(TOW, json!({}), degree_in(&[("0.050 in", "opening", 2.0), ("0.050 in", "closing", 212.0)]));
    assert_eq!(agrees.verdict, SessionVerdict::Agrees, "{}", agrees.says.inch);
    assert!(agrees.suggests.is_empty() && agrees.questions.is_empty());
    // Three degrees later on both flanks: retarded by three; of these keyways two forward leaves one.
    let steps = json!({ "timing_steps": ["-4 deg", "-2 deg", "0 deg", "2 deg"] });
    let late = one(TOW, steps, degree_in(&[("0.050 in", "opening", 5.0), ("0.050 in", "closing", 215.0)]));
    assert_eq!(late.verdict, SessionVerdict::Differs);
    assert!(late.says.inch.starts_with("3.0 deg retarded"), "{}", late.says.inch);
    assert!(late.says.inch.contains("2.0 deg forward leaves 1.0 deg"), "{}", late.says.inch);
    let said = &late.suggests[0];
    assert_eq!((said.field.as_str(), said.to.as_str()), ("candidates[0].cam.intake_centreline", "110.0 deg"));
}

#[test]
fn the_exhaust_tells_the_separation_and_a_longer_lobe_is_no_late_one() {
    // 117 before top dead centre with 109 each way, two degrees earlier: separation (107 + 119)/2.
    let mut session = degree_in(&[("0.050 in", "opening", -228.0), ("0.050 in", "closing", -10.0)]);
    session["side"] = "exhaust".into();
    let early = one(TOW, json!({}), session);
    assert!(early.says.inch.starts_with("2.0 deg advanced"), "{}", early.says.inch);
    assert_eq!(early.suggests[0].to, "113.0 deg");
    // Four degrees longer about the same middle.
    let longer = one(TOW, json!({}), degree_in(&[("0.050 in", "opening", 0.0), ("0.050 in", "closing", 214.0)]));
    assert_eq!(longer.verdict, SessionVerdict::Differs);
    assert!(longer.says.inch.starts_with("as the document has it") && longer.suggests.is_empty());
    let duration = longer.figures.iter().find(|own| own.label.starts_with("Duration")).expect("a duration");
    assert!(duration.stands_out && duration.off.as_ref().unwrap().inch == "+4.0 deg", "{:?}", duration.off);
}

#[test]
fn a_stop_sets_the_wheel_right_and_full_lift_needs_no_heights_of_flanks() {
    // The wheel reads 1.5 too much: stops at -23.5 and 26.5.
    let mut session = degree_in(&[("0.050 in", "opening", 3.5), ("0.050 in", "closing", 213.5)]);
    session["stop_before"] = "-23.5 deg".into();
    session["stop_after"] = "26.5 deg".into();
    assert_eq!(one(TOW, json!({}), session).verdict, SessionVerdict::Agrees);
    // Equal drops either side of full lift: whatever the angles, their middle is the centreline.
    let mut session = degree_in(&[("0.050 in", "opening", 63.0), ("0.050 in", "closing", 155.0)]);
    session["method"] = "full_lift".into();
    let found = one(TOW, json!({}), session);
    assert!(found.figures[0].read.inch.starts_with("109.0 deg") && found.figures.len() == 1, "{:?}", found.figures[0]);
}

#[test]
fn a_dial_on_the_valve_reads_lash_and_ratio_with_it() {
    // Lobe lift .050 is (1.7 x .050 - .018) = .067 at the valve with lash in; the strip's intake has 264 about 106.
    let mut session = degree_in(&[("0.067 in", "opening", -26.0), ("0.067 in", "closing", 238.0)]);
    session["dial_on"] = "valve".into();
    session["lash"] = "in".into();
    let found = one(STRIP, json!({}), session.clone());
    assert_eq!(found.verdict, SessionVerdict::Agrees, "{} {:?}", found.says.inch, found.figures);
    // The same angles with lash out are another lobe's.
    session["lash"] = "out".into();
    assert!(one(STRIP, json!({}), session).figures[1].stands_out);
}

#[test]
fn readings_that_cannot_be_are_questioned_before_they_are_believed() {
    let rows =
        |opening: f64, closing: f64| degree_in(&[("0.050 in", "opening", opening), ("0.050 in", "closing", closing)]);
    let cases = [
        // As the card quotes events: 2 before top (minus: after), 32 after bottom dead centre.
        (rows(-2.0, 32.0), "as events are quoted"),
        (rows(-2.0, -212.0), "before and after top dead centre exchanged"),
        (rows(212.0, 2.0), "opening and closing exchanged"),
        (rows(362.0, 572.0), "the other top dead centre"),
        (
            degree_in(&[("0.050 in", "opening", 2.0), ("0.050 in", "opening", 5.0), ("0.050 in", "closing", 212.0)]),
            "slipped",
        ),
    ];
    for (session, says) in cases {
        let found = one(TOW, json!({}), session);
        assert_eq!(found.verdict, SessionVerdict::Questioned, "{says}: {}", found.says.inch);
        assert!(found.questions[0].contains(says), "{says}: {:?}", found.questions);
        assert!(found.suggests.is_empty(), "{says}");
    }
    // A wheel that slips between two heights.
    let slipped = degree_in(&[
        ("0.050 in", "opening", 2.0),
        ("0.050 in", "closing", 212.0),
        ("0.006 in", "opening", -18.0),
        ("0.006 in", "closing", 244.0),
    ]);
    assert!(one(TOW, json!({}), slipped).questions[0].contains("6.0 deg apart"));
    assert_eq!(one(TOW, json!({}), degree_in(&[])).verdict, SessionVerdict::Unclear);
}

/// Rows of a map of round lobes (closed form under a flat foot): base .018, nose .008 at .0179 m, as high as `lift` of that.
fn round(cylinder: usize, middle: f64, lift: f64) -> Vec<Value> {
    let dial = |deg: f64| lift * (0.0179 * deg.to_radians().cos() - 0.010).max(0.0) / 0.0254;
    let row = |i: i32| {
        let deg = 4.0 * f64::from(i);
        json!([cylinder, "intake", format!("{} deg", middle + deg), format!("{:.5} in", dial(deg))])
    };
    (-30..=30).map(row).collect()
}

#[test]
fn the_worn_lobe_and_the_one_ground_late_are_named() {
    // Firing order 1 5 6 3 4 2 7 8: turns of 45 cam degrees. Cylinder 4 worn by 2 % of .311 in, cylinder 7 a degree and a half late.
    let order = [1, 5, 6, 3, 4, 2, 7, 8];
    let lobes: Vec<Value> = order
        .iter()
        .enumerate()
        .flat_map(|(turn, cylinder)| {
            let late = if *cylinder == 7 { 0.75 } else { 0.0 };
            round(*cylinder, 53.5 + 45.0 * turn as f64 + late, if *cylinder == 4 { 0.98 } else { 1.0 })
        })
        .collect();
    let found = one(TOW, json!({}), json!({ "id": "m", "kind": "lobe_map", "lobes": lobes }));
    assert_eq!(found.verdict, SessionVerdict::Differs);
    assert!(found.says.inch.contains("Cylinder 4 intake is worn: .006 in less"), "{}", found.says.inch);
    assert!(found.says.inch.contains("Cylinder 7 intake is ground 1.5 deg late"), "{}", found.says.inch);
    assert_eq!(found.says.inch.matches("Cylinder").count(), 2, "{}", found.says.inch);
    // .0179 - .010 m is .311 in of lift; the card has .318. Points enough to stand for the lobe itself.
    assert_eq!(found.figures[0].read.inch, ".311 in");
    assert_eq!(found.suggests[0].to, "a lobe of 61 points");
    let caliper = json!({ "id": "c", "kind": "lobe_map", "calipers": [[1, "exhaust", "1.746 in", "1.420 in"]] });
    assert_eq!(one(TOW, json!({}), caliper).verdict, SessionVerdict::Agrees);
}

#[test]
fn lift_heights_drops_and_gauges_speak_of_their_fields() {
    let rows = json!([["light", "0.500 in"], ["light", "0.502 in"], ["real", "0.480 in"]]);
    let lift = one(TOW, json!({}), json!({ "id": "l", "kind": "lift_check", "lifts": rows, "real_load": "340 lbf" }));
    // .501/.318 by hand.
    assert!(lift.says.inch.contains("1.575"), "{}", lift.says.inch);
    let texts: Vec<(&str, &str)> = lift.suggests.iter().map(|own| (own.label.as_str(), own.to.as_str())).collect();
    assert_eq!(texts.len(), 3, "{texts:?}");
    assert!(lift.suggests.iter().any(|own| own.field.ends_with("light_spring_lift") && own.to == ".501 in"));
    let exchanged = json!([["light", "0.480 in"], ["real", "0.501 in"]]);
    let odd = one(TOW, json!({}), json!({ "id": "l", "kind": "lift_check", "lifts": exchanged }));
    assert!(odd.questions[0].contains("exchanged") && odd.suggests.is_empty());
    let heights = json!([[1, "intake", "1.801 in"], [2, "intake", "1.799 in"], [3, "intake", "1.850 in"]]);
    let found = one(TOW, json!({}), json!({ "id": "h", "kind": "installed_heights", "heights": heights }));
    assert!(found.questions[0].starts_with("Cylinder 3 intake stands .049 in"), "{:?}", found.questions);
    let gauges = json!([[1, "180 psi"], [2, "150 psi"], [3, "130 psi"]]);
    let found = one(TOW, json!({}), json!({ "id": "p", "kind": "compression", "pressures": gauges }));
    assert!(found.says.inch.starts_with("cylinder 3 has 72 %") && found.verdict == SessionVerdict::Differs);
    let leaks = json!([[1, "100 psi", "97 psi"], [2, "100 psi", "75 psi"], [3, "90 psi", "95 psi"]]);
    let found = one(TOW, json!({}), json!({ "id": "k", "kind": "leak_down", "leaks": leaks }));
    assert!(found.says.inch.contains("cylinder 2 loses most, 25 %") && found.questions[0].contains("cylinder 3"));
}

#[test]
fn springs_go_where_scipys_assignment_puts_them() {
    let cases: Value = serde_json::from_str(include_str!("reference/spring_fit.json")).expect("JSON");
    let numbers = |value: &Value| -> Vec<f64> { value.as_array().unwrap().iter().filter_map(Value::as_f64).collect() };
    for case in cases.as_array().expect("cases") {
        let springs: Vec<Tested> = case["springs"]
            .as_array()
            .unwrap()
            .iter()
            .map(|own| {
                Tested(
                    own.as_array()
                        .unwrap()
                        .iter()
                        .map(|row| (row[0].as_f64().unwrap(), row[1].as_f64().unwrap()))
                        .collect(),
                )
            })
            .collect();
        let (heights, wanted) = (numbers(&case["heights"]), numbers(&case["wanted"]));
        let found = fitted(&springs, &heights, &wanted, &piles(&numbers(&case["kit"]))).unwrap();
        let off: f64 = found.iter().zip(&wanted).map(|(own, wanted)| (own.load - wanted).abs()).sum();
        let least = case["least"].as_f64().unwrap();
        // A shim more has to be worth .01 N.
        assert!(off >= least - 1e-6 && off < least + 0.04 * heights.len() as f64, "{off} for {least}");
    }
}

#[test]
fn springs_are_placed_by_the_heights_that_were_read() {
    let heights: Vec<Value> = [1.800, 1.812, 1.829, 1.803]
        .iter()
        .enumerate()
        .map(|(i, h)| json!([i + 1, "intake", format!("{h} in")]))
        .collect();
    let loads: Vec<Value> = [136.0, 140.0, 131.0, 138.0, 160.0]
        .iter()
        .enumerate()
        .flat_map(|(i, seat)| {
            [
                json!([i + 1, "1.800 in", format!("{seat} lbf")]),
                json!([i + 1, "1.300 in", format!("{} lbf", seat + 180.0)]),
            ]
        })
        .collect();
    let bench = json!([
        { "id": "h", "kind": "installed_heights", "heights": heights },
        { "id": "t", "kind": "springs", "loads": loads },
    ]);
    let found = told(TOW, json!({}), bench).remove(1);
    let apart: Vec<&str> = found.figures.iter().filter(|own| own.stands_out).map(|own| own.label.as_str()).collect();
    assert_eq!(apart, ["Spring 5"]);
    let placed: Vec<&str> = found
        .figures
        .iter()
        .filter(|own| own.label.starts_with("Cylinder"))
        .map(|own| own.read.inch.as_str())
        .collect();
    assert_eq!(placed.len(), 4, "{placed:?}");
    assert!(placed.iter().all(|own| !own.starts_with("spring 5")), "{placed:?}");
    let swapped =
        json!({ "id": "t", "kind": "springs", "loads": [[1, "1.300 in", "136 lbf"], [1, "1.800 in", "316 lbf"]] });
    assert!(one(TOW, json!({}), swapped).questions[0].contains("exchanged"));
}

#[test]
fn what_was_left_is_offered_again_when_readings_say_something_else() {
    let rows = |last: &str| json!([[1, "front", "inside", "0.011 in"], [1, "front", "outside", last]]);
    let session = |last: &str, left: Value| json!({ "id": "d", "kind": "decks", "decks": rows(last), "left": left });
    let offered = one(TOW, json!({}), session("0.011 in", json!([])));
    let (label, to) = (offered.suggests[0].label.clone(), offered.suggests[0].to.clone());
    let left = one(TOW, json!({}), session("0.011 in", json!([[label, to]])));
    assert_eq!((left.suggests.len(), left.left), (0, vec![[label.clone(), to.clone()]]));
    let again = one(TOW, json!({}), session("0.013 in", json!([[label, to]])));
    assert_eq!((again.suggests.len(), again.left.len()), (1, 0));
}

/// A lift check of the tow demo's intake with the light spring, of which ratio and lobe lift may be off by so much.
fn lift_held(light: f64) -> ExpectedReport {
    let mut value: Value = serde_json::from_str(DEMOS[TOW]).unwrap();
    value["tolerances"] = json!([
        { "field": "candidates[a].train.rocker.ratio", "plus_minus": "0.02" },
        { "field": "candidates[a].cam.intake.lobe_lift", "plus_minus": "0.002 in" },
    ]);
    let lifts = json!([["light", format!("{light} in")]]);
    value["bench"] = json!([{ "id": "l", "kind": "lift_check", "lifts": lifts }]);
    expected_of(&Build::from_value(value).unwrap(), "l", &Stages::default()).unwrap()
}

#[test]
fn a_reading_is_held_against_what_is_expected_with_both_doubts() {
    // By hand [JCGM 100, 5.1.2]: 1.6 x .318 is .5088; .318 x .02 and 1.6 x .002 are .00636 and .0032, together .0071.
    let first = lift_held(0.5088);
    let own = &first.figures[0];
    assert_eq!((own.expected.inch.as_str(), own.expected_doubt.inch.as_str()), (".509 in", ".007 in"));
    assert!(own.agrees && first.suspects.is_empty() && first.says.contains("as expected"), "{first:?}");
    // .0058 less: more than a dial may be off, less than both together.
    let within = lift_held(0.503);
    assert!(
        within.figures[0].agrees && within.says.contains("within what the document itself may be off by"),
        "{within:?}"
    );
    // A ratio of 1.55 in place of 1.60: beyond both, and the ratio is what it contradicts; a lobe .010 short would be five times
    // what it may be off.
    let beyond = lift_held(0.493);
    assert!(!beyond.figures[0].agrees, "{beyond:?}");
    let suspect = &beyond.suspects[0];
    assert_eq!(suspect.label, "Rocker ratio");
    let to: f64 = suspect.to.inch.parse().unwrap();
    assert!((to - 1.55).abs() < 0.02 && suspect.times_its_doubt > 1.5 && suspect.explains > 0.9, "{suspect:?}");
    assert!(beyond.says.contains("more than it may be off by"), "{}", beyond.says);
    // Drops at several places tell a valve that stands elsewhere from a pocket that is deeper; what explains half is told at most.
    let drops = json!({ "id": "v", "kind": "valve_drop", "drops": [["0 deg", "0.222 in"], ["10 deg", "0.257 in"]] });
    let mut value: Value = serde_json::from_str(DEMOS[TOW]).unwrap();
    value["bench"] = json!([drops]);
    let found = expected_of(&Build::from_value(value.clone()).unwrap(), "v", &Stages::default()).unwrap();
    assert!(found.suspects.iter().all(|own| own.explains > 0.5 && own.times_its_doubt < 10.0), "{found:?}");
    assert!(found.suspects.iter().any(|own| own.label == "Intake pocket depth"), "{found:?}");
    // A tenth of an inch less is no field's doubt: it is read again, or something else is in the engine.
    value["bench"][0]["drops"] = json!([["0 deg", "0.100 in"], ["10 deg", "0.120 in"]]);
    let far = expected_of(&Build::from_value(value).unwrap(), "v", &Stages::default()).unwrap();
    assert!(far.suspects.is_empty() && far.says.ends_with("No single field explains it."), "{far:?}");
    let nothing = expected_of(&Build::read(DEMOS[TOW]).unwrap(), "v", &Stages::default());
    assert!(nothing.is_err());
}
