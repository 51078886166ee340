//! What never goes together, whatever the margins say; and what a class allows in kind.

use super::fits;
use super::incompatible::{Incompatible, NO_SCHOOL};
use crate::cam::Lobe;
use crate::candidate::Resolved;
use crate::document::Side;
use crate::quantity::{Dimension, Shown, shown};
use crate::report::Place;
use crate::words::{AntiRotation, Core, GroundFor, Word};

/// Every such rule that is broken, with its reason; none where they hold.
pub fn incompatibilities(resolved: &Resolved) -> Vec<Incompatible> {
    let of_side = |side: Side| RULES.iter().filter_map(move |rule| rule(resolved, side));
    Side::BOTH.into_iter().flat_map(of_side).collect()
}

/// A rule held against one side; the pair when it is broken.
type Held = fn(&Resolved, Side) -> Option<Incompatible>;

const RULES: [Held; 13] = [
    lifter_on_cam,
    flat_on_steel,
    class_lifter,
    roller_turns,
    lifter_lift,
    rocker_locks,
    fits::snout,
    fits::distributor_gear,
    fits::journals,
    fits::eccentric,
    fits::stud,
    fits::ball_and_cup,
    fits::retainer_on_spring,
];

fn lifter_on_cam(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (cam, lifter) = (&resolved.given.cam, &resolved.train(side).lifter);
    let (ground, kind) = (cam.ground_for?, lifter.kind?);
    let why = match ground {
        GroundFor::Flat => {
            "a roller on a lobe ground for flat lifters meets flanks too steep and too hollow for it, on a surface ground with a taper: it runs on one edge and skids"
        }
        GroundFor::Roller => {
            "a flat lifter on a roller lobe digs its edge into the flank, and the lobe is ground without the taper that turns it: it is gone in minutes"
        }
    };
    (kind.is_flat() != (ground == GroundFor::Flat)).then(|| Incompatible {
        id: "lifter_on_cam",
        title: "lifter on this cam",
        place: Place::Lifter,
        have: Shown::plain(kind.spoken()),
        need: Shown::plain(ground.spoken()),
        why,
        school: NO_SCHOOL,
        side: Some(side),
        reads: vec![lifter.at("kind"), cam.at("ground_for")],
    })
}

fn flat_on_steel(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (cam, lifter) = (&resolved.given.cam, &resolved.train(side).lifter);
    let slides = lifter.kind?.is_flat() && cam.core_material? == Core::Steel;
    slides.then(|| Incompatible {
        id: "flat_on_steel",
        title: "flat lifter on this core",
        place: Place::Lifter,
        have: Shown::plain("a steel core"),
        need: Shown::plain("cast or ductile iron"),
        why: "steel does not slide on a flat foot: it galls and takes the lobe with it; flat lifters run on iron, hardened or chilled",
        school: NO_SCHOOL,
        side: Some(side),
        reads: vec![lifter.at("kind"), cam.at("core_material")],
    })
}

fn class_lifter(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let (rules, lifter) = (&resolved.given.rules, &resolved.train(side).lifter);
    let (allowed, kind) = (rules.lifter?, lifter.kind?);
    (allowed != kind).then(|| Incompatible {
        id: "class_lifter",
        title: "lifter by class rule",
        place: Place::Lifter,
        have: Shown::plain(kind.spoken()),
        need: Shown::plain(allowed.spoken()),
        why: "the class allows one kind of lifter only",
        school: "the class rule of this build",
        side: Some(side),
        reads: vec![lifter.at("kind"), rules.at("lifter")],
    })
}

fn roller_turns(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let lifter = &resolved.train(side).lifter;
    let turns = lifter.kind?.is_roller() && lifter.anti_rotation == Some(AntiRotation::None);
    turns.then(|| Incompatible {
        id: "roller_turns",
        title: "roller kept from turning",
        place: Place::Lifter,
        have: Shown::plain("nothing"),
        need: Shown::plain("link bar, guide tray or keyway"),
        why: "a roller that turns out of line slides across the lobe and destroys both",
        school: NO_SCHOOL,
        side: Some(side),
        reads: vec![lifter.at("anti_rotation")],
    })
}

fn lifter_lift(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let lifter = &resolved.train(side).lifter;
    let most = lifter.most_lift?;
    let lobe = resolved.side(side).lobe().ok().map(Lobe::lift)?;
    (lobe.si() > most.si() + 1e-9).then(|| Incompatible {
        id: "lifter_lift",
        title: "lobe under this lifter",
        place: Place::Lifter,
        have: shown(lobe.si(), Dimension::Length),
        need: shown(most.si(), Dimension::Length),
        why: "a deactivating lifter has so much travel inside; a higher lobe drives it solid when it is switched off",
        school: NO_SCHOOL,
        side: Some(side),
        reads: vec![lifter.at("most_lift"), resolved.given.lobe(side).at("lobe_lift")],
    })
}

fn rocker_locks(resolved: &Resolved, side: Side) -> Option<Incompatible> {
    let locked = resolved.side(side).running.as_ref().ok()?.locks_at?;
    let rocker = &resolved.train(side).rocker;
    let at = shown(locked, Dimension::Length);
    Some(Incompatible {
        id: "rocker_locks",
        title: "rocker through its sweep",
        place: Place::Rocker,
        have: crate::quantity::Shown {
            inch: format!("locks at {} of lifter lift", at.inch),
            metric: format!("locks at {} of lifter lift", at.metric),
        },
        need: Shown::plain("a loop that closes all the way"),
        why: "with this geometry pushrod and cup come into line before full lift",
        school: NO_SCHOOL,
        side: Some(side),
        reads: ["pivot_to_cup", "cup_drop", "pushrod_angle"].map(|key| rocker.at(key)).to_vec(),
    })
}
