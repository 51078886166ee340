//! The report of a curve, made of its samples.

use super::balance::{POUNDS_PER_HORSEPOWER_HOUR, air_flow, brake_pressure, consumption, energy, piston_speed};
use super::constants::Calibrated;
use super::dips::dips;
use super::idle_and_cranking::IdleAndCranking;
use super::odd::figures;
use super::work::{Breathing, Effort, Sample};
use crate::gas::knock::{octane_needed, with_octane};
use crate::gas::over_cycle::on_cycle;
use crate::gas::setup::Combustion;
use crate::peaks::{humps, peak};
use crate::pulls::air as standard_air;
use crate::quantity::{CFM, INCH, POUND};
use crate::quantity::{Dimension, shown};
use crate::report::{BreathingReport, PeakReport, StandardAirReport, TraceReport};
use crate::table::held;
use crate::words::CalibratedBy;

/// Seconds in an hour and a minute, metres in a foot.
const HOUR: f64 = 3600.0;
const MINUTE: f64 = 60.0;
const FOOT: f64 = 12.0 * INCH;

/// What may be claimed without calibration, nine engines of ten, by speed over that of peak power: power within 7 %, torque
/// within 6 %, and within 15 % low down [twin experiments over the ranges of what nobody measures (`benches/twins.rs`) give 6,
/// 6 and 6 to 8 %; the rest is for what no model of this kind has in it: common practice, no source].
const UNCALIBRATED: [(f64, f64); 5] = [(0.5, 0.15), (0.65, 0.10), (0.75, 0.06), (0.9, 0.06), (1.0, 0.07)];
/// What each loss that nobody measured adds, as independent errors do.
const ASSUMED_LOSS: f64 = 0.02;
/// What the speed of a peak may be off by, as a share of it.
const PEAK_SPEED: f64 = 0.05;
/// What a calibrated curve may claim at best.
const LEAST_CALIBRATED: f64 = 0.02;
/// With a flow table nobody measured.
const GUESSED_FLOW: f64 = 0.20;

/// The report of `samples`, which stand in rising speed. What is not defined for an engine is absent.
pub fn report(
    breathing: &Breathing,
    effort: Effort,
    level: usize,
    samples: &[Sample],
    idle_and_cranking: Option<&IdleAndCranking>,
) -> BreathingReport {
    let column = |of: &dyn Fn(&Sample) -> f64| samples.iter().map(of).collect::<Vec<f64>>();
    let setup = &breathing.setup;
    let (speed, torque, power) = (column(&|s| s.point.rpm), column(&|s| s.torque), column(&|s| s.power() * 1e-3));
    let used = samples.partition_point(|sample| sample.point.rpm <= breathing.used_to());
    let (own, torques, powers) = (&speed[..used], &torque[..used], &power[..used]);
    let ((peak_torque_rpm, peak_torque_nm), (peak_power_rpm, peak_power_kw)) = (peak(own, torques), peak(own, powers));
    let regular = breathing.speeds(effort);
    let spark = matches!(setup.combustion, Combustion::Spark { .. });
    let of_air = |of: fn(&Sample) -> f64| column(&|s: &Sample| of(s) / s.point.balance.air.max(1e-12));
    let burned: Vec<Option<f64>> = samples.iter().map(|s| consumption(breathing, s)).collect();
    let gauge = |pascal: f64| (pascal - breathing.air.pressure) * 1e-3;
    BreathingReport {
        mode: format!("{}, {}", effort.words(), breathing.moved_by(effort)),
        level: breathing.air.levels.get(level).map(|level| level.name.clone()),
        level_names: breathing.air.levels.iter().map(|level| level.name.clone()).collect(),
        band_rpm: [breathing.band.0, breathing.band.1],
        peak_wanted_rpm: breathing.wanted.0,
        shift_rpm: breathing.wanted.1,
        bmep_kpa: column(&|s| brake_pressure(breathing, s)),
        friction_kpa: column(&|s| s.point.friction.sum() * 1e-3),
        energy: energy(breathing, samples),
        consumption_g_per_kwh: burned.clone(),
        consumption_lb_per_hp_h: burned
            .iter()
            .map(|burned| burned.map(|grams| grams * POUNDS_PER_HORSEPOWER_HOUR))
            .collect(),
        air_kg_per_h: column(&|s| air_flow(breathing, s) * HOUR),
        air_lb_per_min: column(&|s| air_flow(breathing, s) * MINUTE / POUND),
        air_cfm: column(&|s| air_flow(breathing, s) / breathing.air.density() / CFM),
        piston_speed_m_per_s: column(&|s| piston_speed(breathing, s)),
        piston_speed_ft_per_min: column(&|s| piston_speed(breathing, s) * MINUTE / FOOT),
        figures: if effort.is_result() { figures(breathing, &samples[..used]) } else { Vec::new() },
        pumping_kpa: column(&|s| s.point.pumping * 1e-3),
        volumetric_efficiency: column(&|s| s.point.volumetric_efficiency),
        residual_fraction: column(&|s| s.point.residual),
        peak_cylinder_pressure_kpa: column(&|s| s.point.peak_pressure * 1e-3),
        exhaust_opening_kpa: column(&|s| s.point.opening_pressure * 1e-3),
        manifold_kpa: column(&|s| s.point.plenum * 1e-3),
        boost_kpa: breathing.air.charger.as_ref().map(|_| column(&|s| gauge(s.point.plenum))),
        drive_kpa: breathing.air.charger.as_ref().map(|_| column(&|s| gauge(s.point.back))),
        blower_kw: breathing.air.charger.as_ref().filter(|c| c.blower).map(|_| column(&|s| s.blower * 1e-3)),
        air_fuel: column(&|s| s.point.air_fuel),
        smoke_margin: (!spark).then(|| column(&|s| s.point.air_fuel / breathing.smoke - 1.0)),
        exhaust_temperature_c: column(&|s| s.point.exhaust_temperature - 273.15),
        octane_needed: spark.then(|| column(&|s| octane_needed(s.point.knock))),
        knock_index: breathing.octane.map(|octane| column(&|s| with_octane(s.point.knock, octane))),
        short_circuited: of_air(|s| s.point.balance.short_circuited),
        pushed_back: of_air(|s| s.point.balance.pushed_back),
        drawn_back: of_air(|s| s.point.balance.drawn_back),
        cylinder_spread: column(&|s| s.point.spread.1 - s.point.spread.0),
        cycles: samples.iter().map(|s| s.point.cycles).collect(),
        change: column(&|s| s.point.change),
        converged: samples.iter().map(|s| s.point.converged).collect(),
        dips: dips(&samples[..used]),
        peaks: peaks(breathing, own, (torques, powers), peak_power_rpm),
        idle: idle_and_cranking.and_then(|idle_and_cranking| idle_and_cranking.idle.clone()),
        cranking: idle_and_cranking.map(|idle_and_cranking| shown(idle_and_cranking.cranking, Dimension::Pressure)),
        pulled: breathing.pulled.iter().map(|(rpm, nm)| [*rpm, *nm]).collect(),
        average_torque_nm: over_band(&speed, &torque, &regular, breathing.band),
        average_power_kw: over_band(&speed, &power, &regular, breathing.band),
        standard_air: corrections(breathing, &samples[..used], peak_power_kw),
        difference_share: speed
            .iter()
            .map(|rpm| DIFFERENCE.0 + DIFFERENCE.1 * error_share(breathing, *rpm, rpm / peak_power_rpm))
            .collect(),
        error_share: speed.iter().map(|rpm| error_share(breathing, *rpm, rpm / peak_power_rpm)).collect(),
        peak_speed_share: PEAK_SPEED,
        calibrated: breathing.calibration.is_some(),
        error_band: error_words(breathing),
        peak_torque_nm,
        peak_torque_rpm,
        peak_power_kw,
        peak_power_rpm,
        speed_rpm: speed,
        torque_nm: torque,
        power_kw: power,
    }
}

/// Degrees between the points of a reported trace.
const TRACE_EVERY: usize = 2;

/// The first cylinder's last cycle at one speed.
pub fn trace(breathing: &Breathing, sample: &Sample) -> TraceReport {
    let thin =
        |values: &[f64], factor: f64| values.iter().step_by(TRACE_EVERY).map(|v| v * factor).collect::<Vec<f64>>();
    let crank_deg: Vec<f64> = (0..720).step_by(TRACE_EVERY).map(f64::from).collect();
    TraceReport {
        rpm: sample.point.rpm,
        volume_cc: crank_deg.iter().map(|deg| on_cycle(&breathing.setup.volume, *deg) * 1e6).collect(),
        cylinder_kpa: thin(&sample.trace.cylinder, 1e-3),
        intake_kpa: thin(&sample.trace.intake, 1e-3),
        exhaust_kpa: thin(&sample.trace.exhaust, 1e-3),
        intake_g_s: thin(&sample.trace.intake_flow, 1e3),
        exhaust_g_s: thin(&sample.trace.exhaust_flow, 1e3),
        crank_deg,
    }
}

/// What a difference between two candidates of one engine may be off by: what a draft's cells leave, share of torque, and
/// the part of the model's error that two candidates do not have in common (assumed).
const DIFFERENCE: (f64, f64) = (0.004, 0.1);

/// What may be claimed at a speed: within the speeds of a pull twice the error that was left, at least two per cent; outside
/// them what holds without one.
fn error_share(breathing: &Breathing, rpm: f64, of_peak: f64) -> f64 {
    let known = held(&UNCALIBRATED, of_peak).hypot(ASSUMED_LOSS * (breathing.assumed_losses as f64).sqrt());
    let known = if breathing.flow_known { known } else { known.max(GUESSED_FLOW) };
    let pulled = breathing.calibration.as_ref().filter(|c| (c.speeds.0 - 1.0..=c.speeds.1 + 1.0).contains(&rpm));
    pulled.map_or(known, |calibrated| (2.0 * calibrated.remaining).max(LEAST_CALIBRATED).min(known))
}

fn error_words(breathing: &Breathing) -> String {
    if let Some(calibrated) = &breathing.calibration {
        return calibrated_words(calibrated);
    }
    let share = |of_peak: f64| 100.0 * error_share(breathing, f64::INFINITY, of_peak);
    let flow = if breathing.flow_known { "" } else { "; no flow table: 20 % everywhere" };
    let losses = match breathing.assumed_losses {
        0 => String::new(),
        1 => ", wider by a loss that nobody measured".to_owned(),
        n => format!(", wider by {n} losses that nobody measured"),
    };
    format!(
        "not calibrated: nine engines of ten lie within {:.0} % of peak power, {:.0} % of peak torque, {:.0} % low down, and their peaks within 5 % of the speed{losses}{flow}; differences between candidates are known much better",
        share(1.0),
        share(0.8),
        share(0.4)
    )
}

fn calibrated_words(own: &Calibrated) -> String {
    let (pulled, left, (from, to)) = (&own.pulled, 100.0 * own.remaining, own.speeds);
    match own.by {
        CalibratedBy::Pull => format!(
            "calibrated to {pulled}: {left:.1} % was left of the error; between {from:.0} and {to:.0} rpm within about twice that, for an engine that differs from the one pulled by its cam alone"
        ),
        CalibratedBy::Shop => format!(
            "not pulled yet: constants of {pulled}, each of which they left {left:.1} % off when it was foretold by the others; between {from:.0} and {to:.0} rpm within about twice that"
        ),
    }
}

fn peaks(breathing: &Breathing, speed: &[f64], (torque, power): (&[f64], &[f64]), top: f64) -> Vec<PeakReport> {
    let of = |rpm: f64| PeakReport {
        torque_nm: None,
        power_kw: None,
        rpm,
        error_share: error_share(breathing, rpm, rpm / top),
    };
    let torques = humps(speed, torque).into_iter().map(|(rpm, nm)| PeakReport { torque_nm: Some(nm), ..of(rpm) });
    let powers = humps(speed, power).into_iter().map(|(rpm, kw)| PeakReport { power_kw: Some(kw), ..of(rpm) });
    torques.chain(powers).collect()
}

/// Mean over the band of the plan by the trapezoid between the `regular` speeds in it; `None` with fewer than two. Speeds
/// that were added where one curve bends are left out: candidates are compared at the same speeds.
fn over_band(speed: &[f64], values: &[f64], regular: &[f64], (from, to): (f64, f64)) -> Option<f64> {
    let counts = |rpm: f64| rpm > from - 0.5 && rpm < to + 0.5 && regular.iter().any(|one| (one - rpm).abs() < 1e-6);
    let pairs = speed.iter().copied().zip(values.iter().copied());
    let within: Vec<(f64, f64)> = pairs.filter(|(rpm, _)| counts(*rpm)).collect();
    let area: f64 = within.windows(2).map(|pair| 0.5 * (pair[0].1 + pair[1].1) * (pair[1].0 - pair[0].0)).sum();
    (within.len() > 1).then(|| area / (within[within.len() - 1].0 - within[0].0))
}

fn corrections(breathing: &Breathing, samples: &[Sample], peak_power: f64) -> Vec<StandardAirReport> {
    let air = &breathing.air;
    let diesel = matches!(breathing.setup.combustion, Combustion::Diesel { .. });
    let top = samples.iter().max_by(|a, b| a.power().total_cmp(&b.power())).filter(|_| diesel);
    let standards = if let Some(top) = top {
        let litres = breathing.setup.swept() * 1e3;
        let fuel = top.point.balance.fuel * 1e6 / litres;
        vec![standard_air::diesel(&air.outside(), fuel, top.point.plenum / air.pressure)]
    } else if air.charger.is_some() {
        // A boost control holds its pressure in any air; these corrections are for engines that breathe outside air.
        Vec::new()
    } else {
        standard_air::spark(&air.outside()).to_vec()
    };
    let report_of = |standard: standard_air::StandardAir| StandardAirReport {
        name: standard.name.to_owned(),
        factor: standard.factor,
        peak_power_kw: peak_power * standard.factor,
    };
    standards.into_iter().map(report_of).collect()
}
