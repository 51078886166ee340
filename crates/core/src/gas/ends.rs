//! What a duct ends in: the state at its last face from the wave that leaves it and what stands outside.
//!
//! The gas in the duct answers a pressure `p` at the face by an isentropic wave:
//! `u_n(p) = u_n + 2c/(g-1) (1 - (p/p_inside)^((g-1)/2g))`, `u_n` outwards. Outside stands gas at rest behind a
//! restriction of `share` of the duct's area; its throat has the pressure of the side it flows to, as through a valve
//! [constant-pressure valve boundary: Benson, *The Thermodynamics and Gas Dynamics of Internal-Combustion Engines*;
//! Winterbone and Pearson; from memory]. Gas that comes in keeps its own entropy: a contact runs between it and the
//! duct's gas, with one pressure and velocity.

use super::nozzle::mass_flow;
use super::state::{Gas, State};

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
        match *self {
            Self::Closed => closed(gas, inside, outward),
            Self::Open { pressure, temperature, burned } => {
                Restriction { share: 1.0, pressure, temperature, burned }.face(gas, inside, outward)
            }
            Self::Valve { share, .. } if share < SHUT => closed(gas, inside, outward),
            Self::Valve { share, pressure, temperature, burned } => {
                Restriction { share: share.min(1.0), pressure, temperature, burned }.face(gas, inside, outward)
            }
        }
    }
}

struct Restriction {
    share: f64,
    pressure: f64,
    temperature: f64,
    burned: f64,
}

impl Restriction {
    fn face(&self, gas: Gas, inside: &State, outward: f64) -> State {
        let shut = closed(gas, inside, outward);
        if shut.pressure > self.pressure {
            self.out(gas, inside, &shut, outward)
        } else {
            self.into(gas, inside, &shut, outward)
        }
    }

    /// The duct's gas leaves: its own stagnation state feeds the throat.
    fn out(&self, gas: Gas, inside: &State, shut: &State, outward: f64) -> State {
        let g = gas.gamma;
        let at = |p: f64| {
            let density = inside.density * (p / inside.pressure).powf(1.0 / g);
            State { density, velocity: outward * answer(gas, inside, outward, p), pressure: p, burned: inside.burned }
        };
        // No lower than where the duct itself runs at the speed of sound.
        let sonic = at(sonic_pressure(gas, inside, outward));
        let surplus = |p: f64| {
            let state = at(p);
            let normal = outward * state.velocity;
            let temperature = state.temperature(gas) + 0.5 * normal * normal / gas.cp();
            let stagnation = p * (temperature / state.temperature(gas)).powf(g / (g - 1.0));
            state.density * normal - mass_flow(gas, self.share, stagnation, temperature, self.pressure)
        };
        let low = sonic.pressure.max(if self.share >= 1.0 { self.pressure } else { 0.0 }).min(shut.pressure);
        if surplus(low) <= 0.0 {
            return at(low);
        }
        at(root(low, shut.pressure, surplus))
    }

    /// Gas from outside comes in: energy from rest, mass through the throat to the duct's pressure.
    fn into(&self, gas: Gas, inside: &State, shut: &State, outward: f64) -> State {
        let at = |p: f64| {
            let normal = answer(gas, inside, outward, p);
            let temperature = (self.temperature - 0.5 * normal * normal / gas.cp()).max(0.2 * self.temperature);
            State { density: p / (gas.r * temperature), velocity: outward * normal, pressure: p, burned: self.burned }
        };
        let surplus = |p: f64| {
            let state = at(p);
            -outward * state.velocity * state.density - mass_flow(gas, self.share, self.pressure, self.temperature, p)
        };
        at(root(shut.pressure, self.pressure, surplus))
    }
}

/// Outward velocity with which the duct answers a pressure at its face.
fn answer(gas: Gas, inside: &State, outward: f64, p: f64) -> f64 {
    let g = gas.gamma;
    outward * inside.velocity
        + 2.0 * inside.sound(gas) / (g - 1.0) * (1.0 - (p / inside.pressure).powf((g - 1.0) / (2.0 * g)))
}

/// Pressure at which the duct's own gas leaves at the speed of sound.
fn sonic_pressure(gas: Gas, inside: &State, outward: f64) -> f64 {
    let g = gas.gamma;
    let sound = inside.sound(gas);
    let carried = outward * inside.velocity + 2.0 * sound / (g - 1.0);
    let sonic = carried * (g - 1.0) / (g + 1.0);
    inside.pressure * (sonic / sound).max(1e-3).powf(2.0 * g / (g - 1.0))
}

/// Root of a function that changes sign once between `low` and `high`: false position with the Illinois step.
/// A billionth of the bracket, at most forty evaluations; without a change of sign the end with the smaller value.
fn root(low: f64, high: f64, of: impl Fn(f64) -> f64) -> f64 {
    let (mut a, mut b) = (low, high);
    let (mut at_a, mut at_b) = (of(a), of(b));
    if at_a * at_b >= 0.0 {
        return if at_a.abs() < at_b.abs() { a } else { b };
    }
    let tolerance = 1e-9 * (high - low).abs();
    for _ in 0..40 {
        let middle = (a * at_b - b * at_a) / (at_b - at_a);
        let value = of(middle);
        if value * at_b < 0.0 {
            (a, at_a) = (b, at_b);
        } else {
            at_a *= 0.5;
        }
        (b, at_b) = (middle, value);
        if (b - a).abs() < tolerance || value == 0.0 {
            break;
        }
    }
    b
}

/// At a wall the velocity is zero; the rest follows the wave that runs into it isentropically.
fn closed(gas: Gas, inside: &State, outward: f64) -> State {
    let g = gas.gamma;
    let sound = inside.sound(gas);
    let at_wall = (sound + 0.5 * (g - 1.0) * outward * inside.velocity).max(0.01 * sound);
    let pressure = inside.pressure * (at_wall / sound).powf(2.0 * g / (g - 1.0));
    State { density: g * pressure / (at_wall * at_wall), velocity: 0.0, pressure, burned: inside.burned }
}
