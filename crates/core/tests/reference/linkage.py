"""Rocker linkages closed by SciPy's root finder on the angles themselves, another way than the core's: the turn for each
lifter lift by brentq, valve lift, ratio by central differences, contact. Run: python linkage.py > linkage.json"""

import json
from math import cos, hypot, sin

import scipy
from scipy.optimize import brentq

CASES = [
    # cup x, cup y, tip x, tip y, pushrod length, pushrod angle (rad), full lifter lift; metres
    (-0.0217, -0.0046, 0.0355, 0.0064, 0.1961, 0.157, 0.0082),
    (-0.0227, -0.0053, 0.0394, 0.0088, 0.2146, 0.192, 0.0107),
    (-0.0288, -0.0030, 0.0461, 0.0055, 0.3120, 0.035, 0.0070),
    (-0.0200, 0.0040, 0.0330, -0.0010, 0.1800, -0.10, 0.0095),
]


def turned(p, a):
    return (p[0] * cos(a) + p[1] * sin(a), p[1] * cos(a) - p[0] * sin(a))


rows = []
for cx, cy, tx, ty, length, angle, full in CASES:
    u = (sin(angle), cos(angle))
    foot0 = (cx - length * u[0], cy - length * u[1])

    def turn(s):
        foot = (foot0[0] + s * u[0], foot0[1] + s * u[1])
        gap = lambda a: hypot(turned((cx, cy), a)[0] - foot[0], turned((cx, cy), a)[1] - foot[1]) - length
        return brentq(gap, -0.02, 0.8, xtol=1e-15, rtol=1e-14)

    valve = lambda s: ty - turned((tx, ty), turn(s))[1]
    for i in range(1, 9):
        s = full * i / 8
        h = 1e-6
        rows.append({
            "case": [cx, cy, tx, ty, length, angle, full], "step": i, "turn": turn(s), "valve": valve(s),
            "ratio": (valve(s + h) - valve(s - h)) / (2 * h), "reach": turned((tx, ty), turn(s))[0],
        })
print(json.dumps({"scipy": scipy.__version__, "rows": rows}, indent=1))
