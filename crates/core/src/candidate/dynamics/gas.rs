//! What the gas pushes a valve open with over the cycle, estimated: until breathing has run, and for what it does not say.

use super::super::opening_pressure::{POLYTROPIC, estimated_pressure, outside};
use super::super::resolve::Resolved;
use super::super::timing;
use crate::document::Side;
use crate::dynamics::run::RECORDS;
use crate::quantity::{Angle, Length, Volume};
use std::f64::consts::PI;

/// Crank degrees in which cylinder pressure falls to a third of its excess after the exhaust valve has opened (common
/// practice, no source).
const BLOW_DOWN: f64 = 25.0;
/// Crank degrees from firing top in which the charge burns (common practice, no source): a jump of pressure would strike the
/// valve into its seat.
const BURNS: (f64, f64) = (-20.0, 35.0);

/// Force on all valves of a side, N, positive where it opens, at every record from `begins_at` (degrees from firing top):
/// `(p_port - p_0)(A_head - A_stem) - (p_cyl - p_0) A_head`. Empty where cylinder or heads are not known.
pub(super) fn opening_force(inputs: &Resolved, side: Side, begins_at: f64) -> Vec<f64> {
    cylinder_pressure(inputs)
        .and_then(|cylinder| {
            let port = inputs.port(side);
            let head = 0.25 * PI * port.valve_diameter?.si().powi(2);
            let stem = 0.25 * PI * port.stem_diameter.map_or(0.0, Length::si).powi(2);
            let (manifold, drive) = gauge(inputs);
            let in_port = match side {
                Side::Intake => manifold,
                Side::Exhaust => drive,
            };
            let valves = inputs.side(side).valves;
            let force = |record: usize| {
                let deg = (begins_at + record as f64).rem_euclid(720.0);
                valves * (in_port * (head - stem) - cylinder(deg) * head)
            };
            Some((0..RECORDS).map(force).collect())
        })
        .unwrap_or_default()
}

/// Manifold and drive pressure above outside, Pa.
fn gauge(inputs: &Resolved) -> (f64, f64) {
    inputs.boost().map_or((0.0, 0.0), |(manifold, drive)| (manifold.si().max(0.0), drive.si().max(0.0)))
}

/// Cylinder pressure above outside over degrees from firing top, Pa: compressed and expanded with one exponent, burned about
/// top dead centre, blown down as an exponential.
fn cylinder_pressure(inputs: &Resolved) -> Option<impl Fn(f64) -> f64> {
    let cylinder = inputs.cylinder.clone().ok()?;
    let events = timing(inputs).ok()?;
    let (manifold, drive) = gauge(inputs);
    let outside = outside(inputs);
    let opening = 180.0 - events.exhaust.opens_006_deg;
    let closing = 540.0 + events.intake.closes_006_deg;
    let at_opening = estimated_pressure(inputs, manifold).ok()?;
    cylinder.volume(Angle::deg(0.0))?;
    let volume = move |deg: f64| cylinder.volume(Angle::deg(deg)).map_or(1.0, Volume::si);
    let (opened, closed) = (volume(opening), volume(closing));
    Some(move |deg: f64| {
        let compressed = || (manifold + outside) * (closed / volume(deg)).powf(POLYTROPIC) - outside;
        let after_top = if deg > 540.0 { deg - 720.0 } else { deg };
        let done = ((after_top - BURNS.0) / (BURNS.1 - BURNS.0)).clamp(0.0, 1.0);
        let burned = done * done * (3.0 - 2.0 * done);
        if deg < opening {
            let expanded = at_opening * (opened / volume(deg)).powf(POLYTROPIC) - outside;
            compressed() + burned * (expanded - compressed())
        } else if deg < 360.0 {
            drive + (at_opening - outside - drive).max(0.0) * (-(deg - opening) / BLOW_DOWN).exp()
        } else if deg < closing {
            manifold
        } else {
            let expanded = at_opening * (opened / volume(deg)).powf(POLYTROPIC) - outside;
            compressed() + burned * (expanded - compressed())
        }
    })
}
