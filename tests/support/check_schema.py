#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""check_schema.py FOLDER [SCHEMA FILE]...: holds each file against the schema of that name in FOLDER, and tells
where it does not keep to it. Status 1 where one does not. Wants jsonschema (Debian: python3-jsonschema)."""
import json
import pathlib
import sys
import warnings

warnings.simplefilter("ignore")
import jsonschema  # noqa: E402  (the warnings are those of its newer versions)

folder = pathlib.Path(sys.argv[1]).resolve()
store = {}
for path in folder.glob("*.schema.json"):
    schema = json.loads(path.read_text("utf-8"))
    jsonschema.Draft202012Validator.check_schema(schema)
    store[path.as_uri()] = schema
failed = False
for name, file in zip(sys.argv[2::2], sys.argv[3::2]):
    address = (folder / (name + ".schema.json")).as_uri()
    schema = store[address]
    resolver = jsonschema.RefResolver(address, schema, store=store)
    text = json.loads(pathlib.Path(file).read_text("utf-8"))
    for error in jsonschema.Draft202012Validator(schema, resolver=resolver).iter_errors(text):
        place = "/".join(str(part) for part in error.absolute_path)
        print(f"{file}: {name}: at {place}: {error.message[:300]}")
        failed = True
sys.exit(1 if failed else 0)
