//! Energies of air and burned gas against Cantera: `reference/thermo.py` wrote `reference/thermo.json`.

use serde_json::Value;
use upper_lobe_core::gas::cylinder::{Burnt, Charge, Gases};
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

/// Work over heat of a cycle that burns at constant volume, and the pressure it burns to, with the core's gases in a
/// thousand small steps each way.
fn fuel_air_cycle(air_fuel: f64, ratio: f64) -> (f64, f64) {
    let (burned, release) = Fuel::PETROL.burned(air_fuel);
    let gases = Gases { fresh: Mixture::air(), burned };
    let (mut charge, steps) = (Charge { mass: 1.0, temperature: 350.0, burned: 0.0 }, 1000);
    let volume = gases.fresh.r * 350.0 / 1e5;
    let at = |share: f64| volume * ratio.powf(-share);
    let start = charge.energy(&gases);
    for i in 0..steps {
        let share = |i: i32| f64::from(i) / f64::from(steps);
        charge.step(&gases, (at(share(i)), at(share(i + 1))), &[], Burnt::default());
    }
    let compression = charge.energy(&gases) - start;
    let fuel = 1.0 / air_fuel;
    let heat = fuel * Fuel::PETROL.heating_value;
    charge.step(&gases, (at(1.0), at(1.0)), &[], Burnt { heat: heat * release, fresh: 1.0, fuel });
    let (peak, before) = (charge.pressure(&gases, at(1.0)), charge.energy(&gases));
    for i in 0..steps {
        let share = |i: i32| 1.0 - f64::from(i) / f64::from(steps);
        charge.step(&gases, (at(share(i)), at(share(i + 1))), &[], Burnt::default());
    }
    ((before - charge.energy(&gases) - compression) / heat, peak)
}

#[test]
fn the_fuel_air_cycle_lies_near_equilibrium_and_below_the_ideal_limit() {
    let reference: Value = serde_json::from_str(include_str!("reference/fuel_air_cycle.json")).expect("JSON");
    for row in reference["rows"].as_array().expect("rows") {
        let number = |key: &str| row[key].as_f64().expect("a number");
        let (efficiency, peak) = fuel_air_cycle(number("air_fuel"), number("ratio"));
        // Composition is frozen: near the stoichiometric mixture, where most dissociates, it gives 4 % too much work and
        // 9 % too much pressure; at the mixtures engines of this kind run on, 1.3 and 5 %.
        let most = if number("air_fuel") == 14.6 { (0.045, 0.095) } else { (0.018, 0.053) };
        let (work, pressure) = (efficiency / number("efficiency") - 1.0, peak / number("p3") - 1.0);
        assert!((0.0..most.0).contains(&work), "{row}: {efficiency}");
        assert!((0.0..most.1).contains(&pressure), "{row}: {peak}");
        // The ideal cycle, 1 - r^-0.4: .6019 at ten to one.
        assert!(efficiency < 1.0 - number("ratio").powf(-0.4));
    }
}
