//! The response of a curve to decisions: a quadratic through drafts around a candidate, so that torque follows a drag at
//! once and a search can ask ten thousand times. It says how far it is off, and where its region ends.

use super::decision::{Choice, Decision};
use super::design::towards_the_sides;
use super::figures::{Figures, PlanOf};
use super::frame::Frame;
use super::polynomial::{Polynomial, Terms, fit};
use crate::candidate::breathing::{Breathing, Effort, Ended, breathing_of, report};
use crate::candidate::{Gap, Stages, key};
use crate::report::BreathingReport;
use rayon::prelude::*;
use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};

/// Points for each term of the quadratic: fewer, and noise of the cells goes into the terms; more, and time is lost.
const POINTS_A_TERM: f64 = 2.3;
/// Drafts for each term of what they add to screened curves.
const DRAFTS_A_TERM: f64 = 3.0;
/// Why there is none.
const FEW: &str = "too few cams around this one have a smooth lobe: less lift, or more duration at .050";
/// Points that may have no lobe or no curve before the region is given up, for each wanted.
const TRIES: usize = 3;
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

/// What is computed of a curve at every speed.
const COLUMNS: [fn(&BreathingReport) -> Option<&Vec<f64>>; 8] = [
    |curve| Some(&curve.torque_nm),
    |curve| curve.octane_needed.as_ref(),
    |curve| Some(&curve.peak_cylinder_pressure_kpa),
    |curve| Some(&curve.exhaust_opening_kpa),
    |curve| Some(&curve.exhaust_temperature_c),
    |curve| Some(&curve.air_fuel),
    |curve| curve.boost_kpa.as_ref(),
    |curve| curve.drive_kpa.as_ref(),
];

/// A computed point of a region.
#[derive(Debug, Clone, PartialEq)]
pub struct Computed {
    /// The decisions.
    pub choice: Choice,
    /// Its figures.
    pub figures: Figures,
}

/// A point as it comes.
pub struct Told<'a> {
    /// Points so far, and in all.
    pub done: usize,
    /// In all.
    pub of: usize,
    /// The decisions.
    pub choice: &'a Choice,
    /// What came of it.
    pub figures: &'a Figures,
    /// By what.
    pub by: Effort,
}

/// Points of a region: their places in it, what they decide, what came of them.
#[derive(Debug, Default)]
struct Points {
    places: Vec<Vec<f64>>,
    choices: Vec<Choice>,
    values: Vec<Vec<f64>>,
}

impl Points {
    fn push(&mut self, (place, choice): (Vec<f64>, Choice), values: Vec<f64>) {
        self.places.push(place);
        self.choices.push(choice);
        self.values.push(values);
    }
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
    pub effort: Effort,
    /// Speeds, rpm.
    pub speeds: Vec<f64>,
    /// What the plan asks of a curve.
    pub plan: PlanOf,
    /// Through screened points.
    screened: Polynomial,
    /// What a draft adds to them.
    added: Option<Polynomial>,
    /// The points it was made of, by its own effort.
    pub points: Vec<Computed>,
    /// How far it is off.
    pub left_out: LeftOut,
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
        let mut choice = *self.frame.now();
        for (axis, x) in self.axes.iter().zip(x) {
            choice.set(axis.decision, x.mul_add(axis.reach, axis.middle));
        }
        choice
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
        let middle = breathing_of(&self.frame.at(&self.choice(&vec![0.0; self.axes.len()]), self.stages))?;
        // Where the document does not say how the cylinders are joined there is nothing to draft.
        let drafts = if middle.can(Effort::Draft).is_ok() { self.drafts() } else { 0 };
        let effort = if drafts > 0 { Effort::Draft } else { Effort::Screening };
        let (plan, speeds) = (PlanOf::of(&middle), middle.speeds(Effort::Draft));
        let frame = self.frame.key(&[]);
        let (done, of) = (AtomicUsize::new(0), self.count() + drafts);
        let told = |choice: &Choice, columns: &[f64], by: Effort| {
            let figures = plan.figures(&speeds, columns);
            let done = done.fetch_add(1, Ordering::Relaxed) + 1;
            tell(Told { done, of, choice, figures: &figures, by });
        };
        let compute = |choice: &Choice, by: Effort| -> Result<Option<Vec<f64>>, Ended> {
            let key = key(&(frame, choice, by));
            if let Some(kept) = self.stages.points.kept(key) {
                return Ok(kept.as_ref().clone().inspect(|columns| told(choice, columns, by)));
            }
            // Where no smooth lobe carries the card there is no candidate.
            let columns = match breathing_of(&self.frame.at(choice, self.stages)) {
                Ok(breathing) => columns(&breathing, by, &speeds, stop)?,
                Err(_) => None,
            };
            self.stages.points.keep(key, Arc::new(columns.clone()));
            Ok(columns.inspect(|columns| told(choice, columns, by)))
        };
        let screened = self.points(self.count(), |choice| compute(choice, Effort::Screening))?;
        let too_few = || Ended::from(Gap::because(FEW));
        let base = fit(Terms::Products, &screened.places, &screened.values).ok_or_else(too_few)?;
        if drafts == 0 {
            let points = (screened, base.left_out);
            return Ok(self.made((effort, plan, speeds), (base.polynomial, None), points));
        }
        let drafted: Result<Vec<_>, Ended> = (0..screened.choices.len().min(drafts))
            .into_par_iter()
            .map(|i| Ok((i, compute(&screened.choices[i], effort)?)))
            .collect();
        let (mut points, mut added, mut left) = (Points::default(), Vec::new(), Vec::new());
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
        Ok(self.made((effort, plan, speeds), (base.polynomial, Some(more.polynomial)), (points, left)))
    }

    /// As many points as wanted, of which some may have no curve.
    fn points(
        &self,
        wanted: usize,
        compute: impl Fn(&Choice) -> Result<Option<Vec<f64>>, Ended> + Sync,
    ) -> Result<Points, Ended> {
        let mut points = Points::default();
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
        (effort, plan, speeds): (Effort, PlanOf, Vec<f64>),
        (screened, added): (Polynomial, Option<Polynomial>),
        (points, left): (Points, Vec<Vec<f64>>),
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
        Response { axes: self.axes.clone(), effort, speeds, plan, screened, added, points, left_out }
    }
}

/// What a curve comes to at `speeds`, column after column; `None` where the gas does not settle.
fn columns(
    breathing: &Breathing,
    effort: Effort,
    speeds: &[f64],
    stop: &(dyn Fn() -> bool + Sync),
) -> Result<Option<Vec<f64>>, Ended> {
    let (level, setup) = (breathing.strongest(), breathing.meshed(effort));
    let sample = |rpm: &f64| breathing.sample(&setup, (effort, level), *rpm, stop).map_err(Ended::from);
    match speeds.par_iter().map(sample).collect::<Result<Vec<_>, Ended>>() {
        Ok(found) => {
            let curve = report(breathing, effort, level, &found, None);
            Ok(Some(COLUMNS.iter().filter_map(|column| column(&curve)).flatten().copied().collect()))
        }
        Err(Ended::Stopped) => Err(Ended::Stopped),
        Err(Ended::Gap(_)) => Ok(None),
    }
}

fn root_mean_square(values: impl Iterator<Item = f64>) -> f64 {
    let (sum, count) = values.fold((0.0, 0.0), |(sum, count), value| (value.mul_add(value, sum), count + 1.0));
    (sum / f64::max(count, 1.0)).sqrt()
}

impl Response {
    /// Where a choice lies in the region, one at its sides in every axis.
    pub fn place(&self, choice: &Choice) -> Vec<f64> {
        let at = |axis: &Axis| (choice.get(axis.decision).unwrap_or(axis.middle) - axis.middle) / axis.reach;
        self.axes.iter().map(at).collect()
    }

    /// Whether a choice lies in the region.
    pub fn holds(&self, choice: &Choice) -> bool {
        self.place(choice).iter().all(|x| x.abs() <= EDGE)
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

    /// The figures of a choice.
    pub fn figures(&self, choice: &Choice) -> Figures {
        self.plan.figures(&self.speeds, &self.columns(choice))
    }
}
