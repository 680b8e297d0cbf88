#!/usr/bin/env bash
# Changes the rules in small ways and says which changes no test notices.
#   mutate.sh            all rules that stryker.config.json names
#   mutate.sh FILE...    these files
#   mutate.sh --sample   some of the lines that the last commits changed
#   mutate.sh --random device|server [LINES]
#                        lines at random of what a device keeps, sends and signs, or of the server: all of
#                        them take hours
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

# Lines at random of what a configuration names, as FILE:LINE-LINE: no comments, no imports, nothing short.
random_lines() {
  local specs
  mapfile -t specs < <(node -p "
    JSON.parse(require('fs').readFileSync('$1')).mutate.flatMap((glob) => {
      const [, before, those, after] = /^(.*)\{(.*)\}(.*)$/.exec(glob) ?? []
      return (those ? those.split(',').map((t) => before + t + after) : [glob])
        .map((g) => g.startsWith('!') ? ':(exclude,glob)' + g.slice(1) : ':(glob)' + g)
    }).join('\n')")
  git grep -nE '[=<>?!&|+*-]|return|\(' -- "${specs[@]}" | grep -vE '^[^:]+:[0-9]+: *(//|/?\*|import|export \{|\})' |
    shuf -n "$2" | awk -F: '{ print $1 ":" $2 "-" $2 }'
}

case "${1:-}" in
  '') exec npx stryker run ;;
  --sample)
    sample="$(changed_lines | paste -sd, -)"
    [ -n "$sample" ] || { echo "No rule has changed."; exit 0; }
    # With the tests of what was changed alone: all of them are run besides.
    UVANTA_MUTATE_SAMPLE="$(tr ',' '\n' <<<"$sample" | cut -d/ -f2 | sort -u | paste -sd,)" \
      exec npx stryker run --mutate "$sample" ;;
  --random)
    exec npx stryker run "stryker.$2.json" --mutate "$(random_lines "stryker.$2.json" "${3:-60}" | paste -sd, -)"
    ;;
  *) exec npx stryker run --mutate "$(IFS=,; echo "$*")" ;;
esac
