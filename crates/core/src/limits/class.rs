//! Rules of a class: what the engine may have at all.

use super::levers::LESS_RATIO;
use super::measure::Measure;
use super::reads::{LOBE, RATIO, reads};
use super::rule::{Finding, Rule};
use crate::report::{Place, Sense};

/// Valve lift by class rule, lash at zero as the inspector's dial reads it.
pub static CLASS_LIFT: Rule = Rule {
    id: "class_lift",
    title: "lift by class rule",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::Length,
    sided: true,
    formula: "lobe lift through the true ratio (by geometry or readings, the nominal one where neither is known or it is more), lash at zero, against the class rule",
    school: |_| "the class rule of this build",
    reads: &[reads![Lobe: "lobe_lift"; Rocker: "ratio"; Rules: "maximum_lift"], LOBE, RATIO],
    gas: false,
    find: |case| {
        let most = case.resolved.given.rules.maximum_lift?;
        let own = case.resolved.side(case.side);
        let gross = own.lift.clone().and_then(|lift| {
            let lobe = own.lobe()?;
            let real = own.running.as_ref().map_or(0.0, |running| running.geometric(lobe.lift().si()));
            Ok(lift.gross(lobe).si().max(real))
        });
        Some(gross.map(|gross| Finding::at_most(most.si(), 0.0, gross)))
    },
    advice: false,
    levers: &[LESS_RATIO],
};

/// How far a ratio may lie from the stock one and still be it.
const SAME_RATIO: f64 = 0.005;

/// The rocker's ratio by class rule.
pub static CLASS_RATIO: Rule = Rule {
    id: "class_ratio",
    title: "ratio by class rule",
    place: Place::Rocker,
    sense: Sense::Within,
    measure: Measure::Ratio,
    sided: true,
    formula: "nominal ratio, against the only one the class allows",
    school: |_| "the class rule of this build",
    reads: &[reads![Rocker: "ratio"; Rules: "stock_ratio"]],
    gas: false,
    find: |case| {
        let (stock, rocker) = (case.resolved.given.rules.stock_ratio?, &case.resolved.train(case.side).rocker);
        let have = rocker.ratio.ok_or_else(|| crate::candidate::Gap::needing(vec![rocker.at("ratio")]));
        Some(have.map(|have| Finding::between(Some(stock - SAME_RATIO), Some(stock + SAME_RATIO), 0.0, have)))
    },
    advice: false,
    levers: &[],
};
