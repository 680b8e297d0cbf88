#!/usr/bin/env bash
# A backup of a database that is written to meanwhile, put back elsewhere; and archives that are not whole.
set -euo pipefail
home="$(mktemp -d)"
chmod 711 "$home"
export UVANTA_DATA="$home/one"
UVANTA_SOURCED=1 source "$(dirname "${BASH_SOURCE[0]}")/../uvanta"
trap 'stop_all; rm -rf "$home"' EXIT

fail() { printf 'backup: %s\n' "$*" >&2; exit 1; }
# Rows that nobody seals, so that the chains verify while they are written.
rows() { sql -N -e "SELECT COUNT(*) FROM uvanta.request_count"; }
add() { sql uvanta -e "INSERT INTO request_count (subject, count, since) VALUES ('Row $1', 1, NOW(3))"; }
# refused WORDS FILE... : the launcher says so
refused() {
  local words="$1" said
  shift
  if said="$("$ROOT/uvanta" restore "$@" 2>&1)"; then fail "“$words” was taken"; fi
  grep -q "$words" <<<"$said" || fail "“$words” is not what it says: $said"
}

step "A backup while somebody writes"
prepare >/dev/null
trap 'stop_all; rm -rf "$home"' EXIT
add 0
node server/dist/cli.js verify-chain >/dev/null
(n=0; while sleep 0.02; do n=$((n + 1)); add "$n"; done) &
writer=$!
for n in 1 2 3; do write_backup "$home/$n.tar"; done
kill "$writer"; wait "$writer" 2>/dev/null || true
add 'of the first hour'
# A copy that was broken off left a piece behind; the next one goes on.
mkdir -p "$home/changes/$(history_id)"; touch "$home/changes/$(history_id)/log.000001.part"
save_changes "$home/changes"
sleep 1.1
moment="$(date -u '+%Y-%m-%d %H:%M:%S')"
sleep 1.1
add 'by mistake'
save_changes "$home/changes"
before="$(rows)"
stop_all
[ "$(stat -c %a "$home/1.tar")" = 600 ] || fail "others can read the file"
if tar -tf "$home/3.tar" | grep 'db-password\|session' >/dev/null; then fail "a secret of the directory is in the file"; fi
tar -xf "$home/3.tar" -C "$home" database.sql.gz
gzip -dc "$home/database.sql.gz" | grep "INSERT INTO \`session\`" >/dev/null && fail "sessions are in the file"

step "Files that are not whole"
head -c 20000 "$home/3.tar" >"$home/short.tar"
refused "is damaged\|is not a backup" "$home/short.tar"
printf 'hello' >"$home/other.tar"
refused "is not a backup" "$home/other.tar"
# Somebody wrote a command of the client, and something else than the hash says, into the text.
mkdir "$home/forged"; tar -xf "$home/3.tar" -C "$home/forged"
cp "$home/forged/database.sql.gz" "$home/3.gz"
(gzip -dc "$home/forged/database.sql.gz"; printf '\\! touch %s/ran\n' "$home") | gzip >"$home/forged/new.gz"
mv "$home/forged/new.gz" "$home/forged/database.sql.gz"
tar -C "$home/forged" -cf "$home/forged.tar" database.sql.gz keys hash
refused "is not signed" "$home/forged.tar"
tar -C "$home/forged" -cf "$home/forged.tar" database.sql.gz keys hash position signature
refused "changed after it was signed" "$home/forged.tar"
# With a hash of its own, and nobody who asks for a signature: it cannot leave its database all the same.
out="$home/out"; mkdir -m 777 "$out"
(gzip -dc "$home/3.gz"; printf "SELECT 1 INTO OUTFILE '%s/written';\n" "$out") | gzip >"$home/forged/database.sql.gz"
gzip -dc "$home/forged/database.sql.gz" | sha256sum | cut -d' ' -f1 >"$home/forged/hash"
tar -C "$home/forged" -cf "$home/forged.tar" database.sql.gz keys hash
refused "is damaged" "$home/forged.tar" --signed-by none
[ ! -e "$out/written" ] || fail "a file was written by what was read in"
(gzip -dc "$home/3.gz"; printf "GRANT ALL ON *.* TO 'uvanta_reader'@'127.0.0.1';\n") | gzip >"$home/forged/database.sql.gz"
gzip -dc "$home/forged/database.sql.gz" | sha256sum | cut -d' ' -f1 >"$home/forged/hash"
tar -C "$home/forged" -cf "$home/forged.tar" database.sql.gz keys hash
refused "is damaged" "$home/forged.tar" --signed-by none
[ ! -e "$home/ran" ] || fail "a command in the file was run"
db_start
[ "$(rows)" = "$before" ] || fail "a refused file changed something"
stop_all

step "Under a passphrase"
UVANTA_BACKUP_PASSPHRASE='rope, lamp, tide' "$ROOT/uvanta" backup --encrypt "$home/shut.tar.age" >/dev/null 2>&1 || fail "it was not encrypted"
if tar -tf "$home/shut.tar.age" >/dev/null 2>&1; then fail "it can be read without the passphrase"; fi
[ ! -e "$home/shut.tar.age.plain" ] || fail "the plain file is left"
UVANTA_BACKUP_PASSPHRASE='rope, lamp, tidy' refused "does not open" "$home/shut.tar.age"
head -c 200000 "$home/shut.tar.age" | head -c -5 >"$home/cut.tar.age"
UVANTA_BACKUP_PASSPHRASE='rope, lamp, tide' refused "does not open" "$home/cut.tar.age"
UVANTA_BACKUP_PASSPHRASE='rope, lamp, tide' "$ROOT/uvanta" drill "$home/shut.tar.age" >"$home/drilled" 2>&1 || { cat "$home/drilled"; fail "the drill failed"; }
grep -q "restores, in" "$home/drilled" || fail "the drill does not say so"

step "Put back elsewhere"
wanted="$(gzip -dc "$home/database.sql.gz" | grep -o "'Row [0-9]*'" | sort -u | wc -l)"
# What a demo that was cut short left behind must not make the next start throw away what was put back.
mkdir -p "$home/two"; touch "$home/two/virtual-sites.json.loading"
kid="$(node -p 'JSON.parse(require("fs").readFileSync(process.argv[1], "utf8")).kid' "$home/one/keys/signing.json")"
UVANTA_DATA="$home/two" refused "is not known here" "$home/3.tar"
UVANTA_DATA="$home/two" refused "is not known here" "$home/3.tar" --signed-by another
UVANTA_DATA="$home/two" "$ROOT/uvanta" restore "$home/3.tar" --signed-by "$kid" >"$home/restored" 2>&1 || { cat "$home/restored"; fail "it was not put back"; }
[ ! -e "$home/two/virtual-sites.json.loading" ] || fail "the next start would begin with an empty database"
export UVANTA_DATA="$home/two" DB_HOME="$home/two/db"
DB_SOCKET="/tmp/uvanta-$(printf '%s' "$UVANTA_DATA" | sha256sum | cut -c1-12).sock"
db_start
[ "$(rows)" = "$wanted" ] || fail "$(rows) rows are there, $wanted were"
stop_all

step "Put back as of a moment after it"
named() { sql -N -e "SELECT COUNT(*) FROM uvanta.request_count WHERE subject = 'Row $1'"; }
"$ROOT/uvanta" restore "$home/1.tar" --until "$moment" --changes "$home/changes" >"$home/restored" 2>&1 || { cat "$home/restored"; fail "it was not put back"; }
grep -q "0 faults" "$home/restored" || fail "nobody says that the chains verify"
db_start
[ "$(rows)" = $((before - 1)) ] || fail "$(rows) rows are there, $((before - 1)) were at that moment"
[ "$(named 'of the first hour') $(named 'by mistake')" = "1 0" ] || fail "it is another moment"
stop_all
# Where it came from nothing was copied yet: its own log is followed, and kept for another moment.
for until in "$moment" "$(date -u -d '1 hour' '+%Y-%m-%d %H:%M')"; do
  UVANTA_DATA="$home/one" "$ROOT/uvanta" restore "$home/1.tar" --until "$until" >"$home/restored" 2>&1 || { cat "$home/restored"; fail "it was not put back there"; }
  UVANTA_DATA="$home/one" DB_HOME="$home/one/db" db_start
  if [ "$until" = "$moment" ]; then wanted=$((before - 1)); else wanted="$before"; fi
  [ "$(rows)" = "$wanted" ] || fail "$(rows) rows are there, $wanted were at $until"
  stop_all
done
refused "there is no log of changes" "$home/1.tar" --until "$moment" --changes "$home/two"
refused "is no time" "$home/1.tar" --until "half past"

step "Who the database runs as"
if [ "$(id -u)" = 0 ]; then
  db_start
  [ "$(ps -o user= -p "$DB_PID")" != root ] || fail "the database runs as root"
  stop_all
fi

step "A restore that is broken off"
touch "$UVANTA_DATA/restoring"
if said="$("$ROOT/uvanta" start 2>&1)"; then fail "half a database was started"; fi
grep -q "a restore was broken off" <<<"$said" || fail "it is not said: $said"
