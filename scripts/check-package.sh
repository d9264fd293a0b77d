#!/usr/bin/env bash
# Makes packages and uses them as on a machine without build tools: unpacked, started, fed, upgraded with its records, removed.
set -uo pipefail
ROOT=$(cd "$(dirname "$(readlink -f "$0")")/.." && pwd)
. "$ROOT/scripts/checking.sh"
AT="http://127.0.0.1:$PORT"

nothing_left() { ! pgrep -f -- "$WORK/.*/service.jar" >/dev/null; }
at_most_mb() { [ "$(du -sm "$1" | cut -f1)" -le "$2" ]; }
# Only what the package brings: no JDK, Maven or Node on the path.
bare() { env -i PATH=/usr/bin:/bin HOME="$WORK/home" TMPDIR="$WORK" "$@"; }
serve() {
  # The process itself, not a shell around it, so that it can be ended.
  (exec env -i PATH=/usr/bin:/bin HOME="$WORK/home" TMPDIR="$WORK" "$1/pasture" serve --data "$WORK/data" --port "$PORT" --radio-port $((PORT + 1)) --station-port $((PORT + 2)) --mqtt-port $((PORT + 3)) >"$WORK/serve.log" 2>&1) &
  SERVE=$!
}

mkdir -p "$WORK/home"
echo "== ./pasture package"
that "packages are made" "$ROOT/pasture" package --out "$WORK"
that "a second version too" env PASTURE_PACKAGE_VERSION=0.1.1 "$ROOT/pasture" package --out "$WORK"
DEB=$(ls "$WORK"/open-pasture_0.1.0_*.deb)
NEXT=$(ls "$WORK"/open-pasture_0.1.1_*.deb)
that "the .deb names its version" sh -c "dpkg-deb -f '$DEB' Version | grep -qx 0.1.0"
dpkg-deb -x "$DEB" "$WORK/one"
dpkg-deb -x "$NEXT" "$WORK/two"
ONE="$WORK/one/usr/lib/open-pasture"
TWO="$WORK/two/usr/lib/open-pasture"
that "it takes less than 180 MB" at_most_mb "$WORK/one" 180
that "its manual page has the commands" sh -c "zcat '$WORK/one/usr/share/man/man1/pasture.1.gz' | grep -q '^.SS points add'"
that "completion is there" says "$WORK/one/usr/share/bash-completion/completions/pasture" "complete"
that "the unit lets it write only its records" says "$WORK/one/usr/lib/systemd/system/open-pasture.service" "ProtectSystem=strict"
that "it makes its quick start where it lies" bare "$ONE/pasture" quick-start
that "with that it takes less than 340 MB" at_most_mb "$WORK/one" 340

echo "== installed, started, fed"
serve "$ONE"
that "it comes up" wait_for is_up "$AT"
CODE=$(sed -n 's/.*one-time code \([A-Z0-9-]*\).*/\1/p' "$WORK/serve.log" | head -1)
that "the code makes the owner" sh -c "curl -sf -o /dev/null -H 'Content-Type: application/json' -d '{\"code\":\"$CODE\",\"name\":\"owner\",\"password\":\"a long password\"}' $AT/api/v1/setup"
that "the console is served" sh -c "curl -s $AT/now | grep -q '<div id=\"app\">'"
that "its own command line signs in" env -i PATH=/usr/bin:/bin HOME="$WORK/home" PASTURE_PASSWORD="a long password" "$ONE/pasture" sign-in owner --at "$AT"
that "a place is made" bare "$ONE/pasture" places add-site Farm
that "a point is made" bare "$ONE/pasture" points add Barn --in Farm --quantity temperature --release
printf 'time,point,value\n%s,1,21.5\n' "$(date -u +%Y-%m-%dT%H:%M:00Z)" >"$WORK/readings.csv"
that "readings come in" bare "$ONE/pasture" readings import "$WORK/readings.csv"
that "what is not part of the package says so" sh -c "! env -i PATH=/usr/bin:/bin '$ONE/pasture' demo 2>'$WORK/err' && grep -q 'part of the sources' '$WORK/err'"
that "it ends when it is asked to" ends "$SERVE" TERM

echo "== upgraded with its records, and removed"
serve "$TWO"
that "the next version comes up" wait_for is_up "$AT"
that "and knows the reading" sh -c "env -i PATH=/usr/bin:/bin HOME='$WORK/home' '$TWO/pasture' points | grep -q '21.5'"
that "it ends" ends "$SERVE" TERM
rm -rf "$WORK/two"
serve "$ONE"
that "the version before comes up again with the same records" wait_for is_up "$AT"
that "it ends" ends "$SERVE" TERM
that "nothing of it runs any more" nothing_left

rm -rf "$WORK"
echo "== $PASSED ok, $FAILED failed"
[ "$FAILED" = 0 ]
