//! Measured valve lift laid on a train in motion: what nobody measures, fitted within its ranges.
//!
//! Gauss and Newton's steps on the places of what nobody measures, each drawn to the middle of its range as if it lay anywhere in it
//! alike; the zero of the crank of each valve, and of every trace's lift, are found beside. What is left of one trace to its next
//! point is alike, so points count as far as they are independent: `n (1 - r) / (1 + r)` with the correlation r of neighbours
//! [Bayley and Hammersley, J. R. Stat. Soc. Suppl. 8, 1946, 184; from memory], and never closer than what the model itself leaves
//! out is alike over. Traces past control count by what they leave.

use super::ranges::{COUNT, Learned, OPEN, Unmeasured};
use super::train::SideTrain;
use super::work::{Sample, lift_at, many};
use crate::document::Side;
use crate::response::root_mean_square;
use nalgebra::{DMatrix, DVector};
use rayon::prelude::*;

/// Step of a place either way by which its effect is found: wide, since cycles repeat to some micrometres only, which a short one would
/// take for an effect that tells places apart. And the change of any that ends the search.
const APART: f64 = 0.12;
const FOUND: f64 = 0.004;
/// Most steps.
pub const ROUNDS: usize = 10;
/// What a probe is off by at the least, m.
const PROBE: f64 = 3e-6;
/// Crank degrees over which what the model leaves out is alike (assumed): points closer than that count as one.
const TOGETHER: f64 = 6.0;
/// Records before and behind the lobe that are looked at.
const AROUND: (usize, usize) = (20, 60);
/// Fitted beside the places: the crank's zero of either valve.
const ALL: usize = COUNT + 2;
/// Points of a trace that must lie within the lobe.
const FEWEST: usize = 20;

/// A valve's lift over the crank at one speed.
#[derive(Debug, Clone, PartialEq)]
pub struct Trace {
    /// Which valve.
    pub side: Side,
    /// Whether a rig turned the cam, without gas on the heads.
    pub on_rig: bool,
    /// Of the crank.
    pub rpm: f64,
    /// Crank degrees from any zero, and lift, m, from any zero.
    pub points: Vec<(f64, f64)>,
}

/// A trace beside what is computed of it.
#[derive(Debug, Clone, PartialEq)]
pub struct TraceFit {
    /// Crank degrees from firing top, rising.
    pub crank_deg: Vec<f64>,
    /// As measured, from the seat, m.
    pub measured: Vec<f64>,
    /// As the usual train does it, m.
    pub usual: Vec<f64>,
    /// As the fitted one does, m.
    pub fitted: Vec<f64>,
    /// Root mean square of what measured and usual are apart, m.
    pub before: f64,
    /// The same with the fitted train, m.
    pub after: f64,
}

/// What came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct FittedTrain {
    /// What it says of what nobody measures.
    pub learned: Learned,
    /// Every trace, in the order given.
    pub traces: Vec<TraceFit>,
}

/// Why there is no fit.
#[derive(Debug, Clone, PartialEq)]
pub enum Unfit {
    /// It was stopped.
    Stopped,
    /// A trace, by its place, with too few points where the lobe lifts.
    Thin(usize),
    /// A trace, by its place, lifted by so much where the train lifts by so much, m.
    Another(usize, f64, f64),
}

/// Lift measured over computed that may be of one valve.
const LIKE: std::ops::RangeInclusive<f64> = 0.8..=1.25;

/// Fits what nobody measures to `traces`; `tell` hears how many steps were done of [`ROUNDS`] at most.
///
/// # Errors
/// Why there is none.
pub fn fit_to_motion(
    trains: &[SideTrain<'_>; 2],
    traces: &[Trace],
    (tell, stop): (&dyn Fn(usize), &(dyn Fn() -> bool + Sync)),
) -> Result<FittedTrain, Unfit> {
    let trains = trains.each_ref().map(|train| [train.clone(), train.without_gas()]);
    let laid = Laid { trains: &trains, traces, stop };
    let mut at = [0.5; ALL];
    let usual = laid.lifts(&[at])?.swap_remove(0);
    laid.align(&mut at, &usual)?;
    let zeros = at;
    let mut here = laid.left(&at, &usual);
    let mut system = None;
    for round in 0..ROUNDS {
        tell(round);
        let weights: Vec<f64> = here.iter().enumerate().map(|(t, left)| weight(left, laid.spacing(t, &at))).collect();
        let (normal, slope) = laid.system(&at, &weights)?;
        let step = normal.clone().cholesky().map(|own| own.solve(&slope));
        system = Some(normal);
        let Some(step) = step else { break };
        let Some((next, left)) = laid.further(&at, &step, (&here, &weights))? else { break };
        let moved = (0..COUNT).map(|i| (next[i] - at[i]).abs()).fold(0.0, f64::max);
        (at, here) = (next, left);
        if moved < FOUND {
            break;
        }
    }
    let covariance = system.and_then(|own| own.try_inverse()).map(|own| own.view((0, 0), (COUNT, COUNT)).into_owned());
    let root = covariance.and_then(nalgebra::DMatrix::cholesky).map(|own| own.l()).ok_or(Unfit::Stopped)?;
    let fitted = laid.lifts(&[at])?.swap_remove(0);
    let before = laid.left(&zeros, &usual);
    let traces = (0..traces.len()).map(|t| laid.beside(t, &at, (&usual[t], &fitted[t]), (&before[t], &here[t])));
    let place = std::array::from_fn(|i| at[i]);
    Ok(FittedTrain {
        learned: Learned {
            place,
            root: std::array::from_fn(|i| std::array::from_fn(|j| root[(i, j)])),
            known: [true; COUNT],
        },
        traces: traces.collect(),
    })
}

/// Places, and what they leave of every trace.
type Next = ([f64; ALL], Vec<Vec<f64>>);

/// Traces on their trains.
struct Laid<'a> {
    /// Of intake and exhaust, under gas and without.
    trains: &'a [[SideTrain<'a>; 2]; 2],
    traces: &'a [Trace],
    stop: &'a (dyn Fn() -> bool + Sync),
}

impl Laid<'_> {
    /// The train of a trace: its lobe, window and place on the crank are those under gas too.
    fn train(&self, t: usize) -> &SideTrain<'_> {
        &self.trains[self.traces[t].side.index()][0]
    }

    /// Crank degrees from point to point of a trace.
    fn spacing(&self, t: usize, at: &[f64; ALL]) -> f64 {
        let (first, last) = self.train(t).window.lobe;
        (last - first + AROUND.0 + AROUND.1) as f64 / self.about(t, at).len().max(1) as f64
    }

    /// Lift of every record of every trace, for each of these sets of places. Trace by trace: trains that are turned together take
    /// steps as fine as the slowest of them needs, and what only such steps make different would pass for an effect.
    fn lifts(&self, sets: &[[f64; ALL]]) -> Result<Vec<Vec<Vec<f64>>>, Unfit> {
        let places = sets.iter().map(|own| Unmeasured::between(std::array::from_fn(|i| own[i])));
        let places: Vec<Unmeasured> = places.collect();
        let turned = |trace: &Trace| {
            let train = &self.trains[trace.side.index()][usize::from(trace.on_rig)];
            let cases: Vec<(usize, f64)> = (0..sets.len()).map(|set| (set, trace.rpm)).collect();
            let samples = many(train, &train.models(&places), &cases, self.stop);
            (samples.len() == cases.len()).then_some(samples)
        };
        let by_trace: Vec<Vec<Sample>> =
            self.traces.par_iter().map(turned).collect::<Option<_>>().ok_or(Unfit::Stopped)?;
        let lift = |samples: &Vec<Sample>, set: usize| samples[set].turned.cycles[0].valve.clone();
        Ok((0..sets.len()).map(|set| by_trace.iter().map(|own| lift(own, set)).collect()).collect())
    }

    /// Points of a trace about the lobe: crank degrees from firing top, and lift.
    fn about(&self, t: usize, at: &[f64; ALL]) -> Vec<(f64, f64)> {
        let (trace, train) = (&self.traces[t], self.train(t));
        let (first, last) =
            (train.window.lobe.0.saturating_sub(AROUND.0) as f64, (train.window.lobe.1 + AROUND.1) as f64);
        let top = at[COUNT + trace.side.index()];
        let own = trace.points.iter().map(|(deg, lift)| (deg - top, *lift));
        own.filter(|(deg, _)| (first..=last).contains(&(deg - train.begins_at).rem_euclid(720.0))).collect()
    }

    /// What is left of every trace, about its mean.
    fn left(&self, at: &[f64; ALL], lifts: &[Vec<f64>]) -> Vec<Vec<f64>> {
        let of = |t: usize| {
            let begins_at = self.train(t).begins_at;
            let off = self.about(t, at).into_iter().map(|(deg, lift)| lift - lift_at(&lifts[t], begins_at, deg));
            about_mean(off.collect())
        };
        (0..self.traces.len()).map(of).collect()
    }

    /// Finds the crank's zero of each valve by where the usual train lifts it: first by the middles of both lifts, then by steps.
    fn align(&self, at: &mut [f64; ALL], usual: &[Vec<f64>]) -> Result<(), Unfit> {
        for side in Side::BOTH {
            let own: Vec<usize> = (0..self.traces.len()).filter(|t| self.traces[*t].side == side).collect();
            let Some(slowest) = own.iter().copied().min_by(|a, b| self.traces[*a].rpm.total_cmp(&self.traces[*b].rpm))
            else {
                at[COUNT + side.index()] = 0.0;
                continue;
            };
            let train = self.train(slowest);
            let computed: Vec<(f64, f64)> =
                usual[slowest].iter().enumerate().map(|(i, lift)| (train.begins_at + i as f64 + 1.0, *lift)).collect();
            let (read, has) = (self.traces[slowest].points.as_slice(), computed.as_slice());
            let (most, own_most) = (height(read), height(has));
            if !LIKE.contains(&(most / own_most)) {
                return Err(Unfit::Another(slowest, most, own_most));
            }
            at[COUNT + side.index()] = middle(read) - middle(has);
            for _ in 0..20 {
                let step = self.zero_step(at, (&own, usual));
                at[COUNT + side.index()] += step;
                if step.abs() < 1e-4 {
                    break;
                }
            }
            if let Some(thin) = own.into_iter().find(|t| self.about(*t, at).len() < FEWEST) {
                return Err(Unfit::Thin(thin));
            }
        }
        Ok(())
    }

    /// A step of one valve's zero alone.
    fn zero_step(&self, at: &[f64; ALL], (own, lifts): (&[usize], &[Vec<f64>])) -> f64 {
        let left = self.left(at, lifts);
        let (mut along, mut square) = (0.0, 0.0);
        for t in own {
            let slope = self.by_zero(*t, at, &lifts[*t]);
            along += slope.iter().zip(&left[*t]).map(|(slope, left)| slope * left).sum::<f64>();
            square += slope.iter().map(|slope| slope * slope).sum::<f64>();
        }
        if square > 0.0 { (along / square).clamp(-5.0, 5.0) } else { 0.0 }
    }

    /// By how much computed lift at the points of a trace grows with its crank's zero, m a degree, about its mean.
    fn by_zero(&self, t: usize, at: &[f64; ALL], lifts: &[f64]) -> Vec<f64> {
        let begins_at = self.train(t).begins_at;
        let of = |(deg, _): (f64, f64)| lift_at(lifts, begins_at, deg - 0.5) - lift_at(lifts, begins_at, deg + 0.5);
        about_mean(self.about(t, at).into_iter().map(of).collect())
    }

    /// The normal equations of a step from `at`, with the ranges as a prior.
    fn system(&self, at: &[f64; ALL], weights: &[f64]) -> Result<(DMatrix<f64>, DVector<f64>), Unfit> {
        let moved = |i: usize, by: f64| {
            let mut own = *at;
            own[i] += by;
            own
        };
        let both = (0..COUNT).flat_map(|i| [moved(i, -APART), moved(i, APART)]);
        let lifts = self.lifts(&std::iter::once(*at).chain(both).collect::<Vec<[f64; ALL]>>())?;
        let left: Vec<Vec<Vec<f64>>> = lifts.iter().map(|own| self.left(at, own)).collect();
        let (mut normal, mut slope) = (DMatrix::<f64>::zeros(ALL, ALL), DVector::<f64>::zeros(ALL));
        for (t, weight) in weights.iter().enumerate() {
            let count = left[0][t].len();
            let side = self.traces[t].side.index();
            let zero = self.by_zero(t, at, &lifts[0][t]);
            let effects = DMatrix::<f64>::from_fn(count, ALL, |row, i| match i {
                // What is left falls by what the lift gains.
                i if i < COUNT => (left[2 * i + 1][t][row] - left[2 * i + 2][t][row]) / (2.0 * APART),
                i if i == COUNT + side => zero[row],
                _ => 0.0,
            });
            let here = DVector::from_column_slice(&left[0][t]);
            normal += *weight * effects.tr_mul(&effects);
            slope += *weight * effects.tr_mul(&here);
        }
        for i in 0..COUNT {
            normal[(i, i)] += 1.0 / (OPEN * OPEN);
            slope[i] -= (at[i] - 0.5) / (OPEN * OPEN);
        }
        for side in 0..2 {
            // A valve nobody looked at keeps its zero.
            normal[(COUNT + side, COUNT + side)] += 1e-6;
        }
        Ok((normal, slope))
    }

    /// The step as far as it pays; `None` where no part of it does.
    fn further(
        &self,
        at: &[f64; ALL],
        step: &DVector<f64>,
        (here, weights): (&[Vec<f64>], &[f64]),
    ) -> Result<Option<Next>, Unfit> {
        let price = |at: &[f64; ALL], left: &[Vec<f64>]| {
            let own =
                left.iter().zip(weights).map(|(left, weight)| weight * left.iter().map(|own| own * own).sum::<f64>());
            own.sum::<f64>() + (0..COUNT).map(|i| ((at[i] - 0.5) / OPEN).powi(2)).sum::<f64>()
        };
        let stands = price(at, here);
        for share in [1.0, 0.5, 0.25, 0.1] {
            let next: [f64; ALL] = std::array::from_fn(|i| {
                let to = at[i] + share * step[i];
                if i < COUNT { to.clamp(0.0, 1.0) } else { to }
            });
            let lifts = self.lifts(&[next])?.swap_remove(0);
            let left = self.left(&next, &lifts);
            if left.iter().zip(here).all(|(a, b)| a.len() == b.len()) && price(&next, &left) < stands {
                return Ok(Some((next, left)));
            }
        }
        Ok(None)
    }

    fn beside(
        &self,
        t: usize,
        at: &[f64; ALL],
        (usual, fitted): (&[f64], &[f64]),
        (before, after): (&[f64], &[f64]),
    ) -> TraceFit {
        let begins_at = self.train(t).begins_at;
        let mut points = self.about(t, at);
        // In one turn from where the lobe begins, so that angles rise.
        let from = begins_at + self.train(t).window.lobe.0 as f64 - AROUND.0 as f64;
        for (deg, _) in &mut points {
            *deg = from + (*deg - from).rem_euclid(720.0);
        }
        points.sort_by(|a, b| a.0.total_cmp(&b.0));
        let lift = |of: &[f64]| points.iter().map(|(deg, _)| lift_at(of, begins_at, *deg)).collect::<Vec<f64>>();
        let (usual, fitted) = (lift(usual), lift(fitted));
        let zero = points.iter().zip(&fitted).map(|((_, read), own)| read - own).sum::<f64>() / points.len() as f64;
        TraceFit {
            crank_deg: points.iter().map(|(deg, _)| *deg).collect(),
            measured: points.iter().map(|(_, lift)| lift - zero).collect(),
            usual,
            fitted,
            before: root_mean_square(before.iter().copied()),
            after: root_mean_square(after.iter().copied()),
        }
    }
}

fn about_mean(mut values: Vec<f64>) -> Vec<f64> {
    let mean = values.iter().sum::<f64>() / values.len().max(1) as f64;
    values.iter_mut().for_each(|own| *own -= mean);
    values
}

/// What a point counts: one over its variance, as far as points so many degrees apart are independent.
fn weight(left: &[f64], spacing: f64) -> f64 {
    let square = root_mean_square(left.iter().copied()).powi(2);
    let together = left.windows(2).map(|two| two[0] * two[1]).sum::<f64>() / left.len().max(1) as f64;
    let alike = (together / square.max(f64::MIN_POSITIVE)).clamp(0.0, 0.99);
    ((1.0 - alike) / (1.0 + alike)).min(spacing / TOGETHER) / square.max(PROBE * PROBE)
}

/// Most lift over least.
fn height(points: &[(f64, f64)]) -> f64 {
    let (low, high) =
        points.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), own| (low.min(own.1), high.max(own.1)));
    high - low
}

/// The angle about which a lift lies: the mean of angles by what they stand above half of the lift, on the circle of a cycle.
fn middle(points: &[(f64, f64)]) -> f64 {
    let low = points.iter().map(|own| own.1).fold(f64::INFINITY, f64::min);
    let half = low + 0.5 * height(points);
    let turn = |deg: f64| (0.5 * deg).to_radians();
    let (sine, cosine) = points.iter().fold((0.0, 0.0), |(sine, cosine), (deg, lift)| {
        let over = (lift - half).max(0.0);
        (over.mul_add(turn(*deg).sin(), sine), over.mul_add(turn(*deg).cos(), cosine))
    });
    2.0 * f64::atan2(sine, cosine).to_degrees()
}
