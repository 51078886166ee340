"""Welch's test of two sets of figures by SciPy, for tests/pulls.rs.

    pip install numpy scipy
    python welch.py > welch.json
"""

import json

import numpy as np
from scipy import stats


def main():
    rng = np.random.default_rng(5)
    cases = []
    for count, other_count, sd, other_sd in [(3, 3, 1.0, 1.0), (4, 6, 1.0, 4.0), (2, 9, 6.0, 0.8), (12, 5, 2.0, 2.5)]:
        one, other = rng.normal(505.0, sd, count), rng.normal(500.0, other_sd, other_count)
        found = stats.ttest_ind(one, other, equal_var=False)
        interval = found.confidence_interval(0.95)
        variances = np.var(one, ddof=1) / np.var(other, ddof=1)
        below = stats.f.cdf(variances, count - 1, other_count - 1)
        cases.append({
            "one": one.tolist(),
            "other": other.tolist(),
            "p": found.pvalue,
            "freedom": found.df,
            "low": interval.low,
            "high": interval.high,
            "spreads": float(np.sqrt(variances)),
            "spreads_p": float(2 * min(below, 1 - below)),
        })
    print(json.dumps(cases))


main()
