//! Rules about the loads of springs, ratings and control.

use super::figures::{
    BAND_EDGE, COIL_BIND as BIND_NEED, COIL_BIND_TIGHT, INCH, RATING_TIGHT, RESERVE_DIESEL, RESERVE_SHARE,
    RESERVE_TIGHT, RESERVE_TIGHT_LOAD, SpringBand, spring_band,
};
use super::in_motion::in_motion;
use super::levers::{LESS_RATIO, LIGHTER_RETAINER, LIGHTER_VALVE, SHIFT_EARLIER, SHORTER, TALLER};
use super::measure::Measure;
use super::reads::{LOBE, MASSES, RATIO, SPRING, TOP_SPEED, reads};
use super::rule::{Case, Finding, Note, Rule, common};
use crate::candidate::{Gap, Part, Resolved, rigid_control, seat_reserve, spring_at_lift};
use crate::document::Side;
use crate::quantity::{Force, Length, Speed};
use crate::report::{Place, Sense};
use crate::train::ELASTIC_SHARE;
use crate::words::LifterKind;

pub(super) fn lifter_kind(resolved: &Resolved, side: Side) -> Part<LifterKind> {
    let lifter = &resolved.train(side).lifter;
    lifter.kind.ok_or_else(|| Gap::needing(vec![lifter.at("kind")]))
}

fn top_speed(resolved: &Resolved) -> Part<Speed> {
    resolved.top_speed().ok_or_else(|| Gap::needing(vec![resolved.given.target.at("shift_at")]))
}

/// What the hand check says of itself where the train in motion was computed.
const DECIDED: &str = "the limiting speed in motion decides";

/// Travel left to coil bind at full lift of rigid parts, m.
pub(super) fn bind_left(case: &Case<'_>) -> Part<f64> {
    let spring = &case.resolved.train(case.side).spring;
    let (fitted, net) = spring_at_lift(case.resolved.side(case.side))?;
    fitted.to_bind(net).map(Length::si).ok_or_else(|| Gap::needing(vec![spring.at("coil_bind_height")]))
}

/// Travel left to coil bind.
pub static COIL_BIND: Rule = Rule {
    id: "coil_bind",
    title: "coil-bind clearance",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "installed height - net lift - coil bind height",
    school: common,
    reads: &[
        reads![Spring: "installed_height", "coil_bind_height"; Lobe: "lobe_lift"; Rocker: "ratio"],
        SPRING,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| Some(bind_left(case).map(|left| Finding::at_least(BIND_NEED * INCH, COIL_BIND_TIGHT * INCH, left))),
    advice: false,
    levers: &[TALLER, LESS_RATIO],
};

/// What a load below its usual band rests on, and what one above it costs.
const BELOW: &str = "control holds, so less load does";
const ABOVE: &str = "costs lobe and lifter life, and heat in the spring and the oil";

/// A load within a usual band: tight outside its middle two thirds and beyond its ends; below it a failure only where the
/// valve would float.
fn banded((low, high): (f64, f64), have: f64, controlled: bool) -> Finding {
    let (low, high) = (Force::lbf(low).si(), Force::lbf(high).si());
    let within = Finding::between(Some(low), Some(high), BAND_EDGE * (high - low), have);
    let tight = |min, max| Finding { is_tight: true, ..Finding::between(min, max, 0.0, have) };
    if have > high {
        tight(Some(low), None).noting(Note::Above(low, high, ABOVE))
    } else if have < low && controlled {
        tight(None, Some(high)).noting(Note::Below(low, high, BELOW))
    } else {
        within
    }
}

/// Whether the valve follows its lobe to the top speed: in motion where that was computed, else by the rigid estimate.
fn is_controlled(case: &Case<'_>) -> bool {
    let top = case.resolved.top_speed().map(Speed::si);
    let speed = match in_motion(case) {
        Some(found) => Some(found.speed),
        None => float_speed(case.resolved, case.side).ok(),
    };
    top.zip(speed).is_some_and(|(top, speed)| speed >= top)
}

/// Speed at which the valve of `side` floats, rad/s: the rigid estimate, less what an elastic train loses.
fn float_speed(resolved: &Resolved, side: Side) -> Part<f64> {
    let (check, _) = rigid_control(resolved.side(side))?;
    Ok(ELASTIC_SHARE * check.speed.si())
}

/// A load against its part of the band for the lifter's kind and the top speed. The loads of a governed diesel are decided
/// by gas and control, not by a habit of kinds.
fn against_band(case: &Case<'_>, load: impl FnOnce(SpringBand) -> Part<((f64, f64), f64)>) -> Option<Part<Finding>> {
    if case.resolved.given.is_diesel() {
        return None;
    }
    let found = || -> Part<Finding> {
        let kind = lifter_kind(case.resolved, case.side)?;
        let (band, load) = load(spring_band(kind, top_speed(case.resolved)?.as_rpm()))?;
        Ok(banded(band, load, is_controlled(case)))
    };
    Some(found())
}

/// Seat load for the lifter's kind and the top speed.
pub static SEAT_LOAD: Rule = Rule {
    id: "seat_load",
    title: "seat load",
    place: Place::Spring,
    sense: Sense::Within,
    measure: Measure::Force,
    sided: true,
    formula: "spring load of each valve at the installed height, against the usual band for this kind of lifter up to shift plus overspeed; a governed diesel has none: gas and control decide there",
    school: common,
    reads: &[SPRING, reads![Lifter: "kind"; Engine: "combustion"], TOP_SPEED, LOBE, RATIO, MASSES],
    gas: false,
    find: |case| {
        against_band(case, |band| {
            let spring = case.resolved.side(case.side).spring.clone()?;
            Ok((band.seat, spring.load(Length::from_si(0.0)).si()))
        })
    },
    advice: false,
    levers: &[SHORTER, TALLER, SHIFT_EARLIER],
};

/// Load at full net lift for the lifter's kind and the top speed.
pub static OPEN_LOAD: Rule = Rule {
    id: "open_load",
    title: "open load",
    place: Place::Spring,
    sense: Sense::Within,
    measure: Measure::Force,
    sided: true,
    formula: "spring load of each valve at this cam's net lift, against the usual band for this kind of lifter up to shift plus overspeed; a governed diesel has none",
    school: common,
    reads: &[
        SPRING,
        reads![Lobe: "lobe_lift"; Rocker: "ratio"; Lifter: "kind"; Engine: "combustion"],
        TOP_SPEED,
        LOBE,
        RATIO,
        MASSES,
    ],
    gas: false,
    find: |case| {
        against_band(case, |band| {
            let (spring, net) = spring_at_lift(case.resolved.side(case.side))?;
            Ok((band.open, spring.load(net).si()))
        })
    },
    advice: false,
    levers: &[SHORTER, TALLER, LESS_RATIO, SHIFT_EARLIER],
};

/// Seat load left against boost or drive pressure.
pub static SEAT_RESERVE: Rule = Rule {
    id: "seat_reserve",
    title: "seat load against pressure",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Force,
    sided: true,
    formula: "seat load of each valve - p (A_head - A_stem), p the greatest boost (intake) or drive pressure (exhaust), computed where breathing has run; cylinder at ambient; petrol 70 % of the usual band's lower end, diesel 25 lbf a valve",
    school: common,
    reads: &[
        SPRING,
        reads![Port: "valve_diameter", "stem_diameter"; Target: "boost"; Lifter: "kind"; Engine: "combustion"],
        TOP_SPEED,
    ],
    gas: true,
    find: |case| {
        let (manifold, drive) = case.boost()?;
        if manifold.si().max(drive.si()) <= 0.0 {
            return None;
        }
        let found = || -> Part<Finding> {
            let need = Force::lbf(if case.resolved.given.is_diesel() {
                RESERVE_DIESEL
            } else {
                let kind = lifter_kind(case.resolved, case.side)?;
                RESERVE_SHARE * spring_band(kind, top_speed(case.resolved)?.as_rpm()).seat.0
            });
            let seat = case.resolved.side(case.side).spring.clone()?.load(Length::from_si(0.0)).si();
            let pressure = if case.side == Side::Intake { manifold } else { drive };
            let port = case.resolved.port(case.side);
            let absent = || Gap::needing(vec![port.at("valve_diameter")]);
            let left = seat_reserve(port, pressure, seat).ok_or_else(absent)?;
            let tight = (RESERVE_TIGHT * need.si()).max(Force::lbf(RESERVE_TIGHT_LOAD).si());
            Ok(Finding::at_least(need.si(), tight, left))
        };
        Some(found())
    },
    advice: false,
    levers: &[SHORTER],
};

/// Control by hand check.
pub static HAND_CHECK: Rule = Rule {
    id: "hand_check",
    title: "valve float speed (rigid)",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Speed,
    sided: true,
    formula: "77.5 % of the speed at which m |a| = F on the nose for rigid parts, against shift plus overspeed; an elastic train loses 20 to 25 %",
    school: |_| "hand check; a dynamic model replaces it when it has run",
    reads: &[
        reads![Valve: "mass"],
        SPRING,
        reads![Lobe: "lobe_lift"; Rocker: "ratio"; Retainer: "mass"],
        TOP_SPEED,
        MASSES,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let top = case.resolved.top_speed()?.si();
        let speed = float_speed(case.resolved, case.side);
        let decided = case.findings.control.is_some();
        let found = speed.map(|speed| Finding::at_least(top, RATING_TIGHT * top, speed));
        Some(found.map(|found| {
            if decided { Finding { is_advice: true, tight: 0.0, ..found.noting(Note::Text(DECIDED)) } } else { found }
        }))
    },
    advice: false,
    levers: &[SHORTER, LIGHTER_RETAINER, LIGHTER_VALVE, SHIFT_EARLIER],
};

/// The lifter's rated speed.
pub static LIFTER_SPEED: Rule = Rule {
    id: "lifter_speed",
    title: "lifter speed rating",
    place: Place::Lifter,
    sense: Sense::AtMost,
    measure: Measure::Speed,
    sided: true,
    formula: "shift + overspeed, against the rating",
    school: common,
    reads: &[reads![Lifter: "rated_speed", "kind"], TOP_SPEED],
    gas: false,
    find: |case| {
        let lifter = &case.resolved.train(case.side).lifter;
        let Some(rated) = lifter.rated_speed else {
            // Only hydraulic lifters are rated by speed as a rule.
            let solid = lifter.kind.is_some_and(LifterKind::is_solid);
            return (!solid).then(|| Err(Gap::needing(vec![lifter.at("rated_speed")])));
        };
        let top = top_speed(case.resolved);
        Some(top.map(|top| Finding::at_most(rated.si(), RATING_TIGHT * rated.si(), top.si())))
    },
    advice: false,
    levers: &[SHIFT_EARLIER],
};

/// The rocker's rated lift.
pub static ROCKER_LIFT: Rule = Rule {
    id: "rocker_lift",
    title: "rocker rated lift",
    place: Place::Rocker,
    sense: Sense::AtMost,
    measure: Measure::Length,
    sided: true,
    formula: "net lift by the true ratio, against the rating",
    school: common,
    reads: &[reads![Rocker: "rated_lift", "ratio"; Lobe: "lobe_lift"], LOBE, RATIO],
    gas: false,
    find: |case| {
        let rocker = &case.resolved.train(case.side).rocker;
        let found = || -> Part<Finding> {
            let rated = rocker.rated_lift.ok_or_else(|| Gap::needing(vec![rocker.at("rated_lift")]))?;
            let net = case.resolved.side(case.side).most_lift()?;
            Ok(Finding::at_most(rated.si(), RATING_TIGHT * rated.si(), net.si()))
        };
        Some(found())
    },
    advice: false,
    levers: &[LESS_RATIO],
};
