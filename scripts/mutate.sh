#!/usr/bin/env bash
# Changes the rules in small ways and says which changes no test notices.
#   mutate.sh            all rules that stryker.config.json names
#   mutate.sh FILE...    these files
#   mutate.sh --sample   what changed since the commit before the last one, its first lines
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."

SAMPLE_LINES=60
export NO_COLOR=1

# Lines of rules that are new, as FILE:FROM-TO, until the sample is full.
changed_lines() {
  local specs
  mapfile -t specs < <(node -p "
    JSON.parse(require('fs').readFileSync('stryker.config.json')).mutate
      .map((glob) => glob.replace(/^!/, ':!')).join('\n')")
  git diff -U0 HEAD~1 -- "${specs[@]}" | awk -v most="$SAMPLE_LINES" '
    /^\+\+\+ / { file = substr($2, 3) }
    /^@@/ {
      split(substr($3, 2), at, ",")
      lines = at[2] == "" ? 1 : at[2]
      if (lines > most) lines = most
      if (lines > 0) print file ":" at[1] "-" at[1] + lines - 1
      most -= lines
    }'
}

case "${1:-}" in
  '') exec npx stryker run ;;
  --sample)
    git rev-parse -q --verify HEAD~1 >/dev/null || { echo "No earlier commit to compare with."; exit 0; }
    sample="$(changed_lines | paste -sd, -)"
    [ -n "$sample" ] || { echo "No rule has changed."; exit 0; }
    exec npx stryker run --mutate "$sample" ;;
  *) exec npx stryker run --mutate "$(IFS=,; echo "$*")" ;;
esac
