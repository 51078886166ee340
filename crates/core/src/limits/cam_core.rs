//! Rules about the cam as a piece of metal, the lash that runs on it, and the lifter's bore.

use super::figures::{
    CASE_LEFT, CASE_TIGHT, COLD_LASH as COLD_NEED, COLD_LASH_TIGHT, INCH, LIFTER_BORE, RAMP_TIGHT, THROUGH_BEARING,
    THROUGH_TIGHT,
};
use super::levers::{LARGER_BASE, LESS_LASH, MORE_LASH, SMALLER_BASE, WIDER_BORE};
use super::measure::Measure;
use super::reads::{FLEX, LOBE, RATIO, SPRING, reads};
use super::rule::{Finding, Rule, common};
use crate::candidate::{Gap, Part, cold_growth};
use crate::given::{Needs, need};
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
    formula: "(hot lash + what the train gives under the seat load)/ratio, at the lobe: where the valve leaves its seat; not above the ramp's end",
    school: common,
    reads: &[reads![Lifter: "lash", "kind"; Lobe: "lash_ramp"; Rocker: "ratio"], SPRING, FLEX, RATIO, LOBE],
    gas: false,
    find: |case| {
        let train = case.resolved.train(case.side);
        train.lifter.kind.filter(|kind| kind.is_solid())?;
        let (own, lobe) = (case.resolved.side(case.side), case.resolved.given.lobe(case.side));
        let found = || -> Part<Finding> {
            let mut needs = Needs::default();
            let ramp = need!(needs, lobe.lash_ramp);
            needs.met(())?;
            let (lift, running) = (own.lift.clone()?, own.running.clone()?);
            let seat = own.spring.as_ref().map_or(0.0, |spring| spring.load(Length::from_si(0.0)).si());
            let flex = running.compliance * running.valves * seat;
            let have = (lift.lash.si() + flex) / lift.ratio;
            Ok(Finding::between(Some(0.0), Some(ramp.si()), RAMP_TIGHT * INCH, have))
        };
        Some(found())
    },
    advice: false,
    levers: &[LESS_LASH, MORE_LASH],
};

/// Lash as it is set on the cold engine.
pub static COLD_LASH: Rule = Rule {
    id: "cold_lash",
    title: "lash, cold",
    place: Place::Lifter,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "hot lash less what it grows by from cold to hot: R (block + head - pushrod) + head - stem, each by its length, metal and heat",
    school: common,
    reads: &[
        reads![Lifter: "lash", "kind"; Pushrod: "length", "material"; Valve: "length", "material"; Rocker: "ratio"],
        reads![Engine: "block_material", "head_material"],
    ],
    gas: false,
    find: |case| {
        let lifter = &case.resolved.train(case.side).lifter;
        lifter.kind.filter(|kind| kind.is_solid())?;
        let lift = case.resolved.side(case.side).lift.clone();
        let cold = lift.and_then(|lift| Ok(lift.lash.si() - cold_growth(case.resolved, case.side, lift.ratio)?));
        Some(cold.map(|cold| Finding::at_least(COLD_NEED * INCH, COLD_LASH_TIGHT * INCH, cold)))
    },
    advice: false,
    levers: &[MORE_LASH],
};

/// The nose through the bearings as the cam goes in.
pub static LOBE_THROUGH_BEARING: Rule = Rule {
    id: "lobe_through_bearing",
    title: "lobe-to-bearing clearance",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "radius of the smallest bearing less base circle's radius and lobe lift",
    school: |_| "geometry",
    reads: &[reads![Cam: "base_circle_diameter", "bearing_diameter"; Lobe: "lobe_lift"], LOBE],
    gas: false,
    find: |case| {
        let cam = &case.resolved.given.cam;
        let (bearing, base) = (cam.bearing_diameter?, cam.base_circle_diameter?);
        let lobe = case.resolved.side(case.side).lobe().map(|lobe| lobe.lift().si());
        Some(lobe.map(|lobe| {
            let left = 0.5 * (bearing.si() - base.si()) - lobe;
            Finding::at_least(THROUGH_BEARING * INCH, THROUGH_TIGHT * INCH, left)
        }))
    },
    advice: false,
    levers: &[SMALLER_BASE],
};

/// What a regrind leaves of the hard skin.
pub static REGRIND_DEPTH: Rule = Rule {
    id: "regrind_depth",
    title: "Case depth left",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "hardened depth less half of what the base circle lost; longer pushrods make up the rest of it",
    school: common,
    reads: &[reads![Cam: "base_circle_diameter", "base_circle_before", "case_depth"]],
    gas: false,
    find: |case| {
        let cam = &case.resolved.given.cam;
        let (before, now, case) = (cam.base_circle_before?, cam.base_circle_diameter?, cam.case_depth?);
        let left = case.si() - 0.5 * (before.si() - now.si());
        Some(Ok(Finding::at_least(CASE_LEFT * INCH, CASE_TIGHT * INCH, left)))
    },
    advice: false,
    levers: &[LARGER_BASE],
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
    reads: &[reads![Lifter: "body_diameter"; Engine: "lifter_bore"]],
    gas: false,
    find: |case| {
        let (lifter, engine) = (&case.resolved.train(case.side).lifter, &case.resolved.given.engine);
        if lifter.body_diameter.is_none() && engine.lifter_bore.is_none() {
            return None;
        }
        let mut needs = Needs::default();
        let have = need!(needs, engine.lifter_bore).si() - need!(needs, lifter.body_diameter).si();
        let (min, max) = LIFTER_BORE;
        let found = needs.met(Finding::between(Some(min * INCH), Some(max * INCH), 0.0, have));
        Some(found.map_err(Gap::from))
    },
    advice: false,
    levers: &[WIDER_BORE],
};
