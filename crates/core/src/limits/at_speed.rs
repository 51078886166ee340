//! Rules about what is left of gaps at speed. What a running engine takes off is computed for every change; what the trains in
//! motion add was found by turning them, and stands where it was found.

use super::clearances::retainer_left;
use super::figures::{
    AT_SPEED_TIGHT, HEAD_TIGHT, HEADS_AT_SPEED, INCH, PISTON_AT_SPEED as PISTON_NEED, RADIAL_AT_SPEED as RADIAL_NEED,
    ROD_ROOM as ROD_NEED, ROOM_AT_SPEED, SPRING_AT_SPEED,
};
use super::levers::{
    DEEPER, DEEPER_DECK, EARLIER, LATER, LESS_RATIO, SEAL_LOWER, TALLER, THICKER_GASKET, WIDER, WIDER_POCKET,
};
use super::measure::Measure;
use super::reads::{
    CROWN, EXHAUST_LOBE, EXHAUST_PHASING, EXHAUST_RATIO, EXHAUST_VALVE, GROWTH, INTAKE_LOBE, INTAKE_PHASING,
    INTAKE_RATIO, INTAKE_VALVE, LOBE, PHASING, PISTON, RATIO, SPRING, TOP_SPEED, VALVE, reads,
};
use super::room::{GEOMETRY, cover_room, retainer_room, stud_room};
use super::rule::{Case, Finding, Rule, common};
use super::springs::bind_left;
use crate::candidate::{Growing, Part, Resolved, lack, quiet_gap, radial_at_speed, together, valves_apart};
use crate::report::{Place, Sense};

/// Whose the terms are.
fn terms(resolved: &Resolved) -> &'static str {
    if resolved.given.has_growth_budget {
        "engineered: every term of the growth is given"
    } else {
        "terms of growth by usual figures (assumed): give your own, or a mark of a running engine"
    }
}

fn left(need: f64, have: f64) -> Finding {
    Finding::at_least(need * INCH, AT_SPEED_TIGHT * INCH, have)
}

/// By how much the train in motion lifts the valve further; negative where a lifter's give lifts it less.
fn more_lift(case: &Case<'_>) -> Option<f64> {
    Some(case.findings.moved.as_ref()?.lift[case.side.index()])
}

/// Valve to piston at speed.
pub static PISTON_AT_SPEED: Rule = Rule {
    id: "piston_at_speed",
    title: "valve to piston at speed",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "gap along the stem with the piston raised by every term of growth and the cam late by what its drive lags, least of the speeds up to shift plus overspeed; with the lift in motion where the train was turned",
    school: terms,
    reads: &[
        TOP_SPEED,
        GROWTH,
        reads![Growth: "cam_lag_per_1000_rpm"; Engine: "cam_drive"; Port: "piston_drop", "drops"],
        CROWN,
        VALVE,
        LOBE,
        PHASING,
        RATIO,
        PISTON,
    ],
    gas: false,
    find: |case| {
        // Without a shift there is no speed to hold it at: the rule at rest stands alone.
        case.resolved.top_speed()?;
        let moved = case.findings.moved.as_ref().map_or(0.0, |moved| moved.piston[case.side.index()]);
        Some(quiet_gap(case.resolved, case.side, case.stages).map(|gap| left(PISTON_NEED, gap + moved)))
    },
    advice: false,
    levers: &[EARLIER, LATER, DEEPER, THICKER_GASKET, WIDER, LESS_RATIO],
};

/// Piston to head at speed.
pub static HEAD_AT_SPEED: Rule = Rule {
    id: "head_at_speed",
    title: "Piston to head at speed",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "deck clearance + crushed gasket, less every term of growth at shift plus overspeed",
    school: terms,
    reads: &[reads![Engine: "gasket_thickness", "deck_clearance"], TOP_SPEED, GROWTH, PISTON],
    gas: false,
    find: |case| {
        case.resolved.top_speed()?;
        let found = || -> Part<Finding> {
            let (growing, cylinder) = (Growing::of(case.resolved), case.resolved.cylinder.clone());
            together([lack(&growing), lack(&cylinder)])?;
            let (growing, rest) = (growing?, cylinder?.piston_to_head().si());
            Ok(Finding::at_least(0.0, HEAD_TIGHT * INCH, rest - growing.of_piston(growing.top)))
        };
        Some(found())
    },
    advice: false,
    levers: &[THICKER_GASKET, DEEPER_DECK],
};

/// Head against head with the lift in motion.
pub static VALVES_AT_SPEED: Rule = Rule {
    id: "valves_at_speed",
    title: "Valve to valve at speed",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "smallest distance between the two heads over overlap with the lift each valve has in motion, least of the speeds up to shift plus overspeed",
    school: common,
    reads: &[
        TOP_SPEED,
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
        let moved = case.findings.moved.as_ref()?.heads?;
        Some(valves_apart(case.resolved, case.stages).map(|gap| left(HEADS_AT_SPEED, gap.si() + moved)))
    },
    advice: false,
    levers: &[WIDER],
};

/// Valve edge to pocket wall in a running engine.
pub static RADIAL_AT_SPEED: Rule = Rule {
    id: "radial_at_speed",
    title: "valve to pocket wall at speed",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "distance from the valve's edge to the pocket's wall at rest, less what the open valve sways in its guide and the piston in its bore",
    school: common,
    reads: &[
        reads![Growth: "valve_sway", "piston_sway"],
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
        match radial_at_speed(case.resolved, case.side, case.stages) {
            Ok(gap) => Some(Ok(left(RADIAL_NEED, gap?))),
            Err(gap) => Some(Err(gap)),
        }
    },
    advice: false,
    levers: &[WIDER_POCKET],
};

/// Retainer to seal at the most lift in motion.
pub static RETAINER_AT_SPEED: Rule = Rule {
    id: "retainer_at_speed",
    title: "retainer to seal at speed",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "retainer to seal at full lift of rigid parts, less what the train in motion lifts the valve further",
    school: common,
    reads: &[
        reads![Spring: "installed_height"; Retainer: "depth"; Port: "seal_height"; Lobe: "lobe_lift"; Rocker: "ratio"],
        TOP_SPEED,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let more = more_lift(case)?;
        Some(retainer_left(case).map(|gap| left(SPRING_AT_SPEED, gap - more)))
    },
    advice: false,
    levers: &[TALLER, SEAL_LOWER, LESS_RATIO],
};

/// Coil bind at the most lift in motion.
pub static BIND_AT_SPEED: Rule = Rule {
    id: "bind_at_speed",
    title: "coil-bind clearance at speed",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "travel left to coil bind at full lift of rigid parts, less what the train in motion lifts the valve further",
    school: common,
    reads: &[
        reads![Spring: "installed_height", "coil_bind_height"; Lobe: "lobe_lift"; Rocker: "ratio"],
        TOP_SPEED,
        SPRING,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let more = more_lift(case)?;
        Some(bind_left(case).map(|gap| left(SPRING_AT_SPEED, gap - more)))
    },
    advice: false,
    levers: &[TALLER, LESS_RATIO],
};

/// Room around the rocker at the most lift in motion.
pub static ROCKER_AT_SPEED: Rule = Rule {
    id: "rocker_at_speed",
    title: "room around the rocker at speed",
    place: Place::Rocker,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "least of rocker to retainer, stud to the end of its slot and rocker to cover, swept on to the most lift in motion",
    school: common,
    reads: &[
        reads![Rocker: "body_depth", "slot_length", "slot_depth", "stud_diameter", "mount", "top_height", "adjuster_height"],
        reads![Retainer: "diameter", "below_tip"; Spring: "top_diameter"; Port: "cover_room"],
        TOP_SPEED,
        GEOMETRY,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let more = more_lift(case)?.max(0.0);
        let rooms = [retainer_room(case, more), stud_room(case, more), cover_room(case, more)];
        let known = rooms.into_iter().flatten().collect::<Part<Vec<f64>>>();
        match known {
            Ok(gaps) => Some(Ok(left(ROOM_AT_SPEED, gaps.into_iter().reduce(f64::min)?))),
            // The rules at rest say what is missing.
            Err(_) => None,
        }
    },
    advice: false,
    levers: &[],
};

/// The smaller of both gaps around a rod, m; `None` while neither was measured.
fn rod_room(case: &Case<'_>) -> Option<f64> {
    let engine = &case.resolved.given.engine;
    [engine.rod_to_cam, engine.rod_to_block].into_iter().flatten().map(|gap| gap.si()).reduce(f64::min)
}

/// Rod to cam and block by feeler.
pub static ROD_ROOM: Rule = Rule {
    id: "rod_room",
    title: "Rod to cam and block",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "the smaller of both gaps as a feeler finds them over two turns, with this cam in",
    school: common,
    reads: &[reads![Engine: "rod_to_cam", "rod_to_block"]],
    gas: false,
    find: |case| Some(Ok(Finding::at_least(ROD_NEED * INCH, AT_SPEED_TIGHT * INCH, rod_room(case)?))),
    advice: false,
    levers: &[],
};

/// The same at speed.
pub static ROD_AT_SPEED: Rule = Rule {
    id: "rod_at_speed",
    title: "Rod to cam and block at speed",
    place: Place::Clearance,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: false,
    formula: "the smaller of both gaps by feeler, less rod stretch, crank bending and play of the bearings at shift plus overspeed",
    school: terms,
    reads: &[reads![Engine: "rod_to_cam", "rod_to_block"], TOP_SPEED, GROWTH],
    gas: false,
    find: |case| {
        let rest = rod_room(case)?;
        case.resolved.top_speed()?;
        Some(Growing::of(case.resolved).map(|growing| left(ROOM_AT_SPEED, rest - growing.of_the_big_end())))
    },
    advice: false,
    levers: &[],
};
