//! Rules about room around rocker and pushrod through the sweep.

use super::figures::{COVER_ROOM as COVER_NEED, HARDWARE_TIGHT, HOLE, INCH, RETAINER_ROOM, SLOT_END};
use super::rule::{Finding, Lever, Measure, Rule, common};
use crate::candidate::{Gap, Inputs, Part};
use crate::document::{InputUsed, Needs, Node, Side};
use crate::quantity::Length;
use crate::report::{Place, Sense};
use crate::train::rocker::{Pose, Rocker};
use crate::train::room::{Above, Retainer, Slot, to_cover, to_hole, to_retainer, to_stud};

/// Rocker and sweep of a side; a gap while its geometry is not known or it locks.
fn swept<T>(inputs: &Inputs<'_>, side: Side, room: impl FnOnce(&Rocker, &[Pose]) -> Option<T>) -> Part<T> {
    let running = inputs.side(side).running.clone()?;
    let rocker = inputs.train(side, "rocker");
    let unknown = || Gap {
        reason: "the rocker's geometry is not known through its sweep".to_owned(),
        needs: ["pivot_to_tip", "pivot_to_cup"].map(|key| rocker.path_of(key)).to_vec(),
    };
    running.rocker.as_ref().and_then(|found| room(found, &running.sweep)).ok_or_else(unknown)
}

/// The lengths of `keys` on `node`, or every missing one at once.
fn lengths<const N: usize>(node: &Node<'_>, keys: [&str; N]) -> Part<[f64; N]> {
    let mut needs = Needs::default();
    let found = keys.map(|key| needs.quantity::<Length>(node, key).si());
    Ok(needs.met(found)?)
}

/// Rows of the geometry every one of these rules stands on.
fn geometry(inputs: &Inputs<'_>, side: Side) -> Vec<InputUsed> {
    let rocker = inputs.train(side, "rocker");
    ["pivot_height", "pivot_to_tip", "pivot_to_cup"].map(|key| rocker.input(key)).to_vec()
}

/// Inputs of a rule: its own rows of the rocker first.
fn used(inputs: &Inputs<'_>, side: Side, own: &[&str]) -> Vec<InputUsed> {
    let rocker = inputs.train(side, "rocker");
    let mut used: Vec<_> = own.iter().map(|key| rocker.input(key)).collect();
    used.extend(geometry(inputs, side));
    used
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
    find: |inputs, side, _| {
        let (rocker, retainer) = (inputs.train(side, "rocker"), inputs.train(side, "retainer"));
        if !rocker.has("body_depth") && !retainer.has("diameter") {
            return None;
        }
        let found = || -> Part<Finding> {
            let ([underside], [diameter, below_tip]) =
                (lengths(&rocker, ["body_depth"])?, lengths(&retainer, ["diameter", "below_tip"])?);
            let spring = inputs.train(side, "spring");
            let top = spring.quantity::<Length>("top_diameter").map_or(0.0, Length::si);
            let retainer = Retainer { diameter: diameter.max(top), below_tip };
            let gap = swept(inputs, side, |rocker, sweep| to_retainer(rocker, sweep, retainer, underside))?;
            Ok(Finding::at_least(RETAINER_ROOM * INCH, HARDWARE_TIGHT * INCH, gap))
        };
        Some(found())
    },
    inputs: |inputs, side| {
        let mut used = used(inputs, side, &["body_depth"]);
        used.extend(["diameter", "below_tip"].map(|key| inputs.train(side, "retainer").input(key)));
        used
    },
    advice: false,
    levers: &[Lever { part: "retainer", field: "diameter", step: -0.010 * INCH, most: 20.0 }],
};

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
    find: |inputs, side, _| {
        let rocker = inputs.train(side, "rocker");
        if rocker.word("mount") != Some("stud") || !rocker.has("slot_length") {
            return None;
        }
        let found = || -> Part<Finding> {
            let [length, depth, stud] = lengths(&rocker, ["slot_length", "slot_depth", "stud_diameter"])?;
            let gap = swept(inputs, side, |rocker, sweep| to_stud(rocker, sweep, Slot { length, depth, stud }))?;
            Ok(Finding::at_least(SLOT_END * INCH, HARDWARE_TIGHT * INCH, gap))
        };
        Some(found())
    },
    inputs: |inputs, side| used(inputs, side, &["slot_length", "slot_depth", "stud_diameter"]),
    advice: false,
    levers: &[Lever { part: "rocker", field: "slot_length", step: 0.010 * INCH, most: 12.0 }],
};

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
    find: |inputs, side, _| {
        let (rocker, port) = (inputs.train(side, "rocker"), inputs.port(side));
        if !port.has("cover_room") {
            return None;
        }
        let found = || -> Part<Finding> {
            let ([pivot, cup], [room]) =
                (lengths(&rocker, ["top_height", "adjuster_height"])?, lengths(&port, ["cover_room"])?);
            let gap = swept(inputs, side, |rocker, sweep| to_cover(rocker, sweep, Above { pivot, cup }, room))?;
            Ok(Finding::at_least(COVER_NEED * INCH, HARDWARE_TIGHT * INCH, gap))
        };
        Some(found())
    },
    inputs: |inputs, side| {
        let mut used = used(inputs, side, &["top_height", "adjuster_height"]);
        used.insert(0, inputs.port(side).input("cover_room"));
        used
    },
    advice: false,
    levers: &[Lever { part: "port", field: "cover_room", step: 0.060 * INCH, most: 10.0 }],
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
    find: |inputs, side, _| {
        let (pushrod, port) = (inputs.train(side, "pushrod"), inputs.port(side));
        if !port.has("pushrod_hole") {
            return None;
        }
        let found = || -> Part<Finding> {
            let ([outside], [hole, below]) =
                (lengths(&pushrod, ["outside_diameter"])?, lengths(&port, ["pushrod_hole", "pushrod_hole_below"])?);
            let gap = swept(inputs, side, |rocker, sweep| to_hole(rocker, sweep, (outside, hole, below)))?;
            Ok(Finding::at_least(HOLE * INCH, HARDWARE_TIGHT * INCH, gap))
        };
        Some(found())
    },
    inputs: |inputs, side| {
        let port = inputs.port(side);
        let mut used = vec![port.input("pushrod_hole"), inputs.train(side, "pushrod").input("outside_diameter")];
        used.push(port.input("pushrod_hole_below"));
        used.extend(geometry(inputs, side));
        used
    },
    advice: false,
    levers: &[
        Lever { part: "port", field: "pushrod_hole", step: 0.015 * INCH, most: 12.0 },
        Lever { part: "pushrod", field: "outside_diameter", step: -INCH / 32.0, most: 4.0 },
    ],
};
