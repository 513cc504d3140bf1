# SPDX-License-Identifier: GPL-3.0-or-later
"""Adds SciPy's values to what make_reference.R wrote: python3 make_reference.py < from_r.json > ../data/reference_statistics.json"""
import json
import sys

import numpy as np
import scipy
from scipy import optimize, special, stats


def noncentrality(t, df, p):
    reach = 20 + abs(t)
    return optimize.brentq(lambda d: stats.nct.cdf(t, df, d) - p, t - reach, t + reach, xtol=1e-13)


def add(entry):
    values = {level: np.array([v for v, g in zip(entry["value"], entry["group"]) if g == level]) for level in entry["levels"]}
    for level, summary in zip(entry["levels"], entry["describe"]):
        summary["skewness"] = float(stats.skew(values[level], bias=False))
        summary["kurtosis"] = float(stats.kurtosis(values[level], bias=False))
    groups = list(values.values())
    for name, centre in (("levene", "mean"), ("brown_forsythe", "median")):
        test = stats.levene(*groups, center=centre)
        entry[name] = {"F": float(test.statistic), "p": float(test.pvalue)}
    k = len(groups)
    n = sum(len(g) for g in groups)
    ms = sum(((g - g.mean()) ** 2).sum() for g in groups) / (n - k)
    for pair in entry["pairs"]:
        x, y = values[pair["a"]], values[pair["b"]]
        d = abs(y.mean() - x.mean())
        q = d / np.sqrt(ms / 2 * (1 / len(x) + 1 / len(y)))
        pair["tukey"] = {"q": q, "p": float(stats.studentized_range.sf(q, k, n - k))}
        vx, vy = x.var(ddof=1) / len(x), y.var(ddof=1) / len(y)
        df = (vx + vy) ** 2 / (vx**2 / (len(x) - 1) + vy**2 / (len(y) - 1))
        q = d / np.sqrt((vx + vy) / 2)
        pair["games_howell"] = {"q": q, "df": df, "p": float(stats.studentized_range.sf(q, k, df))}
        t, df = pair["pooled_t"]["t"], pair["pooled_t"]["df"]
        scale = np.exp(special.gammaln(df / 2) - special.gammaln((df - 1) / 2)) / np.sqrt(df / 2)
        scale *= np.sqrt(1 / len(x) + 1 / len(y))
        pair["hedges_g"] = {"value": t * scale, "ci": [noncentrality(t, df, 0.975) * scale, noncentrality(t, df, 0.025) * scale]}


reference = json.load(sys.stdin)
reference["scipy_version"] = scipy.__version__
for entry in reference["sets"]:
    add(entry)
json.dump(reference, sys.stdout, indent=0, default=float)
