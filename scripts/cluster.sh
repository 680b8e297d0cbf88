# Three nodes of MariaDB Galera Cluster, a proxy before them, two processes of the application and a
# proxy before these, all on loopback; sourced by the launcher, whose functions it uses.

CLUSTER="$UVANTA_DATA/cluster"
CLUSTER_PORT="${UVANTA_CLUSTER_PORT:-4900}" # ports from here on are taken
NODES=(1 2 3)
declare -A PIDS=()

sql_port() { echo $((CLUSTER_PORT + $1)); }
group_port() { echo $((CLUSTER_PORT + 10 + $1)); }
DB_PROXY_PORT=$((CLUSTER_PORT + 40))
app_port() { echo $((CLUSTER_PORT + 50 + $1)); }
node_socket() { printf '/tmp/uvanta-%s-%s.sock' "$(printf '%s' "$CLUSTER" | sha256sum | cut -c1-12)" "$1"; }
on_node() { local n="$1"; shift; mariadb --no-defaults --socket="$(node_socket "$n")" "$@"; }
said_by() { on_node "$1" -N -e "SHOW STATUS LIKE '$2'" 2>/dev/null | cut -f2; }

CLUSTER_PROGRAMS=("haproxy haproxy" "/usr/lib/galera/libgalera_smm.so galera-4" "rsync rsync" "lsof lsof")

# The programs by which a node that was away gets all data from another; only they are taken from the package.
transfer_programs() {
  local home="$CLUSTER/programs"
  if [ ! -x "$home/usr/bin/wsrep_sst_rsync" ]; then
    mkdir -p "$home"
    (cd "$home" && apt-get download mariadb-server >/dev/null 2>&1 && dpkg -x mariadb-server_*.deb .) ||
      die "the package mariadb-server cannot be fetched; it is needed to run three nodes"
    # As root rsync would otherwise write as nobody, who may not.
    sed -i "s/^use chroot = no\$/&\nuid = $(id -u)\ngid = $(id -g)/" "$home/usr/bin/wsrep_sst_rsync"
  fi
  export PATH="$home/usr/bin:$PATH"
}

# place_of N : how far a node that is down has come in the cluster's order, as UUID:NUMBER, read off its data
place_of() {
  local home="$CLUSTER/node$1"
  [ -f "$home/data/grastate.dat" ] || return 0
  mariadbd --no-defaults "${AS_ROOT[@]}" --basedir=/usr --datadir="$home/data" --tmpdir="$home/tmp" \
    --innodb-use-native-aio=OFF --wsrep-on=ON --wsrep-provider=/usr/lib/galera/libgalera_smm.so --wsrep-cluster-address=gcomm:// \
    --wsrep-recover --skip-networking --binlog-format=ROW --socket="$home/recover.sock" --pid-file="$home/recover.pid" >"$home/recover.log" 2>&1 || true
  sed -n 's/.*Recovered position: *//p' "$home/recover.log" | tail -1
}

# newest : the node that has come furthest; whatever another one lacks it gets from there
newest() {
  local n number most=-1 best="${NODES[0]}"
  for n in "${NODES[@]}"; do
    number="$(place_of "$n")"; number="${number##*:}"
    if [ "${number:--1}" -gt "$most" ]; then most="$number"; best="$n"; fi
  done
  printf '%s' "$best"
}

# node_up N [OPTION...] : starts a node; the first one of all with --wsrep-new-cluster
node_up() {
  local n="$1" home="$CLUSTER/node$1" members=() m place=""; shift
  for m in "${NODES[@]}"; do members+=("127.0.0.1:$(group_port "$m")"); done
  # From its place on the rest is sent, not all of it.
  [ "$#" -gt 0 ] || place="$(place_of "$n")"
  setsid mariadbd --no-defaults "${AS_ROOT[@]}" --basedir=/usr --datadir="$home/data" --tmpdir="$home/tmp" \
    --bind-address=127.0.0.1 --port="$(sql_port "$n")" --socket="$(node_socket "$n")" --pid-file="$home/pid" \
    --log-error="$home/error.log" --init-file="$CLUSTER/init.sql" --skip-name-resolve --innodb-use-native-aio=OFF --character-set-server=utf8mb4 \
    --collation-server=utf8mb4_uca1400_ai_ci --default-time-zone=+00:00 --max-allowed-packet=64M \
    --innodb-ft-min-token-size=1 --innodb-ft-enable-stopword=0 \
    --binlog-format=ROW --innodb-autoinc-lock-mode=2 --log-bin-trust-function-creators=ON --wsrep-on=ON \
    --wsrep-provider=/usr/lib/galera/libgalera_smm.so --wsrep-cluster-name=uvanta \
    --wsrep-cluster-address="gcomm://$(IFS=,; echo "${members[*]}")" \
    --wsrep-node-name="node$n" --wsrep-node-address="127.0.0.1:$(group_port "$n")" \
    --wsrep-provider-options="gmcast.listen_addr=tcp://127.0.0.1:$(group_port "$n");ist.recv_addr=127.0.0.1:$((CLUSTER_PORT + 20 + n));gcache.size=128M;evs.suspect_timeout=PT3S;evs.inactive_timeout=PT6S;evs.inactive_check_period=PT0.5S" \
    --wsrep-sst-method=rsync --wsrep-sst-receive-address="127.0.0.1:$((CLUSTER_PORT + 30 + n))" \
    ${place:+--wsrep-start-position="$place"} "$@" </dev/null >>"$home/out.log" 2>&1 &
  PIDS[node$n]=$!
  printf '%s' "$!" >"$home/started.pid"
}

# synced N : within two minutes
synced() {
  local n
  for n in $(seq 1 240); do
    [ "$(said_by "$1" wsrep_local_state_comment)" = Synced ] && return 0
    kill -0 "${PIDS[node$1]}" 2>/dev/null || return 1
    sleep 0.5
  done
  return 1
}

app_process_up() { # N
  UVANTA_PORT="$(app_port "$1")" UVANTA_PUBLIC_URL="http://127.0.0.1:$WANTED_PORT" \
    setsid node --enable-source-maps server/dist/main.js >>"$CLUSTER/app$1.log" 2>&1 &
  PIDS[app$1]=$!
  printf '%s' "$!" >"$CLUSTER/app$1.pid"
}

# One node is written to; the next one is when it is gone. What is under way there is cut off, not left hanging.
proxy_settings() {
  local n
  cat <<CFG
global
  external-check
  insecure-fork-wanted

defaults
  timeout connect 2s
  timeout client 10m
  timeout server 10m

listen database
  mode tcp
  bind 127.0.0.1:$DB_PROXY_PORT
  option external-check
  external-check path "/usr/bin:/bin"
  external-check command $ROOT/deploy/node-ready.sh
  default-server inter 1s fall 2 rise 2 on-marked-down shutdown-sessions
$(for n in "${NODES[@]}"; do
    printf '  server node%s 127.0.0.1:%s check port %s%s\n' "$n" "$(sql_port "$n")" "$(sql_port "$n")" "$([ "$n" = 1 ] || echo ' backup')"
  done)

listen application
  mode http
  bind 127.0.0.1:$WANTED_PORT
  option forwardfor
  option httpchk GET /readyz
  option redispatch 1
  retries 2
  default-server inter 500ms fall 2 rise 1
$(for n in 1 2; do printf '  server app%s 127.0.0.1:%s check\n' "$n" "$(app_port "$n")"; done)
CFG
}

cluster_stop() {
  trap '' INT TERM
  local name
  for name in "${!PIDS[@]}"; do kill -TERM "${PIDS[$name]}" 2>/dev/null || true; done
  for name in "${!PIDS[@]}"; do wait "${PIDS[$name]}" 2>/dev/null || true; done
  rm -f "$UVANTA_DATA"/{running.pid,running.born}
}

cluster_up() {
  need_node; need_packages; need_build
  need_programs "${DATABASE_PROGRAMS[@]}" "${CLUSTER_PROGRAMS[@]}"
  one_at_a_time
  trap cluster_stop EXIT
  trap 'say; step "Stopping"; exit 0' INT TERM
  mkdir -p "$CLUSTER"
  transfer_programs
  UVANTA_DB_PASSWORD="$(secret db-password)"
  UVANTA_SESSION_SECRET="$(secret session)"
  UVANTA_DB_PORT="$DB_PROXY_PORT"
  export UVANTA_DB_PASSWORD UVANTA_SESSION_SECRET UVANTA_DB_PORT
  (umask 077; cat >"$CLUSTER/init.sql" <<SQL
CREATE DATABASE IF NOT EXISTS uvanta;
$(users)
CREATE USER IF NOT EXISTS 'uvanta_check'@'127.0.0.1';
SQL
  )
  local n
  for n in "${NODES[@]}"; do make_data "$CLUSTER/node$n"; done
  step "Starting three nodes"
  # Whoever has come furthest begins: begun with another one, what only it holds would be lost.
  local first
  first="$(newest)"
  if [ -f "$CLUSTER/node$first/data/grastate.dat" ]; then
    sed -i 's/^safe_to_bootstrap: .*/safe_to_bootstrap: 1/' "$CLUSTER/node$first/data/grastate.dat"
  fi
  node_up "$first" --wsrep-new-cluster
  synced "$first" || die "node $first did not start; see $CLUSTER/node$first/error.log"
  for n in "${NODES[@]}"; do
    if [ "$n" = "$first" ]; then continue; fi
    node_up "$n"; synced "$n" || die "node $n did not join; see $CLUSTER/node$n/error.log"
  done
  proxy_settings >"$CLUSTER/haproxy.cfg"
  haproxy -f "$CLUSTER/haproxy.cfg" >"$CLUSTER/haproxy.log" 2>&1 &
  PIDS[proxy]=$!
  sleep 2
  step "Bringing the schema up to date"
  as_owner node server/dist/cli.js migrate
  step "Starting two processes of the application"
  for n in 1 2; do
    app_process_up "$n"
    for _ in $(seq 1 200); do answers "$(app_port "$n")" /readyz && break; sleep 0.2; done
  done
  for _ in $(seq 1 50); do answers "$WANTED_PORT" /readyz && break; sleep 0.2; done
}

# cmd_cluster [admin NAME]
cmd_cluster() {
  if [ "${1:-}" = admin ]; then
    [ -n "${2:-}" ] || die "name whom to sign in as: ./uvanta cluster admin NAME"
    running || die "start the cluster first: ./uvanta cluster"
    UVANTA_DB_PASSWORD="$(secret db-password)"; UVANTA_SESSION_SECRET="$(secret session)"
    UVANTA_DB_PORT="$DB_PROXY_PORT"
    export UVANTA_DB_PASSWORD UVANTA_SESSION_SECRET UVANTA_DB_PORT
    ask_admin "$2"
    return
  fi
  whole
  cluster_up
  say ""
  say "  Uvanta is at  http://127.0.0.1:$WANTED_PORT, on three nodes and two processes"
  say "  The first administrator, in another window:  ./uvanta cluster admin NAME"
  say "  Ctrl-C stops it."
  # What dies here stays dead: it is the others that go on, and whoever runs it who looks.
  wait "${PIDS[proxy]}" || true
}
