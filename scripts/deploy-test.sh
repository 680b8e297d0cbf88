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
  sed -e "s#/opt/uvanta#$PWD#; s/^User=.*/User=$(id -un)/; s/^Group=.*/Group=$(id -gn)/" deploy/uvanta.service >"$home/uvanta.service"
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
