//! Parts that must be made for each other: snout and gear, gear and core, stud and rocker, ball and cup, retainer and
//! spring.

use super::figures::{INCH, JOURNAL_PLAY, SPRING_TOP};
use super::incompatible::{Incompatible, NO_SCHOOL};
use crate::candidate::Resolved;
use crate::document::Side;
use crate::given::Place as At;
use crate::quantity::{Dimension, Length, Shown, shown};
use crate::report::Place;
use crate::words::{CamGear, Core, DistributorGear, Mount, Word};

/// A cam's snout and the gear that is bored for one.
pub fn snout(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (cam, engine) = (&resolved.given.cam, &resolved.given.engine);
    let (snout, gear) = (once(cam.snout, side)?, engine.drive_fits?);
    (snout != gear).then(|| Incompatible {
        id: "snout",
        title: "Cam snout and drive",
        place: Place::Lobe,
        have: Shown::plain(format!("{} snout", snout.spoken())),
        need: Shown::plain(format!("{}, as its gear is bored", gear.spoken())),
        why: "the gear's bolts and dowel do not meet the snout: change the gear with the cam",
        school: NO_SCHOOL,
        side: None,
        reads: vec![cam.at("snout"), engine.at("drive_fits")],
    })
}

/// What runs on the cam's gear, against what that is cut from.
pub fn distributor_gear(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (cam, engine) = (&resolved.given.cam, &resolved.given.engine);
    let gear = once(engine.distributor_gear, side)?;
    let steel = cam.core_material == Some(Core::Steel) && cam.gear != Some(CamGear::PressedIron);
    (steel && gear == DistributorGear::Iron).then(|| Incompatible {
        id: "distributor_gear",
        title: "Distributor gear",
        place: Place::Lobe,
        have: Shown::plain("iron on steel"),
        need: Shown::plain("bronze, composite or hardened steel, or a pressed-on iron gear"),
        why: "a steel core wears an iron gear away; bronze wears itself and is looked at as a service part",
        school: NO_SCHOOL,
        side: None,
        reads: vec![cam.at("core_material"), cam.at("gear"), engine.at("distributor_gear")],
    })
}

/// A cam's journals in the bearings of this block.
pub fn journals(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let cam = &resolved.given.cam;
    let (journal, bore) = (once(cam.journal_diameter, side)?, cam.bearing_diameter?);
    let left = bore.si() - journal.si();
    (!(JOURNAL_PLAY[0] * INCH..=JOURNAL_PLAY[1] * INCH).contains(&left)).then(|| Incompatible {
        id: "journals",
        title: "Cam journals",
        place: Place::Lobe,
        have: shown(journal.si(), Dimension::Length),
        need: shown(bore.si(), Dimension::Length),
        why: "its journals are not those of this block: other bearings, or the core for this block",
        school: NO_SCHOOL,
        side: None,
        reads: vec![cam.at("journal_diameter"), cam.at("bearing_diameter")],
    })
}

/// The fuel pump's arm on the cam's eccentric.
pub fn eccentric(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (cam, engine) = (&resolved.given.cam, &resolved.given.engine);
    let (eccentric, arm) = (once(cam.eccentric_width, side)?, engine.pump_arm_width?);
    (eccentric.si() < arm.si() - 1e-9).then(|| Incompatible {
        id: "eccentric",
        title: "Fuel pump's eccentric",
        place: Place::Lobe,
        have: shown(eccentric.si(), Dimension::Length),
        need: shown(arm.si(), Dimension::Length),
        why: "the arm runs over the edge of a narrow eccentric, or on none: another core, an eccentric bolted on, or an electric pump",
        school: NO_SCHOOL,
        side: None,
        reads: vec![cam.at("eccentric_width"), engine.at("pump_arm_width")],
    })
}

/// Rockers and the studs they stand on.
pub fn stud(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (rocker, engine) = (&resolved.train(side).rocker, &resolved.given.engine);
    rocker.mount.filter(|mount| *mount == Mount::Stud)?;
    let (have, need) = differ(rocker.stud_diameter, engine.head_stud, 0.0005)?;
    Some(Incompatible {
        id: "stud",
        title: "rocker on its stud",
        place: Place::Rocker,
        have,
        need,
        why: "the trunnion is bored for another stud: change studs and guide plates, or take other rockers",
        school: NO_SCHOOL,
        side: Some(side),
        reads: vec![rocker.at("stud_diameter"), engine.at("head_stud")],
    })
}

/// The pushrod's ball in the rocker's cup.
pub fn ball_and_cup(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (pushrod, rocker) = (&resolved.train(side).pushrod, &resolved.train(side).rocker);
    let (have, need) = differ(pushrod.end_diameter, rocker.cup_diameter, 0.002)?;
    Some(Incompatible {
        id: "ball_and_cup",
        title: "pushrod's ball in the cup",
        place: Place::Pushrod,
        have,
        need,
        why: "a ball in a cup of another radius bears on a ring or a point, and one of them is gone soon",
        school: NO_SCHOOL,
        side: Some(side),
        reads: vec![pushrod.at("end_diameter"), rocker.at("cup_diameter")],
    })
}

/// The retainer and the spring it is cut for.
pub fn retainer_on_spring(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (retainer, spring) = (&resolved.train(side).retainer, &resolved.train(side).spring);
    let (top, top_at): (Option<Length>, At) = if spring.top_diameter.is_some() {
        (spring.top_diameter, spring.at("top_diameter"))
    } else {
        (spring.outside_diameter, spring.at("outside_diameter"))
    };
    let (have, need) = differ(top, retainer.spring_diameter, SPRING_TOP)?;
    Some(Incompatible {
        id: "retainer_on_spring",
        title: "retainer on this spring",
        place: Place::Spring,
        have,
        need,
        why: "a retainer cut for another spring does not centre it: the spring walks and the retainer cracks",
        school: NO_SCHOOL,
        side: Some(side),
        reads: vec![top_at, retainer.at("spring_diameter")],
    })
}

/// What is there and what is needed, where two given lengths differ by more than so many inches.
fn differ(have: Option<Length>, need: Option<Length>, by: f64) -> Option<(Shown, Shown)> {
    let (have, need) = (have?, need?);
    let text = |length: Length| shown(length.si(), Dimension::Length);
    ((have.si() - need.si()).abs() > by * INCH + 1e-9).then(|| (text(have), text(need)))
}

/// What holds for the whole engine is said with the intake.
fn once<T>(value: Option<T>, side: Side) -> Option<T> {
    value.filter(|_| side == Side::Intake)
}
