//! What the runners breathe from: a steady pressure, or plenums behind a throttle.

use super::breather::Breather;
use super::ends::End;
use super::nozzle::mass_flow;
use super::plenum::{Inflow, Plenum};
use super::setup::Setup;
use super::state::Gas;

/// What the runners breathe from.
pub(super) enum Upstream {
    /// A pressure that follows the mean flow through the throttle, K beside it.
    Steady(f64, f64),
    /// The plenums themselves, and the one each cylinder breathes from.
    Filled(Vec<Plenum>, Vec<usize>),
}

impl Upstream {
    /// Mean pressure of all there is, Pa.
    pub fn pressure(&self) -> f64 {
        match self {
            Self::Steady(pressure, _) => *pressure,
            Self::Filled(plenums, _) => plenums.iter().map(Plenum::pressure).sum::<f64>() / plenums.len() as f64,
        }
    }

    /// What a step brings: air through the throttle of `area` (m2) from `supply` (Pa, K), less what the runners took.
    pub fn step(&mut self, area: f64, supply: (f64, f64), cylinders: &[Breather], time: f64) {
        let Self::Filled(plenums, of) = self else { return };
        let share = area / plenums.len() as f64;
        for (plane, plenum) in plenums.iter_mut().enumerate() {
            let through = plenum.through(share, supply, time);
            let own = cylinders.iter().zip(&*of).filter(|(_, its)| **its == plane);
            let runners = own.map(|(cylinder, _)| {
                let (flow, temperature, burned) = cylinder.mouth();
                Inflow { mass: -flow * time, temperature, burned }
            });
            plenum.take(runners.chain(std::iter::once(through)));
        }
    }

    /// What the runner of one cylinder opens into.
    pub fn mouth(&self, cylinder: usize) -> End {
        let (pressure, temperature, burned) = match self {
            Self::Steady(pressure, temperature) => (*pressure, *temperature, 0.0),
            Self::Filled(plenums, of) => {
                let plenum = &plenums[of[cylinder]];
                (plenum.pressure(), plenum.temperature(), plenum.burned())
            }
        };
        End::Open { pressure, temperature, burned }
    }
}

/// The plane of each cylinder: every other one in the order they fire.
pub(super) fn planes_of(setup: &Setup) -> Vec<usize> {
    let earlier = |at: f64| setup.fires_at.iter().filter(|other| **other < at).count();
    setup.fires_at.iter().map(|at| earlier(*at) % setup.planes).collect()
}

/// Pressure behind a throttle that passes `flow` (kg/s), Pa, by bisection.
pub(super) fn behind_throttle(area: f64, supply: (f64, f64), flow: f64) -> f64 {
    let (mut low, mut high) = (0.05 * supply.0, supply.0);
    for _ in 0..50 {
        let middle = 0.5 * (low + high);
        if mass_flow(Gas::AIR, area, supply.0, supply.1, middle) > flow { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}
