//! What never goes together, whatever the margins say.

use super::figures::SOURCE;
use crate::cam::Lobe;
use crate::candidate::Inputs;
use crate::document::{InputUsed, Side};
use crate::quantity::{Length, Shown};
use crate::report::{LimitReport, LimitShown, NeedReport, Place, Sense, Verdict};

/// A rule without a figure: what is there, and what has to be.
struct Never {
    id: &'static str,
    title: &'static str,
    place: Place,
    have: String,
    need: &'static str,
    why: &'static str,
    inputs: Vec<InputUsed>,
}

/// Every such rule that is broken, with its reason; none where they hold.
pub fn nevers(inputs: &Inputs<'_>) -> Vec<LimitReport> {
    Side::BOTH
        .into_iter()
        .flat_map(|side| of_side(inputs, side).into_iter().map(move |never| told(never, side)))
        .collect()
}

fn of_side(inputs: &Inputs<'_>, side: Side) -> Vec<Never> {
    let (cam, lifter) = (inputs.candidate.child("cam"), inputs.train(side, "lifter"));
    let kind = lifter.word("kind").unwrap_or_default();
    let mut found = Vec::new();
    if let (Some(ground), false) = (cam.word("ground_for"), kind.is_empty()) {
        let why = match ground {
            "flat" => {
                "a roller on a lobe ground for flat lifters meets flanks too steep and too hollow for it, on a surface ground with a taper: it runs on one edge and skids"
            }
            _ => {
                "a flat lifter on a roller lobe digs its edge into the flank, and the lobe is ground without the taper that turns it: it is gone in minutes"
            }
        };
        if !kind.ends_with(ground) {
            found.push(Never {
                id: "lifter_on_cam",
                title: "lifter on this cam",
                place: Place::Lifter,
                have: kind.replace('_', " "),
                need: if ground == "flat" { "flat" } else { "roller" },
                why,
                inputs: vec![lifter.input("kind"), cam.input("ground_for")],
            });
        }
    }
    if kind.ends_with("roller") && lifter.word("anti_rotation") == Some("none") {
        found.push(Never {
            id: "roller_turns",
            title: "roller kept from turning",
            place: Place::Lifter,
            have: "nothing".to_owned(),
            need: "link bar, guide tray or keyway",
            why: "a roller that turns out of line slides across the lobe and destroys both",
            inputs: vec![lifter.input("anti_rotation")],
        });
    }
    let (most, lobe) = (lifter.quantity::<Length>("most_lift"), inputs.side(side).lobe().ok().map(Lobe::lift));
    if let (Some(most), Some(lobe)) = (most, lobe)
        && lobe.si() > most.si() + 1e-9
    {
        found.push(Never {
            id: "lifter_lift",
            title: "lobe under this lifter",
            place: Place::Lifter,
            have: format!("{:.3} in of lobe", lobe.as_inches()),
            need: "no more lobe than the lifter takes",
            why: "a deactivating lifter has so much travel inside; a higher lobe drives it solid when it is switched off",
            inputs: vec![lifter.input("most_lift"), cam.child(side.key()).input("lobe_lift")],
        });
    }
    let (snout, gear) = (cam.word("snout"), inputs.engine.word("drive_fits"));
    if side == Side::Intake && snout.is_some() && gear.is_some() && snout != gear {
        found.push(Never {
            id: "snout",
            title: "cam snout and drive",
            place: Place::Lifter,
            have: format!("{} snout", snout.unwrap_or_default().replace('_', " ")),
            need: "the snout its gear is bored for",
            why: "the gear's bolts and dowel do not meet the snout: change the gear with the cam",
            inputs: vec![cam.input("snout"), inputs.engine.input("drive_fits")],
        });
    }
    if let Some(locked) = inputs.side(side).running.as_ref().ok().and_then(|running| running.locks_at) {
        let rocker = inputs.train(side, "rocker");
        found.push(Never {
            id: "rocker_locks",
            title: "rocker through its sweep",
            place: Place::Rocker,
            have: format!("locks at {:.3} in of lifter lift", locked / 0.0254),
            need: "a loop that closes all the way",
            why: "with this geometry pushrod and cup come into line before full lift",
            inputs: ["pivot_to_cup", "cup_drop", "pushrod_angle"].map(|key| rocker.input(key)).to_vec(),
        });
    }
    found
}

fn told(never: Never, side: Side) -> LimitReport {
    let both = |text: &str| Shown { inch: text.to_owned(), metric: text.to_owned() };
    let edit_field = never.inputs.first().map(|input| input.field.clone()).unwrap_or_default();
    LimitReport {
        id: never.id.to_owned(),
        side: Some(side),
        title: format!("{} {}", if side == Side::Intake { "Intake" } else { "Exhaust" }, never.title),
        sense: Sense::AtLeast,
        need: NeedReport { min: Some(1.0), max: None },
        have: Some(0.0),
        margin: Some(-1.0),
        unit: String::new(),
        shown: Some(LimitShown {
            need: both(never.need),
            have: both(&never.have),
            margin: both("never"),
            have_at: 0.0,
            need_at: vec![0.5],
        }),
        verdict: Verdict::Fails,
        school: "never: no school allows it".to_owned(),
        source: SOURCE.to_owned(),
        place: never.place,
        formula: never.why.to_owned(),
        inputs: never.inputs,
        missing: Vec::new(),
        remedies: Vec::new(),
        edit_field,
    }
}
