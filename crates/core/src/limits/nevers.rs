//! What never goes together, whatever the margins say.

use super::fits;
use super::never::Never;
use crate::cam::Lobe;
use crate::candidate::Inputs;
use crate::document::Side;
use crate::quantity::Length;
use crate::report::{LimitReport, Place};

/// Every such rule that is broken, with its reason; none where they hold.
pub fn nevers(inputs: &Inputs<'_>) -> Vec<LimitReport> {
    let of_side = |side: Side| {
        let found = RULES.iter().filter_map(move |rule| rule(inputs, side));
        found.map(move |never| never.told(side))
    };
    Side::BOTH.into_iter().flat_map(of_side).collect()
}

/// A rule held against one side; the never when it is broken.
type Held = fn(&Inputs<'_>, Side) -> Option<Never>;

const RULES: [Held; 9] = [
    lifter_on_cam,
    roller_turns,
    lifter_lift,
    rocker_locks,
    fits::snout,
    fits::distributor_gear,
    fits::stud,
    fits::ball_and_cup,
    fits::retainer_on_spring,
];

fn lifter_on_cam(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let (cam, lifter) = (inputs.candidate.child("cam"), inputs.train(side, "lifter"));
    let (ground, kind) = (cam.word("ground_for")?, lifter.word("kind")?);
    let why = match ground {
        "flat" => {
            "a roller on a lobe ground for flat lifters meets flanks too steep and too hollow for it, on a surface ground with a taper: it runs on one edge and skids"
        }
        _ => {
            "a flat lifter on a roller lobe digs its edge into the flank, and the lobe is ground without the taper that turns it: it is gone in minutes"
        }
    };
    (!kind.ends_with(ground)).then(|| Never {
        id: "lifter_on_cam",
        title: "lifter on this cam",
        place: Place::Lifter,
        have: kind.replace('_', " "),
        need: ground.to_owned(),
        why,
        whole: false,
        inputs: vec![lifter.input("kind"), cam.input("ground_for")],
    })
}

fn roller_turns(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let lifter = inputs.train(side, "lifter");
    let turns = lifter.word("kind")?.ends_with("roller") && lifter.word("anti_rotation") == Some("none");
    turns.then(|| Never {
        id: "roller_turns",
        title: "roller kept from turning",
        place: Place::Lifter,
        have: "nothing".to_owned(),
        need: "link bar, guide tray or keyway".to_owned(),
        why: "a roller that turns out of line slides across the lobe and destroys both",
        whole: false,
        inputs: vec![lifter.input("anti_rotation")],
    })
}

fn lifter_lift(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let (cam, lifter) = (inputs.candidate.child("cam"), inputs.train(side, "lifter"));
    let most: Length = lifter.quantity("most_lift")?;
    let lobe = inputs.side(side).lobe().ok().map(Lobe::lift)?;
    (lobe.si() > most.si() + 1e-9).then(|| Never {
        id: "lifter_lift",
        title: "lobe under this lifter",
        place: Place::Lifter,
        have: format!("{:.3} in of lobe", lobe.as_inches()),
        need: "no more lobe than the lifter takes".to_owned(),
        why: "a deactivating lifter has so much travel inside; a higher lobe drives it solid when it is switched off",
        whole: false,
        inputs: vec![lifter.input("most_lift"), cam.child(side.key()).input("lobe_lift")],
    })
}

fn rocker_locks(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let locked = inputs.side(side).running.as_ref().ok()?.locks_at?;
    let rocker = inputs.train(side, "rocker");
    Some(Never {
        id: "rocker_locks",
        title: "rocker through its sweep",
        place: Place::Rocker,
        have: format!("locks at {:.3} in of lifter lift", locked / 0.0254),
        need: "a loop that closes all the way".to_owned(),
        why: "with this geometry pushrod and cup come into line before full lift",
        whole: false,
        inputs: ["pivot_to_cup", "cup_drop", "pushrod_angle"].map(|key| rocker.input(key)).to_vec(),
    })
}
