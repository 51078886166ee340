//! A curve of torque over decisions: a polynomial through computed points around a candidate, so that torque follows a drag
//! at once and a search can ask ten thousand times. It says how far it is off, and where its region ends. What computes the
//! points is [`crate::choose`].

mod choice;
mod decision;
mod design;
mod figures;
mod polynomial;

pub use choice::Choice;
pub use decision::{Counting, Decision, Reach};
pub use design::{evenly, towards_the_sides};
pub use figures::{Columns, Figures, PlanOf, judged, power};
pub use polynomial::{Fit, Polynomial, Terms, fit, root_mean_square};

/// What a design point may be further out than the middle of its side before it is another region.
const EDGE: f64 = 1.0 + 1e-9;

/// One open decision of a region.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Axis {
    /// Which.
    pub decision: Decision,
    /// Middle of the region.
    pub middle: f64,
    /// How far it reaches on both sides.
    pub reach: f64,
}

impl Axis {
    /// Where a choice lies on it, one at its ends; in the middle where it does not decide.
    pub fn place(&self, choice: &Choice) -> f64 {
        (choice.get(self.decision).unwrap_or(self.middle) - self.middle) / self.reach
    }
}

/// The same region for so many times the lobe lift on each side.
pub fn lifted(axes: &mut [Axis], lift: [f64; 2]) {
    for axis in axes {
        let by = match axis.decision {
            Decision::IntakeLift => lift[0],
            Decision::ExhaustLift => lift[1],
            _ => continue,
        };
        (axis.middle, axis.reach) = (axis.middle * by, axis.reach * by);
    }
}

/// A choice at a place of a region, one at its sides in every axis; what is not open stands as in `base`.
pub fn placed(axes: &[Axis], base: &Choice, place: &[f64]) -> Choice {
    let values = axes.iter().zip(place);
    values.fold(*base, |choice, (axis, x)| choice.with(axis.decision, x.mul_add(axis.reach, axis.middle)))
}

/// How much of a region is drafted: what a draft adds to a screened curve bends little.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Depth {
    /// Nothing: one cylinder with constant pressures around it.
    Screened,
    /// A few points: what they add is linear. Torque of single speeds within about a per cent, its mean within .2 %.
    Sampled,
    /// Every point.
    Whole,
}

/// A computed point of a region.
#[derive(Debug, Clone, PartialEq)]
pub struct Computed {
    /// The decisions.
    pub choice: Choice,
    /// Its figures.
    pub figures: Figures,
}

/// How far predictions lie off computed points that were left out: root of the mean square, as a share.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct LeftOut {
    /// Of average torque.
    pub average_torque: f64,
    /// Of peak power.
    pub peak_power: f64,
    /// Of torque at every speed.
    pub torque: f64,
    /// Of torque at the speed where it is worst.
    pub worst_speed: f64,
}

/// A response and its region.
#[derive(Debug, Clone, PartialEq)]
pub struct Response {
    /// Its region.
    pub axes: Vec<Axis>,
    /// What it follows.
    pub depth: Depth,
    /// Speeds, rpm.
    pub speeds: Vec<f64>,
    /// What the plan asks of a curve.
    pub plan: PlanOf,
    /// Through screened points.
    pub screened: Polynomial,
    /// What a draft adds to them.
    pub added: Option<Polynomial>,
    /// The points it was made of, by its own effort.
    pub points: Vec<Computed>,
    /// How far it is off.
    pub left_out: LeftOut,
}

/// How far out what is made in coarse steps still counts as in the region.
const HARDLY_BEYOND: f64 = 1.3;

impl Response {
    /// Where a choice lies in the region, one at its sides in every axis.
    pub fn place(&self, choice: &Choice) -> Vec<f64> {
        self.axes.iter().map(|axis| axis.place(choice)).collect()
    }

    /// Whether a choice lies in the region.
    pub fn holds(&self, choice: &Choice) -> bool {
        self.lies_within(choice, EDGE)
    }

    /// Whether a choice lies in the region or hardly beyond it: what is made in coarse steps ends up a little outside.
    pub fn nearly_holds(&self, choice: &Choice) -> bool {
        self.lies_within(choice, HARDLY_BEYOND)
    }

    fn lies_within(&self, choice: &Choice, most: f64) -> bool {
        self.place(choice).iter().all(|x| x.abs() <= most)
    }

    /// Every column of a choice.
    pub fn columns(&self, choice: &Choice) -> Vec<f64> {
        self.columns_at(&self.place(choice))
    }

    fn columns_at(&self, place: &[f64]) -> Vec<f64> {
        let mut columns = self.screened.at(place);
        if let Some(added) = &self.added {
            for (own, more) in columns.iter_mut().zip(added.at(place)) {
                *own += more;
            }
        }
        columns
    }

    /// Taken over to other hardware: every choice becomes the one that moves the valves alike there, and every curve has so
    /// much more.
    pub fn carried_over(&mut self, to: impl Fn(&Choice) -> Choice, more: Option<&[f64]>) {
        let base = self.points.first().map_or_else(Choice::nothing, |point| point.choice);
        let at = |x: f64| to(&placed(&self.axes, &base, &vec![x; self.axes.len()]));
        let (middle, end) = (at(0.0), at(1.0));
        for axis in &mut self.axes {
            if let (Some(middle), Some(end)) = (middle.get(axis.decision), end.get(axis.decision)) {
                (axis.middle, axis.reach) = (middle, end - middle);
            }
        }
        for point in &mut self.points {
            point.choice = to(&point.choice);
        }
        if let Some(more) = more {
            self.raise(more);
        }
    }

    /// Every curve has so much more, column by column.
    pub fn raise(&mut self, more: &[f64]) {
        self.screened = std::mem::replace(&mut self.screened, Polynomial::nothing()).with_more(more);
    }

    /// The figures of a choice.
    pub fn figures(&self, choice: &Choice) -> Figures {
        self.plan.figures(&self.speeds, &self.columns(choice))
    }
}
