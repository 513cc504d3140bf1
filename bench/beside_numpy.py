#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Import and reduction of 2,000,000 rows x 3 columns, beside pandas and NumPy doing the same work.

  bench/beside_numpy.py [ROWS]

Needs python3-pandas and python3-numpy, and a release build. Prints the best of five runs of each, as whole
steps inside one process (the start of Python is not counted; that of inchpeg-cli is), and their ratios.
"""
import os
import subprocess
import sys
import tempfile
import time

import numpy as np
import pandas as pd

HERE = os.path.dirname(os.path.abspath(__file__))
CLI = os.path.join(HERE, "..", "build", "release", "src", "cli", "inchpeg-cli")
AREA_MM2 = 40.0
GAUGE_MM = 50.0


def write_record(path, rows):
    rng = np.random.default_rng(1)
    x = np.arange(rows) / rows
    force = 1500.0 * x * (2.0 - x) + 0.1 * rng.standard_normal(rows)
    table = np.column_stack((0.001 * np.arange(rows), force, 2.5 * x))
    np.savetxt(path, table, fmt=["%.3f", "%.4f", "%.6f"], delimiter=",",
               header="time_s,force_N,extension_mm", comments="")


def reduce_with_numpy(path):
    """The same quantities, each by whole-array operations, without a loop in Python."""
    table = pd.read_csv(path, engine="c", dtype=np.float64)
    force = table["force_N"].to_numpy()
    extension = table["extension_mm"].to_numpy()
    sigma = np.median(np.abs(np.diff(force, 3))) / (0.6745 * np.sqrt(20.0))
    inner = force[1:-1]
    left, right = inner - force[:-2], inner - force[2:]
    around = np.abs(force[2:] - force[:-2])
    spikes = (left * right > 0) & (np.minimum(np.abs(left), np.abs(right)) > 4 * around + max(8 * sigma, 0.005 * force.max()))
    force[1:-1][spikes] = 0.5 * (force[:-2] + force[2:])[spikes]
    stress = force / AREA_MM2
    strain = extension / GAUGE_MM
    peak = int(np.argmax(np.maximum.accumulate(force) - force >= max(8 * sigma, 1e-12))) or int(np.argmax(force))
    start = stress[: peak + 1] < 0.6 * stress[: peak + 1].max()
    slope, intercept = np.polyfit(strain[: peak + 1][start], stress[: peak + 1][start], 1)
    strain = strain + intercept / slope
    window = (strain[:peak] >= 0.0005) & (strain[:peak] <= 0.0025)
    modulus = np.polyfit(strain[:peak][window], stress[:peak][window], 1)[0]
    fall = force[:-1] - force[1:] > 0.5 * force.max()
    broke = int(np.argmax(fall)) if fall.any() else len(force) - 1
    offset = np.flatnonzero((strain > 0.002) & (stress < modulus * (strain - 0.002)))
    energy = np.trapz(force[: broke + 1], extension[: broke + 1]) / 1e3
    toughness = np.trapz(stress[: broke + 1], strain[: broke + 1])
    return modulus, stress[peak], energy, toughness, offset[:1]


def read_every_byte(path):
    with open(path, "rb") as file:
        return file.read().count(b"\n")


def reduce_with_inch_peg(path):
    subprocess.run([CLI, "reduce", "tensile", "--data", path, "--set", f"area={AREA_MM2}mm2",
                    f"gauge_length={GAUGE_MM}mm", "--format", "json"], check=True, stdout=subprocess.DEVNULL)


def best_of(run, path, times=5):
    best = float("inf")
    for _ in range(times):
        begin = time.perf_counter()
        run(path)
        best = min(best, time.perf_counter() - begin)
    return best


def main():
    rows = int(sys.argv[1]) if len(sys.argv) > 1 else 2_000_000
    with tempfile.TemporaryDirectory() as folder:
        path = os.path.join(folder, "record.csv")
        write_record(path, rows)
        floor = best_of(read_every_byte, path)
        numpy_s = best_of(reduce_with_numpy, path)
        own_s = best_of(reduce_with_inch_peg, path)
        print(f"{rows} rows, {os.path.getsize(path) / 1e6:.0f} MB, {os.cpu_count()} cores")
        print(f"reading and counting lines  {floor * 1e3:8.0f} ms      1.0 x")
        print(f"inchpeg-cli reduce tensile  {own_s * 1e3:8.0f} ms  {own_s / floor:7.1f} x")
        print(f"pandas and NumPy            {numpy_s * 1e3:8.0f} ms  {numpy_s / floor:7.1f} x")
        print(f"pandas and NumPy take {numpy_s / own_s:.1f} times as long as inchpeg-cli")


if __name__ == "__main__":
    main()
