#!/usr/bin/env bash
# Three nodes, two processes and two proxies; a node, a process and the network die in the middle of a stream, a new
# version is taken up, and the record is put back as of a moment after its backup.
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

# cluster_up : in the background, until it says where it is
cluster_up() {
  : >"$home/said"
  "$ROOT/uvanta" cluster >"$home/said" 2>&1 &
  launcher=$!
  local n
  for n in $(seq 1 240); do
    grep -q "Uvanta is at" "$home/said" && return
    kill -0 "$launcher" 2>/dev/null || fail "it did not start"
    sleep 1
  done
  fail "it did not start in time"
}

printf '· %s\n' "Three nodes and two processes"
cluster_up
printf 'four unlike words stand here' | "$ROOT/uvanta" admin anna >/dev/null || fail "nobody became administrator"
node "$ROOT/scripts/cluster-test.mjs" "http://127.0.0.1:$UVANTA_PORT" "$home"

printf '· %s\n' "Everything is killed at once, as by a power cut, and started again"
# Not in the middle of bringing up what dies: the launcher first.
kill -KILL "$launcher"; wait "$launcher" 2>/dev/null || true
for file in node1/started.pid node2/started.pid node3/started.pid app1.pid app2.pid; do
  kill -KILL "$(cat "$home/cluster/$file")" 2>/dev/null || true
done
pkill -KILL -f "$home/cluster/haproxy.cfg" || true
sleep 1
cluster_up
node "$ROOT/scripts/cluster-again.mjs" "http://127.0.0.1:$UVANTA_PORT" "$home"

printf '· %s\n' "What was acknowledged is there after a restore to the end of the log"
kill -TERM "$launcher"; wait "$launcher" 2>/dev/null || true
launcher=""
"$ROOT/uvanta" restore "$home/one.tar" --until "$(date -u '+%Y-%m-%d %H:%M:%S')" --changes "$home/changes" >"$home/said" 2>&1 || { cat "$home/said" >&2; fail "it was not put back"; }
grep -q "0 faults" "$home/said" || fail "its chains do not verify"
cluster_up
node "$ROOT/scripts/cluster-again.mjs" "http://127.0.0.1:$UVANTA_PORT" "$home" restored
