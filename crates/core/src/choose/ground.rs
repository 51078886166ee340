//! The ground one chooses on: around a candidate, what every choice of its open decisions gives in torque and leaves of
//! every margin, from a few dozen computed points.

use super::frame::Frame;
use super::idling::Idling;
use super::motion::Motion;
use super::region::gas_of;
use super::standing::{Bound, Margin, Reserves, Standing};
use crate::candidate::Stages;
use crate::document::Side;
use crate::limits::{Findings, HAND_CHECK, HOLLOW_FLANK, IDLE_VACUUM, LIMITING_SPEED, RULES, Rule, limits};
use crate::quantity::{INCH_MERCURY, Speed};
use crate::response::{Choice, Computed, Polynomial, Response, Terms, fit};
use rayon::prelude::*;

/// More than was found short, in the scale of a margin.
const MORE: f64 = 0.1;
/// A prediction that is off by more than this, in the scale of a margin, breaks nothing within what it is off.
const VAGUE: f64 = 0.25;

/// A limit is moved by the choice where it differs by more than this over a region, in its scale.
const MOVES: f64 = 0.05;

/// What is kept of every margin, in its scale, so that rounding to what is made breaks none.
pub(super) const HAIR: f64 = 0.02;

/// Share of a wheel's curvature that counts as much as what makes another margin tight, and the most of it that is told apart.
const CURVED: f64 = 0.1;
const MOST_CURVED: f64 = -40.0;

/// Vacuum that counts as much as what makes another margin tight, Pa.
const VACUUM_SCALE: f64 = INCH_MERCURY;

/// Speed that counts as much as what makes another margin tight, rpm (assumed).
const CONTROL_SCALE: f64 = 200.0;

/// Margins over a region: the same points as the curve's.
#[derive(Debug, Clone, PartialEq)]
pub struct Margins {
    /// Which limits; those that are known and hold at every point.
    lines: Vec<Line>,
    polynomial: Polynomial,
    /// Where control is lost, where the trains are known whole and were turned.
    motion: Option<Motion>,
    /// Vacuum at idle, where a plan asks for it.
    idling: Option<Idling>,
    /// What was found at computed choices to be less than predicted.
    short: Vec<Short>,
    /// What is kept of limits.
    reserves: Reserves,
}

/// One limit of a region.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Line {
    bound: Bound,
    scale: f64,
    is_advice: bool,
    /// Root of the mean square of what is missed of points left out, in its scale.
    missed: f64,
    /// Whether the choice moves it.
    moves: bool,
    /// How much more is left than the polynomial says, SI: what a deeper computation of gas found.
    more: f64,
    /// The radius that is needed, where the limit is one of a radius that a flank may not have at all: its polynomial is of
    /// the curvature.
    radius: Option<f64>,
}

/// One limit over the points, as it is fitted.
struct Column {
    line: Line,
    values: Vec<f64>,
}

impl Column {
    /// Of a limit that is known and holds at every point, or of a radius that some flanks do not have; `None` of others.
    fn of(bound: Bound, found: &[Standing]) -> Option<Self> {
        let margins: Vec<&Margin> = found.iter().filter_map(|standing| standing.margin(bound)).collect();
        let first = margins.first()?;
        let mean = margins.iter().map(|own| own.scale).sum::<f64>() / margins.len() as f64;
        let is_advice = margins.iter().all(|own| own.is_advice);
        let line = Line { bound, scale: mean, is_advice, missed: 0.0, moves: true, more: 0.0, radius: None };
        if std::ptr::eq(bound.rule, &HOLLOW_FLANK) {
            let line = Line { scale: CURVED * first.need, radius: Some(first.need), ..line };
            let value = |standing: &Standing| {
                // A flank that is not hollow has no curvature to grind.
                let curvature = standing.margin(bound).map_or(0.0, |own| own.need / (own.need + own.left).max(1e-9));
                ((1.0 - curvature) / CURVED).max(MOST_CURVED)
            };
            return Some(Self { line, values: found.iter().map(value).collect() });
        }
        let values: Vec<f64> = margins.iter().map(|own| own.left / mean).collect();
        let (least, most) = values.iter().fold((f64::MAX, f64::MIN), |(a, b), own| (a.min(*own), b.max(*own)));
        let line = Line { moves: most - least > MOVES, ..line };
        (margins.len() == found.len()).then_some(Self { line, values })
    }
}

impl Line {
    /// What is left, SI, of what its polynomial says.
    fn left(&self, value: f64) -> f64 {
        match self.radius {
            // Of the curvature that is left, as much of the radius.
            Some(need) => need * value * CURVED,
            None => value * self.scale,
        }
    }
}

/// What was found at one computed choice.
#[derive(Debug, Clone, PartialEq)]
struct Short {
    bound: Bound,
    /// Where, in the region.
    place: Vec<f64>,
    /// How much less is left than the polynomial says, SI.
    by: f64,
}

/// A lesson counts half so far away, of a region's half (root of the mean square over its axes).
const HALF_AT: f64 = 0.25;

/// How much of what was learned at one place of a region counts at another: all of it there, half of it [`HALF_AT`] away.
pub fn counts(learned_at: &[f64], place: &[f64]) -> f64 {
    let apart: f64 = learned_at.iter().zip(place).map(|(a, b)| (a - b).powi(2)).sum();
    0.5f64.powf(apart / place.len().max(1) as f64 / HALF_AT.powi(2))
}

/// A predicted margin and how far it may be off, SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Predicted {
    /// The margin.
    pub margin: Margin,
    /// How far predictions of it lie off computed points, SI.
    pub off: f64,
}

/// What is predicted of one limit.
pub fn predicted(margins: &[Predicted], bound: Bound) -> Option<&Predicted> {
    margins.iter().find(|own| own.margin.bound == bound)
}

impl Predicted {
    /// What is left of it, in its scale; a vague prediction is broken only beyond what it may be off by.
    pub fn room(&self) -> f64 {
        let doubt = if self.off > VAGUE * self.margin.scale { self.off } else { 0.0 };
        self.margin.room() + doubt / self.margin.scale - HAIR
    }

    /// By how much it is broken, in its scale.
    pub fn broken(&self) -> f64 {
        Margin { left: self.room() * self.margin.scale, ..self.margin.as_given() }.broken()
    }
}

/// How a choice stands, computed.
pub fn standing(frame: &Frame, choice: &Choice, findings: &Findings, stages: &Stages) -> Standing {
    let resolved = frame.at(choice, stages);
    Standing::of(&limits(&resolved, findings, stages))
}

impl Margins {
    /// Of the points of a response.
    pub fn of(frame: &Frame, response: &Response, stages: &Stages) -> Option<Self> {
        let stand = |point: &Computed| {
            let findings = Findings { gas: Some(gas_of(&point.figures)), ..Findings::default() };
            standing(frame, &point.choice, &findings, stages)
        };
        let found: Vec<Standing> = response.points.par_iter().map(stand).collect();
        let bounds = RULES.iter().flat_map(|rule| rule.sides().iter().map(move |side| Bound { rule, side: *side }));
        let columns: Vec<Column> = bounds.filter_map(|bound| Column::of(bound, &found)).collect();
        let values: Vec<Vec<f64>> =
            (0..found.len()).map(|row| columns.iter().map(|column| column.values[row]).collect()).collect();
        let places: Vec<Vec<f64>> = response.points.iter().map(|point| response.place(&point.choice)).collect();
        let terms = Terms::held_by(places.len(), response.axes.len());
        let fit = fit(terms, &places, &values)?;
        let line = |(place, column): (usize, &Column)| Line { missed: fit.missed(&values, place), ..column.line };
        let lines = columns.iter().enumerate().map(line).collect();
        Some(Self { lines, polynomial: fit.polynomial, ..Self::none() })
    }

    /// No limits at all, for a ground that is only torque.
    pub fn none() -> Self {
        let (lines, polynomial) = (Vec::new(), Polynomial::nothing());
        Self { lines, polynomial, motion: None, idling: None, short: Vec::new(), reserves: Vec::new() }
    }

    /// The same with where control is lost, which decides where it is known: the hand check stands beside it.
    #[must_use]
    pub fn turning(mut self, motion: Motion, now: &Choice) -> Self {
        for line in &mut self.lines {
            let side = line.bound.side.unwrap_or(Side::Intake);
            line.is_advice |= std::ptr::eq(line.bound.rule, &HAND_CHECK) && motion.at(side, now).is_some();
        }
        self.motion = Some(motion);
        self
    }

    /// Limits that are known over the region and that a choice moves, or other parts than those of `other`: by what is left of each
    /// at `choices`, its own and the other's.
    pub fn moved(
        &self,
        own: (&Response, &Choice),
        (other, response, choice): (&Self, &Response, &Choice),
    ) -> Vec<Bound> {
        let before = other.at(response, choice);
        let is_other = |own: &Predicted| {
            let before = predicted(&before, own.margin.bound);
            before.is_some_and(|before| (own.margin.left - before.margin.left).abs() > MOVES * own.margin.scale)
        };
        let found = self.at(own.0, own.1);
        let moved = found.iter().filter(|own| self.moves(own.margin.bound) || is_other(own));
        moved.map(|own| own.margin.bound).collect()
    }

    /// Whether a limit is known over the region and the choice moves it.
    fn moves(&self, bound: Bound) -> bool {
        let by_line = self.lines.iter().any(|line| line.bound == bound && line.moves);
        let is = |rule: &'static Rule| std::ptr::eq(bound.rule, rule);
        by_line || is(&LIMITING_SPEED) && self.motion.is_some() || is(&IDLE_VACUUM) && self.idling.is_some()
    }

    /// Keeps so much of limits from here on.
    pub fn keep(&mut self, reserves: &[(Bound, f64)]) {
        self.reserves = reserves.to_vec();
    }

    /// The same with vacuum at idle.
    #[must_use]
    pub fn idling(mut self, idling: Option<Idling>) -> Self {
        self.idling = idling;
        self
    }

    /// Takes up what a computed choice left of its margins: the nearer to it, the more predictions of a limit that was found
    /// broken are as much lower as was found, and a little more at every `lesson`. Whether any was broken that had been
    /// predicted to hold.
    pub fn learn(&mut self, response: &Response, choice: &Choice, found: &Standing, lesson: usize) -> bool {
        let foreseen = self.at(response, choice);
        let mut learned = false;
        for margin in found.fails() {
            let Some(own) = predicted(&foreseen, margin.bound) else { continue };
            if own.broken() > 0.0 {
                continue;
            }
            let place = response.place(choice);
            let before = self.shortfall(margin.bound, &place).0;
            let more = MORE * (lesson + 1) as f64 * own.margin.scale;
            let by = before + own.margin.left - margin.left + more;
            self.short.push(Short { bound: margin.bound, place, by });
            learned = true;
        }
        learned
    }

    /// Whether a limit hangs on what gas was computed to do at every point.
    pub fn raises(bound: Bound) -> bool {
        bound.rule.gas && !std::ptr::eq(bound.rule, &IDLE_VACUUM)
    }

    /// So much more is left of a limit, SI, wherever it is predicted.
    pub fn raise(&mut self, bound: Bound, more: f64) {
        self.lines.iter_mut().filter(|line| line.bound == bound).for_each(|line| line.more += more);
    }

    /// Every margin of a choice.
    pub fn at(&self, response: &Response, choice: &Choice) -> Vec<Predicted> {
        let values = self.polynomial.at(&response.place(choice));
        let predicted = |(line, value): (&Line, f64)| Predicted {
            margin: Margin {
                bound: line.bound,
                left: line.left(value) + line.more,
                need: line.radius.unwrap_or(0.0),
                scale: line.scale,
                reserve: 0.0,
                is_advice: line.is_advice,
            },
            off: line.missed * line.scale,
        };
        let known = self.lines.iter().zip(values).map(predicted);
        let mut found: Vec<Predicted> = known.chain(self.limiting_speeds(response, choice)).collect();
        found.extend(self.vacuum(choice));
        found.iter_mut().for_each(|own| own.margin = own.margin.keeping(&self.reserves));
        if !self.short.is_empty() {
            let place = response.place(choice);
            for own in &mut found {
                let (by, counts) = self.shortfall(own.margin.bound, &place);
                own.margin.left -= by;
                own.off *= 1.0 - counts;
            }
        }
        found
    }

    /// How much less is left of a limit at a place than its polynomial says, as far as was learned near it, and how much that
    /// counts there.
    fn shortfall(&self, bound: Bound, place: &[f64]) -> (f64, f64) {
        let own = self.short.iter().filter(|short| short.bound == bound);
        own.fold((0.0, 0.0), |(by, most), short| {
            let counts = counts(&short.place, place);
            (f64::max(by, short.by * counts), f64::max(most, counts))
        })
    }

    /// Margin of the vacuum at idle.
    fn vacuum(&self, choice: &Choice) -> Option<Predicted> {
        let own = self.idling.as_ref()?;
        let margin = Margin {
            bound: Bound { rule: &IDLE_VACUUM, side: None },
            left: own.at(choice) - own.need,
            need: own.need,
            scale: VACUUM_SCALE,
            reserve: 0.0,
            is_advice: false,
        };
        Some(Predicted { margin, off: own.off })
    }

    /// Margin of the limiting speed over a missed shift.
    fn limiting_speeds(&self, response: &Response, choice: &Choice) -> Vec<Predicted> {
        let (Some(motion), Some(top)) = (&self.motion, response.plan.missed) else { return Vec::new() };
        let of = |side: Side| {
            let (limit, off) = motion.at(side, choice)?;
            let bound = Bound { rule: &LIMITING_SPEED, side: Some(side) };
            let margin = Margin {
                bound,
                left: Speed::rpm(limit - top).si(),
                need: Speed::rpm(top).si(),
                scale: Speed::rpm(CONTROL_SCALE).si(),
                reserve: 0.0,
                is_advice: false,
            };
            Some(Predicted { margin, off: Speed::rpm(off).si() })
        };
        Side::BOTH.into_iter().filter_map(of).collect()
    }
}
