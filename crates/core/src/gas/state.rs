//! An ideal gas with constant specific heats and its state at one place of a duct.

/// Ideal gas: `p = rho R T`, constant ratio of specific heats.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gas {
    /// Ratio of specific heats.
    pub gamma: f64,
    /// Specific gas constant, J/(kg K).
    pub r: f64,
}

impl Gas {
    /// Dry air near room temperature [US Standard Atmosphere 1976: R = 287.053; gamma = 1.4].
    pub const AIR: Self = Self { gamma: 1.4, r: 287.053 };

    /// Specific heat at constant pressure, J/(kg K).
    pub fn cp(self) -> f64 {
        self.r * self.gamma / (self.gamma - 1.0)
    }

    /// The state of pressure, temperature and velocity.
    pub fn state(self, pressure: f64, temperature: f64, velocity: f64) -> State {
        State { density: pressure / (self.r * temperature), velocity, pressure, burned: 0.0 }
    }
}

/// Primitive state; SI, velocity positive to the right.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct State {
    /// kg/m3.
    pub density: f64,
    /// m/s.
    pub velocity: f64,
    /// Pa, absolute.
    pub pressure: f64,
    /// Mass share of burned gas, carried along.
    pub burned: f64,
}

impl State {
    /// Speed of sound, m/s: `c = sqrt(gamma p / rho)`.
    pub fn sound(&self, gas: Gas) -> f64 {
        (gas.gamma * self.pressure / self.density).sqrt()
    }

    /// Temperature, K.
    pub fn temperature(&self, gas: Gas) -> f64 {
        self.pressure / (self.density * gas.r)
    }

    /// Total energy for a unit volume, J/m3: `E = p/(gamma - 1) + rho u^2/2`.
    pub fn energy(&self, gas: Gas) -> f64 {
        self.pressure / (gas.gamma - 1.0) + 0.5 * self.density * self.velocity * self.velocity
    }

    /// Fluxes of mass, momentum, energy and burned mass through a unit area.
    pub fn flux(&self, gas: Gas) -> [f64; 4] {
        let mass = self.density * self.velocity;
        [
            mass,
            mass * self.velocity + self.pressure,
            (self.energy(gas) + self.pressure) * self.velocity,
            mass * self.burned,
        ]
    }
}
