#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Recomputes the claims of the first verdict of an open data package and compares them with the kept ones.

Run it in the package's folder. Needs NumPy, SciPy and pandas. Formulas: the package's README.
"""
import sys

import numpy as np
import pandas as pd
from scipy import optimize, stats


def dunnett_critical(sizes, reference_size, df, confidence):
    """What |t| must exceed so that all comparisons with one reference hold together (Dunnett 1955)."""
    if len(sizes) == 1:
        return stats.t.ppf(0.5 + confidence / 2.0, df)
    loading = np.sqrt(np.array(sizes) / (np.array(sizes) + reference_size))
    z = np.linspace(-8.5, 8.5, 601)
    spread = np.linspace(1e-6, stats.chi.ppf(1.0 - 1e-13, df) / np.sqrt(df), 1201)
    z_weight = stats.norm.pdf(z) * (z[1] - z[0])
    spread_weight = stats.chi.pdf(spread * np.sqrt(df), df) * np.sqrt(df) * (spread[1] - spread[0])

    def held(c):
        product = np.ones((spread.size, z.size))
        for rho in loading:
            rest = np.sqrt(1.0 - rho**2)
            high = (c * spread[:, None] + rho * z[None, :]) / rest
            low = (-c * spread[:, None] + rho * z[None, :]) / rest
            product *= stats.norm.cdf(high) - stats.norm.cdf(low)
        return spread_weight @ (product @ z_weight)

    return optimize.brentq(lambda c: held(c) - confidence, 0.5, 200.0, xtol=1e-10)


def main():
    verdicts = pd.read_csv("verdicts.csv")
    first = verdicts[(verdicts.test == verdicts.test[0]) & (verdicts.property == verdicts.property[0])]
    claims = first[first.effect.notna()]
    if claims.empty or claims.family.iloc[0] != "reference" or claims.spread.iloc[0] != "common":
        print("The first verdict is made in another way than this script knows:", first.procedure.iloc[0])
        return 2
    rows = pd.read_csv("values.csv")
    rows = rows[(rows.test == first.test.iloc[0]) & (rows.property == first.property.iloc[0]) & (rows.counts == 1)]
    reference = first[first.is_reference == 1].rail.iloc[0]
    ratio = claims.scale.iloc[0] == "ratio"
    compared = [reference] + list(claims.rail)
    values = {rail: rows[rows.rail == rail].value.to_numpy() for rail in compared}
    # A rail that is known from a summary has no values here; its row tells number, mean and scatter.
    told = {row.rail: row for row in first.itertuples() if isinstance(row.from_summary, str)}
    mean = {rail: told[rail].mean if rail in told else v.mean() for rail, v in values.items()}
    spread = {rail: told[rail].sd ** 2 if rail in told else v.var(ddof=1) for rail, v in values.items()}
    variance = {rail: s / (mean[rail] ** 2 if ratio else 1.0) for rail, s in spread.items()}
    n = {rail: told[rail].n if rail in told else v.size for rail, v in values.items()}
    # Where bounds are among its values, a rail's own scatter says nothing.
    telling = [rail for rail in compared if first[first.rail == rail].bounds.iloc[0] == 0]
    df = sum(n[rail] - 1 for rail in telling)
    scatter = np.sqrt(sum((n[rail] - 1) * variance[rail] for rail in telling) / df)
    q = dunnett_critical([n[rail] for rail in claims.rail], n[reference], df, claims.confidence.iloc[0])
    worst = 0.0
    for claim in claims.itertuples():
        half = q * scatter * np.sqrt(1.0 / n[claim.rail] + 1.0 / n[reference])
        if ratio:
            effect = mean[claim.rail] / mean[reference]
            low, high = effect * np.exp(-half), effect * np.exp(half)
        else:
            effect = mean[claim.rail] - mean[reference]
            low, high = effect - half, effect + half
        kept = (claim.effect, claim.effect_low, claim.effect_high)
        for mine, theirs in zip((effect, low, high), kept):
            worst = max(worst, abs(mine - theirs) / max(abs(theirs), 1e-9))
        print(f"{claim.rail}: {effect:.6g} ({low:.6g} to {high:.6g}); kept {kept[0]:.6g} ({kept[1]:.6g} to {kept[2]:.6g})")
    print(f"largest relative difference {worst:.1e}:", "agrees" if worst < 1e-6 else "DIFFERS")
    return 0 if worst < 1e-6 else 1


sys.exit(main())
