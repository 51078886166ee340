//! What a duct ends in: the state at its last face from the wave that leaves it and what stands outside.
//!
//! Unknown is the speed of sound `s` at the face. The gas in the duct answers with an isentropic wave:
//! `u_n = u + m (c - s)`, `p = p_in (s/c)^n`, `rho = rho_in (s/c)^m`, `m = 2/(gamma - 1)`, `n = m + 2`, `u` outwards. Outside
//! stands gas at rest behind a restriction of `share` of the duct's area; its throat has the pressure of the side it
//! flows to, as through a valve [constant-pressure valve boundary: Benson, *The Thermodynamics and Gas Dynamics of
//! Internal-Combustion Engines*; Winterbone and Pearson; from memory]. Gas that comes in keeps its own entropy: a
//! contact runs between it and the duct's gas, with one pressure and velocity.

use super::state::{Gas, State};
use crate::root::root;

/// An end of a duct.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum End {
    /// A wall.
    Closed,
    /// Open to a large volume at rest: in without loss, out to its pressure.
    Open {
        /// Pa, absolute.
        pressure: f64,
        /// K.
        temperature: f64,
        /// Burned share of what flows in.
        burned: f64,
    },
    /// A valve to a volume at rest, such as a cylinder.
    Valve {
        /// Effective area over the duct's area; held between 0 and 1.
        share: f64,
        /// Pa, absolute.
        pressure: f64,
        /// K.
        temperature: f64,
        /// Burned share of what flows in.
        burned: f64,
    },
}

/// Below this share a valve is shut.
const SHUT: f64 = 1e-6;

impl End {
    /// The state at the face; `outward` is +1 at a right end, -1 at a left one.
    pub fn face(&self, gas: Gas, inside: &State, outward: f64) -> State {
        let (share, pressure, temperature, burned) = match *self {
            Self::Open { pressure, temperature, burned } => (1.0, pressure, temperature, burned),
            Self::Valve { share, pressure, temperature, burned } if share >= SHUT => {
                (share.min(1.0), pressure, temperature, burned)
            }
            _ => return Wave::of(gas, inside, outward).at_rest(),
        };
        Outside { share, pressure, temperature, burned }.face(&Wave::of(gas, inside, outward))
    }
}

/// The duct's gas next to its end and the wave it answers with.
struct Wave<'a> {
    gas: Gas,
    inside: &'a State,
    outward: f64,
    /// Speed of sound and outward velocity inside.
    sound: f64,
    velocity: f64,
    /// Speed of sound at a face where the gas stands still.
    standing: f64,
}

impl<'a> Wave<'a> {
    fn of(gas: Gas, inside: &'a State, outward: f64) -> Self {
        let sound = inside.sound(gas);
        let velocity = outward * inside.velocity;
        let standing = (sound + velocity / gas.wave()).max(0.01 * sound);
        Self { gas, inside, outward, sound, velocity, standing }
    }

    /// Outward velocity at a face of this speed of sound.
    fn answer(&self, s: f64) -> f64 {
        self.velocity + self.gas.wave() * (self.sound - s)
    }

    fn pressure(&self, s: f64) -> f64 {
        self.inside.pressure * self.gas.pressure_power(s / self.sound)
    }

    /// The duct's own gas at a face of this speed of sound.
    fn state(&self, s: f64) -> State {
        State {
            density: self.inside.density * self.gas.density_power(s / self.sound),
            velocity: self.outward * self.answer(s),
            pressure: self.pressure(s),
            burned: self.inside.burned,
        }
    }

    fn at_rest(&self) -> State {
        State { velocity: 0.0, ..self.state(self.standing) }
    }
}

struct Outside {
    share: f64,
    pressure: f64,
    temperature: f64,
    burned: f64,
}

impl Outside {
    fn face(&self, wave: &Wave<'_>) -> State {
        // The face's speed of sound where the duct's gas would have the outside pressure.
        let level = wave.sound * wave.gas.sound_root(self.pressure / wave.inside.pressure);
        if wave.standing > level { self.out(wave, level) } else { self.into(wave, level) }
    }

    /// The duct's gas leaves: `s^m u_n = share s_t^m u_t`, `s0^2 = s^2 + u_n^2/m` the same before and in the throat,
    /// `s_t` that of the outside pressure, or sonic.
    fn out(&self, wave: &Wave<'_>, level: f64) -> State {
        let (gas, m) = (wave.gas, wave.gas.wave());
        let surplus = |s: f64| {
            let normal = wave.answer(s);
            let rest = s * s + normal * normal / m;
            let throat = (rest * m / (m + 1.0)).sqrt().max(level);
            let scale = 1.0 / wave.sound;
            gas.density_power(s * scale) * normal
                - self.share * gas.density_power(throat * scale) * (m * (rest - throat * throat)).max(0.0).sqrt()
        };
        // No faster than the duct itself runs at the speed of sound, and never below the outside pressure.
        let sonic = (wave.velocity + m * wave.sound) / (m + 1.0);
        let low = sonic.max(level).min(wave.standing);
        if surplus(low) <= 0.0 {
            return wave.state(low);
        }
        wave.state(root(low, wave.standing, surplus))
    }

    /// Gas from outside comes in: energy from rest, mass through the throat to the duct's pressure.
    fn into(&self, wave: &Wave<'_>, level: f64) -> State {
        let (gas, m) = (wave.gas, wave.gas.wave());
        let rest = gas.gamma * gas.r * self.temperature;
        let density = gas.gamma * self.pressure / rest;
        let sonic = (m / (m + 1.0)).sqrt();
        // A whole opening keeps the entropy: `s/level` of the rest's speed of sound, which makes it a quadratic in `s`.
        let carried = wave.velocity + m * wave.sound;
        let square = m * m + m * rest / (level * level);
        let under = m * m * carried * carried - square * (carried * carried - m * rest);
        let whole = (m * carried + under.max(0.0).sqrt()) / square;
        let at = |s: f64| {
            let normal = wave.answer(s);
            let sound = (rest - normal * normal / m).max(0.04 * rest);
            let pressure = wave.pressure(s);
            State {
                density: gas.gamma * pressure / sound,
                velocity: wave.outward * normal,
                pressure,
                burned: self.burned,
            }
        };
        if self.share >= 1.0 && whole > sonic * level {
            return at(whole);
        }
        let surplus = |s: f64| {
            let state = at(s);
            let throat = (s / level).max(sonic).min(1.0);
            let flow = density * gas.density_power(throat) * (m * rest * (1.0 - throat * throat)).sqrt();
            -wave.outward * state.velocity * state.density - self.share * flow
        };
        at(root(wave.standing, level, surplus))
    }
}
