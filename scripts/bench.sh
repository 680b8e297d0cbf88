#!/usr/bin/env bash
# Figures as JSON lines, on a throwaway data directory. Each is measured side by side in this run.
set -euo pipefail
UVANTA_DATA="$(mktemp -d /tmp/uvbench-XXXXXX)"
# The demo's people have no second factor.
export UVANTA_DATA UVANTA_PORT=4988 UVANTA_DB_WANTED_PORT=4995 UVANTA_SECOND_FACTOR=offered
UVANTA_SOURCED=1 source "$(dirname "${BASH_SOURCE[0]}")/../uvanta"

need_programs "chromium-headless-shell chromium-headless-shell"
prepare >&2
trap 'stop_all; rm -rf "$UVANTA_DATA"' EXIT
case "${1:-}" in
  --scale) as_owner node --import tsx server/bench/scale/main.ts ;;
  *) as_owner node --expose-gc --import tsx server/bench/main.ts ;;
esac
