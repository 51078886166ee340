//! Torque and power over speed.

use super::block::Named;
use crate::quantity::Shown;
use serde::Serialize;

/// How an idle sounds, by its residual (common practice, no source).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum IdleQuality {
    /// Up to .38.
    Smooth,
    /// Up to .50.
    Lopes,
    /// More.
    Rough,
}

report! {
    /// Torque and power of one candidate over speed, at the crank, in the air of the plan.
    pub struct BreathingReport {
        /// How it was computed.
        mode: String,
        /// Boost level, for a boosted engine.
        level: Option<String>,
        /// Every boost level of the plan.
        level_names: Vec<String>,
        /// Band of the plan.
        band_rpm: [f64; 2],
        /// Where the plan wants peak power.
        peak_wanted_rpm: Option<f64>,
        /// Where the plan shifts.
        shift_rpm: Option<f64>,
        /// Speeds.
        speed_rpm: Vec<f64>,
        /// Torque.
        torque_nm: Vec<f64>,
        /// Power.
        power_kw: Vec<f64>,
        /// Air taken in over the swept volume of outside air.
        volumetric_efficiency: Vec<f64>,
        /// Brake mean effective pressure.
        bmep_kpa: Vec<f64>,
        /// Friction mean effective pressure.
        friction_kpa: Vec<f64>,
        /// Where the fuel's heat goes.
        energy: EnergyReport,
        /// Fuel for brake work; absent where there is none.
        consumption_g_per_kwh: Vec<Option<f64>>,
        /// The same.
        consumption_lb_per_hp_h: Vec<Option<f64>>,
        /// Air of the whole engine.
        air_kg_per_h: Vec<f64>,
        /// The same.
        air_lb_per_min: Vec<f64>,
        /// The same, of outside air.
        air_cfm: Vec<f64>,
        /// Mean piston speed.
        piston_speed_m_per_s: Vec<f64>,
        /// The same.
        piston_speed_ft_per_min: Vec<f64>,
        /// Figures beside the range of their kind of engine, for a whole curve.
        figures: Vec<FigureReport>,
        /// Mean effective pressure of the exhaust and intake strokes, negative when they cost.
        pumping_kpa: Vec<f64>,
        /// Burned share of the charge at intake closing.
        residual_fraction: Vec<f64>,
        /// Highest cylinder pressure, absolute.
        peak_cylinder_pressure_kpa: Vec<f64>,
        /// Cylinder pressure as the exhaust valve opens, absolute.
        exhaust_opening_kpa: Vec<f64>,
        /// Pressure in the plenum, absolute.
        manifold_kpa: Vec<f64>,
        /// Pressure in the manifold as a gauge shows it, for a boosted engine.
        boost_kpa: Option<Vec<f64>>,
        /// Pressure before the turbine as a gauge shows it, for a boosted engine.
        drive_kpa: Option<Vec<f64>>,
        /// What a blower takes from the crank; already off torque and power.
        blower_kw: Option<Vec<f64>>,
        /// Mass of air for one of fuel.
        air_fuel: Vec<f64>,
        /// Air-fuel ratio above the smoke limit, as a share of it, for a diesel.
        smoke_margin: Option<Vec<f64>>,
        /// Mean temperature of what leaves through the exhaust valve.
        exhaust_temperature_c: Vec<f64>,
        /// Research octane number at which the end gas would just light itself, for a spark engine.
        octane_needed: Option<Vec<f64>>,
        /// Knock integral with the fuel of the build; one knocks.
        knock_index: Option<Vec<f64>>,
        /// Fresh charge lost through the exhaust valve, of the air taken in.
        short_circuited: Vec<f64>,
        /// Gas pushed back through the intake valve, of the air taken in.
        pushed_back: Vec<f64>,
        /// Gas drawn in through the exhaust valve, of the air taken in.
        drawn_back: Vec<f64>,
        /// Indicated work of the best cylinder less that of the worst, over their mean; zero for one cylinder.
        cylinder_spread: Vec<f64>,
        /// Cycles computed from cold.
        cycles: Vec<usize>,
        /// Change of work or air in the last cycle, relative.
        change: Vec<f64>,
        /// Whether that is small enough.
        converged: Vec<bool>,
        /// Every hump of torque, then of power, the highest first.
        peaks: Vec<PeakReport>,
        /// Dips between two humps of torque, with what makes them.
        dips: Vec<DipReport>,
        /// By a parabola through the five points around the highest.
        peak_torque_nm: f64,
        /// Speed of it.
        peak_torque_rpm: f64,
        /// By a parabola through the five points around the highest.
        peak_power_kw: f64,
        /// Speed of it.
        peak_power_rpm: f64,
        /// Over the band of the plan.
        average_torque_nm: Option<f64>,
        /// Over the band of the plan.
        average_power_kw: Option<f64>,
        /// What it would be in standard air.
        standard_air: Vec<StandardAirReport>,
        /// Error that may be expected at each speed, relative.
        error_share: Vec<f64>,
        /// Share of a peak's speed by which that may be off.
        peak_speed_share: f64,
        /// Share of torque by which a difference from another candidate of the same engine may be off.
        difference_share: Vec<f64>,
        /// Whether constants fitted to a pull are in it.
        calibrated: bool,
        /// Idle, where it was computed.
        idle: Option<IdleReport>,
        /// Highest cylinder pressure while the starter turns it, gauge, without leakage; where it was computed.
        cranking: Option<Shown>,
        /// What a dyno measured of it: speed, and torque in the plan's air.
        pulled: Vec<[f64; 2]>,
        /// What may be claimed, in words.
        error_band: String,
    }

    /// Where the fuel's heat goes at each speed, as shares of it; they sum to one.
    pub struct EnergyReport {
        /// Work at the crank.
        brake: Vec<f64>,
        /// Rubbing and what the crank drives.
        friction: Vec<f64>,
        /// A blower.
        blower: Vec<f64>,
        /// The strokes that exchange gas; negative where they give work.
        pumping: Vec<f64>,
        /// Heat to the walls.
        walls: Vec<f64>,
        /// Heat and pressure that leave with the exhaust.
        exhaust: Vec<f64>,
        /// Fuel that is not burned: richness, and what never meets the flame.
        unburned: Vec<f64>,
        /// Friction by its parts.
        friction_by_part: FrictionReport,
    }

    /// Friction mean effective pressures; a diesel's is told as a whole.
    pub struct FrictionReport {
        /// Main bearings, seals, oil.
        crank_kpa: Vec<f64>,
        /// Pistons, rings, rod bearings.
        reciprocating_kpa: Vec<f64>,
        /// What gas pressure adds to rings.
        gas_kpa: Vec<f64>,
        /// Valve train.
        train_kpa: Vec<f64>,
        /// Pumps and alternator.
        accessories_kpa: Vec<f64>,
        /// All of it, where it is not told by parts.
        whole_kpa: Vec<f64>,
    }

    /// One figure of a curve beside the range in which engines of its kind lie.
    pub struct FigureReport {
        /// Identifier.
        id: String,
        /// What it is.
        title: String,
        /// Speed it is read at.
        rpm: f64,
        /// The figure, in the unit of its range.
        value: f64,
        /// Least of its kind.
        low: f64,
        /// Most of its kind.
        high: f64,
        /// As read.
        shown: Shown,
        /// The range as read.
        shown_range: [Shown; 2],
        /// Whether it lies outside.
        odd: bool,
        /// Inputs most likely to blame, when it does.
        look_at: Vec<Named>,
    }

    /// An engine that idles.
    pub struct IdleReport {
        /// Crank speed.
        rpm: f64,
        /// Below outside pressure in the manifold; absent when it does not idle there.
        vacuum_kpa: Option<f64>,
        /// The same as read.
        vacuum: Option<Shown>,
        /// Burned share of the charge at intake closing.
        residual_fraction: f64,
        /// What the residual makes of it.
        quality: IdleQuality,
        /// Whether cycles repeat; they do not in an engine that hunts.
        repeats: bool,
    }

    /// One cycle of the first cylinder at one speed.
    pub struct TraceReport {
        /// Crank speed.
        rpm: f64,
        /// Crank angle from firing top dead centre.
        crank_deg: Vec<f64>,
        /// Volume above the piston.
        volume_cc: Vec<f64>,
        /// Cylinder pressure, absolute.
        cylinder_kpa: Vec<f64>,
        /// Pressure in the runner at the valve, absolute.
        intake_kpa: Vec<f64>,
        /// Pressure in the primary at the valve, absolute.
        exhaust_kpa: Vec<f64>,
        /// Through the intake valve into the cylinder.
        intake_g_s: Vec<f64>,
        /// Through the exhaust valve out of the cylinder.
        exhaust_g_s: Vec<f64>,
    }

    /// One hump of a curve.
    pub struct PeakReport {
        /// Torque, when it is one of torque.
        torque_nm: Option<f64>,
        /// Power, when it is one of power.
        power_kw: Option<f64>,
        /// Speed of it.
        rpm: f64,
        /// Share of the figure by which it may be off.
        error_share: f64,
    }

    /// A dip of torque between two humps.
    pub struct DipReport {
        /// Speed of its lowest point.
        rpm: f64,
        /// Depth below the straight line between the humps, share of it.
        share: f64,
        /// What makes it, in words.
        why: String,
    }

    /// A correction to standard air.
    pub struct StandardAirReport {
        /// The standard and its air.
        name: String,
        /// Power and torque there over those in the plan's air.
        factor: f64,
        /// Peak power there.
        peak_power_kw: f64,
    }
}

/// A whole curve.
#[derive(Debug, Clone, PartialEq)]
pub struct Curve {
    /// What it comes to.
    pub report: BreathingReport,
    /// The first cylinder's last cycle at every speed.
    pub traces: Vec<TraceReport>,
}
