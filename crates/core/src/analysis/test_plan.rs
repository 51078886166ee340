//! A test on the dyno as it is to be run: which combination when, how often, what is held, and which pull is next.

use super::pulled::{FIRST, Pulled};
use super::pulling::Plan;
use super::pulling_words::{fine, joined};
use crate::build::Build;
use crate::document::{CandidateView, Fault, Ledger, Node, unknown_candidate};
use crate::pulls::needed::{drawn, pulls_each};
use crate::quantity::{Dimension, Shown, UnitSystem, shown};
use crate::report::{HeldWindows, PlannedPull, PullsReport, TestPlanReport};

/// What a pull's average torque repeats to on a dyno that nobody knows yet, as a share (common practice, no source).
const USUAL: f64 = 0.004;
/// Average torque of an engine that nobody pulled and nobody computed, N m: only to begin with.
const SOME: f64 = 450.0;

const CAUTIONS: &[&str] = &[
    "Guards on, nobody beside the coupling or the rollers while it pulls; ear and eye protection.",
    "Exhaust led outside and the cell aired: carbon monoxide kills without a smell.",
    "Hot parts and fuel: an extinguisher within reach, and somebody who knows where the stop is.",
    "Stop at once on knock, falling oil pressure or a strange noise; the engine's own limits of speed and boost hold on a dyno too.",
];

/// The test a document plans, with the pulls it has and what they came to.
///
/// # Errors
/// A candidate in it that is not there.
pub(super) fn test_plan(
    build: &Build,
    plan: &Plan,
    taken: &[Pulled],
    pulls: &PullsReport,
) -> Result<TestPlanReport, Fault> {
    let ledger = Ledger::default();
    let shared = build.shared();
    let root = shared.build(&ledger);
    let test = root.child("dyno_test");
    let views = build.candidates();
    let control = control_of(&test, &views)?;
    let others = others_of(&test, &views, &control)?;
    let each = test.number("pulls_each").map_or(3, |own| own as usize);
    let lot = test.number("lot").map_or(1, |own| own as u64);
    let mut order = order(&views, &control, &drawn(&others, lot), each);
    let next = matched(&mut order, taken);
    let (spread, is_shown) = spread(pulls);
    let needed = pulls_each(plan.sure_of, spread);
    Ok(TestPlanReport {
        says: says((plan, each, needed), (spread, is_shown), &order),
        next,
        order,
        needed_each: needed,
        spread: fine(spread),
        held: held(&test),
        windows: windows(plan),
        cautions: CAUTIONS.iter().map(|own| (*own).to_owned()).collect(),
    })
}

fn control_of(test: &Node<'_>, views: &[CandidateView<'_>]) -> Result<String, Fault> {
    match (test.word("control"), views.first()) {
        (Some(id), _) => known(views, &test.path_of("control"), id),
        (None, Some(first)) => Ok(first.id.clone()),
        (None, None) => Err(Fault::new("candidates", "none", "a candidate to run")),
    }
}

fn others_of(test: &Node<'_>, views: &[CandidateView<'_>], control: &str) -> Result<Vec<String>, Fault> {
    if !test.has("against") {
        return Ok(views.iter().map(|own| own.id.clone()).filter(|id| id != control).collect());
    }
    let path = test.path_of("against");
    let ids = test.words("against");
    ids.into_iter().filter(|id| *id != control).map(|id| known(views, &path, id)).collect()
}

fn known(views: &[CandidateView<'_>], path: &str, id: &str) -> Result<String, Fault> {
    let found = views.iter().find(|own| own.id == id).map(|own| own.id.clone());
    found.ok_or_else(|| unknown_candidate(path, id, views))
}

/// Control first and last, the others between as they were drawn, each so many times in a row.
fn order(views: &[CandidateView<'_>], control: &str, others: &[String], each: usize) -> Vec<PlannedPull> {
    let rows = std::iter::once(control)
        .chain(others.iter().map(String::as_str))
        .chain((!others.is_empty()).then_some(control));
    let name = |id: &str| views.iter().find(|own| own.id == id).map_or_else(String::new, |own| own.name.clone());
    let row = |(place, id): (usize, &str)| {
        let pull = |nth: usize| PlannedPull {
            candidate: id.to_owned(),
            name: name(id),
            control: id == control,
            nth: nth + 1,
            changed: nth == 0 && place > 0,
            pull: None,
        };
        (0..each).map(pull).collect::<Vec<_>>()
    };
    rows.enumerate().flat_map(row).collect()
}

/// Gives every planned pull the one that was taken for it, in their order, and says which is next.
fn matched(order: &mut [PlannedPull], taken: &[Pulled]) -> Option<usize> {
    let mut left: Vec<&Pulled> = taken.iter().filter(|own| own.left_out.is_none() && own.id != FIRST).collect();
    for planned in order.iter_mut() {
        if let Some(place) = left.iter().position(|own| own.candidate == planned.candidate) {
            planned.pull = Some(left.remove(place).id.clone());
        }
    }
    order.iter().position(|planned| planned.pull.is_none())
}

/// What a pull repeats to, N m, and whether the pulls themselves show it.
fn spread(pulls: &PullsReport) -> (f64, bool) {
    if let Some(repeats) = &pulls.repeats {
        return (repeats.sd_nm, true);
    }
    let averages: Vec<f64> = pulls.rows.iter().map(|row| row.average_torque_nm).collect();
    let mean = if averages.is_empty() { SOME } else { averages.iter().sum::<f64>() / averages.len() as f64 };
    (USUAL * mean, false)
}

fn says(
    (plan, each, needed): (&Plan, usize, Option<usize>),
    (spread, is_shown): (f64, bool),
    order: &[PlannedPull],
) -> Shown {
    let combinations = order.iter().filter(|own| own.nth == 1).count();
    let by = |system: UnitSystem| fine(plan.sure_of).read(system);
    let of = |system: UnitSystem| fine(spread).read(system);
    let word =
        if is_shown { "as this dyno repeats" } else { "as a good dyno repeats; yours is known after its first pulls" };
    let say = |system: UnitSystem| {
        let whole = format!("{} pulls in {combinations} rows of {each}", order.len());
        if combinations < 2 {
            return format!("{whole}: a second candidate is needed to compare with.");
        }
        match needed {
            Some(need) if need <= each => {
                format!("{whole}: enough to find {} in nine of ten tests ({}, {word}).", by(system), of(system))
            }
            Some(need) => format!(
                "{whole}: to find {} in nine of ten tests it takes {need} in a row ({}, {word}).",
                by(system),
                of(system)
            ),
            None => format!("{whole}: {} is too little to find ({}, {word}).", by(system), of(system)),
        }
    };
    Shown { inch: say(UnitSystem::Inch), metric: say(UnitSystem::Metric) }
}

fn windows(plan: &Plan) -> HeldWindows {
    let celsius = |(from, to): (Option<f64>, Option<f64>)| [from, to].map(|own| own.map(|kelvin| kelvin - 273.15));
    HeldWindows { oil_c: celsius(plan.windows[0]), water_c: celsius(plan.windows[1]) }
}

/// What is the same in every pull, in words.
fn held(test: &Node<'_>) -> Vec<Shown> {
    let mut found = Vec::new();
    for (word, from, to) in [("oil", "oil_from", "oil_to"), ("water", "water_from", "water_to")] {
        let at = |key: &str| {
            test.quantity::<crate::quantity::Temperature>(key).map(|own| shown(own.si(), Dimension::Temperature))
        };
        found.extend(match (at(from), at(to)) {
            (Some(from), Some(to)) => Some(joined(&[&from, &to], |own| format!("{word} {} to {}", own[0], own[1]))),
            (Some(from), None) => Some(from.said(|from| format!("{word} at least {from}"))),
            (None, Some(to)) => Some(to.said(|to| format!("{word} at most {to}"))),
            (None, None) => None,
        });
    }
    for (word, key) in [("spark", "spark"), ("fuel", "fuel"), ("between pulls", "cool_down")] {
        let text = test.text(key);
        found.extend((!text.is_empty()).then(|| Shown::plain(format!("{word}: {text}"))));
    }
    found
}
