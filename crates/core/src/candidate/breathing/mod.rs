//! Torque and power of a candidate: its document resolved to an engine that breathes ([`engine`], [`port`], [`outside`], [`rubbing`]) and the
//! air around it ([`air`]); speeds computed point by point ([`work`]); the curve made of them ([`curve`], [`balance`], [`odd`], [`dips`],
//! [`crate::pulls::air`]); idle and cranking ([`idle_and_cranking`]); the constants a pull can settle ([`constants`]), fitted to one ([`calibration`]).

mod air;
mod balance;
pub mod calibration;
pub mod constants;
mod curve;
mod dips;
mod ended;
mod engine;
mod idle_and_cranking;
mod odd;
mod outside;
mod port;
mod rubbing;
mod stated;
mod work;

pub use air::{Air, Charger, Level};
pub use curve::{report, trace};
pub use ended::Ended;
pub(super) use engine::firing;
pub use idle_and_cranking::IdleAndCranking;
pub use outside::{is_manifold_known, usual_manifold};
pub use port::ESTIMATED_FLOW;
pub use rubbing::BEARINGS_OF_BORE;
pub use stated::{Stated, standard_of};
pub use work::{Breathing, Effort, Sample, breathing_of, breathing_uncalibrated};

use super::resolve::Part;
use crate::gas::cycle::Halt;
use crate::gas::setup::Setup;
use crate::report::BreathingReport;
use rayon::prelude::*;

/// The whole curve of what a candidate was resolved to, on its strongest boost level.
pub fn curve(breathing: &Breathing, effort: Effort) -> Part<BreathingReport> {
    let level = breathing.strongest();
    let samples = samples(breathing, (effort, level), &|| false, |_| ()).map_err(Ended::gap)?;
    Ok(report(breathing, effort, level, &samples, None))
}

/// Every sample of a curve in rising speed; `tell` hears of each as it comes, in any order, and `stop` ends the work.
pub fn samples(
    breathing: &Breathing,
    (effort, level): (Effort, usize),
    stop: &(dyn Fn() -> bool + Sync),
    tell: impl Fn(&Sample) + Sync,
) -> Result<Vec<Sample>, Ended> {
    let speeds = breathing.speeds(effort);
    let (setup, mut samples) = begun(breathing, (effort, level), &speeds, stop, &tell)?;
    let run = |rpm: &f64| breathing.sample(&setup, (effort, level), *rpm, stop).inspect(&tell);
    let bends = breathing.bends(effort, &samples);
    samples.extend(bends.par_iter().map(run).collect::<Result<Vec<Sample>, Halt>>()?);
    samples.sort_by(|a, b| a.point.rpm.total_cmp(&b.point.rpm));
    Ok(samples)
}

/// Samples at these speeds, rpm, and no others: what curves of two engines that hardly differ are held against each other by.
pub fn samples_at(
    breathing: &Breathing,
    (effort, level): (Effort, usize),
    speeds: &[f64],
    stop: &(dyn Fn() -> bool + Sync),
) -> Result<Vec<Sample>, Ended> {
    Ok(begun(breathing, (effort, level), speeds, stop, &|_: &Sample| ())?.1)
}

/// The set-up turned at these speeds, and its samples there.
fn begun(
    breathing: &Breathing,
    (effort, level): (Effort, usize),
    speeds: &[f64],
    stop: &(dyn Fn() -> bool + Sync),
    tell: &(impl Fn(&Sample) + Sync),
) -> Result<(Setup, Vec<Sample>), Ended> {
    breathing.can(effort)?;
    let setup = breathing.turned(effort, speeds, stop);
    let run = |rpm: &f64| breathing.sample(&setup, (effort, level), *rpm, stop).inspect(tell);
    let samples = speeds.par_iter().map(run).collect::<Result<Vec<Sample>, Halt>>()?;
    Ok((setup, samples))
}
