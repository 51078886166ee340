//! Rules about lobe and follower, rocker and pushrod.

use super::figures::{
    BUCKLING, BUCKLING_TIGHT, INCH, NOSE, NOSE_TIGHT, PATTERN_SHARE, PATTERN_TIGHT, PRESSURE_ANGLE,
    PRESSURE_ANGLE_TIGHT, RATING_TIGHT, STRESS_TIGHT, contact_stress,
};
use super::rule::{Finding, Lever, Measure, Rule, common};
use crate::candidate::{Gap, Inputs, Part, lobe_contact, preload_band};
use crate::document::{InputUsed, Missing, Side};
use crate::quantity::{Force, Length};
use crate::report::{Place, Sense};
use crate::train::compliance::Pushrod;

const DEG: f64 = std::f64::consts::PI / 180.0;

fn is_roller(inputs: &Inputs<'_>, side: Side) -> bool {
    inputs.train(side, "lifter").word("kind").is_some_and(|kind| kind.ends_with("roller"))
}

fn lobe_inputs(inputs: &Inputs<'_>, side: Side) -> Vec<InputUsed> {
    let cam = inputs.candidate.child("cam");
    let lobe = cam.child(side.key());
    let own = if lobe.has("profile") { "profile" } else { "checks" };
    vec![lobe.input(own), lobe.input("lobe_lift"), cam.input("base_circle_diameter")]
}

/// Hertz stress on the nose against the core.
pub static CONTACT_STRESS: Rule = Rule {
    id: "contact_stress",
    title: "stress of lobe and follower",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::Stress,
    sided: true,
    formula: "sqrt(F/w E* (1/R1 + 1/R2)/pi), F the spring through the rocker, turning slowly; cast iron 1,050, ductile iron 1,200, steel 1,750 MPa; inertia unloads the nose at speed",
    school: common,
    find: |inputs, side, _| {
        let stress = lobe_contact(inputs, side).and_then(|contact| {
            let absent = || Gap::from(Missing(vec![inputs.train(side, "spring").path_of("points")]));
            contact.stress().ok_or_else(absent)
        });
        let most = contact_stress(inputs.candidate.child("cam").word("core_material"));
        Some(stress.map(|stress| Finding::at_most(most, STRESS_TIGHT * most, stress)))
    },
    inputs: |inputs, side| {
        let mut used = lobe_inputs(inputs, side);
        used.push(inputs.candidate.child("cam").input("core_material"));
        used.push(inputs.train(side, "spring").input("points"));
        used
    },
    advice: false,
    levers: &[
        Lever { part: "spring", field: "installed_height", step: 0.010 * INCH, most: 15.0 },
        Lever { part: "lifter", field: "roller_diameter", step: 0.060 * INCH, most: 4.0 },
    ],
};

/// Side thrust of a roller lifter.
pub static ROLLER_ANGLE: Rule = Rule {
    id: "pressure_angle",
    title: "pressure angle of the roller",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::Angle,
    sided: true,
    formula: "tan phi = s'/(base radius + roller radius + lift), greatest over the lobe",
    school: common,
    find: |inputs, side, _| {
        is_roller(inputs, side).then(|| {
            let contact = lobe_contact(inputs, side)?;
            Ok(Finding::at_most(PRESSURE_ANGLE * DEG, PRESSURE_ANGLE_TIGHT * DEG, contact.extremes().pressure_angle))
        })
    },
    inputs: |inputs, side| {
        let mut used = lobe_inputs(inputs, side);
        used.push(inputs.train(side, "lifter").input("roller_diameter"));
        used
    },
    advice: false,
    levers: &[Lever { part: "cam", field: "base_circle_diameter", step: 0.020 * INCH, most: 10.0 }],
};

/// Hollow flanks against the wheel that grinds them.
pub static HOLLOW_FLANK: Rule = Rule {
    id: "hollow_flank",
    title: "hollow flank against the wheel",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "smallest radius where the flank of a roller lobe is hollow, at least the radius of the grinding wheel",
    school: |_| "geometry",
    find: |inputs, side, _| {
        if !is_roller(inputs, side) {
            return None;
        }
        let hollow = lobe_contact(inputs, side).map(|contact| contact.extremes().hollow);
        let wheel: Length = inputs.candidate.child("cam").quantity("wheel_radius")?;
        match hollow {
            Ok(hollow) => hollow.map(|radius| Ok(Finding::at_least(wheel.si(), 0.1 * wheel.si(), radius))),
            Err(gap) => Some(Err(gap)),
        }
    },
    inputs: |inputs, side| {
        let mut used = lobe_inputs(inputs, side);
        used.push(inputs.candidate.child("cam").input("wheel_radius"));
        used
    },
    advice: false,
    levers: &[],
};

/// The nose against being a point.
pub static NOSE_RADIUS: Rule = Rule {
    id: "nose_radius",
    title: "radius of the nose",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "smallest radius where the lobe bulges: base radius + lift + second derivative under a flat foot, pitch curve's less the roller's under a roller; below .120 in the oil film and the skin of any core are gone soon, whatever the stress",
    school: common,
    find: |inputs, side, _| {
        let radius = lobe_contact(inputs, side).map(|contact| contact.extremes().convex);
        Some(radius.map(|radius| Finding::at_least(NOSE * INCH, NOSE_TIGHT * INCH, radius)))
    },
    inputs: lobe_inputs,
    advice: true,
    levers: &[Lever { part: "cam", field: "base_circle_diameter", step: 0.020 * INCH, most: 10.0 }],
};

/// What bears on the lifter's seat.
pub static LIFTER_LOAD: Rule = Rule {
    id: "lifter_load",
    title: "lifter load rating",
    place: Place::Lifter,
    sense: Sense::AtMost,
    measure: Measure::Force,
    sided: true,
    formula: "open load of the spring times ratio, for each valve the rocker opens, against the rating; gas at opening and inertia come on top",
    school: common,
    find: |inputs, side, _| {
        let rated: Force = inputs.train(side, "lifter").quantity("rated_load")?;
        let own = inputs.side(side);
        let load = || -> Part<f64> {
            let (spring, lift) = (own.spring.clone()?, own.lift.clone()?);
            Ok(own.valves * lift.ratio * spring.load(own.most_lift()?).si())
        };
        Some(load().map(|load| Finding::at_most(rated.si(), RATING_TIGHT * rated.si(), load)))
    },
    inputs: |inputs, side| {
        vec![
            inputs.train(side, "lifter").input("rated_load"),
            inputs.train(side, "spring").input("points"),
            inputs.train(side, "rocker").input("ratio"),
        ]
    },
    advice: false,
    levers: &[Lever { part: "spring", field: "installed_height", step: 0.010 * INCH, most: 15.0 }],
};

/// The contact on a flat foot.
pub static FOOT_CONTACT: Rule = Rule {
    id: "foot_contact",
    title: "contact on the foot",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::Length,
    sided: true,
    formula: "greatest velocity per radian of cam is how far the contact stands from the middle of a flat foot; at most half the face less its margin",
    school: |_| "geometry",
    find: |inputs, side, _| {
        let lifter = inputs.train(side, "lifter");
        if !lifter.word("kind").is_some_and(|kind| kind.ends_with("flat")) {
            return None;
        }
        let face: Length = lifter.quantity("face_diameter")?;
        let margin: Length = lifter.quantity("face_margin")?;
        Some(lobe_contact(inputs, side).map(|contact| {
            Finding::at_most(0.5 * face.si() - margin.si(), 0.005 * INCH, contact.extremes().offset + 1e-7)
        }))
    },
    inputs: |inputs, side| {
        let mut used = lobe_inputs(inputs, side);
        used.push(inputs.train(side, "lifter").input("face_diameter"));
        used.push(inputs.train(side, "lifter").input("face_margin"));
        used
    },
    advice: true,
    levers: &[],
};

/// Preload by the school the build follows.
pub static PRELOAD: Rule = Rule {
    id: "preload",
    title: "preload of the lifter",
    place: Place::Lifter,
    sense: Sense::Within,
    measure: Measure::Length,
    sided: true,
    formula: "plunger travel taken up at rest, by the school: series .015 to .030 in; light 0 to .006 in, so that pump-up cannot hold the valve open; deep .010 to .040 in above the bottom, for short travel",
    school: |inputs| match inputs.train(Side::Intake, "lifter").word("preload_school") {
        Some("light") => "light: pump-up cannot hold the valve open",
        Some("deep") => "deep: close to the bottom, with short travel",
        _ => "series: as engines leave the works",
    },
    find: |inputs, side, _| {
        let lifter = inputs.train(side, "lifter");
        if !lifter.word("kind").is_some_and(|kind| kind.starts_with("hydraulic")) {
            return None;
        }
        let have: Length = lifter.quantity("preload")?;
        let (low, high) = preload_band(&lifter)?;
        Some(Ok(Finding { min: Some(low), max: Some(high), tight: 0.0, have: have.si() }))
    },
    inputs: |inputs, side| {
        let lifter = inputs.train(side, "lifter");
        ["preload", "preload_school", "travel"].map(|key| lifter.input(key)).to_vec()
    },
    advice: true,
    levers: &[],
};

/// Where the tip runs on the stem.
pub static TIP_PATTERN: Rule = Rule {
    id: "tip_pattern",
    title: "pattern on the stem's tip",
    place: Place::Rocker,
    sense: Sense::AtMost,
    measure: Measure::Length,
    sided: true,
    formula: "farthest the contact stands from the stem's axis through the sweep; at most a quarter of the stem's diameter",
    school: common,
    find: |inputs, side, _| {
        let running = inputs.side(side).running.clone().ok()?;
        let stem: Length = inputs.port(side).quantity("stem_diameter")?;
        let farthest = running.sweep.iter().map(|pose| pose.contact.abs()).reduce(f64::max)?;
        Some(Ok(Finding::at_most(PATTERN_SHARE * stem.si(), PATTERN_TIGHT * INCH, farthest)))
    },
    inputs: |inputs, side| {
        let rocker = inputs.train(side, "rocker");
        let mut used = ["pivot_height", "stem_offset", "pivot_to_tip"].map(|key| rocker.input(key)).to_vec();
        used.push(inputs.port(side).input("stem_diameter"));
        used
    },
    advice: false,
    levers: &[
        Lever { part: "rocker", field: "pivot_height", step: 0.010 * INCH, most: 12.0 },
        Lever { part: "rocker", field: "pivot_height", step: -0.010 * INCH, most: 12.0 },
        Lever { part: "rocker", field: "stem_offset", step: 0.010 * INCH, most: 8.0 },
        Lever { part: "rocker", field: "stem_offset", step: -0.010 * INCH, most: 8.0 },
    ],
};

/// The pushrod as a column.
pub static PUSHROD_BUCKLING: Rule = Rule {
    id: "pushrod_buckling",
    title: "pushrod against buckling",
    place: Place::Pushrod,
    sense: Sense::AtLeast,
    measure: Measure::Ratio,
    sided: true,
    formula: "Euler's load pi^2 E I / L^2 over the open load of the spring through the rocker; inertia and gas at opening take their share of what is needed",
    school: common,
    find: |inputs, side, _| {
        let own = inputs.side(side);
        let reserve = || -> Part<f64> {
            let pushrod = Pushrod::read(&inputs.candidate.child("train"), side)?;
            let (spring, lift) = (own.spring.clone()?, own.lift.clone()?);
            let load = own.valves * lift.ratio * spring.load(own.most_lift()?).si();
            Ok(pushrod.buckling_load() / load.max(1.0))
        };
        Some(reserve().map(|reserve| Finding::at_least(BUCKLING, BUCKLING_TIGHT, reserve)))
    },
    inputs: |inputs, side| {
        let pushrod = inputs.train(side, "pushrod");
        ["outside_diameter", "wall", "length"].map(|key| pushrod.input(key)).to_vec()
    },
    advice: false,
    levers: &[
        Lever { part: "pushrod", field: "outside_diameter", step: INCH / 32.0, most: 6.0 },
        Lever { part: "pushrod", field: "wall", step: 0.020 * INCH, most: 3.0 },
    ],
};
