//! What is odd about a curve: figures beside the range in which engines of their kind lie, and the inputs most likely to blame
//! for one that does not.

use super::balance::{POUNDS_PER_HORSEPOWER_HOUR, brake_pressure, consumption, piston_speed};
use super::work::{Breathing, Sample};
use crate::gas::setup::Combustion;
use crate::quantity::{Dimension, Shown, shown};
use crate::report::{FigureReport, Named};

/// Where on the curve a figure is read.
#[derive(Clone, Copy)]
enum Where {
    Torque,
    Power,
    Top,
}

/// The kinds of engines that ranges are told apart by.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    /// Spark, breathing outside air, for the road.
    Street,
    /// Spark, breathing outside air, raced.
    Raced,
    /// Spark, boosted.
    BoostedSpark,
    /// Diesel.
    Diesel,
}

/// One figure: what it is, how it is read, and its range by kind (common practice, no source, but for consumption and
/// friction, which lie where Heywood, ch. 13 and 15, has them; from memory).
struct Row {
    id: &'static str,
    title: &'static str,
    at: Where,
    of: fn(&Breathing, &Sample) -> Option<f64>,
    range: fn(Kind) -> Option<(f64, f64)>,
    read: fn(f64) -> Shown,
    /// Inputs to look at when it is too low, and too high.
    low: &'static [&'static str],
    high: &'static [&'static str],
}

const FLOW: &[&str] = &[
    "engine.intake.flow",
    "engine.intake.runner_diameter",
    "engine.induction.manifold_loss",
    "engine.induction.throttle_flow",
    "engine.induction.inlet_depression",
];
const FUEL: &[&str] = &["engine.air_fuel_ratio", "engine.chamber_volume", "engine.spark_retard", "engine.accessories"];
const LEAN: &[&str] = &["engine.air_fuel_ratio", "engine.chamber_volume", "engine.accessories"];
const BEARINGS: &[&str] =
    &["engine.main_bearing_diameter", "engine.main_bearings", "engine.accessories", "engine.stroke"];
const EXHAUST: &[&str] = &[
    "engine.exhaust.flow",
    "engine.exhaust.primary_diameter",
    "engine.exhaust.back_pressure",
    "engine.exhaust.manifold",
];
const CHARGE: &[&str] = &["engine.intake.flow", "engine.chamber_volume", "engine.air_fuel_ratio", "engine.fuel"];
const REVS: &[&str] = &["target.shift_at", "engine.stroke"];
const FUELLING: &[&str] = &["engine.fuelling", "engine.smoke_air_fuel", "target.boost", "engine.injection_start"];

const ROWS: &[Row] = &[
    Row {
        id: "filling",
        title: "Volumetric efficiency at peak power",
        at: Where::Power,
        of: |_, s| Some(s.point.volumetric_efficiency),
        range: |kind| match kind {
            Kind::Street => Some((0.78, 0.98)),
            Kind::Raced => Some((0.93, 1.12)),
            Kind::BoostedSpark | Kind::Diesel => None,
        },
        read: |x| Shown::plain(format!("{x:.2}")),
        low: FLOW,
        high: FLOW,
    },
    Row {
        id: "consumption_at_torque",
        title: "Fuel consumption at peak torque",
        at: Where::Torque,
        of: consumption_of_petrol,
        range: |kind| match kind {
            Kind::Street | Kind::Raced => Some((236.0, 290.0)),
            Kind::BoostedSpark => None,
            Kind::Diesel => Some((195.0, 235.0)),
        },
        read: read_consumption,
        low: LEAN,
        high: FUEL,
    },
    Row {
        id: "consumption_at_power",
        title: "Fuel consumption at peak power",
        at: Where::Power,
        of: consumption_of_petrol,
        range: |kind| match kind {
            Kind::Street | Kind::Raced => Some((250.0, 312.0)),
            Kind::BoostedSpark => None,
            Kind::Diesel => Some((200.0, 250.0)),
        },
        read: read_consumption,
        low: LEAN,
        high: FUEL,
    },
    Row {
        id: "friction",
        title: "Friction at peak power",
        at: Where::Power,
        of: |_, s| Some(1e-3 * s.point.friction.sum()),
        range: |kind| match kind {
            Kind::Street | Kind::BoostedSpark => Some((80.0, 190.0)),
            Kind::Raced => Some((110.0, 230.0)),
            Kind::Diesel => Some((120.0, 280.0)),
        },
        read: |x| shown(1e3 * x, Dimension::Pressure),
        low: BEARINGS,
        high: BEARINGS,
    },
    Row {
        id: "mean_pressure",
        title: "Brake mean effective pressure at peak torque",
        at: Where::Torque,
        of: |b, s| Some(brake_pressure(b, s)),
        range: |kind| match kind {
            Kind::Street => Some((900.0, 1280.0)),
            Kind::Raced => Some((1150.0, 1550.0)),
            Kind::BoostedSpark => Some((1200.0, 3000.0)),
            Kind::Diesel => Some((700.0, 2400.0)),
        },
        read: |x| shown(1e3 * x, Dimension::Pressure),
        low: CHARGE,
        high: CHARGE,
    },
    Row {
        id: "residual",
        title: "Residual gas at peak power",
        at: Where::Power,
        of: |_, s| Some(s.point.residual),
        range: |kind| match kind {
            Kind::Street | Kind::Raced | Kind::BoostedSpark => Some((0.0, 0.09)),
            Kind::Diesel => Some((0.0, 0.12)),
        },
        read: |x| Shown::plain(format!("{:.1} %", 100.0 * x)),
        low: EXHAUST,
        high: EXHAUST,
    },
    Row {
        id: "piston_speed",
        title: "Mean piston speed at the highest speed",
        at: Where::Top,
        of: |b, s| Some(piston_speed(b, s)),
        range: |kind| match kind {
            Kind::Street | Kind::BoostedSpark => Some((9.0, 21.0)),
            Kind::Raced => Some((14.0, 27.0)),
            Kind::Diesel => Some((7.0, 16.0)),
        },
        read: |x| Shown { inch: format!("{:.0} ft/min", x / 0.3048 * 60.0), metric: format!("{x:.1} m/s") },
        low: REVS,
        high: REVS,
    },
    Row {
        id: "exhaust_heat",
        title: "Exhaust temperature at peak power",
        at: Where::Power,
        of: |_, s| Some(s.point.exhaust_temperature - 273.15),
        range: |kind| (kind == Kind::Diesel).then_some((450.0, 720.0)),
        read: |x| shown(x + 273.15, Dimension::Temperature),
        low: FUELLING,
        high: FUELLING,
    },
    Row {
        id: "peak_pressure",
        title: "Cylinder pressure at peak torque",
        at: Where::Torque,
        of: |_, s| Some(1e-3 * s.point.peak_pressure),
        range: |kind| match kind {
            Kind::Street => Some((45e2, 80e2)),
            Kind::Raced => Some((60e2, 105e2)),
            Kind::BoostedSpark => Some((60e2, 180e2)),
            Kind::Diesel => Some((80e2, 190e2)),
        },
        read: |x| shown(1e3 * x, Dimension::Pressure),
        low: CHARGE,
        high: CHARGE,
    },
];

fn read_consumption(x: f64) -> Shown {
    Shown { inch: format!("{:.3} lb/hp h", x * POUNDS_PER_HORSEPOWER_HOUR), metric: format!("{x:.0} g/kWh") }
}

/// Consumption as if the fuel held as much heat as petrol, so that alcohols are judged alike.
fn consumption_of_petrol(breathing: &Breathing, sample: &Sample) -> Option<f64> {
    let fuel = breathing.setup.fuel.heating_value;
    let usual = match breathing.setup.combustion {
        Combustion::Spark { .. } => crate::gas::thermo::Fuel::PETROL.heating_value,
        Combustion::Diesel { .. } => fuel,
    };
    consumption(breathing, sample).map(|own| own * fuel / usual)
}

/// Every figure of a whole curve with its range; a draft and a screening have none.
pub fn figures(breathing: &Breathing, samples: &[Sample]) -> Vec<FigureReport> {
    let kind = kind_of(breathing);
    ROWS.iter().filter_map(|row| figure(row, kind, breathing, samples)).collect()
}

fn kind_of(breathing: &Breathing) -> Kind {
    match (&breathing.setup.combustion, &breathing.air.charger) {
        (Combustion::Diesel { .. }, _) => Kind::Diesel,
        (_, Some(_)) => Kind::BoostedSpark,
        _ if breathing.raced => Kind::Raced,
        _ => Kind::Street,
    }
}

fn figure(row: &Row, kind: Kind, breathing: &Breathing, samples: &[Sample]) -> Option<FigureReport> {
    let most = |of: fn(&Sample) -> f64| samples.iter().max_by(|a, b| of(a).total_cmp(&of(b)));
    let sample = match row.at {
        Where::Torque => most(|s| s.torque),
        Where::Power => most(Sample::power),
        Where::Top => samples.last(),
    }?;
    let (low, high) = (row.range)(kind)?;
    let value = (row.of)(breathing, sample)?;
    let blame = if value < low { row.low } else { row.high };
    let is_odd = !(low..=high).contains(&value);
    Some(FigureReport {
        id: row.id.to_owned(),
        title: row.title.to_owned(),
        rpm: sample.point.rpm,
        value,
        low,
        high,
        shown: (row.read)(value),
        shown_range: [(row.read)(low), (row.read)(high)],
        odd: is_odd,
        look_at: if is_odd { blame.iter().map(|path| Named::at((*path).to_owned())).collect() } else { Vec::new() },
    })
}
