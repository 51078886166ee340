//! A candidate resolved to what a breathing cylinder takes.

use super::inputs::{Gap, Inputs, Part};
use crate::document::{Missing, Needs, Side};
use crate::gas::cycle::{Port, Setup, TABLE_STEP};
use crate::gas::nozzle::effective_area;
use crate::gas::thermo::Fuel;
use crate::quantity::{Angle, Flow, Length, Pressure, Temperature};
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
