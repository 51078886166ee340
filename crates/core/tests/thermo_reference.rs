//! Energies of air and burned gas against Cantera: `reference/thermo.py` wrote `reference/thermo.json`.

#![allow(clippy::expect_used, clippy::unwrap_used)]

use serde_json::Value;
use upper_lobe_core::gas::thermo::{Fuel, Mixture};

#[test]
fn energies_and_specific_heats_are_those_of_cantera() {
    let reference: Value = serde_json::from_str(include_str!("reference/thermo.json")).expect("JSON");
    let (burned, _) = Fuel::PETROL.burned(Fuel::PETROL.stoichiometric());
    for row in reference["rows"].as_array().expect("rows") {
        let number = |key: &str| row[key].as_f64().expect("a number");
        let gas = if row["mixture"] == "air" { Mixture::air() } else { burned };
        let t = number("t");
        assert!((gas.r / number("r") - 1.0).abs() < 2e-4, "{row}");
        // Another fit of the same data: half a per cent of the specific heat, and of the energy above 298 K.
        assert!((gas.cv(t) / number("cv") - 1.0).abs() < 5e-3, "{row}: {}", gas.cv(t));
        let scale = number("cv") * t;
        assert!((gas.energy(t) - number("u")).abs() < 3e-3 * scale, "{row}: {}", gas.energy(t));
    }
}
