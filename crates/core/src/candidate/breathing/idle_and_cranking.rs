//! What an engine does at the ends of its work: idle, and what a gauge reads while the starter turns it.

use super::ended::Ended;
use super::engine::COARSEST;
use super::work::{Breathing, Effort};
use crate::gas::cycle::{Halt, Mode, Run};
use crate::gas::setup::{Around, Combustion, Mesh, Point, Setup};
use crate::quantity::shown_vacuum;
use crate::report::{IdleQuality, IdleReport};
use std::f64::consts::PI;

/// What alternator, pump and converter take at idle beyond friction, mean effective pressure in Pa (assumed).
const IDLE_LOAD: f64 = 0.10e5;
/// Manifold pressures between which an idle is sought, of outside pressure.
const BETWEEN: (f64, f64) = (0.2, 0.98);
/// Good enough: mean effective pressure left over, Pa.
const STEADY: f64 = 2e3;
/// Most manifold pressures tried.
const MOST_TRIES: usize = 14;
/// Burned shares up to which an idle is smooth, and lopes (common practice, no source; the model's run some hundredths
/// higher than measured ones).
const SMOOTH: f64 = 0.38;
const LOPES: f64 = 0.50;

/// Idle and cranking of an engine.
#[derive(Debug, Clone, PartialEq)]
pub struct IdleAndCranking {
    /// Idle, for a spark engine whose idle speed is known.
    pub idle: Option<IdleReport>,
    /// Highest cylinder pressure at cranking speed, Pa over outside; rings and valves that leak nothing.
    pub cranking: f64,
}

impl Breathing {
    /// Idle and cranking, on the coarse mesh with one cylinder.
    pub fn idle_and_cranking(&self, stop: &(dyn Fn() -> bool + Sync)) -> Result<IdleAndCranking, Ended> {
        let setup = self.meshed(Effort::Screening);
        let air = (self.air.pressure, self.air.temperature);
        let around = Around::open(air.0, air.1);
        let cranking = Run { setup: &setup, mode: Mode::Fast, around, fires: false, stop }.point(self.cranking);
        let cranking = cranking?.0.peak_pressure - air.0;
        Ok(IdleAndCranking { idle: self.idle_on(&setup, stop)?, cranking })
    }

    /// Vacuum at idle, Pa below the air outside: as a result has it, or quickly, on the coarsest mesh, within .1 inHg of that
    /// where the engine idles at more than 10 inHg and .4 below (measured on the demo builds). `None` where it does not idle on
    /// a throttle.
    pub fn idle_vacuum(&self, is_quick: bool, stop: &(dyn Fn() -> bool + Sync)) -> Result<Option<f64>, Ended> {
        let mut setup = self.meshed(Effort::Screening);
        if is_quick {
            (setup.mesh, setup.begun_on) = (Mesh { repeats: setup.mesh.repeats, ..COARSEST }, None);
        }
        let idle = self.idle_on(&setup, stop)?;
        Ok(idle.map(|idle| 1e3 * idle.vacuum_kpa.unwrap_or(0.0)))
    }

    /// Idle, for a spark engine whose idle speed is known.
    fn idle_on(&self, setup: &Setup, stop: &(dyn Fn() -> bool + Sync)) -> Result<Option<IdleReport>, Ended> {
        let air = (self.air.pressure, self.air.temperature);
        match (self.idle, &setup.combustion) {
            (Some(rpm), Combustion::Spark { .. }) => Ok(Some(idle(setup, air, rpm, stop)?)),
            _ => Ok(None),
        }
    }
}

/// The manifold pressure at which the engine just turns itself and what hangs on it, by the Illinois rule: work rises with
/// it, slowly while the residual smothers the flame and then fast.
fn idle(setup: &Setup, air: (f64, f64), rpm: f64, stop: &(dyn Fn() -> bool + Sync)) -> Result<IdleReport, Halt> {
    let at = |share: f64| {
        let around = Around { supply: (share * air.0, air.1), throttled: false, ..Around::open(air.0, air.1) };
        let (point, _) = Run { setup, mode: Mode::Fast, around, fires: true, stop }.point(rpm)?;
        Ok((left_over(setup, &point), point))
    };
    let (mut low, mut high) = BETWEEN;
    let (mut left_high, mut found) = at(high)?;
    if left_high <= 0.0 {
        return Ok(idle_report(&found, None));
    }
    let (mut left_low, mut share) = (at(low)?.0, low);
    for _ in 2..MOST_TRIES {
        if left_low >= 0.0 || high - low < 2e-3 {
            break;
        }
        share = (low * left_high - high * left_low) / (left_high - left_low);
        let (left, point) = at(share)?;
        found = point;
        if left.abs() < STEADY {
            break;
        }
        if left > 0.0 {
            (high, left_high, left_low) = (share, left, 0.5 * left_low);
        } else {
            (low, left_low, left_high) = (share, left, 0.5 * left_high);
        }
    }
    Ok(idle_report(&found, Some(1e-3 * air.0 * (1.0 - share))))
}

fn idle_report(point: &Point, vacuum_kpa: Option<f64>) -> IdleReport {
    let quality = match point.residual {
        x if x <= SMOOTH => IdleQuality::Smooth,
        x if x <= LOPES => IdleQuality::Lopes,
        _ => IdleQuality::Rough,
    };
    IdleReport {
        rpm: point.rpm,
        vacuum: vacuum_kpa.map(|kpa| shown_vacuum(1e3 * kpa)),
        vacuum_kpa,
        residual_fraction: point.residual,
        quality,
        repeats: point.converged,
    }
}

/// Brake mean effective pressure beyond what an idling engine has to turn, Pa.
fn left_over(setup: &Setup, point: &Point) -> f64 {
    point.torque * 4.0 * PI / (setup.swept() * setup.cylinders) - IDLE_LOAD
}
