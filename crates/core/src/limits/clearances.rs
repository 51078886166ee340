//! Rules about what must not touch in the cylinder.

use super::figures::{
    BORE_WALL as WALL_NEED, HARDWARE, HARDWARE_TIGHT, HEAD_ALUMINIUM, HEAD_STEEL, HEAD_TIGHT, INCH, PISTON_ALUMINIUM,
    PISTON_BUDGETED, PISTON_DIESEL, PISTON_ENGINEERED, PISTON_GENEROUS, PISTON_TIGHT, RADIAL as RADIAL_NEED,
};
use super::levers::{
    DEEPER, DEEPER_DECK, EARLIER, LATER, LESS_RATIO, SEAL_LOWER, TALLER, THICKER_GASKET, WIDER, WIDER_POCKET,
};
use super::measure::Measure;
use super::reads::{
    CROWN, EXHAUST_LOBE, EXHAUST_PHASING, EXHAUST_RATIO, EXHAUST_VALVE, INTAKE_LOBE, INTAKE_PHASING, INTAKE_RATIO,
    INTAKE_VALVE, LOBE, PHASING, PISTON, RATIO, VALVE, reads,
};
use super::rule::{Case, Finding, Note, Rule, common};
use crate::candidate::{Part, Resolved, bore_wall, piston_clearance, retainer_gap, valves_apart};
use crate::document::Side;
use crate::quantity::Length;
use crate::report::{Place, Sense, Verdict};
use crate::words::{ClearanceSchool, RodMaterial};

fn is_engineered(resolved: &Resolved) -> bool {
    resolved.given.target.piston_clearance_school == Some(ClearanceSchool::Engineered)
}

/// Engineered, and every term of the growth is known.
fn is_budgeted(resolved: &Resolved) -> bool {
    is_engineered(resolved) && resolved.given.has_growth_budget
}

pub(super) fn has_aluminium_rods(resolved: &Resolved) -> bool {
    resolved.given.engine.rod_material == Some(RodMaterial::Aluminium)
}

/// Valve to piston at rest.
pub static PISTON_CLEARANCE: Rule = Rule {
    id: "piston_clearance",
    title: "valve to piston",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "smallest distance along the stem from the valve's edge to the pocketed crown over the cycle, cam on time, parts rigid and cold; a dome's shape is not known, so that over one only a measured drop tells",
    school: |resolved| {
        if is_budgeted(resolved) {
            "engineered, with a growth budget: what is left at speed decides"
        } else if is_engineered(resolved) {
            "generous, although engineered is asked for: that needs a growth budget, every term given or a mark of a running engine"
        } else if resolved.given.is_diesel() {
            "generous (default), of a governed diesel: its valves stand nearly flush and lift little at overlap"
        } else {
            "generous (default): conventional minimum, because it forgives what was not measured"
        }
    },
    reads: &[
        reads![Pocket: "depth"; Port: "face_recess"; Engine: "deck_clearance", "gasket_thickness"; Lobe: "lobe_lift"],
        reads![Cam: "intake_centreline"; Rocker: "ratio"; Engine: "rod_material"; Port: "piston_drop", "drops"],
        reads![Target: "piston_clearance_school"],
        CROWN,
        VALVE,
        LOBE,
        PHASING,
        RATIO,
        PISTON,
    ],
    gas: false,
    find: |case| {
        let resolved = case.resolved;
        let of = |(intake, exhaust): (f64, f64)| if case.side == Side::Intake { intake } else { exhaust };
        let more = if has_aluminium_rods(resolved) { of(PISTON_ALUMINIUM) } else { 0.0 };
        let gap = piston_clearance(resolved, case.side, case.stages).map(|found| found.along_stem.si());
        let generous = if resolved.given.is_diesel() { PISTON_DIESEL } else { PISTON_GENEROUS };
        let (usual, high) = (of(PISTON_ENGINEERED) + more, of(generous) + more);
        let finding = |gap: f64| {
            if !is_budgeted(resolved) {
                return Finding::at_least(high * INCH, PISTON_TIGHT * INCH, gap);
            }
            let need = of(PISTON_BUDGETED) + more;
            let finding = Finding::at_least(need * INCH, (usual - need) * INCH, gap);
            let below = Note::Below(usual * INCH, high * INCH, "what is left at speed decides");
            if finding.verdict() == Verdict::Tight { finding.noting(below) } else { finding }
        };
        Some(gap.map(finding))
    },
    advice: false,
    levers: &[EARLIER, LATER, DEEPER, THICKER_GASKET, WIDER, LESS_RATIO],
};

/// Valve edge to pocket wall.
pub static RADIAL: Rule = Rule {
    id: "radial",
    title: "valve to pocket wall",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "smallest distance from that part of the valve's edge which is inside the pocket to its wall, square to the pocket, over the cycle; guide play and head bending are not in it",
    school: common,
    reads: &[
        reads![Pocket: "diameter", "offset_x", "offset_y"; Port: "valve_diameter", "valve_offset_x", "valve_offset_y"],
        CROWN,
        VALVE,
        LOBE,
        PHASING,
        RATIO,
        PISTON,
        reads![Port: "piston_drop", "drops"],
    ],
    gas: false,
    find: |case| {
        if !case.resolved.given.pocket(case.side).is_given {
            return None;
        }
        match piston_clearance(case.resolved, case.side, case.stages) {
            Ok(found) => {
                found.radial.map(|gap| Ok(Finding::at_least(RADIAL_NEED * INCH, HARDWARE_TIGHT * INCH, gap.si())))
            }
            Err(gap) => Some(Err(gap)),
        }
    },
    advice: false,
    levers: &[WIDER_POCKET],
};

/// Valve edge to cylinder wall.
pub static BORE_WALL: Rule = Rule {
    id: "bore_wall",
    title: "valve to cylinder wall",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "smallest distance from the valve's edge to the wall of gasket and bore over the whole lift, wherever the edge is below the gasket face",
    school: common,
    reads: &[
        reads![Port: "valve_offset_y", "valve_offset_x"],
        VALVE,
        reads![Port: "valves", "second_offset_x", "second_offset_y"; Engine: "bore", "gasket_bore", "gasket_thickness"],
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| match bore_wall(case.resolved, case.side) {
        Ok(Some(gap)) => Some(Ok(Finding::at_least(WALL_NEED * INCH, HARDWARE_TIGHT * INCH, gap.si()))),
        Ok(None) => None,
        Err(gap) => Some(Err(gap)),
    },
    advice: false,
    levers: &[],
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
    reads: &[
        reads![Cam: "lobe_separation"],
        INTAKE_VALVE,
        EXHAUST_VALVE,
        reads![Port: "valves", "second_offset_x", "second_offset_y"],
        INTAKE_LOBE,
        EXHAUST_LOBE,
        INTAKE_PHASING,
        EXHAUST_PHASING,
        INTAKE_RATIO,
        EXHAUST_RATIO,
    ],
    gas: false,
    find: |case| {
        let found = valves_apart(case.resolved, case.stages);
        Some(found.map(|gap| Finding::at_least(HARDWARE * INCH, HARDWARE_TIGHT * INCH, gap.si())))
    },
    advice: false,
    levers: &[WIDER],
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
    school: |resolved| {
        if has_aluminium_rods(resolved) { "common practice, aluminium rods" } else { "common practice, steel rods" }
    },
    reads: &[reads![Engine: "gasket_thickness", "deck_clearance", "rod_material", "bore", "stroke", "rod_length",
        "pin_offset", "cylinders"]],
    gas: false,
    find: |case| {
        let need = if has_aluminium_rods(case.resolved) { HEAD_ALUMINIUM } else { HEAD_STEEL };
        let gap = case.resolved.cylinder.clone().map(|cylinder| cylinder.piston_to_head().si());
        Some(gap.map(|gap| Finding::at_least(need * INCH, HEAD_TIGHT * INCH, gap)))
    },
    advice: false,
    levers: &[THICKER_GASKET, DEEPER_DECK],
};

/// What is left between retainer and seal, m.
pub(super) fn retainer_left(case: &Case<'_>) -> Part<f64> {
    retainer_gap(case.resolved, case.side).map(Length::si)
}

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
    reads: &[
        reads![Spring: "installed_height"; Retainer: "depth"; Port: "seal_height"; Lobe: "lobe_lift"; Rocker: "ratio"],
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| Some(retainer_left(case).map(|gap| Finding::at_least(HARDWARE * INCH, HARDWARE_TIGHT * INCH, gap))),
    advice: false,
    levers: &[TALLER, SEAL_LOWER, LESS_RATIO],
};
