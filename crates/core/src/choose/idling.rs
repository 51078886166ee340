//! Vacuum at idle over a region, for a plan that asks for one: a polynomial through a few cams that were idled.

use super::frame::Frame;
use crate::candidate::breathing::breathing_of;
use crate::candidate::{Resolved, Stages, key};
use crate::response::{Axis, Choice, Polynomial, Terms, fit, lifted, placed, towards_the_sides};
use rayon::prelude::*;

/// Points for each term.
const POINTS_A_TERM: usize = 2;
/// Of the points' places.
const SEED: u32 = 6;

/// Vacuum at idle where a plan asks for one, Pa below the air outside, as a result has it or quickly, kept for the next who
/// asks; `None` where no plan asks, the engine does not idle on a throttle, or the work was stopped.
pub fn idle_vacuum(
    resolved: &Resolved,
    is_quick: bool,
    stages: &Stages,
    stop: &(dyn Fn() -> bool + Sync),
) -> Option<f64> {
    resolved.given.target.idle_vacuum?;
    let breathing = breathing_of(resolved).ok()?;
    let key = key(&("vacuum at idle", &breathing, is_quick));
    let found = stages.figures(key, || Some(vec![breathing.idle_vacuum(is_quick, stop).ok()??]));
    found?.first().copied()
}

/// Vacuum at idle over a region.
#[derive(Debug, Clone, PartialEq)]
pub struct Idling {
    axes: Vec<Axis>,
    polynomial: Polynomial,
    /// What the plan wants, Pa.
    pub need: f64,
    /// Root of the mean square of what it misses, Pa.
    pub off: f64,
}

impl Idling {
    /// Of a region with `axes`; `None` where no plan asks for it, or too few cams of the region idle.
    pub fn of(frame: &Frame, axes: &[Axis], stages: &Stages, stop: &(dyn Fn() -> bool + Sync)) -> Option<Self> {
        let need = frame.given(frame.now()).target.idle_vacuum?.si();
        let count = POINTS_A_TERM * Terms::Linear.count(axes.len());
        let point = |index: usize| -> Option<(Vec<f64>, Vec<f64>)> {
            let place = towards_the_sides(index, axes.len(), SEED);
            let choice = placed(axes, frame.now(), &place);
            Some((place, vec![idle_vacuum(&frame.at(&choice, stages), true, stages, stop)?]))
        };
        let points: Vec<(Vec<f64>, Vec<f64>)> = (0..count).into_par_iter().filter_map(point).collect();
        let (places, values): (Vec<Vec<f64>>, Vec<Vec<f64>>) = points.into_iter().unzip();
        let fit = fit(Terms::Linear, &places, &values)?;
        let off = fit.missed(&values, 0);
        Some(Self { axes: axes.to_vec(), polynomial: fit.polynomial, need, off })
    }

    /// The same for trains with so many times the lobe lift on each side.
    #[must_use]
    pub fn carried_over(&self, lift: [f64; 2]) -> Self {
        let mut own = self.clone();
        lifted(&mut own.axes, lift);
        own
    }

    /// Vacuum of a choice, Pa.
    pub fn at(&self, choice: &Choice) -> f64 {
        let place: Vec<f64> = self.axes.iter().map(|axis| axis.place(choice)).collect();
        self.polynomial.at(&place).first().copied().unwrap_or(0.0)
    }
}
