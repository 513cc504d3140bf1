#!/bin/sh
# From a plan to a verdict without the window: three temperatures, three pieces each, records as CSV files.
# Usage: plan_to_verdict.sh FOLDER-OF-RECORDS PROJECT        (INCHPEG_CLI names the program, if it is not on the path)
set -eu
cli=${INCHPEG_CLI:-inchpeg-cli}
records=$1
project=$2

"$cli" project new "$project" > /dev/null
"$cli" plan make --spec - --into "$project" > /dev/null << 'PLAN'
{"question": "Which nozzle temperature is strongest?",
 "tests": [{"method": "tension", "pieces_per_condition": 3, "property": "tensile_strength"}],
 "factors": [{"name": "nozzle temperature", "levels": ["230", "240", "250"]}],
 "smallest_difference": 0.05}
PLAN

# Sizes as they were measured; a piece a row.
"$cli" project log "$project" --study 1 --data "$records/sizes.csv" > /dev/null

# Files whose names end in a piece's code: anything_A1.csv
"$cli" project bring-in "$project" "$records/pulled" --study 1 > /dev/null

# Everything that is said, and the numbers behind it.
"$cli" project verdict "$project" --study 1
