//! An ideal gas with constant specific heats and its state at one place of a duct.

/// Ideal gas: `p = rho R T`, constant ratio of specific heats.
///
/// Pressure goes with the n-th power of the speed of sound, `n = 2 gamma/(gamma - 1)`. Ducts use gases whose `n` is
/// whole: the states at their ends, which are found at every step, are then products, not powers.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gas {
    /// Ratio of specific heats.
    pub gamma: f64,
    /// Specific gas constant, J/(kg K).
    pub r: f64,
    /// `n`, of which pressure is the power of the speed of sound.
    power: i32,
}

impl Gas {
    /// Dry air near room temperature [US Standard Atmosphere 1976: R = 287.053; gamma = 1.4].
    pub const AIR: Self = Self::of_power(7, 287.053);
    /// Burned gas on its way out: gamma = 4/3, near what air and fuel burned have at 900 to 1200 K.
    pub const BURNED: Self = Self::of_power(8, 288.5);

    /// The gas of `gamma = n/(n - 2)`; `n` above 2.
    pub const fn of_power(n: i32, r: f64) -> Self {
        Self { gamma: n as f64 / (n - 2) as f64, r, power: n }
    }

    /// Specific heat at constant pressure, J/(kg K).
    pub fn cp(self) -> f64 {
        self.r * self.gamma / (self.gamma - 1.0)
    }

    /// `m = 2/(gamma - 1) = n - 2`: an isentropic wave moves `u` by `m` times what it moves the speed of sound.
    #[inline]
    pub fn wave(self) -> f64 {
        f64::from(self.power - 2)
    }

    /// `x^n`: pressure for a ratio of speeds of sound.
    #[inline]
    pub fn pressure_power(self, x: f64) -> f64 {
        x * x * self.density_power(x)
    }

    /// `x^(n-2)`: density for a ratio of speeds of sound.
    #[inline]
    pub fn density_power(self, x: f64) -> f64 {
        let (x2, x4) = (x * x, x * x * x * x);
        match self.power {
            7 => x4 * x,
            8 => x4 * x2,
            n => x.powi(n - 2),
        }
    }

    /// `x^(1/n)`: ratio of speeds of sound for a ratio of pressures.
    #[inline]
    pub fn sound_root(self, x: f64) -> f64 {
        if self.power == 8 { x.sqrt().sqrt().sqrt() } else { x.powf(1.0 / f64::from(self.power)) }
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
    #[inline]
    pub fn sound(&self, gas: Gas) -> f64 {
        (gas.gamma * self.pressure / self.density).sqrt()
    }

    /// Temperature, K.
    #[inline]
    pub fn temperature(&self, gas: Gas) -> f64 {
        self.pressure / (self.density * gas.r)
    }

    /// Total energy for a unit volume, J/m3: `E = p/(gamma - 1) + rho u^2/2`.
    #[inline]
    pub fn energy(&self, gas: Gas) -> f64 {
        self.pressure / (gas.gamma - 1.0) + 0.5 * self.density * self.velocity * self.velocity
    }

    /// Temperature the gas would have when brought to rest, K: `T + u^2/(2 cp)`.
    #[inline]
    pub fn stagnation(&self, gas: Gas) -> f64 {
        self.temperature(gas) + 0.5 * self.velocity * self.velocity / gas.cp()
    }

    /// The state a share of the way to another, each of its values by itself.
    pub fn towards(&self, other: &Self, share: f64) -> Self {
        let between = |of: fn(&Self) -> f64| of(self) + share * (of(other) - of(self));
        Self {
            density: between(|s| s.density),
            velocity: between(|s| s.velocity),
            pressure: between(|s| s.pressure),
            burned: between(|s| s.burned),
        }
    }

    /// Fluxes of mass, momentum, energy and burned mass through a unit area.
    #[inline]
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
