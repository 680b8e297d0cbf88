#!/usr/bin/env bash
# All checks and tests, from the cheapest to the dearest; goes on after a failure and counts.
set -uo pipefail
UVANTA_SOURCED=1 source "$(dirname "${BASH_SOURCE[0]}")/../uvanta"
set +e

need_node
need_programs "${DATABASE_PROGRAMS[@]}" "${CLUSTER_PROGRAMS[@]}" "chromium-headless-shell chromium-headless-shell" \
  "pdftotext poppler-utils" "zbarimg zbar-tools" "qpdf qpdf" &
programs=$!
need_packages all
wait "$programs" || exit 1

out="$ROOT/.uvanta/test"
mkdir -p "$out"
# The library is read and proved once: all that start find what came of it.
export UVANTA_LIBRARY_KEPT="$out/library.json"
rm -f "$UVANTA_LIBRARY_KEPT"
need_build
[ -z "$LIBRARY_PID" ] || wait "$LIBRARY_PID"

passed=0
failed=0

# check NAME COMMAND... : one check, counted once
check() {
  local name="$1"; shift
  step "$name"
  if "$@" >"$out/$name.log" 2>&1; then passed=$((passed + 1)); else
    failed=$((failed + 1)); tail -40 "$out/$name.log"
  fi
}

# beside NAME COMMAND... : a check that runs beside others, counted by verdict_of
beside() {
  local name="$1"; shift
  ("$@" >"$out/$name.said" 2>&1; echo $? >"$out/$name.status") &
}

# together NAME... : checks named check:NAME that need one core each, side by side, counted one by one
together() {
  local name ours=()
  for name in "$@"; do beside "$name" npm run -s "check:$name"; ours+=($!); done
  wait "${ours[@]}"
  for name in "$@"; do check "$name" verdict_of "$name"; done
}

# verdict_of NAME : what a check that ran beside others came to, with what it said
verdict_of() {
  local status
  status="$(cat "$out/$1.status")"
  cat "$out/$1.said"
  return "$status"
}

# count NAME REPORT COMMAND... : a test runner, counted by its JSON report
count() {
  local name="$1" report="$out/$2"; shift 2
  step "$name"
  rm -f "$report"
  "$@" >"$out/$name.log" 2>&1
  local status=$? numbers
  numbers="$(node scripts/count-report.mjs "$report" 2>/dev/null)" || numbers="0 1"
  read -r p f <<<"$numbers"
  if [ "$status" -ne 0 ] && [ "$f" = 0 ]; then f=1; fi
  passed=$((passed + p)); failed=$((failed + f))
  say "  $p passed, $f failed"
  [ "$f" = 0 ] || tail -80 "$out/$name.log"
}

# load_demo DIRECTORY : the demo of the end-to-end tests, loaded once and shut down again
load_demo() {
  local log="$out/demo.log" running
  rm -rf "$1"
  : >"$log"
  UVANTA_DATA="$1" UVANTA_PORT=4976 UVANTA_DB_WANTED_PORT=4990 UVANTA_GAUGE_WANTED_PORT=4994 \
    "$ROOT/uvanta" start >"$log" 2>&1 &
  running=$!
  until grep -q "Uvanta is at" "$log" || ! kill -0 "$running" 2>/dev/null; do sleep 1; done
  kill -TERM "$running" 2>/dev/null || rm -rf "$1"
  wait "$running"
}

export UVANTA_E2E_DATA="$out/e2e-data"
# One after the other these would leave a core idle half of the time.
beside demo load_demo "$UVANTA_E2E_DATA"
# By itself the longest of them would do so too: it goes on beside the tests.
beside types npm run -s check:types
together format boundaries exports lint
check deploy bash scripts/deploy-test.sh
# Those of the launcher mostly wait, while the tests of the server work.
beside backup bash scripts/backup-test.sh
beside launcher bash scripts/launcher-test.sh
beside cluster bash scripts/cluster-test.sh
beside power bash scripts/power-test.sh 3
count unit unit.json timeout 1500 npx vitest run --reporter=default --reporter=json --outputFile.json="$out/unit.json"
wait
check types verdict_of types
check backup verdict_of backup
check launcher verdict_of launcher
check cluster verdict_of cluster
check power verdict_of power
count end-to-end e2e.json env PLAYWRIGHT_JSON_OUTPUT_NAME="$out/e2e.json" timeout 1500 npx playwright test --config e2e/playwright.config.ts --reporter=list,json

say ""
say "$passed passed, $failed failed"
[ "$failed" = 0 ]
