//! Unsteady quasi-one-dimensional flow in a duct of varying area: second order in space and time.
//!
//! Cells of equal length hold mass, momentum, energy and burned mass for a unit volume. Each step is
//! MUSCL-Hancock with van Leer's limiter on primitive variables and the HLLC flux between cells [Toro, ch. 13,
//! 14 and 10; from memory]. Area enters as the faces' own areas and the wall's push `p (A_right - A_left)`,
//! which keeps gas at rest at rest exactly. Wall friction and heat are added after each step:
//! `dp/dx = -4 f/D rho u|u|/2`, and by the Reynolds analogy `h = f/2 rho |u| cp`.

use super::ends::End;
use super::hllc;
use super::state::{Gas, State};

/// Share of the largest stable step that is taken.
pub const COURANT: f64 = 0.9;

/// Wall of a duct.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wall {
    /// Fanning friction factor.
    pub friction: f64,
    /// Wall temperature, K; `None` without heat transfer.
    pub temperature: Option<f64>,
}

/// A duct with the gas in it.
#[derive(Debug, Clone)]
pub struct Duct {
    gas: Gas,
    cell: f64,
    /// Areas of the faces, one more than cells.
    faces: Vec<f64>,
    /// Area of each cell: the mean of its faces.
    areas: Vec<f64>,
    wall: Option<Wall>,
    states: Vec<State>,
    /// Work space: left and right values of each cell after half a step, fluxes of the faces.
    left: Vec<State>,
    right: Vec<State>,
    fluxes: Vec<[f64; 4]>,
    /// States at the end faces in the last step.
    ends: [State; 2],
}

impl Duct {
    /// A duct of `length` (m) with `area_at` its place from the left end, filled with `start`.
    /// `None` unless it has at least four cells, a positive length, and positive areas.
    pub fn new(
        gas: Gas,
        length: f64,
        cells: usize,
        area_at: impl Fn(f64) -> f64,
        wall: Option<Wall>,
        start: State,
    ) -> Option<Self> {
        let cell = length / cells as f64;
        let faces: Vec<f64> = (0..=cells).map(|i| area_at(i as f64 * cell)).collect();
        let sane = cells >= 4 && length > 0.0 && length.is_finite() && faces.iter().all(|a| *a > 0.0 && a.is_finite());
        sane.then(|| Self {
            gas,
            cell,
            areas: faces.windows(2).map(|pair| 0.5 * (pair[0] + pair[1])).collect(),
            faces,
            wall,
            states: vec![start; cells],
            left: vec![start; cells],
            right: vec![start; cells],
            fluxes: vec![[0.0; 4]; cells + 1],
            ends: [start; 2],
        })
    }

    /// The gas, cell by cell.
    pub fn states(&self) -> &[State] {
        &self.states
    }

    /// Sets the gas of one cell.
    pub fn set(&mut self, cell: usize, state: State) {
        self.states[cell] = state;
    }

    /// Middle of a cell from the left end, m.
    pub fn place(&self, cell: usize) -> f64 {
        (cell as f64 + 0.5) * self.cell
    }

    /// Mass in the duct, kg.
    pub fn mass(&self) -> f64 {
        self.summed(|state| state.density)
    }

    /// Energy in the duct, J.
    pub fn energy(&self) -> f64 {
        self.summed(|state| state.energy(self.gas))
    }

    fn summed(&self, of: impl Fn(&State) -> f64) -> f64 {
        self.states.iter().zip(&self.areas).map(|(state, area)| of(state) * area * self.cell).sum()
    }

    /// Largest stable step, s.
    pub fn stable_step(&self) -> f64 {
        let fastest = self.states.iter().map(|s| s.velocity.abs() + s.sound(self.gas)).fold(0.0, f64::max);
        COURANT * self.cell / fastest
    }

    /// Mass flow through the left and the right end in the last step, kg/s, positive to the right.
    pub fn end_flows(&self) -> (f64, f64) {
        let last = self.fluxes.len() - 1;
        (self.fluxes[0][0] * self.faces[0], self.fluxes[last][0] * self.faces[last])
    }

    /// States at the left and the right end face in the last step.
    pub const fn end_states(&self) -> [State; 2] {
        self.ends
    }

    /// The gas the duct computes with.
    pub const fn gas(&self) -> Gas {
        self.gas
    }

    /// One step of `time` (s), no longer than [`Self::stable_step`].
    pub fn step(&mut self, time: f64, left: &End, right: &End) {
        let last = self.states.len() - 1;
        let beyond_left = left.face(self.gas, &self.states[0], -1.0);
        let beyond_right = right.face(self.gas, &self.states[last], 1.0);
        self.reconstruct(time, &beyond_left, &beyond_right);
        // At the ends the state at the face carries the flux itself.
        let first_face = left.face(self.gas, &self.left[0], -1.0);
        let last_face = right.face(self.gas, &self.right[last], 1.0);
        self.fluxes[0] = first_face.flux(self.gas);
        for i in 0..last {
            self.fluxes[i + 1] = hllc::flux(self.gas, &self.right[i], &self.left[i + 1]);
        }
        self.fluxes[last + 1] = last_face.flux(self.gas);
        self.ends = [first_face, last_face];
        self.update(time);
        if let Some(wall) = self.wall {
            self.rub(time, wall);
        }
    }

    /// Values at both faces of each cell half a step later.
    fn reconstruct(&mut self, time: f64, beyond_left: &State, beyond_right: &State) {
        let count = self.states.len();
        let g = self.gas.gamma;
        for i in 0..count {
            let own = self.states[i];
            let before = if i == 0 { *beyond_left } else { self.states[i - 1] };
            let after = if i + 1 == count { *beyond_right } else { self.states[i + 1] };
            // The end's state lies on the face, half a cell away: its difference counts twice.
            let (near, far) = (if i == 0 { 2.0 } else { 1.0 }, if i + 1 == count { 2.0 } else { 1.0 });
            let slope =
                |of: fn(&State) -> f64| van_leer(near * (of(&own) - of(&before)), far * (of(&after) - of(&own)));
            let (dr, du, dp) = (slope(|s| s.density), slope(|s| s.velocity), slope(|s| s.pressure));
            let dy = slope(|s| s.burned);
            // Euler in primitive form with the area's part: rho_t = -u rho_x - rho (u_x + u A'/A), and so on.
            let half = 0.5 * time / self.cell;
            let (rho, u, p) = (own.density, own.velocity, own.pressure);
            let widening = u * (self.faces[i + 1] - self.faces[i]) / self.areas[i];
            let middle = State {
                density: rho - half * (u * dr + rho * (du + widening)),
                velocity: u - half * (u * du + dp / rho),
                pressure: p - half * (u * dp + g * p * (du + widening)),
                burned: own.burned - half * u * dy,
            };
            let at = |sign: f64| State {
                density: middle.density + sign * 0.5 * dr,
                velocity: middle.velocity + sign * 0.5 * du,
                pressure: middle.pressure + sign * 0.5 * dp,
                burned: middle.burned + sign * 0.5 * dy,
            };
            (self.left[i], self.right[i]) = (kept(at(-1.0), own), kept(at(1.0), own));
        }
    }

    fn update(&mut self, time: f64) {
        for i in 0..self.states.len() {
            let own = self.states[i];
            let share = time / (self.cell * self.areas[i]);
            let (al, ar) = (self.faces[i], self.faces[i + 1]);
            let change = |k: usize| share * (al * self.fluxes[i][k] - ar * self.fluxes[i + 1][k]);
            // The wall pushes with the cell's pressure at mid step.
            let push = share * 0.5 * (self.left[i].pressure + self.right[i].pressure) * (ar - al);
            let density = own.density + change(0);
            let momentum = own.density * own.velocity + change(1) + push;
            let energy = own.energy(self.gas) + change(2);
            let burned = own.density * own.burned + change(3);
            let velocity = momentum / density;
            let pressure = (self.gas.gamma - 1.0) * (energy - 0.5 * momentum * velocity);
            self.states[i] = State { density, velocity, pressure, burned: (burned / density).clamp(0.0, 1.0) };
        }
    }

    /// Wall friction, solved for its own step so that it never reverses the flow, and wall heat.
    fn rub(&mut self, time: f64, wall: Wall) {
        for (state, area) in self.states.iter_mut().zip(&self.areas) {
            let diameter = (4.0 * area / std::f64::consts::PI).sqrt();
            let energy = state.energy(self.gas);
            let speed = state.velocity.abs();
            state.velocity /= 1.0 + 2.0 * wall.friction / diameter * speed * time;
            let heat = wall.temperature.map_or(0.0, |temperature| {
                let transfer = 0.5 * wall.friction * state.density * speed * self.gas.cp();
                4.0 / diameter * transfer * (temperature - state.temperature(self.gas)) * time
            });
            let kinetic = 0.5 * state.density * state.velocity * state.velocity;
            state.pressure = (self.gas.gamma - 1.0) * (energy + heat - kinetic);
        }
    }
}

/// Van Leer's limited slope of two one-sided differences.
fn van_leer(back: f64, ahead: f64) -> f64 {
    let product = back * ahead;
    if product <= 0.0 { 0.0 } else { 2.0 * product / (back + ahead) }
}

/// A reconstructed value, or the cell's own where it would not be a gas.
fn kept(at_face: State, own: State) -> State {
    if at_face.density > 0.0 && at_face.pressure > 0.0 { at_face } else { own }
}
