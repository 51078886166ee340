//! The work of a curve, point by point, for whoever runs it: the analysis, or a job that shows points as they come.

use super::super::dynamics::{Turnable, lifts_over, side_train};
use super::super::resolve::{Gap, Part, Resolved, lack, together};
use super::air::{Air, read_air};
use super::constants::{Calibrated, pulled, read_calibration};
use super::engine::{COARSE, COARSEST, PREVIEW, lacks_for_full, read_engine};
use super::outside::assumed_losses;
use super::stated::Stated;
use crate::document::Side;
use crate::gas::cycle::{Halt, Mode, Run};
use crate::gas::setup::{Combustion, Point, Setup};
use crate::gas::trace::Trace;
use crate::given::{Needs, need};
use crate::quantity::{Octane, Speed};
use serde::{Deserialize, Serialize};

/// How much is computed for a curve.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Effort {
    /// One cylinder with constant pressures around it, coarse mesh, five speeds: to rank many candidates.
    Screening,
    /// All cylinders, coarse mesh, five speeds: to follow a drag.
    Preview,
    /// All cylinders, coarse mesh.
    Draft,
    /// One cylinder with constant pressures around it, fine mesh.
    Fast,
    /// All cylinders with their plenum and collectors in firing order, fine mesh.
    Full,
}

/// Points of a curve over the band of the plan; a whole one has one on each side of it besides.
const POINTS: [usize; 2] = [5, 13];
/// Most points between idle and the band.
const FAR: f64 = 2.0;
/// Share of the greatest torque by which a point may lie off the curve through its neighbours.
const BEND: f64 = 0.01;
/// Most speeds added to a curve, and how near to each other any two are wanted, rpm.
const ADDED: (usize, f64) = (6, 80.0);
/// No speed below this is computed, rpm.
const SLOWEST: f64 = 300.0;

/// Air-fuel ratio where smoke begins to show on engines without a limit of their own (common practice, no source).
const VISIBLE_SMOKE: f64 = 18.0;

impl Effort {
    /// What the curve says of itself.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Screening => "screening: one cylinder, coarse mesh, constant-pressure collector",
            Self::Preview => "preview: all cylinders, coarse mesh, five speeds",
            Self::Draft => "draft: all cylinders in firing order, coarse mesh",
            Self::Fast => "fast: one cylinder, constant-pressure collector",
            Self::Full => "full: all cylinders in firing order with plenum and collectors",
        }
    }

    const fn mode(self) -> Mode {
        match self {
            Self::Screening | Self::Fast => Mode::Fast,
            Self::Preview | Self::Draft | Self::Full => Mode::Full,
        }
    }

    const fn coarse(self) -> bool {
        !matches!(self, Self::Fast | Self::Full)
    }

    /// Whether it is what is judged by, not what follows a drag or ranks.
    pub const fn is_result(self) -> bool {
        matches!(self, Self::Fast | Self::Full)
    }

    /// Whether it is of every speed, its valves as the trains in motion move them: else a draft would have gains of its own.
    const fn whole_curve(self) -> bool {
        !matches!(self, Self::Screening | Self::Preview)
    }
}

/// Everything a curve is computed from; two candidates with equal ones have the same curve.
#[derive(Debug, Clone, PartialEq)]
pub struct Breathing {
    /// The engine.
    pub setup: Setup,
    /// The air around it.
    pub air: Air,
    /// Band of the plan, rpm.
    pub band: (f64, f64),
    /// Where peak power is wanted and where it is shifted, rpm, where the plan says.
    pub wanted: (Option<f64>, Option<f64>),
    /// How fast a missed shift lets it turn, rpm, where the plan says.
    pub missed: Option<f64>,
    /// Octane number of the petrol, where it is known.
    pub octane: Option<f64>,
    /// Air-fuel ratio below which a diesel smokes.
    pub smoke: f64,
    /// Losses between outside and cylinder that nobody measured: manifold, cleaner, silencer, port.
    pub assumed_losses: usize,
    /// Whether a flow table was measured for both ports.
    pub flow_known: bool,
    /// Whether the engine is raced, which moves what is usual.
    pub raced: bool,
    /// Idle speed wanted, rpm, where the plan says.
    pub idle: Option<f64>,
    /// What the starter turns it at, rpm.
    pub cranking: f64,
    /// What corrections of its pulls rest on.
    pub stated: Stated,
    /// What a dyno measured of it: rpm, and torque in the plan's air, N m.
    pub pulled: Vec<(f64, f64)>,
    /// Constants fitted to a pull, which are in the set-up already.
    pub calibration: Option<Calibrated>,
    /// Both valve trains, to be turned for a whole curve; where they are not known whole, valves move without dynamics.
    pub trains: Option<[Turnable; 2]>,
    /// Why the full mode cannot be computed.
    full: Result<(), Gap>,
}

/// One computed speed.
#[derive(Debug, Clone, PartialEq)]
pub struct Sample {
    /// The point.
    pub point: Point,
    /// The first cylinder's last cycle.
    pub trace: Trace,
    /// Torque at the crank after a blower has taken its own, N m.
    pub torque: f64,
    /// What the blower takes, W.
    pub blower: f64,
}

impl Sample {
    /// W.
    pub fn power(&self) -> f64 {
        self.torque * self.point.rpm * std::f64::consts::PI / 30.0
    }
}

/// Both trains, where both are known whole.
fn trains(inputs: &Resolved) -> Option<[Turnable; 2]> {
    let own = |side| side_train(inputs, side).ok()?.turnable();
    Some([own(Side::Intake)?, own(Side::Exhaust)?])
}

/// Resolves a candidate, with what was fitted to a pull.
pub fn breathing_of(inputs: &Resolved) -> Part<Breathing> {
    let mut breathing = breathing_uncalibrated(inputs)?;
    breathing.calibration = read_calibration(&inputs.given.calibration);
    if let Some(calibrated) = &breathing.calibration {
        calibrated.constants.put_into(&mut breathing.setup);
    }
    Ok(breathing)
}

/// Resolves a candidate as if no pull were known.
pub fn breathing_uncalibrated(inputs: &Resolved) -> Part<Breathing> {
    let setup = read_engine(inputs);
    let (target, engine) = (&inputs.given.target, &inputs.given.engine);
    let mut needs = Needs::default();
    let (from, to) = (need!(needs, target.band_from), need!(needs, target.band_to));
    let (band, air) = (needs.met(()).map_err(Gap::from), read_air(inputs));
    together([lack(&setup), lack(&band), lack(&air)])?;
    let (setup, air) = (setup?, air?);
    let speed = |speed: Option<Speed>| speed.map(Speed::as_rpm);
    Ok(Breathing {
        pulled: pulled(&inputs.given.pull, &Stated::of(&inputs.given)),
        stated: Stated::of(&inputs.given),
        full: lacks_for_full(inputs, &setup),
        trains: trains(inputs),
        air,
        band: (from.as_rpm(), to.as_rpm()),
        wanted: (speed(target.peak_power_at), speed(target.shift_at)),
        missed: inputs.top_speed().map(Speed::as_rpm),
        octane: engine.octane_ron.map(Octane::as_ron).filter(|_| matches!(setup.combustion, Combustion::Spark { .. })),
        assumed_losses: assumed_losses(inputs),
        smoke: engine.smoke_air_fuel.unwrap_or(VISIBLE_SMOKE),
        flow_known: Side::BOTH.into_iter().all(|side| inputs.port(side).flow.is_some()),
        raced: inputs.given.purpose.is_raced(),
        idle: speed(target.idle_at),
        cranking: engine.cranking_speed.map_or(200.0, Speed::as_rpm),
        calibration: None,
        setup,
    })
}

impl Breathing {
    /// Why a curve of this effort cannot be computed, where it cannot.
    pub fn can(&self, effort: Effort) -> Result<(), Gap> {
        if effort.mode() == Mode::Full { self.full.clone() } else { Ok(()) }
    }

    /// The deepest effort that the document is whole enough for: of one cylinder where it does not say how they are joined.
    pub fn deepest(&self) -> Effort {
        if self.can(Effort::Full).is_ok() { Effort::Full } else { Effort::Fast }
    }

    /// The speeds of a curve before any is added where it bends, rpm: over the band and a step on each side of it; for a
    /// result also down to idle, and up to the shift and the missed one.
    pub fn speeds(&self, effort: Effort) -> Vec<f64> {
        let (from, to) = self.band;
        if !effort.whole_curve() {
            let step = (to - from) / (POINTS[0] - 1) as f64;
            return (0..POINTS[0]).map(|i| from + step * i as f64).collect();
        }
        let step = self.step();
        let near = (0..POINTS[1]).map(|i| from + step * (i as f64 - 1.0)).filter(|rpm| *rpm > SLOWEST);
        if !effort.is_result() {
            return near.collect();
        }
        let (first, last) = ((from - step).max(SLOWEST), to + step);
        let idle = self.idle.filter(|idle| *idle < first - 0.5 * step);
        let below = idle.map_or(Vec::new(), |idle| {
            let count = ((first - idle) / (2.0 * step)).ceil().clamp(1.0, FAR);
            (0..count as usize).map(|i| idle + (first - idle) * i as f64 / count).collect()
        });
        let mut speeds: Vec<f64> = below.into_iter().chain(near).collect();
        for beyond in [self.wanted.1, self.missed].into_iter().flatten() {
            if beyond > speeds.last().copied().unwrap_or(last) + 0.25 * step {
                speeds.push(beyond);
            }
        }
        speeds
    }

    /// Whether a spark lights it.
    pub const fn is_spark(&self) -> bool {
        matches!(self.setup.combustion, Combustion::Spark { .. })
    }

    /// Between two speeds of a whole curve over the band, rpm.
    fn step(&self) -> f64 {
        (self.band.1 - self.band.0) / (POINTS[1] - 3) as f64
    }

    /// The highest speed an engine is run at, rpm: its shift, or a step beyond the band. What lies beyond, where only a missed
    /// shift leads, is drawn and makes no peak.
    pub fn used_to(&self) -> f64 {
        let beyond = self.band.1 + self.step();
        self.wanted.1.map_or(beyond, |shift| shift.max(beyond)) + 0.5
    }

    /// Speeds to add to a result where its torque bends more than its neighbours tell, rpm: on both sides of every speed
    /// about the band that the curve through its neighbours misses by more than [`BEND`] of the greatest torque. Below it,
    /// where a cycle takes long, none are.
    pub fn bends(&self, effort: Effort, samples: &[Sample]) -> Vec<f64> {
        if !effort.is_result() {
            return Vec::new();
        }
        let points: Vec<(f64, f64)> = samples.iter().map(|sample| (sample.point.rpm, sample.torque)).collect();
        let first = self.speeds(Effort::Draft).first().copied().unwrap_or(SLOWEST);
        between_bends(&points).into_iter().filter(|rpm| *rpm > first).take(ADDED.0).collect()
    }

    /// The boost level with the most pressure.
    pub fn strongest(&self) -> usize {
        let most = |level: usize| {
            self.air.around(level, self.band.1).supply.0.max(self.air.around(level, self.band.0).supply.0)
        };
        (0..self.air.levels.len()).max_by(|a, b| most(*a).total_cmp(&most(*b))).unwrap_or(0)
    }

    /// The set-up on the mesh of `effort`.
    pub fn meshed(&self, effort: Effort) -> Setup {
        let mut setup = self.setup.clone();
        if effort.coarse() {
            let mesh = if effort == Effort::Preview { PREVIEW } else { COARSE };
            (setup.mesh, setup.begun_on) = (mesh, Some(COARSEST));
        }
        setup
    }

    /// The set-up on the mesh of `effort`; of a whole curve with its valves as the trains in motion move them at `speeds`, rpm. A
    /// draft takes what lies beyond control from the nearest speed that is in it: it is there to compare cams by, and what is
    /// lost with control is no smooth thing. A result shows it.
    pub fn turned(&self, effort: Effort, speeds: &[f64], stop: &(dyn Fn() -> bool + Sync)) -> Setup {
        let mut setup = self.meshed(effort);
        let Some(trains) = self.trains.as_ref().filter(|_| effort.whole_curve()) else { return setup };
        for (port, train) in [&mut setup.intake, &mut setup.exhaust].into_iter().zip(trains) {
            let moved = speeds.iter().map(|rpm| Speed::rpm(*rpm).si()).zip(lifts_over(train, speeds, stop));
            let shown = moved.filter(|(_, moved)| effort.is_result() || moved.is_in_control);
            port.motion.turned = shown.map(|(speed, moved)| (speed, moved.lift)).collect();
        }
        setup
    }

    /// What moves the valves, in words.
    pub const fn moved_by(&self, effort: Effort) -> &'static str {
        if self.trains.is_some() && effort.whole_curve() {
            "valves as their trains in motion move them"
        } else {
            "valve motion without dynamics"
        }
    }

    /// One speed of a curve, from cold; `setup` is that of [`Self::meshed`].
    pub fn sample(
        &self,
        setup: &Setup,
        (effort, level): (Effort, usize),
        rpm: f64,
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Sample, Halt> {
        let run = Run { setup, mode: effort.mode(), around: self.air.around(level, rpm), fires: true, stop };
        let (point, trace) = run.point(rpm)?;
        let blower = self.air.blower_power(level, &point, setup.cylinders);
        let torque = point.torque - blower / (rpm * std::f64::consts::PI / 30.0);
        Ok(Sample { point, trace, torque, blower })
    }
}

/// Middles on both sides of every point that its neighbours miss, those of the worst missed first.
fn between_bends(points: &[(f64, f64)]) -> Vec<f64> {
    let most = points.iter().map(|(_, torque)| *torque).fold(0.0, f64::max);
    let mut missed: Vec<(f64, usize)> = (1..points.len().saturating_sub(1))
        .map(|i| ((through_neighbours(points, i) - points[i].1).abs(), i))
        .filter(|(by, _)| *by > BEND * most)
        .collect();
    missed.sort_by(|a, b| b.0.total_cmp(&a.0));
    let mut added: Vec<f64> = Vec::new();
    for (_, i) in missed {
        for pair in [i - 1, i] {
            let (low, high) = (points[pair].0, points[pair + 1].0);
            let middle = 0.5 * (low + high);
            if high - low > 2.0 * ADDED.1 && !added.contains(&middle) {
                added.push(middle);
            }
        }
    }
    added
}

/// What the two neighbours on each side, as far as there are any, make of the point between them [Lagrange].
fn through_neighbours(points: &[(f64, f64)], i: usize) -> f64 {
    let around = i.saturating_sub(2)..(i + 3).min(points.len());
    let others: Vec<(f64, f64)> = around.filter(|j| *j != i).map(|j| points[j]).collect();
    let at = points[i].0;
    let share = |j: usize| -> f64 {
        let rest = others.iter().enumerate().filter(|(k, _)| *k != j);
        rest.map(|(_, (x, _))| (at - x) / (others[j].0 - x)).product()
    };
    others.iter().enumerate().map(|(j, (_, y))| y * share(j)).sum()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn speeds_are_added_beside_a_dip_and_nowhere_on_a_smooth_curve() {
        let smooth = |rpm: f64| 500.0 - ((rpm - 3800.0) / 180.0).powi(2);
        let points = |dip: f64| -> Vec<(f64, f64)> {
            (0..13)
                .map(|i| 2000.0 + 300.0 * f64::from(i))
                .map(|x| (x, smooth(x) - dip * f64::from(u8::from(x == 3500.0))))
                .collect()
        };
        assert!(between_bends(&points(0.0)).is_empty());
        let added = between_bends(&points(15.0));
        assert!(added.contains(&3350.0) && added.contains(&3650.0), "{added:?}");
        assert!(added[..2].iter().all(|rpm| (3350.0..=3650.0).contains(rpm)), "the worst first: {added:?}");
    }
}
