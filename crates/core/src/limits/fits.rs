//! Parts that must be made for each other: snout and gear, gear and core, stud and rocker, ball and cup, retainer and
//! spring.

use super::figures::{INCH, SPRING_TOP};
use super::never::Never;
use crate::candidate::Inputs;
use crate::document::{InputUsed, Node, Side};
use crate::quantity::{Dimension, Length, UnitSystem, format_si};
use crate::report::Place;

/// A cam's snout and the gear that is bored for one.
pub fn snout(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let cam = inputs.candidate.child("cam");
    let (snout, gear) = (once(cam.word("snout"), side)?, inputs.engine.word("drive_fits")?);
    (snout != gear).then(|| Never {
        id: "snout",
        title: "Cam snout and drive",
        place: Place::Lobe,
        have: format!("{} snout", spoken(snout)),
        need: format!("{}, as its gear is bored", spoken(gear)),
        why: "the gear's bolts and dowel do not meet the snout: change the gear with the cam",
        whole: true,
        inputs: vec![cam.input("snout"), inputs.engine.input("drive_fits")],
    })
}

/// What runs on the cam's gear, against what that is cut from.
pub fn distributor_gear(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let cam = inputs.candidate.child("cam");
    let gear = once(inputs.engine.word("distributor_gear"), side)?;
    let steel = cam.has("core_material")
        && cam.word("core_material") == Some("steel")
        && cam.word("gear") != Some("pressed_iron");
    (steel && gear == "iron").then(|| Never {
        id: "distributor_gear",
        title: "Distributor gear on this core",
        place: Place::Lobe,
        have: "iron on steel".to_owned(),
        need: "bronze, composite or hardened steel, or a pressed-on iron gear".to_owned(),
        why: "a steel core wears an iron gear away; bronze wears itself and is looked at as a service part",
        whole: true,
        inputs: vec![cam.input("core_material"), cam.input("gear"), inputs.engine.input("distributor_gear")],
    })
}

/// Rockers and the studs they stand on.
pub fn stud(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let rocker = inputs.train(side, "rocker");
    rocker.word("mount").filter(|mount| *mount == "stud")?;
    differ((&rocker, "stud_diameter"), (&inputs.engine, "head_stud"), 0.0005).map(|(have, need, inputs)| Never {
        id: "stud",
        title: "rocker on its stud",
        place: Place::Rocker,
        have,
        need,
        why: "the trunnion is bored for another stud: change studs and guide plates, or take other rockers",
        whole: false,
        inputs,
    })
}

/// The pushrod's ball in the rocker's cup.
pub fn ball_and_cup(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let (pushrod, rocker) = (inputs.train(side, "pushrod"), inputs.train(side, "rocker"));
    differ((&pushrod, "end_diameter"), (&rocker, "cup_diameter"), 0.002).map(|(have, need, inputs)| Never {
        id: "ball_and_cup",
        title: "pushrod's ball in the cup",
        place: Place::Pushrod,
        have,
        need,
        why: "a ball in a cup of another radius bears on a ring or a point, and one of them is gone soon",
        whole: false,
        inputs,
    })
}

/// The retainer and the spring it is cut for.
pub fn retainer_on_spring(inputs: &Inputs<'_>, side: Side) -> Option<Never> {
    let (retainer, spring) = (inputs.train(side, "retainer"), inputs.train(side, "spring"));
    let top = if spring.has("top_diameter") { "top_diameter" } else { "outside_diameter" };
    differ((&spring, top), (&retainer, "spring_diameter"), SPRING_TOP).map(|(have, need, inputs)| Never {
        id: "retainer_on_spring",
        title: "retainer on this spring",
        place: Place::Spring,
        have,
        need,
        why: "a retainer cut for another spring does not centre it: the spring walks and the retainer cracks",
        whole: false,
        inputs,
    })
}

/// What is there, what is needed and both inputs, where two given lengths differ by more than so many inches.
fn differ(have: (&Node<'_>, &str), need: (&Node<'_>, &str), by: f64) -> Option<(String, String, Vec<InputUsed>)> {
    let (one, other): (Length, Length) = (have.0.quantity(have.1)?, need.0.quantity(need.1)?);
    let text = |length: Length| format_si(length.si(), Dimension::Length, UnitSystem::Inch);
    ((one.si() - other.si()).abs() > by * INCH + 1e-9)
        .then(|| (text(one), text(other), vec![have.0.input(have.1), need.0.input(need.1)]))
}

/// What holds for the whole engine is said with the intake.
fn once<T>(value: Option<T>, side: Side) -> Option<T> {
    value.filter(|_| side == Side::Intake)
}

fn spoken(word: &str) -> String {
    word.replace('_', " ")
}
