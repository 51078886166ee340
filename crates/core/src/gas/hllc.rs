//! The HLLC flux between two states [Toro, *Riemann Solvers and Numerical Methods*, ch. 10; from memory].

use super::state::{Gas, State};

/// Flux through a unit area between `left` and `right`. Wave speeds by the two-rarefaction estimate of the
/// middle pressure where it is a compression (Toro's pressure-based estimate).
pub fn flux(gas: Gas, left: &State, right: &State) -> [f64; 4] {
    let (cl, cr) = (left.sound(gas), right.sound(gas));
    let (slow, fast) = wave_speeds(gas, left, right, cl, cr);
    if slow >= 0.0 {
        return left.flux(gas);
    }
    if fast <= 0.0 {
        return right.flux(gas);
    }
    let (ml, mr) = (left.density * (slow - left.velocity), right.density * (fast - right.velocity));
    // S* = (pr - pl + rho_l u_l (S_l - u_l) - rho_r u_r (S_r - u_r)) / (rho_l (S_l - u_l) - rho_r (S_r - u_r))
    let middle = (right.pressure - left.pressure + ml * left.velocity - mr * right.velocity) / (ml - mr);
    let (side, speed, mass) = if middle >= 0.0 { (left, slow, ml) } else { (right, fast, mr) };
    let density = mass / (speed - middle);
    let energy = side.energy(gas);
    let specific = energy / side.density + (middle - side.velocity) * (middle + side.pressure / mass);
    let star = [density, density * middle, density * specific, density * side.burned];
    let own = [side.density, side.density * side.velocity, energy, side.density * side.burned];
    let physical = side.flux(gas);
    std::array::from_fn(|k| physical[k] + speed * (star[k] - own[k]))
}

fn wave_speeds(gas: Gas, left: &State, right: &State, cl: f64, cr: f64) -> (f64, f64) {
    let mean = 0.25 * (left.density + right.density) * (cl + cr);
    let pressure = 0.5 * (left.pressure + right.pressure) - 0.5 * (right.velocity - left.velocity) * mean;
    let pressure = pressure.max(0.0);
    let steeper = |side: &State| {
        if pressure <= side.pressure {
            1.0
        } else {
            (1.0 + 0.5 * (gas.gamma + 1.0) / gas.gamma * (pressure / side.pressure - 1.0)).sqrt()
        }
    };
    (left.velocity - cl * steeper(left), right.velocity + cr * steeper(right))
}
