#!/usr/bin/env bash
# Changes the rules in small ways and says which changes no test notices.
#   mutate.sh            all rules that stryker.config.json names
#   mutate.sh FILE...    these files
#   mutate.sh --sample   some of the lines that the last commits changed
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."

SAMPLE_LINES=12
SAMPLE_COMMITS=25
export NO_COLOR=1

# Lines of rules that the last commits changed, as FILE:FROM-TO: the file changed last comes first,
# until the sample is full.
changed_lines() {
  local specs since file
  mapfile -t specs < <(node -p "
    JSON.parse(require('fs').readFileSync('stryker.config.json')).mutate
      .map((glob) => glob.replace(/^!/, ':!')).join('\n')")
  since="$(git rev-list --first-parent -n "$((SAMPLE_COMMITS + 1))" HEAD | tail -1)"
  git log --first-parent -n "$SAMPLE_COMMITS" --name-only --format= -- "${specs[@]}" | awk '!seen[$0]++' |
    while read -r file; do
      if [ -f "$file" ]; then git diff -U0 "$since" -- "$file"; fi
    done | awk -v most="$SAMPLE_LINES" '
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
    sample="$(changed_lines | paste -sd, -)"
    [ -n "$sample" ] || { echo "No rule has changed."; exit 0; }
    # With the tests of what was changed alone: all of them are run besides.
    UVANTA_MUTATE_SAMPLE="$(tr ',' '\n' <<<"$sample" | cut -d/ -f2 | sort -u | paste -sd,)" \
      exec npx stryker run --mutate "$sample" ;;
  *) exec npx stryker run --mutate "$(IFS=,; echo "$*")" ;;
esac
