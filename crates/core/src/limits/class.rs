//! Rules of a class: what the engine may have at all.

use super::rule::{Finding, Lever, Measure, Rule};
use crate::quantity::Length;
use crate::report::{Place, Sense};

/// Valve lift against the class rule, lash at zero as the inspector's dial reads it.
pub static CLASS_LIFT: Rule = Rule {
    id: "class_lift",
    title: "lift against the class rule",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::Length,
    sided: true,
    formula: "lobe lift x ratio, lash at zero, against the class rule",
    school: |_| "the class rule of this build",
    find: |inputs, side, _| {
        let rules = inputs.target.child("rules");
        let most: Length = rules.quantity("maximum_lift")?;
        let own = inputs.side(side);
        let gross = own.lift.clone().and_then(|lift| Ok(lift.gross(own.lobe()?)));
        Some(gross.map(|gross| Finding::at_most(most.si(), 0.0, gross.si())))
    },
    inputs: |inputs, side| {
        vec![
            inputs.candidate.child("cam").child(side.key()).input("lobe_lift"),
            inputs.train(side, "rocker").input("ratio"),
            inputs.target.child("rules").input("maximum_lift"),
        ]
    },
    advice: false,
    levers: &[Lever { part: "rocker", field: "ratio", step: -0.05, most: 8.0 }],
};
