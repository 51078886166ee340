//! Speeds, draws, and where control is lost.

use super::ranges::Unmeasured;
use super::train::{SideTrain, Turnable};
use crate::dynamics::limit::{LimitedBy, crossing, lost, worst};
use crate::dynamics::measure::{Figures, Window};
use crate::dynamics::model::Model;
use crate::dynamics::run::{Case, GROUP, RECORDS, Turned, turn};
use crate::gas::over_cycle::{cycle, on_cycle};
use crate::quantity::INCH;

/// Highest speed a limit is looked for at, and steps on the way, rpm.
pub const LOOKED_TO: f64 = 10_000.0;
const STEP: f64 = 200.0;
/// Gap, bounce or hang-open that counts as lost control where nobody says, m.
pub const THRESHOLD: f64 = 0.020 * INCH;
/// Share of it up to which a hold is firm: what a valve does there hangs smoothly on the cam.
const FIRM: f64 = 0.5;

/// Speeds a limit is looked for at, rising, where the train must bear `top`, rpm.
pub fn looked_at(top: f64) -> Vec<f64> {
    let first = ((0.4 * top / STEP).floor() * STEP).clamp(STEP, LOOKED_TO - STEP);
    let steps = ((LOOKED_TO - first) / STEP) as usize;
    (0..=steps).map(|i| STEP.mul_add(i as f64, first)).collect()
}

/// One speed of one train.
#[derive(Debug, Clone)]
pub struct Sample {
    /// Of the crank.
    pub rpm: f64,
    /// The worse of its last two cycles.
    pub figures: Figures,
    /// The cycles themselves.
    pub turned: Turned,
}

/// The worse of the last two cycles in each figure.
fn judged(turned: &Turned, window: &Window) -> Figures {
    let [last, before] = &turned.cycles;
    Figures::of(last, window).worse(Figures::of(before, window))
}

/// Many models at many speeds, groups of four side by side on all cores; in the order asked.
pub(super) fn many(
    side: &SideTrain<'_>,
    models: &[Model],
    cases: &[(usize, f64)],
    stop: &(dyn Fn() -> bool + Sync),
) -> Vec<Sample> {
    use rayon::prelude::*;
    let groups = cases.par_chunks(GROUP).map(|group| {
        if stop() {
            return Vec::new();
        }
        let cases: Vec<Case<'_>> = group
            .iter()
            .map(|(model, rpm)| Case { model: &models[*model], rpm: *rpm, gas: side.gas.at(*rpm) })
            .collect();
        let turned = turn(side.lobe, &cases);
        turned
            .into_iter()
            .zip(group)
            .map(|(turned, (_, rpm))| Sample { rpm: *rpm, figures: judged(&turned, &side.window), turned })
            .collect()
    });
    groups.collect::<Vec<_>>().into_iter().flatten().collect()
}

/// The train with these unmeasured values at every speed; empty where it has no model or was stopped.
pub fn sweep(
    side: &SideTrain<'_>,
    unmeasured: &Unmeasured,
    speeds: &[f64],
    stop: &(dyn Fn() -> bool + Sync),
) -> Vec<Sample> {
    let Some(model) = side.model(unmeasured) else { return Vec::new() };
    let cases: Vec<(usize, f64)> = speeds.iter().map(|rpm| (0, *rpm)).collect();
    many(side, &[model], &cases, stop)
}

/// How a valve moves at one speed.
#[derive(Debug, Clone, PartialEq)]
pub struct TurnedLift {
    /// Its lift over the cycle, m, in the table of gas exchange: every half degree from firing top.
    pub lift: Vec<f64>,
    /// Whether the train keeps a firm hold of it.
    pub is_in_control: bool,
}

impl TurnedLift {
    /// Lift at a crank degree from firing top, m.
    pub fn at(&self, crank_deg: f64) -> f64 {
        on_cycle(&self.lift, crank_deg.rem_euclid(720.0))
    }
}

/// Lift at a crank degree from firing top, of the lifts at every record, the first `begins_at` degrees after it.
pub(super) fn lift_at(valve: &[f64], begins_at: f64, crank_deg: f64) -> f64 {
    // A record holds the lift at its end.
    let place = (crank_deg - begins_at - 1.0).rem_euclid(RECORDS as f64);
    let (low, share) = (place as usize % RECORDS, place.fract());
    (1.0 - share) * valve[low] + share * valve[(low + 1) % RECORDS]
}

/// How the valve moves at every speed; empty where it was stopped.
pub fn lifts_over(train: &Turnable, speeds: &[f64], stop: &(dyn Fn() -> bool + Sync)) -> Vec<TurnedLift> {
    use rayon::prelude::*;
    let groups = speeds.par_chunks(GROUP).map(|group| {
        if stop() {
            return Vec::new();
        }
        let case = |rpm: &f64| Case { model: &train.model, rpm: *rpm, gas: &train.gas };
        let turned = turn(&train.lobe, &group.iter().map(case).collect::<Vec<_>>());
        let moved = |turned: &Turned| {
            let lift = cycle().map(|deg| lift_at(&turned.cycles[0].valve, train.begins_at, deg)).collect();
            TurnedLift { lift, is_in_control: worst(&judged(turned, &train.window)) <= FIRM * THRESHOLD }
        };
        turned.iter().map(moved).collect()
    });
    groups.collect::<Vec<Vec<TurnedLift>>>().into_iter().flatten().collect()
}

/// Where each of the trains loses control: the speed, and what loses it; `None` where it never does within `speeds`.
pub fn lost_at(
    side: &SideTrain<'_>,
    models: &[Model],
    speeds: &[f64],
    threshold: f64,
    stop: &(dyn Fn() -> bool + Sync),
) -> Vec<Option<(f64, LimitedBy)>> {
    let cases: Vec<(usize, f64)> =
        speeds.iter().flat_map(|rpm| (0..models.len()).map(move |model| (model, *rpm))).collect();
    let samples = many(side, models, &cases, stop);
    if samples.len() < cases.len() {
        return Vec::new();
    }
    (0..models.len())
        .map(|model| {
            let own: Vec<&Figures> = (0..speeds.len()).map(|i| &samples[i * models.len() + model].figures).collect();
            let sizes: Vec<f64> = own.iter().map(|figures| worst(figures)).collect();
            let at = crossing(speeds, &sizes, threshold)?;
            let first = speeds.partition_point(|rpm| *rpm < at).min(speeds.len() - 1);
            Some((at, lost(own[first], threshold, side.preload, side.open_load()).unwrap_or(LimitedBy::Separation)))
        })
        .collect()
}
