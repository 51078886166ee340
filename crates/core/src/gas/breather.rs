//! One cylinder with its runner and its primary.

use super::cylinder::{Burnt, Charge, Gases, Passed};
use super::duct::{Duct, Wall, cells_of};
use super::ends::End;
use super::heat::{Burning, Reference, Walls};
use super::knock::{Knock, cooled_by};
use super::over_cycle::on_cycle;
use super::port::{self, Areas};
use super::setup::{Around, Balance, Combustion, Mesh, Setup};
use super::state::{Gas, State};
use super::thermo::Mixture;
use super::trace::Trace;
use crate::table::held;
use std::f64::consts::PI;

/// Fanning friction of turbulent flow along a smooth pipe (assumed).
const PIPE_FRICTION: f64 = 0.006;
/// Conductivity, W/(m K), and viscosity, Pa s, to the power of -3/4: of air at 320 K and of burned gas at 1000 K
/// [Incropera, table A.4; from memory].
const WARM_AIR: (f64, f64) = (0.0278, 3420.0);
const HOT_GAS: (f64, f64) = (0.066, 1952.0);
/// Temperature of a cylinder's first charge and of a cold engine's first exhaust, K.
const FIRST_CHARGE: f64 = 900.0;
/// Share of the fuel's releasable heat that is released (assumed), and what dissociation still holds back of it while it
/// could work (assumed, of the size that equilibrium tables give near the peak [Heywood, ch. 4; from memory]).
const COMBUSTION_EFFICIENCY: f64 = 0.97;
const NOT_DISSOCIATED: f64 = 0.988;
/// Burned share beyond which too little end gas is left for a knock that counts (common practice, no source).
const ALL_BURNED: f64 = 0.85;

/// Share of its greatest area at which an exhaust valve counts as open: about .010 in of lift, when ramp and lash are
/// behind it.
const OPEN: f64 = 0.02;

/// The wall of an intake's pipe.
const fn warm_pipe(setup: &Setup) -> Wall {
    let heat = port::heat(setup.unmeasured.runner_wall, setup.unmeasured.pipe_heat * WARM_AIR.0, WARM_AIR.1);
    Wall { friction: PIPE_FRICTION, heat: Some(heat) }
}

/// The wall of an exhaust's pipe, at a temperature in K.
pub(super) const fn hot_pipe(setup: &Setup, temperature: f64) -> Wall {
    let heat = port::heat(temperature, setup.unmeasured.pipe_heat * HOT_GAS.0, HOT_GAS.1);
    Wall { friction: PIPE_FRICTION, heat: Some(heat) }
}

/// What holds for every cylinder of an engine at one speed.
pub(super) struct Common<'a> {
    pub setup: &'a Setup,
    pub rpm: f64,
    pub gases: Gases,
    /// What the valves let through at this speed.
    pub intake: Areas,
    pub exhaust: Areas,
    /// Share of the heating value the mixture releases.
    pub release: f64,
    /// Effective area of an exhaust valve that has just opened, m2.
    opening: f64,
    /// Share of that which is burned.
    efficiency: f64,
    /// Whether anything is burned; not while cranking.
    pub fires: bool,
    walls: Walls,
}

impl<'a> Common<'a> {
    pub fn new(setup: &'a Setup, rpm: f64, fires: bool) -> Self {
        let air_fuel = match &setup.combustion {
            Combustion::Spark { air_fuel, .. } => *air_fuel,
            Combustion::Diesel { smoke_limit, .. } => *smoke_limit,
        };
        let (burned, release) = setup.fuel.burned(air_fuel);
        let walls = Walls {
            bore: setup.bore,
            piston_speed: setup.piston_speed(rpm),
            swept: setup.swept(),
            temperature: setup.unmeasured.cylinder_wall,
            over: setup.unmeasured.cylinder_heat,
        };
        let efficiency = COMBUSTION_EFFICIENCY * NOT_DISSOCIATED * setup.burning;
        let speed = rpm * PI / 30.0;
        let (intake, exhaust) = (setup.intake.areas_at(speed), setup.exhaust.areas_at(speed));
        let opening = OPEN * exhaust.forward.iter().copied().fold(0.0, f64::max);
        let gases = Gases { fresh: Mixture::air(), burned };
        Self { setup, rpm, gases, intake, exhaust, release, opening, efficiency, fires, walls }
    }

    /// Burned gas of the mixture that was burned last.
    pub fn burn_at(&mut self, air_fuel: f64) {
        (self.gases.burned, self.release) = self.setup.fuel.burned(air_fuel);
    }
}

/// A charge between intake closing and exhaust opening.
#[derive(Debug, Clone, Copy)]
struct Shut {
    reference: Reference,
    fresh: f64,
    fuel: f64,
    burning: Burning,
    done: f64,
    knock: Knock,
}

/// The states inside the four ends of a cylinder's pipes after half a step.
#[derive(Debug, Clone, Copy)]
pub(super) struct Insides {
    pub mouth: State,
    pub outlet: State,
    runner_valve: State,
    primary_valve: State,
}

pub(super) struct Breather {
    runner: Duct,
    primary: Duct,
    charge: Charge,
    fires_at: f64,
    insides: Insides,
    shut: Option<Shut>,
    /// Whether the exhaust valve has left its seat since the charge was lit.
    opened: bool,
    /// Whether the charge's fuel has been counted: a valve that bounces shuts twice on one charge.
    fuelled: bool,
    /// Of the cycle that runs.
    pub balance: Balance,
    pub residual: f64,
    pub peak: f64,
    pub opening_pressure: f64,
    pub air_fuel: f64,
    pub knock: f64,
    mass_before: f64,
    pub trace: Option<Trace>,
}

impl Breather {
    /// Cylinder `place` of the set-up. `None` when a pipe cannot be.
    pub fn new(setup: &Setup, mesh: &Mesh, gases: &Gases, around: &Around, place: usize) -> Option<Self> {
        let cold = Gas::AIR.state(around.supply.0, around.supply.1, 0.0);
        let hot = State { burned: 1.0, ..Gas::BURNED.state(around.back, FIRST_CHARGE, 0.0) };
        let fires_at = setup.fires_at[place];
        let volume = on_cycle(&setup.volume, (1080.0 - fires_at) % 720.0);
        let mass = around.supply.0 * volume / (gases.burned.r * FIRST_CHARGE);
        Some(Self {
            runner: runner(setup, mesh, place, cold)?,
            primary: primary(setup, mesh, place, hot)?,
            charge: Charge { mass, temperature: FIRST_CHARGE, burned: 1.0 },
            fires_at,
            insides: Insides { mouth: cold, outlet: hot, runner_valve: cold, primary_valve: hot },
            shut: None,
            opened: true,
            fuelled: false,
            balance: Balance::default(),
            residual: 1.0,
            peak: 0.0,
            opening_pressure: around.supply.0,
            air_fuel: 0.0,
            knock: 0.0,
            mass_before: mass,
            trace: (place == 0).then(Trace::default),
        })
    }

    /// Goes on on another mesh; `None` when a pipe cannot be.
    pub fn remesh(&mut self, setup: &Setup, mesh: &Mesh, place: usize) -> Option<()> {
        let Insides { mouth, outlet, .. } = self.insides;
        self.runner = runner(setup, mesh, place, mouth)?.filled_from(&self.runner);
        self.primary = primary(setup, mesh, place, outlet)?.filled_from(&self.primary);
        Some(())
    }

    /// Begins to count a cycle.
    pub fn begin(&mut self) {
        self.balance = Balance::default();
        self.peak = 0.0;
        self.mass_before = self.charge.mass;
    }

    /// Ends the count.
    pub fn end(&mut self) {
        self.balance.drift = self.charge.mass - self.mass_before;
    }

    /// Largest stable step of its pipes, s.
    pub fn stable_step(&self) -> f64 {
        self.runner.stable_step().min(self.primary.stable_step())
    }

    /// First half of a step.
    pub fn predict(&mut self, time: f64) -> Insides {
        let [mouth, runner_valve] = self.runner.predict(time);
        let [primary_valve, outlet] = self.primary.predict(time);
        self.insides = Insides { mouth, outlet, runner_valve, primary_valve };
        self.insides
    }

    /// What passed the mouth of the runner in the last step, kg/s, towards the cylinder, and with what temperature.
    pub fn mouth(&self) -> (f64, f64, f64) {
        let face = self.runner.end_states()[0];
        (self.runner.end_flows().0, face.stagnation(Gas::AIR), face.burned)
    }

    /// Area of the primary, m2.
    pub fn outlet_area(&self) -> f64 {
        self.primary.end_areas()[1]
    }

    /// Second half of a step: from `crank` (of the engine) over `step` degrees in `time`, with the states at the outer
    /// ends of its pipes.
    pub fn finish(&mut self, common: &Common<'_>, crank: f64, step: f64, time: f64, ends: (State, State)) {
        let own = turned(crank - self.fires_at);
        let (from, to) = (on_cycle(&common.setup.volume, own), on_cycle(&common.setup.volume, own + step));
        let pressure = self.charge.pressure(&common.gases, from);
        let shares = self.shares(common, own, pressure);
        let passed = self.exchange(pressure, shares, time, ends);
        self.count(&passed, 1.0 - common.setup.mixture.vapour, time);
        self.open_or_shut(common, own, shares, pressure, from);
        let burnt = self.burn(common, own + step, pressure, from, time);
        self.balance.carried += self.charge.step(&common.gases, (from, to), &passed, burnt);
        let after = self.charge.pressure(&common.gases, to);
        let work = 0.5 * (pressure + after) * (to - from);
        self.peak = self.peak.max(after);
        self.balance.work += work;
        if (180.0..540.0).contains(&own) {
            self.balance.pumping += work;
        }
        if let Some(trace) = &mut self.trace {
            let flows = [passed[0].mass / time, -passed[1].mass / time];
            trace.put(
                own,
                pressure,
                [self.runner.end_states()[1].pressure, self.primary.end_states()[0].pressure],
                flows,
            );
        }
    }

    /// Effective areas of the valves for the way the gas goes.
    fn shares(&self, common: &Common<'_>, own: f64, pressure: f64) -> [f64; 2] {
        let inward = self.insides.runner_valve.pressure >= pressure;
        let outward = pressure >= self.insides.primary_valve.pressure;
        let of = |usual: bool, areas: &Areas| on_cycle(if usual { &areas.forward } else { &areas.reverse }, own);
        [of(inward, &common.intake), of(outward, &common.exhaust)]
    }

    fn exchange(&mut self, pressure: f64, areas: [f64; 2], time: f64, ends: (State, State)) -> [Passed; 2] {
        let Charge { temperature, burned, .. } = self.charge;
        let valve = |area: f64, pipe: f64| End::Valve { share: area / pipe, pressure, temperature, burned };
        let intake = valve(areas[0], self.runner.end_areas()[1]).face(Gas::AIR, &self.insides.runner_valve, 1.0);
        let exhaust = valve(areas[1], self.primary.end_areas()[0]).face(Gas::BURNED, &self.insides.primary_valve, -1.0);
        self.runner.finish(time, [ends.0, intake]);
        self.primary.finish(time, [exhaust, ends.1]);
        let into = self.runner.end_flows().1 * time;
        let out = -self.primary.end_flows().0 * time;
        let passed =
            |mass: f64, face: State, gas: Gas| Passed { mass, temperature: face.stagnation(gas), burned: face.burned };
        [passed(into, intake, Gas::AIR), passed(out, exhaust, Gas::BURNED)]
    }

    /// Counts what passed; `air` is the share of the fresh gas that is air.
    fn count(&mut self, passed: &[Passed; 2], air: f64, time: f64) {
        let balance = &mut self.balance;
        balance.air += air * self.runner.end_flows().0 * time;
        let [intake, exhaust] = passed;
        if intake.mass < 0.0 {
            balance.pushed_back -= intake.mass;
        }
        if exhaust.mass < 0.0 {
            balance.short_circuited -= exhaust.mass * (1.0 - self.charge.burned);
            balance.exhaust.0 -= exhaust.mass;
            balance.exhaust.1 -= exhaust.mass * self.charge.temperature;
        } else {
            balance.drawn_back += exhaust.mass;
        }
    }

    /// When both valves have shut on the compression stroke the charge is counted and its fuel with it.
    fn open_or_shut(&mut self, common: &Common<'_>, own: f64, areas: [f64; 2], pressure: f64, volume: f64) {
        let open = areas[0] > 0.0 || areas[1] > 0.0;
        if !self.opened && own < 300.0 && areas[1] > common.opening {
            (self.opened, self.opening_pressure) = (true, pressure);
        }
        if (360.0..500.0).contains(&own) {
            (self.shut, self.fuelled) = (None, false);
        } else if open {
            self.shut = None;
        } else if self.shut.is_none() && own > 500.0 {
            self.opened = false;
            self.residual = self.charge.burned;
            let fresh = self.charge.mass * (1.0 - self.charge.burned);
            let air = fresh * (1.0 - common.setup.mixture.vapour);
            let (mass, burning) = lit(common, air, self.residual);
            self.air_fuel = air / mass.max(1e-12);
            if common.fires && !self.fuelled {
                self.balance.fuel += mass;
            }
            self.fuelled = true;
            let fuel = &common.setup.fuel;
            self.shut = Some(Shut {
                reference: Reference { pressure, temperature: self.charge.temperature, volume },
                fresh,
                fuel: mass,
                burning,
                done: 0.0,
                knock: Knock::from_closing(
                    pressure,
                    self.charge.temperature - cooled_by(fuel.evaporation, self.air_fuel, common.setup.mixture.cooled),
                    fuel.unburned(self.air_fuel),
                ),
            });
        }
    }

    /// What burns up to the angle `own`, and what the walls take meanwhile.
    fn burn(&mut self, common: &Common<'_>, own: f64, pressure: f64, volume: f64, time: f64) -> Burnt {
        let mut burnt = Burnt::default();
        let mut fired = false;
        if let Some(shut) = &mut self.shut {
            let after_top = if own > 360.0 { own - 720.0 } else { own };
            if common.fires && shut.done < 1.0 && after_top > -90.0 {
                let done = shut.burning.burned(after_top);
                let share = (done - shut.done).max(0.0);
                shut.done = shut.done.max(done);
                burnt.fuel = share * shut.fuel;
                burnt.fresh = share * shut.fresh;
                burnt.heat = burnt.fuel * common.setup.fuel.heating_value * common.release * common.efficiency;
                if shut.done < ALL_BURNED && matches!(shut.burning, Burning::Spark { .. }) {
                    shut.knock.add(pressure, time);
                    self.knock = shut.knock.integral();
                }
            }
            fired = shut.done > 0.0;
        }
        let reference = self.shut.map(|shut| shut.reference);
        let lost = common.walls.loss(pressure, self.charge.temperature, volume, reference, fired) * time;
        self.balance.released += burnt.heat;
        self.balance.walls += lost;
        burnt.heat -= lost;
        burnt
    }
}

fn runner(setup: &Setup, mesh: &Mesh, place: usize, start: State) -> Option<Duct> {
    let (port, length) = (&setup.intake, setup.intake.length(place));
    let section = |from_mouth: f64| port.section(length - from_mouth);
    let wall = port.wall(place, warm_pipe(setup));
    Duct::new(Gas::AIR, length, cells_of(length, mesh.cells.0), section, Some(wall), start)
}

fn primary(setup: &Setup, mesh: &Mesh, place: usize, start: State) -> Option<Duct> {
    let (port, length) = (&setup.exhaust, setup.exhaust.length(place));
    let section = |from_valve: f64| port.section(from_valve);
    let wall = port.wall(place, hot_pipe(setup, setup.unmeasured.primary_wall));
    Duct::new(Gas::BURNED, length, cells_of(length, mesh.cells.1), section, Some(wall), start)
}

/// Fuel of a charge with so much air, kg, and how it burns.
fn lit(common: &Common<'_>, air: f64, residual: f64) -> (f64, Burning) {
    match &common.setup.combustion {
        Combustion::Spark { air_fuel, later } => {
            (air / air_fuel, Burning::spark(common.rpm, *later, residual, common.setup.unmeasured.burn_length))
        }
        Combustion::Diesel { fuelling, smoke_limit, start, slower } => {
            let most = air / smoke_limit;
            let fuel = on_speed(fuelling, common.rpm).map_or(most, |fuel| fuel.min(most));
            (
                fuel,
                Burning::diesel(
                    common.rpm,
                    held(start, common.rpm),
                    air / fuel.max(1e-12),
                    slower * common.setup.unmeasured.burn_length,
                ),
            )
        }
    }
}

/// A table over speed, held at its ends; `None` when it is empty.
fn on_speed(table: &[(f64, f64)], rpm: f64) -> Option<f64> {
    (!table.is_empty()).then(|| held(table, rpm))
}

/// An angle within one cycle.
fn turned(crank: f64) -> f64 {
    crank.rem_euclid(720.0)
}
