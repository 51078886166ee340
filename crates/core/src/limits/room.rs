//! Rules about room around rocker and pushrod through the sweep. None is held while where the pivot stands is assumed: an
//! ideal height would clear everything.

use super::figures::{
    COVER_ROOM as COVER_NEED, HARDWARE_TIGHT, HOLE, INCH, PATTERN_SHARE, PATTERN_TIGHT, RETAINER_ROOM, SLOT_END,
};
use super::levers::{
    LONGER_SLOT, NARROWER_RETAINER, PIVOT_HIGHER, PIVOT_IN, PIVOT_LOWER, PIVOT_OUT, TALLER_COVER, THINNER_PUSHROD,
    WIDER_HOLE,
};
use super::measure::Measure;
use super::reads::{LOBE, RATIO, Reads, reads};
use super::rule::{Case, Finding, Rule, common};
use crate::candidate::{Gap, Part};
use crate::given::{Needs, need};
use crate::quantity::Length;
use crate::report::{Place, Sense};
use crate::train::rocker::{Pose, Rocker};
use crate::train::room::{Above, Retainer, Slot, to_cover, to_hole, to_retainer, to_stud};
use crate::words::Mount;

/// Rocker and sweep of a side, its pivot's place measured, the valve lifted `more` m beyond full lift; a gap while the place is
/// not known or the rocker locks.
pub(super) fn swept<T>(case: &Case<'_>, more: f64, room: impl FnOnce(&Rocker, &[Pose]) -> Option<T>) -> Part<T> {
    let (rocker, pushrod) = (&case.resolved.train(case.side).rocker, &case.resolved.train(case.side).pushrod);
    let mut needs = Needs::default();
    let _ = (need!(needs, rocker.pivot_to_tip), need!(needs, rocker.pivot_to_cup), need!(needs, rocker.pivot_height));
    let _ = (need!(needs, rocker.stem_offset), need!(needs, pushrod.length));
    needs.met(())?;
    let running = case.resolved.side(case.side).running.clone()?;
    let locks = || Gap::because("the rocker locks before full lift");
    let further = running.sweep.last().filter(|_| more > 0.0).map(|last| last.lifter + more / last.ratio);
    let found = running.rocker.as_ref().ok_or_else(locks)?;
    let beyond = further.map(|lifter| found.sweep(lifter).map_err(|_| locks())).transpose()?;
    room(found, beyond.as_ref().unwrap_or(&running.sweep)).ok_or_else(locks)
}

/// What every one of these rules stands on.
pub(super) const GEOMETRY: Reads = reads![
    Rocker: "pivot_height", "stem_offset", "pivot_to_tip", "pivot_to_cup", "tip_radius", "cup_drop", "pushrod_angle";
    Pushrod: "length"
];

/// Where the tip runs on the stem.
pub static TIP_PATTERN: Rule = Rule {
    id: "tip_pattern",
    title: "contact pattern",
    place: Place::Rocker,
    sense: Sense::AtMost,
    measure: Measure::Length,
    sided: true,
    formula: "farthest the contact stands from the stem's axis through the sweep; at most a quarter of the stem's diameter",
    school: common,
    reads: &[reads![Rocker: "pivot_height", "stem_offset"; Port: "stem_diameter"], GEOMETRY, LOBE, RATIO],
    gas: false,
    find: |case| {
        let (rocker, port) = (&case.resolved.train(case.side).rocker, case.resolved.port(case.side));
        if rocker.pivot_to_tip.is_none() && rocker.pivot_to_cup.is_none() {
            return None;
        }
        let found = || -> Part<Finding> {
            let mut needs = Needs::default();
            let stem = need!(needs, port.stem_diameter);
            needs.met(())?;
            let farthest = |_: &Rocker, sweep: &[Pose]| sweep.iter().map(|pose| pose.contact.abs()).reduce(f64::max);
            Ok(Finding::at_most(PATTERN_SHARE * stem.si(), PATTERN_TIGHT * INCH, swept(case, 0.0, farthest)?))
        };
        Some(found())
    },
    advice: false,
    levers: &[PIVOT_HIGHER, PIVOT_LOWER, PIVOT_IN, PIVOT_OUT],
};

/// From the retainer's edge to the body above it, m; `None` while neither is given.
pub(super) fn retainer_room(case: &Case<'_>, more: f64) -> Option<Part<f64>> {
    let train = case.resolved.train(case.side);
    let (rocker, retainer) = (&train.rocker, &train.retainer);
    if rocker.body_depth.is_none() && retainer.diameter.is_none() {
        return None;
    }
    let found = || {
        let mut needs = Needs::default();
        let underside = need!(needs, rocker.body_depth).si();
        let (diameter, below_tip) = (need!(needs, retainer.diameter).si(), need!(needs, retainer.below_tip).si());
        needs.met(())?;
        let top = train.spring.top_diameter.map_or(0.0, Length::si);
        let retainer = Retainer { diameter: diameter.max(top), below_tip };
        swept(case, more, |rocker, sweep| to_retainer(rocker, sweep, retainer, underside))
    };
    Some(found())
}

/// The body above the retainer.
pub static ROCKER_TO_RETAINER: Rule = Rule {
    id: "rocker_to_retainer",
    title: "rocker to retainer",
    place: Place::Rocker,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "least distance from the retainer's edge on the pivot's side to the underside of the body, through the sweep",
    school: common,
    reads: &[
        reads![Rocker: "body_depth"; Retainer: "diameter", "below_tip"; Spring: "top_diameter"],
        GEOMETRY,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let room = retainer_room(case, 0.0)?;
        Some(room.map(|gap| Finding::at_least(RETAINER_ROOM * INCH, HARDWARE_TIGHT * INCH, gap)))
    },
    advice: false,
    levers: &[NARROWER_RETAINER],
};

/// From a stud to the end of its slot, m; `None` without a slot.
pub(super) fn stud_room(case: &Case<'_>, more: f64) -> Option<Part<f64>> {
    let rocker = &case.resolved.train(case.side).rocker;
    if rocker.mount != Some(Mount::Stud) || rocker.slot_length.is_none() {
        return None;
    }
    let found = || {
        let mut needs = Needs::default();
        let (length, depth) = (need!(needs, rocker.slot_length).si(), need!(needs, rocker.slot_depth).si());
        let stud = need!(needs, rocker.stud_diameter).si();
        needs.met(())?;
        swept(case, more, |rocker, sweep| to_stud(rocker, sweep, Slot { length, depth, stud }))
    };
    Some(found())
}

/// The stud in its slot.
pub static STUD_SLOT: Rule = Rule {
    id: "stud_slot",
    title: "stud in its slot",
    place: Place::Rocker,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "(L/2) cos phi - (t/2) |sin phi| - d/2 where the rocker leans most; a stud that meets the end of its slot bends or breaks",
    school: common,
    reads: &[reads![Rocker: "slot_length", "slot_depth", "stud_diameter", "mount"], GEOMETRY, LOBE, RATIO],
    gas: false,
    find: |case| {
        let room = stud_room(case, 0.0)?;
        Some(room.map(|gap| Finding::at_least(SLOT_END * INCH, HARDWARE_TIGHT * INCH, gap)))
    },
    advice: false,
    levers: &[LONGER_SLOT],
};

/// From rocker, adjuster and nut to the cover, m; `None` while its room is not given.
pub(super) fn cover_room(case: &Case<'_>, more: f64) -> Option<Part<f64>> {
    let (rocker, port) = (&case.resolved.train(case.side).rocker, case.resolved.port(case.side));
    port.cover_room?;
    let found = || {
        let mut needs = Needs::default();
        let (pivot, cup) = (need!(needs, rocker.top_height).si(), need!(needs, rocker.adjuster_height).si());
        let room = need!(needs, port.cover_room).si();
        needs.met(())?;
        swept(case, more, |rocker, sweep| to_cover(rocker, sweep, Above { pivot, cup }, room))
    };
    Some(found())
}

/// Rocker, adjuster and nut below the cover.
pub static COVER_ROOM: Rule = Rule {
    id: "cover_room",
    title: "rocker to cover",
    place: Place::Rocker,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "room over the closed valve's tip less the highest of tip, pivot's nut and adjuster through the sweep; breathers and baffles stand lower than the cover",
    school: common,
    reads: &[reads![Port: "cover_room"; Rocker: "top_height", "adjuster_height"], GEOMETRY, LOBE, RATIO],
    gas: false,
    find: |case| {
        let room = cover_room(case, 0.0)?;
        Some(room.map(|gap| Finding::at_least(COVER_NEED * INCH, HARDWARE_TIGHT * INCH, gap)))
    },
    advice: false,
    levers: &[TALLER_COVER],
};

/// The pushrod in its hole.
pub static PUSHROD_HOLE: Rule = Rule {
    id: "pushrod_hole",
    title: "pushrod in its hole",
    place: Place::Pushrod,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "half of what hole or guide plate leaves across the engine, less the pushrod's swing there with its cup; a little grinding for room is normal work",
    school: common,
    reads: &[
        reads![Port: "pushrod_hole"; Pushrod: "outside_diameter"; Port: "pushrod_hole_below"],
        GEOMETRY,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let (pushrod, port) = (&case.resolved.train(case.side).pushrod, case.resolved.port(case.side));
        port.pushrod_hole?;
        let found = || -> Part<Finding> {
            let mut needs = Needs::default();
            let outside = need!(needs, pushrod.outside_diameter).si();
            let (hole, below) = (need!(needs, port.pushrod_hole).si(), need!(needs, port.pushrod_hole_below).si());
            needs.met(())?;
            let gap = swept(case, 0.0, |rocker, sweep| to_hole(rocker, sweep, (outside, hole, below)))?;
            Ok(Finding::at_least(HOLE * INCH, HARDWARE_TIGHT * INCH, gap))
        };
        Some(found())
    },
    advice: false,
    levers: &[WIDER_HOLE, THINNER_PUSHROD],
};
