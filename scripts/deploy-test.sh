#!/usr/bin/env bash
# The files that a utility copies are what their programs take.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
home="$(mktemp -d)"
trap 'rm -rf "$home"' EXIT
openssl req -x509 -newkey rsa:2048 -nodes -days 1 -subj /CN=localhost -keyout "$home/key" -out "$home/cert" 2>/dev/null
cat "$home/cert" "$home/key" >"$home/site.pem"
sed "s#/etc/uvanta/site.pem#$home/site.pem#" deploy/proxy.cfg >"$home/proxy.cfg"
haproxy -c -q -f "$home/proxy.cfg"
if command -v systemd-analyze >/dev/null; then
  sed -e "s#/etc/uvanta/uvanta.env#$PWD/deploy/uvanta.env#; s#/opt/uvanta#$PWD#; s/^User=.*/User=$(id -un)/; s/^Group=.*/Group=$(id -gn)/" deploy/uvanta.service >"$home/uvanta.service"
  systemd-analyze verify "$home/uvanta.service"
fi

# What is shipped says whose it is; nothing of it runs while it is installed.
node -e '
  const shipped = JSON.parse(require("fs").readFileSync("web/dist/dependencies.json", "utf8"))
  const silent = shipped.filter((p) => !p.name || !p.version || !p.licence)
  if (shipped.length < 100 || silent.length > 0) {
    console.error("dependencies.json lists", shipped.length, "packages;", JSON.stringify(silent))
    process.exit(1)
  }'
grep -qx 'ignore-scripts=true' .npmrc

# Under the restrictions of the unit: somebody else's checkout, read alone, and nothing to write but the data.
reachable() { setpriv --reuid=nobody --regid="$(id -g nobody)" --clear-groups test -x "$PWD/uvanta" 2>/dev/null; }
if [ "$(id -u)" = 0 ] && reachable && unshare -m true 2>/dev/null; then
  chmod 711 "$home"
  mkdir "$home/data"
  chown nobody "$home/data"
  cat >"$home/uvanta.env" <<ENV
UVANTA_DATA="$home/data"
UVANTA_PORT=4995
UVANTA_DB_WANTED_PORT=4996
UVANTA_LOG=silent
ENV
  chmod 644 "$home/uvanta.env"
  touch -d 2020-01-01 "$home/old"
  as_service() {
    # shellcheck disable=SC2016
    env -i PATH="$PATH" HOME=/nonexistent UVANTA_ENV_FILE="$home/uvanta.env" OLD_BUILD="${OLD_BUILD:-}" ROOT="$PWD" unshare -m bash -c '
      mount --bind "$ROOT" "$ROOT" && mount -o remount,ro,bind "$ROOT" || exit 1
      # As though the checkout were newer than what was built of it, for this process alone.
      if [ -n "${OLD_BUILD:-}" ]; then mount --bind "$OLD_BUILD" "$ROOT/web/dist/.built" || exit 1; fi
      cd / && exec setpriv --reuid=nobody --regid="$(id -g nobody)" --clear-groups --no-new-privs "$ROOT/uvanta" "$@"' bash "$@"
  }
  end_service() {
    if [ -f "$home/data/running.json" ]; then kill -TERM "$(sed 's/[^0-9]//g' "$home/data/running.json")" 2>/dev/null || true; fi
    wait "$service" 2>/dev/null || true
  }
  trap 'end_service; rm -rf "$home"' EXIT
  as_service start --empty >"$home/said" 2>&1 &
  service=$!
  for n in $(seq 1 240); do grep -q "Ctrl-C stops it" "$home/said" && break; kill -0 "$service" 2>/dev/null || break; sleep 0.5; done
  grep -q "Ctrl-C stops it" "$home/said" || { cat "$home/said" >&2; exit 1; }
  as_service backup "$home/data/one.tar" >"$home/backed" 2>&1 || { cat "$home/backed" >&2; exit 1; }
  as_service verify-chain >/dev/null
  end_service
  [ -f "$home/data/one.tar" ]
  # A checkout that is newer than what runs is said, with what to do.
  if OLD_BUILD="$home/old" as_service start >"$home/said" 2>&1; then exit 1; fi
  grep -q "uvanta install" "$home/said" || { cat "$home/said" >&2; exit 1; }
else
  printf '· %s\n' "Nobody can take another's rights here: the unit's restrictions were not tried"
fi
