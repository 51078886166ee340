//! A plenum: a volume of well-mixed gas between the throttle and the runners.

use super::nozzle::mass_flow;
use super::state::Gas;

/// Gas in a volume.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Plenum {
    gas: Gas,
    volume: f64,
    mass: f64,
    temperature: f64,
    burned: f64,
}

/// Gas that comes into the plenum in a step; negative mass leaves it with its own state.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Inflow {
    /// kg.
    pub mass: f64,
    /// Stagnation temperature, K.
    pub temperature: f64,
    /// Burned share.
    pub burned: f64,
}

impl Plenum {
    /// A plenum of `volume` (m3) at a pressure and temperature.
    pub fn new(gas: Gas, volume: f64, pressure: f64, temperature: f64) -> Self {
        Self { gas, volume, mass: pressure * volume / (gas.r * temperature), temperature, burned: 0.0 }
    }

    /// Pa.
    pub fn pressure(&self) -> f64 {
        self.mass * self.gas.r * self.temperature / self.volume
    }

    /// K.
    pub const fn temperature(&self) -> f64 {
        self.temperature
    }

    /// Burned share.
    pub const fn burned(&self) -> f64 {
        self.burned
    }

    /// What comes through a throttle of effective area `area` (m2) from `supply` (Pa, K) in `time` (s); negative when
    /// the plenum pushes back.
    pub fn through(&self, area: f64, supply: (f64, f64), time: f64) -> Inflow {
        let (pressure, temperature) = supply;
        let own = self.pressure();
        let mass = if pressure >= own {
            mass_flow(self.gas, area, pressure, temperature, own)
        } else {
            -mass_flow(self.gas, area, own, self.temperature, pressure)
        };
        Inflow { mass: mass * time, temperature, burned: 0.0 }
    }

    /// Takes what comes and goes: mass, energy `d(m cv T) = sum(cp T0 dm)`, burned share.
    pub fn take(&mut self, flows: impl Iterator<Item = Inflow>) {
        let mut heat = self.mass * self.temperature;
        let mut burned = self.mass * self.burned;
        let mut mass = self.mass;
        for flow in flows {
            let inward = flow.mass >= 0.0;
            mass += flow.mass;
            heat += self.gas.gamma * flow.mass * if inward { flow.temperature } else { self.temperature };
            burned += flow.mass * if inward { flow.burned } else { self.burned };
        }
        // A plenum of no size would empty in a step: it keeps a hundredth, and the step after sets it right.
        self.mass = mass.max(0.01 * self.mass);
        self.temperature = (heat / self.mass).clamp(150.0, 1500.0);
        self.burned = (burned / self.mass).clamp(0.0, 1.0);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn filling_an_empty_vessel_heats_it_by_gamma() {
        // Gas of T0 that fills an evacuated vessel ends at gamma T0 [Moran and Shapiro, ch. 4; from memory].
        let mut plenum = Plenum::new(Gas::AIR, 3e-3, 10.0, 300.0);
        for _ in 0..200_000 {
            let flow = plenum.through(1e-5, (1e5, 300.0), 1e-6);
            plenum.take(std::iter::once(flow));
        }
        assert!(plenum.pressure() > 5e3);
        assert!((plenum.temperature() / 420.0 - 1.0).abs() < 5e-3, "{}", plenum.temperature());
    }
}
