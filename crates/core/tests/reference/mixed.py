"""Linear mixed models of invented pulls by statsmodels' MixedLM (REML), for tests/pulls.rs.

    pip install numpy statsmodels
    python mixed.py > mixed.json
"""

import json

import numpy as np
import statsmodels.api as sm
from scipy import stats


def case(seed, combinations, days, pulls, day_sd, drift):
    """Unbalanced on purpose: a day misses a combination, another has one twice."""
    rng = np.random.default_rng(seed)
    rows = []
    for day in range(days):
        level = rng.normal(0.0, day_sd)
        order = [c for c in range(combinations) for _ in range(pulls)]
        rng.shuffle(order)
        if day % 3 == 1:
            order = order[:-1]
        if day % 3 == 2:
            order.append(int(rng.integers(combinations)))
        for at, combination in enumerate(order):
            value = 500.0 + 4.0 * combination + level + drift * at + rng.normal(0.0, 1.5)
            rows.append((combination, day, float(at), value))
    combination, day, at, value = (np.array(column) for column in zip(*rows))
    centred = at - at.mean()
    design = np.column_stack([*(combination == c for c in range(combinations)), centred]).astype(float)
    model = sm.MixedLM(value, design, groups=day).fit(reml=True, method=["powell"], xtol=1e-10, ftol=1e-14)
    # The library's own covariance comes from a numerical Hessian; this one is generalised least squares at its variances.
    same = (day[:, None] == day[None, :]).astype(float)
    covariance = np.eye(len(day)) * model.scale + same * model.cov_re[0, 0]
    inverse = np.linalg.inv(design.T @ np.linalg.inv(covariance) @ design)
    error = float(np.sqrt(inverse[0, 0] + inverse[1, 1] - 2 * inverse[0, 1]))
    return {
        "combination": combination.tolist(),
        "day": day.tolist(),
        "at": at.tolist(),
        "value": value.tolist(),
        "means": model.fe_params[:combinations].tolist(),
        "drift": float(model.fe_params[combinations]),
        "variance": float(model.scale),
        "ratio": float(model.cov_re[0, 0] / model.scale),
        "error": error,
    }


def main():
    mixed = [case(1, 2, 4, 2, 3.0, -0.3), case(2, 3, 6, 2, 2.0, 0.0), case(3, 3, 9, 1, 6.0, -0.8)]
    # Welch's and the pooled test of two combinations on one day.
    a, b = [501.2, 499.8, 502.1, 500.4], [505.0, 503.1, 506.2]
    pooled = stats.ttest_ind(b, a, equal_var=True)
    interval = pooled.confidence_interval(0.95)
    one_day = {"a": a, "b": b, "p": pooled.pvalue, "low": interval.low, "high": interval.high}
    print(json.dumps({"mixed": mixed, "one_day": one_day}))


main()
