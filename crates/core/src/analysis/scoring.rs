//! The score board as a job: a whole curve of every candidate, its trains turned by the usual, every limit held against it.

use super::curve::{deepest_curve, gas_finding};
use super::score_columns::{Column, Known};
use crate::build::Build;
use crate::candidate::breathing::Ended;
use crate::candidate::{Key, Resolved, Stages, key, motion_of_valves, worded};
use crate::choose::{Beside, Better, Goal, Interval, Standing, guide_wear, in_motion, interval, points_of, ranks};
use crate::document::{CandidateView, Fault, Ledger};
use crate::given::{Given, Source};
use crate::limits::{ControlFinding, Findings, limits};
use crate::quantity::{Dimension, Shown, UnitSystem, shown};
use crate::report::{PowerCosts, ScoreColumn, ScoreReport, ScoreRow};
use crate::words::{Scored, Word};
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// Share by which life or pressure must differ to be told.
const TOLD_APART: f64 = 0.02;

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoreStep {
    /// Candidates computed.
    pub done: usize,
    /// Candidates in all.
    pub of: usize,
    /// The board of those that are there.
    pub report: Box<ScoreReport>,
}

/// Scoring every candidate of a document.
pub struct ScoreJob {
    build: Build,
    columns: Vec<Column>,
    stages: Arc<Stages>,
}

impl ScoreJob {
    /// Of a document with at least one candidate.
    ///
    /// # Errors
    /// A fault where there is none.
    pub fn new(build: &Build, stages: Arc<Stages>) -> Result<Self, Fault> {
        let views = build.candidates();
        let Some(first) = views.first() else { return Err(Fault::new("candidates", "none", "a candidate to score")) };
        let is_raced = Resolved::of(first, &stages).given.purpose.is_raced();
        Ok(Self { columns: Column::all(first, is_raced), build: build.clone(), stages })
    }

    /// A candidate as far as it is known.
    fn scored(&self, view: &CandidateView<'_>, stop: &(dyn Fn() -> bool + Sync)) -> Result<Candidate, Halted> {
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let resolved = Resolved::new(Given::read(&source), &self.stages);
        let (curve, lacks) = match deepest_curve(&resolved, &self.stages, stop) {
            Ok(curve) => (Some(curve), None),
            Err(Ended::Stopped) => return Err(Halted::Stopped),
            Err(Ended::Gap(gap)) => {
                let (reason, needs) = worded(&gap, &source);
                let needs: Vec<&str> = needs.iter().map(|need| need.label.as_str()).collect();
                (None, Some(if needs.is_empty() { reason } else { format!("{reason}: {}", needs.join(", ")) }))
            }
        };
        let control = in_motion(&resolved, &self.stages, stop);
        if stop() {
            return Err(Halted::Stopped);
        }
        let interval = interval(&resolved);
        let beside = Beside {
            control: control
                .as_ref()
                .map(ControlFinding::least_rpm)
                .zip(resolved.top_speed())
                .map(|(rpm, top)| rpm - top.as_rpm()),
            interval: interval.map(|interval| interval.count),
            money: resolved.given.money(),
        };
        let moved = motion_of_valves(&resolved, &self.stages);
        let gas = curve.as_ref().map(|curve| gas_finding(&curve.report));
        let judgement = limits(&resolved, &Findings { gas, control, moved }, &self.stages);
        let known = Known { curve: curve.as_ref().map(|curve| &curve.report), judgement: &judgement, beside };
        let column = |scored: Scored| Column { scored, weight: 1.0, from: None, to: None }.value(&known);
        Ok(Candidate {
            id: view.id.clone(),
            name: view.name.clone(),
            values: self.columns.iter().map(|column| column.value(&known)).collect(),
            over: self.columns.iter().map(|column| column.over(known.curve?)).collect(),
            broken: Standing::of(&judgement).fails().iter().map(|margin| margin.bound.title()).collect(),
            costs: PowerCosts {
                peak_power_kw: column(Scored::PeakPower),
                interval: beside.interval,
                counted_in: interval.map_or(String::new(), |interval| interval.counted_in.word().to_owned()),
                guide_wear: guide_wear(&resolved, &judgement),
                money_usd: beside.money,
                control_rpm: beside.control.map(f64::round),
            },
            interval,
            lacks,
        })
    }

    /// The board of those that are there.
    fn board(&self, found: &[Candidate]) -> ScoreReport {
        let column = |place: usize| found.iter().map(|own| own.values[place]).collect::<Vec<_>>();
        let all: Vec<Vec<usize>> =
            (0..self.columns.len()).map(|place| ranks(&column(place), self.columns[place].scored.better())).collect();
        let weights: Vec<f64> = self.columns.iter().map(|column| column.weight).collect();
        let points = points_of(&all, &weights, found.len());
        let known: Vec<Option<f64>> = points.iter().copied().map(Some).collect();
        let places = ranks(&known, Better::Lower);
        let row = |(at, own): (usize, &Candidate)| ScoreRow {
            candidate: own.id.clone(),
            name: own.name.clone(),
            values: own.values.clone(),
            shown: self
                .columns
                .iter()
                .zip(&own.values)
                .map(|(column, value)| Some(column.shown((*value)?, own.interval)))
                .collect(),
            ranks: all.iter().map(|column| column[at]).collect(),
            points: points[at],
            place: places[at],
            broken: own.broken.clone(),
            lacks: own.lacks.clone(),
            costs: own.costs.clone(),
        };
        let heading = |(place, column): (usize, &Column)| ScoreColumn {
            id: column.scored.word().to_owned(),
            title: column.scored.title().to_owned(),
            unit: column.scored.unit().to_owned(),
            weight: column.weight,
            better: column.scored.better(),
            over_rpm: found.iter().find_map(|own| own.over[place]).map(|(from, to)| [from, to]),
        };
        ScoreReport {
            columns: self.columns.iter().enumerate().map(heading).collect(),
            rows: found.iter().enumerate().map(row).collect(),
            last_power: last_power(found),
        }
    }
}

/// A candidate as it is scored.
struct Candidate {
    id: String,
    name: String,
    values: Vec<Option<f64>>,
    over: Vec<Option<(f64, f64)>>,
    broken: Vec<String>,
    costs: PowerCosts,
    interval: Option<Interval>,
    lacks: Option<String>,
}

/// What the most powerful candidate that keeps every limit takes beside the next most powerful that does.
fn last_power(found: &[Candidate]) -> Option<Shown> {
    let mut sound: Vec<(f64, &Candidate)> = found
        .iter()
        .filter(|own| own.broken.is_empty())
        .filter_map(|own| Some((own.costs.peak_power_kw?, own)))
        .collect();
    sound.sort_by(|a, b| b.0.total_cmp(&a.0));
    let [(most, own), (next, other), ..] = sound.as_slice() else { return None };
    if most - next < 0.05 {
        return None;
    }
    let words = |system: UnitSystem| {
        let costs = costs(&own.costs, &other.costs, system);
        let costs = if costs.is_empty() { "nothing that is told apart".to_owned() } else { costs.join(", ") };
        let power = shown((most - next) * 1e3, Dimension::Power).read(system);
        format!("The last {power}, {} over {}: {costs}", own.name, other.name)
    };
    Some(Shown { inch: words(UnitSystem::Inch), metric: words(UnitSystem::Metric) })
}

/// What one candidate takes beside another, as far as it is told apart.
fn costs(own: &PowerCosts, other: &PowerCosts, system: UnitSystem) -> Vec<String> {
    let word = |one: f64, two: f64| if one > two { "more" } else { "less" };
    let apart = |one: f64, two: f64| (one / two - 1.0).abs() > TOLD_APART;
    let both = |one: Option<f64>, two: Option<f64>| one.zip(two);
    let springs = both(own.interval, other.interval).filter(|(one, two)| apart(*one, *two)).map(|(one, two)| {
        let read = |count: f64| Goal::Life.shown(count, &own.counted_in).inch;
        format!("springs looked at after {} instead of {}", read(one), read(two))
    });
    let guides = both(own.guide_wear, other.guide_wear).filter(|(one, two)| apart(*one, *two)).map(|(one, two)| {
        format!("guides wear {:.0} % {}", 100.0 * (one / two - 1.0).abs(), if one > two { "quicker" } else { "slower" })
    });
    let (one, two) = (own.money_usd, other.money_usd);
    let money = ((one - two).abs() >= 1.0)
        .then(|| format!("{} {}", shown((one - two).abs(), Dimension::Money).read(system), word(one, two)));
    let control = both(own.control_rpm, other.control_rpm).filter(|(one, two)| (one - two).abs() >= 10.0);
    let control =
        control.map(|(one, two)| format!("{:.0} rpm {} reserve of control", (one - two).abs(), word(one, two)));
    [springs, guides, money, control].into_iter().flatten().collect()
}

impl Job for ScoreJob {
    type Step = ScoreStep;
    type Done = ScoreReport;

    fn key(&self) -> Key {
        key(&(self.build.text(), "score"))
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<ScoreReport>> {
        self.stages.scores.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, ScoreStep>) -> Result<Arc<ScoreReport>, Halted> {
        let views = self.build.candidates();
        let mut found = Vec::with_capacity(views.len());
        for view in &views {
            found.push(self.scored(view, watch.stop)?);
            if found.len() < views.len() {
                let report = Box::new(self.board(&found));
                (watch.report)(ScoreStep { done: found.len(), of: views.len(), report });
            }
        }
        let report = Arc::new(self.board(&found));
        self.stages.scores.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }
}
