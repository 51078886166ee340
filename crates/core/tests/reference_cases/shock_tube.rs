//! The Riemann problem of an ideal gas, solved exactly [Toro, *Riemann Solvers and Numerical Methods for Fluid
//! Dynamics*, ch. 4; from memory], and Sod's tube [Sod 1978]: (1, 0, 1) left, (1/8, 0, 1/10) right, gamma 1.4.

use upper_lobe_core::gas::{Gas, State};

/// Sod's gas: any R does, only gamma counts.
pub const GAS: Gas = Gas::of_power(7, 1.0);
pub const LEFT: State = State { density: 1.0, velocity: 0.0, pressure: 1.0, burned: 0.0 };
pub const RIGHT: State = State { density: 0.125, velocity: 0.0, pressure: 0.1, burned: 1.0 };

/// Velocity change across a wave that takes `side` to `p`, and its slope.
fn wave(side: &State, p: f64) -> (f64, f64) {
    let g = GAS.gamma;
    let c = (g * side.pressure / side.density).sqrt();
    if p > side.pressure {
        let (a, b) = (2.0 / ((g + 1.0) * side.density), (g - 1.0) / (g + 1.0) * side.pressure);
        let root = (a / (p + b)).sqrt();
        ((p - side.pressure) * root, root * (1.0 - 0.5 * (p - side.pressure) / (p + b)))
    } else {
        let x = p / side.pressure;
        let e = (g - 1.0) / (2.0 * g);
        (2.0 * c / (g - 1.0) * (x.powf(e) - 1.0), x.powf(-(g + 1.0) / (2.0 * g)) / (side.density * c))
    }
}

/// Pressure and velocity between the waves, by Newton's iteration.
pub fn middle(left: &State, right: &State) -> (f64, f64) {
    let mut p = 0.5 * (left.pressure + right.pressure);
    for _ in 0..60 {
        let ((fl, dl), (fr, dr)) = (wave(left, p), wave(right, p));
        let step = (fl + fr + right.velocity - left.velocity) / (dl + dr);
        p = (p - step).max(1e-12);
    }
    let ((fl, _), (fr, _)) = (wave(left, p), wave(right, p));
    (p, 0.5 * (left.velocity + right.velocity) + 0.5 * (fr - fl))
}

/// Density at `x/t` of the solution whose left wave is a rarefaction and right wave a shock, as in Sod's tube.
pub fn density(speed: f64) -> f64 {
    let g = GAS.gamma;
    let (p, u) = middle(&LEFT, &RIGHT);
    let cl = (g * LEFT.pressure / LEFT.density).sqrt();
    let behind = LEFT.density * (p / LEFT.pressure).powf(1.0 / g);
    let tail = u - (g * p / behind).sqrt();
    let ratio = p / RIGHT.pressure;
    let h = (g - 1.0) / (g + 1.0);
    let shocked = RIGHT.density * (ratio + h) / (h * ratio + 1.0);
    let shock = RIGHT.density.recip().sqrt() * ((p - RIGHT.pressure) / (1.0 - RIGHT.density / shocked)).sqrt();
    if speed < -cl {
        LEFT.density
    } else if speed < tail {
        LEFT.density * (2.0 / (g + 1.0) - (g - 1.0) / ((g + 1.0) * cl) * speed).powf(2.0 / (g - 1.0))
    } else if speed < u {
        behind
    } else if speed < shock {
        shocked
    } else {
        RIGHT.density
    }
}
