#!/usr/bin/env bash
# Three nodes, two processes and two proxies; a node, a process and the network die in the middle of a stream.
set -euo pipefail
ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
home="$(mktemp -d)"
unset UVANTA_DB_PORT UVANTA_DB_PASSWORD UVANTA_SESSION_SECRET
export UVANTA_DATA="$home" UVANTA_PORT=5280 UVANTA_CLUSTER_PORT=5200 UVANTA_LOG=silent
launcher=""
finish() {
  if [ -n "$launcher" ]; then kill -TERM "$launcher" 2>/dev/null || true; wait "$launcher" 2>/dev/null || true; fi
  # The node that was started again is nobody's child.
  if [ -f "$home/cluster/node1/started.pid" ]; then kill -TERM "$(cat "$home/cluster/node1/started.pid")" 2>/dev/null || true; fi
  sleep 2
  rm -rf "$home"
}
trap finish EXIT
fail() { printf 'cluster: %s\n' "$*" >&2; tail -5 "$home/said" >&2; exit 1; }

printf '· %s\n' "Three nodes and two processes"
"$ROOT/uvanta" cluster >"$home/said" 2>&1 &
launcher=$!
for n in $(seq 1 240); do
  grep -q "Uvanta is at" "$home/said" && break
  kill -0 "$launcher" 2>/dev/null || fail "it did not start"
  sleep 1
done
printf 'four unlike words stand here' | "$ROOT/uvanta" cluster admin anna >/dev/null || fail "nobody became administrator"
node "$ROOT/scripts/cluster-test.mjs" "http://127.0.0.1:$UVANTA_PORT" "$home"
