# SPDX-License-Identifier: GPL-3.0-or-later
"""Writes NIST's certified sets (Statistical Reference Datasets) to standard output as JSON.

Analysis of variance and Norris come, data and certified values, from the copies that SciPy 1.10.1 ships with its
tests. Longley is R's data set of that name, Michelso R's morley; NumAcc1 to 4 and Wampler1 to 5 are made
by their definitions. What is linear is certified here once more, by exact rational arithmetic, so that no value
stands on memory.
Run: /usr/bin/python3 tests/reference/make_nist_reference.py > tests/data/reference_nist.json
"""
import json
import os
import re
import subprocess
from decimal import Decimal, getcontext
from fractions import Fraction

import scipy.stats

getcontext().prec = 60
DATA = os.path.join(os.path.dirname(scipy.stats.__file__), "tests", "data")


def root(fraction):
    return float((Decimal(fraction.numerator) / Decimal(fraction.denominator)).sqrt())


def read(path):
    with open(os.path.join(DATA, path)) as file:
        return file.read().splitlines()


def runs(values):
    """Equal values as [value, how often]: the order within a group says nothing."""
    counts = {}
    for value in values:
        counts[value] = counts.get(value, 0) + 1
    return [[value, count] for value, count in counts.items()]


def anova(name):
    lines = read(f"nist_anova/{name}.dat")
    f = next(re.split(r"\s+", line.strip())[-1] for line in lines if line.startswith("Between"))
    start = next(i for i, line in enumerate(lines) if line.startswith("Data:") and i > 45) + 1
    groups = {}
    for line in lines[start:]:
        if line.strip():
            group, value = line.split()
            groups.setdefault(group, []).append(value)
    # Exactly, from the decimals themselves.
    numbers = {g: [Fraction(v) for v in values] for g, values in groups.items()}
    every = [v for values in numbers.values() for v in values]
    grand = sum(every) / len(every)
    means = {g: sum(v) / len(v) for g, v in numbers.items()}
    between = sum(len(v) * (means[g] - grand) ** 2 for g, v in numbers.items())
    within = sum((x - means[g]) ** 2 for g, v in numbers.items() for x in v)
    exact = (between / (len(numbers) - 1)) / (within / (len(every) - len(numbers)))
    assert abs(float(exact) / float(f) - 1) < 1e-13, (name, float(exact), f)
    return {"name": name, "F": float(exact),
            "groups": [[[float(v), n] for v, n in runs(values)] for values in groups.values()]}


def univariate(name, values):
    numbers = [Fraction(v) for v in values]
    n = len(numbers)
    mean = sum(numbers) / n
    variance = sum((v - mean) ** 2 for v in numbers) / (n - 1)
    return {"name": name, "mean": float(mean), "sd": root(variance), "values": [float(v) for v in values]}


def solve(matrix, right):
    """Gauss and Jordan over fractions."""
    n = len(matrix)
    rows = [list(matrix[i]) + [right[i]] for i in range(n)]
    for i in range(n):
        pivot = next(r for r in range(i, n) if rows[r][i] != 0)
        rows[i], rows[pivot] = rows[pivot], rows[i]
        rows[i] = [v / rows[i][i] for v in rows[i]]
        for r in range(n):
            if r != i and rows[r][i] != 0:
                rows[r] = [a - rows[r][i] * b for a, b in zip(rows[r], rows[i])]
    return [row[n] for row in rows]


def linear(name, design, y):
    design = [[Fraction(v) for v in row] for row in design]
    y = [Fraction(v) for v in y]
    k = len(design[0])
    square = [[sum(row[i] * row[j] for row in design) for j in range(k)] for i in range(k)]
    b = solve(square, [sum(row[i] * v for row, v in zip(design, y)) for i in range(k)])
    rss = sum((v - sum(c * x for c, x in zip(b, row))) ** 2 for row, v in zip(design, y))
    errors = []
    for i in range(k):
        inverse = solve(square, [Fraction(int(i == j)) for j in range(k)])[i]
        variance = inverse * rss / (len(y) - k)
        errors.append(root(variance))
    return {"name": name, "design": [[float(v) for v in row] for row in design], "y": [float(v) for v in y],
            "coefficients": [float(v) for v in b], "errors": errors, "squares": float(rss)}


def from_r(expression):
    out = subprocess.run(["Rscript", "-e", f"cat(jsonlite::toJSON({expression}, digits=NA))"],
                         capture_output=True, text=True, check=True).stdout
    return json.loads(out)


def norris():
    lines = read("nist_linregress/Norris.dat")
    start = next(i for i, line in enumerate(lines) if re.match(r"Data:\s+y\s+x", line)) + 1
    rows = [line.split() for line in lines[start:] if line.strip()]
    return linear("Norris", [["1", x] for y, x in rows], [y for y, x in rows])


def longley():
    table = from_r("longley")
    order = [("GNP.deflator", 1), ("GNP", 1000), ("Unemployed", 10), ("Armed.Forces", 10), ("Population", 1000),
             ("Year", 1)]
    design = [["1"] + [Fraction(str(row[key])) * times for key, times in order] for row in table]
    return linear("Longley", design, [Fraction(str(row["Employed"])) * 1000 for row in table])


# Orthogonal to all powers of x up to the fifth: the coefficients stay 1.
DELTA = [759, -2048, 2048, -2048, 2523, -2048, 2048, -2048, 1838, -2048, 2048,
         -2048, 1838, -2048, 2048, -2048, 2523, -2048, 2048, -2048, 759]


def wampler(number):
    coefficients = [Fraction(1)] * 6 if number != 2 else [Fraction(1, 10**k) for k in range(6)]
    noise = {3: 1, 4: 100, 5: 10000}.get(number, 0)
    design = [[Fraction(x) ** k for k in range(6)] for x in range(21)]
    y = [sum(c * v for c, v in zip(coefficients, row)) + noise * d for row, d in zip(design, DELTA)]
    made = linear(f"Wampler{number}", design, y)
    assert max(abs(v - float(c)) for v, c in zip(made["coefficients"], coefficients)) < 1e-15
    return made



univariates = [
    univariate("NumAcc1", ["10000001", "10000003", "10000002"]),
    univariate("NumAcc2", ["1.2"] + ["1.1", "1.3"] * 500),
    univariate("NumAcc3", ["1000000.2"] + ["1000000.1", "1000000.3"] * 500),
    univariate("NumAcc4", ["10000000.2"] + ["10000000.1", "10000000.3"] * 500),
    univariate("Michelso", [str(Decimal(v + 299000) / 1000) for v in from_r("morley$Speed")])]
anovas = [anova(name) for name in ["SiRstv", "SmLs01", "SmLs02", "SmLs03", "AtmWtAg", "SmLs04", "SmLs05", "SmLs06",
                                   "SmLs07", "SmLs08", "SmLs09"]]
for one in univariates:  # compact: equal values counted
    one["values"] = runs(one["values"])
print(json.dumps({"univariate": univariates, "anova": anovas,
                  "linear": [norris(), longley()] + [wampler(k) for k in range(1, 6)]}))
