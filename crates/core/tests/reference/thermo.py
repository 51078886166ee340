"""Specific heats and energies of engine gases by Cantera, from its NASA data file (nasa_gas.yaml), which is
another fit than the GRI-Mech 3.0 coefficients in the core. Run: python thermo.py > thermo.json"""

import json

import cantera as ct

wanted = ["N2", "O2", "CO2", "H2O", "CO", "H2"]
species = [s for s in ct.Species.list_from_file("nasa_gas.yaml") if s.name in wanted]
gas = ct.Solution(thermo="ideal-gas", species=species)

mixtures = {
    "air": {"N2": 0.79, "O2": 0.21},
    # Complete combustion of CH1.87 at its stoichiometric ratio: CO2, H2O and the air's nitrogen.
    "burned": {"CO2": 1.0, "H2O": 0.935, "N2": (1 + 1.87 / 4) * 0.79 / 0.21},
}
rows = []
for name, moles in mixtures.items():
    gas.TPX = 298.15, 101325, moles
    zero = gas.enthalpy_mass
    for t in [300, 500, 800, 1000, 1200, 1800, 2400, 3000]:
        gas.TPX = t, 101325, moles
        r = ct.gas_constant / gas.mean_molecular_weight
        rows.append({"mixture": name, "t": t, "r": r, "u": gas.enthalpy_mass - zero - r * t, "cv": gas.cv_mass})
print(json.dumps({"cantera": ct.__version__, "rows": rows}, indent=1))
