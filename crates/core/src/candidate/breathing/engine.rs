//! A candidate's engine as one that breathes.

use super::super::resolve::{Gap, Part, Resolved, lack, together};
use super::outside::{planes, read_collectors, read_mixture, read_restriction};
use super::port::read_port;
use super::rubbing::read_friction;
use crate::document::Side;
use crate::gas::nozzle::effective_area;
use crate::gas::over_cycle::cycle;
use crate::gas::setup::{Combustion, Mesh, Setup, Unmeasured};
use crate::gas::thermo::Fuel;
use crate::given::{Missing, Needs, Place, need};
use crate::quantity::{Angle, Pressure, Volume};
use crate::words::FuelKind;

/// The mesh every result is computed on. A third of it moves torque by .2 %, root mean square over the band, and takes nine
/// times as long.
pub const FINE: Mesh = Mesh { cells: (0.018, 0.030), longest_step: 1.0, repeats: 2e-3 };
/// The mesh of drafts.
pub const COARSE: Mesh = Mesh { cells: (0.036, 0.060), longest_step: 2.0, repeats: 2e-3 };
/// The mesh a result begins on, and the one a draft begins on.
pub const FIRST: Mesh = Mesh { repeats: 1e-2, ..COARSE };
pub const COARSEST: Mesh = Mesh { cells: (0.072, 0.120), ..FIRST };
/// The mesh of what follows a drag.
pub const PREVIEW: Mesh = Mesh { repeats: 5e-3, ..COARSE };
/// Air-fuel ratio of complete burning, below which no diesel is fuelled.
const DIESEL_LEAST: f64 = 15.0;

/// Rail pressure that the usual length of burning holds for, Pa, and the power of it that shortens the main part: injection
/// takes as long as the root of the pressure makes it, and burning half follows it (assumed).
const USUAL_RAIL: f64 = 140e6;
const RAIL_POWER: f64 = 0.25;

/// The engine of one candidate.
pub fn read_engine(inputs: &Resolved) -> Part<Setup> {
    let (combustion, intake, exhaust) =
        (read_combustion(inputs), read_port(inputs, Side::Intake), read_port(inputs, Side::Exhaust));
    let chamber = &inputs.given.engine;
    let closed = chamber.chamber_volume.is_none().then(|| Gap::needing(vec![chamber.at("chamber_volume")]));
    together([lack(&inputs.cylinder), closed, lack(&combustion), lack(&intake), lack(&exhaust)])?;
    let (cylinder, combustion, intake, exhaust) = (inputs.cylinder.clone()?, combustion?, intake?, exhaust?);
    let fuel = read_fuel(inputs);
    let rubbing = read_friction(inputs, &cylinder, [&intake.motion, &exhaust.motion]);
    let volume: Option<Vec<f64>> = cycle().map(|deg| cylinder.volume(Angle::deg(deg)).map(Volume::si)).collect();
    let volume = volume.ok_or_else(|| Missing(vec![inputs.given.engine.at("chamber_volume")]))?;
    let induction = &inputs.given.induction;
    let (rated, depression) = (induction.throttle_flow, induction.throttle_depression);
    let displacement = cylinder.displacement().si();
    let fires_at = firing(inputs, cylinder.count as usize);
    let collectors = read_collectors(inputs, fires_at.len());
    Ok(Setup {
        volume,
        bore: cylinder.bore.si(),
        stroke: cylinder.crank.true_stroke().si(),
        intake,
        exhaust,
        throttle: rated.zip(depression).and_then(|(flow, depression)| effective_area(flow.si(), depression.si())),
        // Half the displacement where nobody measured it (assumed).
        plenum: induction.plenum_volume.map_or(0.5 * displacement, Volume::si).max(0.05 * displacement),
        planes: planes(inputs),
        mixture: read_mixture(inputs, fuel, &combustion),
        rubbing,
        restriction: read_restriction(inputs, displacement),
        fuel,
        cylinders: fires_at.len() as f64,
        fires_at,
        collectors,
        combustion,
        friction: 1.0,
        burning: 1.0,
        unmeasured: Unmeasured::default(),
        mesh: FINE,
        begun_on: Some(FIRST),
    })
}

fn read_fuel(inputs: &Resolved) -> Fuel {
    match inputs.given.engine.fuel {
        Some(FuelKind::Methanol) => Fuel::METHANOL,
        Some(FuelKind::E85) => Fuel::e85(),
        Some(FuelKind::Diesel) => Fuel::DIESEL,
        None if inputs.given.is_diesel() => Fuel::DIESEL,
        Some(FuelKind::Petrol) | None => Fuel::PETROL,
    }
}

fn read_combustion(inputs: &Resolved) -> Part<Combustion> {
    let engine = &inputs.given.engine;
    if !inputs.given.is_diesel() {
        let mut needs = Needs::default();
        let air_fuel = need!(needs, engine.air_fuel_ratio);
        let later = engine.spark_retard.map_or(0.0, Angle::as_deg);
        return Ok(needs.met(Combustion::Spark { air_fuel, later })?);
    }
    let rows = engine.fuelling.iter().flat_map(|fuelling| fuelling.0.iter());
    let mut fuelling: Vec<(f64, f64)> = rows.map(|(at, fuel)| (at.as_rpm(), fuel.si())).collect();
    fuelling.sort_by(|a, b| a.0.total_cmp(&b.0));
    let smoke = engine.smoke_air_fuel;
    if fuelling.is_empty() && smoke.is_none() {
        return Err(Missing(vec![engine.at("fuelling"), engine.at("smoke_air_fuel")]).into());
    }
    let one = engine.injection_start.unwrap_or(Angle::deg(2.0));
    let over = engine.injection.as_ref().filter(|rows| !rows.is_empty());
    let mut start: Vec<(f64, f64)> = over.map_or_else(
        || vec![(0.0, one.as_deg())],
        |rows| rows.iter().map(|(at, angle)| (at.as_rpm(), angle.as_deg())).collect(),
    );
    start.sort_by(|a, b| a.0.total_cmp(&b.0));
    let rail = engine.rail_pressure.map_or(USUAL_RAIL, Pressure::si) / USUAL_RAIL;
    let slower = rail.powf(-RAIL_POWER);
    Ok(Combustion::Diesel { fuelling, smoke_limit: smoke.unwrap_or(DIESEL_LEAST), start, slower })
}

/// Degrees after cylinder 1 at which each cylinder number fires; evenly spaced in the order given, or in their own.
pub fn firing(inputs: &Resolved, count: usize) -> Vec<f64> {
    let count = count.max(1);
    let spacing = 720.0 / count as f64;
    let order = inputs.given.engine.firing_order.as_deref().unwrap_or_default();
    let place = |number: usize| order.iter().position(|n| *n as usize == number + 1).unwrap_or(number);
    let first = place(0);
    (0..count).map(|number| ((place(number) + count - first) % count) as f64 * spacing).collect()
}

/// Why the full mode cannot be computed: every cylinder, its place in the firing order and its collector are needed.
pub fn lacks_for_full(inputs: &Resolved, setup: &Setup) -> Result<(), Gap> {
    let (engine, collector) = (&inputs.given.engine, &inputs.given.collector);
    let mut needs: Vec<Place> = Vec::new();
    if engine.firing_order.is_none() {
        needs.push(engine.at("firing_order"));
    }
    if setup.collectors.is_empty() && collector.is_given {
        needs.extend(["length", "diameter", "cylinders"].map(|key| collector.at(key)));
    }
    if needs.is_empty() { Ok(()) } else { Err(Missing(needs).into()) }
}
