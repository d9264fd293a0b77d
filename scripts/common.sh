# Shared by ./pasture and ./check: where the tools are, how to build, how to say what is missing.

# The C library else keeps memory of its own for each thread.
export MALLOC_ARENA_MAX=2

# Where what runs lies: beside the sources after a build, or in the folder of a package.
APP="$ROOT/service/target/app"
INSTALLED=""
if [ -f "$ROOT/installed" ]; then
  INSTALLED=yes
  APP="$ROOT/service"
fi

fail() {
  echo "pasture: $*" >&2
  exit 1
}

say() {
  echo "== $*" >&2
}

# Finds a JDK 25 and exports JAVA_HOME.
use_jdk() {
  local candidate
  if [ -n "$INSTALLED" ]; then
    export JAVA_HOME="$ROOT/jre"
    return
  fi
  for candidate in "${JAVA_HOME:-}" /usr/lib/jvm/*25* /opt/*jdk*25* "$HOME"/.sdkman/candidates/java/25*; do
    if [ -x "$candidate/bin/javac" ] && "$candidate/bin/java" -version 2>&1 | grep -q 'version "25'; then
      export JAVA_HOME="$candidate"
      return
    fi
  done
  fail "no JDK 25 found; install one (a package such as temurin-25-jdk) or set JAVA_HOME to it"
}

need_build_tools() {
  command -v mvn >/dev/null || fail "Maven is missing; install the package maven"
  command -v node >/dev/null || fail "Node.js is missing; install Node 20 or newer"
  command -v npm >/dev/null || fail "npm is missing; install it with Node.js"
  local major
  major=$(node -p 'process.versions.node.split(".")[0]')
  [ "$major" -ge 20 ] || fail "Node.js $major is too old; install Node 20 or newer"
}

# Installs Debian packages that the tests need and that are not there: "program:package" or "/path:package" each.
need_for_tests() {
  local pair missing=() as_root=""
  for pair in "$@"; do
    [ -e "${pair%%:*}" ] || command -v "${pair%%:*}" >/dev/null || missing+=("${pair#*:}")
  done
  [ "${#missing[@]}" = 0 ] && return
  [ "$(id -u)" = 0 ] || as_root=sudo
  if command -v apt-get >/dev/null && { [ -z "$as_root" ] || command -v sudo >/dev/null; }; then
    say "Installing what the tests need: ${missing[*]} ..."
    $as_root apt-get update -qq >/dev/null && DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null \
      || fail "${missing[*]} could not be installed; install these packages and try again"
  fi
  for pair in "$@"; do
    [ -e "${pair%%:*}" ] || command -v "${pair%%:*}" >/dev/null || fail "${pair%%:*} is missing; install the package ${pair#*:}"
  done
}

# Whether a TCP port is free on loopback.
port_is_free() {
  ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null
}

# Builds what is asked with, if that was never done. A command never replaces what a running service was started from.
build_once() {
  [ -n "$INSTALLED" ] || [ -f "$APP/built" ] || build_if_needed
}

# Builds everything that runs, if a source is newer than the last build. Prints progress.
build_if_needed() {
  [ -z "$INSTALLED" ] || return 0
  local stamp="$APP/built" newer=""
  if [ -f "$stamp" ]; then
    newer=$(find "$ROOT"/{core,store,inlets,api,engine,service,client,simulator}/{src/main,pom.xml} "$ROOT"/console/{src,public,index.html,package-lock.json,pom.xml} \
      "$ROOT/pom.xml" -newer "$stamp" -type f ! -name "*.test.ts" -print -quit 2>/dev/null || true)
    [ -z "$newer" ] && return
  fi
  need_build_tools
  say "Building (a few minutes the first time) ..."
  local log="$ROOT/.pasture/build.log"
  mkdir -p "$ROOT/.pasture"
  (cd "$ROOT" && mvn -B -ntp -pl service,client,simulator -am -DskipTests package 2>&1) | tee "$log" \
    | grep --line-buffered -oE 'Building Open Pasture: [a-z]+ .*|BUILD FAILURE|ERROR.*' | sed -u 's/^Building/   /' >&2
  grep -q 'BUILD SUCCESS' "$log" || fail "the build failed; see $log"
  package_app
}

# Unpacks the service and keeps a cache of its loaded classes, by which it starts in a third of the time.
package_app() {
  mkdir -p "$ROOT/.pasture"
  say "Preparing a quick start ..."
  rm -rf "$APP"
  "$JAVA_HOME/bin/java" -Djarmode=tools -jar "$ROOT"/service/target/service-*-boot.jar extract --destination "$APP" >/dev/null
  mv "$APP"/service-*.jar "$APP/service.jar"
  train_quick_start "$ROOT/.pasture/training.log"
  echo "$(aot service) $(service_java_options)" >"$APP/service.options"
  touch "$APP/built"
}

# Makes the cache of loaded classes. It holds for the files where they lie now.
# $1: a log
train_quick_start() {
  local scratch
  scratch=$(mktemp -d)
  # shellcheck disable=SC2046
  "$JAVA_HOME/bin/java" -XX:AOTCacheOutput="$APP/service.aot" $(service_java_options) -Dspring.context.exit=onRefresh \
    -jar "$APP/service.jar" --pasture.data="$scratch" --server.port=0 >"$1" 2>&1 || true
  "$JAVA_HOME/bin/java" -XX:AOTCacheOutput="$APP/client.aot" -cp "$(client_classpath)" org.openpasture.client.Pasture places --help \
    >>"$1" 2>&1 || true
  rm -rf "$scratch"
}

client_classpath() {
  if [ -n "$INSTALLED" ]; then
    echo "$ROOT/client/client.jar:$ROOT/client/lib/*"
    return
  fi
  echo "$(ls "$ROOT"/client/target/client-*.jar | head -1):$ROOT/client/target/lib/*"
}

simulator_classpath() {
  echo "$(ls "$ROOT"/simulator/target/simulator-*.jar | head -1):$ROOT/simulator/target/lib/*"
}

# How the service's Java is run: a heap that is bounded and given back, one collector thread, no arenas for each thread.
# Out of memory it ends, so that it is started anew. The class cache is made with the same options.
# $1: most heap; without it what suits a farm of some thousand devices.
service_java_options() {
  local compilers=""
  # On a small box the second compiler's memory is worth more than its speed.
  case "${1:-}" in [1-9]|[1-9]m|[1-9][0-9]m|1[0-5][0-9]m) compilers="-XX:TieredStopAtLevel=1" ;; esac
  echo "$compilers -XX:+UseSerialGC -Xms24m -Xmx${1:-320m} -XX:NewSize=8m -XX:MaxNewSize=20m -XX:MinHeapFreeRatio=10 -XX:MaxHeapFreeRatio=20 -XX:-ShrinkHeapInSteps -XX:TrimNativeHeapInterval=30000" \
    "-XX:+UseCompactObjectHeaders -XX:ReservedCodeCacheSize=80m -XX:+UnlockDiagnosticVMOptions -XX:ArchiveRelocationMode=0 -Xss512k -XX:+ExitOnOutOfMemoryError --enable-native-access=ALL-UNNAMED"
}

aot() {
  [ -f "$APP/$1.aot" ] && echo "-XX:AOTCache=$APP/$1.aot -XX:AOTMode=auto -Xlog:aot*=off -Xlog:cds=off" || true
}
