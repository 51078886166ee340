//! Rules about lobe and follower, lifter and pushrod.

use super::exhaust_opening::opening_load;
use super::figures::{
    BUCKLING, BUCKLING_TIGHT, INCH, LOW_LOBE, NOSE, NOSE_FALL, NOSE_FALL_TIGHT, NOSE_TIGHT, PRELOAD_BOTTOM,
    PRELOAD_TIGHT, PRESSURE_ANGLE, PRESSURE_ANGLE_TIGHT, RATING_TIGHT, STRESS_TIGHT, contact_stress,
};
use super::levers::{LARGER_BASE, LARGER_WHEEL, LESS_PRELOAD, MORE_PRELOAD, MORE_WALL, TALLER, THICKER_PUSHROD};
use super::measure::Measure;
use super::reads::{
    EXHAUST_LOBE, EXHAUST_PHASING, INTAKE_LOBE, INTAKE_PHASING, LOBE, RATIO, Reads, SPRING, VOLUMES, reads,
};
use super::rule::{Case, Finding, Rule, common};
use crate::cam::height_050;
use crate::candidate::{Gap, Part, Resolved, after_work, lobe_contact, preload_band};
use crate::document::Side;
use crate::given::{Needs, need};
use crate::report::{Place, Sense};
use crate::train::compliance::Pushrod;
use crate::words::{LifterKind, PreloadSchool};

const DEG: f64 = std::f64::consts::PI / 180.0;

fn is_roller(resolved: &Resolved, side: Side) -> bool {
    resolved.train(side).lifter.kind.is_some_and(LifterKind::is_roller)
}

/// Shape of the lobe under what rides on it.
const CONTACT: Reads = reads![
    Lobe: "profile", "checks", "lobe_lift"; Cam: "base_circle_diameter"; Lifter: "kind", "roller_diameter"
];

/// Hertz stress on the nose against the core.
pub static CONTACT_STRESS: Rule = Rule {
    id: "contact_stress",
    title: "contact (Hertz) stress",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::Stress,
    sided: true,
    formula: "sqrt(F/w E* (1/R1 + 1/R2)/pi), F the spring through the rocker, turning slowly; rolling: cast iron 1,050, ductile iron 1,200, steel 1,750 MPa; sliding under a flat foot: cast iron 850, ductile iron 950 MPa; inertia unloads the nose at speed",
    school: common,
    reads: &[CONTACT, reads![Cam: "core_material"; Lifter: "roller_width"; Port: "valves"], SPRING, LOBE, RATIO],
    gas: false,
    find: |case| {
        let found = || -> Part<Finding> {
            let (train, cam) = (case.resolved.train(case.side), &case.resolved.given.cam);
            let core = cam.core_material.ok_or_else(|| Gap::needing(vec![cam.at("core_material")]))?;
            let contact = lobe_contact(case.resolved, case.side)?;
            let stress = contact.stress().ok_or_else(|| Gap::needing(vec![train.spring.at("points")]))?;
            let most = contact_stress(core, contact.is_flat());
            Ok(Finding::at_most(most, STRESS_TIGHT * most, stress))
        };
        Some(found())
    },
    advice: false,
    levers: &[TALLER, LARGER_WHEEL],
};

/// Side thrust of a roller lifter.
pub static ROLLER_ANGLE: Rule = Rule {
    id: "pressure_angle",
    title: "roller pressure angle",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::Angle,
    sided: true,
    formula: "tan phi = s'/(base radius + roller radius + lift), greatest over the lobe",
    school: common,
    reads: &[CONTACT, LOBE],
    gas: false,
    find: |case| {
        is_roller(case.resolved, case.side).then(|| {
            let contact = lobe_contact(case.resolved, case.side)?;
            Ok(Finding::at_most(PRESSURE_ANGLE * DEG, PRESSURE_ANGLE_TIGHT * DEG, contact.extremes().pressure_angle))
        })
    },
    advice: false,
    levers: &[LARGER_BASE],
};

/// Hollow flanks against the wheel that grinds them.
pub static HOLLOW_FLANK: Rule = Rule {
    id: "hollow_flank",
    title: "hollow flank",
    place: Place::Lobe,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "smallest radius where the flank of a roller lobe is hollow, at least the radius of the grinding wheel",
    school: |_| "geometry",
    reads: &[CONTACT, reads![Cam: "wheel_radius"], LOBE],
    gas: false,
    find: |case| {
        if !is_roller(case.resolved, case.side) {
            return None;
        }
        let wheel = case.resolved.given.cam.wheel_radius?;
        match lobe_contact(case.resolved, case.side).map(|contact| contact.extremes().hollow) {
            Ok(hollow) => hollow.map(|radius| Ok(Finding::at_least(wheel.si(), 0.1 * wheel.si(), radius))),
            Err(gap) => Some(Err(gap)),
        }
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
    reads: &[CONTACT, LOBE],
    gas: false,
    find: |case| {
        let radius = lobe_contact(case.resolved, case.side).map(|contact| contact.extremes().convex);
        Some(radius.map(|radius| Finding::at_least(NOSE * INCH, NOSE_TIGHT * INCH, radius)))
    },
    advice: true,
    levers: &[LARGER_BASE],
};

/// How quick a nose is against what is ground.
pub static NOSE_ACCELERATION: Rule = Rule {
    id: "nose_acceleration",
    title: "nose acceleration",
    place: Place::Lobe,
    sense: Sense::AtMost,
    measure: Measure::LobeAcceleration,
    sided: true,
    formula: "greatest fall of the lobe's velocity, for each cam degree; lobes that are ground lie near .00022 to .00026 in/deg2, flat and roller, whatever a card promises; a lobe measured on the bench is ground already and not held to it",
    school: common,
    reads: &[LOBE],
    gas: false,
    find: |case| {
        let own = case.resolved.side(case.side);
        let card = own.card.as_ref()?;
        let tells = [&card.opening, &card.closing]
            .into_iter()
            .all(|flank| flank.last().is_some_and(|check| check.height > height_050()));
        if card.lift.si() > LOW_LOBE * INCH && !tells {
            let reason = "its card says nothing above .050 in, where the smoothest lobe there is was taken".to_owned();
            return Some(Err(Gap { reason, needs: vec![case.resolved.given.lobe(case.side).at("checks")] }));
        }
        Some(own.lobe().map(|lobe| {
            // A lobe made from its card falls hardest at full lift, by construction.
            let fall = -lobe.at(0.0).acceleration;
            Finding::at_most(NOSE_FALL * INCH, NOSE_FALL_TIGHT * INCH, fall)
        }))
    },
    advice: false,
    levers: &[],
};

/// The most a rocker's pushrod bears at rest, N: the open springs of all its valves, or on the exhaust the seat load and
/// what is left of the burned charge as it opens.
fn pushrod_load(case: &Case<'_>) -> Part<f64> {
    let own = case.resolved.side(case.side);
    let (spring, lift) = (own.spring.clone()?, own.lift.clone()?);
    let open = spring.load(own.most_lift()?).si();
    let opening = match case.side {
        Side::Intake => 0.0,
        // Where the gas is not known yet the spring alone is what there is.
        Side::Exhaust => opening_load(case).unwrap_or(0.0),
    };
    Ok(own.valves * lift.ratio * open.max(opening))
}

/// What the load of [`pushrod_load`] is read from, beside spring, lobe and ratio.
const OPENING: Reads = reads![@Exhaust Port: "valve_diameter", "valves"];
const GAS: Reads =
    reads![Target: "boost"; Engine: "combustion", "air_fuel_ratio", "smoke_air_fuel"; Ambient: "pressure"];

/// What bears on the lifter's seat.
pub static LIFTER_LOAD: Rule = Rule {
    id: "lifter_load",
    title: "lifter load rating",
    place: Place::Lifter,
    sense: Sense::AtMost,
    measure: Measure::Force,
    sided: true,
    formula: "the larger of open spring load and, on the exhaust, seat load with the gas at opening, times ratio, for all valves the rocker opens, against the rating; inertia comes on top",
    school: common,
    reads: &[
        reads![Lifter: "rated_load"; Rocker: "ratio"; Port: "valves"],
        SPRING,
        LOBE,
        RATIO,
        OPENING,
        GAS,
        VOLUMES,
        INTAKE_LOBE,
        EXHAUST_LOBE,
        INTAKE_PHASING,
        EXHAUST_PHASING,
    ],
    gas: true,
    find: |case| {
        let rated = case.resolved.train(case.side).lifter.rated_load?;
        Some(pushrod_load(case).map(|load| Finding::at_most(rated.si(), RATING_TIGHT * rated.si(), load)))
    },
    advice: false,
    levers: &[TALLER],
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
    reads: &[CONTACT, reads![Lifter: "face_diameter", "face_margin"], LOBE],
    gas: false,
    find: |case| {
        let lifter = &case.resolved.train(case.side).lifter;
        lifter.kind.filter(|kind| kind.is_flat())?;
        let (face, margin) = (lifter.face_diameter?, lifter.face_margin?);
        Some(lobe_contact(case.resolved, case.side).map(|contact| {
            // A lobe may be made up to the foot's cap exactly: a tenth of a micrometre is rounding, not a failure.
            Finding::at_most(0.5 * face.si() - margin.si() + 1e-7, 0.005 * INCH, contact.extremes().offset)
        }))
    },
    advice: false,
    levers: &[],
};

/// Work that moves the preload.
const WORK_SHEET: Reads = reads![PreloadWork: "head_milled", "deck_milled", "gasket_thicker", "stem_higher", "lash_cap",
    "base_circle_smaller", "stand_shim", "pushrod_longer"];

/// Preload within the plunger's travel.
pub static PRELOAD: Rule = Rule {
    id: "preload",
    title: "preload after all work",
    place: Place::Lifter,
    sense: Sense::Within,
    measure: Measure::Length,
    sided: true,
    formula: "plunger travel taken up at rest after the work sheet: below nothing the train hammers, at the bottom the lifter holds the valve open; at least .005 in from it",
    school: |_| "no school allows less or more",
    reads: &[reads![Lifter: "preload", "travel", "kind"; Rocker: "ratio"; Port: "valve_angle"], WORK_SHEET],
    gas: false,
    find: |case| {
        let (lifter, rocker) = (&case.resolved.train(case.side).lifter, &case.resolved.train(case.side).rocker);
        lifter.kind.filter(|kind| kind.is_hydraulic())?;
        let mut needs = Needs::default();
        need!(needs, lifter.preload);
        let (travel, ratio) = (need!(needs, lifter.travel), need!(needs, rocker.ratio));
        if let Err(missing) = needs.met(()) {
            return Some(Err(missing.into()));
        }
        let have = after_work(case.resolved, case.side, ratio)?;
        let most = travel.si() - PRELOAD_BOTTOM * INCH;
        Some(Ok(Finding::between(Some(0.0), Some(most), PRELOAD_TIGHT * INCH, have)))
    },
    advice: false,
    levers: &[MORE_PRELOAD, LESS_PRELOAD],
};

/// Preload by the school the build follows.
pub static PRELOAD_BY_SCHOOL: Rule = Rule {
    id: "preload_school",
    title: "preload by its school",
    place: Place::Lifter,
    sense: Sense::Within,
    measure: Measure::Length,
    sided: true,
    formula: "plunger travel taken up at rest after the work sheet, by the school: series .015 to .030 in; light 0 to .006 in, so that pump-up cannot hold the valve open; deep .010 to .040 in above the bottom, for short travel; advice",
    school: |resolved| match resolved.train(Side::Intake).lifter.preload_school {
        Some(PreloadSchool::Light) => "light: pump-up cannot hold the valve open",
        Some(PreloadSchool::Deep) => "deep: close to the bottom, with short travel",
        Some(PreloadSchool::Series) | None => "stock preload: as engines leave the works",
    },
    reads: &[
        reads![Lifter: "preload", "preload_school", "travel", "kind"; Rocker: "ratio"; Port: "valve_angle"],
        WORK_SHEET,
    ],
    gas: false,
    find: |case| {
        let train = case.resolved.train(case.side);
        train.lifter.kind.filter(|kind| kind.is_hydraulic())?;
        let have = after_work(case.resolved, case.side, train.rocker.ratio?)?;
        let (low, high) = preload_band(&train.lifter)?;
        Some(Ok(Finding::between(Some(low), Some(high), 0.0, have)))
    },
    advice: true,
    levers: &[MORE_PRELOAD, LESS_PRELOAD],
};

/// The pushrod as a column.
pub static PUSHROD_BUCKLING: Rule = Rule {
    id: "pushrod_buckling",
    title: "pushrod buckling load",
    place: Place::Pushrod,
    sense: Sense::AtLeast,
    measure: Measure::Ratio,
    sided: true,
    formula: "Euler's load pi^2 E I / L^2 over the larger of open spring load and, on the exhaust, seat load with the gas at opening, through the rocker; inertia takes its share of what is needed",
    school: common,
    reads: &[
        reads![Pushrod: "outside_diameter", "wall", "length", "material"; Port: "valves"],
        SPRING,
        LOBE,
        RATIO,
        OPENING,
        GAS,
        VOLUMES,
        INTAKE_LOBE,
        EXHAUST_LOBE,
        INTAKE_PHASING,
        EXHAUST_PHASING,
    ],
    gas: true,
    find: |case| {
        let reserve = || -> Part<f64> {
            let pushrod = Pushrod::read(&case.resolved.train(case.side).pushrod)?;
            Ok(pushrod.buckling_load() / pushrod_load(case)?.max(1.0))
        };
        Some(reserve().map(|reserve| Finding::at_least(BUCKLING, BUCKLING_TIGHT, reserve)))
    },
    advice: false,
    levers: &[THICKER_PUSHROD, MORE_WALL],
};
