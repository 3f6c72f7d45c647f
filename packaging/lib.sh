# Shared by ./run and ./test: installing, building, and a virtual display. Sourced from the top folder.

say() { printf '%s\n' "$*" >&2; }

packages() { grep -Ev '^[[:space:]]*(#|$)' packaging/debian-packages.txt; }

# Installs the packages of packaging/debian-packages.txt that are not there yet.
install_missing() {
  local missing
  missing=$(packages | while read -r name; do
    dpkg-query -W -f='${Status}' "$name" 2>/dev/null | grep -q 'install ok installed' || echo "$name"
  done)
  [ -n "$missing" ] || return 0
  local sudo=""
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null || { say "These packages are missing, and there is no sudo to install them:" $missing; return 1; }
    sudo=sudo
  fi
  say "Installing:" $missing
  $sudo apt-get update -qq
  $sudo env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing >/dev/null
}

# Configures (once) and builds a preset; quiet when there is nothing to do.
build() {
  local preset=$1
  if [ ! -f "build/$preset/build.ninja" ]; then
    say "Configuring build/$preset"
    mkdir -p "build/$preset"
    cmake --preset "$preset" >"build/$preset/configure.log" 2>&1 || { cat "build/$preset/configure.log" >&2; return 1; }
  fi
  say "Building build/$preset"
  cmake --build --preset "$preset" -- --quiet >&2
}

prepare_release() {
  install_missing
  build release
}

# Runs a program on a virtual display of its own.
xvfb() { xvfb-run -a -s "-screen 0 1280x800x24" "$@"; }
