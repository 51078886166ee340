//! Cycle after cycle until the engine repeats: the *fast mode*, one cylinder between a plenum and a collector of
//! constant pressure, and the *full mode*, every cylinder with the plenum they breathe from and the collectors they
//! meet in, in firing order.

use super::breather::{Breather, Common};
use super::ends::End;
use super::junction::Branch;
use super::meeting::{COLLECTOR_GAS, Meeting};
use super::plenum::Plenum;
use super::setup::{Around, Balance, Combustion, Mesh, Point, Setup};
use super::state::{Gas, State};
use super::trace::Trace;
use super::upstream::{Upstream, behind_throttle, planes_of};
use std::f64::consts::PI;

/// Most cycles from cold: a bank with its plenum takes longer than one cylinder.
const MOST_CYCLES: [usize; 2] = [16, 24];

/// Share of the way to the pressure of the mean flow that what stands outside the engine goes after each cycle.
const RELAXED: f64 = 0.7;

/// Steps between two questions whether to stop: a few milliseconds.
const ASKED_EVERY: u32 = 64;

/// How much of the engine is computed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mode {
    /// One cylinder.
    Fast,
    /// All of them.
    Full,
}

/// Why there is no point.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Halt {
    /// A pipe has no length or no area.
    NoPipe,
    /// It was asked to stop.
    Stopped,
    /// The numbers left what is physical.
    Diverged,
}

/// How a point is run.
pub struct Run<'a> {
    /// The engine.
    pub setup: &'a Setup,
    /// How much of it.
    pub mode: Mode,
    /// Gas around it.
    pub around: Around,
    /// Whether it fires; a starter turns it otherwise.
    pub fires: bool,
    /// Asked every few steps; `true` ends the run.
    pub stop: &'a (dyn Fn() -> bool + Sync),
}

impl Run<'_> {
    /// The point at `rpm`, from cold, and the first cylinder's last cycle.
    pub fn point(&self, rpm: f64) -> Result<(Point, Trace), Halt> {
        let mut engine = Engine::new(self, rpm).ok_or(Halt::NoPipe)?;
        let most = MOST_CYCLES[usize::from(self.mode == Mode::Full)];
        let mut begun = 0;
        if self.setup.begun_on.is_some() {
            begun = engine.repeat(most)?.cycles;
            engine.remesh(self.setup.mesh).ok_or(Halt::NoPipe)?;
        }
        let last = engine.repeat(most)?;
        let point = engine.result(last.balance, begun + last.cycles, last.change);
        let trace = engine.cylinders.first_mut().and_then(|first| first.trace.take()).unwrap_or_default();
        Ok((point, trace))
    }
}

/// The point at `rpm` of an engine that fires, without a way to stop it.
pub fn point(setup: &Setup, mode: Mode, around: Around, rpm: f64) -> Result<Point, Halt> {
    Run { setup, mode, around, fires: true, stop: &|| false }.point(rpm).map(|(point, _)| point)
}

fn changed(before: &Balance, now: &Balance) -> f64 {
    let relative = |a: f64, b: f64| (a - b).abs() / b.abs().max(1e-12);
    relative(before.work, now.work).max(relative(before.air, now.air))
}

/// Cycles run until they repeat.
struct Repeated {
    /// The last.
    balance: Balance,
    cycles: usize,
    /// How much of itself it differed by from the one before.
    change: f64,
}

struct Engine<'a> {
    run: &'a Run<'a>,
    mesh: Mesh,
    common: Common<'a>,
    cylinders: Vec<Breather>,
    upstream: Upstream,
    meetings: Vec<Meeting>,
    /// Pressure, Pa, and temperature, K, before the throttle.
    supply: (f64, f64),
    /// Pressure behind the exhaust, Pa.
    back: f64,
    /// How much of themselves the pressures outside the engine moved after the last cycle.
    moved: f64,
    /// Sum and time of the plenum's pressure in the cycle.
    plenum: (f64, f64),
    /// Work space.
    ends: Vec<(State, State)>,
    branches: Vec<Branch>,
    faces: Vec<State>,
}

impl<'a> Engine<'a> {
    fn new(run: &'a Run<'a>, rpm: f64) -> Option<Self> {
        let (setup, around) = (run.setup, &run.around);
        let common = Common::new(setup, rpm, run.fires);
        let mesh = setup.begun_on.unwrap_or(setup.mesh);
        let count = if run.mode == Mode::Fast { 1 } else { setup.fires_at.len() };
        let cylinders: Option<Vec<_>> =
            (0..count).map(|place| Breather::new(setup, &mesh, &common.gases, around, place)).collect();
        let meetings: Option<Vec<_>> = match run.mode {
            Mode::Fast => Some(Vec::new()),
            Mode::Full => {
                setup.collectors.iter().map(|collector| Meeting::new(collector, setup, &mesh, around)).collect()
            }
        };
        let filled = run.mode == Mode::Full && setup.throttle.is_some() && around.throttled;
        let (pressure, temperature) = (around.supply.0, around.supply.1 - setup.mixture.cooled);
        let cylinders = cylinders?;
        let at_rest = Gas::AIR.state(pressure, temperature, 0.0);
        Some(Self {
            upstream: if filled {
                let each = setup.plenum / setup.planes as f64;
                let plenums = vec![Plenum::new(Gas::AIR, each, pressure, temperature); setup.planes];
                Upstream::Filled(plenums, planes_of(setup))
            } else {
                Upstream::Steady(pressure, temperature)
            },
            meetings: meetings?,
            supply: (pressure, temperature),
            back: around.back,
            moved: 0.0,
            ends: vec![(at_rest, at_rest); cylinders.len()],
            branches: Vec::new(),
            faces: vec![at_rest; setup.fires_at.len() + 1],
            plenum: (0.0, 0.0),
            cylinders,
            common,
            mesh,
            run,
        })
    }

    /// Cycle after cycle until they repeat, or the most that are run.
    fn repeat(&mut self, most: usize) -> Result<Repeated, Halt> {
        let mut last: Option<Balance> = None;
        let (mut cycles, mut change) = (0, f64::INFINITY);
        while cycles < most && change > self.mesh.repeats {
            let balance = self.cycle().ok_or(Halt::Stopped)?;
            cycles += 1;
            if !balance.is_sound() {
                return Err(Halt::Diverged);
            }
            change = last.map_or(f64::INFINITY, |before| changed(&before, &balance)).max(self.moved);
            last = Some(balance);
        }
        Ok(Repeated { balance: last.unwrap_or_default(), cycles, change })
    }

    /// Goes on on another mesh; `None` when a pipe cannot be.
    fn remesh(&mut self, mesh: Mesh) -> Option<()> {
        let setup = self.run.setup;
        self.mesh = mesh;
        for (place, cylinder) in self.cylinders.iter_mut().enumerate() {
            cylinder.remesh(setup, &mesh, place)?;
        }
        self.meetings.iter_mut().zip(&setup.collectors).try_for_each(|(meeting, own)| meeting.remesh(own, setup, &mesh))
    }

    /// Two turns from the top dead centre of the first cylinder's gas exchange; the mean of all cylinders. `None` when
    /// it was asked to stop on the way.
    fn cycle(&mut self) -> Option<Balance> {
        self.cylinders.iter_mut().for_each(Breather::begin);
        self.plenum = (0.0, 0.0);
        let degrees_per_second = 6.0 * self.common.rpm;
        let (mut crank, mut steps) = (360.0, 0_u32);
        while crank < 1080.0 - 1e-9 {
            let limit = self.stable_step() * degrees_per_second;
            let step = limit.min(self.mesh.longest_step).min(1080.0 - crank);
            self.step(crank, step, step / degrees_per_second);
            crank += step;
            steps += 1;
            if steps % ASKED_EVERY == 0 && (self.run.stop)() {
                return None;
            }
        }
        self.cylinders.iter_mut().for_each(Breather::end);
        let mean = self.mean();
        self.settle(&mean);
        Some(mean)
    }

    fn stable_step(&self) -> f64 {
        let cylinders = self.cylinders.iter().map(Breather::stable_step);
        cylinders.chain(self.meetings.iter().map(|meeting| meeting.pipe.stable_step())).fold(f64::INFINITY, f64::min)
    }

    fn step(&mut self, crank: f64, step: f64, time: f64) {
        self.plenum = (self.plenum.0 + self.upstream.pressure() * time, self.plenum.1 + time);
        let open = End::Open { pressure: self.back, temperature: COLLECTOR_GAS, burned: 1.0 };
        for (place, (cylinder, ends)) in self.cylinders.iter_mut().zip(&mut self.ends).enumerate() {
            let insides = cylinder.predict(time);
            let mouth = self.upstream.mouth(place);
            // The inner state of the outlet stands in its place until its junction is known.
            *ends = (mouth.face(Gas::AIR, &insides.mouth, -1.0), insides.outlet);
        }
        for meeting in &mut self.meetings {
            meeting.join(&self.cylinders, &mut self.ends, (&mut self.branches, &mut self.faces), &open, time);
        }
        if self.meetings.is_empty() {
            for ends in &mut self.ends {
                ends.1 = open.face(Gas::BURNED, &ends.1, 1.0);
            }
        }
        for (cylinder, ends) in self.cylinders.iter_mut().zip(&self.ends) {
            cylinder.finish(&self.common, crank, step, time, *ends);
        }
        if let Some(area) = self.run.setup.throttle {
            self.upstream.step(area, self.supply, &self.cylinders, time);
        }
    }

    /// The mean of all cylinders.
    fn mean(&self) -> Balance {
        let share = 1.0 / self.cylinders.len() as f64;
        let mean = |of: fn(&Balance) -> f64| self.cylinders.iter().map(|c| of(&c.balance)).sum::<f64>() * share;
        Balance {
            released: mean(|b| b.released),
            walls: mean(|b| b.walls),
            carried: mean(|b| b.carried),
            work: mean(|b| b.work),
            pumping: mean(|b| b.pumping),
            air: mean(|b| b.air),
            fuel: mean(|b| b.fuel),
            drift: mean(|b| b.drift),
            short_circuited: mean(|b| b.short_circuited),
            pushed_back: mean(|b| b.pushed_back),
            drawn_back: mean(|b| b.drawn_back),
            exhaust: (mean(|b| b.exhaust.0), mean(|b| b.exhaust.1)),
        }
    }

    /// Between two cycles: what is lost before the throttle and behind the exhaust follows the mean flow, the exhaust what
    /// the turbine needs, the steady plenum the pressure behind the throttle, and a diesel's burned gas becomes that of the
    /// mixture it burned.
    fn settle(&mut self, mean: &Balance) {
        let (setup, around) = (self.run.setup, &self.run.around);
        let air = (self.of_all(mean.air)).max(0.0);
        let (mass, heat) = mean.exhaust;
        self.moved = 0.0;
        let behind = around.outside.0 + setup.restriction.outlet * self.of_all(mass).powi(2);
        if let Some(turbine) = &around.turbine {
            let wanted = turbine.inlet_pressure(mean.air, mass, heat / mass.max(1e-12), behind);
            self.back = self.follow(self.back, wanted, 0.5);
        } else if !around.back_is_given {
            self.back = self.follow(self.back, behind, RELAXED);
        }
        if around.throttled {
            let lost = (setup.restriction.inlet * air * air).min(0.5 * around.supply.0);
            self.supply.0 = self.follow(self.supply.0, around.supply.0 - lost, RELAXED);
        }
        if let (Upstream::Steady(plenum, _), true) = (&mut self.upstream, around.throttled) {
            let wanted = setup.throttle.map_or(self.supply.0, |area| behind_throttle(area, self.supply, air));
            *plenum += 0.5 * (wanted - *plenum);
        }
        let air_fuel = self.cylinders[0].air_fuel;
        // A cylinder that took in no air burned nothing.
        if matches!(self.run.setup.combustion, Combustion::Diesel { .. }) && self.common.fires && air_fuel > 1.0 {
            self.common.burn_at(air_fuel);
        }
    }

    /// What all cylinders pass in a second, kg/s, of what one passes in a cycle.
    fn of_all(&self, each: f64) -> f64 {
        self.run.setup.per_second(each, self.common.rpm)
    }

    /// A pressure that goes `share` of the way to where it is wanted.
    fn follow(&mut self, now: f64, wanted: f64, share: f64) -> f64 {
        let moved = share * (wanted - now);
        self.moved = self.moved.max(moved.abs() / now);
        now + moved
    }

    fn result(&self, balance: Balance, cycles: usize, change: f64) -> Point {
        let setup = self.run.setup;
        let swept = setup.swept();
        let (rpm, first) = (self.common.rpm, &self.cylinders[0]);
        let most = |of: fn(&Breather) -> f64| self.cylinders.iter().map(of).fold(f64::NEG_INFINITY, f64::max);
        let mean = |of: fn(&Breather) -> f64| self.cylinders.iter().map(of).sum::<f64>() / self.cylinders.len() as f64;
        let peak = most(|c| c.peak);
        let indicated = balance.work / swept;
        let friction = setup.rubbing.at(rpm, peak, setup.piston_speed(rpm)).scaled(setup.friction);
        let density = self.run.around.outside.0 / (Gas::AIR.r * self.run.around.outside.1);
        let least = -most(|c| -c.balance.work);
        Point {
            rpm,
            torque: (indicated - friction.sum()) * swept * setup.cylinders / (4.0 * PI),
            indicated,
            pumping: balance.pumping / swept,
            friction,
            volumetric_efficiency: balance.air / (density * swept),
            residual: mean(|c| c.residual),
            peak_pressure: peak,
            opening_pressure: most(|c| c.opening_pressure),
            plenum: self.plenum.0 / self.plenum.1,
            supply: self.supply.0,
            back: self.back,
            air_fuel: first.air_fuel,
            exhaust_temperature: balance.exhaust.1 / balance.exhaust.0.max(1e-12),
            knock: if self.common.fires { most(|c| c.knock) } else { 0.0 },
            spread: (least / balance.work, most(|c| c.balance.work) / balance.work),
            balance,
            cycles,
            change,
            converged: change <= self.mesh.repeats,
        }
    }
}
