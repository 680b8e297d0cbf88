# Backup and restore; sourced by the launcher, whose functions it uses.

# dump DATABASE : everything that is kept, as of one moment, in an order that is the same each time.
# Sessions are nobody's record: their table comes empty, so that nobody who reads meanwhile disturbs.
dump() {
  local options=(--no-defaults --socket="$DB_SOCKET" --single-transaction --hex-blob --skip-dump-date
    --skip-comments --order-by-primary)
  mariadb-dump "${options[@]}" --no-data --skip-triggers "$1" session
  mariadb-dump "${options[@]}" --triggers --ignore-table="$1.session" --master-data=2 --gtid "$1"
}

# What a dump says of the log of changes at its moment: in words of a replica, and put aside.
POSITION='SET GLOBAL gtid_slave_pos='

# read_in FILE DATABASE : a dump into a new database, as somebody who has rights on that one alone: nothing in it
# leaves the client, writes a file or reaches another database. What is read for good belongs to the owner.
read_in() {
  local user="'uvanta_reader'@'127.0.0.1'" name=uvanta_reader password failed=""
  password="$(node -e 'console.log(require("node:crypto").randomBytes(24).toString("hex"))')"
  if [ "$2" = uvanta ]; then name=uvanta_owner; password="$(secret db-owner-password)"; fi
  sql --init-command='SET sql_log_bin=0' -e "DROP DATABASE IF EXISTS \`$2\`; CREATE DATABASE \`$2\`; DROP USER IF EXISTS $user"
  if [ "$name" = uvanta_reader ]; then
    sql -e "CREATE USER $user IDENTIFIED BY '$password'; GRANT ALL ON \`${2//_/\\_}\`.* TO $user"
  fi
  gzip -dc "$1" | without_owner | MYSQL_PWD="$password" mariadb --no-defaults --protocol=tcp --host=127.0.0.1 \
    --port="$(sql -N -e 'SELECT @@port')" --user="$name" --sandbox "$2" || failed=1
  sql -e "DROP USER IF EXISTS $user"
  [ -z "$failed" ]
}

# Triggers belong to whoever reads them in.
without_owner() { sed 's#/\*!50017 DEFINER=`[^`]*`@`[^`]*`\*/ ##'; }
# says_the_same FILE DATABASE : whether a database holds what the text of a dump says, whoever its triggers belong to
says_the_same() {
  [ "$(dump "$2" | without_position | without_owner | hash_of)" = "$(gzip -dc "$1" | without_owner | hash_of)" ]
}

hash_of() { sha256sum | cut -d' ' -f1; }
without_position() { grep -v "^-- \($POSITION\|CHANGE MASTER TO \)"; }
position_of() { sed -n "s/^-- $POSITION'\(.*\)';$/\1/p"; }
drop_scratch() { sql --init-command='SET sql_log_bin=0' -e "DROP DATABASE \`$1\`"; }

# write_backup FILE : with the database running, in use or not
write_backup() {
  local file="$1" scratch kept same=""
  umask 077
  scratch="$(mktemp -d)"
  mkdir -p "$scratch/keys" "$(dirname "$file")"
  # The text is hashed on its way, so that what is read back can be held against it.
  dump uvanta | tee >(into "$scratch/gtid" position_of) | without_position |
    tee >(into "$scratch/hash" hash_of) | gzip -4 >"$scratch/database.sql.gz"
  for kept in "${RECORD_KEYS[@]}"; do
    if [ -f "$UVANTA_DATA/keys/$kept" ]; then cp -p "$UVANTA_DATA/keys/$kept" "$scratch/keys/"; fi
  done
  wait_for "$scratch/hash"
  wait_for "$scratch/gtid"
  printf '%s %s\n' "$(history_id)" "$(cat "$scratch/gtid")" >"$scratch/position"
  if read_in "$scratch/database.sql.gz" uvanta_readback && says_the_same "$scratch/database.sql.gz" uvanta_readback; then same=1; fi
  drop_scratch uvanta_readback
  if [ -z "$same" ] || [ "$(gzip -dc "$scratch/database.sql.gz" | hash_of)" != "$(cat "$scratch/hash")" ]; then
    rm -rf "$scratch"
    die "the backup read back differently; nothing was kept. Look at the disk, then try again."
  fi
  rm -f "$scratch/gtid"
  SIGNED_BY="$(node server/dist/cli.js sign-backup "$scratch")" || die "the backup could not be signed; nothing was kept."
  tar -C "$scratch" -cf "$file.part" database.sql.gz keys hash position signature
  rm -rf "$scratch"
  mv "$file.part" "$file"
}

# Where the log of changes is copied to, unless another place is named.
CHANGES="$UVANTA_DATA/backups/changes"

# The keys of signatures and seals go with the record; passwords belong to the directory.
RECORD_KEYS=(signing.json trusted.json seal sealed secrets)

# ---- the log of changes, from which a backup is brought up to any moment after it --------

# What a log of changes follows; a database that was put back begins another one.
history_id() {
  local file="$DB_HOME/history"
  [ -f "$file" ] || node -e 'console.log(require("node:crypto").randomUUID())' >"$file"
  cat "$file"
}

begin_history() {
  rm -f "$DB_HOME/history"
  sql -e 'RESET MASTER'
}

# save_changes DIRECTORY [PASSPHRASE] : copies what is not there yet, each file whole or not at all
save_changes() {
  local to; to="$1/$(history_id)"
  local given="${2:-}" open log name
  umask 077
  mkdir -p "$to"
  sql -e 'FLUSH BINARY LOGS'
  open="$(sql -N -e 'SHOW MASTER STATUS' | cut -f1)"
  for log in "$DB_HOME"/binlog/log.[0-9]*; do
    name="$(basename "$log")"
    if [ "$name" = "$open" ] || [ -f "$to/$name" ] || [ -f "$to/$name.age" ]; then continue; fi
    rm -f "$to/$name.part"
    if [ -z "$given" ]; then
      cp "$log" "$to/$name.part"
      mv "$to/$name.part" "$to/$name"
    else
      printf '%s' "$given" | node server/dist/cli.js encrypt "$log" "$to/$name.part" || die "$log could not be encrypted."
      mv "$to/$name.part" "$to/$name.age"
    fi
  done
}

# replay DIRECTORY POSITION UNTIL SCRATCH : what was changed after a backup up to a moment, in its order
replay() {
  local history="${2%% *}" gtid="${2#* }" until="$3" scratch="$4" log given="" logs=() first
  mkdir -p "$scratch/changes"
  # From both places: what was not copied to the one that is named was copied before the restore.
  for log in "$1/$history"/log.[0-9]* "$CHANGES/$history"/log.[0-9]*; do
    case "$log" in
      *'*') ;; # nothing is there
      *.part) ;;
      *.age)
        [ -n "$given" ] || given="$(passphrase)"
        printf '%s' "$given" | node server/dist/cli.js decrypt "$log" "$scratch/changes/$(basename "${log%.age}")" ||
          die "$log does not open with this passphrase, or is damaged." ;;
      *) cp "$log" "$scratch/changes/" ;;
    esac
  done
  logs=("$scratch"/changes/log.*)
  first="${logs[0]##*.}"
  [ $((10#${logs[-1]##*.} - 10#$first + 1)) = "${#logs[@]}" ] || die "a file of the log of changes is missing in $1/$history."
  TZ=UTC mariadb-binlog --no-defaults --disable-log-bin ${gtid:+--start-position="$gtid"} --stop-datetime="$until" \
    --database=uvanta "${logs[@]}" | sql --sandbox || die "the log of changes could not be followed."
}

# into FILE COMMAND : what a command makes of its input, whole or not there
into() { "$2" >"$1.part"; mv "$1.part" "$1"; }
wait_for() { local n; for n in $(seq 1 100); do [ -e "$1" ] && return; sleep 0.1; done; }

# passphrase : from the environment, or from whoever sits there
passphrase() {
  local given="${UVANTA_BACKUP_PASSPHRASE:-}"
  if [ -z "$given" ] && [ -t 0 ]; then read -rsp "Passphrase of the backup: " given; say >&2; fi
  [ -n "$given" ] || die "the backup has a passphrase: set UVANTA_BACKUP_PASSPHRASE, or run this at a terminal."
  printf '%s' "$given"
}

cmd_backup() {
  local encrypt="" changes="" file given=""
  while [[ "${1:-}" == --* ]]; do
    case "$1" in
      --encrypt) encrypt=1 ;;
      --changes) changes=1 ;;
      *) die "backup does not know $1. See ./uvanta backup --help" ;;
    esac
    shift
  done
  file="${1:-$UVANTA_DATA/backups/$(date +%Y-%m-%d-%H%M%S).tar${encrypt:+.age}}"
  if [ -n "$encrypt" ]; then given="$(passphrase)"; fi
  if running; then need_build; attach_db; else prepare; fi
  if [ -n "$changes" ]; then
    save_changes "${1:-$CHANGES}" "$given"
    say "Every change up to now is in ${1:-$CHANGES}"
  elif [ -n "$encrypt" ]; then
    write_backup "$file.plain"
    if ! printf '%s' "$given" | node server/dist/cli.js encrypt "$file.plain" "$file.part"; then
      rm -f "$file.plain" "$file.part"
      die "it could not be encrypted; nothing was kept."
    fi
    rm -f "$file.plain"
    mv "$file.part" "$file"
  else
    write_backup "$file"
  fi
  say "Backup written and read back: $file"
  if [ -n "${SIGNED_BY:-}" ]; then say "It is signed with the key $SIGNED_BY. Keep that apart from the file: another machine asks for it."; fi
}

# opened FILE SCRATCH : the name of the plain archive of a backup, whether that is encrypted or not
opened() {
  local given
  if [ "$(head -c 21 "$1" | tr -d '\0')" != age-encryption.org/v1 ]; then printf '%s' "$1"; return; fi
  given="$(passphrase)"
  printf '%s' "$given" | node server/dist/cli.js decrypt "$1" "$2/plain.tar" ||
    die "$1 does not open with this passphrase, or is damaged; nothing was changed."
  printf '%s' "$2/plain.tar"
}

# The whole way back, beside what is there: a restore into a directory of its own, every chain verified.
cmd_drill() {
  local file="" scratch began=$SECONDS
  if [[ "${1:-}" != --* ]]; then file="${1:-}"; shift || true; fi
  [ -n "$file" ] || file="$(find "$UVANTA_DATA/backups" -name '*.tar*' -not -name '*.part' -printf '%T@ %p\n' 2>/dev/null | sort -n | tail -1 | cut -d' ' -f2-)"
  [ -f "$file" ] || die "there is no backup to try: ./uvanta backup"
  scratch="$(mktemp -d)"
  # The database that is tried in it is not root’s.
  chmod 711 "$scratch"
  # shellcheck disable=SC2064
  trap "rm -rf '$scratch'" EXIT
  UVANTA_TRUSTED="$UVANTA_DATA/keys/trusted.json" UVANTA_DATA="$scratch" UVANTA_DB_WANTED_PORT=4960 "$ROOT/uvanta" restore "$file" --changes "$CHANGES" "$@" ||
    die "$file could not be restored."
  say "$file restores, in $((SECONDS - began)) s; it holds what is counted above."
}

# moment WORDS : a time in UTC as the log of changes wants it
moment() { date -u -d "$1" '+%Y-%m-%d %H:%M:%S' 2>/dev/null || die "“$1” is no time. Write it as 2026-11-27 14:05, in UTC."; }

cmd_restore() {
  local file="${1:-}" until="" changes="$CHANGES" scratch archive kept key position="" signed_by=""
  [ -f "$file" ] || die "name the backup file: ./uvanta restore FILE"
  shift
  while [ $# -gt 0 ]; do
    case "$1" in
      --until) until="$(moment "${2:-}")" ;;
      --changes) changes="${2:-}" ;;
      --signed-by) signed_by="${2:-}" ;;
      *) die "restore does not know $1. See ./uvanta restore --help" ;;
    esac
    shift 2 || die "say what follows $1."
  done
  running && die "stop Uvanta first (Ctrl-C where it runs), then restore."
  umask 077
  need_packages; need_build
  scratch="$(mktemp -d)"
  archive="$(opened "$file" "$scratch")"
  # To the end of the list: whoever leaves off (grep -q) breaks the pipe, and a whole file would pass for none.
  tar -tf "$archive" 2>/dev/null | grep -x hash >/dev/null || die "$file is not a backup of Uvanta."
  tar -C "$scratch" -xf "$archive" database.sql.gz keys hash 2>/dev/null || die "$file is damaged; nothing was changed."
  if [ -n "$until" ]; then
    position="$(tar -xOf "$archive" position 2>/dev/null)" || die "$file does not say where its log of changes goes on: it was written by an earlier version."
    [ -d "$changes/${position%% *}" ] || [ "${position%% *}" = "$(history_id)" ] ||
      die "there is no log of changes for this backup in $changes; nothing was changed."
  fi
  tar -C "$scratch" -xf "$archive" position signature 2>/dev/null || true
  rm -f "$scratch/plain.tar"
  # Before anything of it is read: who wrote it, and whether it is whole.
  node server/dist/cli.js check-backup "$scratch" "$signed_by" || die "$file was not put back; nothing was changed."
  [ -f "$scratch/keys/signing.json" ] || die "$file has no signing key; nothing was changed."
  prepare
  # Read in beside what is there, and compared, before anything is touched.
  read_in "$scratch/database.sql.gz" uvanta_restore || die "$file is damaged; nothing was changed."
  says_the_same "$scratch/database.sql.gz" uvanta_restore &&
    [ "$(gzip -dc "$scratch/database.sql.gz" | hash_of)" = "$(cat "$scratch/hash")" ] ||
    die "$file does not hold what it says; nothing was changed."
  if [ ! -f "$UVANTA_DATA/restoring" ]; then
    kept="$UVANTA_DATA/backups/before-restore-$(date +%Y-%m-%d-%H%M%S).tar"
    write_backup "$kept"
    # The log is at its end with this restore; whoever chose the wrong moment chooses another one.
    save_changes "$CHANGES"
    step "What was there is kept in $kept, every change before it in $CHANGES"
  fi
  # From here on a restore that is broken off is done again before anything else.
  printf '%s' "$file" >"$UVANTA_DATA/restoring"
  # A demo that was loaded in part is no reason any more to begin anew.
  rm -f "$SITES.loading"
  read_in "$scratch/database.sql.gz" uvanta || die "the database could not be read in; start Uvanta to go on with this restore."
  drop_scratch uvanta_restore
  if [ -n "$until" ]; then
    step "Following what was changed after it, until $until UTC"
    replay "$changes" "$position" "$until" "$scratch"
  fi
  for key in "${RECORD_KEYS[@]}"; do
    if [ -f "$scratch/keys/$key" ]; then cp -p "$scratch/keys/$key" "$UVANTA_DATA/keys/$key"; else rm -f "$UVANTA_DATA/keys/$key"; fi
  done
  rm -rf "$scratch"
  begin_history
  as_owner node server/dist/cli.js migrate
  node server/dist/cli.js verify-chain
  rm -f "$UVANTA_DATA/restoring"
  say "Restored from $file${until:+, as of $until UTC}."
}
