"""Estimates drawn to their mean, by statsmodels (combine_effects, Paule and Mandel's iteration), and trends, by SciPy and by a plain search.

Prints the figures that `src/service` is held against: `python service.py`.
"""

import json

import numpy as np
from scipy import stats
from statsmodels.stats.meta_analysis import combine_effects

TRIALS = (
    [-0.8893, -1.5854, -1.3481, -1.4416, -0.2175, -0.7861, -1.6209, 0.0120, -0.4694, -1.3713, -0.3394, 0.4459, -0.0173],
    [0.3256, 0.1946, 0.4154, 0.0200, 0.0512, 0.0069, 0.2230, 0.0040, 0.0564, 0.0730, 0.0124, 0.5325, 0.0714],
)

# Rocket propellant: shear strength, psi, over age, weeks [Montgomery, Peck and Vining, Introduction to Linear
# Regression Analysis, example 2.1].
STRENGTH = [2158.70, 1678.15, 2316.00, 2061.30, 2207.50, 1708.30, 1784.70, 2575.00, 2357.90, 2256.70,
            2165.20, 2399.55, 1779.80, 2336.75, 1765.30, 2053.50, 2414.40, 2200.50, 2654.20, 1753.70]
AGE = [15.50, 23.75, 8.00, 17.00, 5.50, 19.00, 24.00, 2.50, 7.50, 11.00,
       13.00, 3.75, 25.00, 9.75, 22.00, 18.00, 6.00, 12.50, 2.00, 21.50]


def trials():
    found = combine_effects(np.array(TRIALS[0]), np.array(TRIALS[1]), method_re="iterated")
    return {"spread": found.tau2, "mean": found.mean_effect_re, "error": float(np.sqrt(found.var_eff_w_re))}


def reached(limit):
    """Ages at which the line's 95 % band holds the limit, by walking along it."""
    x, y = np.array(AGE), np.array(STRENGTH)
    line = stats.linregress(x, y)
    n, mean = len(x), x.mean()
    sxx = ((x - mean) ** 2).sum()
    s2 = ((y - line.intercept - line.slope * x) ** 2).sum() / (n - 2)
    t = stats.t.ppf(0.975, n - 2)
    at = np.linspace(-100, 200, 3_000_001)
    inside = np.abs(line.intercept + line.slope * at - limit) <= t * np.sqrt(s2 * (1 / n + (at - mean) ** 2 / sxx))
    return {"slope": line.slope, "error": line.stderr, "at": (limit - line.intercept) / line.slope,
            "from": at[inside][0], "to": at[inside][-1]}


print(json.dumps({"trials": trials(), "reached_1500": reached(1500.0)}, indent=1))
