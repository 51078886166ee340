//! What a duct ends in: the state at its last face from the outgoing characteristic and the outside.
//!
//! For a subsonic end one characteristic leaves the duct: `J = u_n + 2 c/(g-1)` with `u_n` outwards. The rest
//! comes from outside [Benson, *The Thermodynamics and Gas Dynamics of Internal-Combustion Engines*; Winterbone
//! and Pearson; from memory].

use super::state::{Gas, State};

/// An end of a duct.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum End {
    /// A wall.
    Closed,
    /// Open to a large volume at rest.
    Open {
        /// Pa, absolute.
        pressure: f64,
        /// K.
        temperature: f64,
        /// Burned share of what flows in.
        burned: f64,
    },
}

impl End {
    /// The state at the face; `outward` is +1 at a right end, -1 at a left one.
    pub fn face(&self, gas: Gas, inside: &State, outward: f64) -> State {
        match *self {
            Self::Closed => closed(gas, inside, outward),
            Self::Open { pressure, temperature, burned } => {
                let (normal, sound) = (outward * inside.velocity, inside.sound(gas));
                if normal >= sound {
                    return *inside;
                }
                let carried = normal + 2.0 * sound / (gas.gamma - 1.0);
                outflow(gas, inside, carried, pressure, outward)
                    .unwrap_or_else(|| inflow(gas, carried, (pressure, temperature, burned), outward))
            }
        }
    }
}

/// At a wall the velocity is zero; the rest follows the wave that runs into it isentropically.
fn closed(gas: Gas, inside: &State, outward: f64) -> State {
    let g = gas.gamma;
    let sound = inside.sound(gas);
    let at_wall = (sound + 0.5 * (g - 1.0) * outward * inside.velocity).max(0.01 * sound);
    let pressure = inside.pressure * (at_wall / sound).powf(2.0 * g / (g - 1.0));
    State { density: g * pressure / (at_wall * at_wall), velocity: 0.0, pressure, burned: inside.burned }
}

/// Out to a pressure, isentropically within the duct; `None` when the flow would come in.
fn outflow(gas: Gas, inside: &State, carried: f64, pressure: f64, outward: f64) -> Option<State> {
    let g = gas.gamma;
    let density = inside.density * (pressure / inside.pressure).powf(1.0 / g);
    let sound = (g * pressure / density).sqrt();
    let normal = carried - 2.0 * sound / (g - 1.0);
    if normal < 0.0 {
        return None;
    }
    if normal <= sound {
        return Some(State { density, velocity: outward * normal, pressure, burned: inside.burned });
    }
    // The duct cannot expand to that pressure: it leaves at the speed of sound.
    let sonic = carried * (g - 1.0) / (g + 1.0);
    let own = inside.sound(gas);
    let density = inside.density * (sonic / own).powf(2.0 / (g - 1.0));
    Some(State { density, velocity: outward * sonic, pressure: sonic * sonic * density / g, burned: inside.burned })
}

/// In from rest without loss: `c^2 + (g-1)/2 u^2 = c0^2` with the carried characteristic.
fn inflow(gas: Gas, carried: f64, (pressure, temperature, burned): (f64, f64, f64), outward: f64) -> State {
    let g = gas.gamma;
    let still = g * gas.r * temperature;
    let a = 1.0 + 2.0 / (g - 1.0);
    let root = (carried * carried - a * (0.5 * (g - 1.0) * carried * carried - still)).max(0.0).sqrt();
    let sound = (carried + root) / a;
    let normal = (carried - 2.0 * sound / (g - 1.0)).max(-sound);
    let ratio = (sound * sound / still).min(1.0);
    let pressure = pressure * ratio.powf(g / (g - 1.0));
    State { density: g * pressure / (sound * sound), velocity: outward * normal, pressure, burned }
}
