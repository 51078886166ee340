//! Builds that begin from a family: complete and computed from the first second, for every use and head, and whole again
//! with what the owner knows.

use crate::support::finite;
use upper_lobe_core::analysis::{
    Beginning, Build, Known, PartName, Request, Stages, UnitSystem, Verdict, analyze, beginning, families,
};

fn from(family: &str, heads: &str, used_for: &str) -> Beginning {
    Beginning {
        name: format!("{family} {heads} {used_for}"),
        family: family.to_owned(),
        heads: Some(heads.to_owned()),
        used_for: Some(used_for.to_owned()),
        known: Vec::new(),
    }
}

/// Every beginning there is.
fn every() -> Vec<Beginning> {
    let of = |family: &upper_lobe_core::analysis::FamilyReport| {
        let each = |heads: &String| {
            family.uses.iter().map(|used_for| from(&family.family, heads, used_for)).collect::<Vec<_>>()
        };
        family.heads.iter().flat_map(each).collect::<Vec<_>>()
    };
    families().iter().flat_map(of).collect()
}

fn begun(from: &Beginning) -> Build {
    let report = beginning(from, &[], UnitSystem::Inch, &Stages::default())
        .unwrap_or_else(|faults| panic!("{}: {faults}", from.name));
    Build::read(&report.document).unwrap()
}

#[test]
fn every_beginning_is_complete_and_none_of_its_limits_fails() {
    let stages = Stages::default();
    let mut bad = Vec::new();
    for from in every() {
        let build = begun(&from);
        let report = analyze(&build, &Request::of(None, PartName::cheap()), &stages).unwrap();
        let candidate = &report.candidates[0];
        for limit in &candidate.limits {
            let have = limit
                .shown
                .as_ref()
                .map_or(String::new(), |shown| format!("{} against {}", shown.have.inch, shown.need.inch));
            let side = limit.side.map_or("", |side| side.key());
            if matches!(limit.verdict, Verdict::Fails | Verdict::Unknown) {
                bad.push(format!(
                    "{}: {} {side} {:?} {have} {:?}",
                    from.name,
                    limit.id,
                    limit.verdict,
                    limit.missing.iter().map(|m| &m.label).collect::<Vec<_>>()
                ));
            }
        }
        for (what, done) in [
            ("strip", candidate.strip.done().is_some()),
            ("clearance", candidate.clearance.done().is_some()),
            ("spring", candidate.spring.done().is_some()),
            ("control", candidate.control.done().is_some()),
            ("drawing", candidate.drawing.done().is_some()),
        ] {
            if !done {
                bad.push(format!("{}: no {what}", from.name));
            }
        }
    }
    assert!(bad.is_empty(), "{}", bad.join("\n"));
}

#[test]
fn a_beginning_breathes_and_peaks_near_where_it_is_asked_to() {
    let stages = Stages::default();
    for from in every().into_iter().step_by(9) {
        let build = begun(&from);
        let report = analyze(&build, &Request::of(None, vec![PartName::Breathing]), &stages).unwrap();
        let curve = report.candidates[0].breathing.done().unwrap_or_else(|| panic!("{}: no curve", from.name));
        finite(&format!("{curve:?}"), std::slice::from_ref(&from.name));
        let wanted =
            build.value()["target"]["peak_power_at"].as_str().unwrap().trim_end_matches(" rpm").parse::<f64>().unwrap();
        let peak = curve.peak_power_rpm;
        // A card's rule of thumb against the model: within an eighth; a diesel's peak is its governor's.
        let is_diesel = from.family.starts_with("diesel");
        assert!(is_diesel || (peak / wanted - 1.0).abs() < 0.125, "{}: {peak:.0} rpm for {wanted:.0}", from.name);
    }
}

#[test]
fn what_is_known_stands_and_the_rest_follows_it() {
    let known = |field: &str, text: &str| Known { field: field.to_owned(), text: text.to_owned() };
    let mut from = from("middle_v8", "aluminium", "marine");
    from.known = vec![
        known("engine.bore", "4.040"),
        known("engine.stroke", "3.75"),
        known("engine.chamber_volume", "64"),
        known("engine.piston_volume", "14"),
        known("target.band_to", "5600"),
    ];
    let build = begun(&from);
    let engine = &build.value()["engine"];
    assert_eq!(engine["bore"], "4.040 in");
    assert_eq!(engine["sources"]["bore"], serde_json::Value::Null);
    assert_eq!(engine["sources"]["rod_length"], "assumed");
    // The gasket, the pockets and the valves go with the bore that is known; the plan with the band.
    assert_eq!(engine["gasket_bore"], "4.110 in");
    let peak = build.value()["target"]["peak_power_at"].as_str().unwrap();
    assert!(["5200 rpm", "5300 rpm", "5400 rpm"].contains(&peak), "{peak}");
}

#[test]
fn what_is_typed_wrongly_is_refused_at_its_field() {
    let mut from = from("middle_v8", "iron", "street");
    from.known = vec![
        Known { field: "engine.bore".into(), text: "4 lbf".into() },
        Known { field: "engine.rod_length".into(), text: "banana".into() },
        Known { field: "engine.no_such".into(), text: "1".into() },
    ];
    let faults = beginning(&from, &[], UnitSystem::Inch, &Stages::default()).unwrap_err().faults;
    let fields: Vec<_> = faults.iter().map(|fault| fault.field.as_str()).collect();
    assert_eq!(fields, ["engine.bore", "engine.rod_length", "engine.no_such"]);
    // A rod that cannot turn the crank is a contradiction of two values, one of them assumed.
    from.known = vec![
        Known { field: "engine.rod_length".into(), text: "2.4 in".into() },
        Known { field: "engine.stroke".into(), text: "5 in".into() },
    ];
    let faults = beginning(&from, &[], UnitSystem::Inch, &Stages::default()).unwrap_err().faults;
    assert!(faults.iter().any(|fault| fault.field.starts_with("engine.")), "{faults:?}");
}
