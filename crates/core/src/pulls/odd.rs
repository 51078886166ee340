//! Pulls that are not as the others: one that is off by itself, a dyno whose reading slipped between two, a reading that went wrong
//! within one, an engine that drifts.

use super::mixed::{Contrast, Design, fit, off_the_others};
use statrs::distribution::{ContinuousCDF, StudentsT};

/// Sets of sound pulls of a hundred in which some pull is named at most.
const ALARMS: f64 = 0.02;
/// What a pull's average torque repeats to on a dyno, as a share, and how many degrees of freedom that expectation is worth beside what
/// the pulls themselves show (common practice, no source).
const REPEATS: (f64, f64) = (0.004, 4.0);
/// What is off by less, as a share, is within what a dyno repeats to, however well it did that day (common practice, no source).
const SMALL: f64 = 0.006;
/// A step between two pulls of one combination is as many of their usual ones.
const STEPS: f64 = 6.0;
/// A step within a pull is as many of the usual ones of pulls beside it, and at least that share of torque.
const WITHIN: f64 = 5.0;
const WITHIN_SHARE: f64 = 0.012;
/// Share of the speeds at either end in which no step is looked for.
const END: f64 = 0.12;

/// What is odd.
#[derive(Debug, Clone, PartialEq)]
pub enum Odd {
    /// One pull by itself, its average torque off by so much.
    Apart {
        /// Which.
        pull: usize,
        /// N m.
        by: f64,
    },
    /// All pulls from one on, until the day ends.
    Slipped {
        /// The first of them.
        pull: usize,
        /// N m.
        by: f64,
    },
    /// One pull from a speed on.
    Lies {
        /// Which.
        pull: usize,
        /// Place of the speed.
        from: usize,
        /// N m.
        by: f64,
    },
}

/// Drift of the average torque, where it is beyond chance (two-sided, 5 of 100): N m for each pull.
pub fn drift(design: &Design, averages: &[f64]) -> Option<Contrast> {
    let own = fit(design, averages)?.drifting()?;
    (own.difference.abs() > own.half_width(0.95)).then_some(own)
}

/// What is odd about pulls; `curves` at the same speeds each.
pub fn odd(design: &Design, averages: &[f64], curves: &[Vec<f64>]) -> Vec<Odd> {
    let lies = lies(design, curves);
    let is_lying = |pull: usize| lies.iter().any(|own| matches!(own, Odd::Lies { pull: other, .. } if *other == pull));
    let slipped = slipped(design, averages);
    let mut found = lies.clone();
    if slipped.is_empty() {
        found.extend(apart(design, averages).into_iter().filter(|own| match own {
            Odd::Apart { pull, .. } => !is_lying(*pull),
            Odd::Slipped { .. } | Odd::Lies { .. } => true,
        }));
    }
    found.extend(slipped);
    found
}

/// The pull furthest off the others, and the next one without it, as long as each is beyond chance.
fn apart(design: &Design, averages: &[f64]) -> Vec<Odd> {
    let mut kept: Vec<usize> = (0..averages.len()).collect();
    let mut found = Vec::new();
    while kept.len() > 4 && found.len() < averages.len() / 4 {
        let own = within(design, &kept);
        let values: Vec<f64> = kept.iter().map(|pull| averages[*pull]).collect();
        let Some((off, freedom)) = off_the_others(&own, &values, (REPEATS.0 * values[0].abs(), REPEATS.1)) else {
            break;
        };
        let Some(place) = (0..off.len()).max_by(|a, b| off[*a].abs().total_cmp(&off[*b].abs())) else { break };
        let Ok(t) = StudentsT::new(0.0, 1.0, freedom) else { break };
        if off[place].abs() < t.inverse_cdf(1.0 - 0.5 * ALARMS / off.len() as f64) {
            break;
        }
        let pull = kept.remove(place);
        let by = values[place] - expected(design, &kept, averages, pull).unwrap_or(values[place]);
        if by.abs() < SMALL * values[place].abs() {
            break;
        }
        found.push(Odd::Apart { pull, by });
    }
    found
}

/// What the others say of a pull: its combination's mean at its place in the day, and its day's level where they show one.
fn expected(design: &Design, kept: &[usize], averages: &[f64], pull: usize) -> Option<f64> {
    let own = within(design, kept);
    let values: Vec<f64> = kept.iter().map(|other| averages[*other]).collect();
    let fitted = fit(&own, &values)?;
    let middle = own.at.iter().sum::<f64>() / own.at.len() as f64;
    let of =
        |pull: usize| Some(fitted.means.get(design.combination[pull])? + fitted.drift * (design.at[pull] - middle));
    let day: Vec<f64> = kept
        .iter()
        .filter(|other| design.day[**other] == design.day[pull])
        .filter_map(|other| Some(averages[*other] - of(*other)?))
        .collect();
    let n = day.len() as f64;
    // The best linear prediction of a day's level: its mean, shrunk.
    let level =
        if day.is_empty() { 0.0 } else { fitted.ratio * n / (1.0 + fitted.ratio * n) * day.iter().sum::<f64>() / n };
    Some(of(pull)? + level)
}

/// The same design of some pulls.
fn within(design: &Design, kept: &[usize]) -> Design {
    Design {
        combination: kept.iter().map(|pull| design.combination[*pull]).collect(),
        day: kept.iter().map(|pull| design.day[*pull]).collect(),
        at: kept.iter().map(|pull| design.at[*pull]).collect(),
    }
}

/// Steps of the average torque between two pulls of one combination that follow each other in a day, after which it stays where it is.
fn slipped(design: &Design, averages: &[f64]) -> Vec<Odd> {
    let pairs = neighbours(design);
    let mut steps: Vec<f64> = pairs.iter().map(|(a, b)| (averages[*b] - averages[*a]).abs()).collect();
    if steps.len() < 4 {
        return Vec::new();
    }
    steps.sort_by(f64::total_cmp);
    let usual = steps[steps.len() / 2];
    let is_step = |by: f64, torque: f64| by.abs() > STEPS * usual && by.abs() > SMALL * torque.abs();
    let step = |(a, b): &(usize, usize)| {
        let by = averages[*b] - averages[*a];
        let next = pairs.iter().find(|pair| pair.0 == *b).map(|pair| pair.1);
        let stays = next.is_some_and(|next| (averages[next] - averages[*b]).abs() < 0.4 * by.abs());
        let is_slip = is_step(by, averages[*a]) && stays && explains_more(design, averages, (*a, *b), by);
        is_slip.then_some(Odd::Slipped { pull: *b, by })
    };
    pairs.iter().filter_map(step).collect()
}

/// Whether a slip between pulls `a` and `b` leaves less of all pulls than either of the two being off by itself.
fn explains_more(design: &Design, averages: &[f64], (a, b): (usize, usize), by: f64) -> bool {
    let is_after = |pull: usize| design.day[pull] == design.day[b] && design.at[pull] >= design.at[b];
    let put_right: Vec<f64> =
        averages.iter().enumerate().map(|(pull, own)| if is_after(pull) { own - by } else { *own }).collect();
    let without = |pull: usize| {
        let kept: Vec<usize> = (0..averages.len()).filter(|other| *other != pull).collect();
        let values: Vec<f64> = kept.iter().map(|other| averages[*other]).collect();
        fit(&within(design, &kept), &values).map_or(f64::INFINITY, |own| own.variance)
    };
    fit(design, &put_right).is_some_and(|own| own.variance < without(a).min(without(b)))
}

/// Pulls of one combination that follow each other in a day.
fn neighbours(design: &Design) -> Vec<(usize, usize)> {
    let mut order: Vec<usize> = (0..design.day.len()).collect();
    order.sort_by(|a, b| {
        (design.day[*a], design.at[*a])
            .partial_cmp(&(design.day[*b], design.at[*b]))
            .unwrap_or(std::cmp::Ordering::Equal)
    });
    let is_pair = |pair: &[usize]| {
        design.day[pair[0]] == design.day[pair[1]] && design.combination[pair[0]] == design.combination[pair[1]]
    };
    order.windows(2).filter(|pair| is_pair(pair)).map(|pair| (pair[0], pair[1])).collect()
}

/// Pulls that leave those of their combination on their day at a speed: the greatest step of what is left of a pull, its level
/// taken out, against that of all pulls.
fn lies(design: &Design, curves: &[Vec<f64>]) -> Vec<Odd> {
    let rows = OfRow::of(design, curves);
    let steps: Vec<Option<Step>> = (0..curves.len()).map(|pull| greatest_step(&rows, curves, pull)).collect();
    let mut sizes: Vec<f64> = steps.iter().flatten().map(|step| step.weight).collect();
    if sizes.len() < 4 {
        return Vec::new();
    }
    sizes.sort_by(f64::total_cmp);
    let usual = sizes[sizes.len() / 2];
    let mut found: Vec<(usize, &Step)> =
        steps.iter().enumerate().filter_map(|(pull, own)| Some((pull, own.as_ref()?))).collect();
    found.retain(|(_, own)| own.weight > WITHIN * usual && own.by.abs() > WITHIN_SHARE * own.torque);
    // One that lies bends the mean that the others of its combination are held against.
    let worst_of = |pull: usize| {
        let own = found.iter().filter(|(other, _)| rows.row[*other] == rows.row[pull]);
        own.map(|(_, step)| step.weight).fold(0.0, f64::max)
    };
    found
        .iter()
        .filter(|(pull, own)| own.weight > 0.75 * worst_of(*pull))
        .map(|(pull, own)| Odd::Lies { pull: *pull, from: own.from, by: own.by })
        .collect()
}

struct Step {
    from: usize,
    by: f64,
    weight: f64,
    torque: f64,
}

/// Pulls by what they are of and on which day, and the torques of each such row at every speed in rising order.
struct OfRow {
    row: Vec<usize>,
    sorted: Vec<Vec<Vec<f64>>>,
}

impl OfRow {
    fn of(design: &Design, curves: &[Vec<f64>]) -> Self {
        let mut known: Vec<(usize, usize)> = Vec::new();
        let row = |pull: usize| {
            let own = (design.combination[pull], design.day[pull]);
            known.iter().position(|other| *other == own).unwrap_or_else(|| {
                known.push(own);
                known.len() - 1
            })
        };
        let row: Vec<usize> = (0..curves.len()).map(row).collect();
        let at = |of: usize, speed: usize| {
            let own = curves.iter().zip(&row).filter(|(_, own)| **own == of);
            let mut torques: Vec<f64> = own.map(|(curve, _)| curve[speed]).collect();
            torques.sort_by(f64::total_cmp);
            torques
        };
        let speeds = curves.first().map_or(0, Vec::len);
        let sorted = (0..known.len()).map(|of| (0..speeds).map(|speed| at(of, speed)).collect()).collect();
        Self { row, sorted }
    }

    /// Torques of the row a pull is of.
    fn torques(&self, pull: usize) -> &[Vec<f64>] {
        &self.sorted[self.row[pull]]
    }
}

/// The median of sorted values without one of them.
fn middle_without(sorted: &[f64], value: f64) -> f64 {
    let place = sorted.partition_point(|own| *own < value);
    let at = |nth: usize| sorted[if nth < place { nth } else { nth + 1 }];
    let count = sorted.len() - 1;
    0.5 * (at(count / 2) + at((count - 1) / 2))
}

fn greatest_step(rows: &OfRow, curves: &[Vec<f64>], pull: usize) -> Option<Step> {
    let speeds = curves[pull].len();
    let torques = rows.torques(pull);
    if speeds < 10 || torques[0].len() < 2 {
        return None;
    }
    let others = |at: usize| middle_without(&torques[at], curves[pull][at]);
    let left: Vec<f64> = (0..speeds).map(|at| curves[pull][at] - others(at)).collect();
    let end = ((END * speeds as f64) as usize).max(2);
    let total: f64 = left.iter().sum();
    let (mut before, mut best) = (0.0, None::<Step>);
    for at in 1..speeds {
        before += left[at - 1];
        if at < end || at > speeds - end {
            continue;
        }
        let (a, b) = (at as f64, (speeds - at) as f64);
        let by = (total - before) / b - before / a;
        let weight = by.abs() * (a * b / (a + b)).sqrt();
        if best.as_ref().is_none_or(|own| weight > own.weight) {
            best = Some(Step { from: at, by, weight, torque: curves[pull][at].abs() });
        }
    }
    best
}
