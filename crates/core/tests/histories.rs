//! What became of a build: events by their days, each with the revision it came with.

use crate::support::DEMOS;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{Build, HistoryKind, HistoryReport, Revision, Stages, history_of};

fn revision(number: i64, saved_at: &str, document: &Value) -> Revision {
    Revision { number, saved_at: saved_at.to_owned(), document: document.clone() }
}

fn history(document: &Value, revisions: &[Revision]) -> HistoryReport {
    let build = Build::from_value(document.clone()).expect("a build");
    history_of(&build, revisions, &Stages::default()).expect("a history")
}

/// The strip demo without its log, and with more and more of what was done to it.
fn steps() -> [Value; 3] {
    let mut first: Value = serde_json::from_str(DEMOS[1]).expect("a demo");
    let log = first.as_object_mut().expect("an object").shift_remove("service").expect("its log");
    let mut second = first.clone();
    second["engine"]["deck_clearance"] = json!("0.013 in");
    second["bench"] = json!([{ "id": "s1", "kind": "compression", "date": "2026-03-10", "by": "N. Aldous", "pressures": [[1, "185 psi"], [2, "183 psi"]] }]);
    second["assembly"] = json!([
        { "line": "clean_bores", "by": "N. Aldous", "at": "2026-03-11 09:10" },
        { "line": "lifters_free", "by": "N. Aldous", "at": "2026-03-11 09:40" },
        { "line": "lifters_free", "by": "N. Aldous", "at": "2026-03-11 10:05", "undone": "one stuck" },
    ]);
    let mut third = second.clone();
    third["service"] = log;
    let points: Vec<Value> =
        (0..40).map(|i| json!([format!("{} rpm", 4000 + 80 * i), format!("{} lbf ft", 540 - i)])).collect();
    third["pulls"] = json!([
        { "id": "p1", "candidate": "a", "day": "2026-03-20", "points": points },
        { "id": "p2", "candidate": "b", "day": "2026-03-20", "points": points[..39] },
    ]);
    [first, second, third]
}

#[test]
fn every_event_stands_by_its_day_with_the_revision_it_came_with() {
    let [first, second, third] = steps();
    let saved = [
        revision(1, "2026-02-01 10:00", &first),
        revision(2, "2026-03-12 18:00", &second),
        revision(3, "2026-05-10 20:00", &third),
    ];
    let found = history(&third, &saved);
    let told: Vec<(&str, HistoryKind, Option<i64>)> =
        found.events.iter().map(|own| (own.day.as_str(), own.kind, own.revision)).collect();
    use HistoryKind::{Assembly, Bench, Dyno, Plan, Service};
    assert_eq!(
        told,
        [
            ("2026-02-01", Plan, Some(1)),
            ("2026-03-10", Bench, Some(2)),
            ("2026-03-11", Assembly, Some(2)),
            ("2026-03-12", Plan, Some(2)),
            ("2026-03-14", Service, Some(3)),
            ("2026-03-20", Dyno, Some(3)),
            ("2026-04-04", Service, Some(3)),
            ("2026-04-04", Service, Some(3)),
            ("2026-05-09", Service, Some(3)),
        ]
    );
    let says = |place: usize| found.events[place].says.inch.as_str();
    assert_eq!(says(0), "A last season, B more on top, C a point more compression");
    // The third revision changed nothing but lists that have lines of their own.
    assert!(says(3).starts_with("Deck clearance ") && says(3).ends_with(" to 0.013 in"), "{}", says(3));
    assert_eq!(says(2), "2 lines signed; lifters free undone: one stuck");
    assert!(says(5).starts_with("1 of A last season, 1 of B more on top. "), "{}", says(5));
    assert_eq!(found.says.inch, "3 revisions, 1 session at the bench, 1 day on the dyno, 4 entries of the log.");
}

#[test]
fn what_is_not_saved_says_so() {
    let [first, second, _] = steps();
    let found = history(&second, &[revision(1, "2026-02-01 10:00", &first)]);
    let bench = found.events.iter().find(|own| own.kind == HistoryKind::Bench).expect("the session");
    assert_eq!(bench.revision, None);
    let last = found.events.last().expect("a change");
    assert_eq!((last.day.as_str(), last.revision), ("not saved yet", None));
    // A build nobody saved has what its lists have.
    assert_eq!(history(&second, &[]).says.inch, "Not saved yet, 1 session at the bench.");
}
