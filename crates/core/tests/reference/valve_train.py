"""A solid-lifter valve train by an ODE library at tight tolerance, independent of the program's own solver.

SciPy's solve_ivp (DOP853, rtol 1e-9) on the equations of physics: lifter with half of the pushrod, rocker with a rocking
pivot, valve, a spring of 16 masses, one-sided contacts; polynomial lobe. Writes valve_train.json beside itself.

Run: python3 valve_train.py   (needs numpy and scipy)
"""

import json
import math
import pathlib

import numpy as np
from scipy.integrate import solve_ivp

N = 16
P = dict(lifter=0.120, inertia=4.0e-2 * 1.7**2, pivot_mass=0.130, valve=0.150, cam=58e6, pushrod=39e6, pivot=48e6,
         stem=8e6, seat=50e6, ratio=1.7, lash=0.4e-3, spring_mass=0.110, rate=70e3, seat_load=700.0)
DAMP = dict(cam=1200.0, pushrod=800.0, pivot=900.0, stem=160.0, seat=500.0)
SPRING_ZETA = 0.01
LIFT, HALF = 9.0e-3, 66.0  # m, cam degrees


def lobe(cam):
    """Lift and slope per radian of cam, cam in degrees from full lift: h (1 - x^2)^5."""
    x = cam / HALF
    if abs(x) >= 1:
        return 0.0, 0.0
    inner = 1 - x * x
    return LIFT * inner**5, LIFT * 5 * inner**4 * (-2 * x) / HALF * 180 / math.pi


def push(stiffness, damping, pressed, closing):
    return max(0.0, stiffness * pressed + damping * closing) if pressed > 0 else 0.0


def rates(rpm):
    w_cam = rpm * math.pi / 60
    links = N + 1
    k_link = links * P["rate"]
    m_link = P["spring_mass"] / links
    c_link = 2 * SPRING_ZETA * links * math.sqrt(P["rate"] * P["spring_mass"]) / math.pi
    valve = P["valve"] + 0.5 * m_link

    def f(t, y):
        cam = -180.0 + math.degrees(w_cam * t)
        s, slope = lobe((cam + 180.0) % 360.0 - 180.0)
        place, speed = y[: 4 + N], y[4 + N :]
        l, q, z, v = place[:4]
        dl, dq, dz, dv = speed[:4]
        u, du = place[4:], speed[4:]
        cam_f = push(P["cam"], DAMP["cam"], s - l, slope * w_cam - dl)
        rod = push(P["pushrod"], DAMP["pushrod"], l - q - z, dl - dq - dz)
        stem = push(P["stem"], DAMP["stem"], P["ratio"] * q - z - P["lash"] - v, P["ratio"] * dq - dz - dv)
        seat = push(P["seat"], DAMP["seat"], -v, -dv)
        held = P["pivot"] * z + DAMP["pivot"] * dz
        ends = np.concatenate(([0.0], u, [v]))
        dends = np.concatenate(([0.0], du, [dv]))
        link = P["seat_load"] + k_link * np.diff(ends) + c_link * np.diff(dends)
        acc = np.empty(4 + N)
        acc[0] = (cam_f - rod) / P["lifter"]
        acc[1] = (rod - P["ratio"] * stem) / P["inertia"]
        acc[2] = (rod + stem - held) / P["pivot_mass"]
        acc[3] = (stem - link[-1] + seat) / valve
        acc[4:] = np.diff(link) / m_link
        return np.concatenate((speed, acc))

    return f, w_cam


def cycle(rpm, cycles):
    f, w_cam = rates(rpm)
    period = 2 * math.pi / w_cam
    y = np.zeros(2 * (4 + N))
    for n in range(cycles):
        times = np.linspace(n * period, (n + 1) * period, 721)
        found = solve_ivp(f, (times[0], times[-1]), y, method="DOP853", rtol=1e-9, atol=1e-11, t_eval=times,
                          max_step=period / 1440)
        y = found.y[:, -1]
        yield found.y[3, 1:]


def kinetic(valve, rpm):
    """Mean kinetic energy of the valve over a cycle read each crank degree, J."""
    speed = np.diff(valve) * 6 * rpm
    return float(0.5 * P["valve"] * np.mean(speed**2))


def beyond(rpm):
    """Past control no cycle is like another: energy and lift of the fifth and sixth."""
    last = list(cycle(rpm, 6))[4:]
    return {"rpm": rpm, "kinetic": np.mean([kinetic(v, rpm) for v in last]), "lift": max(v.max() for v in last),
            "bounce": max(v[500:].max() for v in last)}


if __name__ == "__main__":
    out = {"parameters": P, "damping": DAMP, "spring_zeta": SPRING_ZETA, "lobe": {"lift": LIFT, "half": HALF},
           "cases": [{"rpm": rpm, "cycles": 3, "valve": [round(v, 9) for v in list(cycle(rpm, 3))[-1]]} for rpm in (3000, 3800)],
           "beyond": [beyond(rpm) for rpm in (6500, 7500, 8500)]}
    pathlib.Path(__file__).with_suffix(".json").write_text(json.dumps(out) + "\n")
