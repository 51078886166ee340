//! A few constants of the model fitted to a builder's own pull, and carried to every candidate.
//!
//! Which constants: those that a build document cannot know and that a pull can tell apart. Each has a stated range and
//! an expectation it is held near, so that noise in a pull cannot buy an absurd engine.

use super::super::resolve::{Gap, Part};
use super::constants::{Constants, pulled};
use super::ended::Ended;
use super::work::{Breathing, Effort};
use crate::gas::cycle::Halt;
use crate::given::{Missing, PullPart};
use crate::programme::{Rows, minimise};
use crate::shop_twin::Learned;
use crate::table::held;
use rayon::prelude::*;

/// Of one constant: range, how far from usual it is expected to lie, and the step its effect is found with (common
/// practice, no source).
struct Expected {
    range: (f64, f64),
    spread: f64,
    step: f64,
}

const EXPECTED: [Expected; 4] = [
    Expected { range: (0.88, 1.12), spread: 0.05, step: 0.03 },
    Expected { range: (0.6, 1.5), spread: 0.2, step: 0.15 },
    Expected { range: (0.92, 1.05), spread: 0.03, step: 0.02 },
    Expected { range: (-0.05, 0.08), spread: 0.03, step: 0.012 },
];
/// Error of one point of a good pull, as a share (common practice, no source).
pub const PULL_ERROR: f64 = 0.01;
/// Most speeds of a pull that are computed.
const MOST_SPEEDS: usize = 9;
/// Most rounds of the fit; it moves little after two.
const ROUNDS: usize = 3;

/// A pull as the fit takes it.
#[derive(Debug, Clone, PartialEq)]
pub struct Pull {
    /// rpm.
    pub speeds: Vec<f64>,
    /// At the crank in the plan's air, N m.
    pub torques: Vec<f64>,
    /// Boost level.
    pub level: usize,
}

/// An engine that was on the dyno, and what was measured of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Subject {
    /// The engine, without any calibration.
    pub breathing: Breathing,
    /// What was measured.
    pub pull: Pull,
}

/// The result of a fit.
#[derive(Debug, Clone, PartialEq)]
pub struct Fitted {
    /// The constants.
    pub constants: Constants,
    /// Torque before, N m, at the speeds of the pulls, one after another.
    pub before: Vec<f64>,
    /// Torque with the constants, N m.
    pub after: Vec<f64>,
    /// What each constant would have to be if it alone were to explain what is off, to first order and within its range, and the root
    /// mean square of the relative error that it leaves.
    pub alone: [(f64, f64); 4],
    /// What the shop's other builds may learn from it.
    pub learned: Learned,
}

/// Constants so many spreads from the usual ones, held in their ranges.
pub fn constants_at(spreads: &[f64; 4]) -> Constants {
    let usual: [f64; 4] = Constants::default().into();
    Constants::from(std::array::from_fn(|k| {
        let Expected { range: (least, most), spread, .. } = EXPECTED[k];
        (usual[k] + spreads[k] * spread).clamp(least, most)
    }))
}

/// How many spreads constants lie from the usual ones.
pub fn spreads_of(constants: &Constants) -> [f64; 4] {
    let (usual, own): ([f64; 4], [f64; 4]) = (Constants::default().into(), (*constants).into());
    std::array::from_fn(|k| (own[k] - usual[k]) / EXPECTED[k].spread)
}

/// By how much constants differ that are so many spreads apart.
pub fn widths(spreads: &[f64; 4]) -> [f64; 4] {
    std::array::from_fn(|k| spreads[k] * EXPECTED[k].spread)
}

/// Reads the pull of the document, thinned to speeds worth computing.
pub fn read_pull(part: &PullPart, breathing: &Breathing) -> Part<Pull> {
    if part.points.is_none() {
        return Err(Missing(vec![part.at("points")]).into());
    }
    let own = Pull::of(&pulled(part, &breathing.stated), part.level.as_deref(), breathing);
    own.ok_or_else(|| {
        let reason = "the pull needs at least three different speeds".to_owned();
        Gap { reason, needs: vec![part.at("points")] }
    })
}

impl Pull {
    /// Of points in rising speed, rpm and N m at the crank in the plan's air, thinned to speeds worth computing; `None` of fewer than
    /// three.
    pub fn of(points: &[(f64, f64)], level: Option<&str>, breathing: &Breathing) -> Option<Self> {
        let (speeds, torques) = thinned(points);
        let named = level.and_then(|name| breathing.air.levels.iter().position(|level| level.name == name));
        let level = named.unwrap_or_else(|| breathing.strongest());
        (speeds.len() >= 3).then_some(Self { speeds, torques, level })
    }
}

/// Evenly spaced speeds over those of `points`, each with the mean torque about it.
fn thinned(points: &[(f64, f64)]) -> (Vec<f64>, Vec<f64>) {
    let (Some(first), Some(last)) = (points.first(), points.last()) else { return (Vec::new(), Vec::new()) };
    let mut different: Vec<f64> = points.iter().map(|point| point.0).collect();
    different.dedup();
    let count = different.len().min(MOST_SPEEDS);
    let spacing = (last.0 - first.0) / (count.max(2) - 1) as f64;
    let near = |rpm: f64| {
        let within: Vec<f64> =
            points.iter().filter(|point| (point.0 - rpm).abs() <= 0.25 * spacing).map(|point| point.1).collect();
        if within.is_empty() { held(points, rpm) } else { within.iter().sum::<f64>() / within.len() as f64 }
    };
    (0..count).map(|i| first.0 + spacing * i as f64).map(|rpm| (rpm, near(rpm))).unzip()
}

/// Torques of `breathing`, which carries no calibration, at the speeds of `pull` with `constants`.
pub fn torques(
    breathing: &Breathing,
    pull: &Pull,
    constants: &Constants,
    effort: Effort,
    stop: &(dyn Fn() -> bool + Sync),
) -> Result<Vec<f64>, Ended> {
    breathing.can(effort)?;
    let mut setup = breathing.meshed(effort);
    constants.put_into(&mut setup);
    let run = |rpm: &f64| breathing.sample(&setup, (effort, pull.level), *rpm, stop).map(|sample| sample.torque);
    let found: Result<Vec<f64>, Halt> = pull.speeds.par_iter().map(run).collect();
    Ok(found?)
}

/// The same of several, one after another.
///
/// # Errors
/// That it was stopped, or could not be computed.
pub fn torques_of(
    subjects: &[Subject],
    constants: &Constants,
    effort: Effort,
    stop: &(dyn Fn() -> bool + Sync),
) -> Result<Vec<f64>, Ended> {
    let each = subjects.iter().map(|own| torques(&own.breathing, &own.pull, constants, effort, stop));
    Ok(each.collect::<Result<Vec<Vec<f64>>, Ended>>()?.concat())
}

/// Root mean square of the relative error of `torques`.
pub fn error(pull: &Pull, torques: &[f64]) -> f64 {
    root_mean_square(&relative(torques, &pull.torques))
}

fn relative(torques: &[f64], measured: &[f64]) -> Vec<f64> {
    torques.iter().zip(measured).map(|(found, measured)| found / measured - 1.0).collect()
}

/// Of relative errors.
pub fn root_mean_square(errors: &[f64]) -> f64 {
    (errors.iter().map(|own| own * own).sum::<f64>() / errors.len() as f64).sqrt()
}

/// Fits the constants to one or several pulls of engines that share them: Gauss and Newton's steps in their ranges on the relative errors of the torques, weighed against how
/// far each constant is expected to lie from its usual value [maximum a posteriori: Tarantola, *Inverse Problem Theory*,
/// ch. 3; from memory]. Their effects are found once, by differences. `tell` hears how many of how many curves are done.
pub fn fit(
    subjects: &[Subject],
    effort: Effort,
    stop: &(dyn Fn() -> bool + Sync),
    tell: impl Fn(usize, usize),
) -> Result<Fitted, Ended> {
    let curves = 1 + EXPECTED.len() + ROUNDS;
    let usual: [f64; 4] = Constants::default().into();
    let compute = |values: [f64; 4], done: usize| {
        let found = torques_of(subjects, &Constants::from(values), effort, stop);
        tell(done, curves);
        found
    };
    let measured: Vec<f64> = subjects.iter().flat_map(|own| own.pull.torques.iter().copied()).collect();
    let relative = |torques: &[f64]| relative(torques, &measured);
    let before = compute(usual, 1)?;
    let base = relative(&before);
    let mut effects: Vec<Vec<f64>> = Vec::with_capacity(EXPECTED.len());
    for (k, expected) in EXPECTED.iter().enumerate() {
        let mut moved = usual;
        moved[k] += expected.step;
        let after = relative(&compute(moved, 2 + k)?);
        effects.push(after.iter().zip(&base).map(|(a, b)| (a - b) / expected.step).collect());
    }
    let (mut best, mut best_cost) = ((usual, before.clone()), cost(&base, &usual));
    let mut at = best.clone();
    for round in 0..ROUNDS {
        let Some(next) = step(&at.0, &relative(&at.1), &effects) else { break };
        let after = compute(next, 2 + EXPECTED.len() + round)?;
        at = (next, after);
        let now = cost(&relative(&at.1), &at.0);
        if now >= best_cost {
            break;
        }
        let little = best_cost - now < 1e-3 * best_cost;
        (best, best_cost) = (at.clone(), now);
        if little {
            break;
        }
    }
    let alone = std::array::from_fn(|k| alone(k, &base, &effects[k]));
    Ok(Fitted { constants: Constants::from(best.0), before, after: best.1, alone, learned: learned(&base, &effects) })
}

/// What a fit leaves behind of the errors of the usual constants and of what each constant does to them.
fn learned(errors: &[f64], effects: &[Vec<f64>]) -> Learned {
    let over = |values: &[f64], by: f64| values.iter().map(|value| value * by / PULL_ERROR).collect::<Vec<f64>>();
    let effects: Vec<Vec<f64>> = effects.iter().zip(&EXPECTED).map(|(own, of)| over(own, of.spread)).collect();
    Learned::of(&over(errors, 1.0), std::array::from_fn(|k| effects[k].as_slice()))
}

/// One constant by itself against the errors of the usual ones: least squares, held in its range.
fn alone(k: usize, errors: &[f64], effect: &[f64]) -> (f64, f64) {
    let usual: [f64; 4] = Constants::default().into();
    let along: f64 = effect.iter().zip(errors).map(|(effect, error)| effect * error).sum();
    let squares: f64 = effect.iter().map(|effect| effect * effect).sum();
    let (least, most) = EXPECTED[k].range;
    let value = (usual[k] - if squares > 0.0 { along / squares } else { 0.0 }).clamp(least, most);
    let left: Vec<f64> = errors.iter().zip(effect).map(|(error, effect)| error + effect * (value - usual[k])).collect();
    (value, root_mean_square(&left))
}

/// Half the sum of squares that the fit makes small.
fn cost(errors: &[f64], values: &[f64; 4]) -> f64 {
    let usual: [f64; 4] = Constants::default().into();
    let misfit: f64 = errors.iter().map(|error| (error / PULL_ERROR).powi(2)).sum();
    let strange: f64 = (0..4).map(|k| ((values[k] - usual[k]) / EXPECTED[k].spread).powi(2)).sum();
    0.5 * (misfit + strange)
}

/// The values that make the linearised cost least within their ranges.
fn step(values: &[f64; 4], errors: &[f64], effects: &[Vec<f64>]) -> Option<[f64; 4]> {
    let usual: [f64; 4] = Constants::default().into();
    // In spreads of each constant the programme is well scaled.
    let scaled = |k: usize, i: usize| effects[k][i] * EXPECTED[k].spread / PULL_ERROR;
    let now = |k: usize| (values[k] - usual[k]) / EXPECTED[k].spread;
    let count = errors.len();
    let (mut quadratic, mut linear, mut at_most) = (Vec::new(), [0.0; 4], Rows::default());
    for k in 0..4 {
        for j in 0..=k {
            let product: f64 = (0..count).map(|i| scaled(k, i) * scaled(j, i)).sum();
            quadratic.push((j, k, product + f64::from(u8::from(j == k))));
        }
        let pull: f64 = (0..count)
            .map(|i| scaled(k, i) * (errors[i] / PULL_ERROR - (0..4).map(|j| scaled(j, i) * now(j)).sum::<f64>()))
            .sum();
        linear[k] = pull;
        let (least, most) = EXPECTED[k].range;
        at_most.push([(k, 1.0)], (most - usual[k]) / EXPECTED[k].spread);
        at_most.push([(k, -1.0)], (usual[k] - least) / EXPECTED[k].spread);
    }
    let (_, found) = minimise(4, &quadratic, &linear, Rows::default(), at_most)?;
    Some(std::array::from_fn(|k| usual[k] + found[k] * EXPECTED[k].spread))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_pull_of_hundreds_of_lines_becomes_speeds_worth_computing() {
        let points: Vec<(f64, f64)> =
            (0..401).map(|i| (2000.0 + 10.0 * f64::from(i), 400.0 + f64::from(i % 2))).collect();
        let (speeds, torques) = thinned(&points);
        assert_eq!((speeds.len(), speeds[0], speeds[8]), (9, 2000.0, 6000.0));
        assert!(torques.iter().all(|torque| (torque - 400.5).abs() < 0.05), "{torques:?}");
        assert_eq!(thinned(&[(3000.0, 1.0), (3000.0, 2.0)]).0.len(), 1);
    }

    #[test]
    fn the_step_finds_what_made_the_errors_and_stays_in_range() {
        // Four constants whose effects over six speeds are unlike: errors of known constants, by hand.
        let effects: Vec<Vec<f64>> = vec![
            (0..6).map(|i| 0.1 * f64::from(i)).collect(),
            (0..6).map(|i| -0.02 * f64::from(i * i)).collect(),
            vec![1.0; 6],
            (0..6).map(|i| 3.0 * f64::from(i).sin()).collect(),
        ];
        let truth = [1.03, 1.2, 0.97, 0.02];
        let usual = [1.0, 1.0, 1.0, 0.0];
        let errors: Vec<f64> =
            (0..6).map(|i| -(0..4).map(|k| effects[k][i] * (truth[k] - usual[k])).sum::<f64>()).collect();
        let found = step(&usual, &errors, &effects).unwrap();
        // What is expected pulls the answer a little towards the usual values.
        for k in 1..4 {
            assert!((found[k] - truth[k]).abs() < 0.35 * (truth[k] - usual[k]).abs(), "{k}: {found:?}");
        }
        let absurd: Vec<f64> = errors.iter().map(|e| e * 100.0).collect();
        let held = step(&usual, &absurd, &effects).unwrap();
        for k in 0..4 {
            let (least, most) = EXPECTED[k].range;
            assert!((least - 1e-6..=most + 1e-6).contains(&held[k]), "{k}: {held:?}");
        }
    }
}
