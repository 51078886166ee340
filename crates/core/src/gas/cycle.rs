//! One cylinder with its runner and its primary, cycle after cycle until it repeats: the fast mode of breathing.
//!
//! The runner breathes from a plenum of constant pressure behind a throttle, the primary opens into a collector of
//! constant pressure. Sister cylinders are felt only through the throttle's mean flow: a shared collector's waves are
//! not in it. Spark ignition.

use super::cylinder::{Charge, Gases, Passed, Reference, Walls, spark_burned};
use super::duct::{Duct, Wall};
use super::ends::End;
use super::nozzle::mass_flow;
use super::state::{Gas, State};
use super::thermo::{Fuel, Mixture};
use std::f64::consts::PI;

/// Gas of the runner: mostly air, a little warm.
const RUNNER_GAS: Gas = Gas::AIR;
/// Gas of the primary: burned and hot.
const PRIMARY_GAS: Gas = Gas::BURNED;
/// Fanning friction and wall temperatures of runner and primary (assumed: turbulent pipe, warm manifold, hot header).
const RUNNER_WALL: Wall = Wall { friction: 0.006, temperature: Some(330.0) };
const PRIMARY_WALL: Wall = Wall { friction: 0.006, temperature: Some(750.0) };
/// Mean temperature of crown, chamber and liner, K (assumed).
const CYLINDER_WALL: f64 = 450.0;
/// Share of the fuel's releasable heat that is released (assumed).
const COMBUSTION_EFFICIENCY: f64 = 0.97;
/// A cycle repeats when work and air differ by less than this from the cycle before.
const REPEATS: f64 = 2e-3;
/// Most cycles from cold.
const MOST_CYCLES: usize = 16;
/// Degrees between the entries of the tables of area.
pub const TABLE_STEP: f64 = 0.5;

/// A port with its pipe.
#[derive(Debug, Clone, PartialEq)]
pub struct Port {
    /// Acoustic length, m.
    pub length: f64,
    /// Pipe area, m2.
    pub area: f64,
    /// Effective area of the open valve for flow in its usual direction, every [`TABLE_STEP`] from firing top, m2.
    pub forward: Vec<f64>,
    /// The same in the other direction.
    pub reverse: Vec<f64>,
}

/// Everything a point of the curve needs; SI.
#[derive(Debug, Clone, PartialEq)]
pub struct Setup {
    /// Volume above the piston every [`TABLE_STEP`] from firing top, m3.
    pub volume: Vec<f64>,
    /// Cylinder bore and stroke, m.
    pub bore: f64,
    /// True stroke, m.
    pub stroke: f64,
    /// Number of cylinders.
    pub count: f64,
    /// Intake side.
    pub intake: Port,
    /// Exhaust side.
    pub exhaust: Port,
    /// Outside air, Pa and K.
    pub ambient: (f64, f64),
    /// Pressure in the collector, Pa.
    pub collector: f64,
    /// Effective area of the throttle, m2; `None` without one.
    pub throttle: Option<f64>,
    /// What it burns.
    pub fuel: Fuel,
    /// Mass of air for a unit mass of fuel.
    pub air_fuel: f64,
    /// Length of a cell in runner and primary, m.
    pub cells: (f64, f64),
}

impl Setup {
    /// Volume swept by one piston, m3.
    pub fn swept(&self) -> f64 {
        0.25 * PI * self.bore * self.bore * self.stroke
    }
}

/// One point of the curve.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Point {
    /// Crank speed, rpm.
    pub rpm: f64,
    /// At the crank, all cylinders, N m.
    pub torque: f64,
    /// Indicated mean effective pressure over the whole cycle, Pa.
    pub indicated: f64,
    /// Friction mean effective pressure, Pa.
    pub friction: f64,
    /// Air through the runner over the swept volume of outside air.
    pub volumetric_efficiency: f64,
    /// Burned share at intake closing.
    pub residual: f64,
    /// Highest cylinder pressure, Pa.
    pub peak_pressure: f64,
    /// Heat released, heat to the walls, and enthalpy out less in of the last cycle, J: with the work they close.
    pub balance: Balance,
    /// Cycles computed.
    pub cycles: usize,
    /// Whether the last two cycles agree.
    pub converged: bool,
}

/// Energies of one cycle of one cylinder, J.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Balance {
    /// Released by the fuel.
    pub released: f64,
    /// Lost to the walls.
    pub walls: f64,
    /// Enthalpy carried out through the valves less that carried in.
    pub carried: f64,
    /// Indicated work.
    pub work: f64,
    /// Air that came through the runner, kg.
    pub air: f64,
    /// Mass the cylinder holds more than a cycle before, kg: zero when it repeats.
    pub drift: f64,
}

impl Point {
    /// W.
    pub fn power(&self) -> f64 {
        self.torque * self.rpm * PI / 30.0
    }
}

/// The point at `rpm`, from cold. `None` when a duct cannot be.
pub fn point(setup: &Setup, rpm: f64) -> Option<Point> {
    let mut run = Run::new(setup, rpm)?;
    let mut last: Option<Balance> = None;
    let mut cycles = 0;
    let mut converged = false;
    while cycles < MOST_CYCLES && !converged {
        let balance = run.cycle();
        cycles += 1;
        converged = last.is_some_and(|before| {
            let near = |a: f64, b: f64| (a - b).abs() <= REPEATS * b.abs().max(1e-12);
            near(balance.work, before.work) && near(balance.air, before.air)
        });
        last = Some(balance);
        run.breathe(balance.air);
    }
    Some(run.result(last?, cycles, converged))
}

struct Run<'a> {
    setup: &'a Setup,
    rpm: f64,
    gases: Gases,
    release: f64,
    runner: Duct,
    primary: Duct,
    charge: Charge,
    plenum: f64,
    walls: Walls,
    swept: f64,
    residual: f64,
    peak: f64,
}

/// What a charge needs once the valves are shut.
#[derive(Clone, Copy)]
struct Shut {
    reference: Reference,
    fresh: f64,
    fuel: f64,
    done: f64,
}

impl<'a> Run<'a> {
    fn new(setup: &'a Setup, rpm: f64) -> Option<Self> {
        let (burned, release) = setup.fuel.burned(setup.air_fuel);
        let gases = Gases { fresh: Mixture::air(), burned };
        let (pressure, temperature) = setup.ambient;
        let pipe = |port: &Port, gas: Gas, cell: f64, wall: Wall, start: State| {
            let cells = ((port.length / cell).round() as usize).clamp(4, 4000);
            Duct::new(gas, port.length, cells, |_| port.area, Some(wall), start)
        };
        let hot = State { burned: 1.0, ..PRIMARY_GAS.state(setup.collector, 900.0, 0.0) };
        let swept = setup.swept();
        let at_top = setup.volume[(360.0 / TABLE_STEP) as usize];
        Some(Self {
            runner: pipe(
                &setup.intake,
                RUNNER_GAS,
                setup.cells.0,
                RUNNER_WALL,
                RUNNER_GAS.state(pressure, temperature, 0.0),
            )?,
            primary: pipe(&setup.exhaust, PRIMARY_GAS, setup.cells.1, PRIMARY_WALL, hot)?,
            charge: Charge { mass: pressure * at_top / (burned.r * 900.0), temperature: 900.0, burned: 1.0 },
            plenum: pressure,
            walls: Walls {
                bore: setup.bore,
                piston_speed: setup.stroke * rpm / 30.0,
                swept,
                temperature: CYLINDER_WALL,
            },
            setup,
            rpm,
            gases,
            release,
            swept,
            residual: 0.0,
            peak: 0.0,
        })
    }

    /// Two turns from the top dead centre of gas exchange.
    fn cycle(&mut self) -> Balance {
        let degrees_per_second = 6.0 * self.rpm;
        let mut balance = Balance::default();
        let mut shut: Option<Shut> = None;
        let mass_before = self.charge.mass;
        self.peak = 0.0;
        let mut crank = 360.0;
        while crank < 1080.0 - 1e-9 {
            let limit = self.runner.stable_step().min(self.primary.stable_step());
            let step = (limit * degrees_per_second).min(1.0).min(1080.0 - crank);
            let time = step / degrees_per_second;
            let passed = self.exchange(crank, time, &mut balance);
            let (from, to) = (self.volume(crank), self.volume(crank + step));
            let pressure = self.charge.pressure(&self.gases, from);
            self.peak = self.peak.max(pressure);
            let open =
                self.share(&self.setup.intake, crank, true) > 0.0 || self.share(&self.setup.exhaust, crank, true) > 0.0;
            if open {
                shut = None;
            } else if shut.is_none() && (crank % 720.0) > 500.0 {
                shut = Some(self.close(pressure, from));
            }
            let (heat, burnt, fuel) = self.burn(crank + step, shut.as_mut());
            let fired = shut.is_some_and(|s| s.done > 0.0);
            let lost =
                self.walls.loss(pressure, self.charge.temperature, from, shut.map(|s| s.reference), fired) * time;
            self.charge.step(&self.gases, (from, to), &passed, heat - lost, (burnt, fuel));
            let after = self.charge.pressure(&self.gases, to);
            balance.work += 0.5 * (pressure + after) * (to - from);
            balance.released += heat;
            balance.walls += lost;
            crank += step;
        }
        balance.drift = self.charge.mass - mass_before;
        balance
    }

    /// Steps both ducts and tells what passes the valves.
    fn exchange(&mut self, crank: f64, time: f64, balance: &mut Balance) -> [Passed; 2] {
        let volume = self.volume(crank);
        let pressure = self.charge.pressure(&self.gases, volume);
        let valve = |share: f64| End::Valve {
            share,
            pressure,
            temperature: self.charge.temperature,
            burned: self.charge.burned,
        };
        let inward = self.runner.end_states()[1].pressure >= pressure;
        let outward = pressure >= self.primary.end_states()[0].pressure;
        let intake = valve(self.share(&self.setup.intake, crank, inward) / self.setup.intake.area);
        let exhaust = valve(self.share(&self.setup.exhaust, crank, outward) / self.setup.exhaust.area);
        let plenum = End::Open { pressure: self.plenum, temperature: self.setup.ambient.1, burned: 0.0 };
        let collector = End::Open { pressure: self.setup.collector, temperature: 800.0, burned: 1.0 };
        self.runner.step(time, &plenum, &intake);
        self.primary.step(time, &exhaust, &collector);
        balance.air += self.runner.end_flows().0 * time;
        let into = self.runner.end_flows().1 * time;
        let out = -self.primary.end_flows().0 * time;
        let passed = [
            passed(into, self.runner.end_states()[1], RUNNER_GAS),
            passed(out, self.primary.end_states()[0], PRIMARY_GAS),
        ];
        for gas in &passed {
            balance.carried -= if gas.mass >= 0.0 {
                let own = Charge { mass: gas.mass, temperature: gas.temperature, burned: gas.burned };
                gas.mass * own.enthalpy(&self.gases)
            } else {
                gas.mass * self.charge.enthalpy(&self.gases)
            };
        }
        passed
    }

    /// The valves are shut: the charge is counted and its fuel with it.
    fn close(&mut self, pressure: f64, volume: f64) -> Shut {
        self.residual = self.charge.burned;
        let fresh = self.charge.mass * (1.0 - self.charge.burned);
        Shut {
            reference: Reference { pressure, temperature: self.charge.temperature, volume },
            fresh,
            fuel: fresh / self.setup.air_fuel,
            done: 0.0,
        }
    }

    /// Heat, fresh charge and fuel that burn up to `crank`.
    fn burn(&self, crank: f64, shut: Option<&mut Shut>) -> (f64, f64, f64) {
        let Some(shut) = shut else { return (0.0, 0.0, 0.0) };
        let done = spark_burned(crank - 720.0, self.rpm);
        let share = (done - shut.done).max(0.0);
        shut.done = shut.done.max(done);
        let fuel = share * shut.fuel;
        (fuel * self.setup.fuel.heating_value * self.release * COMBUSTION_EFFICIENCY, share * shut.fresh, fuel)
    }

    /// The plenum's pressure for the mean flow of all cylinders, half way at a time.
    fn breathe(&mut self, air: f64) {
        let Some(area) = self.setup.throttle else { return };
        let (outside, temperature) = self.setup.ambient;
        let flow = (self.setup.count * air * self.rpm / 120.0).max(0.0);
        let (mut low, mut high) = (0.3 * outside, outside);
        for _ in 0..50 {
            let middle = 0.5 * (low + high);
            if mass_flow(Gas::AIR, area, outside, temperature, middle) > flow { low = middle } else { high = middle }
        }
        self.plenum += 0.5 * (0.5 * (low + high) - self.plenum);
    }

    fn volume(&self, crank: f64) -> f64 {
        on_table(&self.setup.volume, crank)
    }

    fn share(&self, port: &Port, crank: f64, forward: bool) -> f64 {
        on_table(if forward { &port.forward } else { &port.reverse }, crank)
    }

    fn result(&self, balance: Balance, cycles: usize, converged: bool) -> Point {
        let indicated = balance.work / self.swept;
        let speed = self.walls.piston_speed;
        // fmep = 0.4 + 0.005 pmax + 0.09 Sp + 0.0009 Sp^2 bar [Chen and Flynn 1965, form; constants common practice].
        let friction = 1e5 * (0.4 + 0.005 * self.peak * 1e-5 + 0.09 * speed + 0.0009 * speed * speed);
        let density = self.setup.ambient.0 / (Gas::AIR.r * self.setup.ambient.1);
        Point {
            rpm: self.rpm,
            torque: (indicated - friction) * self.swept * self.setup.count / (4.0 * PI),
            indicated,
            friction,
            volumetric_efficiency: balance.air / (density * self.swept),
            residual: self.residual,
            peak_pressure: self.peak,
            balance,
            cycles,
            converged,
        }
    }
}

fn passed(mass: f64, face: State, gas: Gas) -> Passed {
    let stagnation = face.temperature(gas) + 0.5 * face.velocity * face.velocity / gas.cp();
    Passed { mass, temperature: stagnation, burned: face.burned }
}

/// A table over one cycle at any crank angle, between its entries linear.
fn on_table(table: &[f64], crank: f64) -> f64 {
    let place = crank.rem_euclid(720.0) / TABLE_STEP;
    let left = place as usize;
    let share = place - left as f64;
    let (from, to) = (table[left % table.len()], table[(left + 1) % table.len()]);
    from + share * (to - from)
}
