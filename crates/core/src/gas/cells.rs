//! The loops over the cells of a duct: flat arrays in vector registers, no branches, no allocation.
//!
//! Every operation is that of one number, without fused ones, so that the result is the same bits on any machine.

use super::state::{Gas, State};
use crate::lanes::Lanes;
use pulp::{Simd, WithSimd};

/// Fewest cells of a duct: what the widest register takes, and one.
pub(super) const FEWEST: usize = 5;

/// One array for each primitive variable; of fluxes, for what carries mass, momentum, energy and burned mass.
#[derive(Debug, Clone)]
pub(super) struct Cells {
    pub density: Vec<f64>,
    pub velocity: Vec<f64>,
    pub pressure: Vec<f64>,
    pub burned: Vec<f64>,
}

/// Wall of a duct.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wall {
    /// Fanning friction factor.
    pub friction: f64,
    /// Its heat; `None` without.
    pub heat: Option<Heat>,
}

/// Share of its kinetic energy that gas has as heat at a wall it flows along: `Pr^(1/3)`, turbulent [Incropera, ch. 6; from
/// memory].
const RECOVERY: f64 = 0.89;

/// Heat of a wall: `h = conveyed (rho |u|)^.75 D^-.25`, W/(m2 K), towards the temperature that the gas recovers at the wall.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Heat {
    /// K.
    pub temperature: f64,
    /// SI.
    pub conveyed: f64,
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
    /// The same to the power of 5/4.
    pub warming: Vec<f64>,
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

    #[inline(always)]
    fn load<S: Simd>(&self, simd: S, at: usize) -> [Lanes<S>; 4] {
        [
            Lanes::load(simd, &self.density, at),
            Lanes::load(simd, &self.velocity, at),
            Lanes::load(simd, &self.pressure, at),
            Lanes::load(simd, &self.burned, at),
        ]
    }

    #[inline(always)]
    fn store<S: Simd>(&mut self, at: usize, [density, velocity, pressure, burned]: [Lanes<S>; 4]) {
        density.store(&mut self.density, at);
        velocity.store(&mut self.velocity, at);
        pressure.store(&mut self.pressure, at);
        burned.store(&mut self.burned, at);
    }
}

/// The beginning of a register's worth of cells: the last overlaps the one before, so that a loop needs no rest. What is
/// written there twice is the same twice.
///
/// This and what follows is plain loops and functions that are always inlined: a closure would be compiled for any
/// machine and would not use the registers.
#[inline(always)]
fn beginning<S: Simd>(at: usize, count: usize) -> usize {
    if at + S::F64_LANES <= count { at } else { count - S::F64_LANES }
}

/// Slope by the monotonised central limiter: the mean of two one-sided differences, at most twice the smaller one,
/// none at an extreme [Toro, ch. 13; van Leer 1977; from memory]. Without a division, unlike smoother limiters.
#[inline(always)]
fn limited<S: Simd>(simd: S, back: Lanes<S>, ahead: Lanes<S>) -> Lanes<S> {
    let (zero, half, two) = (Lanes::all(simd, 0.0), Lanes::all(simd, 0.5), Lanes::all(simd, 2.0));
    let mean = half * (back + ahead);
    let most = two * back.abs().least(ahead.abs());
    let size = most.least(mean.abs());
    let signed = mean.above(zero).pick(size, -size);
    (back * ahead).above(zero).pick(signed, zero)
}

/// First half of a step: values at both faces of each cell half a step later.
///
/// Euler in primitive form with the area's part: `rho_t = -u rho_x - rho (u_x + u A'/A)`, and so on. A value that would
/// not be a gas is the cell's own.
pub(super) struct Predict<'a> {
    pub gamma: f64,
    /// The step's time over the cell's length.
    pub ratio: f64,
    pub own: &'a Cells,
    pub shape: &'a Shape,
    pub left: &'a mut Cells,
    pub right: &'a mut Cells,
}

impl WithSimd for Predict<'_> {
    type Output = ();

    #[inline(always)]
    fn with_simd<S: Simd>(self, simd: S) {
        let Self { own, shape, left, right, .. } = self;
        let (zero, half, gamma, time) = (
            Lanes::all(simd, 0.0),
            Lanes::all(simd, 0.5),
            Lanes::all(simd, self.gamma),
            Lanes::all(simd, 0.5 * self.ratio),
        );
        for at in (0..shape.areas.len()).step_by(S::F64_LANES) {
            let at = beginning::<S>(at, shape.areas.len());
            let (before, here, after) = (own.load(simd, at), own.load(simd, at + 1), own.load(simd, at + 2));
            let [rho, u, p, y] = here;
            let dr = limited(simd, here[0] - before[0], after[0] - here[0]);
            let du = limited(simd, here[1] - before[1], after[1] - here[1]);
            let dp = limited(simd, here[2] - before[2], after[2] - here[2]);
            let dy = limited(simd, here[3] - before[3], after[3] - here[3]);
            let spread = du + u * Lanes::load(simd, &shape.widening, at);
            let middle = [
                rho - time * (u * dr + rho * spread),
                u - time * (u * du + dp.by(rho)),
                p - time * (u * dp + gamma * p * spread),
                y - time * u * dy,
            ];
            let reach = [half * dr, half * du, half * dp, half * dy];
            let (mut low, mut high) = (middle, middle);
            for k in 0..4 {
                low[k] = middle[k] - reach[k];
                high[k] = middle[k] + reach[k];
            }
            left.store(at, gas_or(zero, low, here));
            right.store(at, gas_or(zero, high, here));
        }
    }
}

/// `values` where density and pressure are above zero, the cell's own elsewhere.
#[inline(always)]
fn gas_or<S: Simd>(zero: Lanes<S>, values: [Lanes<S>; 4], own: [Lanes<S>; 4]) -> [Lanes<S>; 4] {
    let is_gas = values[0].above(zero).and(values[2].above(zero));
    [
        is_gas.pick(values[0], own[0]),
        is_gas.pick(values[1], own[1]),
        is_gas.pick(values[2], own[2]),
        is_gas.pick(values[3], own[3]),
    ]
}

/// The HLLC flux at every face between two cells [Toro, *Riemann Solvers and Numerical Methods*, ch. 10; from memory].
///
/// The outer waves run as fast as the faster of both sides' own signals, with the cells' speeds of sound [Davis 1988;
/// from memory]. Between them stand two gases of one velocity `S*` and one pressure `p* = p + rho (S - u)(S* - u)`;
/// the flux is that of the gas at the face.
pub(super) struct Exchange<'a> {
    pub gamma: f64,
    pub sound: &'a [f64],
    pub left: &'a Cells,
    pub right: &'a Cells,
    pub flux: &'a mut Cells,
}

impl WithSimd for Exchange<'_> {
    type Output = ();

    #[inline(always)]
    fn with_simd<S: Simd>(self, simd: S) {
        let Self { sound, left, right, flux, .. } = self;
        let (zero, half, one, by) = (
            Lanes::all(simd, 0.0),
            Lanes::all(simd, 0.5),
            Lanes::all(simd, 1.0),
            Lanes::all(simd, 1.0 / (self.gamma - 1.0)),
        );
        for at in (0..sound.len() - 1).step_by(S::F64_LANES) {
            let at = beginning::<S>(at, sound.len() - 1);
            let ([rl, ul, pl, yl], [rr, ur, pr, yr]) = (right.load(simd, at), left.load(simd, at + 1));
            let (cl, cr) = (Lanes::load(simd, sound, at), Lanes::load(simd, sound, at + 1));
            let (slow, fast) = ((ul - cl).least(ur - cr), (ul + cl).most(ur + cr));
            let (ml, mr) = (rl * (slow - ul), rr * (fast - ur));
            let middle = (pr - pl + ml * ul - mr * ur).by(ml - mr);
            let from_right = zero.above(middle);
            let (rho, u) = (from_right.pick(rr, rl), from_right.pick(ur, ul));
            let (p, y) = (from_right.pick(pr, pl), from_right.pick(yr, yl));
            let (mass, speed) = (from_right.pick(mr, ml), from_right.pick(fast, slow));
            // Where even the outer wave of that side runs past the face, its own gas stands there.
            let between = from_right.pick(fast, -slow).above(zero);
            let by_width = one.by(speed - middle);
            let star_p = p + mass * (middle - u);
            let energy = p * by + half * rho * u * u;
            let star_energy = ((speed - u) * energy - p * u + star_p * middle) * by_width;
            let (velocity, pressure) = (between.pick(middle, u), between.pick(star_p, p));
            let (density, carried) = (between.pick(mass * by_width, rho), between.pick(star_energy, energy));
            let flow = density * velocity;
            flux.store(at + 1, [flow, flow * velocity + pressure, (carried + pressure) * velocity, flow * y]);
        }
    }
}

/// Second half of a step. Takes the fluxes through the faces; the wall pushes with the cell's pressure at mid step. Then
/// wall friction, solved for its own step so that it never reverses the flow, whose work stays in the gas as heat; and
/// the wall's own heat.
pub(super) struct Settle<'a> {
    pub gas: Gas,
    pub time: f64,
    pub wall: Option<Wall>,
    pub shape: &'a Shape,
    pub flux: &'a Cells,
    pub left: &'a Cells,
    pub right: &'a Cells,
    pub own: &'a Cells,
    pub next: &'a mut Cells,
    pub sound: &'a mut [f64],
}

impl WithSimd for Settle<'_> {
    /// Fastest signal, m/s.
    type Output = f64;

    #[inline(always)]
    fn with_simd<S: Simd>(self, simd: S) -> f64 {
        let Self { gas, shape, flux, left, right, own, next, sound, .. } = self;
        let friction = self.wall.map_or(0.0, |wall| wall.friction);
        let heat = self.wall.and_then(|wall| wall.heat);
        let transfer = Lanes::all(simd, heat.map_or(0.0, |heat| 4.0 * heat.conveyed * self.time));
        let recovered = Lanes::all(simd, 0.5 * RECOVERY / gas.cp());
        let (warm, by_r, slowing) = (
            Lanes::all(simd, heat.map_or(0.0, |heat| heat.temperature)),
            Lanes::all(simd, 1.0 / gas.r),
            Lanes::all(simd, 2.0 * friction * self.time),
        );
        let (gamma, excess, by) =
            (Lanes::all(simd, gas.gamma), Lanes::all(simd, gas.gamma - 1.0), Lanes::all(simd, 1.0 / (gas.gamma - 1.0)));
        let (zero, half, one, time) =
            (Lanes::all(simd, 0.0), Lanes::all(simd, 0.5), Lanes::all(simd, 1.0), Lanes::all(simd, self.time));
        let mut fastest = zero;
        for at in (0..shape.areas.len()).step_by(S::F64_LANES) {
            let at = beginning::<S>(at, shape.areas.len());
            let share = time * Lanes::load(simd, &shape.by_volume, at);
            let rubbed = Lanes::load(simd, &shape.by_diameter, at);
            let (al, ar) = (Lanes::load(simd, &shape.faces, at), Lanes::load(simd, &shape.faces, at + 1));
            let (into, out) = (flux.load(simd, at), flux.load(simd, at + 1));
            let mut change = into;
            for k in 0..4 {
                change[k] = share * (al * into[k] - ar * out[k]);
            }
            let middle = half * (Lanes::load(simd, &left.pressure, at) + Lanes::load(simd, &right.pressure, at));
            let [rho, u, p, y] = own.load(simd, at + 1);
            let energy = p * by + half * rho * u * u + change[2];
            let momentum = rho * u + change[1] + share * middle * (ar - al);
            let burned = rho * y + change[3];
            let density = rho + change[0];
            let by_density = one.by(density);
            let velocity = momentum * by_density;
            let still = excess * (energy - half * momentum * velocity);
            let speed = velocity.abs();
            let slowed = velocity.by(one + slowing * rubbed * speed);
            // (rho |u|)^.75 by two roots.
            let root = (density * speed).sqrt();
            let warming = Lanes::load(simd, &shape.warming, at);
            let colder = warm - still * by_r * by_density - recovered * speed * speed;
            let heat = transfer * warming * root * root.sqrt() * colder;
            let pressure = still + excess * (heat + half * density * (velocity * velocity - slowed * slowed));
            let c = (gamma * pressure * by_density).sqrt();
            fastest = fastest.most(slowed.abs() + c);
            next.store(at + 1, [density, slowed, pressure, (burned * by_density).most(zero).least(one)]);
            c.store(sound, at);
        }
        fastest.largest()
    }
}
