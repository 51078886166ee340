//! Rules about what must not touch.

use super::figures::{
    HARDWARE, HARDWARE_TIGHT, HEAD_ALUMINIUM, HEAD_STEEL, HEAD_TIGHT, INCH, PISTON_ALUMINIUM_EXHAUST,
    PISTON_ENGINEERED, PISTON_GENEROUS, PISTON_TIGHT, RADIAL as RADIAL_NEED,
};
use super::rule::{Finding, Lever, Measure, Rule, common};
use crate::candidate::{Inputs, piston_clearance, retainer_gap, valves_apart};
use crate::document::Side;
use crate::report::{Place, Sense};

const DEG: f64 = std::f64::consts::PI / 180.0;

fn is_engineered(inputs: &Inputs<'_>) -> bool {
    inputs.target.word("piston_clearance_school") == Some("engineered")
}

fn has_aluminium_rods(inputs: &Inputs<'_>) -> bool {
    inputs.engine.word("rod_material") == Some("aluminium")
}

/// Valve to piston at rest.
pub static PISTON_CLEARANCE: Rule = Rule {
    id: "piston_clearance",
    title: "valve to piston",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "smallest distance along the stem from the valve's edge to the pocketed crown over the cycle, cam on time, parts rigid and cold",
    school: |inputs| {
        if is_engineered(inputs) {
            "engineered: lower only with a growth budget"
        } else {
            "generous (default): conventional minimum, because it forgives what was not measured"
        }
    },
    find: |inputs, side, stages| {
        let (intake, exhaust) = if is_engineered(inputs) { PISTON_ENGINEERED } else { PISTON_GENEROUS };
        let need = match side {
            Side::Intake => intake,
            Side::Exhaust if has_aluminium_rods(inputs) => exhaust + PISTON_ALUMINIUM_EXHAUST,
            Side::Exhaust => exhaust,
        };
        Some(
            piston_clearance(inputs, side, stages)
                .map(|found| Finding::at_least(need * INCH, PISTON_TIGHT * INCH, found.along_stem.si())),
        )
    },
    inputs: |inputs, side| {
        let port = inputs.port(side);
        let cam = inputs.candidate.child("cam");
        vec![
            port.child("pocket").input("depth"),
            port.input("face_recess"),
            inputs.engine.input("deck_clearance"),
            inputs.engine.input("gasket_thickness"),
            cam.child(side.key()).input("lobe_lift"),
            cam.input("intake_centreline"),
            inputs.train(side, "rocker").input("ratio"),
            inputs.engine.input("rod_material"),
        ]
    },
    advice: false,
    levers: &[
        Lever { part: "pocket", field: "depth", step: 0.005 * INCH, most: 30.0 },
        Lever { part: "cam", field: "intake_centreline", step: DEG, most: 8.0 },
        Lever { part: "cam", field: "intake_centreline", step: -DEG, most: 8.0 },
        Lever { part: "cam", field: "lobe_separation", step: DEG, most: 6.0 },
        Lever { part: "rocker", field: "ratio", step: -0.05, most: 4.0 },
        Lever { part: "engine", field: "gasket_thickness", step: 0.005 * INCH, most: 8.0 },
    ],
};

/// Valve edge to pocket wall.
pub static RADIAL: Rule = Rule {
    id: "radial",
    title: "valve to pocket wall",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "pocket radius less valve radius less the sideways distance of stem and pocket axis, where the valve is in the pocket or closest to the piston; guide play and head bending are not in it",
    school: common,
    find: |inputs, side, stages| match piston_clearance(inputs, side, stages) {
        Ok(found) => found.radial.map(|gap| Ok(Finding::at_least(RADIAL_NEED * INCH, HARDWARE_TIGHT * INCH, gap.si()))),
        Err(gap) => Some(Err(gap)),
    },
    inputs: |inputs, side| {
        let port = inputs.port(side);
        let pocket = port.child("pocket");
        vec![
            pocket.input("diameter"),
            pocket.input("offset_x"),
            pocket.input("offset_y"),
            port.input("valve_diameter"),
            port.input("valve_offset_x"),
            port.input("valve_offset_y"),
            port.input("valve_angle"),
        ]
    },
    advice: false,
    levers: &[Lever { part: "pocket", field: "diameter", step: 0.010 * INCH, most: 20.0 }],
};

/// Head against head.
pub static VALVE_TO_VALVE: Rule = Rule {
    id: "valve_to_valve",
    title: "Valve to valve",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "smallest distance between the two heads' lower faces over overlap",
    school: common,
    find: |inputs, _, _| {
        Some(valves_apart(inputs).map(|(gap, _)| Finding::at_least(HARDWARE * INCH, HARDWARE_TIGHT * INCH, gap.si())))
    },
    inputs: |inputs, _| {
        let mut used = vec![inputs.candidate.child("cam").input("lobe_separation")];
        for side in Side::BOTH {
            let port = inputs.port(side);
            used.extend(["valve_offset_x", "valve_offset_y", "valve_diameter", "valve_angle"].map(|k| port.input(k)));
        }
        used
    },
    advice: false,
    levers: &[Lever { part: "cam", field: "lobe_separation", step: DEG, most: 6.0 }],
};

/// Piston to head at rest.
pub static PISTON_TO_HEAD: Rule = Rule {
    id: "piston_to_head",
    title: "Piston to head",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "deck clearance + crushed gasket, at rest",
    school: |inputs| {
        if has_aluminium_rods(inputs) { "common practice, aluminium rods" } else { "common practice, steel rods" }
    },
    find: |inputs, _, _| {
        let need = if has_aluminium_rods(inputs) { HEAD_ALUMINIUM } else { HEAD_STEEL };
        Some(
            inputs
                .cylinder
                .clone()
                .map(|cylinder| Finding::at_least(need * INCH, HEAD_TIGHT * INCH, cylinder.piston_to_head().si())),
        )
    },
    inputs: |inputs, _| ["gasket_thickness", "deck_clearance", "rod_material"].map(|k| inputs.engine.input(k)).into(),
    advice: false,
    levers: &[
        Lever { part: "engine", field: "gasket_thickness", step: 0.005 * INCH, most: 10.0 },
        Lever { part: "engine", field: "deck_clearance", step: 0.005 * INCH, most: 10.0 },
    ],
};

/// Retainer to seal at full lift.
pub static RETAINER_TO_SEAL: Rule = Rule {
    id: "retainer_to_seal",
    title: "retainer to seal",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "installed height - retainer depth - seal height - net lift",
    school: common,
    find: |inputs, side, _| {
        Some(retainer_gap(inputs, side).map(|gap| Finding::at_least(HARDWARE * INCH, HARDWARE_TIGHT * INCH, gap.si())))
    },
    inputs: |inputs, side| {
        vec![
            inputs.train(side, "spring").input("installed_height"),
            inputs.train(side, "retainer").input("depth"),
            inputs.port(side).input("seal_height"),
            inputs.candidate.child("cam").child(side.key()).input("lobe_lift"),
            inputs.train(side, "rocker").input("ratio"),
        ]
    },
    advice: false,
    levers: &[
        Lever { part: "port", field: "seal_height", step: -0.010 * INCH, most: 20.0 },
        Lever { part: "spring", field: "installed_height", step: 0.010 * INCH, most: 12.0 },
        Lever { part: "rocker", field: "ratio", step: -0.05, most: 4.0 },
    ],
};
