//! What a breathing engine is made of, resolved to numbers; SI.

use super::friction::{Friction, Parts};
use super::port::Port;
use super::state::Gas;
use super::thermo::Fuel;
use std::f64::consts::PI;

/// Where primaries meet.
#[derive(Debug, Clone, PartialEq)]
pub struct Collector {
    /// Cylinders by their place in [`Setup::fires_at`].
    pub members: Vec<usize>,
    /// Length and area of the pipe behind the junction.
    pub pipe: (f64, f64),
    /// Share of the arriving momentum that this pipe keeps.
    pub kept: f64,
}

/// How the charge is fuelled and lit.
#[derive(Debug, Clone, PartialEq)]
pub enum Combustion {
    /// Spark.
    Spark {
        /// Mass of air for a unit mass of fuel.
        air_fuel: f64,
        /// Degrees the charge burns later than is best.
        later: f64,
    },
    /// Diesel.
    Diesel {
        /// Fuel for a stroke over speed (rpm, kg), rising in speed; empty when the smoke limit rules alone.
        fuelling: Vec<(f64, f64)>,
        /// Least air-fuel ratio; fuel is held back to keep it.
        smoke_limit: f64,
        /// First burning, degrees after firing top dead centre, over speed (rpm), rising in speed.
        start: Vec<(f64, f64)>,
        /// How much longer the main part burns than usual.
        slower: f64,
    },
}

/// What fuel does to the charge on its way in.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Mixture {
    /// How much colder the air is for what has evaporated before it comes to the valve, K.
    pub cooled: f64,
    /// Share of the volume that is vapour.
    pub vapour: f64,
}

/// Pressure lost before the throttle and behind the exhaust: `dp = k m^2`, Pa for the square of kg/s of the whole engine.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Restriction {
    /// Air cleaner and its ducts.
    pub inlet: f64,
    /// Pipes and silencers behind the collectors or the turbine.
    pub outlet: f64,
}

/// Constants of the model that nobody measures on an engine: usual values, which twin experiments vary to see what a curve may
/// be off by.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Unmeasured {
    /// Mean temperature of crown, chamber and liner, K (assumed).
    pub cylinder_wall: f64,
    /// Wall of the runners, K (assumed: a warm manifold).
    pub runner_wall: f64,
    /// Wall of the primaries, K (assumed: a hot header).
    pub primary_wall: f64,
    /// Heat between gas and pipes over the correlation's.
    pub pipe_heat: f64,
    /// Heat between gas and cylinder over the correlation's.
    pub cylinder_heat: f64,
    /// Length of burning over the usual.
    pub burn_length: f64,
}

impl Default for Unmeasured {
    fn default() -> Self {
        Self {
            cylinder_wall: 500.0,
            runner_wall: 345.0,
            primary_wall: 750.0,
            pipe_heat: 1.0,
            cylinder_heat: 1.0,
            burn_length: 1.0,
        }
    }
}

/// An engine that breathes.
#[derive(Debug, Clone, PartialEq)]
pub struct Setup {
    /// Volume above the piston every [`super::over_cycle::TABLE_STEP`] from firing top, m3.
    pub volume: Vec<f64>,
    /// Cylinder bore, m.
    pub bore: f64,
    /// True stroke, m.
    pub stroke: f64,
    /// Degrees after the first at which each cylinder fires; one for each cylinder that is computed.
    pub fires_at: Vec<f64>,
    /// Cylinders of the whole engine, of which the computed ones stand for all.
    pub cylinders: f64,
    /// Intake side.
    pub intake: Port,
    /// Exhaust side.
    pub exhaust: Port,
    /// Collectors of the full mode; none where every primary ends in the open.
    pub collectors: Vec<Collector>,
    /// Effective area of the throttle, m2; `None` without one.
    pub throttle: Option<f64>,
    /// Plenum behind the throttle, all planes together, m3.
    pub plenum: f64,
    /// Planes it is divided into, each with its share of the throttle for every other firing; at least one.
    pub planes: usize,
    /// What it burns.
    pub fuel: Fuel,
    /// How.
    pub combustion: Combustion,
    /// How the fuel meets the air.
    pub mixture: Mixture,
    /// What rubs.
    pub rubbing: Friction,
    /// Friction over what the correlation says; 1 unless it was fitted to a dyno pull.
    pub friction: f64,
    /// What stands before the throttle and behind the exhaust.
    pub restriction: Restriction,
    /// Heat released over what is usual; 1 unless it was fitted to a dyno pull.
    pub burning: f64,
    /// What nobody measures.
    pub unmeasured: Unmeasured,
    /// How finely it is cut up.
    pub mesh: Mesh,
    /// The mesh it runs on first, until it repeats: most cycles are run where they cost little.
    pub begun_on: Option<Mesh>,
}

/// How finely an engine is cut up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mesh {
    /// Length of a cell in runner and primary, m.
    pub cells: (f64, f64),
    /// Longest step, crank degrees.
    pub longest_step: f64,
    /// A cycle repeats when work and air differ by no more than this share from the cycle before.
    pub repeats: f64,
}

impl Setup {
    /// Volume swept by one piston, m3.
    pub fn swept(&self) -> f64 {
        0.25 * PI * self.bore * self.bore * self.stroke
    }

    /// Mean piston speed, m/s.
    pub fn piston_speed(&self, rpm: f64) -> f64 {
        self.stroke * rpm / 30.0
    }

    /// What all cylinders pass in a second of what one passes in a cycle.
    pub fn per_second(&self, each: f64, rpm: f64) -> f64 {
        self.cylinders * each * rpm / 120.0
    }
}

/// Gas around the engine at one speed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Around {
    /// Outside pressure, Pa, and temperature, K: what volumetric efficiency and power are referred to.
    pub outside: (f64, f64),
    /// Pressure, Pa, and temperature, K, before the throttle: outside air, or what a charger delivers.
    pub supply: (f64, f64),
    /// Whether the throttle stands between it and the plenum; a charger's pressure is that of the manifold itself.
    pub throttled: bool,
    /// Pressure behind the exhaust, Pa; the first guess of it when a turbine stands there.
    pub back: f64,
    /// Whether that was measured, so that nothing behind it counts any more.
    pub back_is_given: bool,
    /// The turbine that drives the compressor, when the pressure before it is not given.
    pub turbine: Option<Turbine>,
}

/// A turbine known by the work it has to do.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Turbine {
    /// Work for a unit mass of air that the compressor takes, J/kg.
    pub work: f64,
    /// Turbine and mechanical efficiency together.
    pub efficiency: f64,
    /// Share of the exhaust that the wastegate lets past it.
    pub past: f64,
}

impl Turbine {
    /// Pressure before the turbine, Pa, for a mass of air and of exhaust, the exhaust's temperature and the pressure
    /// behind it:
    /// `w m_air = eta m_ex cp T3 (1 - (p4/p3)^((g-1)/g))` [Watson and Janota, *Turbocharging the Internal Combustion
    /// Engine*, ch. 5; from memory]. At most twelve times the outlet pressure, where no turbine could do the work.
    pub fn inlet_pressure(&self, air: f64, exhaust: f64, temperature: f64, outlet: f64) -> f64 {
        let cp = Gas::BURNED.cp();
        let taken = self.work * air / (self.efficiency * (1.0 - self.past) * exhaust * cp * temperature).max(1e-9);
        // (g - 1)/g of burned gas is 1/4.
        let ratio = (1.0 - taken).max(0.0).powi(4);
        outlet / ratio.max(1.0 / 12.0)
    }
}

impl Around {
    /// An engine that breathes outside air.
    pub const fn open(pressure: f64, temperature: f64) -> Self {
        Self {
            outside: (pressure, temperature),
            supply: (pressure, temperature),
            throttled: true,
            back: pressure,
            back_is_given: false,
            turbine: None,
        }
    }
}

/// Energies and masses of one cycle of one cylinder.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Balance {
    /// Released by the fuel, J.
    pub released: f64,
    /// Lost to the walls, J.
    pub walls: f64,
    /// Enthalpy carried out through the valves less that carried in, J.
    pub carried: f64,
    /// Indicated work of the whole cycle, J, and of the two strokes that exchange gas.
    pub work: f64,
    /// Work of exhaust and intake stroke, J: the pumping loop, negative when it costs.
    pub pumping: f64,
    /// Air that came through the runner's mouth, kg.
    pub air: f64,
    /// Fuel, kg.
    pub fuel: f64,
    /// Mass the cylinder holds more than a cycle before, kg: zero when it repeats.
    pub drift: f64,
    /// Fresh charge that left through the exhaust valve, kg.
    pub short_circuited: f64,
    /// Gas the cylinder pushed back through the intake valve, kg.
    pub pushed_back: f64,
    /// Gas drawn in through the exhaust valve, kg.
    pub drawn_back: f64,
    /// Mass that left through the exhaust valve, kg, and its temperature times mass, kg K.
    pub exhaust: (f64, f64),
}

impl Balance {
    /// Whether the numbers are such as an engine may have.
    pub fn is_sound(&self) -> bool {
        let all =
            [self.work, self.pumping, self.air, self.fuel, self.carried, self.walls, self.exhaust.0, self.exhaust.1];
        all.iter().all(|number| number.is_finite())
    }
}

/// One point of the curve.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Point {
    /// Crank speed, rpm.
    pub rpm: f64,
    /// At the crank, all cylinders, N m, without what a charger takes from it.
    pub torque: f64,
    /// Indicated mean effective pressure over the whole cycle, Pa.
    pub indicated: f64,
    /// That of the two gas exchange strokes alone, Pa.
    pub pumping: f64,
    /// Friction mean effective pressures, Pa.
    pub friction: Parts,
    /// Air through the runner over the swept volume of outside air.
    pub volumetric_efficiency: f64,
    /// Burned share at intake closing.
    pub residual: f64,
    /// Highest cylinder pressure, Pa.
    pub peak_pressure: f64,
    /// Cylinder pressure as the exhaust valve opens, Pa.
    pub opening_pressure: f64,
    /// Mean pressure in the plenum, Pa.
    pub plenum: f64,
    /// Pressure before the throttle, Pa.
    pub supply: f64,
    /// Pressure behind the exhaust, Pa.
    pub back: f64,
    /// Air over fuel by mass.
    pub air_fuel: f64,
    /// Mean temperature of what leaves through the exhaust valve, K.
    pub exhaust_temperature: f64,
    /// Livengood and Wu's integral of the end gas; 1 knocks. Zero for diesels and when nothing burns.
    pub knock: f64,
    /// Means of all cylinders.
    pub balance: Balance,
    /// Least and greatest indicated work of a cylinder over their mean.
    pub spread: (f64, f64),
    /// Cycles computed.
    pub cycles: usize,
    /// Greatest change of work or air against the cycle before, relative.
    pub change: f64,
    /// Whether that is small enough.
    pub converged: bool,
}

impl Point {
    /// W.
    pub fn power(&self) -> f64 {
        self.torque * self.rpm * PI / 30.0
    }
}
