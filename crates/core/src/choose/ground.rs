//! The ground one chooses on: around a candidate, what every choice of its open decisions gives in torque and leaves of
//! every margin, from a few dozen computed points.

use super::decision::Choice;
use super::frame::Frame;
use super::polynomial::{Polynomial, Terms, fit};
use super::response::Response;
use super::standing::{Bound, Margin, Standing};
use crate::candidate::Stages;
use crate::limits::{ControlFinding, Findings, RULES, limits};
use rayon::prelude::*;

/// Margins over a region: the same points as the curve's.
#[derive(Debug, Clone, PartialEq)]
pub struct Margins {
    /// Which limits; those that are known and hold at every point.
    lines: Vec<Line>,
    polynomial: Polynomial,
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

/// How a choice stands, computed.
pub fn standing(frame: &Frame, choice: &Choice, findings: &Findings, stages: &Stages) -> Standing {
    let resolved = frame.at(choice, stages);
    Standing::of(&limits(&resolved, findings, stages))
}

impl Margins {
    /// Of the points of a response; `control` is what is known of the train, wherever it does not depend on the cam.
    pub fn of(frame: &Frame, response: &Response, stages: &Stages) -> Option<Self> {
        let stand = |point: &super::response::Computed| {
            let findings = Findings { gas: Some(point.figures.gas()), control: None::<ControlFinding> };
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
        let line = |(column, bound): (usize, &Bound)| {
            let square = fit.left_out.iter().zip(&values).map(|(left, own)| (left[column] - own[column]).powi(2));
            Line {
                bound: *bound,
                scale: scales[column],
                is_advice: margins.iter().all(|row| row[column].is_advice),
                missed: (square.sum::<f64>() / values.len() as f64).sqrt(),
            }
        };
        let lines = everywhere.iter().enumerate().map(line).collect();
        Some(Self { lines, polynomial: fit.polynomial })
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
        self.lines.iter().zip(values).map(predicted).collect()
    }
}
