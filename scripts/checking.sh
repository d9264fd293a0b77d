# Shared by the scripts that drive ./pasture as a person does: what holds, what is waited for, what was counted.
WORK=$(mktemp -d)
PASSED=0
FAILED=0
PORT=$((20000 + RANDOM % 9000))

that() {
  local what=$1
  shift
  if "$@"; then
    PASSED=$((PASSED + 1))
    echo "   ok      $what"
  else
    FAILED=$((FAILED + 1))
    echo "   FAILED  $what"
  fi
}

# Waits until a command succeeds, two minutes at most.
wait_for() {
  local i
  for i in $(seq 240); do
    "$@" >/dev/null 2>&1 && return 0
    sleep 0.5
  done
  return 1
}

# $1: where the service is
is_up() { curl -sfk "$1/actuator/health" | grep -q UP; }
says() { grep -q -- "$2" "$1"; }
# Ends a process by a signal, and waits until it is gone.
ends() { kill -"$2" "$1" 2>/dev/null; local i; for i in $(seq 40); do kill -0 "$1" 2>/dev/null || return 0; sleep 0.5; done; return 1; }
