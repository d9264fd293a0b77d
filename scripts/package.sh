# Makes packages for machines that have neither JDK nor Maven nor Node. Sourced by ./pasture.

# What the service needs of Java (jdeps over its class path, and what is looked up by name: EC keys, management, zip).
MODULES=java.base,java.compiler,java.desktop,java.instrument,java.logging,java.management,java.naming,java.net.http,java.prefs,java.scripting,java.security.jgss,java.sql,java.xml,jdk.crypto.ec,jdk.jfr,jdk.management,jdk.unsupported,jdk.zipfs

# $1: the folder for the packages
make_packages() {
  local out=$1 version arch stage root
  version=$(sed -n 's:.*<version>\(.*\)-SNAPSHOT</version>.*:\1:p' "$ROOT/pom.xml" | head -1)
  [ -z "${PASTURE_PACKAGE_VERSION:-}" ] || version=$PASTURE_PACKAGE_VERSION
  arch=$(dpkg --print-architecture 2>/dev/null || uname -m)
  stage=$(mktemp -d)
  # shellcheck disable=SC2064
  trap "rm -rf '$stage'" EXIT
  root="$stage/deb/usr/lib/open-pasture"
  mkdir -p "$root/scripts" "$root/service" "$root/client" "$out"
  say "Cutting a Java runtime to size ..."
  "$JAVA_HOME/bin/jlink" --add-modules "$MODULES" --strip-debug --no-man-pages --no-header-files --compress zip-6 --output "$root/jre"
  say "Gathering files ..."
  cp "$ROOT/pasture" "$ROOT/LICENSE" "$root/"
  cp "$ROOT/scripts/common.sh" "$root/scripts/"
  cp "$APP/service.jar" "$root/service/"
  cp -r "$APP/lib" "$root/service/lib"
  cp "$(ls "$ROOT"/client/target/client-*.jar | head -1)" "$root/client/client.jar"
  cp -r "$ROOT/client/target/lib" "$root/client/lib"
  only_this_machine "$root"
  echo "$version" >"$root/installed"

  say "Making open-pasture-$version-$arch.tar.gz ..."
  tar -C "$stage/deb/usr/lib" --owner=0 --group=0 --transform "s,^open-pasture,open-pasture-$version," -czf "$out/open-pasture-$version-$arch.tar.gz" open-pasture

  debian_files "$stage/deb" "$version" "$arch"
  say "Making open-pasture_${version}_$arch.deb ..."
  if command -v dpkg-deb >/dev/null; then
    dpkg-deb --root-owner-group -Zxz -z3 --build "$stage/deb" "$out/open-pasture_${version}_$arch.deb" >/dev/null
  else
    say "dpkg-deb is not here: no .deb is made"
  fi
  say "In $out:"
  (cd "$out" && ls -1sh open-pasture-"$version"-"$arch".tar.gz open-pasture_"$version"_"$arch".deb 2>/dev/null) >&2
}

# Libraries bring machine code for many systems; that of others is left out.
only_this_machine() {
  local jar
  for jar in "$1"/service/lib/rocksdbjni-*.jar; do
    [ -e "$jar" ] && remove_from "$jar" '^librocksdbjni-(?!linux64\.so$|linux-aarch64\.so$)'
  done
  for jar in "$1"/service/lib/sqlite-jdbc-*.jar; do
    [ -e "$jar" ] && remove_from "$jar" '^org/sqlite/native/(?!Linux/(x86_64|aarch64)/)'
  done
  for jar in "$1"/service/lib/jna-[0-9]*.jar; do
    [ -e "$jar" ] && remove_from "$jar" '^com/sun/jna/(?!linux-(x86-64|aarch64)/)[a-z0-9]+-[^/]+/'
  done
}

# $1: a jar, $2: what is left out of it, as a regular expression of Java
remove_from() {
  "$JAVA_HOME/bin/java" "$ROOT/scripts/WithoutEntries.java" "$1" "$2"
}

# Everything of the Debian package that is not the program. $1: its root, $2: version, $3: architecture
debian_files() {
  local deb=$1
  mkdir -p "$deb/DEBIAN" "$deb/usr/bin" "$deb/usr/share/man/man1" "$deb/usr/share/bash-completion/completions" \
    "$deb/usr/lib/systemd/system" "$deb/etc/open-pasture" "$deb/usr/share/doc/open-pasture"
  ln -s ../lib/open-pasture/pasture "$deb/usr/bin/pasture"
  "$JAVA_HOME/bin/java" -cp "$(client_classpath)" org.openpasture.client.ManPage | gzip -9n >"$deb/usr/share/man/man1/pasture.1.gz"
  "$JAVA_HOME/bin/java" -cp "$(client_classpath)" org.openpasture.client.Pasture generate-completion >"$deb/usr/share/bash-completion/completions/pasture"
  cp "$ROOT/LICENSE" "$deb/usr/share/doc/open-pasture/copyright"
  cat >"$deb/etc/open-pasture/options" <<'TEXT'
# Options of 'pasture serve', read when the service starts. See 'pasture serve --help'.
# For the whole network:  OPTIONS="--bind 0.0.0.0 --address https://this-machine:8470"
OPTIONS=""
TEXT
  echo /etc/open-pasture/options >"$deb/DEBIAN/conffiles"
  cat >"$deb/usr/lib/systemd/system/open-pasture.service" <<'TEXT'
[Unit]
Description=Open Pasture
Documentation=man:pasture(1)
After=network.target

[Service]
User=pasture
EnvironmentFile=-/etc/open-pasture/options
StateDirectory=open-pasture
StateDirectoryMode=0700
ExecStart=/usr/lib/open-pasture/pasture serve --data /var/lib/open-pasture $OPTIONS
Restart=on-failure
RestartSec=5
SuccessExitStatus=143
UMask=0077
NoNewPrivileges=yes
ProtectSystem=strict
ProtectHome=yes
PrivateTmp=yes
ProtectKernelTunables=yes
ProtectKernelModules=yes
ProtectKernelLogs=yes
ProtectControlGroups=yes
ProtectClock=yes
ProtectHostname=yes
RestrictSUIDSGID=yes
RestrictRealtime=yes
RestrictNamespaces=yes
LockPersonality=yes
RestrictAddressFamilies=AF_INET AF_INET6 AF_UNIX AF_NETLINK
CapabilityBoundingSet=
SystemCallArchitectures=native
# Serial lines.
SupplementaryGroups=dialout

[Install]
WantedBy=multi-user.target
TEXT
  cat >"$deb/DEBIAN/control" <<TEXT
Package: open-pasture
Version: $2
Architecture: $3
Maintainer: Open Pasture <open-pasture@localhost>
Section: misc
Priority: optional
Depends: adduser, libc6
Installed-Size: $(du -sk "$deb" | cut -f1)
Description: collects sensor readings, watches limits, notifies people
 Connects LoRa, radio and fieldbus sensors of machines, farms and remote sites,
 compares them with standard limits, and shares alerts and dashboards. Brings
 its own Java runtime.
TEXT
  cat >"$deb/DEBIAN/postinst" <<'TEXT'
#!/bin/sh
set -e
if [ "$1" = configure ]; then
  getent passwd pasture >/dev/null || adduser --system --group --home /var/lib/open-pasture --no-create-home --gecos "Open Pasture" pasture
  # A cache of loaded classes, by which the service starts in a third of the time; it goes on without.
  /usr/lib/open-pasture/pasture quick-start || true
  if [ -d /run/systemd/system ]; then
    systemctl daemon-reload
    systemctl enable open-pasture.service >/dev/null 2>&1 || true
    systemctl restart open-pasture.service || true
    echo "Open Pasture runs at http://127.0.0.1:8470. The one-time code for the first visit: journalctl -u open-pasture"
  fi
fi
TEXT
  cat >"$deb/DEBIAN/prerm" <<'TEXT'
#!/bin/sh
set -e
rm -f /usr/lib/open-pasture/service/*.aot
if [ -d /run/systemd/system ]; then
  systemctl stop open-pasture.service || true
  [ "$1" != remove ] || systemctl disable open-pasture.service >/dev/null 2>&1 || true
fi
TEXT
  cat >"$deb/DEBIAN/postrm" <<'TEXT'
#!/bin/sh
set -e
[ ! -d /run/systemd/system ] || systemctl daemon-reload || true
if [ "$1" = purge ]; then
  [ ! -d /var/lib/open-pasture ] || echo "The records stay in /var/lib/open-pasture; remove that folder yourself if nobody needs them."
fi
TEXT
  chmod 755 "$deb/DEBIAN/postinst" "$deb/DEBIAN/prerm" "$deb/DEBIAN/postrm"
}
