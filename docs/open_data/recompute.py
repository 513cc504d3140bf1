#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Recomputes the claims of the first verdict of an open data package and compares them with the kept ones.

Run it in the package's folder. Needs NumPy, SciPy and pandas. Formulas: the package's README.
"""
import sys

import numpy as np
import pandas as pd
from scipy import optimize, special, stats


def dunnett_critical(sizes, reference_size, df, confidence):
    """What |t| must exceed so that all comparisons with one reference hold together (Dunnett 1955)."""
    if len(sizes) == 1:
        return stats.t.ppf(0.5 + confidence / 2.0, df)
    loading = np.sqrt(np.array(sizes) / (np.array(sizes) + reference_size))
    z = np.linspace(-8.5, 8.5, 301)
    log_spread = np.linspace(*(0.5 * np.log(stats.chi2.ppf([1e-14, 1.0 - 1e-13], df) / df)), 401)
    spread = np.exp(log_spread)
    z_weight = stats.norm.pdf(z) * (z[1] - z[0])
    spread_weight = stats.chi2.pdf(df * spread**2, df) * 2.0 * df * spread**2 * (log_spread[1] - log_spread[0])

    def held(c):
        product = np.ones((spread.size, z.size))
        for rho in loading:
            rest = np.sqrt(1.0 - rho**2)
            high = (c * spread[:, None] + rho * z[None, :]) / rest
            low = (-c * spread[:, None] + rho * z[None, :]) / rest
            product *= stats.norm.cdf(high) - stats.norm.cdf(low)
        return spread_weight @ (product @ z_weight)

    return optimize.brentq(lambda c: held(c) - confidence, 0.5, 1000.0, xtol=1e-10)


def moderated(v, d):
    """Scatters that lean on each other a little (Smyth 2004): variances v, each with d degrees of freedom."""
    common = (d * v).sum() / d.sum()
    unbiased = np.log(v) - special.digamma(d / 2.0) + np.log(d / 2.0)
    towards = np.sqrt(common * min(common, np.exp(unbiased.mean())))
    more = 0.4 * (1.0 - 2.0 / v.size) * d.mean()
    beyond = unbiased.var(ddof=1) - special.polygamma(1, d / 2.0).mean()
    if more > 0.0 and beyond > special.polygamma(1, more / 2.0):
        more = optimize.brentq(lambda x: special.polygamma(1, x / 2.0) - beyond, 1e-9, more, xtol=1e-14)
    return (more * towards + d * v) / (more + d), d + more


def main():
    verdicts = pd.read_csv("verdicts.csv")
    first = verdicts[(verdicts.test == verdicts.test[0]) & (verdicts.property == verdicts.property[0])]
    claims = first[first.effect.notna()]
    if claims.empty or claims.family.iloc[0] != "reference":
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
    spread = claims.spread.iloc[0]
    own_df = {rail: n[rail] - 1.0 for rail in compared}
    if spread == "common":
        common = sum((n[rail] - 1) * variance[rail] for rail in telling) / df
        variance = {rail: common for rail in compared}
    elif spread == "moderated":
        v, d = moderated(np.array([variance[rail] for rail in compared]), np.array([own_df[rail] for rail in compared]))
        variance, own_df = dict(zip(compared, v)), dict(zip(compared, d))

    def half_interval(rail):
        errors = [(variance[one] / n[one], own_df[one]) for one in (reference, rail)]
        error = sum(e for e, _ in errors)
        if spread == "common":
            f = df
        elif spread == "own of the smaller":
            f = min(d for _, d in errors)
        else:
            f = min(df, error**2 / sum(e**2 / d for e, d in errors))
        sizes = [n[other] for other in claims.rail]
        return dunnett_critical(sizes, n[reference], f, claims.confidence.iloc[0]) * np.sqrt(error)

    worst = 0.0
    for claim in claims.itertuples():
        half = half_interval(claim.rail)
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
