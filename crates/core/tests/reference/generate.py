"""Reference answers by SciPy for the lobe's quadratic programme and the valve's closest approach.

Independent of the Rust code: SciPy's B-splines, Lawson and Hanson's active set (NNLS) instead of an interior-point solver, and a
brute-force walk of the valve's edge instead of closed-form geometry.

    pip install numpy scipy
    python3 generate.py > scipy.json
"""
import json

import numpy as np
import scipy
from scipy.interpolate import BSpline
from scipy.optimize import brentq, minimize_scalar, nnls

SPANS, DEGREE = 24, 5
KNOTS = np.concatenate([[0.0] * DEGREE, np.arange(SPANS + 1.0), [float(SPANS)] * DEGREE])
SIZE = SPANS + DEGREE
EYE = np.eye(SIZE)


def row(u, order=0):
    return np.array([BSpline(KNOTS, EYE[i], DEGREE).derivative(order)(u) if order else BSpline(KNOTS, EYE[i], DEGREE)(u) for i in range(SIZE)])


def gram():
    nodes, weights = np.polynomial.legendre.leggauss(4)
    total = np.zeros((SIZE, SIZE))
    for span in range(SPANS):
        for node, weight in zip(nodes, weights):
            jerk = row(span + 0.5 + node / 2, 3)
            total += weight / 2 * np.outer(jerk, jerk)
    return total


def difference(degree):
    drop = DEGREE - degree
    knots = KNOTS[drop : len(KNOTS) - drop]
    count = len(knots) - degree - 1
    matrix = np.zeros((count - 1, count))
    for i in range(count - 1):
        width = (knots[i + degree + 1] - knots[i + 1]) / degree
        matrix[i, i], matrix[i, i + 1] = -1 / width, 1 / width
    return matrix


GRAM = gram()
CONTROLS = difference(4) @ difference(5)


def least(hessian, linear, matrix, bounds):
    """Minimises z'Hz/2 + f'z with Gz >= h, as Lawson and Hanson's least distance programme by NNLS."""
    # Rows that the equalities already fix are empty here and must not be judged by their rounding.
    kept = np.linalg.norm(matrix, axis=1) > 1e-9
    matrix, bounds = matrix[kept], bounds[kept]
    lower = np.linalg.cholesky(hessian)
    shift = np.linalg.solve(lower, linear)
    reduced = np.linalg.solve(lower, matrix.T).T
    right = bounds + reduced @ shift
    size = reduced.shape[1]
    multipliers, _ = nnls(np.vstack([reduced.T, right]), np.concatenate([np.zeros(size), [1.0]]), maxiter=5000)
    residual = np.vstack([reduced.T, right]) @ multipliers - np.concatenate([np.zeros(size), [1.0]])
    if abs(residual[-1]) < 1e-12:
        return None
    nearest = -residual[:size] / residual[size]
    return np.linalg.solve(lower.T, nearest - shift)


def flank(lift, checks, ramp):
    """Spline of one symmetric flank in units of full lift over knot spans, and degrees in a span."""
    span = (checks[0][1] / 4 + ramp) / SPANS
    equal = [(row(0, 0), 1.0), (row(0, 1), 0.0), (row(0, 3), 0.0)]
    equal += [(row(duration / 4 / span), height / lift) for height, duration in checks]
    equal += [(row(SPANS, order), 0.0) for order in range(3)]
    matrix, right = np.array([e[0] for e in equal]), np.array([e[1] for e in equal])
    free = np.linalg.solve(
        np.block([[GRAM, matrix.T], [matrix, np.zeros((len(right), len(right)))]]),
        np.concatenate([np.zeros(SIZE), right]),
    )[:SIZE]
    # Work in the null space of the equalities: only inequalities are left.
    _, _, v = np.linalg.svd(matrix)
    null = v[len(right) :].T
    particular = np.linalg.lstsq(matrix, right, rcond=None)[0]
    guess = int(np.max(np.where((CONTROLS @ free)[: np.argmax(CONTROLS @ free)] < 0)[0]))
    best = None
    for turn in range(guess - 2, guess + 3):
        signs = np.where(np.arange(len(CONTROLS)) <= turn, -1.0, 1.0)[:, None] * CONTROLS
        rising = CONTROLS[1 : turn + 1] - CONTROLS[:turn]
        limits = np.vstack([signs, rising])
        solution = least(null.T @ GRAM @ null, null.T @ GRAM @ particular, limits @ null, -limits @ particular)
        if solution is not None:
            curve = particular + null @ solution
            cost = curve @ GRAM @ curve
            if best is None or cost < best[0]:
                best = (cost, curve)
    return BSpline(KNOTS, best[1], DEGREE), span


def lobe_case(name, lift, durations, ramp):
    spline, span = flank(lift, list(zip((0.006, 0.050, 0.200), durations)), ramp)
    degrees = np.arange(0, SPANS * span, 2.0)
    fine = np.linspace(0, SPANS, 4801)
    return {
        "name": name,
        "lift_in": lift,
        "durations": durations,
        "cam_deg": degrees.tolist(),
        "lift_at_in": (lift * spline(degrees / span)).tolist(),
        "peak_velocity": float(lift * np.max(-spline.derivative(1)(fine)) / span),
        "peak_acceleration": float(lift * np.max(spline.derivative(2)(fine)) / span**2),
        "minimum_acceleration": float(lift * np.min(spline.derivative(2)(fine)) / span**2),
    }


def clearance_case():
    """Intake of the worked example of the format, brute force, inches."""
    spline, span = flank(0.330, [(0.006, 268), (0.050, 216), (0.200, 134)], 12.0)
    reach = SPANS * span

    def lift(crank):
        cam = abs((crank - 360 - 108) / 2)
        return 1.65 * 0.330 * float(spline(cam / span)) if cam < reach else 0.0

    def crown(crank):
        r, rod = 3.700 / 2, 6.050
        t = np.radians(crank)
        return 0.051 + r + rod - (r * np.cos(t) + np.sqrt(rod**2 - (r * np.sin(t)) ** 2))

    tilt = np.radians(18)
    axis = np.array([np.sin(tilt), 0.0, np.cos(tilt)])
    across, along = np.array([np.cos(tilt), 0.0, -np.sin(tilt)]), np.array([0.0, 1.0, 0.0])
    centre = np.array([-0.15, -0.92, -0.110 - 1.0 * np.sin(tilt)])
    turn = np.linspace(0, 2 * np.pi, 1440, endpoint=False)
    edge = np.cos(turn)[:, None] * across + np.sin(turn)[:, None] * along

    def gap(crank):
        top = crown(crank)
        floor = np.array([-0.13, -0.92, top + 0.170 - 1.065 * np.sin(tilt)])
        points = centre + lift(crank) * axis + edge
        # Walk down the stem in both surfaces' own terms: crown outside the pocket, floor inside.
        to_crown = (top - points[:, 2]) / axis[2]
        entry = points + to_crown[:, None] * axis
        offset = entry - floor
        radial = np.linalg.norm(offset - np.outer(offset @ axis, axis), axis=1)
        to_floor = (floor - points) @ axis
        distance = np.where((radial <= 1.065) & ((floor - entry) @ axis >= 0), to_floor, to_crown)
        return float(np.min(distance))

    start = min(np.arange(330, 420, 1.0), key=gap)
    found = minimize_scalar(gap, bounds=(start - 2, start + 2), method="bounded", options={"xatol": 1e-6})
    return {"gap_in": found.fun, "at_deg": float(found.x)}


def timing_case():
    """Crank angle at which a slider-crank has dropped half its stroke, by root finding."""
    r, rod, offset = 45.0, 150.0, 1.2
    height = lambda t: r * np.cos(t) + np.sqrt(rod**2 - (r * np.sin(t) - offset) ** 2)
    top = minimize_scalar(lambda t: -height(t), bounds=(-0.2, 0.2), method="bounded", options={"xatol": 1e-12})
    bottom = minimize_scalar(height, bounds=(np.pi - 0.2, np.pi + 0.2), method="bounded", options={"xatol": 1e-12})
    stroke = -top.fun - bottom.fun
    half = brentq(lambda t: -top.fun - height(t) - stroke / 2, 0.5, 2.5, xtol=1e-14)
    return {"true_stroke_mm": float(stroke), "half_stroke_at_rad": float(half)}


if __name__ == "__main__":
    print(
        json.dumps(
            {
                "scipy": scipy.__version__,
                "lobes": [
                    lobe_case("hydraulic roller 282/230/149 .360", 0.360, [282, 230, 149], 12.0),
                    lobe_case("hydraulic roller 288/239/160 .380", 0.380, [288, 239, 160], 12.0),
                    lobe_case("solid roller 316/255/176 .430", 0.430, [316, 255, 176], 20.0),
                ],
                "closest_approach": clearance_case(),
                "slider_crank": timing_case(),
            },
            indent=1,
        )
    )
