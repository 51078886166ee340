//! The whole computation in drawn cylinders: what the responses are held against, and what decides where they fail.

use super::fields::Field;
use super::overlap::{Band, Gaps, bands, gaps};
use super::responses::Responded;
use super::strays::{Depth, Quick, wanted};
use crate::candidate::{Resolved, Stages};
use crate::document::Side;
use crate::limits::{Case, Findings};
use crate::response::root_mean_square;
use crate::tolerance::Cast;
use rayon::prelude::*;

/// One limit's runs in full beside its response.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Agreement {
    /// Runs.
    pub runs: usize,
    /// By how much more is left in full than the response says, in the mean, SI.
    pub bias: f64,
    /// Root mean square of what the response is off by about that.
    pub scatter: f64,
    /// Mean of what is left in full, SI.
    pub mean: f64,
    /// Standard deviation of it.
    pub sd: f64,
    /// Share of the runs in which response and run do not agree whether it is met.
    pub disagree: f64,
    /// Share of cylinders that fail in full.
    pub fails_one: f64,
    /// Share of engines with any that fails in full.
    pub fails_any: f64,
}

impl Agreement {
    /// What the response is off by, bias and scatter together, SI.
    pub fn off(&self) -> f64 {
        self.bias.hypot(self.scatter)
    }
}

/// One cylinder in full.
struct Cylinder {
    /// What every field was off by.
    deviations: Vec<f64>,
    /// What is left of every limit; `None` where the rule no longer speaks.
    margins: Vec<Option<f64>>,
    /// Its gaps over the overlap.
    gaps: Gaps,
}

/// The cylinders of one engine.
type Engine = Vec<Cylinder>;

/// What came of it.
pub struct InFull {
    /// Every limit beside its response.
    pub limits: Vec<Agreement>,
    /// Gaps over the overlap, intake and exhaust.
    pub overlap: [Option<Band>; 2],
}

/// How a cylinder is run in full.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Run {
    /// Its gaps, loads and fits; what long work found stands.
    Metal,
    /// With its gas and its trains, as quickly as its strays were.
    GasAndTrains,
}

/// Runs the cylinders of so many engines in full and holds every limit's response against them. `stop` ends it with `None`.
pub fn run_in_full(
    resolved: &Resolved,
    fields: &[Field],
    findings: &Findings,
    limits: &[Responded],
    (run, cast): (Run, &Cast),
    stop: &(dyn Fn() -> bool + Sync),
) -> Option<InFull> {
    let kept = Stages::default();
    let anew = if run == Run::GasAndTrains { wanted(findings) } else { (false, false) };
    let quick = Quick::of(resolved, anew, &kept, stop)?;
    let found = |moved: &Resolved| match quick.strayed(moved, Depth::Everything) {
        Some(strayed) => findings.moved_by(&strayed),
        None => findings.clone(),
    };
    let variables: Vec<_> = fields.iter().map(|field| field.variable).collect();
    let count = variables.len();
    let run = |engine: usize| -> Engine {
        // Lobes and gaps of cylinders that nobody builds are not kept.
        let stages = Stages::default();
        let cylinder = |own: &[f64]| {
            let mut given = resolved.given.clone();
            for (field, deviation) in fields.iter().zip(own) {
                given.shift(field.place, *deviation);
            }
            let moved = Resolved::new(given, &stages);
            let case = Case { resolved: &moved, findings: &found(&moved), stages: &stages, side: Side::Intake };
            let margin = |limit: &Responded| limit.rule.judge(limit.side, case)?.found.ok().map(|found| found.margin());
            Cylinder { deviations: own.to_vec(), margins: limits.iter().map(margin).collect(), gaps: gaps(&moved) }
        };
        let mut deviations = vec![0.0; cast.cylinders * count];
        cast.draw(&variables, engine, &mut deviations);
        deviations.chunks_exact(count).map(cylinder).collect()
    };
    let engines: Vec<Engine> =
        (0..cast.engines).into_par_iter().map(|engine| if stop() { Vec::new() } else { run(engine) }).collect();
    if stop() {
        return None;
    }
    let of = |(place, limit): (usize, &Responded)| agreement(place, limit, &engines);
    let found = limits.iter().enumerate().map(of).collect();
    let all: Vec<Gaps> = engines.into_iter().flatten().map(|cylinder| cylinder.gaps).collect();
    Some(InFull { limits: found, overlap: bands(&all) })
}

fn agreement(place: usize, limit: &Responded, engines: &[Engine]) -> Agreement {
    let (mut own, mut off, mut all, mut fails_any) = (Agreement::default(), Vec::new(), Vec::new(), 0);
    for cylinders in engines {
        let mut any = false;
        for cylinder in cylinders {
            let foreseen = limit.margin.at(&cylinder.deviations);
            // A rule that no longer speaks does not fail.
            let met = cylinder.margins[place].is_none_or(|margin| margin >= 0.0);
            own.runs += 1;
            off.extend(cylinder.margins[place].map(|margin| margin - foreseen));
            all.extend(cylinder.margins[place]);
            own.disagree += f64::from(u8::from(met != (foreseen >= 0.0)));
            own.fails_one += f64::from(u8::from(!met));
            any |= !met;
        }
        fails_any += usize::from(any);
    }
    let runs = own.runs.max(1) as f64;
    let ((bias, scatter), (mean, sd)) = (mean_and_sd(&off), mean_and_sd(&all));
    Agreement {
        bias,
        scatter,
        mean,
        sd,
        disagree: own.disagree / runs,
        fails_one: own.fails_one / runs,
        fails_any: fails_any as f64 / engines.len().max(1) as f64,
        ..own
    }
}

/// Mean, and root of the mean square about it.
fn mean_and_sd(values: &[f64]) -> (f64, f64) {
    let mean = values.iter().sum::<f64>() / values.len().max(1) as f64;
    (mean, root_mean_square(values.iter().map(|value| value - mean)))
}
