//! The lobe that a card describes: on each flank the quintic B-spline with the least integral of
//! jerk squared that meets every check.
//!
//! For each flank, with `x` in cam degrees from full lift, minimise `int s'''(x)^2 dx` subject to
//! - `s(0) = lift`, `s'(0) = 0`, `s'''(0) = 0` (both flanks join with continuous jerk),
//! - `s = s' = s'' = 0` where the ramp ends, and `s` equal to every check,
//! - one change of sign of acceleration, and its magnitude on the nose falling away from full lift,
//! - for a flat foot: velocity within the face, radius of curvature above its least value,
//! - equal acceleration of both flanks at full lift when they differ.
//!
//! It is a convex quadratic programme once the place of the sign change is chosen; that place is an
//! index into the control coefficients of acceleration and is found by descent. The card leaves the
//! flank's positive acceleration open within about 20 % and the ramp altogether; the minimum of jerk
//! is one smooth answer, not the maker's.

use super::bspline::{Basis, DEGREE};
use super::card::{Check, FlatFoot, LobeCard};
use super::lobe::Lobe;
use super::refusal::{LobeRefusal, explain, plain_reason};
use super::shape::Shape;
use crate::programme::{Ended, Rows, decide};
use std::sync::OnceLock;

/// Knot spans on a flank: 3 to 4 cam degrees each. Twice as many move peak acceleration by less
/// than 1 %.
pub const SPANS: usize = 24;

/// Mean slope of a ramp below its first check, m per cam degree (common practice, no source). It
/// carries the ramp length given at .006 over to cards whose first check lies elsewhere.
const RAMP_SLOPE: f64 = 0.0015 * 0.0254;

/// Shortest ramp below the first check, cam degrees.
const SHORTEST_RAMP: f64 = 6.0;

/// The smooth lobe of `card`, or why there is none.
pub fn lobe_of_card(card: &LobeCard) -> Result<Lobe, LobeRefusal> {
    if let Some(refusal) = plain_reason(card) {
        return Err(refusal);
    }
    match solve(card, Shape::ALL) {
        Some(flanks) => Ok(assemble(card, &flanks)),
        None => Err(explain(card, |shape| solve(card, shape).is_some())),
    }
}

/// Cam degrees between full lift and the end of the ramp.
fn flank_length(card: &LobeCard, checks: &[Check]) -> f64 {
    let Some(first) = checks.first() else { return 0.0 };
    let above_006 = first.height.si() - super::card::height_006().si();
    let ramp = card.lifter.ramp_below_006_cam_deg() + above_006 / RAMP_SLOPE;
    0.5 * first.crank_deg + ramp.max(SHORTEST_RAMP)
}

struct FlankProblem<'a> {
    checks: &'a [Check],
    /// Cam degrees in one knot span.
    span_deg: f64,
}

/// Where the acceleration of a flank changes its sign: an index into its controls.
#[derive(Debug, Clone, Copy)]
enum Turn {
    /// Anywhere, and any number of times.
    Free,
    /// Once, from the first to the last of these places.
    Between(usize, usize),
}

impl Turn {
    /// Once, there.
    const fn at(place: usize) -> Self {
        Self::Between(place, place)
    }

    const fn range(self) -> Option<(usize, usize)> {
        match self {
            Self::Free => None,
            Self::Between(first, last) => Some((first, last)),
        }
    }
}

/// Coefficients of one flank in units of full lift.
struct FlankSolution {
    span_deg: f64,
    coefficients: Vec<f64>,
}

fn solve(card: &LobeCard, shape: Shape) -> Option<Vec<FlankSolution>> {
    let mut flanks = vec![problem(card, &card.closing)];
    if !card.is_symmetric() {
        flanks.push(problem(card, &card.opening));
    }
    let (_, free) = Programme::new(card, &flanks, &vec![Turn::Free; flanks.len()], shape).run()?;
    let mut turns: Vec<usize> = free.iter().map(|c| turn_of(c)).collect();
    let start = shaped(card, &flanks, &turns, shape);
    let (mut cost, mut best) = match start {
        Some(found) => found,
        None => scan(card, &flanks, &mut turns, shape)?,
    };
    descend(card, &flanks, shape, &mut turns, &mut cost, &mut best);
    let solutions = flanks.iter().zip(best);
    Some(solutions.map(|(f, coefficients)| FlankSolution { span_deg: f.span_deg, coefficients }).collect())
}

/// Moves the place of the sign change, one flank at a time, while that lowers the cost.
fn descend(
    card: &LobeCard,
    flanks: &[FlankProblem<'_>],
    shape: Shape,
    turns: &mut Vec<usize>,
    cost: &mut f64,
    best: &mut Vec<Vec<f64>>,
) {
    for flank in 0..flanks.len() {
        for direction in [-1_isize, 1] {
            while !settled(&best[flank], turns[flank], direction) {
                let mut trial = turns.clone();
                trial[flank] = trial[flank].saturating_add_signed(direction);
                let Some((trial_cost, trial_best)) = shaped(card, flanks, &trial, shape) else { break };
                if trial_cost >= *cost * (1.0 - 1e-6) {
                    break;
                }
                (*cost, *best, *turns) = (trial_cost, trial_best, trial);
            }
        }
    }
}

/// Whether the rows that hold the sign change from moving in `direction` are slack: then the
/// neighbour's programme only adds rows to one this curve already minimises, and cannot be better.
fn settled(coefficients: &[f64], turn: usize, direction: isize) -> bool {
    let value = |i: usize| control(coefficients, i);
    let scale = (0..controls().len()).map(|i| value(i).abs()).fold(0.0, f64::max);
    let slack = 1e-5 * scale;
    if direction > 0 {
        turn + 2 >= controls().len() || value(turn + 1) > slack
    } else {
        turn == 0 || (value(turn) < -slack && value(turn) - value(turn - 1) > slack)
    }
}

/// The best curve with these places of the sign change. A flat foot's rows are added only when the
/// curve without them breaks one: most cards never need them.
fn shaped(card: &LobeCard, flanks: &[FlankProblem<'_>], turns: &[usize], shape: Shape) -> Option<(f64, Vec<Vec<f64>>)> {
    let turns: Vec<Turn> = turns.iter().map(|turn| Turn::at(*turn)).collect();
    let loose = Shape { face: false, curvature: false, ..shape };
    let found = Programme::new(card, flanks, &turns, loose).run()?;
    if card.flat_foot.is_none() || Programme::new(card, flanks, &turns, shape).holds(&found.1) {
        return Some(found);
    }
    Programme::new(card, flanks, &turns, shape).run()
}

fn problem<'a>(card: &LobeCard, checks: &'a [Check]) -> FlankProblem<'a> {
    FlankProblem { checks, span_deg: flank_length(card, checks) / SPANS as f64 }
}

/// The best common place of the sign change when the guess is infeasible: ranges of places are halved, and one is left where
/// not even what all its places have in common can be met, or only at a higher cost than what is found already.
fn scan(
    card: &LobeCard,
    flanks: &[FlankProblem<'_>],
    turns: &mut [usize],
    shape: Shape,
) -> Option<(f64, Vec<Vec<f64>>)> {
    let mut best: Option<(f64, Vec<Vec<f64>>)> = None;
    let mut open = vec![(2, basis().len() - 5)];
    while let Some((first, last)) = open.pop() {
        let is_better = |cost: f64| best.as_ref().is_none_or(|(least, _)| cost < *least);
        if first == last {
            let trial = vec![first; turns.len()];
            if let Some(found) = shaped(card, flanks, &trial, shape).filter(|(cost, _)| is_better(*cost)) {
                best = Some(found);
                turns.copy_from_slice(&trial);
            }
            continue;
        }
        let common = vec![Turn::Between(first, last); turns.len()];
        let loose = Shape { face: false, curvature: false, ..shape };
        let is_left = match Programme::new(card, flanks, &common, loose).decide() {
            Ended::Solved(cost, _) => !is_better(cost),
            Ended::Infeasible => true,
            Ended::Undecided => false,
        };
        if !is_left {
            let middle = first.midpoint(last);
            open.extend([(middle + 1, last), (first, middle)]);
        }
    }
    best
}

/// Last negative acceleration control before the largest positive one.
fn turn_of(coefficients: &[f64]) -> usize {
    let value = |i: usize| control(coefficients, i);
    let largest = (0..controls().len()).max_by(|a, b| value(*a).total_cmp(&value(*b))).unwrap_or(1);
    (0..largest).rev().find(|i| value(*i) < 0.0).unwrap_or(0)
}

/// Control coefficient `i` of acceleration.
fn control(coefficients: &[f64], i: usize) -> f64 {
    controls()[i].iter().zip(&coefficients[i..]).map(|(w, c)| w * c).sum()
}

fn basis() -> &'static Basis {
    static BASIS: OnceLock<Basis> = OnceLock::new();
    BASIS.get_or_init(|| Basis::new(SPANS))
}

fn controls() -> &'static [[f64; 3]] {
    static CONTROLS: OnceLock<Vec<[f64; 3]>> = OnceLock::new();
    CONTROLS.get_or_init(|| basis().acceleration_controls())
}

/// `int s'''^2 du` as a dense matrix in the coefficients, exact by Gauss-Legendre with three points
/// (the integrand is of degree four).
fn jerk_gram() -> &'static Vec<Vec<f64>> {
    static GRAM: OnceLock<Vec<Vec<f64>>> = OnceLock::new();
    GRAM.get_or_init(|| super::fit::gram_of_jerk(basis()))
}

/// One quadratic programme: rows in triplets, equalities first.
struct Programme<'a> {
    flanks: &'a [FlankProblem<'a>],
    equal: Rows,
    at_most: Rows,
}

impl<'a> Programme<'a> {
    fn new(card: &LobeCard, flanks: &'a [FlankProblem<'a>], turns: &[Turn], shape: Shape) -> Self {
        let mut programme = Self { flanks, equal: Rows::default(), at_most: Rows::default() };
        for (index, flank) in flanks.iter().enumerate() {
            programme.ends_and_checks(card, flank, index * basis().len());
            let offset = index * basis().len();
            let Some((first, last)) = turns[index].range() else { continue };
            programme.one_change_of_sign((first, last), offset, shape.nose);
            if let Some(foot) = &card.flat_foot {
                if shape.face {
                    programme.velocity_within_face(card, foot, flank, last, offset);
                }
                if shape.curvature {
                    programme.convex_enough(card, foot, flank, last, offset);
                }
            }
        }
        if let [one, other] = flanks {
            programme.noses_join(one, other);
        }
        programme
    }

    fn derivative(u: f64, order: usize, offset: usize) -> impl Iterator<Item = (usize, f64)> {
        let row = basis().row(u);
        (0..=DEGREE).map(move |j| (offset + row.first + j, row.values[order][j]))
    }

    fn ends_and_checks(&mut self, card: &LobeCard, flank: &FlankProblem<'_>, offset: usize) {
        self.equal.push(Self::derivative(0.0, 0, offset), 1.0);
        self.equal.push(Self::derivative(0.0, 1, offset), 0.0);
        self.equal.push(Self::derivative(0.0, 3, offset), 0.0);
        for check in flank.checks {
            let u = 0.5 * check.crank_deg / flank.span_deg;
            self.equal.push(Self::derivative(u, 0, offset), check.height.si() / card.lift.si());
        }
        for order in 0..3 {
            self.equal.push(Self::derivative(SPANS as f64, order, offset), 0.0);
        }
    }

    /// Controls up to the `first` place of the sign change not positive and, where `nose` says so, rising from the nose; those
    /// beyond the `last` not negative.
    fn one_change_of_sign(&mut self, (first, last): (usize, usize), offset: usize, nose: bool) {
        // Rising towards a last one that is not positive makes the others so too.
        for (i, weights) in controls().iter().enumerate().skip(if nose { first } else { 0 }) {
            if (first + 1..=last).contains(&i) {
                continue;
            }
            let sign = if i <= first { 1.0 } else { -1.0 };
            self.at_most.push((0..3).map(|j| (offset + i + j, sign * weights[j])), 0.0);
        }
        let risen = if nose { first.min(controls().len() - 2) } else { 0 };
        for i in 0..risen {
            let (now, next) = (controls()[i], controls()[i + 1]);
            let weights = [now[0], now[1] - next[0], now[2] - next[1], -next[2]];
            self.at_most.push((0..4).map(|j| (offset + i + j, weights[j])), 0.0);
        }
    }

    /// `-s'(x) <= cap` on a grid of half spans around the steepest place.
    fn velocity_within_face(
        &mut self,
        card: &LobeCard,
        foot: &FlatFoot,
        flank: &FlankProblem<'_>,
        turn: usize,
        offset: usize,
    ) {
        let cap = foot.velocity_cap() * flank.span_deg / card.lift.si();
        let (from, to) = (turn.saturating_sub(7), (turn + 5).min(SPANS));
        for half in 2 * from..=2 * to {
            let weights = Self::derivative(half as f64 / 2.0, 1, offset).map(|(c, w)| (c, -w));
            self.at_most.push(weights, cap);
        }
    }

    /// `Rb + s + s'' >= least radius`, `s''` per radian, on a grid of half spans over the nose
    /// [Norton, radius of curvature of a flat-faced follower's cam; from memory].
    fn convex_enough(
        &mut self,
        card: &LobeCard,
        foot: &FlatFoot,
        flank: &FlankProblem<'_>,
        turn: usize,
        offset: usize,
    ) {
        let per_radian = (180.0 / std::f64::consts::PI / flank.span_deg).powi(2);
        let spare = (0.5 * foot.base_circle.si() - FlatFoot::least_radius().si()) / card.lift.si();
        for half in 0..=2 * turn.min(SPANS) {
            let row = basis().row(half as f64 / 2.0);
            let weights =
                (0..=DEGREE).map(|j| (offset + row.first + j, -(row.values[0][j] + per_radian * row.values[2][j])));
            self.at_most.push(weights, spare);
        }
    }

    fn noses_join(&mut self, one: &FlankProblem<'_>, other: &FlankProblem<'_>) {
        let scale = (one.span_deg / other.span_deg).powi(2);
        let second = Self::derivative(0.0, 2, basis().len()).map(|(c, w)| (c, -w * scale));
        self.equal.push(Self::derivative(0.0, 2, 0).chain(second), 0.0);
    }

    /// Whether a curve keeps every inequality, to 1e-7 of full lift.
    fn holds(&self, flanks: &[Vec<f64>]) -> bool {
        let x = flanks.concat();
        let mut sums = vec![0.0; self.at_most.right.len()];
        for (row, column, weight) in &self.at_most.entries {
            sums[*row] += weight * x[*column];
        }
        sums.iter().zip(&self.at_most.right).all(|(sum, right)| sum - right <= 1e-7)
    }

    /// Cost and the coefficients of each flank, or `None` when no curve meets the rows.
    fn run(self) -> Option<(f64, Vec<Vec<f64>>)> {
        match self.decide() {
            Ended::Solved(cost, x) => Some((cost, x.chunks(basis().len()).map(<[f64]>::to_vec).collect())),
            Ended::Infeasible | Ended::Undecided => None,
        }
    }

    /// Cost and the coefficients of all flanks, where there are any.
    fn decide(self) -> Ended {
        let size = basis().len();
        let mut quadratic = Vec::new();
        for (index, flank) in self.flanks.iter().enumerate() {
            let weight = (self.flanks[0].span_deg / flank.span_deg).powi(5);
            for (i, row) in jerk_gram().iter().enumerate() {
                let band = row.iter().enumerate().skip(i).take(DEGREE + 1);
                quadratic.extend(band.map(|(j, h)| (index * size + i, index * size + j, weight * h)));
            }
        }
        let unknowns = size * self.flanks.len();
        decide(unknowns, &quadratic, &vec![0.0; unknowns], self.equal, self.at_most)
    }
}

/// Joins the flanks into one lobe, both as polynomials rising with cam angle.
fn assemble(card: &LobeCard, flanks: &[FlankSolution]) -> Lobe {
    let closing = &flanks[0];
    let opening = flanks.last().unwrap_or(closing);
    let mut breaks = Vec::with_capacity(2 * SPANS + 1);
    let mut pieces = Vec::with_capacity(2 * SPANS);
    for span in (0..SPANS).rev() {
        breaks.push(-(span as f64 + 1.0) * opening.span_deg);
        pieces.push(piece(card, opening, span, true));
    }
    for span in 0..SPANS {
        breaks.push(span as f64 * closing.span_deg);
        pieces.push(piece(card, closing, span, false));
    }
    breaks.push(SPANS as f64 * closing.span_deg);
    Lobe::new(breaks, pieces, None)
}

/// Taylor coefficients of one span at its left end in cam angle.
fn piece(card: &LobeCard, flank: &FlankSolution, span: usize, mirrored: bool) -> [f64; 6] {
    let at = if mirrored { span + 1 } else { span };
    let sign = if mirrored { -1.0 } else { 1.0 };
    super::fit::taylor(basis(), &flank.coefficients, span, at as f64, sign * flank.span_deg, card.lift.si())
}

#[cfg(test)]
mod tests {
    use super::super::refusal::nose_room;
    use super::*;
    use crate::quantity::Length;
    use crate::words::LifterKind;

    /// A roller's card with so much lift; from .24 to .36 in its nose goes from too blunt to sharp.
    fn card(lift: f64) -> LobeCard {
        let rows = [(0.006, 276.0), (0.050, 226.0), (0.200, 140.0)].map(|(height, deg)| (Length::inches(height), deg));
        LobeCard::symmetric(Length::inches(lift), &rows, LifterKind::SolidRoller, None)
    }

    /// The least cost of any common place of the sign change, each tried.
    fn least(card: &LobeCard) -> Option<f64> {
        let flanks = [problem(card, &card.closing)];
        let costs = (2..basis().len() - 4).filter_map(|turn| Some(shaped(card, &flanks, &[turn], Shape::ALL)?.0));
        costs.reduce(f64::min)
    }

    #[test]
    fn halving_ranges_finds_what_trying_every_place_finds() {
        for lift in [0.258, 0.262, 0.27, 0.3, 0.36] {
            let (card, mut turns) = (card(lift), vec![0]);
            let flanks = [problem(&card, &card.closing)];
            let found = scan(&card, &flanks, &mut turns, Shape::ALL).map(|(cost, _)| cost);
            match (found, least(&card)) {
                (Some(found), Some(least)) => {
                    assert!((found / least - 1.0).abs() < 1e-6, "{lift}: {found} for {least}")
                }
                (found, least) => assert_eq!(found, least, "{lift}"),
            }
        }
    }

    #[test]
    fn no_place_of_the_sign_change_carries_a_nose_that_has_no_room() {
        let mut refused = 0;
        for thousandth in 240..300 {
            let card = card(f64::from(thousandth) * 1e-3);
            let (room, least) = (nose_room(&card), least(&card));
            if room < 0.0 {
                refused += 1;
                assert!(least.is_none(), "{thousandth}: room {room}, yet {least:?}");
            }
            // From a hundredth on there is a curve on every card tried here.
            assert!(room < 0.01 || least.is_some(), "{thousandth}: room {room}");
        }
        assert!((5..55).contains(&refused), "{refused}");
    }
}
