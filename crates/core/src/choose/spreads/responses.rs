//! What every field does to every limit, from the limits held anew with one field off at a time.

use super::fields::Field;
use super::strays::Strays;
use crate::candidate::{Resolved, Stages};
use crate::document::Side;
use crate::limits::{Finding, Findings, IDLE_VACUUM, Judged, Judgement, Rule, limits};
use crate::tolerance::{AWAY, Effect, Model, Response, Variable};
use rayon::prelude::*;

/// Limits as fields move them.
pub struct Responses {
    /// Each limit that any field moves.
    pub limits: Vec<Responded>,
    /// Limits with a figure that none moves, or that stand on what long work found as long as nobody says how a field moves that.
    pub held: Vec<(&'static Rule, Option<Side>)>,
}

/// One limit as fields move it.
#[derive(Clone)]
pub struct Responded {
    /// The rule.
    pub rule: &'static Rule,
    /// Its side.
    pub side: Option<Side>,
    /// As it is given.
    pub found: Finding,
    /// What there is.
    pub have: Response,
    /// What is left over.
    pub margin: Response,
    /// Whether it vanished or became another limit where a field was off: only runs in full tell then.
    pub is_broken: bool,
}

/// The limits as engines are drawn on them: those count that are met as things are given, are no advice and have a response.
pub fn model_of(fields: &[Field], responses: &Responses) -> Model {
    let limits = &responses.limits;
    Model {
        variables: fields.iter().map(|field| field.variable).collect(),
        margins: limits.iter().map(|own| own.margin.clone()).collect(),
        haves: limits.iter().map(|own| own.have.clone()).collect(),
        counts: limits.iter().map(|own| own.counts() && !own.is_broken).collect(),
        of_engine: limits.iter().map(Responded::is_of_engine).collect(),
    }
}

impl Responded {
    /// Whether an engine can fail by it: it is met as things are given, and no advice.
    pub fn counts(&self) -> bool {
        !self.found.is_advice && self.found.margin() >= 0.0
    }

    /// Whether fields move it as they move `other`.
    pub fn moves_like(&self, other: &Self) -> bool {
        (&self.margin, &self.have, self.is_broken) == (&other.margin, &other.have, other.is_broken)
    }

    /// Whether all cylinders have it together, each with its part: an engine idles on the mean of them.
    pub fn is_of_engine(&self) -> bool {
        std::ptr::eq(self.rule, &raw const IDLE_VACUUM)
    }
}

/// Below this share of a limit's own spread an effect is a rounding error.
const NOTHING: f64 = 1e-6;

/// Runs every field off either way and fits every limit; what long work found moves by `strays`. `stop` ends it with `None`.
pub fn respond(
    resolved: &Resolved,
    fields: &[Field],
    (findings, strays): (&Findings, &Strays),
    (stages, stop): (&Stages, &(dyn Fn() -> bool + Sync)),
) -> Option<Responses> {
    let middle = limits(resolved, findings, stages);
    let off = |place: usize, way: usize| -> Option<Judgement> {
        let field = &fields[place];
        let mut given = resolved.given.clone();
        given.shift(field.place, [-AWAY, AWAY][way] * field.variable.spread.sd())?;
        let moved = Resolved::new(given, stages);
        Some(match strays.moved(findings, field.place, way) {
            Some(found) => limits(&moved, &found, stages),
            None => middle.after(&[field.place], &moved, findings, stages),
        })
    };
    let runs: Vec<Option<[Judgement; 2]>> = (0..fields.len())
        .into_par_iter()
        .map(|place| if stop() { None } else { Some([off(place, 0)?, off(place, 1)?]) })
        .collect();
    if stop() {
        return None;
    }
    let variables: Vec<Variable> = fields.iter().map(|field| field.variable).collect();
    let (mut found, mut held) = (Vec::new(), Vec::new());
    for judged in &middle.figures {
        match responded(judged, &runs, &variables) {
            Some(own) if own.margin.effects.is_empty() && own.have.effects.is_empty() => {
                held.push((judged.rule, judged.side));
            }
            Some(own) => found.push(own),
            None => {}
        }
    }
    Some(Responses { limits: found, held })
}

fn responded(judged: &Judged, runs: &[Option<[Judgement; 2]>], variables: &[Variable]) -> Option<Responded> {
    let middle = judged.found.as_ref().ok()?;
    let mut own = Responded {
        rule: judged.rule,
        side: judged.side,
        found: middle.clone(),
        have: Response { middle: middle.have, effects: Vec::new() },
        margin: Response { middle: middle.margin(), effects: Vec::new() },
        is_broken: false,
    };
    for (variable, run) in runs.iter().enumerate() {
        let Some(run) = run else { continue };
        let [below, above] =
            [0, 1].map(|i| run[i].of(judged.rule, judged.side).and_then(|own| own.found.as_ref().ok()));
        let (Some(below), Some(above)) = (below, above) else {
            own.is_broken = true;
            continue;
        };
        own.is_broken |= [below, above].into_iter().any(|other| is_another(middle, other));
        let step = AWAY * variables[variable].spread.sd();
        let through = |of: fn(&Finding) -> f64| Effect::through(variable, step, [of(below), of(middle), of(above)]);
        own.have.effects.push(through(|finding| finding.have));
        own.margin.effects.push(through(Finding::margin));
    }
    for response in [&mut own.have, &mut own.margin] {
        let least = (NOTHING * response.sd(variables)).powi(2);
        response.effects.retain(|effect| effect.variance(variables) > least);
    }
    Some(own)
}

/// Whether a bound came or went.
fn is_another(one: &Finding, other: &Finding) -> bool {
    one.min.is_some() != other.min.is_some() || one.max.is_some() != other.max.is_some()
}
