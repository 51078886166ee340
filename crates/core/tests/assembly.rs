//! The order of assembly on the demo builds: what waits for what, what is signed and undone, what belongs to which engine.

use crate::support::DEMOS;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{
    AssemblyLine, AssemblyReport, Build, Edit, LineState, PartName, Request, Stages, UnitSystem, analyze, apply,
};

fn report(build: &Build, candidate: &str) -> AssemblyReport {
    let request = Request::of(Some(candidate.to_owned()), vec![PartName::Assembly]);
    let report = analyze(build, &request, &Stages::default()).expect("a report").candidates.remove(0);
    report.assembly.expect("the assembly")
}

fn line<'a>(report: &'a AssemblyReport, id: &str) -> &'a AssemblyLine {
    report.lines.iter().find(|line| line.id == id).unwrap_or_else(|| panic!("no {id}"))
}

fn signed(build: &Build, id: &str) -> Build {
    let edit =
        Edit::SignLine { line: id.into(), candidate: "a".into(), by: "Ida".into(), at: "2026-03-02 14:20".into() };
    apply(build, &edit, UnitSystem::Inch, &Stages::default()).unwrap_or_else(|faults| panic!("{faults}"))
}

#[test]
fn every_line_comes_after_what_it_waits_for_and_can_be_done_in_turn() {
    for demo in DEMOS {
        let mut build = Build::read(demo).unwrap();
        let ids: Vec<String> = report(&build, "a").lines.iter().map(|line| line.id.clone()).collect();
        assert!(ids.len() >= 25, "{ids:?}");
        for (place, id) in ids.iter().enumerate() {
            let now = report(&build, "a");
            assert_eq!(line(&now, id).state, LineState::Open, "{id}: {:?}", line(&now, id).waits_for);
            assert_eq!(now.done, place);
            build = signed(&build, id);
        }
        let whole = report(&build, "a");
        assert!(whole.done == ids.len() && line(&whole, "cam_in").by.as_deref() == Some("Ida"));
        // Another candidate's assembly has not begun.
        assert_eq!(report(&build, "b").done, 0);
    }
}

#[test]
fn the_cam_is_degreed_in_before_pushrods_are_measured_and_gears_stay_loose_until_then() {
    let build = Build::read(DEMOS[0]).unwrap();
    let now = report(&build, "a");
    assert!(line(&now, "pushrods").waits_for.iter().any(|own| own == "Degreed in"));
    assert!(line(&now, "drive_tight").waits_for.iter().any(|own| own == "Degreed in"));
    assert!(line(&now, "drive_on").how.contains("finger-tight"));
    assert!(line(&now, "turned").waits_for.len() == 3 && line(&now, "run_in").state == LineState::Waits);
}

#[test]
fn what_is_undone_needs_a_reason_stays_written_and_shows_what_rested_on_it() {
    let build = Build::read(DEMOS[0]).unwrap();
    let stages = Stages::default();
    let build = ["oil_ways", "lifter_bores"].iter().fold(build, |build, id| signed(&build, id));
    let undo = |build: &Build, id: &str, reason: &str| {
        let (line, candidate, by, at) = (id.into(), "a".into(), "Ida".into(), "2026-03-03 08:00".into());
        apply(build, &Edit::UndoLine { line, candidate, by, at, reason: reason.into() }, UnitSystem::Inch, &stages)
    };
    assert!(undo(&build, "oil_ways", " ").is_err() && undo(&build, "cam_in", "never done").is_err());
    let nameless = Edit::SignLine { line: "decks".into(), candidate: "a".into(), by: " ".into(), at: String::new() };
    assert!(apply(&build, &nameless, UnitSystem::Inch, &stages).is_err());
    let undone = undo(&build, "oil_ways", "a plug was left out").unwrap();
    let now = report(&undone, "a");
    let ways = line(&now, "oil_ways");
    assert_eq!(
        (ways.state, ways.undone.as_deref(), ways.by.is_none()),
        (LineState::Open, Some("a plug was left out"), true)
    );
    assert_eq!(line(&now, "lifter_bores").state, LineState::OutOfOrder);
    assert_eq!(undone.value()["assembly"].as_array().map(Vec::len), Some(3));
    assert_eq!(line(&report(&signed(&undone, "oil_ways"), "a"), "lifter_bores").state, LineState::Done);
}

#[test]
fn each_engine_has_its_own_lines() {
    let flat = |demo: &str| -> AssemblyReport {
        let mut value: Value = serde_json::from_str(demo).unwrap();
        value["candidates"][0]["train"]["lifter"]["kind"] = "solid_flat".into();
        report(&Build::from_value(value).expect("a document"), "a")
    };
    // Flat lifters: paste, run in at once under less spring, real springs after it.
    let diesel = flat(DEMOS[2]);
    assert!(
        line(&diesel, "cam_in").how.contains("paste on every lobe")
            && line(&diesel, "run_in").how.contains("no cranking")
    );
    assert!(
        diesel.lines.iter().any(|own| own.id == "full_load") && diesel.cautions.iter().any(|own| own.contains("idles"))
    );
    assert_eq!(line(&diesel, "set").what, "Lash set");
    let tow = report(&Build::read(DEMOS[0]).unwrap(), "a");
    assert!(line(&tow, "lifters_in").how.contains("link bars") && line(&tow, "set").what == "Preload set");
    // Both schools of lube are named, and the maker's sheet above them.
    assert!(line(&tow, "cam_in").how.contains("maker's sheet decides") && !line(&tow, "run_in").how.contains("2,000"));
    assert!(tow.lines.iter().all(|own| own.id != "full_load"));
}

#[test]
fn a_line_says_what_the_session_that_it_rests_on_came_to() {
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    let found =
        |value: &Value| line(&report(&Build::from_value(value.clone()).unwrap(), "a"), "degree_in").found.clone();
    assert_eq!(found(&value).as_deref(), Some("not measured yet"));
    let rows = |closing: &str| json!([["0.050 in", "opening", "2 deg"], ["0.050 in", "closing", closing]]);
    value["bench"] = json!([{ "id": "s", "kind": "degree_in", "readings": rows("212 deg") }]);
    assert_eq!(found(&value).as_deref(), Some("begun"));
    let whole = json!([
        ["0.050 in", "opening", "2 deg"],
        ["0.050 in", "closing", "212 deg"],
        ["0.200 in", "opening", "44 deg"],
        ["0.200 in", "closing", "170 deg"],
    ]);
    value["bench"][0]["readings"] = whole;
    assert_eq!(found(&value).as_deref(), Some("measured, agrees"));
    value["bench"][0]["readings"] = rows("32 deg");
    assert_eq!(found(&value).as_deref(), Some("measured, to be looked at again"));
}
