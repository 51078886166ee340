//! Edits of a cam: one event moves, three stand; the card follows; what is not touched stays as typed.

use serde_json::{Value, json};
use upper_lobe_core::analysis::{Request, Stages, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::get;
use upper_lobe_core::edit::{CardNumber, Edit, Event, apply};
use upper_lobe_core::quantity::UnitSystem;

const EXAMPLE: &str = include_str!("data/example_build.json");

fn example() -> Build {
    Build::read(EXAMPLE).expect("the example reads")
}

/// The same cam written by its events, as the format allows.
fn by_events() -> Build {
    let mut value = example().value().clone();
    let cam = value["candidates"][0]["cam"].as_object_mut().expect("a cam");
    cam.remove("lobe_separation");
    cam.remove("intake_centreline");
    cam["intake"]["checks"] = json!([["0.006 in", "268 deg"], ["0.200 in", "134 deg"]]);
    cam["exhaust"]["checks"] = json!([["0.006 in", "276 deg"], ["0.200 in", "140 deg"]]);
    cam.insert(
        "events_050".into(),
        json!({ "intake_opens_btdc": "0 deg", "intake_closes_abdc": "36 deg", "exhaust_opens_bbdc": "48 deg", "exhaust_closes_atdc": "-4 deg" }),
    );
    Build::from_value(value).expect("the same cam")
}

fn edited(build: &Build, edit: &Edit) -> Build {
    apply(build, edit, UnitSystem::Inch, &Stages::default()).expect("the edit is taken")
}

fn text<'a>(build: &'a Build, path: &str) -> &'a str {
    get(build.value(), &format!("candidates[0].cam.{path}")).and_then(Value::as_str).unwrap_or("absent")
}

/// IO, IC, EO, EC at .050 and at .006.
fn events(build: &Build) -> [f64; 8] {
    let answer = analyze(build, &Request::default(), &Stages::default()).expect("analysed");
    let timing = answer.candidates[0].timing.done().expect("timing").clone();
    let (i, e) = (timing.intake, timing.exhaust);
    [
        i.opens_050_deg,
        i.closes_050_deg,
        e.opens_050_deg,
        e.closes_050_deg,
        i.opens_006_deg,
        i.closes_006_deg,
        e.opens_006_deg,
        e.closes_006_deg,
    ]
    .map(|deg| (deg * 100.0).round() / 100.0)
}

fn intake_closing_at(abdc: f64) -> Edit {
    Edit::MoveEvent { candidate: "a".into(), event: Event::IntakeCloses, crank_deg: 540.0 + abdc }
}

#[test]
fn the_same_cam_by_events_or_by_card_has_the_same_events() {
    assert_eq!(events(&example()), [0.0, 36.0, 48.0, -4.0, 26.0, 62.0, 74.0, 22.0]);
    assert_eq!(events(&by_events()), events(&example()));
}

#[test]
fn a_dragged_event_moves_alone_and_keeps_the_differences_between_heights() {
    for build in [example(), by_events()] {
        let moved = edited(&build, &intake_closing_at(40.0));
        assert_eq!(events(&moved), [0.0, 40.0, 48.0, -4.0, 26.0, 66.0, 74.0, 22.0]);
    }
}

#[test]
fn each_event_can_be_moved_either_way() {
    let start = events(&example());
    for (place, event) in
        [(0, Event::IntakeOpens), (1, Event::IntakeCloses), (2, Event::ExhaustOpens), (3, Event::ExhaustCloses)]
    {
        for by in [-3.5, 2.0] {
            let to = start[place] + by;
            let edit = Edit::TypeEvent { candidate: "a".into(), event, text: format!("{to}") };
            let mut expected = start;
            expected[place] += by;
            expected[place + 4] += by;
            assert_eq!(events(&edited(&example(), &edit)), expected, "{event:?} by {by}");
        }
    }
}

#[test]
fn the_card_follows_an_event_and_what_did_not_move_stays_as_typed() {
    let moved = edited(&example(), &intake_closing_at(38.0));
    assert_eq!(text(&moved, "intake.checks[1][1]"), "218 deg");
    assert_eq!(text(&moved, "intake.checks[0][1]"), "270 deg");
    assert_eq!(text(&moved, "intake_centreline"), "109 deg");
    assert_eq!(text(&moved, "lobe_separation"), "112.5 deg");
    // The other lobe and every other part keep their text, and the ratio its digits.
    let (before, after) = (example().text(), moved.text());
    let changed = before.lines().zip(after.lines()).filter(|(a, b)| a != b).count();
    assert_eq!(changed, 5, "three durations, separation and centreline");
    assert!(after.contains("\"0.5 in\"") || after.contains("\"ratio\": 1.65"));
}

#[test]
fn card_numbers_move_the_events() {
    let card = |number, text: &str| Edit::TypeCard { candidate: "a".into(), number, text: text.into() };
    let wider = edited(&example(), &card(CardNumber::LobeSeparation, "114"));
    assert_eq!(events(&wider)[..4], [0.0, 36.0, 52.0, -8.0]);
    let advanced = edited(&example(), &card(CardNumber::IntakeCentreline, "106 deg"));
    assert_eq!(events(&advanced)[..4], [2.0, 34.0, 50.0, -6.0]);
    let longer = edited(&by_events(), &card(CardNumber::ExhaustDuration, "228"));
    assert_eq!(events(&longer)[..4], [0.0, 36.0, 50.0, -2.0]);
}

#[test]
fn refused_edits_say_where_and_leave_the_build_alone() {
    let build = example();
    let refused = |edit: &Edit| apply(&build, edit, UnitSystem::Inch, &Stages::default()).unwrap_err().faults;
    let nobody = Edit::MoveEvent { candidate: "z".into(), event: Event::IntakeOpens, crank_deg: 350.0 };
    assert_eq!(refused(&nobody)[0].field, "candidate");
    let backwards = Edit::TypeEvent { candidate: "a".into(), event: Event::IntakeCloses, text: "-175".into() };
    assert!(refused(&backwards)[0].field.starts_with("candidates[0].cam"));
    let words = Edit::TypeEvent { candidate: "a".into(), event: Event::IntakeCloses, text: "late".into() };
    assert_eq!(refused(&words)[0].given, "late");
    let unit = Edit::Set { field: "engine.bore".into(), text: "4 lbf".into() };
    assert_eq!(refused(&unit)[0].field, "engine.bore");
    let source = Edit::Source { field: "engine.bore".into(), source: "guess".into() };
    assert_eq!(refused(&source)[0].needs, "one of measured, card, assumed");
}

#[test]
fn a_measured_lobe_moves_as_a_whole_or_not_at_all() {
    let mut value = example().value().clone();
    let angles: Vec<f64> = (0..=46).map(|i| f64::from(i) * 4.0).collect();
    let lifts: Vec<String> =
        angles.iter().map(|a| format!("{:.4} in", 0.165 * (1.0 - (a / 184.0 * std::f64::consts::TAU).cos()))).collect();
    value["candidates"][0]["cam"]["intake"] = json!({ "profile": { "cam_deg": angles, "lift": lifts } });
    let build = Build::from_value(value).expect("a measured lobe");
    let refused = apply(&build, &intake_closing_at(40.0), UnitSystem::Inch, &Stages::default()).unwrap_err();
    assert!(refused.faults[0].field.ends_with("cam.intake.profile"));
    let whole = Edit::TypeCard { candidate: "a".into(), number: CardNumber::IntakeCentreline, text: "106".into() };
    assert_eq!(text(&edited(&build, &whole), "intake_centreline"), "106 deg");
}

#[test]
fn a_profile_beside_a_card_that_says_otherwise_is_a_fault_that_names_both() {
    let mut value = example().value().clone();
    let angles: Vec<f64> = (0..=46).map(|i| f64::from(i) * 4.0).collect();
    let lift = |a: &f64| format!("{:.4} in", 0.165 * (1.0 - (a / 184.0 * std::f64::consts::TAU).cos()));
    let lifts: Vec<String> = angles.iter().map(lift).collect();
    value["candidates"][0]["cam"]["intake"]["profile"] = json!({ "cam_deg": angles, "lift": lifts });
    value["candidates"][0]["cam"]["intake"]["lobe_lift"] = "0.335 in".into();
    let faults = Build::from_value(value).unwrap_err().faults;
    let fields: Vec<_> = faults.iter().map(|f| f.field.as_str()).collect();
    assert!(
        fields.contains(&"candidates[0].cam.intake.lobe_lift") && fields.contains(&"candidates[0].cam.intake.checks")
    );
    assert!(faults.iter().all(|f| f.needs.contains("which gives")));
}

/// The marks of an object.
fn marks(build: &Build, path: &str) -> Value {
    get(build.value(), &format!("{path}.sources")).cloned().unwrap_or(Value::Null)
}

#[test]
fn a_value_that_is_moved_was_not_measured_and_what_stays_was() {
    let mut value = example().value().clone();
    value["candidates"][0]["cam"]["sources"] =
        json!({ "lobe_separation": "measured", "intake_centreline": "measured", "base_circle_diameter": "card" });
    let build = Build::from_value(value).unwrap();
    let turned =
        Edit::TypeCard { candidate: "a".into(), number: CardNumber::IntakeCentreline, text: "103.5".to_owned() };
    let after = marks(&edited(&build, &turned), "candidates[0].cam");
    assert_eq!(after, json!({ "lobe_separation": "measured", "base_circle_diameter": "card" }));
    // An event that moves by itself moves both.
    let after = marks(&edited(&build, &intake_closing_at(50.0)), "candidates[0].cam");
    assert_eq!(after, json!({ "base_circle_diameter": "card" }));
}

#[test]
fn candidates_that_move_up_keep_their_marks() {
    let mut value = example().value().clone();
    let first = value["candidates"][0].clone();
    let mut second = first.clone();
    second["id"] = json!("second");
    second["cam"]["lobe_separation"] = json!("114 deg");
    second["cam"]["sources"] = json!({ "lobe_separation": "assumed" });
    value["candidates"] = json!([first, second]);
    value["candidates"][0]["cam"]["sources"] = json!({ "lobe_separation": "assumed" });
    let build = Build::from_value(value).unwrap();
    for edit in
        [Edit::RemoveCandidate { candidate: "a".into() }, Edit::PlaceCandidate { candidate: "second".into(), place: 0 }]
    {
        let after = edited(&build, &edit);
        assert_eq!(text(&after, "lobe_separation"), "114 deg");
        assert_eq!(marks(&after, "candidates[0].cam"), json!({ "lobe_separation": "assumed" }));
    }
}
