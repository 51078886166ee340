//! What a rule declares to read is what it uses: every number of the demo builds is changed a little, and whatever verdict
//! moves must name it. The same proves that judging only what a change can touch gives what judging everything gives.

use crate::support::DEMOS;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::{Moved, Resolved, Stages};
use upper_lobe_core::document::set_field;
use upper_lobe_core::given::Place;
use upper_lobe_core::limits::{Finding, Findings, Judgement, RULES, limits};
use upper_lobe_core::quantity::UnitSystem;

/// Fields no demo gives, so that the rules about them are held too.
const MORE: [(&str, &str); 18] = [
    ("engine.rod_to_cam", "0.070 in"),
    ("engine.rod_to_block", "0.071 in"),
    ("engine.lifter_bore", "0.8430 in"),
    ("candidates[0].train.lifter.body_diameter", "0.8415 in"),
    ("candidates[0].train.lifter.rated_load", "900 lbf"),
    ("candidates[0].train.spring.outside_diameter", "1.440 in"),
    (
        "candidates[0].train.spring.coils",
        r#"[{"wire_diameter":"0.190 in","mean_diameter":"1.20 in","active_coils":4.5,"total_coils":6.2,"free_length":"2.4 in"}]"#,
    ),
    ("engine.intake.spring_pocket", "1.460 in"),
    ("engine.exhaust.spring_pocket", "1.460 in"),
    ("candidates[0].cam.bearing_diameter", "2.0 in"),
    ("candidates[0].cam.base_circle_before", "1.50 in"),
    ("target.rules.maximum_lift", "0.600 in"),
    ("target.rules.stock_ratio", "1.6"),
    ("target.idle_vacuum", "12 inHg"),
    ("target.boost", r#"[{"at":"3000 rpm","manifold":"8 psi","drive":"9 psi"}]"#),
    ("candidates[0].cam.intake.lash_ramp", "0.020 in"),
    ("candidates[0].cam.exhaust.lash_ramp", "0.020 in"),
    ("target.budget", "4000 USD"),
];

fn candidates(text: &str, stages: &Stages) -> Vec<Resolved> {
    let build = Build::read(text).expect("in order");
    let mut value = build.value().clone();
    for (field, text) in MORE {
        set_field(&mut value, field, text, UnitSystem::Inch).expect("a field");
    }
    let points = "candidates[0].train.spring.points";
    set_field(&mut value, points, "", UnitSystem::Inch).expect("a field");
    let more = Build::from_value(value).expect("in order");
    let own = build.candidates().into_iter().chain(more.candidates().into_iter().take(1));
    own.map(|view| Resolved::of(&view, stages)).collect()
}

/// What trains in motion might do, so that rules about it speak.
fn found() -> Findings {
    let moved = Moved { piston: [-1e-4, -2e-4], lift: [1e-4, 2e-4], heads: Some(-1e-4) };
    Findings { moved: Some(moved), ..Findings::default() }
}

fn figures(finding: &Finding) -> [u64; 3] {
    [finding.have, finding.min.unwrap_or(f64::NAN), finding.max.unwrap_or(f64::NAN)].map(f64::to_bits)
}

/// Rules by identifier and side whose figures or presence differ.
fn moved(before: &Judgement, after: &Judgement) -> Vec<(&'static str, usize)> {
    let mut found = Vec::new();
    for (index, rule) in RULES.iter().enumerate() {
        for side in rule.sides() {
            let of = |judgement: &Judgement| judgement.of(rule, *side).map(|judged| judged.found.clone());
            let same = match (of(before), of(after)) {
                (None, None) => true,
                (Some(Ok(one)), Some(Ok(other))) => figures(&one) == figures(&other),
                (Some(Err(one)), Some(Err(other))) => one == other,
                _ => false,
            };
            if !same {
                found.push((rule.id, 2 * index + side.map_or(0, |side| side.index())));
            }
        }
    }
    found
}

#[test]
fn whatever_moves_a_verdict_is_among_its_inputs() {
    let (stages, findings) = (Stages::default(), found());
    let mut undeclared: Vec<String> = Vec::new();
    let (mut changes, mut moves) = (0, 0);
    for resolved in DEMOS.iter().flat_map(|text| candidates(text, &stages)) {
        let before = limits(&resolved, &findings, &stages);
        for (place, number) in resolved.given.numbers() {
            let to = if number == 0.0 { 1e-5 } else { 1.003 * number };
            let Some(changed) = resolved.with(&[(place, to)], &stages) else { continue };
            let whole = limits(&changed, &findings, &stages);
            for (id, index) in moved(&before, &whole) {
                let rule = RULES[index / 2];
                let side = rule.sides()[index % 2];
                moves += 1;
                if !rule.places(side).any(|read| read == place) {
                    undeclared.push(format!("{id} ({side:?}) reads {place:?}"));
                }
            }
            let narrow = before.after(&[place], &changed, &findings, &stages);
            assert_eq!(moved(&whole, &narrow), [], "{place:?}");
            changes += 1;
        }
    }
    undeclared.sort_unstable();
    undeclared.dedup();
    assert!(undeclared.is_empty(), "{}", undeclared.join("\n"));
    assert!(changes > 1000 && moves > 3000, "{changes} changes moved {moves} verdicts");
}

#[test]
fn every_declared_field_is_in_the_table() {
    let (stages, build) = (Stages::default(), Build::read(DEMOS[0]).expect("in order"));
    let views = build.candidates();
    let ledger = upper_lobe_core::document::Ledger::default();
    let source = upper_lobe_core::given::Source::new(&views[0], &ledger);
    let places: Vec<Place> =
        RULES.iter().flat_map(|rule| rule.sides().iter().flat_map(|side| rule.places(*side))).collect();
    for place in &places {
        // Reading a key that no table has is refused in builds with assertions, as this one is.
        assert!(!source.path(*place).is_empty());
    }
    assert!(places.len() > 1000, "{}", places.len());
    drop(stages);
}
