#!/bin/sh
# Walk the whole OpenAPI document of a kettle of its own, in every phase.
set -eu
folder=$(mktemp -d)
KETTLE_DATA="$folder" .venv/bin/kettle serve --demo --port 8797 >"$folder/said" &
server=$!
trap 'kill $server; rm -rf "$folder"' EXIT
until grep -q 8797 "$folder/said"; do sleep 0.2; done
.venv/bin/st --config-file tests/api/schemathesis.toml run http://127.0.0.1:8797/api/v1/openapi.json
