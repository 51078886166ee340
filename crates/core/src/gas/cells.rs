//! The loops over the cells of a duct: flat arrays, no branches, no allocation.

use super::duct::Wall;
use super::state::{Gas, State};
use pulp::{Arch, NullaryFnOnce};

/// Runs a loop with the widest vector registers of the machine; the results are the same with any.
pub(super) fn in_registers(work: impl NullaryFnOnce) {
    Arch::new().dispatch(work);
}

/// First half of a step.
pub(super) struct Predict<'a> {
    pub gamma: f64,
    /// The step's time over the cell's length.
    pub ratio: f64,
    pub own: &'a Cells,
    pub shape: &'a Shape,
    pub left: &'a mut Cells,
    pub right: &'a mut Cells,
}

impl NullaryFnOnce for Predict<'_> {
    type Output = ();

    #[inline(always)]
    fn call(self) {
        halves(self.gamma, self.ratio, self.own, self.shape, self.left, self.right);
    }
}

/// Fluxes between cells.
pub(super) struct Exchange<'a> {
    pub gamma: f64,
    pub sound: &'a [f64],
    pub left: &'a Cells,
    pub right: &'a Cells,
    pub flux: &'a mut Cells,
}

impl NullaryFnOnce for Exchange<'_> {
    type Output = ();

    #[inline(always)]
    fn call(self) {
        fluxes(self.gamma, self.sound, self.right, self.left, self.flux);
    }
}

/// What the fluxes and the wall do, and the speeds of sound after it.
pub(super) struct Settle<'a> {
    pub gas: Gas,
    pub time: f64,
    pub wall: Option<Wall>,
    pub shape: &'a Shape,
    pub flux: &'a Cells,
    pub left: &'a Cells,
    pub right: &'a Cells,
    pub own: &'a mut Cells,
    pub sound: &'a mut [f64],
    /// Fastest signal, m/s.
    pub fastest: &'a mut f64,
}

impl NullaryFnOnce for Settle<'_> {
    type Output = ();

    #[inline(always)]
    fn call(self) {
        update(self.gas.gamma, self.time, self.shape, self.flux, (self.left, self.right), self.own);
        if let Some(wall) = self.wall {
            rub(self.gas, self.time, wall, self.shape, self.own);
        }
        *self.fastest = self.own.sounds(self.gas.gamma, self.sound);
    }
}

/// One array for each primitive variable; of fluxes, for what carries mass, momentum, energy and burned mass.
#[derive(Debug, Clone)]
pub(super) struct Cells {
    pub density: Vec<f64>,
    pub velocity: Vec<f64>,
    pub pressure: Vec<f64>,
    pub burned: Vec<f64>,
}

/// Geometry of the cells.
#[derive(Debug, Clone)]
pub(super) struct Shape {
    /// Areas of the faces, one more than cells.
    pub faces: Vec<f64>,
    /// Area of each cell: the mean of its faces.
    pub areas: Vec<f64>,
    /// Difference of a cell's faces over its area.
    pub widening: Vec<f64>,
    /// One over the volume of a cell.
    pub by_volume: Vec<f64>,
    /// One over the diameter of a cell.
    pub by_diameter: Vec<f64>,
}

impl Cells {
    pub fn of(count: usize, state: State) -> Self {
        Self {
            density: vec![state.density; count],
            velocity: vec![state.velocity; count],
            pressure: vec![state.pressure; count],
            burned: vec![state.burned; count],
        }
    }

    pub fn get(&self, i: usize) -> State {
        State {
            density: self.density[i],
            velocity: self.velocity[i],
            pressure: self.pressure[i],
            burned: self.burned[i],
        }
    }

    pub fn set(&mut self, i: usize, state: State) {
        self.density[i] = state.density;
        self.velocity[i] = state.velocity;
        self.pressure[i] = state.pressure;
        self.burned[i] = state.burned;
    }

    /// Speed of sound in every cell, without the places beyond the ends; returns the fastest signal.
    #[inline(always)]
    fn sounds(&self, gamma: f64, sound: &mut [f64]) -> f64 {
        let n = sound.len();
        let (rho, u, p) = (&self.density[1..=n], &self.velocity[1..=n], &self.pressure[1..=n]);
        for i in 0..n {
            sound[i] = (gamma * p[i] / rho[i]).sqrt();
        }
        // A comparison instead of `max`, which would look out for NaN and keep this loop slow.
        u.iter().zip(&*sound).fold(0.0, |most, (u, c)| if u.abs() + c > most { u.abs() + c } else { most })
    }
}

/// Slope by the monotonised central limiter: the mean of two one-sided differences, at most twice the smaller one,
/// none at an extreme [Toro, ch. 13; van Leer 1977; from memory]. Without a division, unlike smoother limiters.
#[inline(always)]
fn limited(back: f64, ahead: f64) -> f64 {
    let (a, b, mean) = (2.0 * back.abs(), 2.0 * ahead.abs(), 0.5 * (back + ahead).abs());
    let least = if a < b { a } else { b };
    let size = if least < mean { least } else { mean };
    if back * ahead > 0.0 { size.copysign(back) } else { 0.0 }
}

/// Values at both faces of each cell half a step later; `ratio` is the step's time over the cell's length.
///
/// Euler in primitive form with the area's part: `rho_t = -u rho_x - rho (u_x + u A'/A)`, and so on. A value that would
/// not be a gas is the cell's own.
#[inline(always)]
fn halves(gamma: f64, ratio: f64, own: &Cells, shape: &Shape, left: &mut Cells, right: &mut Cells) {
    let n = shape.areas.len();
    let half = 0.5 * ratio;
    let (rho, u, p, y) = (&own.density[..n + 2], &own.velocity[..n + 2], &own.pressure[..n + 2], &own.burned[..n + 2]);
    let widening = &shape.widening[..n];
    let (l_rho, l_u, l_p, l_y) =
        (&mut left.density[..n], &mut left.velocity[..n], &mut left.pressure[..n], &mut left.burned[..n]);
    let (r_rho, r_u, r_p, r_y) =
        (&mut right.density[..n], &mut right.velocity[..n], &mut right.pressure[..n], &mut right.burned[..n]);
    for i in 0..n {
        let slope = |of: &[f64]| limited(of[i + 1] - of[i], of[i + 2] - of[i + 1]);
        let (dr, du, dp, dy) = (slope(rho), slope(u), slope(p), slope(y));
        let (rho, u, p, y) = (rho[i + 1], u[i + 1], p[i + 1], y[i + 1]);
        let spread = du + u * widening[i];
        let middle_rho = rho - half * (u * dr + rho * spread);
        let middle_u = u - half * (u * du + dp / rho);
        let middle_p = p - half * (u * dp + gamma * p * spread);
        let middle_y = y - half * u * dy;
        let (low_rho, high_rho) = (middle_rho - 0.5 * dr, middle_rho + 0.5 * dr);
        let (low_p, high_p) = (middle_p - 0.5 * dp, middle_p + 0.5 * dp);
        let left_is_gas = (low_rho > 0.0) & (low_p > 0.0);
        let right_is_gas = (high_rho > 0.0) & (high_p > 0.0);
        l_rho[i] = if left_is_gas { low_rho } else { rho };
        l_u[i] = if left_is_gas { middle_u - 0.5 * du } else { u };
        l_p[i] = if left_is_gas { low_p } else { p };
        l_y[i] = if left_is_gas { middle_y - 0.5 * dy } else { y };
        r_rho[i] = if right_is_gas { high_rho } else { rho };
        r_u[i] = if right_is_gas { middle_u + 0.5 * du } else { u };
        r_p[i] = if right_is_gas { high_p } else { p };
        r_y[i] = if right_is_gas { middle_y + 0.5 * dy } else { y };
    }
}

/// The HLLC flux at every face between two cells [Toro, *Riemann Solvers and Numerical Methods*, ch. 10; from memory].
///
/// The outer waves run as fast as the faster of both sides' own signals, with the cells' speeds of sound [Davis 1988;
/// from memory]. Between them stand two gases of one velocity `S* ` and one pressure `p* = p + rho (S - u)(S* - u)`;
/// the flux is that of the gas at the face.
#[inline(always)]
fn fluxes(gamma: f64, sound: &[f64], from: &Cells, to: &Cells, flux: &mut Cells) {
    let n = from.density.len() - 1;
    let (rl, ul, pl, yl) = (&from.density[..n], &from.velocity[..n], &from.pressure[..n], &from.burned[..n]);
    let (rr, ur, pr, yr) = (&to.density[1..=n], &to.velocity[1..=n], &to.pressure[1..=n], &to.burned[1..=n]);
    let (cl, cr) = (&sound[..n], &sound[1..=n]);
    let (f_mass, f_momentum, f_energy, f_burned) =
        (&mut flux.density[1..=n], &mut flux.velocity[1..=n], &mut flux.pressure[1..=n], &mut flux.burned[1..=n]);
    let by = 1.0 / (gamma - 1.0);
    for i in 0..n {
        let (rl, ul, pl, rr, ur, pr) = (rl[i], ul[i], pl[i], rr[i], ur[i], pr[i]);
        let (slow_l, slow_r) = (ul - cl[i], ur - cr[i]);
        let (fast_l, fast_r) = (ul + cl[i], ur + cr[i]);
        let slow = if slow_l < slow_r { slow_l } else { slow_r };
        let fast = if fast_l > fast_r { fast_l } else { fast_r };
        let (ml, mr) = (rl * (slow - ul), rr * (fast - ur));
        let middle = (pr - pl + ml * ul - mr * ur) / (ml - mr);
        let to_right = middle >= 0.0;
        let pick = |l: f64, r: f64| if to_right { l } else { r };
        let (rho, u, p, mass, speed) = (pick(rl, rr), pick(ul, ur), pick(pl, pr), pick(ml, mr), pick(slow, fast));
        // Where even the outer wave of that side runs past the face, its own gas stands there.
        let past = if to_right { slow >= 0.0 } else { fast <= 0.0 };
        let by_width = 1.0 / (speed - middle);
        let star_p = p + mass * (middle - u);
        let energy = p * by + 0.5 * rho * u * u;
        let star_energy = ((speed - u) * energy - p * u + star_p * middle) * by_width;
        let velocity = if past { u } else { middle };
        let pressure = if past { p } else { star_p };
        let density = if past { rho } else { mass * by_width };
        let carried = if past { energy } else { star_energy };
        f_mass[i] = density * velocity;
        f_momentum[i] = density * velocity * velocity + pressure;
        f_energy[i] = (carried + pressure) * velocity;
        f_burned[i] = density * velocity * pick(yl[i], yr[i]);
    }
}

/// Takes the fluxes through the faces; the wall pushes with the cell's pressure at mid step.
#[inline(always)]
fn update(gamma: f64, time: f64, shape: &Shape, flux: &Cells, (left, right): (&Cells, &Cells), own: &mut Cells) {
    let n = shape.areas.len();
    let (faces, by_volume) = (&shape.faces[..=n], &shape.by_volume[..n]);
    let (f_mass, f_momentum, f_energy, f_burned) =
        (&flux.density[..=n], &flux.velocity[..=n], &flux.pressure[..=n], &flux.burned[..=n]);
    let (l_p, r_p) = (&left.pressure[..n], &right.pressure[..n]);
    let (rho, u, p, y) =
        (&mut own.density[1..=n], &mut own.velocity[1..=n], &mut own.pressure[1..=n], &mut own.burned[1..=n]);
    let by = 1.0 / (gamma - 1.0);
    for i in 0..n {
        let share = time * by_volume[i];
        let (al, ar) = (faces[i], faces[i + 1]);
        let change = |f: &[f64]| share * (al * f[i] - ar * f[i + 1]);
        let push = share * 0.5 * (l_p[i] + r_p[i]) * (ar - al);
        let energy = p[i] * by + 0.5 * rho[i] * u[i] * u[i] + change(f_energy);
        let momentum = rho[i] * u[i] + change(f_momentum) + push;
        let burned = rho[i] * y[i] + change(f_burned);
        let density = rho[i] + change(f_mass);
        let by_density = 1.0 / density;
        let velocity = momentum * by_density;
        rho[i] = density;
        u[i] = velocity;
        p[i] = (gamma - 1.0) * (energy - 0.5 * momentum * velocity);
        let share = burned * by_density;
        let share = if share < 1.0 { share } else { 1.0 };
        y[i] = if share > 0.0 { share } else { 0.0 };
    }
}

/// Wall friction, solved for its own step so that it never reverses the flow, and wall heat.
#[inline(always)]
fn rub(gas: Gas, time: f64, wall: Wall, shape: &Shape, own: &mut Cells) {
    let n = shape.areas.len();
    let by_diameter = &shape.by_diameter[..n];
    let (rho, u, p) = (&own.density[1..=n], &mut own.velocity[1..=n], &mut own.pressure[1..=n]);
    let transfer = wall.temperature.map_or(0.0, |_| 2.0 * wall.friction * gas.cp() * time);
    let temperature = wall.temperature.unwrap_or(0.0);
    let slowing = 2.0 * wall.friction * time;
    for i in 0..n {
        let speed = u[i].abs();
        let before = u[i];
        u[i] = before / (1.0 + slowing * by_diameter[i] * speed);
        let heat = transfer * by_diameter[i] * speed * (rho[i] * temperature - p[i] / gas.r);
        // What friction takes from the motion stays as heat.
        p[i] += (gas.gamma - 1.0) * (heat + 0.5 * rho[i] * (before * before - u[i] * u[i]));
    }
}
