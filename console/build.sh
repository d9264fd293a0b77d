#!/usr/bin/env bash
# Installs what the console needs and builds it into dist/. Run by Maven; does nothing while no source is newer.
set -euo pipefail
cd "$(dirname "$0")"
if [ -f dist/index.html ] && [ -z "$(find src public index.html package-lock.json vite.config.ts describe.mjs ../docs/openapi.json ../docs/guide -newer dist/index.html -type f ! -name "*.test.ts" ! -name schema.ts -print -quit)" ]; then
  exit 0
fi
./install.sh
if [ -n "${DESCRIBING:-}" ]; then
  # The types are about to be made from what the service says, which it cannot say before it is built.
  npm run --silent describe
  npx vite build
else
  npm run build
fi
