//! Choices under limits for several goals at once: places of which none is better in one goal without being worse in another.
//!
//! Every direction between the goals is one search: what is left to a reference point in the goal that is furthest from it
//! is made least (Wierzbicki's achievement function, written with one variable more so that it is smooth [Miettinen,
//! *Nonlinear multiobjective optimization*, 1999, ch. 3.5]), under every limit, by Powell's COBYLA [Powell 1994] of the
//! library `cobyla`. Directions are spread evenly over the simplex, beginnings over the region; all of it is the same
//! whatever the number of threads.

use crate::response::evenly;
use cobyla::{Func, RhoBeg, StopTols, minimize};
use rayon::prelude::*;
use std::cell::RefCell;

/// What comes of a place.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Came {
    /// Goals, each the more the better.
    pub goals: Vec<f64>,
    /// What is left of every limit, each in its own scale; below zero it is broken.
    pub margins: Vec<f64>,
}

impl Came {
    /// By how much limits are broken, of all of them together.
    pub fn broken(&self) -> f64 {
        self.margins.iter().map(|left| (-left).max(0.0)).sum()
    }

    /// Whether every limit is met, to what a search ends at.
    pub fn holds(&self) -> bool {
        self.margins.iter().all(|left| *left >= -TOUCHED)
    }
}

/// A place and what came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Member {
    /// Where, -1..1 in every variable.
    pub place: Vec<f64>,
    /// What came of it.
    pub came: Came,
}

/// What is asked: so many variables, each between -1 and 1, and what comes of them.
#[derive(Clone, Copy)]
pub struct Asked<'a> {
    /// How many variables.
    pub variables: usize,
    /// What comes of a place: always as many goals and as many margins.
    pub evaluate: &'a (dyn Fn(&[f64]) -> Came + Sync),
}

/// How goals are weighed against each other: from `worst` to `best` each counts as one.
#[derive(Debug, Clone, PartialEq)]
pub struct Scale {
    /// What is the least of interest.
    pub worst: Vec<f64>,
    /// The most that can be had.
    pub best: Vec<f64>,
}

/// How long is looked.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Effort {
    /// Directions between the goals, beside each goal alone.
    pub directions: usize,
    /// Places looked at before the first search.
    pub spread: usize,
    /// Beginnings of each direction.
    pub beginnings: usize,
    /// Most evaluations of one search.
    pub most: usize,
    /// Of everything that is spread.
    pub seed: u32,
}

/// Broken by less than this counts as met.
const TOUCHED: f64 = 1e-4;
/// A goal that hardly counts, so that nothing is given away for nothing.
const HARDLY: f64 = 1e-3;
/// Where the point lies that is referred to, one at what can be had.
const BEYOND: f64 = 1.05;
/// What a limit broken by its scale takes off an achievement where beginnings are picked.
const PENALTY: f64 = 3.0;
/// First step of a search, of the same begun again, and last step; of a region's half.
const FIRST: f64 = 0.3;
const AGAIN: f64 = 0.05;
const LAST: f64 = 1e-4;

/// Every direction's best, those that another beats in no goal and that meet every limit; empty where none meets them.
/// `from` are places to begin at beside those that are spread.
pub fn front(asked: Asked<'_>, from: &[Vec<f64>], effort: Effort) -> Vec<Member> {
    let begun = beginnings(asked, from, effort);
    let far = natural(&begun);
    let goals = begun.first().map_or(0, |member| member.came.goals.len());
    let alone: Vec<Member> =
        (0..goals).into_par_iter().map(|goal| towards(asked, &only(goal, goals), &far, &begun, effort)).collect();
    let scale = between_goals(&alone, &begun);
    let between: Vec<Member> = (0..effort.directions)
        .into_par_iter()
        .map(|index| towards(asked, &direction(index, goals, effort.seed), &scale, &begun, effort))
        .collect();
    let all = alone.into_iter().chain(between).filter(|member| member.came.holds());
    undominated(all, |member| member.came.goals.clone())
}

/// The place that comes furthest in one direction; where no place meets every limit, one that breaks them least.
pub fn towards(asked: Asked<'_>, weights: &[f64], scale: &Scale, begun: &[Member], effort: Effort) -> Member {
    let worth = |member: &Member| {
        scale.achieved(&member.came.goals, weights) - PENALTY * (member.came.broken() - TOUCHED).max(0.0)
    };
    let mut order: Vec<&Member> = begun.iter().collect();
    order.sort_by(|a, b| worth(b).total_cmp(&worth(a)));
    let climbed = order.iter().take(effort.beginnings).map(|from| {
        // Again from where it ended: a simplex that has become flat ends too early.
        let first = climb(asked, weights, scale, from, (FIRST, effort.most));
        climb(asked, weights, scale, &first, (AGAIN, effort.most))
    });
    // A search that was led astray is not better than where it began.
    let all = order.first().map(|first| (*first).clone()).into_iter().chain(climbed);
    let best = all.reduce(|a, b| if worth(&b) > worth(&a) { b } else { a });
    best.unwrap_or_else(|| asked.at(&vec![0.0; asked.variables]))
}

/// Places to begin at: those in `from`, then places spread over the region.
pub fn beginnings(asked: Asked<'_>, from: &[Vec<f64>], effort: Effort) -> Vec<Member> {
    let spread = (0..effort.spread).map(|index| evenly(index, asked.variables, effort.seed));
    let spread = spread.map(|place| place.into_iter().map(|share| 2.0 * share - 1.0).collect());
    let places: Vec<Vec<f64>> = from.iter().cloned().chain(spread).collect();
    places.par_iter().map(|place| asked.at(place)).collect()
}

/// Those of `all` that no other beats: at least as good in every goal and better in one; of equals the first.
pub fn undominated<T>(all: impl IntoIterator<Item = T>, goals: impl Fn(&T) -> Vec<f64>) -> Vec<T> {
    let beats = |a: &[f64], b: &[f64]| a.iter().zip(b).all(|(a, b)| a >= b);
    let mut kept: Vec<(Vec<f64>, T)> = Vec::new();
    for one in all {
        let own = goals(&one);
        if !kept.iter().any(|(other, _)| beats(other, &own)) {
            kept.retain(|(other, _)| !beats(&own, other));
            kept.push((own, one));
        }
    }
    kept.into_iter().map(|(_, one)| one).collect()
}

/// Direction `index` between so many goals, evenly spread over the simplex [Rubinstein 1982: exponentials by their sum].
fn direction(index: usize, goals: usize, seed: u32) -> Vec<f64> {
    // The first point of the sequence may be at its corner.
    let drawn: Vec<f64> = evenly(index + 1, goals, seed).iter().map(|share| -share.max(1e-9).ln()).collect();
    let sum: f64 = drawn.iter().sum();
    drawn.iter().map(|weight| weight / sum).collect()
}

/// One goal alone.
fn only(goal: usize, goals: usize) -> Vec<f64> {
    (0..goals).map(|other| if other == goal { 1.0 } else { 0.0 }).collect()
}

/// From the least of what is known to more than can be had: whatever is reached first, there is more to reach.
pub fn natural(members: &[Member]) -> Scale {
    let Scale { worst, mut best } = Scale::of_all(&goals_of(members));
    best.iter_mut().zip(&worst).for_each(|(best, worst)| *best += (*best - worst).max(1e-9));
    Scale { worst, best }
}

/// From what half of the places are short of, or the least that another goal's best leaves, to the best there is of each
/// goal. What other goals' bests leave says too little by itself: several may share one best.
fn between_goals(alone: &[Member], begun: &[Member]) -> Scale {
    let Scale { mut worst, best } = Scale::of_all(&goals_of(alone));
    for (goal, worst) in worst.iter_mut().enumerate() {
        let mut own: Vec<f64> = begun.iter().map(|member| member.came.goals[goal]).collect();
        own.sort_by(f64::total_cmp);
        *worst = own.get(own.len() / 2).map_or(*worst, |middle| worst.min(*middle));
    }
    Scale { worst, best }
}

fn goals_of(members: &[Member]) -> Vec<Vec<f64>> {
    members.iter().map(|member| member.came.goals.clone()).collect()
}

impl Scale {
    /// From the least to the most of each goal among some.
    pub fn of_all(members: &[Vec<f64>]) -> Self {
        let goals = members.first().map_or(0, Vec::len);
        let of = |goal: usize| members.iter().map(move |own| own[goal]);
        Self {
            worst: (0..goals).map(|goal| of(goal).fold(f64::INFINITY, f64::min)).collect(),
            best: (0..goals).map(|goal| of(goal).fold(f64::NEG_INFINITY, f64::max)).collect(),
        }
    }

    /// Each goal, one at its best.
    pub fn of(&self, goals: &[f64]) -> Vec<f64> {
        let ends = self.worst.iter().zip(&self.best);
        goals.iter().zip(ends).map(|(own, (worst, best))| (own - worst) / (best - worst).max(1e-12)).collect()
    }

    /// How far a place comes: what is left to the best in the goal that lacks most by its weight, and a little of all.
    pub fn achieved(&self, goals: &[f64], weights: &[f64]) -> f64 {
        let own = self.of(goals);
        let lacking = own.iter().zip(weights).map(|(own, weight)| lacking(*own, *weight));
        lacking.fold(f64::INFINITY, f64::min) + HARDLY * own.iter().sum::<f64>()
    }
}

/// What is lacking of one goal: the point referred to lies a little beyond what can be had.
fn lacking(own: f64, weight: f64) -> f64 {
    (weight + HARDLY) * (own - BEYOND)
}

impl Asked<'_> {
    /// What comes of a place; beyond the region's sides, of the nearest in it.
    pub fn at(&self, place: &[f64]) -> Member {
        let place: Vec<f64> = place.iter().map(|x| x.clamp(-1.0, 1.0)).collect();
        Member { came: (self.evaluate)(&place), place }
    }
}

/// One search from one place, with a first step of a region's half and a most of evaluations: the last variable is what is achieved in the goal that lacks most.
pub fn climb(asked: Asked<'_>, weights: &[f64], scale: &Scale, from: &Member, (step, most): (f64, usize)) -> Member {
    // Every goal and every limit asks for the same place one after another.
    let last: RefCell<Member> = RefCell::new(from.clone());
    let with = |x: &[f64], of: &dyn Fn(&Came) -> f64| -> f64 {
        let place = &x[..asked.variables];
        if last.borrow().place != place {
            let came = (asked.evaluate)(place);
            *last.borrow_mut() = Member { place: place.to_vec(), came };
        }
        of(&last.borrow().came)
    };
    let lacks = |came: &Came, goal: usize| lacking(scale.of(&came.goals)[goal], weights[goal]);
    let (goals, limits) = (from.came.goals.len(), from.came.margins.len());
    let begun = (0..goals).map(|goal| lacks(&from.came, goal)).fold(f64::INFINITY, f64::min);
    let objective = |x: &[f64], (): &mut ()| {
        -x[asked.variables] - HARDLY * with(x, &|came| scale.of(&came.goals).iter().sum::<f64>())
    };
    let of_goal = |goal: usize| move |x: &[f64], (): &mut ()| with(x, &|came| lacks(came, goal)) - x[asked.variables];
    let of_limit = |limit: usize| move |x: &[f64], (): &mut ()| with(x, &|came| came.margins[limit]);
    let of_goals: Vec<_> = (0..goals).map(of_goal).collect();
    let of_limits: Vec<_> = (0..limits).map(of_limit).collect();
    let limits = of_limits.iter().map(|limit| limit as &dyn Func<()>);
    let constraints: Vec<&dyn Func<()>> = of_goals.iter().map(|goal| goal as &dyn Func<()>).chain(limits).collect();
    let start: Vec<f64> = from.place.iter().copied().chain([begun]).collect();
    let mut bounds = vec![(-1.0, 1.0); asked.variables];
    bounds.push((-1e3, 1e3));
    let enough = StopTols { xtol_abs: vec![LAST; start.len()], ..StopTols::default() };
    let ended = minimize(objective, &start, &bounds, &constraints, (), most, RhoBeg::All(step), Some(enough));
    let place = match ended {
        Ok((_, place, _)) | Err((_, place, _)) => place,
    };
    if place.iter().any(|x| !x.is_finite()) { from.clone() } else { asked.at(&place[..asked.variables]) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::f64::consts::PI;

    const EFFORT: Effort = Effort { directions: 40, spread: 128, beginnings: 2, most: 1500, seed: 3 };

    /// Members of a published problem in which every goal is the less the better; `range` of every variable, and what is met
    /// at zero or above.
    fn found(
        range: &[(f64, f64)],
        less: impl Fn(&[f64]) -> Vec<f64> + Sync,
        met: impl Fn(&[f64]) -> Vec<f64> + Sync,
        effort: Effort,
    ) -> Vec<(Vec<f64>, Vec<f64>)> {
        let own = |place: &[f64]| -> Vec<f64> {
            place.iter().zip(range).map(|(x, (low, high))| low + 0.5 * (x + 1.0) * (high - low)).collect()
        };
        let evaluate = |place: &[f64]| {
            let x = own(place);
            Came { goals: less(&x).iter().map(|goal| -goal).collect(), margins: met(&x) }
        };
        let members = front(Asked { variables: range.len(), evaluate: &evaluate }, &[], effort);
        let told = |member: Member| (own(&member.place), member.came.goals.iter().map(|goal| -goal).collect());
        members.into_iter().map(told).collect()
    }

    fn nothing(_: &[f64]) -> Vec<f64> {
        Vec::new()
    }

    /// ZDT1 and ZDT2 [Zitzler, Deb, Thiele 2000], ten of their thirty variables: g = 1 on the front, f2 = 1 - f1^p.
    fn zdt(power: f64) {
        let less = |x: &[f64]| {
            let g = 1.0 + 9.0 * x[1..].iter().sum::<f64>() / 9.0;
            vec![x[0], g * (1.0 - (x[0].max(0.0) / g).powf(power))]
        };
        let found = found(&[(0.0, 1.0); 10], less, nothing, EFFORT);
        assert!(found.len() > 20, "{}", found.len());
        for (x, goals) in &found {
            assert!((goals[1] - (1.0 - x[0].powf(power))).abs() < 0.01, "{goals:?}");
        }
        let ends = found.iter().fold((1.0, 0.0_f64), |(a, b): (f64, f64), (x, _)| (a.min(x[0]), b.max(x[0])));
        assert!(ends.0 < 0.02 && ends.1 > 0.9, "{ends:?}");
    }

    #[test]
    fn finds_the_bulging_front_of_zdt1() {
        zdt(0.5);
    }

    #[test]
    fn finds_the_hollow_front_of_zdt2_that_weighted_sums_miss() {
        zdt(2.0);
    }

    #[test]
    fn finds_the_sphere_of_dtlz2_with_three_goals() {
        // DTLZ2 [Deb, Thiele, Laumanns, Zitzler 2002]: the front is the part of the unit sphere where no goal is negative.
        let less = |x: &[f64]| {
            let g: f64 = x[2..].iter().map(|x| (x - 0.5).powi(2)).sum();
            let (a, b) = (0.5 * PI * x[0], 0.5 * PI * x[1]);
            [a.cos() * b.cos(), a.cos() * b.sin(), a.sin()].map(|goal| (1.0 + g) * goal).to_vec()
        };
        let found = found(&[(0.0, 1.0); 7], less, nothing, EFFORT);
        assert!(found.len() > 25, "{}", found.len());
        for (_, goals) in &found {
            let radius = goals.iter().map(|goal| goal * goal).sum::<f64>().sqrt();
            assert!((radius - 1.0).abs() < 0.005, "{radius}");
        }
    }

    #[test]
    fn keeps_the_limits_of_binh_and_korn() {
        // [Binh, Korn 1997]; the front: x1 = x2 up to 3, then x2 = 3 and x1 on to 5.
        let less = |x: &[f64]| vec![4.0 * (x[0].powi(2) + x[1].powi(2)), (x[0] - 5.0).powi(2) + (x[1] - 5.0).powi(2)];
        let met = |x: &[f64]| {
            vec![25.0 - (x[0] - 5.0).powi(2) - x[1].powi(2), (x[0] - 8.0).powi(2) + (x[1] + 3.0).powi(2) - 7.7]
        };
        let found = found(&[(0.0, 5.0), (0.0, 3.0)], less, met, EFFORT);
        assert!(found.len() > 20, "{}", found.len());
        for (x, _) in &found {
            assert!((x[1] - x[0].min(3.0)).abs() < 0.03, "{x:?}");
        }
    }

    #[test]
    fn keeps_the_wavy_limit_of_tanaka() {
        // TNK [Tanaka, Watanabe, Furukawa, Tanino 1995]: the front lies on the first limit, in three pieces.
        let limit = |x: &[f64]| {
            let angle = x[0].atan2(x[1]);
            x[0].powi(2) + x[1].powi(2) - 1.0 - 0.1 * (16.0 * angle).cos()
        };
        let met = |x: &[f64]| vec![limit(x), 0.5 - (x[0] - 0.5).powi(2) - (x[1] - 0.5).powi(2)];
        let effort = Effort { beginnings: 6, ..EFFORT };
        let found = found(&[(1e-6, PI), (1e-6, PI)], |x| x.to_vec(), met, effort);
        assert!(found.len() > 8, "{}", found.len());
        for (x, _) in &found {
            assert!(limit(x).abs() < 0.01, "{x:?}");
        }
    }

    #[test]
    fn says_that_nothing_meets_limits_that_contradict_each_other() {
        let met = |x: &[f64]| vec![x[0] - 0.5, -0.5 - x[0]];
        assert!(found(&[(-1.0, 1.0)], |x| x.to_vec(), met, EFFORT).is_empty());
        let evaluate = |x: &[f64]| Came { goals: vec![x[0]], margins: met(x) };
        let asked = Asked { variables: 1, evaluate: &evaluate };
        let begun = beginnings(asked, &[], EFFORT);
        let nearest = towards(asked, &[1.0], &natural(&begun), &begun, EFFORT);
        assert!((nearest.came.broken() - 1.0).abs() < 0.02, "{nearest:?}");
    }
}
