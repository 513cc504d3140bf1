#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""bench/beside_pandas.py CLI [RECORDS] [ROWS]: a night of records brought in, read and compared by one `bring-in` and
one `verdict`, beside what pandas and SciPy take to read the same files, find each peak, and compare the groups.
Wants python3-pandas and python3-scipy (Debian); prints both times and their ratio."""
import pathlib
import random
import subprocess
import sys
import tempfile
import time

CLI = sys.argv[1]
RECORDS = int(sys.argv[2]) if len(sys.argv) > 2 else 500
ROWS = int(sys.argv[3]) if len(sys.argv) > 3 else 2000
SCRIPT = """
import pathlib, sys
import pandas, scipy.stats
groups = {}
for file in sorted(pathlib.Path(sys.argv[1]).glob('*.csv')):
    table = pandas.read_csv(file)
    stress = table['Force (N)'] / 40.0
    groups.setdefault(file.name[0], []).append(stress.max())
values = list(groups.values())
print(scipy.stats.tukey_hsd(*values), scipy.stats.f_oneway(*values))
"""


def timed(*command):
    begin = time.monotonic()
    done = subprocess.run(command, capture_output=True, text=True, check=False)
    if done.returncode != 0:
        sys.exit(f"{command}: {done.stderr[:500]}")
    return time.monotonic() - begin


lot = random.Random(7)
with tempfile.TemporaryDirectory() as name:
    folder = pathlib.Path(name)
    records = folder / "records"
    records.mkdir()
    per_rail = RECORDS // 5
    for rail in range(5):
        for piece in range(per_rail):
            top = 1800.0 * (1.0 + 0.05 * rail) * lot.gauss(1.0, 0.03)
            rows = []
            for i in range(ROWS):
                x = 1.1 * i / (ROWS - 1)
                force = top * (1.0 - abs(1.0 - x) ** 2.2) if i < ROWS - 3 else 0.1 * top
                rows.append(f"{0.02 * i:.3f},{force + lot.gauss(0.0, 0.05):.4f},{0.003 * i:.5f}\n")
            (records / f"{'ABCDE'[rail]}{piece + 1}.csv").write_text("Time (s),Force (N),Extension (mm)\n" + "".join(rows))
    project = str(folder / "night.inchpeg")
    spec = folder / "spec.json"
    spec.write_text('{"question": "A night", "tests": [{"method": "tension", "pieces_per_condition": %d}],'
                    '"factors": [{"name": "nozzle temperature", "levels": ["220","230","240","250","260"]}]}' % per_rail)
    timed(CLI, "project", "new", project)
    timed(CLI, "plan", "make", "--spec", str(spec), "--into", project)
    sizes = folder / "sizes.csv"
    sizes.write_text("piece,width_mm,thickness_mm\n" + "".join(
        f"{rail}{piece + 1},10,4\n" for rail in "ABCDE" for piece in range(per_rail)))
    timed(CLI, "project", "log", project, "--study", "1", "--data", str(sizes))
    own = timed(CLI, "project", "bring-in", project, str(records), "--study", "1")
    own_verdict = timed(CLI, "project", "verdict", project, "--study", "1")
    beside = timed("/usr/bin/python3", "-c", SCRIPT, str(records))
    print(f"{RECORDS} records of {ROWS} rows: bring-in {own:.2f} s, verdict {own_verdict:.2f} s, pandas and SciPy "
          f"{beside:.2f} s, ratio {(own + own_verdict) / beside:.2f}")
