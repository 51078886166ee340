//! The ground one chooses on: around a candidate, what every choice of its open decisions gives in torque and leaves of
//! every margin, from a few dozen computed points.

use super::frame::Frame;
use super::motion::Motion;
use super::region::gas_of;
use super::standing::{Bound, Margin, Standing};
use crate::candidate::Stages;
use crate::document::Side;
use crate::limits::{ControlFinding, Findings, HAND_CHECK, LIMITING_SPEED, RULES, limits};
use crate::quantity::Speed;
use crate::response::{Choice, Computed, Polynomial, Response, Terms, fit};
use rayon::prelude::*;

/// More than was found short, in the scale of a margin.
const MORE: f64 = 0.1;
/// A prediction that is off by more than this, in the scale of a margin, breaks nothing within what it is off.
const VAGUE: f64 = 0.25;

/// What is kept of every margin, in its scale, so that rounding to what is made breaks none.
const HAIR: f64 = 0.02;

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
    /// What was found at computed choices to be less than predicted, SI.
    short: Vec<(Bound, f64)>,
}

/// One limit of a region.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Line {
    bound: Bound,
    scale: f64,
    is_advice: bool,
    /// Root of the mean square of what is missed of points left out, in its scale.
    missed: f64,
}

/// A predicted margin and how far it may be off, SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Predicted {
    /// The margin.
    pub margin: Margin,
    /// How far predictions of it lie off computed points, SI.
    pub off: f64,
}

impl Predicted {
    /// By how much it is broken, in its scale; a vague prediction only beyond what it may be off by.
    pub fn broken(&self) -> f64 {
        let doubt = if self.off > VAGUE * self.margin.scale { self.off } else { 0.0 };
        Margin { left: self.margin.left + doubt - HAIR * self.margin.scale, ..self.margin }.broken()
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
            let findings = Findings { gas: Some(gas_of(&point.figures)), control: None::<ControlFinding> };
            standing(frame, &point.choice, &findings, stages)
        };
        let found: Vec<Standing> = response.points.par_iter().map(stand).collect();
        let bounds = RULES.iter().flat_map(|rule| rule.sides().iter().map(move |side| Bound { rule, side: *side }));
        let everywhere: Vec<Bound> =
            bounds.filter(|bound| found.iter().all(|standing| standing.margin(*bound).is_some())).collect();
        let own = |standing: &Standing| -> Vec<Margin> {
            everywhere.iter().filter_map(|bound| standing.margin(*bound).copied()).collect()
        };
        let margins: Vec<Vec<Margin>> = found.iter().map(own).collect();
        let scales: Vec<f64> = (0..everywhere.len())
            .map(|column| margins.iter().map(|row| row[column].scale).sum::<f64>() / margins.len() as f64)
            .collect();
        let values: Vec<Vec<f64>> = margins
            .iter()
            .map(|row| row.iter().zip(&scales).map(|(margin, scale)| margin.left / scale).collect())
            .collect();
        let places: Vec<Vec<f64>> = response.points.iter().map(|point| response.place(&point.choice)).collect();
        let terms =
            if places.len() > Terms::Products.count(response.axes.len()) { Terms::Products } else { Terms::Linear };
        let fit = fit(terms, &places, &values)?;
        let line = |(column, bound): (usize, &Bound)| Line {
            bound: *bound,
            scale: scales[column],
            is_advice: margins.iter().all(|row| row[column].is_advice),
            missed: fit.missed(&values, column),
        };
        let lines = everywhere.iter().enumerate().map(line).collect();
        Some(Self { lines, polynomial: fit.polynomial, motion: None, short: Vec::new() })
    }

    /// No limits at all, for a ground that is only torque.
    pub const fn none() -> Self {
        Self { lines: Vec::new(), polynomial: Polynomial::nothing(), motion: None, short: Vec::new() }
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

    /// Takes up what a computed choice left of its margins: near it, predictions of a limit that was found broken are as much
    /// lower as was found, and a little more at every `lesson`. Whether any was broken that had been predicted to hold.
    pub fn learn(&mut self, response: &Response, choice: &Choice, found: &Standing, lesson: usize) -> bool {
        let predicted = self.at(response, choice);
        let mut learned = false;
        for margin in found.fails() {
            let Some(own) = predicted.iter().find(|own| own.margin.bound == margin.bound) else { continue };
            if own.broken() > 0.0 {
                continue;
            }
            let before = self.short.iter().find(|(bound, _)| *bound == margin.bound).map_or(0.0, |(_, by)| *by);
            self.short.retain(|(bound, _)| *bound != margin.bound);
            let more = MORE * (lesson + 1) as f64 * own.margin.scale;
            self.short.push((margin.bound, before + own.margin.left - margin.left + more));
            learned = true;
        }
        learned
    }

    /// Every margin of a choice.
    pub fn at(&self, response: &Response, choice: &Choice) -> Vec<Predicted> {
        let values = self.polynomial.at(&response.place(choice));
        let predicted = |(line, value): (&Line, f64)| Predicted {
            margin: Margin {
                bound: line.bound,
                left: value * line.scale,
                scale: line.scale,
                is_advice: line.is_advice,
            },
            off: line.missed * line.scale,
        };
        let known = self.lines.iter().zip(values).map(predicted);
        let mut found: Vec<Predicted> = known.chain(self.limiting_speeds(response, choice)).collect();
        for (bound, by) in &self.short {
            for own in found.iter_mut().filter(|own| own.margin.bound == *bound) {
                own.margin.left -= by;
                own.off = 0.0;
            }
        }
        found
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
                scale: Speed::rpm(CONTROL_SCALE).si(),
                is_advice: false,
            };
            Some(Predicted { margin, off: Speed::rpm(off).si() })
        };
        Side::BOTH.into_iter().filter_map(of).collect()
    }
}
