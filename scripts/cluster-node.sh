#!/usr/bin/env bash
# Starts a node of a running cluster again, after it died: cluster-node.sh N
set -euo pipefail
UVANTA_SOURCED=1 source "$(dirname "${BASH_SOURCE[0]}")/../uvanta"
transfer_programs
node_up "$1"
disown
