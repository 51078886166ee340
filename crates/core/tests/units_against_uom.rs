//! Every unit against a general-purpose units library (uom), and the standard where it has none.
//! Tolerances of 1e-6 are for factors that uom keeps to seven digits.

#![allow(clippy::expect_used, clippy::unwrap_used)]

use uom::si::f64::{Force, Length, Mass, Power, Pressure, Torque, Volume, VolumeRate};
use uom::si::{angular_velocity, force, length, mass, power, pressure, torque, volume, volume_rate};
use upper_lobe_core::quantity::{Dimension, parse};

fn agrees(text: &str, dimension: Dimension, expected: f64, relative: f64) {
    let have = parse(text, dimension).expect("a quantity");
    assert!((have / expected - 1.0).abs() < relative, "{text}: {have} against {expected}");
}

#[test]
fn lengths_masses_and_volumes() {
    agrees("3.7 in", Dimension::Length, Length::new::<length::inch>(3.7).value, 1e-12);
    agrees("3.7 ft", Dimension::Length, Length::new::<length::foot>(3.7).value, 1e-12);
    agrees("370 thou", Dimension::Length, Length::new::<length::mil>(370.0).value, 1e-12);
    agrees("11/32 in", Dimension::Length, Length::new::<length::inch>(11.0 / 32.0).value, 1e-12);
    agrees("2.5 lb", Dimension::Mass, Mass::new::<mass::pound>(2.5).value, 1e-6);
    agrees("2.5 oz", Dimension::Mass, Mass::new::<mass::ounce>(2.5).value, 1e-6);
    agrees("96 mg", Dimension::Mass, Mass::new::<mass::milligram>(96.0).value, 1e-12);
    agrees("64 cc", Dimension::Volume, Volume::new::<volume::cubic_centimeter>(64.0).value, 1e-12);
    agrees("2.5 l", Dimension::Volume, Volume::new::<volume::liter>(2.5).value, 1e-12);
    agrees("4 in3", Dimension::Volume, Volume::new::<volume::cubic_inch>(4.0).value, 1e-6);
}

#[test]
fn torques_and_powers() {
    agrees("400 lbf ft", Dimension::Torque, Torque::new::<torque::pound_force_foot>(400.0).value, 1e-6);
    agrees("540 N m", Dimension::Torque, 540.0, 1e-12);
    agrees("500 hp", Dimension::Power, Power::new::<power::horsepower>(500.0).value, 1e-6);
    agrees("300 PS", Dimension::Power, Power::new::<power::horsepower_metric>(300.0).value, 1e-6);
    agrees("210 kW", Dimension::Power, 210e3, 1e-12);
}

#[test]
fn forces_pressures_flows_and_speeds() {
    agrees("150 lbf", Dimension::Force, Force::new::<force::pound_force>(150.0).value, 1e-6);
    agrees("15 kgf", Dimension::Force, Force::new::<force::kilogram_force>(15.0).value, 1e-6);
    agrees("14 psi", Dimension::Pressure, Pressure::new::<pressure::pound_force_per_square_inch>(14.0).value, 1e-6);
    agrees("1.2 bar", Dimension::Pressure, Pressure::new::<pressure::bar>(1.2).value, 1e-12);
    agrees("255 cfm", Dimension::Flow, VolumeRate::new::<volume_rate::cubic_foot_per_minute>(255.0).value, 1e-6);
    agrees("120 l/s", Dimension::Flow, VolumeRate::new::<volume_rate::liter_per_second>(120.0).value, 1e-12);
    let turning = uom::si::f64::AngularVelocity::new::<angular_velocity::revolution_per_minute>(6500.0);
    agrees("6500 rpm", Dimension::Speed, turning.value, 1e-12);
}

#[test]
fn columns_of_mercury_and_water_are_those_of_nist_sp_811() {
    // NIST Special Publication 811 (2008), appendix B.8: inch of mercury, conventional 3.386389 E+03 Pa;
    // inch of water, conventional 2.490889 E+02 Pa.
    agrees("1.5 inHg", Dimension::Pressure, 1.5 * 3386.389, 1e-12);
    agrees("28 inH2O", Dimension::Pressure, 28.0 * 249.0889, 1e-12);
}

#[test]
fn a_spring_rate_is_a_force_over_a_length() {
    let pounds = Force::new::<force::pound_force>(382.0).value / Length::new::<length::inch>(1.0).value;
    agrees("382 lbf/in", Dimension::SpringRate, pounds, 1e-6);
    agrees("66.9 N/mm", Dimension::SpringRate, 66_900.0, 1e-12);
}
