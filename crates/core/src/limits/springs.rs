//! Rules about springs, ratings and control.

use super::figures::{
    BAND_EDGE, COIL_BIND as BIND_NEED, COIL_BIND_TIGHT, INCH, RATING_TIGHT, RESERVE_SHARE, RESERVE_TIGHT, open_load,
    seat_load,
};
use super::rule::{Finding, Lever, Measure, Rule, common};
use crate::cam::LifterKind;
use crate::candidate::{Gap, Inputs, Part, seat_reserve, spring_at_lift};
use crate::document::{InputUsed, Missing, Side};
use crate::quantity::{Force, Length, Speed};
use crate::report::{Place, Sense};
use crate::train::{ELASTIC_SHARE, hand_check};

pub(super) fn lifter_kind(inputs: &Inputs<'_>, side: Side) -> Part<LifterKind> {
    let lifter = inputs.train(side, "lifter");
    let kind = lifter.word("kind").and_then(LifterKind::from_word);
    kind.ok_or_else(|| Missing(vec![lifter.path_of("kind")]).into())
}

fn spring_inputs(inputs: &Inputs<'_>, side: Side) -> Vec<InputUsed> {
    let spring = inputs.train(side, "spring");
    let mut used = vec![spring.input("installed_height")];
    used.push(spring.input(if spring.has("coils") && !spring.has("points") { "coils" } else { "points" }));
    used
}

fn with_lift(inputs: &Inputs<'_>, side: Side) -> Vec<InputUsed> {
    let mut used = spring_inputs(inputs, side);
    used.push(inputs.candidate.child("cam").child(side.key()).input("lobe_lift"));
    used.push(inputs.train(side, "rocker").input("ratio"));
    used
}

/// Within a band of loads, tight outside its middle two thirds.
fn band((low, high): (f64, f64), have: f64) -> Finding {
    let (low, high) = (Force::lbf(low).si(), Force::lbf(high).si());
    Finding { min: Some(low), max: Some(high), tight: BAND_EDGE * (high - low), have }
}

const TALLER: Lever = Lever { part: "spring", field: "installed_height", step: 0.010 * INCH, most: 15.0 };
const SHORTER: Lever = Lever { part: "spring", field: "installed_height", step: -0.010 * INCH, most: 15.0 };
const LESS_RATIO: Lever = Lever { part: "rocker", field: "ratio", step: -0.05, most: 4.0 };
const SHIFT_EARLIER: Lever =
    Lever { part: "target", field: "shift_at", step: -50.0 * std::f64::consts::PI / 30.0, most: 20.0 };

/// Travel left to coil bind.
pub static COIL_BIND: Rule = Rule {
    id: "coil_bind",
    title: "spring to coil bind",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "installed height - net lift - coil bind height",
    school: common,
    find: |inputs, side, _| {
        let found = spring_at_lift(inputs.side(side)).and_then(|(spring, net)| {
            let path = inputs.train(side, "spring").path_of("coil_bind_height");
            spring.to_bind(net).ok_or_else(|| Missing(vec![path]).into())
        });
        Some(found.map(|left| Finding::at_least(BIND_NEED * INCH, COIL_BIND_TIGHT * INCH, left.si())))
    },
    inputs: |inputs, side| {
        let mut used = with_lift(inputs, side);
        used.insert(1, inputs.train(side, "spring").input("coil_bind_height"));
        used
    },
    advice: false,
    levers: &[TALLER, LESS_RATIO],
};

/// Seat load for the lifter's kind.
pub static SEAT_LOAD: Rule = Rule {
    id: "seat_load",
    title: "seat load",
    place: Place::Spring,
    sense: Sense::Within,
    measure: Measure::Force,
    sided: true,
    formula: "spring load at the installed height, against the band for this kind of lifter",
    school: common,
    find: |inputs, side, _| {
        let spring = inputs.side(side).spring.clone();
        Some(
            lifter_kind(inputs, side)
                .and_then(|kind| Ok(band(seat_load(kind), spring?.load(Length::from_si(0.0)).si()))),
        )
    },
    inputs: |inputs, side| {
        let mut used = spring_inputs(inputs, side);
        used.push(inputs.train(side, "lifter").input("kind"));
        used
    },
    advice: false,
    levers: &[SHORTER, TALLER],
};

/// Load at full net lift for the lifter's kind.
pub static OPEN_LOAD: Rule = Rule {
    id: "open_load",
    title: "open load",
    place: Place::Spring,
    sense: Sense::Within,
    measure: Measure::Force,
    sided: true,
    formula: "spring load at this cam's net lift, against the band for this kind of lifter",
    school: common,
    find: |inputs, side, _| {
        let short = inputs.train(side, "lifter").word("variant") == Some("short_travel");
        Some(lifter_kind(inputs, side).and_then(|kind| {
            let (spring, net) = spring_at_lift(inputs.side(side))?;
            Ok(band(open_load(kind, short), spring.load(net).si()))
        }))
    },
    inputs: |inputs, side| {
        let mut used = with_lift(inputs, side);
        used.push(inputs.train(side, "lifter").input("kind"));
        used
    },
    advice: false,
    levers: &[SHORTER, TALLER, LESS_RATIO],
};

/// Seat load left against boost or drive pressure.
pub static SEAT_RESERVE: Rule = Rule {
    id: "seat_reserve",
    title: "seat load against pressure",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Force,
    sided: true,
    formula: "seat load - p (A_head - A_stem), p the greatest boost (intake) or drive pressure (exhaust); cylinder at ambient: closed-form estimate",
    school: common,
    find: |inputs, side, _| {
        let (manifold, drive) = inputs.boost?;
        if manifold.si().max(drive.si()) <= 0.0 {
            return None;
        }
        Some(lifter_kind(inputs, side).and_then(|kind| {
            let seat = inputs.side(side).spring.clone()?.load(Length::from_si(0.0)).si();
            let absent = || Gap::from(Missing(vec![inputs.port(side).path_of("valve_diameter")]));
            let left = seat_reserve(inputs, side, seat).ok_or_else(absent)?;
            let need = Force::lbf(RESERVE_SHARE * seat_load(kind).0).si();
            Ok(Finding::at_least(need, RESERVE_TIGHT * need, left))
        }))
    },
    inputs: |inputs, side| {
        let mut used = spring_inputs(inputs, side);
        used.push(inputs.port(side).input("valve_diameter"));
        used.push(inputs.port(side).input("stem_diameter"));
        used.push(inputs.target.input("boost"));
        used
    },
    advice: false,
    levers: &[SHORTER],
};

/// Control by hand check.
pub static HAND_CHECK: Rule = Rule {
    id: "hand_check",
    title: "control, by hand check",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Speed,
    sided: true,
    formula: "77.5 % of the speed at which m |a| = F on the nose for rigid parts, against shift plus overspeed; an elastic train loses 20 to 25 %",
    school: |_| "hand check; a dynamic model replaces it when it has run",
    find: |inputs, side, _| {
        let own = inputs.side(side);
        let top = inputs.top_speed?;
        let check = || -> Part<f64> {
            let (spring, _) = spring_at_lift(own)?;
            let lift = own.lift.clone()?;
            let mass = own.mass.clone()?.effective(lift.ratio);
            let nowhere = || Gap { reason: "the lobe never decelerates".to_owned(), needs: Vec::new() };
            Ok(hand_check(own.lobe()?, &lift, spring, own.valves, mass).ok_or_else(nowhere)?.speed.si())
        };
        Some(check().map(|speed| Finding::at_least(top.si(), RATING_TIGHT * top.si(), ELASTIC_SHARE * speed)))
    },
    inputs: |inputs, side| {
        let mut used = vec![inputs.train(side, "valve").input("mass")];
        used.extend(with_lift(inputs, side));
        used.push(inputs.train(side, "retainer").input("mass"));
        used.push(inputs.train(side, "rocker").input("tip_side_mass"));
        used.push(inputs.train(side, "lifter").input("mass"));
        used.push(inputs.target.input("shift_at"));
        used.push(inputs.target.input("overspeed_by"));
        used
    },
    advice: false,
    levers: &[
        SHORTER,
        Lever { part: "valve", field: "mass", step: -0.002, most: 20.0 },
        Lever { part: "retainer", field: "mass", step: -0.001, most: 12.0 },
        SHIFT_EARLIER,
    ],
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
    find: |inputs, side, _| {
        let lifter = inputs.train(side, "lifter");
        let solid = lifter_kind(inputs, side).is_ok_and(LifterKind::is_solid);
        let Some(rated) = lifter.quantity::<Speed>("rated_speed") else {
            // Only hydraulic lifters are rated by speed as a rule.
            return (!solid).then(|| Err(Missing(vec![lifter.path_of("rated_speed")]).into()));
        };
        let top = inputs.top_speed.ok_or_else(|| Missing(vec![inputs.target.path_of("shift_at")]).into());
        Some(top.map(|top| Finding::at_most(rated.si(), RATING_TIGHT * rated.si(), top.si())))
    },
    inputs: |inputs, side| {
        vec![
            inputs.train(side, "lifter").input("rated_speed"),
            inputs.target.input("shift_at"),
            inputs.target.input("overspeed_by"),
        ]
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
    formula: "net lift, against the rating",
    school: common,
    find: |inputs, side, _| {
        let rocker = inputs.train(side, "rocker");
        let own = inputs.side(side);
        let found = || -> Part<Finding> {
            let rated: Length =
                rocker.quantity("rated_lift").ok_or_else(|| Missing(vec![rocker.path_of("rated_lift")]))?;
            let net = own.lift.clone()?.net(own.lobe()?);
            Ok(Finding::at_most(rated.si(), RATING_TIGHT * rated.si(), net.si()))
        };
        Some(found())
    },
    inputs: |inputs, side| {
        let rocker = inputs.train(side, "rocker");
        vec![
            rocker.input("rated_lift"),
            rocker.input("ratio"),
            inputs.candidate.child("cam").child(side.key()).input("lobe_lift"),
        ]
    },
    advice: false,
    levers: &[LESS_RATIO],
};
