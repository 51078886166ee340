//! Every session walked from its first reading to its last on an engine that is as the document says, as stand-ins play it; then
//! with one thing wrong.

use crate::support::DEMOS;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{
    Build, Dimension, Edit, PartName, Request, SessionReport, SessionVerdict, Stages, UnitSystem, analyze, apply,
    played_of,
};
use upper_lobe_core::words::{SessionKind, Word};

/// A text of so many SI units.
fn text(si: f64, dimension: Dimension) -> String {
    match dimension {
        Dimension::Length => format!("{:.5} mm", si * 1e3),
        Dimension::Force => format!("{si:.3} N"),
        Dimension::Angle => format!("{:.3} deg", si.to_degrees()),
        Dimension::Mass => format!("{:.3} g", si * 1e3),
        Dimension::Pressure => format!("{:.3} kPa", si * 1e-3),
        Dimension::Volume => format!("{:.3} cc", si * 1e6),
        Dimension::Flow => format!("{:.3} l/s", si * 1e3),
        other => panic!("{other:?} is not read at a bench"),
    }
}

fn report(build: &Build, stages: &Stages) -> SessionReport {
    let request = Request::of(None, vec![PartName::Sessions]);
    analyze(build, &request, stages).expect("a report").candidates.remove(0).sessions.remove(0)
}

/// A session walked to its end, each reading times `factor`, the one at `wrong` times that alone.
fn walked(demo: &str, session: Value, wrong: Option<(usize, f64)>) -> (SessionReport, usize) {
    let stages = Stages::default();
    let mut value: Value = serde_json::from_str(demo).unwrap();
    value["bench"] = json!([session]);
    let mut build = Build::from_value(value).expect("a document");
    let played = played_of(&build, "s", &stages).expect("a session");
    for (place, reading) in played.iter().enumerate() {
        let next = report(&build, &stages).next.unwrap_or_else(|| panic!("{}: nothing is asked", reading.says));
        assert_eq!(next.says, reading.says);
        let factor = wrong.filter(|(at, _)| *at == place).map_or(1.0, |(_, factor)| factor);
        let mut left = reading.si.iter().map(|si| text(si * factor, reading.dimension));
        let cells = next.cells.iter().map(|cell| cell.given.clone().unwrap_or_else(|| left.next().expect("a cell")));
        let edit = Edit::TakeReading { session: "s".into(), table: next.table.clone(), cells: cells.collect() };
        build = apply(&build, &edit, UnitSystem::Inch, &stages).unwrap_or_else(|faults| panic!("{faults}"));
    }
    (report(&build, &stages), played.len())
}

/// What a session needs besides its kind.
fn begun(kind: SessionKind) -> Value {
    let mut session = json!({ "id": "s", "kind": kind.word() });
    match kind {
        SessionKind::LobeMap => session["mapped_by"] = "dial".into(),
        SessionKind::Flow => session["depression"] = "28 inH2O".into(),
        SessionKind::Head => session["cracks"] = "none".into(),
        _ => (),
    }
    session
}

#[test]
fn an_engine_that_is_as_the_document_says_agrees_in_every_session() {
    for demo in DEMOS {
        for kind in SessionKind::ALL {
            let (found, readings) = walked(demo, begun(*kind), None);
            assert!(found.questions.is_empty(), "{}: {:?}", kind.word(), found.questions);
            let odd: Vec<&String> = found.figures.iter().filter(|own| own.stands_out).map(|own| &own.label).collect();
            assert!(odd.is_empty(), "{}: {odd:?}", kind.word());
            if readings > 0 {
                assert_eq!(found.verdict, SessionVerdict::Agrees, "{}: {}", kind.word(), found.says.inch);
                assert!(found.next.is_none(), "{}: {:?}", kind.word(), found.next);
            }
        }
    }
}

#[test]
fn a_reading_in_the_other_units_is_asked_for_before_it_is_believed() {
    let kinds = [
        (SessionKind::InstalledHeights, 2, 1.0 / 25.4),
        (SessionKind::Springs, 3, 4.448),
        (SessionKind::LiftCheck, 0, 1.0 / 25.4),
        (SessionKind::ValveDrop, 1, 1.0 / 25.4),
        (SessionKind::Stems, 5, 1.0 / 25.4),
    ];
    for (kind, place, factor) in kinds {
        let (found, _) = walked(DEMOS[0], begun(kind), Some((place, factor)));
        assert_eq!(found.verdict, SessionVerdict::Questioned, "{}: {}", kind.word(), found.says.inch);
        let asks = found.questions.iter().any(|own| own.contains("as if it was read in"));
        assert!(asks && found.suggests.is_empty(), "{}: {:?}", kind.word(), found.questions);
    }
}

#[test]
fn steeper_opening_flanks_degree_in_by_either_method() {
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    let flank = |rows: [(&str, &str); 3]| json!({ "checks": rows.map(|(height, deg)| json!([height, deg])) });
    value["candidates"][0]["cam"]["intake"] = json!({
        "lobe_lift": "0.318 in",
        "opening": flank([("0.006 in", "128 deg"), ("0.050 in", "101 deg"), ("0.200 in", "62 deg")]),
        "closing": flank([("0.006 in", "138 deg"), ("0.050 in", "109 deg"), ("0.200 in", "67 deg")]),
    });
    let demo = value.to_string();
    for method in ["events", "full_lift"] {
        let mut session = begun(SessionKind::DegreeIn);
        session["method"] = method.into();
        let (found, _) = walked(&demo, session, None);
        assert_eq!(found.verdict, SessionVerdict::Agrees, "{method}: {}", found.says.inch);
        assert_eq!(found.figures[0].read.inch, "107.0 deg", "{method}");
    }
    // And by the events that the report itself has, opening before and closing after.
    let build = Build::read(&demo).unwrap();
    let timing = analyze(&build, &Request::of(None, vec![PartName::Timing]), &Stages::default()).unwrap();
    let own = &timing.candidates[0].timing.done().expect("timing").intake;
    let rows = json!([
        ["0.050 in", "opening", format!("{:.3} deg", -own.opens_050_deg)],
        ["0.050 in", "closing", format!("{:.3} deg", 180.0 + own.closes_050_deg)],
    ]);
    value["bench"] = json!([{ "id": "s", "kind": "degree_in", "readings": rows }]);
    let found = report(&Build::from_value(value).unwrap(), &Stages::default());
    assert!(
        found.verdict == SessionVerdict::Agrees && found.figures[0].off.as_ref().unwrap().inch.ends_with("0.0 deg")
    );
}
