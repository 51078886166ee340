"""Springs under valves with shims, by SciPy's linear_sum_assignment: the least sum of what seat loads are off by.

Writes spring_fit.json beside itself. Every spring has two readings; every valve a height without shims and a load it wants; up
to four shims of a kit go under a spring. The way for a spring and a valve is the pile that comes nearest; who goes where is the
assignment. Run: python3 spring_fit.py
"""

import itertools
import json
import pathlib

import numpy as np
from scipy.optimize import linear_sum_assignment

INCH, LBF = 0.0254, 4.4482216152605
KIT = [0.015 * INCH, 0.030 * INCH, 0.060 * INCH]
PILES = sorted({tuple(sorted(p, reverse=True)) for n in range(5) for p in itertools.combinations_with_replacement(KIT, n)})


def load(spring, height):
    (tall, low), (short, high) = spring
    return low + (tall - height) / (tall - short) * (high - low)


def case(seed, springs, valves):
    lot = np.random.default_rng(seed)
    tested = []
    for _ in range(springs):
        seat, rate = lot.normal(150 * LBF, 5 * LBF), lot.normal(400 * LBF / INCH, 10 * LBF / INCH)
        tested.append([[1.800 * INCH, seat], [1.300 * INCH, seat + rate * 0.5 * INCH]])
    heights = (1.800 * INCH + np.abs(lot.normal(0, 0.020 * INCH, valves))).tolist()
    wanted = [152 * LBF if i % 2 == 0 else 158 * LBF for i in range(valves)]
    cost = np.array([
        [min(abs(load(s, h - sum(p)) - w) for p in PILES) for s in tested] for h, w in zip(heights, wanted)
    ])
    rows, columns = linear_sum_assignment(cost)
    return {"springs": tested, "heights": heights, "wanted": wanted, "kit": KIT, "least": float(cost[rows, columns].sum())}


cases = [case(1, 4, 4), case(2, 16, 16), case(3, 20, 16), case(4, 18, 12)]
path = pathlib.Path(__file__).with_suffix(".json")
path.write_text(json.dumps(cases, indent=1) + "\n")
print([round(c["least"], 3) for c in cases])
