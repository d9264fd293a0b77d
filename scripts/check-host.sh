#!/usr/bin/env bash
# Drives ./pasture as the person at the machine does: serve with https, owner reset, the systemd unit, the demo and its end.
set -uo pipefail
ROOT=$(cd "$(dirname "$(readlink -f "$0")")/.." && pwd)
. "$ROOT/scripts/checking.sh"

fails_with() { local status=$1; shift; "$@" >"$WORK/out" 2>&1; [ $? -eq "$status" ]; }
lines() { [ "$(wc -l <"$WORK/out")" -le "$1" ]; }
nothing_left() { ! pgrep -f -- "$WORK/demo" >/dev/null; }
interrupted() { kill -INT -- "-$1"; ends "$1" 0; }
posts() { curl -sk -o "$WORK/answer" -w '%{http_code}' -H 'Content-Type: application/json' -d "$2" "$1"; }

echo "== ./pasture serve"
"$ROOT/pasture" serve --data "$WORK/data" --port "$PORT" --radio-port $((PORT + 1)) --station-port $((PORT + 4)) --mqtt-port $((PORT + 5)) --bind 127.0.0.1 --self-signed --mqtt-tls-port $((PORT + 6)) >"$WORK/serve.log" 2>&1 &
SERVE=$!
AT="https://127.0.0.1:$PORT"
that "it comes up with a certificate of its own" wait_for is_up "$AT"
that "the log prints the one-time code" wait_for says "$WORK/serve.log" "one-time code"
CODE=$(sed -n 's/.*one-time code \([A-Z0-9-]*\).*/\1/p' "$WORK/serve.log" | head -1)
that "the broker inside listens encrypted, with that certificate" wait_for sh -c "openssl s_client -connect 127.0.0.1:$((PORT + 6)) </dev/null 2>/dev/null | grep -q 'O = Open Pasture'"
that "a wrong code makes no owner" [ "$(posts "$AT/api/v1/setup" '{"code":"NOPE","name":"owner","password":"a long password"}')" = 400 ]
that "the code makes the owner" [ "$(posts "$AT/api/v1/setup" "{\"code\":\"$CODE\",\"name\":\"owner\",\"password\":\"a long password\"}")" = 200 ]
that "and works once" [ "$(posts "$AT/api/v1/setup" "{\"code\":\"$CODE\",\"name\":\"thief\",\"password\":\"a long password\"}")" = 409 ]
that "the console is served" sh -c "curl -sk $AT/now | grep -q '<div id=\"app\">'"
that "the data folder is its owner's alone" [ "$(stat -c %a "$WORK/data")" = 700 ]
RESET=$("$ROOT/pasture" owner reset --data "$WORK/data" | sed -n 's/One-time code: //p')
that "owner reset gives a code for a new password" [ "$(posts "$AT/api/v1/setup/recovery" "{\"code\":\"$RESET\",\"name\":\"owner\",\"password\":\"another long one\"}")" = 200 ]
that "a taken port is one line" fails_with 1 "$ROOT/pasture" serve --data "$WORK/other" --port "$PORT"
that "that names the port" says "$WORK/out" "port $PORT is taken; choose another with --port"
that "and nothing more" lines 1
that "it ends when it is asked to" ends "$SERVE" TERM

if command -v openssl >/dev/null; then
  openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes -days 2 -subj /CN=localhost -keyout "$WORK/key.pem" -out "$WORK/cert.pem" >/dev/null 2>&1
  "$ROOT/pasture" serve --data "$WORK/pem" --port "$PORT" --radio-port $((PORT + 1)) --station-port $((PORT + 4)) --mqtt-port $((PORT + 5)) --mqtt-tls-port $((PORT + 6)) --bind 127.0.0.1 --cert "$WORK/cert.pem" --key "$WORK/key.pem" --memory 128m >"$WORK/pem.log" 2>&1 &
  SERVE=$!
  that "it comes up with PEM files and a small heap" wait_for is_up "$AT"
  that "with that very certificate" sh -c "curl -sf --cacert '$WORK/cert.pem' --resolve localhost:$PORT:127.0.0.1 https://localhost:$PORT/actuator/health | grep -q UP"
  that "the broker inside too" wait_for sh -c "openssl s_client -connect 127.0.0.1:$((PORT + 6)) -CAfile '$WORK/cert.pem' -verify_return_error </dev/null 2>/dev/null | grep -q 'CN = localhost'"
  that "and ends" ends "$SERVE" TERM
fi

echo "== ./pasture, what is wrong and what it can do"
that "an unknown option of serve" fails_with 2 "$ROOT/pasture" serve --nonsense
that "is named" says "$WORK/out" "serve knows no option '--nonsense'"
that "a folder without records has no owner to reset" fails_with 1 "$ROOT/pasture" owner reset --data "$WORK"
that "the systemd unit is printed" fails_with 0 "$ROOT/pasture" service install --print --data /var/lib/pasture --port 9000
that "and starts this service" says "$WORK/out" "serve --data /var/lib/pasture --port 9000"
that "help reads well" fails_with 0 "$ROOT/pasture" --help
that "and names the host's commands" says "$WORK/out" "service install"

echo "== ./pasture demo"
# As a job of its own and with interrupts not ignored, so that it gets one as it does at a terminal: with all that it started.
set -m
env --default-signal=INT "$ROOT/pasture" demo --port "$PORT" --radio-port $((PORT + 1)) --station-port $((PORT + 4)) --mqtt-port $((PORT + 5)) --mail-port $((PORT + 2)) --mailbox-port $((PORT + 3)) --data "$WORK/demo" >"$WORK/demo.log" 2>&1 &
DEMO=$!
set +m
that "it prints the address" wait_for says "$WORK/demo.log" "Console    http://127.0.0.1:$PORT/"
that "and accounts with a password" says "$WORK/demo.log" "Password   harrow-"
that "the mailbox is there" wait_for sh -c "curl -s http://127.0.0.1:$((PORT + 3))/ | grep -q 'Stand-in mailbox'"
that "a second demo on its ports is refused in one line" fails_with 1 "$ROOT/pasture" demo --port "$PORT"
PASSWORD=$(cat "$WORK/demo/password")
export PASTURE_SIGN_IN="$WORK/sign-in.json"
that "the client signs in" env PASTURE_PASSWORD="$PASSWORD" "$ROOT/pasture" sign-in owner --at "http://127.0.0.1:$PORT"
that "a backup is made while the demo plays" fails_with 0 "$ROOT/pasture" backup now
BACKUP=$(sed -n 's/^Made \([^:]*\):.*/\1/p' "$WORK/out")
that "nobody puts it back under a running service" fails_with 1 "$ROOT/pasture" restore "$WORK/demo/backups/$BACKUP" --data "$WORK/demo"
that "and is told so" says "$WORK/out" "stop it first"
that "Ctrl-C ends it" interrupted "$DEMO"
that "and says so" says "$WORK/demo.log" "The demo has ended."
that "nothing of it is left" nothing_left

echo "== ./pasture restore"
head -c 4096 /dev/zero >"$WORK/zeros"
dd if="$WORK/zeros" of="$WORK/demo/telemetry.db" conv=notrunc 2>/dev/null
that "a damaged file is not replaced by an empty one" sh -c "! timeout 60 '$ROOT/pasture' serve --data '$WORK/demo' --port $PORT --radio-port $((PORT + 1)) --station-port $((PORT + 4)) --mqtt-port $((PORT + 5)) --bind 127.0.0.1 >'$WORK/damaged.log' 2>&1"
that "but named, with the way to the last backup" says "$WORK/damaged.log" "pasture restore BACKUP"
that "the backup is put in place" fails_with 0 "$ROOT/pasture" restore "$WORK/demo/backups/$BACKUP" --data "$WORK/demo"
that "after it was checked" says "$WORK/out" "was checked and is in place"
that "a folder that is no backup is refused" fails_with 1 "$ROOT/pasture" restore "$WORK" --data "$WORK/demo"
that "with the reason" says "$WORK/out" "it is no backup"
"$ROOT/pasture" serve --data "$WORK/demo" --port "$PORT" --radio-port $((PORT + 1)) --station-port $((PORT + 4)) --mqtt-port $((PORT + 5)) --bind 127.0.0.1 >"$WORK/again.log" 2>&1 &
SERVE=$!
that "the service comes up with it" wait_for is_up "http://127.0.0.1:$PORT"
that "and ends" ends "$SERVE" TERM

rm -rf "$WORK"
echo
echo "$PASSED passed, $FAILED failed"
[ "$FAILED" -eq 0 ]
