#!/usr/bin/env python3
"""Prints what is claimed of each rail of a study, from `inchpeg-cli project verdict` and from open data.

Usage: verdict_table.py PROJECT STUDY [OPEN-DATA-FOLDER]     (INCHPEG_CLI names the program)

Nothing but Python's own library is needed.
"""
import csv
import json
import os
import subprocess
import sys


def verdict(project, study):
    program = os.environ.get("INCHPEG_CLI", "inchpeg-cli")
    told = subprocess.run(
        [program, "project", "verdict", project, "--study", study, "--format", "json"],
        check=True, capture_output=True, text=True)
    return json.loads(told.stdout)


def rows_of(told):
    for rail in told["rails"]:
        beside = rail["beside"] or {}
        effect = beside.get("ratio", beside.get("difference"))
        yield rail["rail"], rail["read"], rail["mean"], effect, beside.get("claim", "reference")


def means_of(folder, property_name):
    """The same means, from the values of an open data package."""
    values = {}
    with open(os.path.join(folder, "values.csv"), encoding="utf-8") as table:
        for row in csv.DictReader(table):
            if row["property"] == property_name and row["counts"] == "1":
                values.setdefault(row["rail"], []).append(float(row["value"]))
    return {rail: sum(all_values) / len(all_values) for rail, all_values in values.items()}


def main():
    told = verdict(sys.argv[1], sys.argv[2])
    print(told["headline"])
    packed = means_of(sys.argv[3], told["property"]) if len(sys.argv) > 3 else {}
    for rail, read, mean, effect, claim in rows_of(told):
        shown = "-" if effect is None else f"{effect:.4f}"
        print(f"{rail}\t{read}\t{mean:.6g} {told['unit']}\t{shown}\t{claim}")
        if rail in packed and abs(packed[rail] - mean) > 1e-9 * abs(mean):
            sys.exit(f"{rail}: the open data say {packed[rail]}")


if __name__ == "__main__":
    main()
