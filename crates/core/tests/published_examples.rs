//! Worked examples of text books. Values are cited from memory where the line says so.

use serde_json::json;
use upper_lobe_core::document::{ENGINE, Ledger, Node, Side};
use upper_lobe_core::engine::{CrankSlider, read_cylinder};
use upper_lobe_core::given::Engine;
use upper_lobe_core::quantity::{Angle, Force, Length};
use upper_lobe_core::train::Coil;
use upper_lobe_core::words::Wire;

/// Shigley's Mechanical Engineering Design, example 10-1 (from memory): no. 16 music wire (.037 in),
/// outside diameter 7/16 in, 12 1/2 total and 10 1/2 active coils: rate 4.13 lbf/in with
/// G = 11.85 Mpsi, tensile strength 324 kpsi, and 6.46 lbf at a shear stress of .45 of it with
/// Bergstraesser's factor 1.124.
#[test]
fn spring_rate_strength_and_stress_of_shigleys_first_example() {
    let coil = Coil {
        wire: Length::inches(0.037),
        // The book rounds the mean diameter to .400.
        mean: Length::inches(0.400),
        active: 10.5,
        total: 12.5,
        free: Length::inches(2.0),
        seat_offset: Length::inches(0.0),
        material: Wire::Music,
    };
    const N_PER_M: f64 = 175.126_835;
    let book_modulus = 11.85e6 * 6894.757;
    // The book's modulus for thin music wire against ours for valve-spring wire.
    let rate = coil.rate().si() / N_PER_M * book_modulus / 79.3e9;
    assert!((rate - 4.13).abs() < 0.005, "{rate}");
    let strength = Wire::Music.tensile_strength(Length::inches(0.037)).as_mpa() / 6.894757;
    assert!((strength - 324.0).abs() < 0.5, "{strength}");
    // Wahl's factor is 0.8 % above Bergstraesser's at this index (C = 10.8).
    let stress = coil.shear_stress(Force::lbf(6.46)).as_mpa() / 6.894757 * 1.124 / coil.wahl_factor();
    assert!((stress - 0.45 * 324.0).abs() < 0.7, "{stress}");
    assert!((coil.wahl_factor() / 1.124 - 1.0).abs() < 0.01);
}

/// Pulkrabek, Engineering Fundamentals of the Internal Combustion Engine, example 2-1 (from memory):
/// three-litre square six, ratio 9.5, rods 16.6 cm: bore 8.60 cm, clearance 59 cm3, piston speed
/// .668 of its mean at 20 degrees after top dead centre, piston then .325 cm down.
#[test]
fn compression_and_piston_motion_of_pulkrabeks_first_example() {
    let engine = json!({
        "cylinders": 6, "bore": "8.603 cm", "stroke": "8.603 cm", "rod_length": "16.6 cm",
        "deck_clearance": "0 mm", "gasket_thickness": "0 mm", "chamber_volume": "58.82 cc", "piston_volume": "0 cc"
    });
    let ledger = Ledger::default();
    let cylinder = read_cylinder(&Engine::read(&Node::new(Some(&engine), &ENGINE, "engine", &ledger), Side::Intake))
        .expect("complete");
    assert!((cylinder.displacement().as_cc() / 1000.0 - 3.0).abs() < 0.002);
    assert!((cylinder.compression_ratio().expect("known") - 9.5).abs() < 0.005);
    let crank = CrankSlider::new(Length::mm(86.0), Length::mm(166.0), Length::mm(0.0)).expect("it turns");
    assert!((crank.drop(Angle::deg(20.0)).as_mm() - 3.25).abs() < 0.01);
    // Mean piston speed is two strokes a turn: 2 S / (2 pi) per radian.
    let share = -crank.slope(Angle::deg(20.0)) / (0.086 / std::f64::consts::PI);
    assert!((share - 0.668).abs() < 0.001, "{share}");
}

/// Mass of the coil that moves by hand: a 5 mm wire on 25 mm mean diameter, 4 active coils, steel of
/// 7850 kg/m3: 7850 x pi/4 x 0.005^2 x pi x 0.025 x 4 = 0.04842 kg; with k = G d^4/(8 D^3 Na) =
/// 99125 N/m the first surge is .5 sqrt(99125 / .04842) = 715.4 Hz [Shigley ch. 10, from memory].
#[test]
fn surge_of_a_plain_coil_by_hand() {
    let coil = Coil {
        wire: Length::mm(5.0),
        mean: Length::mm(25.0),
        active: 4.0,
        total: 6.0,
        free: Length::mm(60.0),
        seat_offset: Length::mm(0.0),
        material: Wire::ChromeSilicon,
    };
    assert!((coil.rate().si() - 99_125.0).abs() < 1.0);
    assert!((coil.surge_frequency() - 715.4).abs() < 0.2, "{}", coil.surge_frequency());
    assert!((coil.load(Length::mm(45.0)).si() - 99_125.0 * 0.015).abs() < 0.1);
    assert!((coil.solid_package_height().as_mm() - 30.0).abs() < 1e-9);
}
