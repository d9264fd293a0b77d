#!/usr/bin/env bash
# Installs the console's packages as the lock file names them; does nothing while they are there.
set -euo pipefail
cd "$(dirname "$0")"
if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
  npm ci --no-progress
  touch node_modules/.package-lock.json
fi
