//! Rules about the cam as a piece of metal: its lash ramps, its way through the bearings, a regrind; and the lifter's bore.

use super::figures::{CASE_LEFT, CASE_TIGHT, INCH, LIFTER_BORE, RAMP_TIGHT, THROUGH_BEARING, THROUGH_TIGHT};
use super::rule::{Finding, Lever, Measure, Rule, common};
use crate::candidate::{Part, cold_growth};
use crate::document::Needs;
use crate::quantity::Length;
use crate::report::{Place, Sense};

/// Lash as it runs, on the ramp that was ground for it.
pub static LASH_RAMP: Rule = Rule {
    id: "lash_ramp",
    title: "running lash on its ramp",
    place: Place::Lobe,
    sense: Sense::Within,
    measure: Measure::Length,
    sided: true,
    formula: "(hot lash + what the train gives under the seat load)/ratio, at the lobe: where the valve leaves its seat; not above the ramp's end, and not below what lash loses while the engine is cold",
    school: common,
    find: |inputs, side, _| {
        let lifter = inputs.train(side, "lifter");
        lifter.word("kind").filter(|kind| kind.starts_with("solid"))?;
        let own = inputs.side(side);
        let found = || -> Part<Finding> {
            let lobe = inputs.candidate.child("cam").child(side.key());
            let mut needs = Needs::default();
            let ramp: Length = needs.quantity(&lobe, "lash_ramp");
            needs.met(())?;
            let (lift, running) = (own.lift.clone()?, own.running.clone()?);
            let seat = own.spring.as_ref().map_or(0.0, |spring| spring.load(Length::from_si(0.0)).si());
            let flex = running.compliance * running.valves * seat;
            let at_lobe = |lash: f64| (lash + flex) / lift.ratio;
            let have = at_lobe(lift.lash.si());
            let least = at_lobe(cold_growth(inputs, side, lift.ratio).unwrap_or(0.0).max(0.0));
            let tight = RAMP_TIGHT * INCH;
            Ok(Finding { min: Some(least), max: Some(ramp.si()), tight, have })
        };
        Some(found())
    },
    inputs: |inputs, side| {
        let lifter = inputs.train(side, "lifter");
        vec![
            lifter.input("lash"),
            inputs.candidate.child("cam").child(side.key()).input("lash_ramp"),
            inputs.train(side, "rocker").input("ratio"),
            inputs.train(side, "spring").input("points"),
            inputs.engine.input("block_material"),
            inputs.engine.input("head_material"),
        ]
    },
    advice: false,
    levers: &[
        Lever { part: "lifter", field: "lash", step: -0.001 * INCH, most: 20.0 },
        Lever { part: "lifter", field: "lash", step: 0.001 * INCH, most: 20.0 },
    ],
};

/// The nose through the bearings as the cam goes in.
pub static LOBE_THROUGH_BEARING: Rule = Rule {
    id: "lobe_through_bearing",
    title: "lobe through the bearings",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "radius of the smallest bearing less base circle's radius and lobe lift",
    school: |_| "geometry",
    find: |inputs, side, _| {
        let cam = inputs.candidate.child("cam");
        let bearing: Length = cam.quantity("bearing_diameter")?;
        let base: Length = cam.quantity("base_circle_diameter")?;
        let lobe = inputs.side(side).lobe().map(|lobe| lobe.lift().si());
        Some(lobe.map(|lobe| {
            let left = 0.5 * (bearing.si() - base.si()) - lobe;
            Finding::at_least(THROUGH_BEARING * INCH, THROUGH_TIGHT * INCH, left)
        }))
    },
    inputs: |inputs, side| {
        let cam = inputs.candidate.child("cam");
        let mut used = ["base_circle_diameter", "bearing_diameter"].map(|key| cam.input(key)).to_vec();
        used.push(cam.child(side.key()).input("lobe_lift"));
        used
    },
    advice: false,
    levers: &[Lever { part: "cam", field: "base_circle_diameter", step: -0.010 * INCH, most: 20.0 }],
};

/// What a regrind leaves of the hard skin.
pub static REGRIND_DEPTH: Rule = Rule {
    id: "regrind_depth",
    title: "Hardness left after the regrind",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "hardened depth less half of what the base circle lost; longer pushrods make up the rest of it",
    school: common,
    find: |inputs, _, _| {
        let cam = inputs.candidate.child("cam");
        let before: Length = cam.quantity("base_circle_before")?;
        let (now, case): (Length, Length) = (cam.quantity("base_circle_diameter")?, cam.quantity("case_depth")?);
        let left = case.si() - 0.5 * (before.si() - now.si());
        Some(Ok(Finding::at_least(CASE_LEFT * INCH, CASE_TIGHT * INCH, left)))
    },
    inputs: |inputs, _| {
        let cam = inputs.candidate.child("cam");
        ["base_circle_diameter", "base_circle_before", "case_depth"].map(|key| cam.input(key)).to_vec()
    },
    advice: false,
    levers: &[Lever { part: "cam", field: "base_circle_diameter", step: 0.010 * INCH, most: 20.0 }],
};

/// A lifter in its bore.
pub static LIFTER_CLEARANCE: Rule = Rule {
    id: "lifter_clearance",
    title: "lifter in its bore",
    place: Place::Lifter,
    sense: Sense::Within,
    measure: Measure::Fine,
    sided: true,
    formula: "smallest bore less the lifter's body; loose bores bleed oil, tight ones stop lifters from turning",
    school: common,
    find: |inputs, side, _| {
        let lifter = inputs.train(side, "lifter");
        let (given, known) = (lifter.has("body_diameter"), inputs.engine.has("lifter_bore"));
        if !given && !known {
            return None;
        }
        let found = || -> Part<Finding> {
            let mut needs = Needs::default();
            let bore: Length = needs.quantity(&inputs.engine, "lifter_bore");
            let body: Length = needs.quantity(&lifter, "body_diameter");
            let (min, max) = LIFTER_BORE;
            let have = needs.met(bore.si() - body.si())?;
            Ok(Finding { min: Some(min * INCH), max: Some(max * INCH), tight: 0.0, have })
        };
        Some(found())
    },
    inputs: |inputs, side| {
        vec![inputs.train(side, "lifter").input("body_diameter"), inputs.engine.input("lifter_bore")]
    },
    advice: false,
    levers: &[Lever { part: "engine", field: "lifter_bore", step: 0.0005 * INCH, most: 10.0 }],
};
