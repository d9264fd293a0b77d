#!/usr/bin/env bash
# Writes down what the service says of its API (docs/openapi.json), from which the console's types are made.
set -euo pipefail
ROOT=$(cd "$(dirname "$(readlink -f "$0")")/.." && pwd)
. "$ROOT/scripts/common.sh"
use_jdk
(cd "$ROOT" && DESCRIBING=yes mvn -B -ntp -q -pl acceptance -am -Dsurefire.failIfNoSpecifiedTests=false -Dtest=ApiDescriptionTest \
  -DskipByTheClock -Ddescribe=true test)
(cd "$ROOT/console" && npm run --silent describe)
# With types unchecked it is not to be kept.
rm -f "$ROOT/console/dist/index.html"
say "docs/openapi.json is written; look at what changed before you commit it."
