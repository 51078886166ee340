//! Follower motions of the cam handbooks, measured degree by degree and read back: velocity, acceleration, area, where the
//! contact stands. `reference/follower_motion.py` (SciPy) wrote the file.

use serde_json::Value;
use std::f64::consts::PI;
use upper_lobe_core::cam::contact::{Follower, extremes};
use upper_lobe_core::cam::{Lobe, lobe_of_points};
use upper_lobe_core::quantity::Length;

/// Peak velocity and acceleration for a rise and a flank of one [Norton, *Cam Design and Manufacturing Handbook*, table of
/// peak factors; from memory].
const PUBLISHED: [(&str, f64, f64); 3] =
    [("polynomial_345", 1.875, 5.7735), ("polynomial_4567", 2.1875, 7.5132), ("cycloidal", 2.0, 2.0 * PI)];

struct Case {
    name: String,
    rise: f64,
    flank: f64,
    json: Value,
    lobe: Lobe,
}

impl Case {
    fn number(&self, key: &str) -> f64 {
        self.json[key].as_f64().expect("a number")
    }
}

/// Every motion of the file, read every cam degree with some base circle before and after, as a measured lobe.
fn cases() -> Vec<Case> {
    let file: Value = serde_json::from_str(include_str!("reference/follower_motion.json")).expect("JSON");
    let read = |json: &Value| {
        let lift: Vec<f64> = json["lift_mm"].as_array().unwrap().iter().map(|mm| mm.as_f64().unwrap()).collect();
        let flank = json["flank_deg"].as_f64().unwrap();
        let at = |deg: i32| lift.get((flank as i32 - deg.abs()).max(0) as usize).copied().unwrap();
        let points: Vec<(f64, Length)> = (-80..=80).map(|deg| (f64::from(deg), Length::mm(at(deg)))).collect();
        let lobe = lobe_of_points(&points).expect("a lobe");
        let name = json["name"].as_str().unwrap().to_owned();
        Case { name, rise: json["rise_mm"].as_f64().unwrap() * 1e-3, flank, json: json.clone(), lobe }
    };
    file.as_array().expect("a list").iter().map(read).collect()
}

#[test]
fn scipys_peak_factors_are_the_published_ones() {
    for (case, (name, velocity, acceleration)) in cases().iter().zip(PUBLISHED) {
        assert_eq!(case.name, name);
        assert!((case.number("velocity_factor") - velocity).abs() < 5e-5, "{name}");
        assert!((case.number("acceleration_factor") - acceleration).abs() < 5e-5, "{name}");
    }
}

#[test]
fn peaks_are_read_back_from_lift_alone() {
    for case in cases() {
        let most = |of: fn(&upper_lobe_core::cam::Motion) -> f64| {
            case.lobe.sampled(0.25).map(|(_, motion)| of(&motion)).fold(0.0, f64::max)
        };
        let velocity = most(|motion| motion.velocity) * case.flank / case.rise;
        let acceleration = most(|motion| motion.acceleration) * case.flank * case.flank / case.rise;
        // The ends of these motions jump in jerk, which no spline at rest there follows: acceleration within 1 %.
        assert!((velocity / case.number("velocity_factor") - 1.0).abs() < 5e-4, "{}: {velocity}", case.name);
        assert!(
            (acceleration / case.number("acceleration_factor") - 1.0).abs() < 0.01,
            "{}: {acceleration}",
            case.name
        );
    }
}

#[test]
fn areas_are_scipys_integrals() {
    for case in cases() {
        let above = |height: f64| {
            let step = 0.25;
            let lifts: Vec<f64> = case.lobe.sampled(step).map(|(_, m)| (m.lift * 1e3 - height).max(0.0)).collect();
            lifts.windows(2).map(|two| 0.5 * step * (two[0] + two[1])).sum::<f64>()
        };
        let (whole, high) = (above(0.0), above(5.08));
        assert!((whole / case.number("area_mm_deg") - 1.0).abs() < 2e-4, "{}: {whole}", case.name);
        assert!((high / case.number("area_above_5_08_mm_deg") - 1.0).abs() < 1e-3, "{}: {high}", case.name);
    }
}

#[test]
fn the_contact_wanders_over_a_flat_foot_by_velocity_per_radian() {
    for case in cases() {
        let found = extremes(&case.lobe, Follower::Flat, 0.02).offset;
        let wanted = case.number("velocity_factor") * case.rise / (case.flank * PI / 180.0);
        assert!((found / wanted - 1.0).abs() < 5e-4, "{}: {found} {wanted}", case.name);
    }
}

#[test]
fn a_rollers_pressure_angle_is_that_of_the_closed_form() {
    // tan phi = s'/(Rb + Rr + s), greatest over the cycloidal rise, by a fine scan of its closed form.
    let case = cases().remove(2);
    let (base, roller, flank) = (0.018, 0.0095, case.flank * PI / 180.0);
    let angle = |i: u32| {
        let u = f64::from(i) / 20_000.0;
        let turn = 2.0 * PI * u;
        let (lift, slope) = (case.rise * (u - turn.sin() / (2.0 * PI)), case.rise * (1.0 - turn.cos()) / flank);
        (slope / (base + roller + lift)).atan()
    };
    let wanted = (0..=20_000).map(angle).fold(0.0, f64::max);
    let found = extremes(&case.lobe, Follower::Roller(roller), base).pressure_angle;
    assert!((found / wanted - 1.0).abs() < 1e-3, "{found} {wanted}");
}
