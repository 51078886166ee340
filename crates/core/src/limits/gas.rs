//! Rules about compression, idle and flow, and what is held against the gas once breathing has run.

use super::figures::{
    CEILING_TIGHT, INCH, LAST_LIFT, LAST_LIFT_FLOW, LATER_SPARK, OVERLAP_BY_VACUUM, OVERLAP_TIGHT, REVERSION_OVERLAP,
    TRAPPED_BY_RON, TRAPPED_COOLED_PER_BAR, TRAPPED_DIESEL, TRAPPED_DIESEL_TIGHT, TRAPPED_E85, TRAPPED_METHANOL,
    TRAPPED_PER_BAR, TRAPPED_TIGHT, VACUUM_TIGHT, overlap_in,
};
use super::levers::{EARLIER, LARGER_CHAMBER, LATER, MORE_DISH, MORE_OCTANE, SMALLER_CHAMBER, WIDER};
use super::measure::Measure;
use super::reads::{EXHAUST_LOBE, EXHAUST_PHASING, INTAKE_LOBE, INTAKE_PHASING, LOBE, RATIO, VOLUMES, reads};
use super::rule::{Case, Finding, Note, Rule, common};
use crate::candidate::{Gap, Part, Resolved, timing};
use crate::quantity::INCH_MERCURY;
use crate::report::{Place, Sense};
use crate::table::{extended, held};
use crate::words::{ExhaustManifold, FuelKind, Induction, Use};

const DEG: f64 = std::f64::consts::PI / 180.0;

fn trapped(resolved: &Resolved) -> Part<f64> {
    let engine = &resolved.given.engine;
    timing(resolved)?.trapped_compression_ratio.ok_or_else(|| Gap::needing(vec![engine.at("chamber_volume")]))
}

/// Trapped compression against the fuel, or against a cold start.
pub static TRAPPED_COMPRESSION: Rule = Rule {
    id: "trapped_compression",
    title: "Dynamic compression",
    place: Place::Events,
    sense: Sense::AtMost,
    measure: Measure::Ratio,
    sided: false,
    formula: "trapped compression at seat timing: exact volume above the piston as the intake valve closes (.006 in of lobe lift, over the lash of solid lifters) over the volume at top dead centre; petrol by RON on a line through 83 7.1, 91 7.9, 95 8.3, 98 8.7, 104 9.4, 110 10.2, ethanol blend 9.7, methanol 10.2; less 1.2 a bar of boost with a cooler, 1.7 without; diesel at least 13.0 for a cold start",
    school: common,
    reads: &[
        reads![Cam: "intake_centreline"; Engine: "octane_ron", "fuel", "combustion"; Target: "boost"],
        reads![Induction: "kind", "cooler_effectiveness"],
        INTAKE_LOBE,
        EXHAUST_LOBE,
        INTAKE_PHASING,
        EXHAUST_PHASING,
        VOLUMES,
        reads![@Intake Lifter: "lash"; Rocker: "ratio"],
        reads![@Exhaust Lifter: "lash"; Rocker: "ratio"],
    ],
    gas: true,
    find: |case| Some(if case.resolved.given.is_diesel() { cold_start(case) } else { knock(case) }),
    advice: false,
    levers: &[LATER, EARLIER, LARGER_CHAMBER, SMALLER_CHAMBER, MORE_DISH, MORE_OCTANE],
};

fn cold_start(case: &Case<'_>) -> Part<Finding> {
    Ok(Finding::at_least(TRAPPED_DIESEL, TRAPPED_DIESEL_TIGHT, trapped(case.resolved)?))
}

fn knock(case: &Case<'_>) -> Part<Finding> {
    let (engine, induction) = (&case.resolved.given.engine, &case.resolved.given.induction);
    let for_fuel = match engine.fuel {
        Some(FuelKind::E85) => TRAPPED_E85,
        Some(FuelKind::Methanol) => TRAPPED_METHANOL,
        Some(FuelKind::Petrol | FuelKind::Diesel) | None => {
            let octane = engine.octane_ron.ok_or_else(|| Gap::needing(vec![engine.at("octane_ron")]))?;
            extended(&TRAPPED_BY_RON, octane.as_ron())
        }
    };
    let cooled = induction.kind == Some(Induction::Boosted) && induction.cooler_effectiveness.is_some_and(|e| e > 0.0);
    let per_bar = if cooled { TRAPPED_COOLED_PER_BAR } else { TRAPPED_PER_BAR };
    let boost_bar = case.boost().map_or(0.0, |(manifold, _)| manifold.si() / 1e5);
    let allowed = for_fuel - per_bar * boost_bar.max(0.0);
    let finding = Finding::at_most(allowed, TRAPPED_TIGHT, trapped(case.resolved)?);
    Ok(match case.findings.gas.as_ref().and_then(|gas| gas.octane_needed) {
        // The computed reserve stands beside it, and decides.
        Some(_) => {
            Finding { is_advice: true, ..finding }.noting(Note::Text("the octane computed for this engine decides"))
        }
        None => finding,
    })
}

/// Overlap at .050 against the most that 5.7 litres stand, crank degrees, in proportion to displacement.
fn overlap_within(case: &Case<'_>, most: f64) -> Part<Finding> {
    let overlap = timing(case.resolved)?.overlap_050_deg;
    let allowed = overlap_in(case.resolved.cylinder.clone()?.displacement().as_cc(), most);
    Ok(Finding::at_most(allowed * DEG, OVERLAP_TIGHT * DEG, overlap * DEG))
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
    reads: &[
        reads![Cam: "lobe_separation"; Target: "idle_vacuum"; Engine: "combustion"],
        INTAKE_LOBE,
        EXHAUST_LOBE,
        INTAKE_PHASING,
        EXHAUST_PHASING,
        reads![Engine: "bore", "stroke", "cylinders", "rod_length", "pin_offset", "deck_clearance", "gasket_thickness"],
    ],
    gas: false,
    find: |case| {
        if case.resolved.given.is_diesel() {
            return None;
        }
        let vacuum = case.resolved.given.target.idle_vacuum?;
        Some(overlap_within(case, held(&OVERLAP_BY_VACUUM, vacuum.si() / INCH_MERCURY)))
    },
    advice: false,
    levers: &[WIDER],
};

/// Overlap against an exhaust whose water the pulses may draw back.
pub static WATER_REVERSION: Rule = Rule {
    id: "water_reversion",
    title: "Overlap, wet exhaust",
    place: Place::Events,
    sense: Sense::AtMost,
    measure: Measure::Angle,
    sided: false,
    formula: "overlap at .050 in, against what a water-jacketed exhaust stands before water is drawn back to the valves at idle: 6 deg in 5.7 l, in proportion to displacement",
    school: |_| "common practice, from memory: a wide separation; dry risers and a long rise before the water stand more",
    reads: &[
        reads![@Exhaust Port: "manifold"],
        reads![Cam: "lobe_separation"; Build: "use"; Engine: "combustion"],
        INTAKE_LOBE,
        EXHAUST_LOBE,
        INTAKE_PHASING,
        EXHAUST_PHASING,
        reads![Engine: "bore", "stroke", "cylinders", "rod_length", "pin_offset", "deck_clearance", "gasket_thickness"],
    ],
    gas: false,
    find: |case| {
        let given = &case.resolved.given;
        if given.is_diesel() {
            return None;
        }
        match given.primary.manifold {
            Some(ExhaustManifold::WaterJacketed) => {}
            // A boat's exhaust that nobody described may well be wet.
            None if given.purpose.used_for == Some(Use::Marine) => {
                return Some(Err(Gap::needing(vec![given.primary.at("manifold")])));
            }
            _ => return None,
        }
        Some(overlap_within(case, REVERSION_OVERLAP))
    },
    advice: false,
    levers: &[WIDER],
};

/// Advice: does the last of the lift still bring air?
pub static LIFT_AGAINST_HEAD: Rule = Rule {
    id: "lift_against_head",
    title: "last .050 of lift",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Share,
    sided: true,
    formula: "flow at net lift over flow .050 in lower, less one; advice, never a failure",
    school: |_| "the least lift that makes the target; others lift past the head's best because flex eats some",
    reads: &[reads![Lobe: "lobe_lift"; Rocker: "ratio"; Port: "flow"], LOBE, RATIO],
    gas: false,
    find: |case| {
        let port = case.resolved.port(case.side);
        let rows = port.flow.as_ref()?;
        let own = case.resolved.side(case.side);
        Some(own.lift.clone().and_then(|lift| {
            let net = lift.net(own.lobe()?).si();
            let table: Vec<(f64, f64)> = rows.iter().map(|(l, f)| (l.si(), f.si())).collect();
            let before = held(&table, net - LAST_LIFT * INCH);
            if before <= 0.0 {
                return Err(Gap { reason: "the flow table is zero there".to_owned(), needs: vec![port.at("flow")] });
            }
            let gain = held(&table, net) / before - 1.0;
            Ok(Finding::at_least(LAST_LIFT_FLOW, 0.0, gain))
        }))
    },
    advice: true,
    levers: &[],
};

/// The fuel against the knock integral.
pub static OCTANE: Rule = Rule {
    id: "octane",
    title: "Octane needed",
    place: Place::Torque,
    sense: Sense::AtMost,
    measure: Measure::Octane,
    sided: false,
    formula: "RON at which Livengood and Wu's integral with Douaud and Eyzat's delay just reaches one, greatest over the speeds, with the spark at its best; ten numbers more than the fuel has are made up for by less spark; known to some four numbers (8 K of the end gas, and what the delay's own data scatter by: common practice, no source)",
    school: common,
    reads: &[reads![Engine: "octane_ron", "chamber_volume"; Cam: "intake_centreline"]],
    gas: true,
    find: |case| {
        let need = case.findings.gas.as_ref()?.octane_needed?;
        let have = case.resolved.given.engine.octane_ron?.as_ron();
        Some(Ok(Finding::at_most(have + LATER_SPARK, LATER_SPARK, need)))
    },
    advice: false,
    levers: &[],
};

/// Cylinder pressure against what the engine is trusted with.
pub static PEAK_PRESSURE: Rule = Rule {
    id: "peak_pressure",
    title: "Peak cylinder pressure",
    place: Place::Torque,
    sense: Sense::AtMost,
    measure: Measure::Pressure,
    sided: false,
    formula: "highest cylinder pressure over the speeds, absolute",
    school: common,
    reads: &[reads![Engine: "pressure_ceiling"; Cam: "intake_centreline"]],
    gas: true,
    find: |case| {
        let have = case.findings.gas.as_ref()?.peak_pressure;
        let ceiling = case.resolved.given.engine.pressure_ceiling?;
        Some(Ok(Finding::at_most(ceiling.si(), CEILING_TIGHT, have)))
    },
    advice: false,
    levers: &[],
};

/// The vacuum an idling engine leaves against the one wanted.
pub static IDLE_VACUUM: Rule = Rule {
    id: "idle_vacuum",
    title: "Vacuum at idle",
    place: Place::Torque,
    sense: Sense::AtLeast,
    measure: Measure::Vacuum,
    sided: false,
    formula: "outside pressure less the manifold pressure at which the engine just turns itself and .1 bar of load at idle speed, the spark at its best",
    school: common,
    reads: &[reads![Target: "idle_vacuum", "idle_at"; Cam: "intake_centreline"]],
    gas: true,
    find: |case| {
        let have = case.findings.gas.as_ref()?.idle_vacuum?;
        let need = case.resolved.given.target.idle_vacuum?;
        Some(Ok(Finding::at_least(need.si(), VACUUM_TIGHT, have)))
    },
    advice: false,
    levers: &[],
};
