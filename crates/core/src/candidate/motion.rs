//! What the valve really gets: the lift budget, the rocker through its sweep, the pushrod, and the order to the grinder.

use super::bench_work;
use super::order::order;
use super::resolve::{Part, Resolved, ResolvedSide};
use super::stages::{Stages, key};
use crate::cam::{Flank, Lobe, height_050};
use crate::document::Side;
use crate::given::RockerPart;
use crate::quantity::{Dimension, Length, Shown, UnitSystem, format_si, parse, shown};
use crate::report::{
    BudgetStep, FlexShare, OrderReport, PushrodReport, RockerReport, RunningDurations, Sides, TrainReport,
};
use crate::train::compliance::{Pushrod, of_parts};
use crate::train::rocker::{Pose, Rocker, school_height};
use crate::train::running::{Budget, Origin, RunningTrain};
use crate::train::{Spring, ValveLift};
use crate::words::{Mount, Tip};

/// Friction of a plain pad and of a roller on the stem (common practice, no source).
const PAD_FRICTION: f64 = 0.12;
const ROLLER_FRICTION: f64 = 0.02;
/// Outside diameters and walls a pushrod comes in, in, by what they cost in room (common practice, no source).
const SIZES: [(&str, &str); 8] = [
    ("5/16 in", "0.080 in"),
    ("5/16 in", "0.105 in"),
    ("11/32 in", "0.080 in"),
    ("11/32 in", "0.120 in"),
    ("3/8 in", "0.080 in"),
    ("3/8 in", "0.135 in"),
    ("7/16 in", "0.125 in"),
    ("1/2 in", "0.165 in"),
];

/// Both sides' way from lobe to valve.
pub fn train(inputs: &Resolved, stages: &Stages) -> Part<Sides<TrainReport>> {
    super::blocks::both(|side| side_train(inputs, side, stages))
}

/// The order for one side, kept by what it is made of: it takes two lobes.
fn kept_order(own: &ResolvedSide, running: &RunningTrain, stages: &Stages) -> Option<OrderReport> {
    let (card, lobe, lift) = (own.card.as_ref()?, own.lobe().ok()?, own.lift.as_ref().ok()?);
    let spring = own.spring.as_ref().ok();
    let made = || order(card, lobe, running, lift, spring);
    stages.orders.get(key(&(own.lobe_key, running, lift, spring)), made).as_ref().clone()
}

fn side_train(inputs: &Resolved, side: Side, stages: &Stages) -> Part<TrainReport> {
    let own = inputs.side(side);
    let (lobe, lift, running) = (own.lobe()?, own.lift.clone()?, own.running.clone()?);
    let spring = own.spring.as_ref().ok();
    let budget = running.budget(lobe, lift.ratio, spring);
    let load = spring.map(|spring| running.valves * spring.load(Length::from_si(budget.running)).si());
    let (opens_later_deg, closes_earlier_deg) = shifts(own, &running, spring);
    let pushrod = Pushrod::read(&inputs.train(side).pushrod).ok();
    let samples: Vec<_> = lobe.sampled(1.0).collect();
    Ok(TrainReport {
        cam_deg: samples.iter().map(|(deg, _)| *deg).collect(),
        ideal_mm: samples.iter().map(|(_, motion)| lift.motion(*motion).lift * 1e3).collect(),
        running_mm: samples.iter().map(|(_, motion)| running.valve(motion.lift, spring) * 1e3).collect(),
        true_ratio: if budget.lobe > 0.0 { budget.geometric / budget.lobe } else { lift.ratio },
        origin: origin_of(&running),
        stiffness_n_per_mm: (running.compliance > 0.0).then(|| 1e-3 / running.compliance),
        shares: shares(inputs, side, &running, load),
        opens_later_deg,
        closes_earlier_deg,
        durations: durations(lobe, &lift, &running, spring),
        pushrod_load_n: load.map(|load| load * lift.ratio),
        rocker: running.rocker.map(|rocker| rocker_report(inputs, side, &running, &rocker, load)),
        pushrod: pushrod.map(|pushrod| PushrodReport {
            for_geometry: for_geometry(inputs, side, &running, lift.net(lobe)),
            ..pushrod_report(&pushrod, lift.ratio, load, bench_work::checked(inputs, side))
        }),
        preload: bench_work::preload(inputs, side, lift.ratio),
        lash: bench_work::lash(inputs, side, lift.ratio, lift.lash.si()),
        matching: bench_work::matching(inputs, side, lift.ratio),
        order: kept_order(own, &running, stages),
        budget: steps(&budget, lift.lash.si()),
    })
}

fn origin_of(running: &RunningTrain) -> String {
    let geometry = if running.sweep.is_empty() { "nominal ratio" } else { "ratio by geometry" };
    match &running.origin {
        Origin::Readings(_) => "ratio and flex from readings with two springs".to_owned(),
        Origin::Parts(_) => format!("{geometry}, flex from the parts"),
        Origin::Rigid => format!("{geometry}, rigid: pushrod or spring is not known"),
    }
}

fn steps(budget: &Budget, lash: f64) -> Vec<BudgetStep> {
    let mut before = 0.0;
    let mut step = |id: &str, label: &str, lift: f64| {
        let change = lift - before;
        before = lift;
        BudgetStep {
            id: id.to_owned(),
            label: label.to_owned(),
            lift_mm: lift * 1e3,
            shown: shown(lift, Dimension::Length),
            change: shown(change, Dimension::Length),
        }
    };
    let taken = if lash > 0.0 { "less lash (rigid lift)" } else { "less the lifter's give (rigid lift)" };
    vec![
        step("lobe", "at the lobe", budget.lobe),
        step("nominal", "times nominal ratio", budget.nominal),
        step("geometric", "by the true ratio", budget.geometric),
        step("taken_up", taken, budget.taken_up),
        step("running", "less flex (running lift)", budget.running),
    ]
}

/// Crank degrees by which the running valve opens later and closes earlier than rigid parts at .050 of lobe lift.
fn shifts(own: &ResolvedSide, running: &RunningTrain, spring: Option<&Spring>) -> (f64, f64) {
    let (Ok(lobe), Ok(lift)) = (own.lobe(), own.lift.clone()) else { return (0.0, 0.0) };
    let height = height_050();
    let wanted = (height.si() * lift.ratio - lift.lash.si()).max(0.0);
    let Some(needed) = running.lobe_at(wanted, lobe.lift().si(), spring).map(Length::from_si) else {
        return (0.0, 0.0);
    };
    let shift = |flank: Flank| match (lobe.flank_angle(height, flank), lobe.flank_angle(needed, flank)) {
        (Some(ideal), Some(real)) => 2.0 * (ideal - real),
        _ => 0.0,
    };
    (shift(Flank::Opening), shift(Flank::Closing))
}

/// Durations over valve lift, from just off the seat to just below the running peak.
fn durations(lobe: &Lobe, lift: &ValveLift, running: &RunningTrain, spring: Option<&Spring>) -> RunningDurations {
    const STEPS: u32 = 24;
    let full = lobe.lift().si();
    let most = 0.98 * running.valve(full, spring).min(lift.net(lobe).si());
    let mut found = RunningDurations { valve_mm: Vec::new(), ideal_deg: Vec::new(), running_deg: Vec::new() };
    for step in 1..=STEPS {
        let valve = most * f64::from(step) / f64::from(STEPS);
        let above = |lobe_lift: f64| lobe.duration_crank_deg(Length::from_si(lobe_lift));
        let real = running.lobe_at(valve, full, spring).and_then(above);
        if let (Some(ideal), Some(real)) = (above((valve + lift.lash.si()) / lift.ratio), real) {
            found.valve_mm.push(valve * 1e3);
            found.ideal_deg.push(ideal);
            found.running_deg.push(real);
        }
    }
    found
}

fn shares(inputs: &Resolved, side: Side, running: &RunningTrain, load: Option<f64>) -> Vec<FlexShare> {
    let Some(load) = load else { return Vec::new() };
    let ratio = running.ratio;
    let Ok(parts) = of_parts(inputs.train(side), ratio) else { return Vec::new() };
    // Readings know the sum; the parts only how it may be split.
    let whole: f64 = parts.iter().map(|share| share.compliance).sum();
    let scale = if matches!(running.origin, Origin::Readings(_)) { running.compliance / whole } else { 1.0 };
    let shares = parts.iter().map(|share| {
        let flex = share.compliance * scale * load;
        FlexShare { part: share.part.to_owned(), flex_mm: flex * 1e3, shown: shown(flex, Dimension::Length) }
    });
    shares.collect()
}

fn rocker_report(
    inputs: &Resolved,
    side: Side,
    running: &RunningTrain,
    rocker: &Rocker,
    load: Option<f64>,
) -> RockerReport {
    let column =
        |of: fn(&Pose) -> f64, scale: f64| running.sweep.iter().map(|pose| of(pose) * scale).collect::<Vec<f64>>();
    let stem = inputs.port(side).stem_diameter;
    let friction = tip_friction(&inputs.train(side).rocker).unwrap_or(PAD_FRICTION);
    let text = |si: f64| shown(si, Dimension::Length);
    RockerReport {
        cup_mm: rocker.cup.map(|x| x * 1e3),
        tip_mm: rocker.tip.map(|x| x * 1e3),
        tip_radius_mm: rocker.tip_radius * 1e3,
        stem_mm: rocker.stem * 1e3,
        stem_diameter_mm: stem.map(Length::as_mm),
        pushrod_direction: rocker.towards_cup,
        pushrod_mm: rocker.pushrod * 1e3,
        lifter_mm: column(|pose| pose.lifter, 1e3),
        turn_deg: column(|pose| pose.turn, 180.0 / std::f64::consts::PI),
        cup_at_mm: running.sweep.iter().map(|pose| pose.cup.map(|x| x * 1e3)).collect(),
        valve_mm: column(|pose| pose.valve, 1e3),
        ratio: column(|pose| pose.ratio, 1.0),
        contact_mm: column(|pose| pose.contact, 1e3),
        pattern: text(pattern_width(&running.sweep)),
        scrub: text(scrub(&running.sweep)),
        side_load: load.map(|load| shown(friction * load, Dimension::Force)),
        locks_at_mm: running.locks_at.map(|lift| lift * 1e3),
    }
}

/// Friction of the tip on the stem; `None` while the tip is not known.
pub fn tip_friction(rocker: &RockerPart) -> Option<f64> {
    rocker.tip.map(|tip| match tip {
        Tip::Roller => ROLLER_FRICTION,
        Tip::Pad => PAD_FRICTION,
    })
}

/// Width of the line the contact wanders over, m.
pub fn pattern_width(sweep: &[Pose]) -> f64 {
    let contacts = || sweep.iter().map(|pose| pose.contact);
    (contacts().fold(f64::NEG_INFINITY, f64::max) - contacts().fold(f64::INFINITY, f64::min)).max(0.0)
}

fn scrub(sweep: &[Pose]) -> f64 {
    sweep.windows(2).map(|two| (two[1].contact - two[0].contact).abs()).sum()
}

/// How much longer a pushrod puts the pivot of a stud rocker at its school's height.
fn for_geometry(inputs: &Resolved, side: Side, running: &RunningTrain, net: Length) -> Option<Shown> {
    let part = &inputs.train(side).rocker;
    part.mount.filter(|mount| *mount == Mount::Stud)?;
    let (rocker, now) = (running.rocker.as_ref()?, part.pivot_height?);
    let wanted = school_height(part, rocker.tip_radius, net.si());
    rocker.longer_for_pivot(wanted - now.si()).map(|by| shown(by, Dimension::Length))
}

/// `checked` is the length without play or preload, and the preload wanted, m.
fn pushrod_report(pushrod: &Pushrod, ratio: f64, load: Option<f64>, checked: Option<(f64, f64)>) -> PushrodReport {
    let (next, words) = next_size(pushrod);
    let less = 1.0 / pushrod.stiffness() - 1.0 / next.stiffness();
    PushrodReport {
        stiffness_n_per_mm: pushrod.stiffness() * 1e-3,
        buckling_load_n: pushrod.buckling_load(),
        mass_g: pushrod.mass() * 1e3,
        wanted: checked.map(|(length, preload)| shown(length + preload, Dimension::Length)),
        gives: checked.map(|(length, _)| shown(pushrod.length - length, Dimension::Length)),
        for_geometry: None,
        next: words,
        next_gain: load.map_or(Shown { inch: String::new(), metric: String::new() }, |load| {
            shown(ratio * ratio * load * less, Dimension::Length)
        }),
        next_mass_g: (next.mass() - pushrod.mass()) * 1e3,
    }
}

/// The next stiffer size of the list; beyond its end an eighth more diameter with the same wall.
fn next_size(now: &Pushrod) -> (Pushrod, String) {
    let metres = |text: &str| parse(text, Dimension::Length).unwrap_or(0.0);
    let sized = SIZES.iter().map(|(outside, wall)| {
        (Pushrod { outside: metres(outside), wall: metres(wall), ..*now }, format!("{outside} x {wall}"))
    });
    let mut stiffer: Vec<_> = sized.filter(|(rod, _)| rod.stiffness() > 1.15 * now.stiffness()).collect();
    stiffer.sort_by(|a, b| a.0.stiffness().total_cmp(&b.0.stiffness()));
    stiffer.into_iter().next().unwrap_or_else(|| {
        let rod = Pushrod { outside: now.outside * 1.125, ..*now };
        let text = format!("{} outside", format_si(rod.outside, Dimension::Length, UnitSystem::Metric));
        (rod, text)
    })
}
