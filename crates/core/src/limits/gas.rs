//! Rules about compression, idle and flow that stand until breathing is computed.

use super::figures::{
    FREE_BOOST_BAR, INCH, LAST_LIFT, LAST_LIFT_FLOW, OVERLAP_BY_VACUUM, OVERLAP_DISPLACEMENT, OVERLAP_TIGHT,
    TRAPPED_BY_RON, TRAPPED_DIESEL, TRAPPED_DIESEL_TIGHT, TRAPPED_PER_BAR, TRAPPED_TIGHT,
};
use super::rule::{Finding, Lever, Measure, Rule, common};
use crate::candidate::{Gap, Inputs, Part, timing};
use crate::document::{InputUsed, Missing, Side};
use crate::quantity::{Flow, Length, Pressure};
use crate::report::{Place, Sense};
use crate::table::held;

const DEG: f64 = std::f64::consts::PI / 180.0;
const INCH_MERCURY: f64 = 3386.389;

fn is_diesel(inputs: &Inputs<'_>) -> bool {
    inputs.engine.word("combustion") == Some("diesel")
}

fn trapped(inputs: &Inputs<'_>) -> Part<f64> {
    let known = timing(inputs)?.trapped_compression_ratio;
    known.ok_or_else(|| Missing(vec![inputs.engine.path_of("chamber_volume")]).into())
}

/// Trapped compression against the fuel, or against a cold start.
pub static TRAPPED_COMPRESSION: Rule = Rule {
    id: "trapped_compression",
    title: "Trapped compression",
    place: Place::Events,
    sense: Sense::AtMost,
    measure: Measure::Ratio,
    sided: false,
    formula: "exact volume above the piston at intake closing (.006 in) over the volume at top dead centre; petrol by octane less .5 per bar of boost over .3, diesel at least 13.0 for a cold start",
    school: common,
    find: |inputs, _, _| Some(if is_diesel(inputs) { cold_start(inputs) } else { knock(inputs) }),
    inputs: |inputs, _| {
        let cam = inputs.candidate.child("cam");
        let mut used = vec![cam.input(if cam.has("events_050") { "events_050" } else { "intake_centreline" })];
        used.push(cam.child("intake").input("checks"));
        used.extend(
            ["chamber_volume", "piston_volume", "gasket_thickness", "deck_clearance", "octane_ron"]
                .map(|k| inputs.engine.input(k)),
        );
        used
    },
    advice: false,
    levers: &[
        Lever { part: "engine", field: "chamber_volume", step: 1e-6, most: 12.0 },
        Lever { part: "engine", field: "chamber_volume", step: -1e-6, most: 12.0 },
        Lever { part: "engine", field: "piston_volume", step: 1e-6, most: 15.0 },
        Lever { part: "cam", field: "intake_centreline", step: DEG, most: 8.0 },
        Lever { part: "cam", field: "intake_centreline", step: -DEG, most: 8.0 },
        Lever { part: "engine", field: "octane_ron", step: 1.0, most: 9.0 },
    ],
};

fn cold_start(inputs: &Inputs<'_>) -> Part<Finding> {
    Ok(Finding::at_least(TRAPPED_DIESEL, TRAPPED_DIESEL_TIGHT, trapped(inputs)?))
}

fn knock(inputs: &Inputs<'_>) -> Part<Finding> {
    let octane = inputs.engine.number("octane_ron");
    let octane = octane.ok_or_else(|| Missing(vec![inputs.engine.path_of("octane_ron")]))?;
    let boost_bar = inputs.boost.map_or(0.0, |(manifold, _): (Pressure, _)| manifold.si() / 1e5);
    let allowed = held(&TRAPPED_BY_RON, octane) - TRAPPED_PER_BAR * (boost_bar - FREE_BOOST_BAR).max(0.0);
    Ok(Finding::at_most(allowed, TRAPPED_TIGHT, trapped(inputs)?))
}

/// Overlap at .050 against the idle vacuum wanted.
pub static IDLE_OVERLAP: Rule = Rule {
    id: "idle_overlap",
    title: "Idle overlap",
    place: Place::Events,
    sense: Sense::AtMost,
    measure: Measure::Angle,
    sided: false,
    formula: "overlap at .050 in, against the overlap that leaves the vacuum wanted; in proportion to displacement over 5.7 l",
    school: common,
    find: |inputs, _, _| {
        if is_diesel(inputs) || !inputs.target.has("idle_vacuum") {
            return None;
        }
        let vacuum: Pressure = inputs.target.quantity("idle_vacuum")?;
        let found = || -> Part<Finding> {
            let overlap = timing(inputs)?.overlap_050_deg;
            let share = inputs.cylinder.clone()?.displacement().as_cc() / OVERLAP_DISPLACEMENT;
            let row = held(&OVERLAP_BY_VACUUM, vacuum.si() / INCH_MERCURY);
            // A larger engine stands more overlap: more above zero, less far below it.
            let allowed = if row >= 0.0 { row * share } else { row / share };
            Ok(Finding::at_most(allowed * DEG, OVERLAP_TIGHT * DEG, overlap * DEG))
        };
        Some(found())
    },
    inputs: |inputs, _| {
        let cam = inputs.candidate.child("cam");
        let first = if cam.has("events_050") { "events_050" } else { "lobe_separation" };
        vec![
            cam.input(first),
            cam.child("intake").input("checks"),
            cam.child("exhaust").input("checks"),
            inputs.target.input("idle_vacuum"),
        ]
    },
    advice: false,
    levers: &[Lever { part: "cam", field: "lobe_separation", step: 0.5 * DEG, most: 16.0 }],
};

/// Advice: does the last of the lift still bring air?
pub static LIFT_AGAINST_HEAD: Rule = Rule {
    id: "lift_against_head",
    title: "last .050 of lift on the flow bench",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Share,
    sided: true,
    formula: "flow at net lift over flow .050 in lower, less one; advice, never a failure",
    school: |_| "the least lift that makes the target; others lift past the head's best because flex eats some",
    find: |inputs, side, _| {
        let rows = inputs.port(side).rows::<Length, Flow>("flow")?;
        let own = inputs.side(side);
        Some(own.lift.clone().and_then(|lift| {
            let net = lift.net(own.lobe()?).si();
            let table: Vec<(f64, f64)> = rows.iter().map(|(l, f)| (l.si(), f.si())).collect();
            let before = held(&table, net - LAST_LIFT * INCH);
            if before <= 0.0 {
                return Err(Gap {
                    reason: "the flow table is zero there".to_owned(),
                    needs: vec![inputs.port(side).path_of("flow")],
                });
            }
            let gain = held(&table, net) / before - 1.0;
            Ok(Finding::at_least(LAST_LIFT_FLOW, 0.0, gain))
        }))
    },
    inputs: |inputs: &Inputs<'_>, side: Side| -> Vec<InputUsed> {
        vec![
            inputs.candidate.child("cam").child(side.key()).input("lobe_lift"),
            inputs.train(side, "rocker").input("ratio"),
            inputs.port(side).input("flow"),
        ]
    },
    advice: true,
    levers: &[],
};
