//! The air around an engine at a speed: outside, or what a charger delivers and the exhaust has to pass.

use super::super::resolve::{Part, Resolved};
use crate::gas::Gas;
use crate::gas::setup::{Around, Point, Turbine};
use crate::given::{Ambient, BoostRow, Missing};
use crate::pulls::air::OutsideAir;
use crate::quantity::{Pressure, Temperature};
use crate::table::held;
use crate::words::{ChargerKind, Induction};

/// What drives the compressor, and what it does to the air.
#[derive(Debug, Clone, PartialEq)]
pub struct Charger {
    /// Driven from the crank, not by the exhaust.
    pub blower: bool,
    /// Isentropic efficiency of the compressor.
    pub compressor: f64,
    /// Efficiency of the turbine with its bearings.
    pub turbine: f64,
    /// Share of the exhaust that the wastegate lets past the turbine.
    pub past: f64,
    /// Share of the heating that the cooler takes back.
    pub cooler: f64,
}

/// One boost level: gauge pressures over speed.
#[derive(Debug, Clone, PartialEq)]
pub struct Level {
    /// What the plan calls it.
    pub name: String,
    /// Manifold pressure, Pa gauge, over rpm.
    manifold: Vec<(f64, f64)>,
    /// Drive pressure, Pa gauge, over rpm; empty when it is not given.
    drive: Vec<(f64, f64)>,
}

/// Outside air and the boost levels of the plan.
#[derive(Debug, Clone, PartialEq)]
pub struct Air {
    /// Pa.
    pub pressure: f64,
    /// K.
    pub temperature: f64,
    /// Relative humidity, 0 to 1.
    pub humidity: f64,
    /// `None` for an engine that breathes outside air.
    pub charger: Option<Charger>,
    /// Its levels, in the plan's order; empty without a charger.
    pub levels: Vec<Level>,
}

/// Share of a blower's shaft work that reaches the air: belt and bearings take the rest (assumed).
const BLOWER_DRIVE: f64 = 0.95;

impl Air {
    /// As standards look at it.
    pub const fn outside(&self) -> OutsideAir {
        OutsideAir { pressure: self.pressure, temperature: self.temperature, humidity: self.humidity }
    }

    /// Of outside air, kg/m3.
    pub fn density(&self) -> f64 {
        self.pressure / (Gas::AIR.r * self.temperature)
    }

    /// Gas around the engine at `rpm` on the boost level `level`.
    pub fn around(&self, level: usize, rpm: f64) -> Around {
        let open = Around::open(self.pressure, self.temperature);
        let (Some(charger), Some(level)) = (&self.charger, self.levels.get(level)) else { return open };
        let open = Around { throttled: false, ..open };
        let supply = self.pressure + held(&level.manifold, rpm);
        if supply <= self.pressure {
            return Around { supply: (supply.max(0.2 * self.pressure), self.temperature), ..open };
        }
        let heated = self.heated(charger, supply);
        let given = (!level.drive.is_empty()).then(|| self.pressure + held(&level.drive, rpm));
        let turbine = (!charger.blower && given.is_none()).then(|| Turbine {
            work: Gas::AIR.cp() * heated,
            efficiency: charger.turbine,
            past: charger.past,
        });
        let guess = if charger.blower { self.pressure } else { supply };
        Around {
            supply: (supply, self.temperature + heated * (1.0 - charger.cooler)),
            back: given.unwrap_or(guess),
            back_is_given: given.is_some(),
            turbine,
            ..open
        }
    }

    /// Temperature rise in the compressor, K: `T1 (r^((g-1)/g) - 1) / eta` [Watson and Janota, ch. 2; from memory].
    fn heated(&self, charger: &Charger, supply: f64) -> f64 {
        let ratio = supply / self.pressure;
        self.temperature * (ratio.powf((Gas::AIR.gamma - 1.0) / Gas::AIR.gamma) - 1.0) / charger.compressor
    }

    /// What a blower takes from the crank at a point, W; zero for a turbine.
    pub fn blower_power(&self, level: usize, point: &Point, cylinders: f64) -> f64 {
        let Some(charger) = self.charger.as_ref().filter(|charger| charger.blower) else { return 0.0 };
        let supply = self.around(level, point.rpm).supply.0;
        let flow = point.balance.air * cylinders * point.rpm / 120.0;
        (flow * Gas::AIR.cp() * self.heated(charger, supply) / BLOWER_DRIVE).max(0.0)
    }
}

/// The plan's outside air.
pub fn outside(ambient: &Ambient) -> OutsideAir {
    OutsideAir {
        pressure: ambient.pressure.map_or(99e3, Pressure::si),
        temperature: ambient.temperature.map_or(298.15, Temperature::si),
        humidity: ambient.humidity.unwrap_or(0.0),
    }
}

/// Reads the plan's air and boost.
pub fn read_air(inputs: &Resolved) -> Part<Air> {
    let (ambient, target) = (&inputs.given.ambient, &inputs.given.target);
    let OutsideAir { pressure, temperature, humidity } = outside(ambient);
    let induction = &inputs.given.induction;
    let boosted = induction.kind == Some(Induction::Boosted);
    let levels = read_levels(target.boost.as_deref().unwrap_or_default());
    if boosted && levels.is_empty() {
        return Err(Missing(vec![target.at("boost")]).into());
    }
    let some = levels.iter().any(|level| level.manifold.iter().any(|(_, gauge)| *gauge > 0.0));
    let charger = (boosted || some).then(|| Charger {
        blower: induction.charger == Some(ChargerKind::Blower),
        compressor: induction.compressor_efficiency.unwrap_or(0.68),
        turbine: induction.turbine_efficiency.unwrap_or(0.65),
        past: induction.wastegate.unwrap_or(0.0),
        cooler: induction.cooler_effectiveness.unwrap_or(0.7),
    });
    let levels = if charger.is_some() { levels } else { Vec::new() };
    Ok(Air { pressure, temperature, humidity, charger, levels })
}

fn read_levels(rows: &[BoostRow]) -> Vec<Level> {
    let mut levels: Vec<Level> = Vec::new();
    for row in rows {
        let name = row.level.as_deref().unwrap_or("boost");
        let place = levels.iter().position(|level| level.name == name).unwrap_or_else(|| {
            levels.push(Level { name: name.to_owned(), manifold: Vec::new(), drive: Vec::new() });
            levels.len() - 1
        });
        let level = &mut levels[place];
        level.manifold.push((row.at.as_rpm(), row.manifold.si()));
        if let Some(drive) = row.drive {
            level.drive.push((row.at.as_rpm(), drive.si()));
        }
    }
    levels
}
