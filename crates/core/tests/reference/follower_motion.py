"""Follower motions of the cam handbooks in closed form: peak factors and areas by SciPy.

Run with numpy and scipy; writes follower_motion.json beside it. Rise of 8 mm over 70 cam degrees, fall its mirror.
"""

import json
import pathlib

import numpy as np
from scipy.integrate import quad
from scipy.optimize import minimize_scalar

RISE_MM = 8.0
FLANK_DEG = 70.0

# Lift, velocity and acceleration over the rise, for a rise of 1 over a flank of 1.
FAMILIES = {
    "polynomial_345": np.polynomial.Polynomial([0, 0, 0, 10, -15, 6]),
    "polynomial_4567": np.polynomial.Polynomial([0, 0, 0, 0, 35, -84, 70, -20]),
    "cycloidal": None,
}


def motion(name, order):
    """The derivative of that order as a function of the share of the flank."""
    if name == "cycloidal":
        turn = 2 * np.pi
        return [
            lambda u: u - np.sin(turn * u) / turn,
            lambda u: 1 - np.cos(turn * u),
            lambda u: turn * np.sin(turn * u),
        ][order]
    return FAMILIES[name].deriv(order) if order else FAMILIES[name]


def peak(function):
    """Greatest value over the flank: the best of a grid, refined."""
    grid = np.linspace(0, 1, 2001)
    top = grid[np.argmax([function(u) for u in grid])]
    found = minimize_scalar(lambda u: -function(u), bounds=(max(0, top - 0.01), min(1, top + 0.01)), method="bounded", options={"xatol": 1e-12})
    return -found.fun


def case(name):
    lift, velocity, acceleration = (motion(name, order) for order in range(3))

    def above(height):
        share = max(0.0, height / RISE_MM)
        area, _ = quad(lambda u: max(0.0, lift(u) - share), 0, 1, limit=400, epsabs=1e-12)
        return 2 * area * RISE_MM * FLANK_DEG

    degrees = np.arange(0, FLANK_DEG + 1)
    return {
        "name": name,
        "rise_mm": RISE_MM,
        "flank_deg": FLANK_DEG,
        "velocity_factor": peak(velocity),
        "acceleration_factor": peak(acceleration),
        "area_mm_deg": above(0.0),
        "area_above_5_08_mm_deg": above(5.08),
        "lift_mm": [RISE_MM * float(lift(d / FLANK_DEG)) for d in degrees],
    }


if __name__ == "__main__":
    out = pathlib.Path(__file__).with_suffix(".json")
    out.write_text(json.dumps([case(name) for name in FAMILIES], indent=1) + "\n")
