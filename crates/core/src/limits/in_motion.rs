//! Rules about the train in motion: they speak where it was turned.

use super::clearances::has_aluminium_rods;
use super::figures::{
    INCH, PISTON_ALUMINIUM, PISTON_IN_MOTION, PISTON_TIGHT, PUSHROD_IN_MOTION, PUSHROD_IN_MOTION_TIGHT, STRESS_TIGHT,
    WIRE_MOST, WIRE_TIGHT, contact_stress,
};
use super::findings::InMotion;
use super::measure::Measure;
use super::reads::{CROWN, LOBE, MASSES, PHASING, PISTON, RATIO, SPRING, TOP_SPEED, VALVE, reads};
use super::rule::{Case, Finding, Rule, common};
use crate::document::Side;
use crate::report::{Place, Sense};

/// What was found of the case's side.
pub(super) fn in_motion<'a>(case: &'a Case<'_>) -> Option<&'a InMotion> {
    Some(&case.findings.control.as_ref()?.sides[case.side.index()])
}

/// Control by the train in motion.
pub static LIMITING_SPEED: Rule = Rule {
    id: "limiting_speed",
    title: "limiting speed (in motion)",
    place: Place::Control,
    sense: Sense::AtLeast,
    measure: Measure::Speed,
    sided: true,
    formula: "speed at which gap, bounce or hang-open pass .020 in, the median of sixteen draws over what nobody measures, against shift plus overspeed; tight where one draw of ten falls short",
    school: |_| "computed: masses, contacts, oil and coils in motion; it decides, the hand check stands beside it",
    reads: &[TOP_SPEED, SPRING, MASSES, LOBE, RATIO],
    gas: false,
    find: |case| {
        let found = in_motion(case)?;
        let top = case.resolved.top_speed()?.si();
        let mut finding = Finding::at_least(top, 0.0, found.speed);
        finding.is_tight = found.low < top;
        Some(Ok(finding))
    },
    advice: false,
    levers: &[],
};

/// What is left above the piston with the lift the valve really has.
pub static PISTON_MOTION: Rule = Rule {
    id: "piston_in_motion",
    title: "valve to piston in motion",
    place: Place::Control,
    sense: Sense::AtLeast,
    measure: Measure::Length,
    sided: true,
    formula: "gap along the stem with the lift the valve has in motion, loft and bounce included, least up to shift plus overspeed; what is left is for the growth of rod, crank, bearings and piston: .035 in intake, .050 in exhaust, + .015 and + .030 with aluminium rods",
    school: common,
    reads: &[TOP_SPEED, PHASING, PISTON, CROWN, VALVE, reads![Engine: "rod_material"], SPRING, MASSES, LOBE, RATIO],
    gas: false,
    find: |case| {
        let gap = in_motion(case)?.piston?;
        let of = |pair: (f64, f64)| if case.side == Side::Intake { pair.0 } else { pair.1 };
        let more = if has_aluminium_rods(case.resolved) { of(PISTON_ALUMINIUM) } else { 0.0 };
        Some(Ok(Finding::at_least((of(PISTON_IN_MOTION) + more) * INCH, PISTON_TIGHT * INCH, gap)))
    },
    advice: false,
    levers: &[],
};

/// The pushrod under what it bears at speed.
pub static PUSHROD_MOTION: Rule = Rule {
    id: "pushrod_in_motion",
    title: "pushrod load in motion",
    place: Place::Control,
    sense: Sense::AtLeast,
    measure: Measure::Ratio,
    sided: true,
    formula: "Euler's load over the largest load of the pushrod in motion, up to shift plus overspeed; a load that comes and goes in a millisecond, so less is needed than at rest",
    school: common,
    reads: &[TOP_SPEED, reads![Pushrod: "outside_diameter", "wall", "length", "material"], SPRING, MASSES, LOBE, RATIO],
    gas: false,
    find: |case| Some(Ok(Finding::at_least(PUSHROD_IN_MOTION, PUSHROD_IN_MOTION_TIGHT, in_motion(case)?.pushrod?))),
    advice: false,
    levers: &[],
};

/// The lobe under what it bears at speed.
pub static LOBE_MOTION: Rule = Rule {
    id: "lobe_in_motion",
    title: "contact (Hertz) stress in motion",
    place: Place::Control,
    sense: Sense::AtMost,
    measure: Measure::Stress,
    sided: true,
    formula: "sqrt(F/w E* (1/R1 + 1/R2)/pi) of the lobe's load in motion and the radius where it stands, greatest up to shift plus overspeed, against the same figures as turning slowly",
    school: common,
    reads: &[
        TOP_SPEED,
        reads![Cam: "core_material", "base_circle_diameter"; Lifter: "kind", "roller_diameter", "roller_width"],
        SPRING,
        MASSES,
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let stress = in_motion(case)?.lobe?;
        let kind = case.resolved.train(case.side).lifter.kind?;
        let most = contact_stress(case.resolved.given.cam.core_material?, kind.is_flat());
        Some(Ok(Finding::at_most(most, STRESS_TIGHT * most, stress)))
    },
    advice: true,
    levers: &[],
};

/// The wire with the waves that run along it.
pub static WIRE_MOTION: Rule = Rule {
    id: "wire_in_motion",
    title: "wire stress in motion",
    place: Place::Control,
    sense: Sense::AtMost,
    measure: Measure::Share,
    sided: true,
    formula: "greatest corrected shear anywhere along a coil with the waves that run through it, over the tensile strength of its wire, up to shift plus overspeed; above 70 % springs break soon; advice",
    school: common,
    reads: &[TOP_SPEED, SPRING, MASSES, LOBE, RATIO],
    gas: false,
    find: |case| Some(Ok(Finding::at_most(WIRE_MOST, WIRE_TIGHT, in_motion(case)?.wire?))),
    advice: true,
    levers: &[],
};
