"""The fuel-air cycle at constant volume by Cantera, with burned gas in chemical equilibrium all the way down.

Air is compressed without heat from 350 K and 100 kPa; petrol (CH1.87, 44.0 MJ/kg, without volume or heat of its own)
burns at constant volume; the burned gas expands without heat. Ten species from nasa_gas.yaml.
Run: python fuel_air_cycle.py > fuel_air_cycle.json"""

import json

import cantera as ct

SPECIES = ["N2", "O2", "CO2", "H2O", "CO", "H2", "OH", "H", "O", "NO"]
FUEL_H, HEATING_VALUE = 1.87, 44.0e6
FUEL_MASS = 12.011 + 1.008 * FUEL_H

species = [s for s in ct.Species.list_from_file("nasa_gas.yaml") if s.name in SPECIES]
gas = ct.Solution(thermo="ideal-gas", species=species)


def formation(name):
    gas.TPX = 298.15, 101325, {name: 1.0}
    return gas.enthalpy_mole


# Enthalpy of formation of a kilomole of the fuel's carbon, from its heating value.
FUEL_H0 = HEATING_VALUE * FUEL_MASS + formation("CO2") + FUEL_H / 2 * formation("H2O")


def cycle(air_fuel, ratio):
    gas.TPX = 350, 1e5, {"O2": 0.21, "N2": 0.79}
    molar = gas.mean_molecular_weight
    start = gas.int_energy_mass
    entropy, volume = gas.entropy_mass, gas.volume_mass
    gas.SV = entropy, volume / ratio
    compressed, t2, p2 = gas.int_energy_mass, gas.T, gas.P
    fuel = 1 / air_fuel
    moles = fuel / FUEL_MASS
    air = 1 / molar
    energy = (compressed + moles * FUEL_H0) / (1 + fuel)
    # Elements first as an unburned mixture of the same atoms, then in equilibrium at this energy and volume.
    atoms = {"CO": moles, "H2": moles * FUEL_H / 2, "O2": 0.21 * air - moles / 2, "N2": 0.79 * air}
    gas.TPX = 2500, p2, atoms
    gas.UV = energy, volume / ratio / (1 + fuel)
    gas.equilibrate("UV")
    t3, p3, before = gas.T, gas.P, gas.int_energy_mass
    steps = 400
    entropy = gas.entropy_mass
    for i in range(1, steps + 1):
        gas.SV = entropy, volume / ratio * ratio ** (i / steps) / (1 + fuel)
        gas.equilibrate("SV")
    out = (before - gas.int_energy_mass) * (1 + fuel)
    return {
        "air_fuel": air_fuel, "ratio": ratio, "t2": t2, "p2": p2, "t3": t3, "p3": p3, "t4": gas.T,
        "efficiency": (out - (compressed - start)) / (fuel * HEATING_VALUE),
    }


rows = [cycle(a, r) for a in [12.8, 14.6, 18.0, 25.0] for r in [8.0, 10.0, 11.4, 14.0]]
print(json.dumps({"cantera": ct.__version__, "rows": rows}, indent=1))
