//! Rules about a spring's wire: its stress against its strength, its fatigue, and its waves against the lobe.

use super::figures::{SURGE_ORDER, WIRE_INTERVAL, WIRE_LIFE as LONG_LIFE, WIRE_MOST, WIRE_TIGHT};
use super::levers::TALLER;
use super::measure::Measure;
use super::reads::{LOBE, RATIO, SPRING, TOP_SPEED, reads};
use super::rule::{Case, Finding, Rule, common};
use crate::candidate::{Part, spring_at_lift};
use crate::quantity::Length;
use crate::report::{Place, Sense};
use crate::train::Spring;

/// Greatest share of its strength that any wire of the package bears at full lift; `None` for springs known by loads alone.
fn share(case: &Case<'_>) -> Option<Part<f64>> {
    case.resolved.train(case.side).spring.coils.as_ref()?;
    at_lift(case, |spring, net| spring.stress_share(net))
}

/// What `of` finds of the package at full lift; `None` when it finds nothing of this kind of spring.
fn at_lift<T>(case: &Case<'_>, of: impl FnOnce(&Spring, Length) -> Option<T>) -> Option<Part<T>> {
    match spring_at_lift(case.resolved.side(case.side)) {
        Ok((spring, net)) => of(spring, net).map(Ok),
        Err(gap) => Some(Err(gap)),
    }
}

/// Wire stress against what breaks springs soon.
pub static WIRE_STRESS: Rule = Rule {
    id: "wire_stress",
    title: "wire stress",
    place: Place::Spring,
    sense: Sense::AtMost,
    measure: Measure::Share,
    sided: true,
    formula: "corrected shear at full lift, Kw 8 F D/(pi d^3), over the tensile strength of this class of wire at this diameter, the worst coil; above 70 % springs, peened and set, break soon",
    school: common,
    reads: &[SPRING, reads![Lobe: "lobe_lift"; Rocker: "ratio"], LOBE, RATIO],
    gas: false,
    find: |case| share(case).map(|found| found.map(|share| Finding::at_most(WIRE_MOST, WIRE_TIGHT, share))),
    advice: false,
    levers: &[TALLER],
};

/// Wire stress against the life the owner expects.
pub static WIRE_LIFE: Rule = Rule {
    id: "wire_life",
    title: "wire stress for its life",
    place: Place::Spring,
    sense: Sense::AtMost,
    measure: Measure::Share,
    sided: true,
    formula: "the same share: 52 % for a long life, 62 % where springs are looked at within the interval the plan states, or between meetings of a raced engine; advice",
    school: |resolved| {
        if resolved.given.target.has_interval() {
            "with a stated interval"
        } else if resolved.given.purpose.is_raced() {
            "raced: springs are looked at between meetings"
        } else {
            "for a long life: the plan states no interval"
        }
    },
    reads: &[
        SPRING,
        reads![Target: "inspection_miles", "inspection_passes", "inspection_hours"; Build: "use"],
        LOBE,
        RATIO,
    ],
    gas: false,
    find: |case| {
        let given = &case.resolved.given;
        let looked_at = given.target.has_interval() || given.purpose.is_raced();
        let most = if looked_at { WIRE_INTERVAL } else { LONG_LIFE };
        share(case).map(|found| found.map(|share| Finding::at_most(most.0, most.1, share)))
    },
    advice: true,
    levers: &[TALLER],
};

/// The swing of stress against the line for endless life.
pub static WIRE_FATIGUE: Rule = Rule {
    id: "wire_fatigue",
    title: "wire fatigue reserve",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Ratio,
    sided: true,
    formula: "1/(tau_a/S_se + tau_m/S_su), S_se = 398 MPa/(1 - 534 MPa/S_su), S_su = .67 S_ut: Goodman's line through Zimmerli's data for peened wire; below one the springs have a life in cycles; modern super-clean wire stands more; advice",
    school: |_| "Shigley, Mechanical Engineering Design, ch. 10 (Zimmerli's data; from memory)",
    reads: &[SPRING, reads![Lobe: "lobe_lift"; Rocker: "ratio"], LOBE, RATIO],
    gas: false,
    find: |case| {
        case.resolved.train(case.side).spring.coils.as_ref()?;
        at_lift(case, |spring, net| Some(Finding::at_least(1.0, 0.05, spring.fatigue_reserve(net)?)))
    },
    advice: true,
    levers: &[TALLER],
};

/// The spring's first wave against the cam.
pub static SURGE: Rule = Rule {
    id: "surge_order",
    title: "spring surge order",
    place: Place::Spring,
    sense: Sense::AtLeast,
    measure: Measure::Ratio,
    sided: true,
    formula: "first surge frequency over cam turns a second at shift plus overspeed: which harmonic of the lobe meets it; below about the sixth harmonics are strong; advice",
    school: common,
    reads: &[SPRING, reads![Spring: "mass"], TOP_SPEED, LOBE, RATIO],
    gas: false,
    find: |case| {
        let top = case.resolved.top_speed()?;
        at_lift(case, |spring, net| {
            // The cam turns once for two turns of the crank.
            let order = spring.surge_frequency(net)? / (top.as_rpm() / 120.0);
            Some(Finding::at_least(SURGE_ORDER, 0.5, order))
        })
    },
    advice: true,
    levers: &[],
};
