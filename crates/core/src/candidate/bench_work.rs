//! Work at the bench: preload after machining, lash hot and cold, pushrods matched to their places.

use super::follower::preload_band;
use super::inputs::Inputs;
use crate::cam::Motion;
use crate::document::{Node, Side};
use crate::quantity::{Dimension, Length, Shown, Speed, shown};
use crate::report::{BleedReport, LashReport, MatchReport, PreloadReport, PreloadSchool, WorkReport};
use crate::train::compliance::Metal;
use crate::train::preload::{at_most, bled, lash_growth, matched, preload_of_school, worksheet};

fn length(si: f64) -> Shown {
    shown(si, Dimension::Length)
}

/// Preload after the worksheet; `None` for solid lifters and while it is unknown.
pub fn preload(inputs: &Inputs<'_>, side: Side, ratio: f64) -> Option<PreloadReport> {
    let lifter = inputs.train(side, "lifter");
    lifter.word("kind").filter(|kind| kind.starts_with("hydraulic"))?;
    let now: Length = lifter.quantity("preload")?;
    let work = worksheet(&inputs.candidate.child("train"), &inputs.port(side), side, ratio);
    let after = now.si() + work.iter().map(|piece| piece.change).sum::<f64>();
    Some(PreloadReport {
        now: length(now.si()),
        after: length(after),
        word: word(&lifter, after),
        pushrod: length(now.si() - after),
        schools: schools(&lifter, after, ratio),
        bleeds: bleeds(inputs, side, ratio).unwrap_or_default(),
        work: work
            .into_iter()
            .map(|piece| WorkReport { key: piece.key.to_owned(), change: length(piece.change) })
            .collect(),
    })
}

/// The preload at hand and the middle of each school's, with what they can do to the valve.
fn schools(lifter: &Node<'_>, now: f64, ratio: f64) -> Vec<PreloadSchool> {
    let travel = lifter.quantity::<Length>("travel").map(Length::si);
    let middle = |school: &str| preload_of_school(school, travel).map(|(low, high)| 0.5 * (low + high));
    let named = [("light", "light school"), ("series", "series school"), ("deep", "deep school")];
    let all = named.into_iter().filter_map(|(school, name)| Some((name, middle(school)?)));
    let told = std::iter::once(("this one", now)).chain(all).map(|(name, preload)| {
        let (held, lost) = at_most(preload, travel, ratio);
        PreloadSchool {
            name: name.to_owned(),
            preload: length(preload),
            held_open: length(held),
            lost: lost.map(length),
        }
    });
    told.collect()
}

/// Bleeding at cranking and at idle; `None` without a leak-down reading, a spring or a lobe.
fn bleeds(inputs: &Inputs<'_>, side: Side, ratio: f64) -> Option<Vec<BleedReport>> {
    let own = inputs.side(side);
    let seconds = inputs.train(side, "lifter").number("bleed_seconds")?;
    let (lobe, lift, spring) = (own.lobe().ok()?, own.lift.as_ref().ok()?, own.spring.as_ref().ok()?);
    let load = |motion: Motion| {
        let valve = Length::from_si(lift.motion(motion).lift);
        if valve.si() > 0.0 { own.valves * ratio * spring.load(valve).si() } else { 0.0 }
    };
    let loads: Vec<f64> = lobe.sampled(1.0).map(|(_, motion)| load(motion)).collect();
    let cranking = inputs.engine.quantity::<Speed>("cranking_speed").map(|speed| ("cranking", speed));
    let idle = inputs.target.quantity::<Speed>("idle_at").map(|speed| ("idle", speed));
    let told = [cranking, idle].into_iter().flatten().map(|(at, speed)| {
        let plunger = bled(seconds, &loads, speed.si());
        BleedReport { at: at.to_owned(), plunger: length(plunger), valve: length(plunger * ratio) }
    });
    Some(told.collect())
}

fn word(lifter: &Node<'_>, preload: f64) -> String {
    let travel = lifter.quantity::<Length>("travel").map(Length::si);
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
pub fn lash(inputs: &Inputs<'_>, side: Side, ratio: f64, hot: f64) -> Option<LashReport> {
    let lifter = inputs.train(side, "lifter");
    lifter.word("kind").filter(|kind| kind.starts_with("solid"))?;
    let growth = cold_growth(inputs, side, ratio)?;
    Some(LashReport { hot: length(hot), cold: length((hot - growth).max(0.0)), growth: length(growth) })
}

/// Length of an adjustable pushrod that takes up all play and no more, and the preload wanted beyond it, m; a solid lifter
/// wants none.
pub fn checked(inputs: &Inputs<'_>, side: Side) -> Option<(f64, f64)> {
    let length: Length = inputs.train(side, "pushrod").quantity("checked_length")?;
    let lifter = inputs.train(side, "lifter");
    let hydraulic = lifter.word("kind")?.starts_with("hydraulic");
    let preload = if hydraulic { lifter.quantity::<Length>("preload")? } else { Length::from_si(0.0) };
    Some((length.si(), preload.si()))
}

/// How much lash at the valve grows from cold to hot, m; `None` without a pushrod length.
pub fn cold_growth(inputs: &Inputs<'_>, side: Side, ratio: f64) -> Option<f64> {
    let pushrod: Length = inputs.train(side, "pushrod").quantity("length")?;
    let aluminium = |key: &str| inputs.engine.word(key) == Some("aluminium");
    let metal = Metal::of(inputs.train(side, "pushrod").word("material"));
    Some(lash_growth(pushrod.si(), metal, ratio, (aluminium("block_material"), aluminium("head_material"))))
}

/// Which pushrod goes where; empty without measured ones, or with too few.
pub fn matching(inputs: &Inputs<'_>, side: Side, ratio: f64) -> Vec<MatchReport> {
    let node = inputs.candidate.child("train").child("matching");
    let metres = |key: &str| node.quantities::<Length>(key).map(|all| all.iter().map(|l| l.si()).collect::<Vec<f64>>());
    let (Some(pushrods), Some(places)) = (metres("pushrods"), metres("places")) else { return Vec::new() };
    let wanted = node.quantity::<Length>("preload").or_else(|| inputs.train(side, "lifter").quantity("preload"));
    let step = node.quantity::<Length>("shim_step").map(Length::si);
    let found = matched(&pushrods, &places, wanted.map_or(0.0, Length::si), step, ratio).unwrap_or_default();
    let paired = inputs.engine.number("cylinders").is_some_and(|cylinders| places.len() as f64 == 2.0 * cylinders);
    let told = found.into_iter().map(|pair| MatchReport {
        place: pair.place + 1,
        cylinder: paired.then_some(pair.place / 2 + 1),
        side: paired.then_some(if pair.place % 2 == 0 { Side::Intake } else { Side::Exhaust }),
        pushrod: pair.pushrod + 1,
        shims: pair.shims,
        preload: length(pair.preload),
    });
    told.collect()
}
