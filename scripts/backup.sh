# Backup and restore; sourced by the launcher, whose functions it uses.

# dump DATABASE : everything that is kept, as of one moment, in an order that is the same each time.
# Sessions are nobody's record: their table comes empty, so that nobody who reads meanwhile disturbs.
dump() {
  local options=(--no-defaults --socket="$DB_SOCKET" --single-transaction --hex-blob --skip-dump-date
    --skip-comments --order-by-primary)
  mariadb-dump "${options[@]}" --no-data --skip-triggers "$1" session
  mariadb-dump "${options[@]}" --triggers --ignore-table="$1.session" "$1"
}

# read_in FILE DATABASE : a dump into a new database; nothing in it can leave the database client
read_in() {
  sql -e "DROP DATABASE IF EXISTS \`$2\`; CREATE DATABASE \`$2\`"
  gzip -dc "$1" | sql --sandbox "$2"
}

hash_of() { sha256sum | cut -d' ' -f1; }

# write_backup FILE : with the database running, in use or not
write_backup() {
  local file="$1" scratch read kept
  umask 077
  scratch="$(mktemp -d)"
  mkdir -p "$scratch/keys" "$(dirname "$file")"
  # The text is hashed on its way, so that what is read back can be held against it.
  dump uvanta | tee >(hash_of >"$scratch/hash") | gzip -4 >"$scratch/database.sql.gz"
  for kept in "${RECORD_KEYS[@]}"; do
    if [ -f "$UVANTA_DATA/keys/$kept" ]; then cp -p "$UVANTA_DATA/keys/$kept" "$scratch/keys/"; fi
  done
  wait_for "$scratch/hash"
  read_in "$scratch/database.sql.gz" uvanta_readback
  read="$(dump uvanta_readback | hash_of)"
  sql -e 'DROP DATABASE uvanta_readback'
  if [ "$read" != "$(cat "$scratch/hash")" ]; then
    rm -rf "$scratch"
    die "the backup read back differently; nothing was kept. Look at the disk, then try again."
  fi
  tar -C "$scratch" -cf "$file.part" database.sql.gz keys hash
  rm -rf "$scratch"
  mv "$file.part" "$file"
}

# The keys of signatures and seals go with the record; passwords belong to the directory.
RECORD_KEYS=(signing.json trusted.json seal sealed secrets)

wait_for() { local n; for n in $(seq 1 50); do [ -s "$1" ] && return; sleep 0.1; done; }

# passphrase : from the environment, or from whoever sits there
passphrase() {
  local given="${UVANTA_BACKUP_PASSPHRASE:-}"
  if [ -z "$given" ] && [ -t 0 ]; then read -rsp "Passphrase of the backup: " given; say >&2; fi
  [ -n "$given" ] || die "the backup has a passphrase: set UVANTA_BACKUP_PASSPHRASE, or run this at a terminal."
  printf '%s' "$given"
}

cmd_backup() {
  local encrypt="" file given
  if [ "${1:-}" = --encrypt ]; then encrypt=1; shift; fi
  file="${1:-$UVANTA_DATA/backups/$(date +%Y-%m-%d-%H%M%S).tar${encrypt:+.age}}"
  if [ -n "$encrypt" ]; then given="$(passphrase)"; fi
  if running; then need_build; attach_db; else prepare; fi
  if [ -n "$encrypt" ]; then
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
  local file="${1:-}" scratch began=$SECONDS
  [ -n "$file" ] || file="$(find "$UVANTA_DATA/backups" -name '*.tar*' -not -name '*.part' -printf '%T@ %p\n' 2>/dev/null | sort -n | tail -1 | cut -d' ' -f2-)"
  [ -f "$file" ] || die "there is no backup to try: ./uvanta backup"
  scratch="$(mktemp -d)"
  # shellcheck disable=SC2064
  trap "rm -rf '$scratch'" EXIT
  UVANTA_DATA="$scratch" UVANTA_DB_WANTED_PORT=4960 "$ROOT/uvanta" restore "$file" ||
    die "$file could not be restored."
  say "$file restores, in $((SECONDS - began)) s; it holds what is counted above."
}

cmd_restore() {
  local file="${1:-}" scratch archive kept key
  [ -f "$file" ] || die "name the backup file: ./uvanta restore FILE"
  running && die "stop Uvanta first (Ctrl-C where it runs), then restore."
  umask 077
  need_packages; need_build
  scratch="$(mktemp -d)"
  archive="$(opened "$file" "$scratch")"
  tar -tf "$archive" 2>/dev/null | grep -qx hash || die "$file is not a backup of Uvanta."
  tar -C "$scratch" -xf "$archive" database.sql.gz keys hash 2>/dev/null || die "$file is damaged; nothing was changed."
  rm -f "$scratch/plain.tar"
  [ -f "$scratch/keys/signing.json" ] || die "$file has no signing key; nothing was changed."
  prepare
  # Read in beside what is there, and compared, before anything is touched.
  read_in "$scratch/database.sql.gz" uvanta_restore || die "$file is damaged; nothing was changed."
  [ "$(dump uvanta_restore | hash_of)" = "$(cat "$scratch/hash")" ] ||
    die "$file does not hold what it says; nothing was changed."
  if [ ! -f "$UVANTA_DATA/restoring" ]; then
    kept="$UVANTA_DATA/backups/before-restore-$(date +%Y-%m-%d-%H%M%S).tar"
    write_backup "$kept"
    step "What was there is kept in $kept"
  fi
  # From here on a restore that is broken off is done again before anything else.
  printf '%s' "$file" >"$UVANTA_DATA/restoring"
  # A demo that was loaded in part is no reason any more to begin anew.
  rm -f "$SITES.loading"
  read_in "$scratch/database.sql.gz" uvanta
  sql -e 'DROP DATABASE uvanta_restore'
  for key in "${RECORD_KEYS[@]}"; do
    if [ -f "$scratch/keys/$key" ]; then cp -p "$scratch/keys/$key" "$UVANTA_DATA/keys/$key"; else rm -f "$UVANTA_DATA/keys/$key"; fi
  done
  rm -rf "$scratch"
  node server/dist/cli.js migrate
  node server/dist/cli.js verify-chain
  rm -f "$UVANTA_DATA/restoring"
  say "Restored from $file."
}
