//! A candidate resolved to what a breathing cylinder takes.

use super::inputs::{Gap, Inputs, Part};
use crate::document::{Missing, Needs, Side};
use crate::gas::cycle::{Point, Port, Setup, TABLE_STEP, point};
use crate::gas::nozzle::effective_area;
use crate::gas::thermo::Fuel;
use crate::quantity::{Angle, Flow, Length, Pressure, Speed, Temperature};
use crate::report::BreathingReport;
use rayon::prelude::*;
use std::f64::consts::PI;

/// Length of a cell in runner and primary, m: the fast mode's own.
const CELLS: (f64, f64) = (0.012, 0.018);

/// The set-up of one candidate; spark engines without boost so far.
pub fn breathing_setup(inputs: &Inputs<'_>) -> Part<Setup> {
    let cylinder = inputs.cylinder.clone()?;
    let engine = &inputs.engine;
    if engine.word("combustion") == Some("diesel") || inputs.boost.is_some_and(|(manifold, _)| manifold.si() > 0.0) {
        let reason = "breathing is computed for spark engines without boost so far".to_owned();
        return Err(Gap { reason, needs: Vec::new() });
    }
    let fuel = match engine.word("fuel") {
        Some("methanol") => Fuel::METHANOL,
        _ => Fuel::PETROL,
    };
    let mut needs = Needs::default();
    let air_fuel = needs.number(engine, "air_fuel_ratio");
    needs.met(())?;
    let volume: Option<Vec<f64>> =
        table().map(|deg| cylinder.volume(Angle::deg(deg)).map(crate::quantity::Volume::si)).collect();
    let volume = volume.ok_or_else(|| Missing(vec![engine.path_of("chamber_volume")]))?;
    let ambient = inputs.target.child("ambient");
    let pressure: Pressure = ambient.quantity("pressure").unwrap_or(Pressure::from_si(99e3));
    let temperature: Temperature = ambient.quantity("temperature").unwrap_or(Temperature::from_si(298.15));
    let induction = engine.child("induction");
    let rated: Option<Flow> = induction.quantity("throttle_flow");
    let depression: Option<Pressure> = induction.quantity("throttle_depression");
    let throttle = rated.zip(depression).and_then(|(flow, depression)| effective_area(flow.si(), depression.si()));
    Ok(Setup {
        volume,
        bore: cylinder.bore.si(),
        stroke: cylinder.crank.true_stroke().si(),
        count: cylinder.count,
        intake: port(inputs, Side::Intake)?,
        exhaust: port(inputs, Side::Exhaust)?,
        ambient: (pressure.si(), temperature.si()),
        collector: pressure.si(),
        throttle,
        fuel,
        air_fuel,
        cells: CELLS,
    })
}

/// Points over the band of the plan, and one on each side of it.
const POINTS: usize = 13;

/// Torque and power over the band of the plan and a little beyond, points in parallel, each from cold.
pub fn breathing(inputs: &Inputs<'_>) -> Part<BreathingReport> {
    let setup = breathing_setup(inputs)?;
    let mut needs = Needs::default();
    let from: Speed = needs.quantity(&inputs.target, "band_from");
    let to: Speed = needs.quantity(&inputs.target, "band_to");
    needs.met(())?;
    let step = (to.as_rpm() - from.as_rpm()) / (POINTS - 3) as f64;
    let speeds: Vec<f64> =
        (0..POINTS).map(|i| from.as_rpm() + step * (i as f64 - 1.0)).filter(|rpm| *rpm > 300.0).collect();
    let points: Option<Vec<Point>> = speeds.par_iter().map(|rpm| point(&setup, *rpm)).collect();
    let nowhere = || Gap { reason: "runner or primary has no length or no area".to_owned(), needs: Vec::new() };
    Ok(report(&points.ok_or_else(nowhere)?, setup.swept() * setup.count, from.as_rpm()..=to.as_rpm()))
}

fn report(points: &[Point], displacement: f64, band: std::ops::RangeInclusive<f64>) -> BreathingReport {
    let column = |of: fn(&Point) -> f64| points.iter().map(of).collect::<Vec<f64>>();
    let (speed, torque, power) = (column(|p| p.rpm), column(|p| p.torque), column(|p| p.power() * 1e-3));
    let average = |values: &[f64]| {
        let within: Vec<f64> =
            speed.iter().zip(values).filter(|(rpm, _)| near(&band, **rpm)).map(|(_, v)| *v).collect();
        (within.len() > 1).then(|| within.iter().sum::<f64>() / within.len() as f64)
    };
    let ((peak_torque_rpm, peak_torque_nm), (peak_power_rpm, peak_power_kw)) =
        (peak(&speed, &torque), peak(&speed, &power));
    BreathingReport {
        mode: "fast: one cylinder, constant-pressure collector, rigid valve motion".to_owned(),
        average_torque_nm: average(&torque),
        average_power_kw: average(&power),
        volumetric_efficiency: column(|p| p.volumetric_efficiency),
        bmep_kpa: torque.iter().map(|t| 4e-3 * PI * t / displacement).collect(),
        residual_fraction: column(|p| p.residual),
        peak_cylinder_pressure_kpa: column(|p| p.peak_pressure * 1e-3),
        converged: points.iter().map(|p| p.converged).collect(),
        peak_torque_nm,
        peak_torque_rpm,
        peak_power_kw,
        peak_power_rpm,
        error_band: "not calibrated: peak power within about 5 %, peak torque 7 %, low-speed torque 20 % with a measured flow table; differences between candidates are better than the figures themselves".to_owned(),
        speed_rpm: speed,
        torque_nm: torque,
        power_kw: power,
    }
}

/// Whether a speed lies in the band, its ends included to rounding.
fn near(band: &std::ops::RangeInclusive<f64>, rpm: f64) -> bool {
    rpm > band.start() - 0.5 && rpm < band.end() + 0.5
}

/// Peak of a curve by the parabola of least squares through the five points around its highest; the highest point
/// itself where the parabola has no peak among them.
fn peak(x: &[f64], y: &[f64]) -> (f64, f64) {
    let top = (0..y.len()).max_by(|a, b| y[*a].total_cmp(&y[*b])).unwrap_or(0);
    let first = top.saturating_sub(2).min(y.len().saturating_sub(5));
    let (x5, y5) = (&x[first..y.len().min(first + 5)], &y[first..y.len().min(first + 5)]);
    let highest = (x[top], y[top]);
    if x5.len() < 5 {
        return highest;
    }
    // Evenly spaced points: a = sum(y (u^2 - 2)) / 14, b = sum(y u) / 10, c = mean(y) - 2 a, u = -2..2.
    let u = |i: usize| i as f64 - 2.0;
    let a = (0..5).map(|i| y5[i] * (u(i) * u(i) - 2.0)).sum::<f64>() / 14.0;
    let b = (0..5).map(|i| y5[i] * u(i)).sum::<f64>() / 10.0;
    let c = y5.iter().sum::<f64>() / 5.0 - 2.0 * a;
    let at = -0.5 * b / a;
    if a >= 0.0 || at.abs() > 2.0 {
        return highest;
    }
    (x5[2] + at * (x5[3] - x5[2]), c - 0.25 * b * b / a)
}

fn table() -> impl Iterator<Item = f64> {
    (0..(720.0 / TABLE_STEP) as usize).map(|i| i as f64 * TABLE_STEP)
}

fn port(inputs: &Inputs<'_>, side: Side) -> Part<Port> {
    let node = inputs.port(side);
    let mut needs = Needs::default();
    let (length, diameter): (f64, Length) = match side {
        Side::Intake => {
            let parts: [Length; 3] =
                ["runner_length", "port_length", "acoustic_end"].map(|key| needs.quantity(&node, key));
            (parts.iter().map(|part| part.si()).sum(), needs.quantity(&node, "runner_diameter"))
        }
        Side::Exhaust => {
            let primary: Length = needs.quantity(&node, "primary_length");
            (primary.si(), needs.quantity(&node, "primary_diameter"))
        }
    };
    let depression: Pressure = needs.quantity(&node, "flow_depression");
    let rows = needs.or_missing(&node, "flow", node.rows::<Length, Flow>("flow"));
    needs.met(())?;
    let areas = |rows: Vec<(Length, Flow)>| -> Vec<(f64, f64)> {
        let area = |flow: Flow| effective_area(flow.si(), depression.si()).unwrap_or(0.0);
        std::iter::once((0.0, 0.0)).chain(rows.into_iter().map(|(lift, flow)| (lift.si(), area(flow)))).collect()
    };
    let forward = areas(rows.unwrap_or_default());
    let reverse = node.rows::<Length, Flow>("flow_reverse").map_or_else(|| forward.clone(), areas);
    let travel = inputs.travel(side)?;
    let lifts: Vec<f64> = table().map(|deg| travel.lift_at(deg).si()).collect();
    let over = |curve: &[(f64, f64)]| lifts.iter().map(|lift| on_curve(curve, *lift)).collect();
    let area = 0.25 * PI * diameter.si() * diameter.si();
    Ok(Port { length, area, forward: over(&forward), reverse: over(&reverse) })
}

/// Effective area at a lift: between the bench's rows linear, beyond the last one held.
fn on_curve(curve: &[(f64, f64)], lift: f64) -> f64 {
    let above = curve.partition_point(|(at, _)| *at <= lift);
    match (above.checked_sub(1).map(|i| curve[i]), curve.get(above)) {
        (Some((l0, a0)), Some((l1, a1))) => a0 + (lift - l0) / (l1 - l0) * (a1 - a0),
        (Some((_, last)), None) => last,
        (None, _) => 0.0,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_peak_between_points_is_found_and_one_at_the_end_is_told_as_it_is() {
        let x: Vec<f64> = (0..13).map(|i| 2000.0 + 300.0 * f64::from(i)).collect();
        let curve: Vec<f64> = x.iter().map(|rpm| 500.0 - ((rpm - 4130.0) / 1000.0).powi(2)).collect();
        let (at, height) = peak(&x, &curve);
        assert!((at - 4130.0).abs() < 1e-6 && (height - 500.0).abs() < 1e-9);
        let rising: Vec<f64> = x.iter().map(|rpm| rpm * 0.1).collect();
        assert_eq!(peak(&x, &rising), (5600.0, 560.0));
    }
}
