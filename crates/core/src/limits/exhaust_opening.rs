//! What the exhaust train has to lift when it opens: the spring, and what is left of the burned charge.

use super::figures::open_load;
use super::rule::{Finding, Measure, Rule, common};
use super::springs::lifter_kind;
use crate::candidate::{Gap, Inputs, Part, timing};
use crate::document::{Missing, Side};
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
    formula: "seat load + (p_cylinder - p_drive) A_head as the exhaust valve opens, each valve, at most the open load this kind of lifter is laid out for; estimated from a constant-volume cycle with exponent 1.3 and 95 % of the fuel's heat",
    school: common,
    find: |inputs, _, _| Some(found(inputs)),
    inputs: |inputs, _| {
        let spring = inputs.train(Side::Exhaust, "spring");
        vec![
            spring.input("points"),
            inputs.port(Side::Exhaust).input("valve_diameter"),
            inputs.train(Side::Exhaust, "lifter").input("kind"),
            inputs.target.input("boost"),
        ]
    },
    advice: false,
    levers: &[],
};

fn found(inputs: &Inputs<'_>) -> Part<Finding> {
    let kind = lifter_kind(inputs, Side::Exhaust)?;
    let short = inputs.train(Side::Exhaust, "lifter").word("variant") == Some("short_travel");
    let seat = inputs.side(Side::Exhaust).spring.clone()?.load(Length::from_si(0.0)).si();
    let port = inputs.port(Side::Exhaust);
    let head: Length = port.quantity("valve_diameter").ok_or_else(|| Missing(vec![port.path_of("valve_diameter")]))?;
    let area = 0.25 * PI * head.si() * head.si();
    let drive = inputs.boost.map_or(0.0, |(_, drive)| drive.si()) + ambient(inputs);
    let pressure = match &inputs.computed {
        Some(computed) => computed.opening_pressure,
        None => estimated_pressure(inputs)?,
    };
    let most = Force::lbf(open_load(kind, short).1).si();
    Ok(Finding::at_most(most, TIGHT * most, seat + (pressure - drive).max(0.0) * area))
}

fn ambient(inputs: &Inputs<'_>) -> f64 {
    inputs.target.child("ambient").quantity::<Pressure>("pressure").map_or(99e3, Pressure::si)
}

/// Cylinder pressure as the exhaust valve opens, Pa: a charge at manifold pressure, compressed, burned at constant volume
/// and expanded, with one exponent all the way: `p1 (1 + q/(cv T1 r^(k-1))) (V_ivc/V_evo)^k` [the ideal constant-volume
/// cycle: Heywood, ch. 5; from memory].
fn estimated_pressure(inputs: &Inputs<'_>) -> Part<f64> {
    let cylinder = inputs.cylinder.clone()?;
    let timing = timing(inputs)?;
    let unknown = || Gap::from(Missing(vec![inputs.engine.path_of("chamber_volume")]));
    let volume = |deg: f64| cylinder.volume(Angle::deg(deg)).map(Volume::si).ok_or_else(unknown);
    let closing = volume(180.0 + timing.intake.closes_006_deg)?;
    let opening = volume(180.0 - timing.exhaust.opens_006_deg)?;
    let diesel = inputs.engine.word("combustion") == Some("diesel");
    let (heating, air_fuel) = if diesel {
        (DIESEL.0, inputs.engine.number("smoke_air_fuel").unwrap_or(DIESEL.1))
    } else {
        (PETROL, inputs.engine.number("air_fuel_ratio").unwrap_or(12.8))
    };
    let heat = LEFT_TO_GAS * heating / (1.0 + air_fuel);
    let cv = R_AIR / (POLYTROPIC - 1.0);
    let ratio = closing / volume(0.0)?;
    let rise = 1.0 + heat / (cv * CHARGE * ratio.powf(POLYTROPIC - 1.0));
    let manifold = inputs.boost.map_or(0.0, |(manifold, _)| manifold.si()).max(0.0) + ambient(inputs);
    Ok(manifold * rise * (closing / opening).powf(POLYTROPIC))
}
