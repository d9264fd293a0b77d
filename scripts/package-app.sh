#!/usr/bin/env bash
# Puts the built service where it is started from, with its quick start. Run by the build before tests that start it.
set -euo pipefail
ROOT=$(cd "$(dirname "$(readlink -f "$0")")/.." && pwd)
. "$ROOT/scripts/common.sh"

use_jdk
package_app
