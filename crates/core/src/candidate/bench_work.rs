//! Work at the bench: preload after machining, lash hot and cold, pushrods matched to their places.

use super::follower::preload_band;
use super::resolve::{Part, Resolved};
use crate::cam::Motion;
use crate::document::Side;
use crate::given::{Lifter, Needs, need};
use crate::quantity::{Dimension, Length, Shown, shown};
use crate::report::{BleedReport, LashReport, MatchReport, PreloadReport, PreloadSchool, WorkReport};
use crate::train::compliance::Metal;
use crate::train::preload::{Match, Stem, at_most, bled, lash_growth, matched, preload_of_school, worksheet};
use crate::words::{self, Casting, Word};
use std::sync::Arc;

fn length(si: f64) -> Shown {
    shown(si, Dimension::Length)
}

/// Preload after the worksheet; `None` for solid lifters and while it is unknown.
pub fn preload(inputs: &Resolved, side: Side, ratio: f64) -> Option<PreloadReport> {
    let lifter = &inputs.train(side).lifter;
    lifter.kind.filter(|kind| kind.is_hydraulic())?;
    let now = lifter.preload?;
    let work = worksheet(&inputs.train(side).work, inputs.port(side).valve_angle, ratio);
    let after = after_work(inputs, side, ratio)?;
    Some(PreloadReport {
        now: length(now.si()),
        after: length(after),
        word: word(lifter, after),
        pushrod: length(now.si() - after),
        schools: schools(lifter, after, ratio),
        bleeds: bleeds(inputs, side, ratio).unwrap_or_default(),
        work: work
            .into_iter()
            .map(|piece| WorkReport { key: piece.key.to_owned(), change: length(piece.change) })
            .collect(),
    })
}

/// Preload of a hydraulic lifter after the worksheet, m; `None` while it is unknown.
pub fn after_work(inputs: &Resolved, side: Side, ratio: f64) -> Option<f64> {
    let work = worksheet(&inputs.train(side).work, inputs.port(side).valve_angle, ratio);
    Some(inputs.train(side).lifter.preload?.si() + work.iter().map(|piece| piece.change).sum::<f64>())
}

/// The preload at hand and the middle of each school's, with what they can do to the valve.
fn schools(lifter: &Lifter, now: f64, ratio: f64) -> Vec<PreloadSchool> {
    let travel = lifter.travel.map(Length::si);
    let middle = |school: words::PreloadSchool| preload_of_school(school, travel).map(|(low, high)| 0.5 * (low + high));
    let named = [words::PreloadSchool::Light, words::PreloadSchool::Series, words::PreloadSchool::Deep];
    let all = named.into_iter().filter_map(|school| Some((format!("{} school", school.spoken()), middle(school)?)));
    let reports = std::iter::once(("this one".to_owned(), now)).chain(all).map(|(name, preload)| {
        let (held, lost) = at_most(preload, travel, ratio);
        PreloadSchool { name, preload: length(preload), held_open: length(held), lost: lost.map(length) }
    });
    reports.collect()
}

/// Bleeding at cranking and at idle; `None` without a leak-down reading, a spring or a lobe.
fn bleeds(inputs: &Resolved, side: Side, ratio: f64) -> Option<Vec<BleedReport>> {
    let own = inputs.side(side);
    let seconds = inputs.train(side).lifter.bleed_seconds?;
    let (lobe, lift, spring) = (own.lobe().ok()?, own.lift.as_ref().ok()?, own.spring.as_ref().ok()?);
    let load = |motion: Motion| {
        let valve = Length::from_si(lift.motion(motion).lift);
        if valve.si() > 0.0 { own.valves * ratio * spring.load(valve).si() } else { 0.0 }
    };
    let loads: Vec<f64> = lobe.sampled(1.0).map(|(_, motion)| load(motion)).collect();
    let cranking = inputs.given.engine.cranking_speed.map(|speed| ("cranking", speed));
    let idle = inputs.given.target.idle_at.map(|speed| ("idle", speed));
    let reports = [cranking, idle].into_iter().flatten().map(|(at, speed)| {
        let plunger = bled(seconds, &loads, speed.si());
        BleedReport { at: at.to_owned(), plunger: length(plunger), valve: length(plunger * ratio) }
    });
    Some(reports.collect())
}

fn word(lifter: &Lifter, preload: f64) -> String {
    let travel = lifter.travel.map(Length::si);
    if preload < 0.0 {
        return "none left: the train runs with lash and hammers".to_owned();
    }
    if travel.is_some_and(|travel| preload >= travel) {
        return "bottomed: the lifter holds the valve open".to_owned();
    }
    match preload_band(lifter) {
        Some((low, _)) if preload < low => "less than its school wants".to_owned(),
        Some((_, high)) if preload > high => "more than its school wants".to_owned(),
        Some(_) => "as its school wants".to_owned(),
        None => "within the plunger's travel".to_owned(),
    }
}

/// Lash hot and cold; `None` for hydraulic lifters and without a pushrod length.
pub fn lash(inputs: &Resolved, side: Side, ratio: f64, hot: f64) -> Option<LashReport> {
    inputs.train(side).lifter.kind.filter(|kind| kind.is_solid())?;
    let growth = cold_growth(inputs, side, ratio).ok()?;
    Some(LashReport { hot: length(hot), cold: length(hot - growth), growth: length(growth) })
}

/// Length of an adjustable pushrod that takes up all play and no more, and the preload wanted beyond it, m; a solid lifter
/// wants none.
pub fn checked(inputs: &Resolved, side: Side) -> Option<(f64, f64)> {
    let length = inputs.train(side).pushrod.checked_length?;
    let lifter = &inputs.train(side).lifter;
    let preload = if lifter.kind?.is_hydraulic() { lifter.preload? } else { Length::from_si(0.0) };
    Some((length.si(), preload.si()))
}

/// How much lash at the valve grows from cold to hot, m; negative where it shrinks.
///
/// # Errors
/// The length of pushrod or valve.
pub fn cold_growth(inputs: &Resolved, side: Side, ratio: f64) -> Part<f64> {
    let (train, engine) = (inputs.train(side), &inputs.given.engine);
    let (pushrod, valve) = (&train.pushrod, &train.valve);
    let aluminium = |casting: Option<Casting>| casting == Some(Casting::Aluminium);
    let castings = (aluminium(engine.block_material), aluminium(engine.head_material));
    let mut needs = Needs::default();
    let (length, stem) = (need!(needs, pushrod.length).si(), need!(needs, valve.length).si());
    needs.met(())?;
    let stem = Stem { length: stem, material: valve.material, exhaust: side == Side::Exhaust };
    Ok(lash_growth(length, Metal::of(pushrod.material), ratio, castings, stem))
}

/// Which pushrod goes where; empty without measured ones, or with too few.
pub fn matching(inputs: &Resolved, side: Side, ratio: f64) -> Vec<MatchReport> {
    let given = &inputs.given.matching;
    let metres = |all: &Option<Arc<[Length]>>| all.as_ref().map(|all| all.iter().map(|l| l.si()).collect::<Vec<f64>>());
    let (Some(pushrods), Some(places)) = (metres(&given.pushrods), metres(&given.places)) else { return Vec::new() };
    let found = matching_of(inputs, (&pushrods, &places), side, ratio).unwrap_or_default();
    let paired = inputs.given.engine.cylinders.is_some_and(|cylinders| places.len() as f64 == 2.0 * cylinders);
    let reports = found.into_iter().map(|pair| MatchReport {
        place: pair.place + 1,
        cylinder: paired.then_some(pair.place / 2 + 1),
        side: paired.then_some(if pair.place % 2 == 0 { Side::Intake } else { Side::Exhaust }),
        pushrod: pair.pushrod + 1,
        shims: pair.shims,
        preload: length(pair.preload),
    });
    reports.collect()
}

/// Which of `pushrods` goes to which of `places`, m, with the preload and the shims that are given; `None` with too few.
pub fn matching_of(
    inputs: &Resolved,
    (pushrods, places): (&[f64], &[f64]),
    side: Side,
    ratio: f64,
) -> Option<Vec<Match>> {
    let given = &inputs.given.matching;
    let wanted = given.preload.or(inputs.train(side).lifter.preload);
    let step = given.shim_step.map(Length::si);
    matched(pushrods, places, wanted.map_or(0.0, Length::si), step, ratio)
}
