//! Computes the response of a curve to decisions: screened and drafted cams around a candidate, and a polynomial through them.

use super::columns::columns_of;
use super::frame::Frame;
use super::points::{By, Points, Share};
use crate::candidate::breathing::{Breathing, Effort, Ended, breathing_of};
use crate::candidate::{Gap, Stages};
use crate::limits::GasFinding;
use crate::quantity::Pressure;
use crate::report::BreathingReport;
use crate::response::{
    Axis, Choice, Computed, Decision, Depth, Figures, LeftOut, PlanOf, Polynomial, Response, Terms, fit, placed,
    root_mean_square, towards_the_sides,
};
use rayon::prelude::*;
use std::sync::atomic::{AtomicUsize, Ordering};

/// Points for each term of the quadratic: fewer, and noise of the cells goes into the terms; more, and time is lost.
const POINTS_A_TERM: f64 = 2.3;
/// Drafts for each term of what they add to screened curves.
const DRAFTS_A_TERM: f64 = 3.0;
/// Why there is none.
const FEW: &str = "too few cams around this one have a smooth lobe: less lift, or more duration at .050";
/// Points that may have no lobe or no curve before the region is given up, for each wanted.
const TRIES: usize = 3;

/// A point as it comes.
pub struct Told<'a> {
    /// Points so far.
    pub done: usize,
    /// In all.
    pub of: usize,
    /// What came of it.
    pub figures: &'a Figures,
    /// By what.
    pub by: Effort,
}

/// Points of a region: their places in it, what they decide, what came of them.
#[derive(Debug, Default)]
struct Found {
    places: Vec<Vec<f64>>,
    choices: Vec<Choice>,
    values: Vec<Vec<f64>>,
}

impl Found {
    fn push(&mut self, (place, choice): (Vec<f64>, Choice), values: Vec<f64>) {
        self.places.push(place);
        self.choices.push(choice);
        self.values.push(values);
    }
}

/// What a candidate's plan asks of a curve.
pub fn plan_of(breathing: &Breathing) -> PlanOf {
    PlanOf {
        band: breathing.band,
        wanted: breathing.wanted.0,
        shift: breathing.wanted.1,
        missed: breathing.missed,
        used_to: breathing.used_to(),
        spark: breathing.is_spark(),
        charged: breathing.air.charger.is_some(),
    }
}

/// Figures of a computed curve.
pub fn figures_of(breathing: &Breathing, curve: &BreathingReport) -> Figures {
    plan_of(breathing).figures(&curve.speed_rpm, &columns_of(curve))
}

/// What limits ask of a curve, of its figures.
pub fn gas_of(figures: &Figures) -> GasFinding {
    GasFinding {
        octane_needed: figures.octane,
        peak_pressure: figures.peak_pressure,
        opening_pressure: figures.opening_pressure,
        idle_vacuum: None,
        boost: figures.boost.map(|(boost, drive)| (Pressure::from_si(boost), Pressure::from_si(drive))),
    }
}

/// Axes of the decisions in `open` around `middle`.
pub fn axes(middle: &Choice, open: &[Decision], far: bool) -> Vec<Axis> {
    let axis = |decision: &Decision| {
        let counting = decision.counting();
        let reach = if far { counting.far } else { counting.near };
        let middle = middle.get(*decision)?;
        Some(Axis { decision: *decision, middle, reach: reach.around(middle) })
    };
    open.iter().filter_map(axis).collect()
}

/// What a region is computed with.
pub struct Region<'a> {
    /// The candidate with open decisions.
    pub frame: &'a Frame,
    /// Where to look.
    pub axes: Vec<Axis>,
    /// How many of the points are drafted.
    pub depth: Depth,
    /// Of the points' places.
    pub seed: u32,
    /// Cached stages.
    pub stages: &'a Stages,
}

impl Region<'_> {
    /// How many points it takes.
    pub fn count(&self) -> usize {
        (POINTS_A_TERM * Terms::Products.count(self.axes.len()) as f64).ceil() as usize
    }

    /// How many of them are drafted.
    pub fn drafts(&self) -> usize {
        match self.depth {
            Depth::Screened => 0,
            Depth::Sampled => (DRAFTS_A_TERM * Terms::Linear.count(self.axes.len()) as f64).ceil() as usize,
            Depth::Whole => self.count(),
        }
    }

    fn choice(&self, x: &[f64]) -> Choice {
        placed(&self.axes, self.frame.now(), x)
    }

    /// The candidate at its middle, how many points are drafted, and the deepest effort, whose speeds all of them have.
    fn computed_by(&self) -> Result<(Breathing, usize, Effort), Ended> {
        let middle = breathing_of(&self.frame.at(self.frame.now(), self.stages))?;
        // Where the document does not say how the cylinders are joined there is nothing to draft.
        let drafts = if middle.can(Effort::Draft).is_ok() { self.drafts() } else { 0 };
        Ok((middle, drafts, if drafts > 0 { Effort::Draft } else { Effort::Screening }))
    }

    /// Computes a share of the points, as far as they are known before others are computed; whether all are there now.
    ///
    /// # Errors
    /// That it was stopped, or that no curve can be computed there.
    pub fn prepared(&self, share: Share, stop: &(dyn Fn() -> bool + Sync)) -> Result<bool, Ended> {
        let (_, drafts, speeds_of) = self.computed_by()?;
        let points = Points::of(self.frame, self.stages);
        let at = |index: usize| self.choice(&towards_the_sides(index, self.axes.len(), self.seed));
        for (count, by) in [(self.count(), Effort::Screening), (drafts, Effort::Draft)] {
            let by = By::at(by, speeds_of);
            let own = (0..count).into_par_iter().filter(|index| share.has(*index));
            own.map(|index| points.computed(&at(index), by, stop).map(|_| ())).collect::<Result<(), Ended>>()?;
            if (0..count).any(|index| points.kept(&at(index), by).is_none()) {
                return Ok(false);
            }
        }
        Ok(true)
    }

    /// Computes the points and fits the response; `tell` hears of every point as it comes, in any order: how many there are,
    /// of how many, and the point where it is one of the effort asked for.
    ///
    /// # Errors
    /// That it was stopped, or that no curve can be computed there.
    pub fn respond(
        &self,
        stop: &(dyn Fn() -> bool + Sync),
        tell: &(dyn Fn(Told<'_>) + Sync),
    ) -> Result<Response, Ended> {
        let (middle, drafts, effort) = self.computed_by()?;
        let depth = if drafts > 0 { self.depth } else { Depth::Screened };
        let (plan, speeds) = (plan_of(&middle), middle.speeds(effort));
        let points = Points::of(self.frame, self.stages);
        let (done, of) = (AtomicUsize::new(0), self.count() + drafts);
        let told = |columns: &[f64], by: Effort| {
            let figures = plan.figures(&speeds, columns);
            let done = done.fetch_add(1, Ordering::Relaxed) + 1;
            tell(Told { done, of, figures: &figures, by });
        };
        let compute = |choice: &Choice, by: Effort| -> Result<Option<Vec<f64>>, Ended> {
            let columns = points.computed(choice, By::at(by, effort), stop)?;
            Ok(columns.as_ref().as_ref().map(|columns| columns.values.clone()).inspect(|columns| told(columns, by)))
        };
        let screened = self.points(self.count(), |choice| compute(choice, Effort::Screening))?;
        let too_few = || Ended::from(Gap::because(FEW));
        let base = fit(Terms::Products, &screened.places, &screened.values).ok_or_else(too_few)?;
        if drafts == 0 {
            let points = (screened, base.left_out);
            return Ok(self.made((depth, plan, speeds), (base.polynomial, None), points));
        }
        let drafted: Result<Vec<_>, Ended> = (0..screened.choices.len().min(drafts))
            .into_par_iter()
            .map(|i| Ok((i, compute(&screened.choices[i], effort)?)))
            .collect();
        let (mut points, mut added, mut left) = (Found::default(), Vec::new(), Vec::new());
        for (i, columns) in drafted? {
            let Some(columns) = columns else { continue };
            added.push(columns.iter().zip(&screened.values[i]).map(|(draft, screened)| draft - screened).collect());
            left.push(base.left_out[i].clone());
            points.push((screened.places[i].clone(), screened.choices[i]), columns);
        }
        let terms = if self.depth == Depth::Whole { Terms::Products } else { Terms::Linear };
        let more = fit(terms, &points.places, &added).ok_or_else(too_few)?;
        for (left, more) in left.iter_mut().zip(&more.left_out) {
            left.iter_mut().zip(more).for_each(|(left, more): (&mut f64, &f64)| *left += more);
        }
        Ok(self.made((depth, plan, speeds), (base.polynomial, Some(more.polynomial)), (points, left)))
    }

    /// As many points as wanted, of which some may have no curve.
    fn points(
        &self,
        wanted: usize,
        compute: impl Fn(&Choice) -> Result<Option<Vec<f64>>, Ended> + Sync,
    ) -> Result<Found, Ended> {
        let mut points = Found::default();
        let mut next = 0;
        while points.choices.len() < wanted && next < TRIES * wanted {
            let batch = next..next + (wanted - points.choices.len());
            next = batch.end;
            let one = |index: usize| -> Result<_, Ended> {
                let place = towards_the_sides(index, self.axes.len(), self.seed);
                let choice = self.choice(&place);
                Ok(compute(&choice)?.map(|columns| ((place, choice), columns)))
            };
            let found: Result<Vec<_>, Ended> = batch.into_par_iter().map(one).collect();
            for (place, columns) in found?.into_iter().flatten() {
                points.push(place, columns);
            }
        }
        Ok(points)
    }

    fn made(
        &self,
        (depth, plan, speeds): (Depth, PlanOf, Vec<f64>),
        (screened, added): (Polynomial, Option<Polynomial>),
        (points, left): (Found, Vec<Vec<f64>>),
    ) -> Response {
        let figures: Vec<Figures> = points.values.iter().map(|columns| plan.figures(&speeds, columns)).collect();
        let predicted: Vec<Figures> =
            left.iter().take(figures.len()).map(|columns| plan.figures(&speeds, columns)).collect();
        let share = |of: fn(&Figures) -> f64| {
            root_mean_square(figures.iter().zip(&predicted).map(|(own, predicted)| of(predicted) / of(own) - 1.0))
        };
        let at_speed = |speed: usize| {
            root_mean_square(left.iter().zip(&points.values).map(|(left, own)| left[speed] / own[speed] - 1.0))
        };
        let by_speed: Vec<f64> = (0..speeds.len()).map(at_speed).collect();
        let left_out = LeftOut {
            average_torque: share(|figures| figures.average_torque),
            peak_power: share(|figures| figures.peak_power),
            torque: root_mean_square(by_speed.iter().copied()),
            worst_speed: by_speed.iter().copied().fold(0.0, f64::max),
        };
        let points = points.choices.into_iter().zip(figures);
        let points = points.map(|(choice, figures)| Computed { choice, figures }).collect();
        Response { axes: self.axes.clone(), depth, speeds, plan, screened, added, points, left_out }
    }
}
