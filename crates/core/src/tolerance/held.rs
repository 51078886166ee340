//! How tightly one dimension must be held for a wanted chance.

use super::draw::Cast;
use super::simulate::{Model, mean_of};
use rayon::prelude::*;

/// Engines drawn for one question, and halvings of the answer.
const ENGINES: usize = 12_000;
const HALVINGS: usize = 9;

/// How tightly.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hold {
    /// Share of its spread that may be left.
    pub share: f64,
}

/// How tightly a variable must be held so that a limit of `model` fails on no more than a share of engines; `None` where even
/// a perfect one does not bring it there, or nothing has to be held. A narrower spread narrows the same draws, so that engines
/// are drawn once.
pub fn hold(model: &Model, limit: usize, variable: usize, wanted: f64, cast: &Cast) -> Option<Hold> {
    let cast = Cast { engines: ENGINES, ..*cast };
    let (alone, used) = model.only(limit);
    let place = used.iter().position(|own| *own == variable)?;
    let margin = &alone.margins[0];
    let effect = margin.effects.iter().find(|effect| effect.variable == place)?;
    // What is left without the variable, and its deviation, cylinder after cylinder.
    let drawn = |engine: usize| -> Vec<(f64, f64)> {
        let mut deviations = vec![0.0; cast.cylinders * used.len()];
        cast.draw(&alone.variables, engine, &mut deviations);
        let cylinder = |own: &[f64]| (margin.at(own) - effect.at(own[place]), own[place]);
        if alone.of_engine[0] {
            let mut mean = vec![0.0; used.len()];
            mean_of(&deviations, &mut mean);
            return vec![cylinder(&mean)];
        }
        deviations.chunks_exact(used.len()).map(cylinder).collect()
    };
    let engines: Vec<Vec<(f64, f64)>> = (0..cast.engines).into_par_iter().map(drawn).collect();
    let fails = |share: f64| {
        let failing = |engine: &&Vec<(f64, f64)>| engine.iter().any(|(rest, own)| rest + effect.at(share * own) < 0.0);
        engines.iter().filter(failing).count() as f64 / cast.engines as f64
    };
    if fails(0.0) > wanted || fails(1.0) <= wanted {
        return None;
    }
    let (mut low, mut high) = (0.0, 1.0);
    for _ in 0..HALVINGS {
        let middle = 0.5 * (low + high);
        if fails(middle) > wanted { high = middle } else { low = middle }
    }
    Some(Hold { share: low })
}

impl Model {
    /// One limit with what moves it, and which variables those are.
    fn only(&self, limit: usize) -> (Self, Vec<usize>) {
        let mut used: Vec<usize> = self.margins[limit].effects.iter().map(|effect| effect.variable).collect();
        used.sort_unstable();
        let mut margin = self.margins[limit].clone();
        for effect in &mut margin.effects {
            effect.variable = used.partition_point(|own| *own < effect.variable);
        }
        let model = Self {
            variables: used.iter().map(|own| self.variables[*own]).collect(),
            haves: vec![margin.clone()],
            margins: vec![margin],
            counts: vec![true],
            of_engine: vec![self.of_engine[limit]],
        };
        (model, used)
    }
}
