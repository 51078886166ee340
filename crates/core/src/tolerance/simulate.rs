//! Engines by the thousand through the responses of their limits.

use super::draw::{Cast, Variable};
use super::outcome::{Outcome, Spreading};
use super::respond::{Effect, Response};
use rayon::prelude::*;

/// Engines drawn at a time by one thread.
const BATCH: usize = 250;

/// Limits that spread, and what they spread by.
#[derive(Debug, Clone, PartialEq)]
pub struct Model {
    /// What is off.
    pub variables: Vec<Variable>,
    /// What is left over of every limit in one cylinder, positive when met.
    pub margins: Vec<Response>,
    /// What there is of it.
    pub haves: Vec<Response>,
    /// Whether a limit counts for an engine's failure: those that are met as things are given.
    pub counts: Vec<bool>,
    /// Whether all cylinders of an engine have it together: their mean deviations move it.
    pub of_engine: Vec<bool>,
}

/// What came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Simulated {
    /// Every limit.
    pub limits: Vec<Outcome>,
    /// Share of engines of which any counted limit fails on any cylinder.
    pub any: f64,
    /// The same with each variable known, all others as they are.
    pub any_if_known: Vec<f64>,
}

/// What a batch of engines came to.
struct Batch {
    spreads: Vec<Spreading>,
    any: usize,
    any_if_known: Vec<usize>,
}

/// Draws engines and counts.
pub fn simulate(model: &Model, cast: &Cast) -> Simulated {
    if model.variables.is_empty() || model.margins.is_empty() {
        return Simulated { limits: Vec::new(), any: 0.0, any_if_known: vec![0.0; model.variables.len()] };
    }
    let affected = model.affected();
    let starts: Vec<usize> = (0..cast.engines).step_by(BATCH).collect();
    let batches: Vec<Batch> = starts
        .par_iter()
        .map(|start| model.batch(cast, *start..(start + BATCH).min(cast.engines), &affected))
        .collect();
    let mut spreads = vec![Spreading::default(); model.margins.len()];
    let (mut any, mut any_if_known) = (0, vec![0; model.variables.len()]);
    // In the order of the engines, so that sums have the same bits on any number of cores.
    for batch in batches {
        spreads.iter_mut().zip(batch.spreads).for_each(|(all, own)| all.extend(own));
        any += batch.any;
        any_if_known.iter_mut().zip(batch.any_if_known).for_each(|(all, own)| *all += own);
    }
    let share = |count: usize| count as f64 / cast.engines as f64;
    Simulated {
        limits: spreads.into_iter().map(|own| own.outcome(cast)).collect(),
        any: share(any),
        any_if_known: any_if_known.into_iter().map(share).collect(),
    }
}

impl Model {
    /// Takes into a limit what its response was found to be off by: a bias, and a scatter that every cylinder draws anew, or the
    /// engine where all cylinders have it together.
    pub fn doubt(&mut self, limit: usize, bias: f64, scatter: f64) {
        let effect = self.scatter(limit, scatter);
        let margin = &mut self.margins[limit];
        margin.middle += bias;
        margin.effects.push(effect);
    }

    /// Puts a normal spread in the place of a limit's response: what is left over has this mean and standard deviation, whatever
    /// the variables are.
    pub fn replace(&mut self, limit: usize, mean: f64, sd: f64) {
        let effect = self.scatter(limit, sd);
        let (margin, have) = (&mut self.margins[limit], &mut self.haves[limit]);
        // More of what there is leaves more of a least, and less of a most.
        let rises = margin.effects.iter().find_map(|own| {
            let other = have.effects.iter().find(|other| other.variable == own.variable)?;
            (own.slope * other.slope != 0.0).then(|| (own.slope * other.slope).signum())
        });
        let rises = rises.unwrap_or(1.0);
        *have = Response {
            middle: have.middle + rises * (mean - margin.middle),
            effects: vec![Effect { slope: rises, ..effect }],
        };
        *margin = Response { middle: mean, effects: vec![effect] };
    }

    /// A variable of its own for a limit.
    fn scatter(&mut self, limit: usize, sd: f64) -> Effect {
        let engine = if self.of_engine[limit] { 1.0 } else { 0.0 };
        self.variables.push(Variable { engine, ..Variable::scatter(sd) });
        Effect { variable: self.variables.len() - 1, slope: 1.0, curve: 0.0 }
    }

    /// The limits every variable moves, each with the place of its effect.
    fn affected(&self) -> Vec<Vec<(usize, usize)>> {
        let mut found = vec![Vec::new(); self.variables.len()];
        for (limit, response) in self.margins.iter().enumerate() {
            for (place, effect) in response.effects.iter().enumerate() {
                if self.counts[limit] {
                    found[effect.variable].push((limit, place));
                }
            }
        }
        found
    }

    fn batch(&self, cast: &Cast, engines: std::ops::Range<usize>, affected: &[Vec<(usize, usize)>]) -> Batch {
        let (count, limits) = (self.variables.len(), self.margins.len());
        let mut deviations = vec![0.0; cast.cylinders * count];
        let (mut margins, mut mean) = (vec![0.0; cast.cylinders * limits], vec![0.0; count]);
        let has_shared = self.of_engine.contains(&true);
        let mut batch = Batch { spreads: vec![Spreading::default(); limits], any: 0, any_if_known: vec![0; count] };
        for engine in engines {
            cast.draw(&self.variables, engine, &mut deviations);
            if has_shared {
                mean_of(&deviations, &mut mean);
            }
            for (own, margins) in deviations.chunks_exact(count).zip(margins.chunks_exact_mut(limits)) {
                for (limit, margin) in margins.iter_mut().enumerate() {
                    *margin = self.margins[limit].at(self.of(limit, own, &mean));
                }
            }
            for (limit, spread) in batch.spreads.iter_mut().enumerate() {
                let over = margins.iter().skip(limit).step_by(limits);
                spread.note(self.haves[limit].at(self.of(limit, &deviations[..count], &mean)), over);
            }
            let fails = self.failing(&margins);
            batch.any += usize::from(fails > 0);
            for (variable, limits) in affected.iter().enumerate() {
                let left = fails + self.change_if_known(variable, limits, (&deviations, &mean), &margins);
                batch.any_if_known[variable] += usize::from(left > 0);
            }
        }
        batch
    }

    /// The deviations that move a limit of a cylinder.
    fn of<'a>(&self, limit: usize, own: &'a [f64], mean: &'a [f64]) -> &'a [f64] {
        if self.of_engine[limit] { mean } else { own }
    }

    /// Counted limits that fail, each cylinder by itself.
    fn failing(&self, margins: &[f64]) -> i64 {
        let of =
            |own: &[f64]| own.iter().zip(&self.counts).filter(|(margin, counts)| **counts && **margin < 0.0).count();
        margins.chunks_exact(self.margins.len()).map(of).sum::<usize>() as i64
    }

    /// How many more fail once a variable is known and set as it is given, but for what its measuring leaves.
    fn change_if_known(
        &self,
        variable: usize,
        affected: &[(usize, usize)],
        (deviations, mean): (&[f64], &[f64]),
        margins: &[f64],
    ) -> i64 {
        let known = self.variables[variable].known;
        let (count, limits) = (self.variables.len(), self.margins.len());
        let mut change = 0;
        for (own, margins) in deviations.chunks_exact(count).zip(margins.chunks_exact(limits)) {
            for (limit, place) in affected {
                let deviation = self.of(*limit, own, mean)[variable];
                let effect = &self.margins[*limit].effects[*place];
                let after = margins[*limit] - effect.at(deviation) + effect.at(known * deviation);
                change += i64::from(after < 0.0) - i64::from(margins[*limit] < 0.0);
            }
        }
        change
    }
}

/// Mean deviation of every variable over the cylinders of an engine.
pub(super) fn mean_of(deviations: &[f64], mean: &mut [f64]) {
    mean.fill(0.0);
    let cylinders = deviations.len() / mean.len().max(1);
    for own in deviations.chunks_exact(mean.len()) {
        mean.iter_mut().zip(own).for_each(|(mean, own)| *mean += own / cylinders as f64);
    }
}
