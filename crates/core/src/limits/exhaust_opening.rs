//! What the exhaust train has to lift when it opens: the spring, and what is left of the burned charge.

use super::figures::spring_band;
use super::levers::LARGER_CHAMBER;
use super::measure::Measure;
use super::reads::{
    EXHAUST_LOBE, EXHAUST_PHASING, EXHAUST_SPRING, INTAKE_LOBE, INTAKE_PHASING, TOP_SPEED, VOLUMES, reads,
};
use super::rule::{Case, Finding, Rule, common};
use super::springs::lifter_kind;
use crate::candidate::{Gap, Part, estimated_pressure, outside};
use crate::document::Side;
use crate::given::{Needs, need};
use crate::quantity::{Force, Length};
use crate::report::{Place, Sense};
use std::f64::consts::PI;

/// Room below the need under which it is tight, as a share of it (common practice, no source).
const TIGHT: f64 = 0.1;

/// Spring and gas against what this kind of train is laid out for.
pub static EXHAUST_OPENING: Rule = Rule {
    id: "exhaust_opening",
    title: "Exhaust load at opening",
    place: Place::Spring,
    sense: Sense::AtMost,
    measure: Measure::Force,
    sided: false,
    formula: "seat load + (p_cylinder - p_drive) A_head as the exhaust valve opens, each valve, at most the open load this kind of lifter is laid out for; the pressure computed where breathing has run, else estimated from a constant-volume cycle with exponent 1.3 and 95 % of the fuel's heat; a diesel's pushrod and lifter are held against it themselves",
    school: common,
    reads: &[
        EXHAUST_SPRING,
        reads![@Exhaust Port: "valve_diameter"; Lifter: "kind"],
        reads![Target: "boost"; Engine: "combustion", "air_fuel_ratio", "smoke_air_fuel"; Ambient: "pressure"],
        VOLUMES,
        TOP_SPEED,
        INTAKE_LOBE,
        EXHAUST_LOBE,
        INTAKE_PHASING,
        EXHAUST_PHASING,
        reads![@Intake Lifter: "lash"; Rocker: "ratio"],
        reads![@Exhaust Lifter: "lash"; Rocker: "ratio"],
    ],
    gas: true,
    find: |case| {
        if case.resolved.given.is_diesel() {
            return None;
        }
        let found = || -> Part<Finding> {
            let kind = lifter_kind(case.resolved, Side::Exhaust)?;
            let shift = || Gap::needing(vec![case.resolved.given.target.at("shift_at")]);
            let top = case.resolved.top_speed().ok_or_else(shift)?;
            let most = Force::lbf(spring_band(kind, top.as_rpm()).open.1).si();
            Ok(Finding::at_most(most, TIGHT * most, opening_load(case)?))
        };
        Some(found())
    },
    advice: false,
    levers: &[LARGER_CHAMBER],
};

/// Load of one exhaust valve as it opens, N: its seat load and the gas on its head.
pub(super) fn opening_load(case: &Case<'_>) -> Part<f64> {
    let resolved = case.resolved;
    let seat = resolved.side(Side::Exhaust).spring.clone()?.load(Length::from_si(0.0)).si();
    let port = resolved.port(Side::Exhaust);
    let mut needs = Needs::default();
    let head = need!(needs, port.valve_diameter);
    needs.met(())?;
    let area = 0.25 * PI * head.si() * head.si();
    let drive = case.boost().map_or(0.0, |(_, drive)| drive.si()) + outside(resolved);
    let pressure = match &case.findings.gas {
        Some(gas) => gas.opening_pressure,
        None => estimated_pressure(resolved, case.boost().map_or(0.0, |(manifold, _)| manifold.si()).max(0.0))?,
    };
    Ok(seat + (pressure - drive).max(0.0) * area)
}
