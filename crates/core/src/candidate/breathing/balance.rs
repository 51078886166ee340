//! Where the fuel's energy goes at each speed, and what an engineer reads off a pull: consumption, air, piston speed.

use super::work::{Breathing, Sample};
use crate::quantity::POUND;
use crate::report::{EnergyReport, FrictionReport};
use std::f64::consts::PI;

/// Joules in a kilowatt-hour.
const KILOWATT_HOUR: f64 = 3.6e6;
/// Pounds for a horsepower and hour in a gram for a kilowatt-hour.
pub const POUNDS_PER_HORSEPOWER_HOUR: f64 = 0.745_699_87e-3 / POUND;

/// Shares of the fuel's heat at every sample; they sum to one.
pub fn energy(breathing: &Breathing, samples: &[Sample]) -> EnergyReport {
    let setup = &breathing.setup;
    let swept = setup.swept();
    let share = |of: &dyn Fn(&Sample) -> f64| -> Vec<f64> {
        samples.iter().map(|s| of(s) / fuel_heat(breathing, s).max(1e-9)).collect()
    };
    let blower = |s: &Sample| s.blower * 120.0 / (s.point.rpm * setup.cylinders);
    let rubbed = |s: &Sample| s.point.friction.sum() * swept;
    let friction = FrictionReport {
        crank_kpa: column(samples, |s| 1e-3 * s.point.friction.crank),
        reciprocating_kpa: column(samples, |s| 1e-3 * s.point.friction.reciprocating),
        gas_kpa: column(samples, |s| 1e-3 * s.point.friction.gas),
        train_kpa: column(samples, |s| 1e-3 * s.point.friction.train),
        accessories_kpa: column(samples, |s| 1e-3 * s.point.friction.accessories),
        whole_kpa: column(samples, |s| 1e-3 * s.point.friction.whole),
    };
    EnergyReport {
        brake: share(&|s| s.point.balance.work - rubbed(s) - blower(s)),
        friction: share(&rubbed),
        blower: share(&blower),
        pumping: share(&|s| -s.point.balance.pumping),
        walls: share(&|s| s.point.balance.walls),
        // Less the work of the closed part of the cycle: the pumping loop's is told apart.
        exhaust: share(&|s| {
            let balance = &s.point.balance;
            balance.released - (balance.work - balance.pumping) - balance.walls
        }),
        unburned: share(&|s| fuel_heat(breathing, s) - s.point.balance.released),
        friction_by_part: friction,
    }
}

/// Heat of the fuel of one cycle of one cylinder, J.
fn fuel_heat(breathing: &Breathing, sample: &Sample) -> f64 {
    sample.point.balance.fuel * breathing.setup.fuel.heating_value
}

fn column(samples: &[Sample], of: impl Fn(&Sample) -> f64) -> Vec<f64> {
    samples.iter().map(of).collect()
}

/// Brake specific fuel consumption, g/kWh; absent where the engine gives no power.
pub fn consumption(breathing: &Breathing, sample: &Sample) -> Option<f64> {
    let per_second = breathing.setup.per_second(sample.point.balance.fuel, sample.point.rpm);
    let power = sample.power();
    (power > 0.0).then(|| 1e3 * per_second * KILOWATT_HOUR / power)
}

/// Air of the whole engine, kg/s.
pub fn air_flow(breathing: &Breathing, sample: &Sample) -> f64 {
    breathing.setup.per_second(sample.point.balance.air, sample.point.rpm)
}

/// Mean piston speed, m/s.
pub fn piston_speed(breathing: &Breathing, sample: &Sample) -> f64 {
    breathing.setup.piston_speed(sample.point.rpm)
}

/// Brake mean effective pressure, kPa.
pub fn brake_pressure(breathing: &Breathing, sample: &Sample) -> f64 {
    4e-3 * PI * sample.torque / (breathing.setup.swept() * breathing.setup.cylinders)
}
