//! Whatever is thrown at reading and analysing is refused or answered with finite numbers: no panic,
//! no NaN, and a refused edit changes nothing.

use crate::support::{finite, scalars};
use proptest::prelude::*;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{Request, Stages, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::{LIMIT_IDS, adopt, differences, get, merge, paste, set_field};
use upper_lobe_core::edit::{Edit, Event, apply};
use upper_lobe_core::quantity::UnitSystem;

const EXAMPLE: &str = include_str!("data/example_build.json");

fn example() -> Value {
    Build::read(EXAMPLE).expect("the example reads").value().clone()
}

fn answer_is_finite(value: Value) {
    let Ok(build) = Build::from_value(value) else { return };
    let analysis = analyze(&build, &Request::default(), &Stages::default()).expect("no candidate was named");
    finite(&format!("{analysis:?}"), &[]);
}

/// Texts a hand, a spreadsheet or a fuzzer would put into a field.
fn odd_text() -> impl Strategy<Value = String> {
    prop_oneof![
        any::<String>(),
        (any::<f64>(), "in|mm|deg|lbf|g|cc|rpm|cfm|psi|").prop_map(|(x, unit)| format!("{x} {unit}")),
        (0.0_f64..5.0, "in|mm|deg|lbf|g|cc|rpm|cfm|psi").prop_map(|(x, unit)| format!("{x:.4} {unit}")),
        (0u32..400, "in|mm|deg|lbf|g|cc|rpm").prop_map(|(x, unit)| format!("{x} {unit}")),
        "-?[0-9]{1,3}/[0-9]{1,3} in",
    ]
}

/// Any small JSON.
fn any_json() -> impl Strategy<Value = Value> {
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        any::<i32>().prop_map(Value::from),
        odd_text().prop_map(Value::from),
    ];
    leaf.prop_recursive(4, 48, 6, |inner| {
        let key =
            prop_oneof!["engine|target|candidates|id|name|cam|intake|bore".prop_map(String::from), any::<String>()];
        prop_oneof![
            proptest::collection::vec(inner.clone(), 0..6).prop_map(Value::from),
            proptest::collection::vec((key, inner), 0..6).prop_map(|pairs| Value::Object(pairs.into_iter().collect())),
        ]
    })
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, ..ProptestConfig::default() })]

    #[test]
    fn any_bytes_are_read_or_refused(bytes in proptest::collection::vec(any::<u8>(), 0..400)) {
        let _ = Build::read(&String::from_utf8_lossy(&bytes));
    }

    #[test]
    fn the_example_with_its_bytes_disturbed_is_read_or_refused(place in 0..EXAMPLE.len(), byte in any::<u8>()) {
        let mut bytes = EXAMPLE.as_bytes().to_vec();
        bytes[place] = byte;
        if let Ok(build) = Build::read(&String::from_utf8_lossy(&bytes)) {
            answer_is_finite(build.value().clone());
        }
    }

    #[test]
    fn odd_fields_are_refused_or_answered(places in proptest::collection::vec((any::<prop::sample::Index>(), odd_text()), 1..4)) {
        let mut value = example();
        let mut paths = Vec::new();
        scalars(&value, "", &mut paths);
        for (place, text) in places {
            let path = place.get(&paths);
            let _ = set_field(&mut value, path, &text, UnitSystem::Inch);
        }
        answer_is_finite(value);
    }

    #[test]
    fn missing_fields_leave_verdicts_unknown_and_numbers_finite(places in proptest::collection::vec(any::<prop::sample::Index>(), 1..12)) {
        let mut value = example();
        let mut paths = Vec::new();
        scalars(&value, "", &mut paths);
        for place in places {
            let path = place.get(&paths);
            if !path.ends_with(']') {
                let _ = set_field(&mut value, path, "", UnitSystem::Inch);
            }
        }
        answer_is_finite(value);
    }

    #[test]
    fn cards_of_any_shape_are_lobes_or_refused(
        lift in 0.1_f64..0.7, seat in 100.0_f64..420.0, fifty in 60.0_f64..400.0, high in 20.0_f64..380.0,
        kind in prop::sample::select(vec!["hydraulic_flat", "solid_flat", "hydraulic_roller", "solid_roller"]),
    ) {
        let mut value = example();
        let lobe = json!({ "lobe_lift": format!("{lift:.3} in"), "checks": [["0.006 in", format!("{seat:.1} deg")], ["0.050 in", format!("{fifty:.1} deg")], ["0.200 in", format!("{high:.1} deg")]] });
        value["candidates"][0]["cam"]["intake"] = lobe;
        value["candidates"][0]["train"]["lifter"]["kind"] = kind.into();
        answer_is_finite(value);
    }

    #[test]
    fn any_paste_is_a_table_or_refused_and_then_changes_nothing(text in prop_oneof![any::<String>(), "([0-9.,; \t\n-]|in|mm){0,120}"]) {
        for path in ["engine.intake.flow", "target.boost", "engine.firing_order", "candidates[0].cam.intake.profile"] {
            let before = example();
            let mut value = before.clone();
            match paste(&mut value, path, &text, UnitSystem::Metric) {
                Ok(()) => answer_is_finite(value),
                Err(fault) => {
                    prop_assert!(fault.field.starts_with(path));
                    prop_assert_eq!(&value, &before);
                }
            }
        }
    }

    #[test]
    fn any_documents_are_compared_and_merged(base in any_json(), mine in any_json(), theirs in any_json()) {
        let _ = differences(&mine, &theirs);
        let merged = merge(&base, &mine, &theirs, &[]);
        let _ = Build::from_value(merged.value);
        // Merging with nobody's changes is one's own document.
        prop_assert_eq!(&merge(&base, &mine, &base, &[]).value, &mine);
        let _ = adopt(&mine, &theirs, "a");
    }

    #[test]
    fn any_own_limit_is_refused_or_decides_with_finite_numbers(id in prop::sample::select(LIMIT_IDS), least in odd_text(), most in odd_text()) {
        let mut value = example();
        value["limits"] = json!([{ "limit": id, "at_least": least, "at_most": most, "reason": "a fuzzer's" }]);
        answer_is_finite(value);
    }

    #[test]
    fn events_dragged_anywhere_are_taken_or_refused(
        deg in prop_oneof![any::<f64>(), -720.0_f64..1440.0],
        event in prop::sample::select(Event::ALL.to_vec()),
    ) {
        let build = Build::read(EXAMPLE).expect("the example reads");
        let edit = Edit::MoveEvent { candidate: "a".into(), event, crank_deg: deg };
        if let Ok(moved) = apply(&build, &edit, UnitSystem::Inch, &Stages::default()) {
            answer_is_finite(moved.value().clone());
        }
    }
}

#[test]
fn a_shop_s_two_bounds_that_are_one_leave_the_bar_with_numbers() {
    for text in ["0 in", "0.06 in"] {
        let mut value = example();
        value["limits"] = json!([{ "limit": "bore_wall", "at_least": text, "at_most": text, "reason": "just so" }]);
        answer_is_finite(value);
    }
}

#[test]
fn faults_come_all_at_once_with_field_given_needs_and_cure() {
    let mut value = example();
    value["engine"]["bore"] = "3.9".into();
    value["engine"]["stroke"] = "3.7 psi".into();
    value["engine"]["rod_lenght"] = "6 in".into();
    value["engine"]["cylinders"] = 8.5.into();
    value["engine"]["firing_order"] = json!("1-8-4-3");
    value["engine"]["intake"]["flow"] = json!([["0.1 in"], ["0.2 in", "100 cfm"]]);
    value["candidates"][0]["cam"]["intake"]["lobe_lift"] = "3.30 in".into();
    value["candidates"][0]["train"]["lifter"]["kind"] = "hydraulic roller".into();
    value["candidates"][0]["train"]["rocker"]["exhaust"] = json!({ "ratio": "1.6" });
    value["candidates"][0]["sources"] = json!({ "name": "heard" });
    value["target"]["shift_at"] = Value::Null;
    insta::assert_json_snapshot!(Build::from_value(value).unwrap_err());
}

#[test]
fn contradictions_name_both_sides() {
    let mut value = example();
    value["candidates"][0]["cam"]["events_050"] = json!({
        "intake_opens_btdc": "2 deg", "intake_closes_abdc": "36 deg", "exhaust_opens_bbdc": "48 deg", "exhaust_closes_atdc": "-4 deg"
    });
    value["engine"]["firing_order"] = json!([1, 8, 4, 3, 6, 5, 7, 7]);
    value["engine"]["rod_length"] = "60 mm".into();
    value["engine"]["stroke"] = "130 mm".into();
    value["target"]["band_to"] = "1500 rpm".into();
    value["candidates"][0]["train"]["spring"]["points"] = json!([["1.8 in", "138 lbf"], ["1.25 in", "100 lbf"]]);
    value["candidates"][0]["train"]["spring"]["coil_bind_height"] = "1.9 in".into();
    let second = value["candidates"][0].clone();
    value["candidates"].as_array_mut().expect("a list").push(second);
    insta::assert_json_snapshot!(Build::from_value(value).unwrap_err());
}

#[test]
fn a_newer_version_is_refused_for_that_reason_alone() {
    let mut value = example();
    value["version"] = 2.into();
    value["something_new"] = true.into();
    let faults = Build::from_value(value).unwrap_err().faults;
    assert_eq!(faults.len(), 1);
    assert_eq!((faults[0].field.as_str(), faults[0].needs.as_str()), ("version", "version 1 or older"));
}

#[test]
fn changes_are_held_against_the_same_table() {
    let mut value = example();
    value["candidates"][0]["changes"] =
        json!({ "engine": { "bore": "4 furlongs", "intake": { "pocket": null } }, "heads": {} });
    let faults = Build::from_value(value.clone()).unwrap_err().faults;
    let fields: Vec<_> = faults.iter().map(|f| f.field.as_str()).collect();
    assert_eq!(fields, ["candidates[0].changes.heads"]);
    value["candidates"][0]["changes"].as_object_mut().expect("an object").remove("heads");
    let faults = Build::from_value(value.clone()).unwrap_err().faults;
    let fields: Vec<_> = faults.iter().map(|f| f.field.as_str()).collect();
    assert_eq!(fields, ["candidates[0].changes.engine.bore"]);
    assert!(get(&value, "candidates[0].changes.engine.intake.pocket").is_some());
}
