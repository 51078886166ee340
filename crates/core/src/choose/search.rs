//! Searches the fields of several kits: the best by what the plan aims at, and the front of several goals.

use super::aim::Aim;
use super::field::{Field, Foreseen};
use super::goal::Goal;
use super::guide::score;
use super::kit::on_ratio;
use crate::front::{Asked, Came, Effort, Scale, beginnings, front, natural, towards, undominated};
use crate::response::{Choice, Decision};
use rayon::prelude::*;

/// How long one field is searched for its best, and for its front.
const BEST: Effort = Effort { directions: 0, spread: 128, beginnings: 3, most: 600, seed: 21 };
const FRONT: Effort = Effort { directions: 24, spread: 128, beginnings: 2, most: 500, seed: 22 };

/// A choice with a kit, and what is foreseen of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Pick {
    /// Place of its field among the fields.
    pub field: usize,
    /// The decisions, as they are made.
    pub choice: Choice,
    /// What is foreseen.
    pub foreseen: Foreseen,
    /// How good it is by the plan's aim, what it breaks taken off.
    pub score: f64,
    /// By how much it breaks limits, each in its scale.
    pub broken: f64,
}

impl Pick {
    /// A choice of a field, what is foreseen of it, and by how much it breaks limits.
    pub(super) fn of((field, choice): (usize, Choice), foreseen: Foreseen, broken: f64, aim: &Aim) -> Self {
        Self { field, choice, score: score(aim.gain(&foreseen.figures), broken), broken, foreseen }
    }

    /// Whether it is the same choice with the same kit.
    pub fn is(&self, other: &Self) -> bool {
        (self.field, self.choice) == (other.field, other.choice)
    }

    /// Whether it breaks no limit.
    pub const fn holds(&self) -> bool {
        self.broken <= 0.0
    }
}

/// A choice of a field.
pub fn pick(fields: &[Field], field: usize, choice: Choice, aim: &Aim) -> Pick {
    let foreseen = fields[field].foreseen(&choice);
    let broken = foreseen.broken();
    Pick::of((field, choice), foreseen, broken, aim)
}

/// A choice of a field as it is made: of the ways that break least the nearest.
pub fn nearest_made(fields: &[Field], field: usize, choice: &Choice, aim: &Aim) -> Pick {
    let own = &fields[field];
    let ways = ways(own, choice);
    let picks = ways.into_iter().map(|way| pick(fields, field, way, aim));
    let least = picks.reduce(|a, b| if b.foreseen.broken() < a.foreseen.broken() { b } else { a });
    least.unwrap_or_else(|| pick(fields, field, *choice, aim))
}

/// The best of each field by the plan's aim, finer than it is made, in the order of the fields; beginning at `from`, choices of
/// the first field, among other places.
pub fn bests(fields: &[Field], aim: &Aim, from: &[Choice]) -> Vec<Pick> {
    let one = |index: usize| {
        let field = &fields[index];
        let evaluate = |place: &[f64]| {
            let foreseen = field.foreseen(&field.choice(place));
            Came { goals: vec![aim.gain(&foreseen.figures)], margins: foreseen.room() }
        };
        let asked = Asked { variables: field.response.axes.len(), evaluate: &evaluate };
        let begun = beginnings(asked, &places(fields, index, from), BEST);
        let best = towards(asked, &[1.0], &natural(&begun), &begun, BEST);
        pick(fields, index, field.choice(&best.place), aim)
    };
    (0..fields.len()).into_par_iter().map(one).collect()
}

/// What no other choice of any field beats in every goal, under every limit; beginning at `from`, choices of the first field.
pub fn fronts(fields: &[Field], goals: &[Goal], aim: &Aim, from: &[Choice]) -> Vec<Pick> {
    let of = |index: usize| -> Vec<Pick> {
        let field = &fields[index];
        let evaluate = |place: &[f64]| field.came(goals, place);
        let asked = Asked { variables: field.response.axes.len(), evaluate: &evaluate };
        let members = front(asked, &places(fields, index, from), FRONT);
        members.iter().map(|member| nearest_made(fields, index, &field.choice(&member.place), aim)).collect()
    };
    let found: Vec<Pick> = (0..fields.len()).into_par_iter().flat_map(of).collect();
    undominated(found.into_iter().filter(Pick::holds), |pick| pick.foreseen.worth(goals))
}

/// So many of `picks`: the best by the aim, the best of each goal, then those furthest from all that are taken.
pub fn spread(picks: &[Pick], goals: &[Goal], count: usize) -> Vec<Pick> {
    let worths: Vec<Vec<f64>> = picks.iter().map(|pick| pick.foreseen.worth(goals)).collect();
    let scale = Scale::of_all(&worths);
    let places: Vec<Vec<f64>> = worths.iter().map(|worth| scale.of(worth)).collect();
    let most = |of: &dyn Fn(usize) -> f64| (0..picks.len()).max_by(|a, b| of(*a).total_cmp(&of(*b)).then(b.cmp(a)));
    let mut taken: Vec<usize> = Vec::new();
    taken.extend(most(&|index| picks[index].score));
    for (goal, _) in goals.iter().enumerate() {
        let best = most(&|index| worths[index][goal]);
        taken.extend(best.filter(|best| !taken.contains(best)));
    }
    while taken.len() < count.min(picks.len()) {
        let nearest = |index: usize| {
            let apart = |other: &usize| -> f64 {
                places[index].iter().zip(&places[*other]).map(|(a, b)| (a - b).powi(2)).sum::<f64>()
            };
            taken.iter().map(apart).fold(f64::INFINITY, f64::min)
        };
        let Some(next) = most(&|index| if taken.contains(&index) { -1.0 } else { nearest(index) }) else { break };
        if taken.contains(&next) {
            break;
        }
        taken.push(next);
    }
    taken.truncate(count);
    taken.into_iter().map(|index| picks[index].clone()).collect()
}

/// Places of a field's region for choices of the first one.
fn places(fields: &[Field], index: usize, from: &[Choice]) -> Vec<Vec<f64>> {
    let (first, own) = (&fields[0], &fields[index]);
    from.iter().map(|choice| own.response.place(&on_ratio(choice, &first.kit.frame, &own.kit.frame))).collect()
}

/// Both ways every decision of a choice can be made, all together, the nearest first: the value below and the one above.
pub(super) fn ways(field: &Field, choice: &Choice) -> Vec<Choice> {
    let mut ways = vec![*choice];
    for decision in field.response.axes.iter().map(|axis| axis.decision) {
        let Some(value) = choice.get(decision) else { continue };
        let step = decision.counting().step;
        // A value that is made already is not moved by the last bit of its division.
        let (below, above) = ((value / step + 1e-6).floor() * step, (value / step - 1e-6).ceil() * step);
        let both: &[f64] = if below == above { &[below] } else { &[below, above] };
        ways = ways.iter().flat_map(|way| both.iter().map(|to| way.with(decision, *to))).collect();
    }
    ways.sort_by(|a, b| moved(field, choice, a).total_cmp(&moved(field, choice, b)));
    ways
}

/// How far a way lies from a choice, in steps, squared.
fn moved(field: &Field, choice: &Choice, way: &Choice) -> f64 {
    let by = |decision: Decision| -> Option<f64> {
        Some((way.get(decision)? - choice.get(decision)?) / decision.counting().step)
    };
    field.response.axes.iter().filter_map(|axis| by(axis.decision)).map(|by| by * by).sum()
}
