//! Advice that can be followed: every remedy offered on the demo builds and on builds made from them by chance is made in
//! the document, and every limit is held again. `UPPER_LOBE_BUILDS=200` makes more of them.

use crate::support::{Chance, DEMOS, SHELF, wanted};
use serde_json::Value;
use std::collections::HashMap;
use std::sync::Arc;
use upper_lobe_core::analysis::{LimitReport, PartName, Remedy, Request, Stages, Verdict, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::{Side, get, set_field};
use upper_lobe_core::parts::{Part, fit_part, read_sheet};
use upper_lobe_core::quantity::{UnitSystem, parse, restate};

type Margins = HashMap<(String, Option<Side>), LimitReport>;

fn margins(build: &Build, id: &str, shelf: Arc<[Part]>, remedies: bool, stages: &Stages) -> Margins {
    let parts = if remedies { vec![PartName::Limits, PartName::Remedies] } else { vec![PartName::Limits] };
    let request = Request { candidate: Some(id.to_owned()), parts, shelf };
    let found = analyze(build, &request, stages).expect("analysed").candidates.remove(0);
    found.limits.into_iter().map(|limit| ((limit.id.clone(), limit.side), limit)).collect()
}

/// The document with a remedy made, as a person would make it.
fn made(build: &Build, index: usize, remedy: &Remedy, shelf: &[Part]) -> Build {
    let mut value = build.value().clone();
    match &remedy.part {
        Some(named) => {
            let part = shelf
                .iter()
                .find(|part| part.kind.word() == named.kind && part.name == named.name)
                .expect("on the shelf");
            fit_part(&mut value, index, part, None).expect("fits");
        }
        None => {
            for change in &remedy.changes {
                set_field(&mut value, &change.field, &change.to, UnitSystem::Inch).expect("a field");
            }
        }
    }
    Build::from_value(value).unwrap_or_else(|faults| panic!("{remedy:?}: {faults}"))
}

#[derive(Default)]
struct Tally {
    offered: usize,
    together: usize,
    from_the_shelf: usize,
    worsening: usize,
}

fn follow(build: &Build, index: usize, shelf: &Arc<[Part]>, stages: &Stages, tally: &mut Tally) {
    let id = build.candidates()[index].id.clone();
    let before = margins(build, &id, Arc::clone(shelf), true, stages);
    for limit in before.values() {
        for remedy in &limit.remedies {
            tally.offered += 1;
            tally.together += usize::from(remedy.part.is_none() && remedy.changes.len() > 1);
            tally.from_the_shelf += usize::from(remedy.part.is_some());
            tally.worsening += usize::from(!remedy.worsens.is_empty());
            let after = margins(&made(build, index, remedy, shelf), &id, Arc::default(), false, stages);
            holds(limit, remedy, &before, &after);
        }
    }
}

/// A remedy does what it says, breaks nothing that was met, and names everything it makes worse in a word.
fn holds(limit: &LimitReport, remedy: &Remedy, before: &Margins, after: &Margins) {
    let told = || format!("{}: {remedy:?}", limit.title);
    let same = after.get(&(limit.id.clone(), limit.side)).unwrap_or_else(|| panic!("{} is gone", told()));
    let gain = same.margin.expect("known") - limit.margin.expect("known");
    assert!((gain - remedy.gain).abs() < 1e-6 * (1.0 + gain.abs()), "{} gains {gain}", told());
    assert_eq!(same.verdict, remedy.verdict, "{}", told());
    assert!(gain > 0.0 || same.verdict != limit.verdict, "{}", told());
    for (key, now) in after {
        let was = before.get(key).map(|limit| limit.verdict);
        assert!(now.verdict != Verdict::Fails || was == Some(Verdict::Fails), "{} breaks {key:?}", told());
        let worse = was.is_some_and(|was| now.verdict.rank() > was.rank());
        let named = remedy.worsens.iter().any(|worsened| (worsened.id.clone(), worsened.side) == *key);
        assert!(!worse || named, "{} does not name {key:?}", told());
    }
}

#[test]
fn remedies_of_the_demo_builds_break_nothing() {
    let shelf: Arc<[Part]> = read_sheet(SHELF, UnitSystem::Inch).expect("in order").into();
    let (stages, mut tally) = (Stages::default(), Tally::default());
    for text in DEMOS {
        let build = Build::read(text).expect("in order");
        for index in 0..build.candidates().len() {
            follow(&build, index, &shelf, &stages, &mut tally);
        }
    }
    println!(
        "{} offered, {} of several changes, {} from the shelf, {} worsen something in a word",
        tally.offered, tally.together, tally.from_the_shelf, tally.worsening
    );
    assert!(tally.offered > 30 && tally.together > 2, "{} offered, {} together", tally.offered, tally.together);
}

/// Fields a builder changes, each by up to a share of itself.
const CHANGED: [(&str, f64); 18] = [
    ("engine.gasket_thickness", 0.4),
    ("engine.deck_clearance", 0.5),
    ("engine.chamber_volume", 0.1),
    ("engine.intake.face_recess", 0.15),
    ("engine.exhaust.face_recess", 0.15),
    ("engine.intake.pocket.depth", 0.4),
    ("engine.exhaust.pocket.depth", 0.4),
    ("engine.intake.seal_height", 0.08),
    ("target.shift_at", 0.12),
    ("candidates[0].cam.intake_centreline", 0.04),
    ("candidates[0].cam.lobe_separation", 0.04),
    ("candidates[0].cam.base_circle_diameter", 0.06),
    ("candidates[0].train.spring.installed_height", 0.05),
    ("candidates[0].train.valve.intake.mass", 0.2),
    ("candidates[0].train.retainer.mass", 0.3),
    ("candidates[0].train.lifter.preload", 0.9),
    ("candidates[0].train.lifter.lash", 0.4),
    ("candidates[0].train.pushrod.wall", 0.3),
];

/// A build made from a demo by chance; `None` when the document refuses it.
fn by_chance(text: &str, chance: &mut Chance) -> Option<Build> {
    let mut value: Value = Build::read(text).expect("in order").value().clone();
    for (field, most) in CHANGED {
        let kind = upper_lobe_core::document::kind_of(field).expect("a field");
        let (Some(dimension), Some(now)) = (kind.dimension(), get(&value, field).and_then(Value::as_str)) else {
            continue;
        };
        let si = parse(now, dimension).expect("in order");
        let to = restate(now, dimension, si * (1.0 + most * (2.0 * chance.share() - 1.0)))?;
        set_field(&mut value, field, &to, UnitSystem::Inch).ok()?;
    }
    Build::from_value(value).ok()
}

#[test]
fn remedies_of_builds_by_chance_break_nothing() {
    let shelf: Arc<[Part]> = read_sheet(SHELF, UnitSystem::Inch).expect("in order").into();
    let (stages, mut tally, mut chance) = (Stages::default(), Tally::default(), Chance(2026));
    let count = wanted("UPPER_LOBE_BUILDS", 60);
    let mut builds = 0;
    for round in 0..3 * count {
        if builds == count {
            break;
        }
        let Some(build) = by_chance(DEMOS[round % 3], &mut chance) else { continue };
        follow(&build, 0, &shelf, &stages, &mut tally);
        builds += 1;
    }
    println!(
        "{builds} builds: {} offered, {} of several changes, {} from the shelf, {} worsen something in a word",
        tally.offered, tally.together, tally.from_the_shelf, tally.worsening
    );
    assert_eq!(builds, count);
    assert!(tally.offered > 5 * count, "{}", tally.offered);
}
