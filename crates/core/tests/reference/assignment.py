"""Pushrods to places by SciPy's linear_sum_assignment, least sum of squares off a wanted preload; lengths in metres.
Run: python assignment.py > assignment.json"""

import json

import numpy as np
import scipy
from scipy.optimize import linear_sum_assignment

rng = np.random.default_rng(7)
cases = []
for places, spare in [(8, 0), (16, 0), (16, 4), (12, 1)]:
    zero = 0.196 + np.round(rng.normal(0, 1.5e-4, places), 6)
    rods = 0.197 + np.round(rng.normal(0, 2e-4, places + spare), 6)
    off = (rods[None, :] - zero[:, None] - 1e-3) ** 2
    rows, columns = linear_sum_assignment(off)
    cases.append({"places": zero.tolist(), "pushrods": rods.tolist(), "wanted": 1e-3, "sum": float(off[rows, columns].sum())})
print(json.dumps({"scipy": scipy.__version__, "cases": cases}, indent=1))
