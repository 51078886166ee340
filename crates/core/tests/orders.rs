//! The order card against hand arithmetic: what a grinder would check with a pencil before he cuts.

use crate::support::DEMOS;
use crate::worked_example::EXAMPLE;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{
    Build, OrderCard, PartName, Request, Side, Stages, UnitSystem, analyze, money, order_card, order_csv,
};

fn card(document: &str, candidate: &str) -> OrderCard {
    let build = Build::read(document).expect("a good document");
    order_card(&build, candidate, &Stages::default()).expect("such a candidate")
}

fn asked(card: &OrderCard, side: Side, label: &str) -> String {
    let line = card.lines.iter().find(|line| line.side == side && line.label == label);
    line.unwrap_or_else(|| panic!("no {label}")).asked.inch.clone()
}

/// An event as a signed figure from its dead centre: before counts positive for openings, after for closings.
fn signed(text: &str, counts_before: bool) -> f64 {
    let deg: f64 = text.split(' ').next().unwrap().parse().unwrap();
    if text.contains("before") == counts_before { deg } else { -deg }
}

fn degrees(text: &str) -> f64 {
    text.trim_end_matches(" deg").parse().unwrap()
}

fn fact(card: &OrderCard, label: &str) -> f64 {
    degrees(&card.facts.iter().find(|fact| fact.label == label).unwrap().value.inch)
}

#[test]
fn the_worked_example_is_ordered_as_its_card_reads() {
    let card = card(EXAMPLE, "a");
    for (side, label, text) in [
        (Side::Intake, "Opens at .006", "26.0 deg before TDC"),
        (Side::Intake, "Closes at .006", "62.0 deg after BDC"),
        (Side::Intake, "Opens at .050", "0.0 deg before TDC"),
        (Side::Intake, "Closes at .050", "36.0 deg after BDC"),
        (Side::Exhaust, "Opens at .006", "74.0 deg before BDC"),
        (Side::Exhaust, "Closes at .006", "22.0 deg after TDC"),
        (Side::Exhaust, "Opens at .050", "48.0 deg before BDC"),
        (Side::Exhaust, "Closes at .050", "4.0 deg before TDC"),
        (Side::Intake, "Lobe lift", ".330 in"),
    ] {
        assert_eq!(asked(&card, side, label), text, "{label}");
    }
    // .330 x 1.65 = .5445, .335 x 1.65 = .55275.
    assert!([".544 in", ".545 in"].contains(&asked(&card, Side::Intake, "Valve lift").as_str()));
    assert_eq!(asked(&card, Side::Exhaust, "Valve lift"), ".553 in");
    assert!((fact(&card, "Overlap at .050") - -4.0).abs() < 0.05);
    assert!((fact(&card, "Advance ground in") - 4.0).abs() < 0.05);
}

/// Handbook arithmetic of a cam card [duration = opening + closing + 180; centreline = half the duration less the opening;
/// separation = mean of the centrelines; overlap = intake opening + exhaust closing; any camshaft handbook, from memory].
#[test]
fn every_order_closes_by_the_arithmetic_of_a_card() {
    for document in DEMOS {
        for id in ["a", "b", "c"] {
            let card = card(document, id);
            let intake = |label: &str| asked(&card, Side::Intake, label);
            let exhaust = |label: &str| asked(&card, Side::Exhaust, label);
            for height in [".006", ".050"] {
                let at = |word: &str| format!("{word} at {height}");
                let (io, ic) = (signed(&intake(&at("Opens")), true), signed(&intake(&at("Closes")), false));
                let (eo, ec) = (signed(&exhaust(&at("Opens")), true), signed(&exhaust(&at("Closes")), false));
                assert!((io + ic + 180.0 - degrees(&intake(&at("Duration")))).abs() < 0.16, "{id} {height}");
                assert!((eo + ec + 180.0 - degrees(&exhaust(&at("Duration")))).abs() < 0.16, "{id} {height}");
                assert!((io + ec - fact(&card, &at("Overlap"))).abs() < 0.16, "{id} {height}");
            }
            let (io, ic) = (signed(&intake("Opens at .050"), true), signed(&intake("Closes at .050"), false));
            let centre = 0.5 * (io + ic + 180.0) - io;
            assert!((centre - degrees(&intake("Centreline"))).abs() < 0.11, "{id}");
            let both = 0.5 * (degrees(&intake("Centreline")) + degrees(&exhaust("Centreline")));
            assert!((both - fact(&card, "Lobe separation")).abs() < 0.11, "{id}");
        }
    }
}

#[test]
fn what_is_to_be_ground_is_more_than_what_is_asked_and_keeps_its_centre() {
    let card = card(DEMOS[0], "a");
    let line = |label: &str| card.lines.iter().find(|line| line.side == Side::Intake && line.label == label).unwrap();
    let ground = |label: &str| line(label).ground.as_ref().unwrap().inch.clone();
    // Flex and lost motion take lift and degrees: both are put on the lobe, half of the degrees on each flank.
    assert!(degrees(&ground("Duration at .050")) > degrees(&line("Duration at .050").asked.inch));
    let (io, ic) = (signed(&ground("Opens at .050"), true), signed(&ground("Closes at .050"), false));
    assert!((io + ic + 180.0 - degrees(&ground("Duration at .050"))).abs() < 0.16);
    assert!((0.5 * (io + ic + 180.0) - io - degrees(&line("Centreline").asked.inch)).abs() < 0.11);
    assert!(ground("Lobe lift") > line("Lobe lift").asked.inch);
    // It then runs at what was asked.
    assert_eq!(line("Duration at .050").running.as_ref().unwrap().inch, line("Duration at .050").asked.inch);
}

#[test]
fn what_a_grinder_asks_for_and_nobody_gave_is_named() {
    let build = Build::blank("nothing yet").unwrap();
    let card = order_card(&build, "a", &Stages::default()).unwrap();
    assert!(card.lines.is_empty());
    let missing: Vec<_> = card.missing.iter().map(|named| named.label.as_str()).collect();
    for label in ["Core", "Smallest bearing", "Snout", "Firing order", "Lifter"] {
        assert!(missing.contains(&label), "{label}: {missing:?}");
    }
    let refused = order_card(&build, "zz", &Stages::default()).unwrap_err();
    assert_eq!(refused.needs, "one of a");
}

#[test]
fn a_sheet_has_every_line_and_quotes_what_has_commas() {
    let card = card(DEMOS[0], "a");
    let sheet = order_csv(&card, UnitSystem::Metric).unwrap();
    assert!(sheet.starts_with("what,side,asked,to be ground,running,as it came\n"));
    let rows = card.lines.len() + card.facts.len() + card.missing.len() + card.parts.len();
    assert_eq!(sheet.lines().count(), 3 + rows, "headings, build, candidate, and these");
    assert!(sheet.contains(&format!("Candidate,,{},", card.candidate)), "{sheet}");
    assert!(sheet.contains("Lobe lift,intake,8.08 mm,"), "{sheet}");
    assert!(sheet.contains("\"Hydraulic roller, link bar\""));
}

/// The tow demo's first candidate beside its third, which is in the engine.
fn bought(rows: Value) -> OrderCard {
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    value["target"]["existing"] = "c".into();
    value["target"]["budget"] = "3000 USD".into();
    value["candidates"][0]["train"]["preload_work"] = json!({ "head_milled": "0.010 in", "lash_cap": "0.060 in" });
    value["bought"] = rows;
    card(&value.to_string(), "a")
}

#[test]
fn the_bill_adds_up_and_says_what_is_left_of_the_budget() {
    let value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    let spring = value["candidates"][0]["train"]["spring"]["part"].clone();
    let none = bought(json!([]));
    let total: f64 = none.parts.iter().filter_map(|part| part.money).sum();
    let bill = none.bill.expect("a bill");
    // What the limit on the budget counts.
    let build = Build::read(DEMOS[0]).unwrap();
    assert_eq!(money(&build, "a").map(|own| own.inch), Some(bill.total.inch.clone()));
    assert_eq!(
        (bill.total.inch.clone(), bill.left.inch.clone(), bill.spent.inch.as_str()),
        (format!("{total:.2} USD"), format!("{total:.2} USD"), "0.00 USD")
    );
    let some = bought(json!([
        { "part": spring, "state": "here", "price": "260 USD" },
        { "part": "Guide plates", "state": "ordered", "price": "85 USD", "lead_time": "two weeks" },
        { "part": "Gaskets" },
    ]));
    let before = none.parts.iter().find(|part| part.kind == "spring").and_then(|part| part.money).expect("a price");
    let bill = some.bill.expect("a bill");
    let all = total - before + 260.0 + 85.0;
    assert_eq!(bill.total.inch, format!("{all:.2} USD"));
    assert_eq!((bill.spent.inch.as_str(), bill.left.inch), ("345.00 USD", format!("{:.2} USD", all - 345.0)));
    assert_eq!(bill.unpriced, some.parts.iter().filter(|part| part.money.is_none()).count());
    assert_eq!(bill.over.map(|over| over.inch), (all > 3000.0).then(|| format!("{:.2} USD", all - 3000.0)));
    assert_eq!(some.parts.last().unwrap().name, "Gaskets");
}

#[test]
fn an_order_says_what_goes_with_it_and_what_work_moves() {
    let order = bought(json!([]));
    // From flat lifters to rollers: another cam, link bars, pushrods.
    let drags = order.drags_along.expect("the engine has candidate c");
    assert!(drags.iter().any(|own| own.what.contains("ushrods")), "{drags:?}");
    assert!(drags.iter().enumerate().all(|(i, own)| !drags[..i].contains(own)), "each once");
    // .010 off the head by the cosine of its tilt; a cap of .060 by 1/1.6.
    let head = order.machining.iter().find(|own| own.what.contains("0.010 in")).expect("the head");
    assert!(head.preload.inch == ".010 in" && head.then.contains("chambers again"), "{head:?}");
    let cap = order.machining.iter().find(|own| own.what.contains("0.060 in")).expect("the cap");
    assert!([".037 in", ".038 in"].contains(&cap.preload.inch.as_str()), "{cap:?}");
    let mut own: Value = serde_json::from_str(DEMOS[0]).unwrap();
    own["target"]["existing"] = "a".into();
    assert_eq!(card(&own.to_string(), "a").drags_along, None);
    // Rollers on a cam ground for flat lifters.
    own["candidates"][0]["cam"]["ground_for"] = "flat".into();
    assert!(card(&own.to_string(), "a").conflicts.iter().any(|own| own.why.contains("skids")));
}

#[test]
fn the_card_that_came_stands_beside_what_was_asked_and_to_be_ground() {
    let mut value: Value = serde_json::from_str(DEMOS[0]).unwrap();
    let durations = json!([["intake", "0.050 in", "211.5 deg"], ["exhaust", "0.050 in", "218.4 deg"]]);
    let lifts = json!([["intake", "0.317 in"]]);
    value["bench"] = json!([{ "id": "k", "kind": "cam_card", "durations": durations, "lobe_lifts": lifts }]);
    let order = card(&value.to_string(), "a");
    let came = |side: Side, label: &str| {
        let line = order.lines.iter().find(|line| line.side == side && line.label == label).expect("a line");
        line.delivered.as_ref().map(|own| own.inch.clone())
    };
    assert_eq!(came(Side::Intake, "Duration at .050").as_deref(), Some("211.5 deg"));
    assert_eq!(came(Side::Exhaust, "Duration at .050").as_deref(), Some("218.4 deg"));
    assert_eq!(came(Side::Intake, "Lobe lift").as_deref(), Some(".317 in"));
    assert_eq!(came(Side::Exhaust, "Lobe lift"), None);
    // A degree and a half more than 210 stands out; .4 more than 218 does not.
    let request = Request::of(None, vec![PartName::Sessions]);
    let build = Build::from_value(value).unwrap();
    let found = analyze(&build, &request, &Stages::default()).unwrap().candidates.remove(0).sessions.remove(0);
    let odd: Vec<&str> = found.figures.iter().filter(|own| own.stands_out).map(|own| own.label.as_str()).collect();
    assert_eq!(odd, ["Intake, duration at .050 in"], "{}", found.says.inch);
}

#[test]
fn what_turned_or_switched_off_goes_with_all_that_belongs_to_it() {
    let mut own: Value = serde_json::from_str(DEMOS[0]).unwrap();
    own["target"]["existing"] = "c".into();
    own["candidates"][2]["cam"]["phaser_advance"] = "20 deg".into();
    own["candidates"][2]["train"]["lifter"]["most_lift"] = "0.310 in".into();
    own["engine"]["chain_rows"] = "double".into();
    let order = card(&own.to_string(), "a");
    let has = |text: &str| order.drags_along.iter().flatten().filter(|drag| drag.what.contains(text)).count();
    assert_eq!((has("Phaser out"), has("Deactivation out")), (1, 1), "{:?}", order.drags_along);
    // The chain was there before: it is looked at, not bought.
    assert_eq!(has("Spacers behind the oil pump"), 0);
    assert!(order.checklist.iter().any(|line| line.contains("Double-row chain")));
    // Kept, neither is told.
    own["candidates"][0]["cam"]["phaser_advance"] = "20 deg".into();
    own["candidates"][0]["train"]["lifter"]["most_lift"] = "0.330 in".into();
    let kept = card(&own.to_string(), "a");
    assert!(kept.drags_along.iter().flatten().all(|drag| !drag.what.contains("out:")), "{:?}", kept.drags_along);
}
