//! What the exhaust train has to lift when it opens: the spring, and what is left of the burned charge.

use super::figures::spring_band;
use super::levers::LARGER_CHAMBER;
use super::measure::Measure;
use super::reads::{
    EXHAUST_LOBE, EXHAUST_PHASING, EXHAUST_SPRING, INTAKE_LOBE, INTAKE_PHASING, TOP_SPEED, VOLUMES, reads,
};
use super::rule::{Case, Finding, Rule, common};
use super::springs::lifter_kind;
use crate::candidate::{Gap, Part, Resolved, timing};
use crate::document::Side;
use crate::given::{Needs, need};
use crate::quantity::{Angle, Force, Length, Pressure, Volume};
use crate::report::{Place, Sense};
use std::f64::consts::PI;

/// Exponent of compression and expansion with heat lost and real specific heats (common practice, no source).
const POLYTROPIC: f64 = 1.3;
/// Gas constant of air, J/(kg K), and the temperature of a charge at intake closing, K (assumed).
const R_AIR: f64 = 287.0;
const CHARGE: f64 = 350.0;
/// Share of the fuel's heat that counts: what walls take, late burning and filling by pressure waves give back; set so that
/// the estimate lies near what breathing computes of the demo builds (assumed).
const LEFT_TO_GAS: f64 = 0.95;
/// Heating values, J/kg, and air-fuel ratio of a diesel at the smoke limit (assumed).
const PETROL: f64 = 44.0e6;
const DIESEL: (f64, f64) = (42.8e6, 20.0);
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
    let drive = case.boost().map_or(0.0, |(_, drive)| drive.si()) + ambient(resolved);
    let pressure = match &case.findings.gas {
        Some(gas) => gas.opening_pressure,
        None => estimated_pressure(case)?,
    };
    Ok(seat + (pressure - drive).max(0.0) * area)
}

fn ambient(resolved: &Resolved) -> f64 {
    resolved.given.ambient.pressure.map_or(99e3, Pressure::si)
}

/// Cylinder pressure as the exhaust valve opens, Pa: a charge at manifold pressure, compressed, burned at constant volume
/// and expanded, with one exponent all the way: `p1 (1 + q/(cv T1 r^(k-1))) (V_ivc/V_evo)^k` [the ideal constant-volume
/// cycle: Heywood, ch. 5; from memory].
fn estimated_pressure(case: &Case<'_>) -> Part<f64> {
    let resolved = case.resolved;
    let cylinder = resolved.cylinder.clone()?;
    let timing = timing(resolved)?;
    let engine = &resolved.given.engine;
    let unknown = || Gap::needing(vec![engine.at("chamber_volume")]);
    let volume = |deg: f64| cylinder.volume(Angle::deg(deg)).map(Volume::si).ok_or_else(unknown);
    let closing = volume(180.0 + timing.intake.closes_006_deg)?;
    let opening = volume(180.0 - timing.exhaust.opens_006_deg)?;
    let (heating, air_fuel) = if resolved.given.is_diesel() {
        (DIESEL.0, engine.smoke_air_fuel.unwrap_or(DIESEL.1))
    } else {
        (PETROL, engine.air_fuel_ratio.unwrap_or(12.8))
    };
    let heat = LEFT_TO_GAS * heating / (1.0 + air_fuel);
    let cv = R_AIR / (POLYTROPIC - 1.0);
    let ratio = closing / volume(0.0)?;
    let rise = 1.0 + heat / (cv * CHARGE * ratio.powf(POLYTROPIC - 1.0));
    let manifold = case.boost().map_or(0.0, |(manifold, _)| manifold.si()).max(0.0) + ambient(resolved);
    Ok(manifold * rise * (closing / opening).powf(POLYTROPIC))
}
