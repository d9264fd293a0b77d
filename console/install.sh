#!/usr/bin/env bash
# Installs the packages of a folder, or of the console, as its lock file names them; does nothing while they are there.
set -euo pipefail
cd "${1:-$(dirname "$0")}"
if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
  npm ci --no-progress
  touch node_modules/.package-lock.json
fi
