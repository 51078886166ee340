//! Unsteady quasi-one-dimensional flow in a duct of varying area: second order in space and time.
//!
//! Cells of equal length hold mass, momentum, energy and burned mass for a unit volume. Each step is
//! MUSCL-Hancock with the monotonised central limiter on primitive variables and the HLLC flux between cells [Toro, ch. 13,
//! 14 and 10; from memory]. Area enters as the faces' own areas and the wall's push `p (A_right - A_left)`,
//! which keeps gas at rest at rest exactly. Wall friction and heat are added after each step:
//! `dp/dx = -4 f/D rho u|u|/2`, and heat `4 h/D (Tw - Tr)` of [`Heat`], Tr the temperature that the gas
//! recovers at the wall.
//!
//! Every quantity is a flat array, and the loops over cells are free of branches, so that they run in vector
//! registers; a step has two halves, [`Duct::predict`] and [`Duct::finish`], between which whatever joins several
//! ducts finds the states at their ends.

use super::cells::{Cells, Exchange, FEWEST, Predict, Settle, Shape};
pub use super::cells::{Heat, Wall};
use super::ends::End;
use super::state::{Gas, State};
use pulp::Arch;
use std::f64::consts::PI;

/// Share of the largest stable step that is taken.
pub const COURANT: f64 = 0.9;

/// Cells of about `cell` in a duct of `length`, both m: as few as one may have, and no more than memory bears.
pub fn cells_of(length: f64, cell: f64) -> usize {
    ((length / cell).round() as usize).clamp(FEWEST, 4000)
}

/// A duct with the gas in it.
#[derive(Debug, Clone)]
pub struct Duct {
    gas: Gas,
    cell: f64,
    shape: Shape,
    wall: Option<Wall>,
    /// The gas, with a place beyond each end.
    own: Cells,
    next: Cells,
    /// Left and right values of each cell after half a step, and the fluxes of the faces.
    left: Cells,
    right: Cells,
    flux: Cells,
    /// States at the end faces in the last step.
    ends: [State; 2],
    /// Speed of sound in each cell, and the fastest signal, m/s.
    sound: Vec<f64>,
    fastest: f64,
}

impl Duct {
    /// A duct of `length` (m) with `area_at` its place from the left end, filled with `start`.
    /// `None` unless it has at least five cells, a positive length, and positive areas.
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
        let sane =
            cells >= FEWEST && length > 0.0 && length.is_finite() && faces.iter().all(|a| *a > 0.0 && a.is_finite());
        sane.then(|| Self {
            gas,
            cell,
            shape: Shape::of(faces, cell),
            wall,
            own: Cells::of(cells + 2, start),
            next: Cells::of(cells + 2, start),
            left: Cells::of(cells, start),
            right: Cells::of(cells, start),
            flux: Cells::of(cells + 1, start),
            ends: [start; 2],
            sound: vec![start.sound(gas); cells],
            fastest: start.velocity.abs() + start.sound(gas),
        })
    }

    /// Number of cells.
    pub fn len(&self) -> usize {
        self.shape.areas.len()
    }

    /// Whether it has no cells, which cannot be.
    pub fn is_empty(&self) -> bool {
        self.len() == 0
    }

    /// The gas of one cell.
    pub fn state(&self, cell: usize) -> State {
        self.own.get(cell + 1)
    }

    /// The gas, cell by cell from the left.
    pub fn states(&self) -> impl Iterator<Item = State> + '_ {
        (0..self.len()).map(|cell| self.state(cell))
    }

    /// Sets the gas of one cell.
    pub fn set(&mut self, cell: usize, state: State) {
        self.own.set(cell + 1, state);
        self.sound[cell] = state.sound(self.gas);
        self.fastest = self.fastest.max(state.velocity.abs() + self.sound[cell]);
    }

    /// Takes the gas of another duct of the same length, linear between the middles of its cells.
    pub fn filled_from(mut self, other: &Self) -> Self {
        let last = (other.len() - 1) as f64;
        self.fastest = 0.0;
        for cell in 0..self.len() {
            let at = (self.place(cell) / other.cell - 0.5).clamp(0.0, last);
            let (before, after) = (other.state(at as usize), other.state((at as usize + 1).min(other.len() - 1)));
            self.set(cell, before.towards(&after, at.fract()));
        }
        self.ends = other.ends;
        self
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
        (0..self.len()).map(|i| of(&self.state(i)) * self.shape.areas[i] * self.cell).sum()
    }

    /// Largest stable step, s.
    pub fn stable_step(&self) -> f64 {
        COURANT * self.cell / self.fastest
    }

    /// Mass flow through the left and the right end in the last step, kg/s, positive to the right.
    pub fn end_flows(&self) -> (f64, f64) {
        let last = self.len();
        (self.flux.density[0] * self.shape.faces[0], self.flux.density[last] * self.shape.faces[last])
    }

    /// States at the left and the right end face in the last step.
    pub const fn end_states(&self) -> [State; 2] {
        self.ends
    }

    /// Areas of the left and the right end face, m2.
    pub fn end_areas(&self) -> [f64; 2] {
        [self.shape.faces[0], self.shape.faces[self.len()]]
    }

    /// The gas the duct computes with.
    pub const fn gas(&self) -> Gas {
        self.gas
    }

    /// One step of `time` (s), no longer than [`Self::stable_step`].
    pub fn step(&mut self, time: f64, left: &End, right: &End) {
        let [first, last] = self.predict(time);
        let faces = [left.face(self.gas, &first, -1.0), right.face(self.gas, &last, 1.0)];
        self.finish(time, faces);
    }

    /// First half of a step: the gas at the inside of the left and the right end after half of `time`.
    pub fn predict(&mut self, time: f64) -> [State; 2] {
        let last = self.len() - 1;
        // An end's state lies on the face, half a cell away: mirrored, its difference counts twice.
        for (beyond, next, face) in [(0, 1, self.ends[0]), (last + 2, last + 1, self.ends[1])] {
            let own = self.own.get(next);
            self.own.set(
                beyond,
                State {
                    density: 2.0 * face.density - own.density,
                    velocity: 2.0 * face.velocity - own.velocity,
                    pressure: 2.0 * face.pressure - own.pressure,
                    burned: 2.0 * face.burned - own.burned,
                },
            );
        }
        Arch::new().dispatch(Predict {
            gamma: self.gas.gamma,
            ratio: time / self.cell,
            own: &self.own,
            shape: &self.shape,
            left: &mut self.left,
            right: &mut self.right,
        });
        [self.left.get(0), self.right.get(last)]
    }

    /// Second half of a step, with the states at the end faces, which carry the flux themselves.
    pub fn finish(&mut self, time: f64, faces: [State; 2]) {
        let last = self.len();
        Arch::new().dispatch(Exchange {
            gamma: self.gas.gamma,
            sound: &self.sound,
            left: &self.left,
            right: &self.right,
            flux: &mut self.flux,
        });
        for (at, face) in [(0, faces[0]), (last, faces[1])] {
            let [density, velocity, pressure, burned] = face.flux(self.gas);
            self.flux.set(at, State { density, velocity, pressure, burned });
        }
        self.ends = faces;
        self.fastest = Arch::new().dispatch(Settle {
            gas: self.gas,
            time,
            wall: self.wall,
            shape: &self.shape,
            flux: &self.flux,
            left: &self.left,
            right: &self.right,
            own: &self.own,
            next: &mut self.next,
            sound: &mut self.sound,
        });
        std::mem::swap(&mut self.own, &mut self.next);
    }
}

impl Shape {
    fn of(faces: Vec<f64>, cell: f64) -> Self {
        let areas: Vec<f64> = faces.windows(2).map(|pair| 0.5 * (pair[0] + pair[1])).collect();
        Self {
            widening: faces.windows(2).zip(&areas).map(|(pair, area)| (pair[1] - pair[0]) / area).collect(),
            by_volume: areas.iter().map(|area| 1.0 / (cell * area)).collect(),
            by_diameter: areas.iter().map(|area| (PI / (4.0 * area)).sqrt()).collect(),
            warming: areas.iter().map(|area| (PI / (4.0 * area)).powf(0.625)).collect(),
            areas,
            faces,
        }
    }
}
