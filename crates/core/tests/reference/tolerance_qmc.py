"""Chances of limits under tolerances by quasi-Monte-Carlo, with SciPy alone: scrambled Sobol points through inverse
distribution functions. Run: python3 tolerance_qmc.py > tolerance_qmc.json

Each case is m(x) = m0 + sum(g_i x_i + h_i x_i^2/2), x_i normal, uniform or triangular of half width w_i (1.96 standard deviations
of a normal one). Engines have eight cylinders in two banks; a share of a variable's variance may be in common (normal ones only,
so that the sum has the same distribution).
"""

import json

import numpy as np
from scipy.stats import norm, qmc, triang, uniform

CASES = [
    {"name": "stack", "m0": 0.006, "x": [["normal", 0.003, 1.0, 0.0, 0, 0], ["normal", 0.004, -1.0, 0.0, 0, 0],
                                       ["uniform", 0.003, 1.0, 0.0, 0, 0]]},
    {"name": "bent", "m0": 0.004, "x": [["normal", 0.004, 0.6, 90.0, 0, 0], ["triangular", 0.005, -0.8, -60.0, 0, 0],
                                      ["uniform", 0.002, 1.0, 0.0, 0, 0]]},
    {"name": "banks", "m0": 0.005, "x": [["normal", 0.004, 1.0, 0.0, 0.3, 0.5], ["normal", 0.003, 1.0, 0.0, 0.0, 0.0]]},
    {"name": "one cam", "m0": 0.004, "x": [["normal", 0.005, 1.0, 0.0, 1.0, 0.0], ["normal", 0.002, 1.0, 0.0, 0.0, 0.0]]},
]
CYLINDERS, BANKS = 8, 2


def deviation(shape, half, u):
    if shape == "normal":
        return norm.ppf(u) * half / norm.ppf(0.975)
    if shape == "uniform":
        return uniform.ppf(u, loc=-half, scale=2 * half)
    return triang.ppf(u, 0.5, loc=-half, scale=2 * half)


def chances(case, log2):
    xs = case["x"]
    # One dimension a variable for the engine, two for the banks, eight for the cylinders.
    points = qmc.Sobol(11 * len(xs), seed=1).random_base2(log2)
    points = np.clip(points, 1e-12, 1 - 1e-12)
    margins = np.full((len(points), CYLINDERS), case["m0"])
    for i, (shape, half, slope, curve, engine, bank) in enumerate(xs):
        u = points[:, 11 * i : 11 * (i + 1)]
        for cylinder in range(CYLINDERS):
            if engine + bank > 0:
                z = norm.ppf(u)
                own = 1 - engine - bank
                z = np.sqrt(engine) * z[:, 0] + np.sqrt(bank) * z[:, 1 + cylinder % BANKS] + np.sqrt(own) * z[:, 3 + cylinder]
                x = z * half / norm.ppf(0.975)
            else:
                x = deviation(shape, half, u[:, 3 + cylinder])
            margins[:, cylinder] += slope * x + 0.5 * curve * x * x
    fails = margins < 0
    return {
        "mean": margins.mean(),
        "sd": margins.std(),
        "fails_one": fails.mean(),
        "fails_any": fails.any(axis=1).mean(),
    }


print(json.dumps([{**case, **chances(case, 19)} for case in CASES], indent=1))
