//! Where a verdict turns: a shop's own figure set a little below and a little above what there is, for every rule that has
//! a figure, in inches and in metric units.

use crate::support::DEMOS;
use serde_json::{Value, json};
use std::collections::BTreeSet;
use upper_lobe_core::analysis::{LimitReport, PartName, Request, Stages, Verdict, analyze};
use upper_lobe_core::build::Build;

fn limits(document: &Value, stages: &Stages) -> Vec<LimitReport> {
    let build = Build::from_value(document.clone()).unwrap_or_else(|faults| panic!("{faults}"));
    let request = Request::of(Some("a".to_owned()), vec![PartName::Limits]);
    analyze(&build, &request, stages).expect("a candidate").candidates.remove(0).limits
}

/// `figure`, given in the unit of the report, as a shop writes it: in that unit, and in another where there is one.
fn written(figure: f64, unit: &str) -> Vec<String> {
    let also =
        |factor: f64, other: &str| vec![format!("{figure:.9} {unit}"), format!("{:.9} {other}", figure / factor)];
    match unit {
        "mm" => also(25.4, "in"),
        "N" => also(4.448_221_615, "lbf"),
        "kPa" => also(6.894_757_293, "psi"),
        "MPa" => also(6.894_757_293, "kpsi"),
        ":1" => vec![format!("{figure:.9}:1")],
        "%" => vec![format!("{figure:.9}%")],
        _ => vec![format!("{figure:.9} {unit}")],
    }
}

fn own(line: &LimitReport, bound: &str, figure: &str) -> Value {
    let mut own = json!({ "limit": line.id, "reason": "so that its edge is seen" });
    own[bound] = Value::from(figure);
    if let Some(side) = line.side {
        own["side"] = Value::from(side.key());
    }
    own
}

/// The verdict of `line`'s rule when the shop holds to `figure`.
fn held(document: &Value, line: &LimitReport, bound: &str, figure: &str, stages: &Stages) -> LimitReport {
    let mut changed = document.clone();
    changed["limits"] = json!([own(line, bound, figure)]);
    let found = limits(&changed, stages).into_iter().find(|other| other.id == line.id && other.side == line.side);
    found.unwrap_or_else(|| panic!("{} is gone", line.title))
}

#[test]
fn every_rule_turns_where_its_figure_is_crossed() {
    let stages = Stages::default();
    let mut seen = BTreeSet::new();
    for text in DEMOS {
        let document: Value = serde_json::from_str(text).unwrap();
        for line in limits(&document, &stages) {
            // What never goes together has no figure a shop could set.
            let Some(have) = line.have.filter(|have| have.abs() > 1e-3 && !line.unit.is_empty()) else { continue };
            if !seen.insert(line.id.clone()) {
                continue;
            }
            let (bound, other) = if line.need.min.is_some() { ("at_least", line.need.max) } else { ("at_most", None) };
            let step = 1e-4 * have.abs();
            for (figure, is_met) in [(have - step, bound == "at_least"), (have + step, bound == "at_most")] {
                for text in written(figure, &line.unit) {
                    let turned = held(&document, &line, bound, &text, &stages);
                    let met = matches!(turned.verdict, Verdict::Ok | Verdict::Tight);
                    let inside = other.is_none_or(|max| have <= max);
                    assert_eq!(met, is_met && inside, "{} held to {bound} {text}: {:?}", line.title, turned.verdict);
                    assert!(turned.school.starts_with("this shop"), "{}", turned.school);
                    assert!((turned.have.unwrap() - have).abs() < 1e-6 * have.abs(), "a limit moves no figure");
                    let left = if bound == "at_least" { have - figure } else { figure - have };
                    let left = other.map_or(left, |max| left.min(max - have));
                    assert!((turned.margin.unwrap() - left).abs() < 1e-6 * have.abs(), "{}", line.title);
                }
            }
        }
    }
    assert!(seen.len() >= 30, "{} rules", seen.len());
}

#[test]
fn a_figure_in_the_wrong_unit_or_for_no_rule_is_refused_by_its_field() {
    let document: Value = serde_json::from_str(DEMOS[0]).unwrap();
    for (limit, figure, words) in [
        ("coil_bind", "60", "with its unit"),
        ("coil_bind", "60 lbf", "with its unit"),
        ("seat_load", "0.060 in", "with its unit"),
        ("lift_against_head", "two", "a plain number"),
        ("coil_bend", "0.060 in", "one of"),
    ] {
        let mut changed = document.clone();
        changed["limits"] = json!([{ "limit": limit, "at_least": figure, "reason": "why not" }]);
        let faults = Build::from_value(changed).expect_err("refused").faults;
        assert!(
            faults.iter().any(|fault| fault.field.starts_with("limits[0]") && fault.needs.contains(words)),
            "{faults:?}"
        );
    }
}
