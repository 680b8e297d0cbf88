#!/usr/bin/env bash
# All checks and tests, from the cheapest to the dearest; goes on after a failure and counts.
set -uo pipefail
UVANTA_SOURCED=1 source "$(dirname "${BASH_SOURCE[0]}")/../uvanta"
set +e

need_node
need_command mariadbd mariadb-server-core
need_command mariadb mariadb-client
need_command chromium chromium
need_command pdftotext poppler-utils
need_command zbarimg zbar-tools
need_command qpdf qpdf
need_packages
need_build

passed=0
failed=0
out="$ROOT/.uvanta/test"
mkdir -p "$out"

# check NAME COMMAND... : one check, counted once
check() {
  local name="$1"; shift
  step "$name"
  if "$@" >"$out/$name.log" 2>&1; then passed=$((passed + 1)); else
    failed=$((failed + 1)); tail -40 "$out/$name.log"
  fi
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

check format npm run -s check:format
check lint npm run -s check:lint
check boundaries npm run -s check:boundaries
check exports npm run -s check:exports
check types npm run -s check:types
check mutations bash scripts/mutate.sh --sample
count unit unit.json timeout 1500 npx vitest run --reporter=default --reporter=json --outputFile.json="$out/unit.json"
count end-to-end e2e.json env PLAYWRIGHT_JSON_OUTPUT_NAME="$out/e2e.json" timeout 1500 npx playwright test --config e2e/playwright.config.ts --reporter=list,json

say ""
say "$passed passed, $failed failed"
[ "$failed" = 0 ]
