#!/bin/sh
# Asked by the proxy before the database: whether a node takes statements, and has all data.
# haproxy gives PROXY_ADDRESS PROXY_PORT SERVER_ADDRESS SERVER_PORT.
export PATH="${PATH:-/usr/bin:/bin}:/usr/bin:/bin"
state="$(timeout 2 mariadb --no-defaults --host="$3" --port="$4" --user=uvanta_check --connect-timeout=1 -N \
  -e "SHOW STATUS WHERE Variable_name IN ('wsrep_ready', 'wsrep_local_state_comment')" 2>/dev/null | cut -f2 | sort | tr '\n' ' ')"
[ "$state" = "ON Synced " ]
