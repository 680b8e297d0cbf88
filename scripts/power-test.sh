#!/usr/bin/env bash
# Power cuts at random moments under load; nothing acknowledged is lost or doubled: power-test.sh [CUTS]
set -euo pipefail
ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
home="$(mktemp -d)"
unset UVANTA_E2E_DATA UVANTA_DB_PORT UVANTA_DB_PASSWORD UVANTA_SESSION_SECRET
export UVANTA_DATA="$home" UVANTA_PORT=5080 UVANTA_DB_WANTED_PORT=5081 UVANTA_LOG=silent
finish() {
  local file
  for file in {,full/}{running.json,app.pid,db/mariadbd.pid}; do
    if [ -f "$home/$file" ]; then kill -KILL "$(sed 's/[^0-9]//g' "$home/$file")" 2>/dev/null || true; fi
  done
  # Until the last of them has let go of it.
  local n
  for n in $(seq 1 50); do if ! mountpoint -q "$home/full" || umount "$home/full" 2>/dev/null; then break; fi; sleep 0.2; done
  rm -rf "$home"
}
trap finish EXIT

node "$ROOT/scripts/power-test.mjs" "$home" "${1:-4}" || { tail -20 "$home/said" >&2; exit 1; }

# A disk that is full: the database in 640 MB of memory.
mkdir "$home/full"
if mount -t tmpfs -o size=640m tmpfs "$home/full" 2>/dev/null; then
  export UVANTA_DATA="$home/full"
  node "$ROOT/scripts/full-test.mjs" "$home/full" || { tail -20 "$home/full/said" >&2; exit 1; }
else
  printf '· %s\n' "No small disk can be mounted here: a full one was not tried"
fi
