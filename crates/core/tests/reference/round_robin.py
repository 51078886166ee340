"""The trial between laboratories of ISO 5725-2:1994, annex B.1 (sulfur content of coal, per cent by mass, four coals): readings and
the printed results, both from memory; the standard's own formulas on the readings give the printed results at every level, and
statsmodels' MixedLM by restricted likelihood the same model's. For tests/pulls.rs.

    pip install numpy statsmodels
    python round_robin.py > round_robin.json
"""

import json
import warnings

import numpy as np
import statsmodels.api as sm

READINGS = [
    [[0.71, 0.71, 0.70, 0.71], [0.69, 0.67, 0.68], [0.66, 0.65, 0.69], [0.67, 0.65, 0.66],
     [0.70, 0.69, 0.66, 0.71, 0.69], [0.73, 0.74, 0.73], [0.71, 0.71, 0.69], [0.70, 0.65, 0.68]],
    [[1.20, 1.18, 1.23, 1.21], [1.22, 1.21, 1.22], [1.28, 1.31, 1.30], [1.23, 1.18, 1.20],
     [1.31, 1.22, 1.22, 1.24], [1.39, 1.36, 1.37], [1.20, 1.26, 1.26], [1.24, 1.22, 1.30]],
    [[1.68, 1.70, 1.68, 1.69], [1.64, 1.64, 1.65], [1.61, 1.61, 1.62], [1.68, 1.66, 1.66],
     [1.64, 1.67, 1.60, 1.66, 1.68], [1.70, 1.73, 1.73], [1.69, 1.70, 1.68], [1.67, 1.68, 1.67]],
    [[3.26, 3.26, 3.20, 3.24], [3.20, 3.20, 3.20], [3.37, 3.36, 3.38], [3.16, 3.22, 3.23],
     [3.20, 3.19, 3.18, 3.27, 3.24], [3.27, 3.31, 3.29], [3.27, 3.24, 3.23], [3.25, 3.26, 3.26]],
]
# Mean, repeatability and reproducibility standard deviation as printed.
PRINTED = [(0.690, 0.015, 0.026), (1.252, 0.029, 0.061), (1.667, 0.017, 0.035), (3.250, 0.026, 0.058)]


def by_the_standard(level):
    count = np.array([len(own) for own in level])
    mean = np.array([np.mean(own) for own in level])
    spread = np.array([np.std(own, ddof=1) for own in level])
    whole, labs = count.sum(), len(level)
    middle = (count * mean).sum() / whole
    within = ((count - 1) * spread**2).sum() / (whole - labs)
    each = (whole - (count**2).sum() / whole) / (labs - 1)
    between = max(0.0, ((count * (mean - middle) ** 2).sum() / (labs - 1) - within) / each)
    return middle, np.sqrt(within), np.sqrt(within + between)


def main():
    warnings.simplefilter("ignore")
    levels = []
    for level, printed in zip(READINGS, PRINTED):
        assert np.allclose(by_the_standard(level), printed, atol=0.0006), (by_the_standard(level), printed)
        lab = np.repeat(np.arange(len(level)), [len(own) for own in level])
        value = np.concatenate(level)
        model = sm.MixedLM(value, np.ones((len(value), 1)), groups=lab).fit(
            reml=True, method=["powell"], xtol=1e-10, ftol=1e-14
        )
        levels.append({
            "laboratory": lab.tolist(),
            "value": value.tolist(),
            "printed": printed,
            "mean": float(model.fe_params[0]),
            "repeatability": float(np.sqrt(model.scale)),
            "reproducibility": float(np.sqrt(model.scale + model.cov_re[0, 0])),
        })
    print(json.dumps({"levels": levels}))


main()
