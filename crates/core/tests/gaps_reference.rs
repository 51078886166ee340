//! Gaps of a valve's edge to the wall of its pocket and to the cylinder's, against brute force in three dimensions
//! (`reference/gaps.py`, numpy): the demo builds, and pockets with floors of their own under canted valves.

use crate::support::DEMOS;
use serde::Deserialize;
use std::collections::BTreeMap;
use upper_lobe_core::analysis::{PartName, Request, Side, Stages, UnitSystem, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::edit::{Edit, apply};

#[derive(Deserialize)]
struct Case {
    demo: usize,
    candidate: String,
    side: String,
    set: BTreeMap<String, String>,
    radial_mm: Option<f64>,
    bore_wall_mm: Option<f64>,
}

/// Half a thousandth of an inch, mm.
const CLOSE: f64 = 0.0127;

#[test]
fn edges_stand_as_far_from_walls_as_brute_force_finds() {
    let cases: Vec<Case> = serde_json::from_str(include_str!("reference/gaps.json")).expect("cases");
    let stages = Stages::default();
    let mut worst = [0.0_f64; 2];
    for case in &cases {
        let build = Build::read(DEMOS[case.demo]).expect("in order");
        let build = case.set.iter().fold(build, |build, (field, text)| {
            let edit = Edit::Set { field: field.clone(), text: text.clone() };
            apply(&build, &edit, UnitSystem::Inch, &stages).unwrap_or_else(|faults| panic!("{faults}"))
        });
        let request = Request::of(Some(case.candidate.clone()), vec![PartName::Limits]);
        let report = analyze(&build, &request, &stages).expect("a candidate").candidates.remove(0);
        let side = if case.side == "intake" { Side::Intake } else { Side::Exhaust };
        let have = |id: &str| report.limits.iter().find(|l| l.id == id && l.side == Some(side)).and_then(|l| l.have);
        for (place, (id, by_force)) in [("radial", case.radial_mm), ("bore_wall", case.bore_wall_mm)].iter().enumerate()
        {
            let told = format!("{id}, build {} {} {} {:?}", case.demo, case.candidate, case.side, case.set);
            match (have(id), by_force) {
                (Some(have), Some(by_force)) => {
                    worst[place] = worst[place].max((have - by_force).abs());
                    assert!((have - by_force).abs() < CLOSE, "{told}: {have} mm, by brute force {by_force} mm");
                }
                (None, None) => {}
                (have, by_force) => panic!("{told}: {have:?} against {by_force:?}"),
            }
        }
    }
    println!("{} cases, worst: radial {:.5} mm, bore wall {:.5} mm", cases.len(), worst[0], worst[1]);
}
