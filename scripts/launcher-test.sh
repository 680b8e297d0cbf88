#!/usr/bin/env bash
# The launcher: a utility of its own without the demo, what ends by itself, and what was left behind.
set -euo pipefail
ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
outer="$(mktemp -d)"
# With a space, as in many a name of a directory.
home="$outer/of the utility"
mkdir "$home"
chmod 711 "$outer" "$home"
# What this shell was given for another data directory is not for this one.
unset UVANTA_E2E_DATA UVANTA_DB_PORT UVANTA_DB_PASSWORD UVANTA_SESSION_SECRET
export UVANTA_DATA="$home" UVANTA_PORT=4985 UVANTA_DB_WANTED_PORT=4986 UVANTA_LOG=silent
launcher=""
finish() {
  if [ -n "$launcher" ]; then kill -TERM "$launcher" 2>/dev/null || true; wait "$launcher" 2>/dev/null || true; fi
  # What a killed launcher left behind, where the test ended before the next one.
  local file
  for file in app.pid db/mariadbd.pid; do
    if [ -f "$home/$file" ]; then kill -TERM "$(cat "$home/$file")" 2>/dev/null || true; fi
  done
  rm -rf "$outer"
}
trap finish EXIT

fail() { printf 'launcher: %s\n' "$*" >&2; cat "$home/said" >&2; exit 1; }
status() { node -e 'fetch(process.argv[1]).then((r) => console.log(r.status), () => console.log("none"))' "http://127.0.0.1:$UVANTA_PORT$1"; }
# until_is STATUS PATH : within five minutes, as a machine that tests in full is slow
until_is() { local n; for n in $(seq 1 600); do [ "$(status "$2")" = "$1" ] && return; sleep 0.5; done; fail "$2 is not $1"; }
start() {
  "$ROOT/uvanta" start "$@" >"$home/said" 2>&1 &
  launcher=$!
  until_is 200 /readyz
  # What it has to say comes once the application answers.
  local n
  for n in $(seq 1 120); do grep -q "Ctrl-C stops it" "$home/said" && return; sleep 0.5; done
  fail "it does not say how it is stopped"
}

printf '· %s\n' "Unknown arguments are refused"
if "$ROOT/uvanta" start --emtpy >"$home/said" 2>&1; then fail "--emtpy was taken"; fi
grep -q "unknown option.*--emtpy" "$home/said" || fail "it is not said what is wrong"
[ ! -e "$home/db" ] || fail "a database was made all the same"
if "$ROOT/uvanta" doctor now >"$home/said" 2>&1; then fail "a word too many was taken"; fi

printf '· %s\n' "Without the demo"
start --empty
grep -q "No certificates are issued yet" "$home/said" || fail "it is not said what has to be set"
grep -q "Nobody can sign in yet" "$home/said" || fail "it is not said that nobody can sign in"
! grep -q "Demo sign-ins" "$home/said" || fail "demo sign-ins are named"
if printf 'password1234' | "$ROOT/uvanta" admin anna >/dev/null 2>"$home/refused"; then fail "a common password was taken"; fi
grep -q "easily guessed" "$home/refused" || fail "it is not said why"
printf 'four unlike words stand here' | "$ROOT/uvanta" admin anna >/dev/null || fail "nobody became administrator"
signed="$(node -e '
  const [base, password] = process.argv.slice(1)
  fetch(base + "/api/v1/session", { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ username: "anna", password }) })
    .then(async (r) => console.log(r.status, (await r.json()).roles))' "http://127.0.0.1:$UVANTA_PORT" 'four unlike words stand here')"
grep -q "200 .*administrator" <<<"$signed" || fail "the administrator cannot sign in: $signed"

printf '· %s\n' "What the utility is can be said at the command line"
if printf '{"name":"Example Water"}' | "$ROOT/uvanta" admin setup >"$home/set" 2>&1; then fail "half of it was taken"; fi
printf '{"name":"Example Water","authority":"Example Water Authority","certificatePrefix":"EW","address":"3 Mill Lane","phone":"555 0199","timeZone":"UTC"}' |
  "$ROOT/uvanta" --json admin setup >"$home/set" 2>"$home/refused" || { cat "$home/refused"; fail "it was not taken"; }
[ "$(node -p 'const s = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8")); `${s.certificatePrefix} ${s.missing}`' "$home/set")" = "EW publicUrl" ] || fail "it is not what was said: $(cat "$home/set")"

printf '· %s\n' "What serves changes no table, and no row that only grows"
# as_server SQL : with the password that what serves has
as_server() {
  mariadb --no-defaults -h127.0.0.1 -P"$(cat "$home/db-port")" -uuvanta -p"$(cat "$home/keys/db-password")" uvanta -N -e "$1" 2>&1
}
tr '\0' '\n' <"/proc/$(cat "$home/app.pid")/environ" | sed -n 's/^UVANTA_DB_PORT=//p' >"$home/db-port"
[ "$(as_server 'SELECT COUNT(*) FROM person')" = 1 ] || fail "what serves cannot read"
for text in "DROP TRIGGER audit_no_update" "DELETE FROM audit" "UPDATE visit_event SET payload = ''" \
  "ALTER TABLE person DROP COLUMN active" "CREATE TABLE more (id INT)"; do
  grep -q "denied" <<<"$(as_server "$text" || true)" || fail "what serves may: $text"
done
! tr '\0' '\n' <"/proc/$(cat "$home/app.pid")/environ" | grep "$(cat "$home/keys/db-owner-password")" >/dev/null || fail "what serves knows the owner's password"

printf '· %s\n' "What is kept no longer is deleted on wish alone"
if "$ROOT/uvanta" forget 2 --yes >/dev/null 2>"$home/refused"; then fail "two years were taken"; fi
grep -q "three years" "$home/refused" || fail "it is not said for how long records are kept"
if "$ROOT/uvanta" forget 10 </dev/null >"$home/forgotten" 2>&1; then fail "nobody was asked"; fi
grep -q "nothing was deleted" "$home/forgotten" || fail "it is not said that nothing was deleted"
"$ROOT/uvanta" forget 10 --yes >"$home/forgotten" 2>&1 || { cat "$home/forgotten"; fail "it could not be deleted"; }
grep -q "Deleted: 0 visits" "$home/forgotten" || { cat "$home/forgotten"; fail "what was deleted is not said"; }

printf '· %s\n' "What ends is started again"
kill -KILL "$(cat "$home/db/mariadbd.pid")"
for n in $(seq 1 120); do grep -q "The database ended; starting it again" "$home/said" && break; sleep 0.5; done
until_is 200 /readyz
old="$(cat "$home/app.pid")"
kill -KILL "$old"
for n in $(seq 1 120); do [ "$(cat "$home/app.pid")" = "$old" ] || break; sleep 0.5; done
[ "$(cat "$home/app.pid")" != "$old" ] || fail "it is the old one"
until_is 200 /readyz

printf '· %s\n' "What a killed launcher left behind is ended"
kill -KILL "$launcher"; wait "$launcher" 2>/dev/null || true
orphan="$(cat "$home/app.pid")"
# Its number is another program's by now, as after a power cut.
sleep 900 &
stranger=$!
printf '{"pid":%s,"as":"start"}' "$stranger" >"$home/running.json"
# Once a utility's own, it is never the demo's.
start
! grep -q "Demo sign-ins" "$home/said" || fail "the demo was loaded into the data of a utility"
[ "$(as_server 'SELECT COUNT(*) FROM person')" = 1 ] || fail "there are more people than anna"
kill "$stranger" 2>/dev/null || fail "the stranger $stranger was ended"
grep -q "left behind" "$home/said" || fail "it is not said"
# One that has ended and is not yet buried runs nothing.
[ -z "$(tr -d '\0' 2>/dev/null <"/proc/$orphan/cmdline" || true)" ] || fail "the orphan $orphan goes on"

printf '· %s\n' "Stopped while it asks the database, with nobody reading along, it ends everything in order"
kill -TERM "$launcher"; wait "$launcher" 2>/dev/null || true
mkfifo "$home/pipe"
for n in 1 2 3; do
  "$ROOT/uvanta" --data "$home" start >"$home/pipe" 2>&1 &
  launcher=$!
  sed '/Uvanta is at/q' "$home/pipe" >/dev/null
  kill -TERM "$launcher"
  wait "$launcher" || fail "to be stopped is no failure"
  [ -z "$(ps -eo args | grep -F "$home/db/data" | grep -v grep || true)" ] || fail "a database is left behind"
done

printf '· %s\n' "One at a time, at the port that is wanted"
"$ROOT/uvanta" start >"$home/said" 2>&1 &
launcher=$!
"$ROOT/uvanta" start >"$home/second" 2>&1 &
second=$!
# One of the two ends by itself.
ended=0
wait -n -p ended "$launcher" "$second" || true
if [ "$ended" = "$launcher" ]; then mv "$home/said" "$home/first"; mv "$home/second" "$home/said"; mv "$home/first" "$home/second"; launcher="$second"; fi
grep -q "runs already" "$home/second" || { cat "$home/second"; fail "two of them run"; }
until_is 200 /readyz
kill -TERM "$launcher"; wait "$launcher" 2>/dev/null || true
[ -z "$(ps -eo args | grep -F "$home/db/data" | grep -v grep || true)" ] || fail "a database is left behind"
node -e 'require("node:net").createServer().listen(Number(process.argv[1]), "127.0.0.1")' "$UVANTA_PORT" &
stranger=$!
sleep 1
if "$ROOT/uvanta" start >"$home/said" 2>&1; then fail "another port was taken"; fi
kill "$stranger"
grep -q "port $UVANTA_PORT is in use" "$home/said" || fail "it is not said that the port is in use"
