"""Ranks with shared ties by SciPy's rankdata (method "min"), for columns of random values with many ties.

Run: python3 ranks.py > ranks.json (made with SciPy 1.17.1, NumPy 2.4.6)."""

import json

import numpy as np
from scipy.stats import rankdata

generator = np.random.default_rng(7)
cases = []
for rows in (1, 2, 3, 7, 20, 64):
    columns = generator.integers(0, max(2, rows // 2), size=(5, rows)) * 0.5
    weights = generator.integers(0, 4, size=5).astype(float)
    higher = [bool(flag) for flag in generator.integers(0, 2, size=5)]
    ranks = [rankdata(-column if up else column, method="min").astype(int) for column, up in zip(columns, higher)]
    points = (weights[:, None] * np.array(ranks)).sum(axis=0)
    cases.append(
        {
            "columns": columns.tolist(),
            "weights": weights.tolist(),
            "higher_is_better": higher,
            "ranks": [own.tolist() for own in ranks],
            "points": points.tolist(),
            "places": rankdata(points, method="min").astype(int).tolist(),
        }
    )
print(json.dumps(cases))
