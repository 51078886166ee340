//! What the exhaust valve opens against, estimated before breathing is computed.

use super::blocks::timing;
use super::resolve::{Gap, Part, Resolved};
use crate::quantity::{Angle, Pressure, Volume};

/// Exponent of compression and expansion with heat lost and real specific heats (common practice, no source).
pub const POLYTROPIC: f64 = 1.3;
/// Gas constant of air, J/(kg K), and the temperature of a charge at intake closing, K (assumed).
const R_AIR: f64 = 287.0;
const CHARGE: f64 = 350.0;
/// Share of the fuel's heat that counts: what walls take, late burning and filling by pressure waves give back; set so that
/// the estimate lies near what breathing computes of the demo builds (assumed).
const LEFT_TO_GAS: f64 = 0.95;
/// Heating values, J/kg, and air-fuel ratio of a diesel at the smoke limit (assumed).
const PETROL: f64 = 44.0e6;
const DIESEL: (f64, f64) = (42.8e6, 20.0);

/// Pressure of the air outside, Pa.
pub fn outside(inputs: &Resolved) -> f64 {
    inputs.given.ambient.pressure.map_or(99e3, Pressure::si)
}

/// Cylinder pressure as the exhaust valve opens, Pa: a charge at manifold pressure (`boost`, above outside), compressed,
/// burned at constant volume and expanded, with one exponent all the way: `p1 (1 + q/(cv T1 r^(k-1))) (V_ivc/V_evo)^k`
/// [the ideal constant-volume cycle: Heywood, ch. 5; from memory].
///
/// # Errors
/// What cylinder or timing lack.
pub fn estimated_pressure(inputs: &Resolved, boost: f64) -> Part<f64> {
    let cylinder = inputs.cylinder.clone()?;
    let timing = timing(inputs)?;
    let engine = &inputs.given.engine;
    let unknown = || Gap::needing(vec![engine.at("chamber_volume")]);
    let volume = |deg: f64| cylinder.volume(Angle::deg(deg)).map(Volume::si).ok_or_else(unknown);
    let closing = volume(180.0 + timing.intake.closes_006_deg)?;
    let opening = volume(180.0 - timing.exhaust.opens_006_deg)?;
    let (heating, air_fuel) = if inputs.given.is_diesel() {
        (DIESEL.0, engine.smoke_air_fuel.unwrap_or(DIESEL.1))
    } else {
        (PETROL, engine.air_fuel_ratio.unwrap_or(12.8))
    };
    let heat = LEFT_TO_GAS * heating / (1.0 + air_fuel);
    let cv = R_AIR / (POLYTROPIC - 1.0);
    let ratio = closing / volume(0.0)?;
    let rise = 1.0 + heat / (cv * CHARGE * ratio.powf(POLYTROPIC - 1.0));
    Ok((boost + outside(inputs)) * rise * (closing / opening).powf(POLYTROPIC))
}
