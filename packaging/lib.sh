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

# Builds the fuzz targets with clang and runs each for some seconds on a copy of its corpus.
fuzz() {
  local seconds=$1 target corpus
  if [ ! -f build/fuzz/build.ninja ]; then
    cmake -S tests/fuzz -B build/fuzz -G Ninja -DCMAKE_CXX_COMPILER=clang++ >/dev/null || return 1
  fi
  say "Building build/fuzz"
  cmake --build build/fuzz -- --quiet >&2 || return 1
  for target in svg dxf mend; do
    say "Fuzzing: $target, $seconds s"
    corpus=$(mktemp -d)
    cp tests/fuzz/corpus/"$target"/* "$corpus"
    (cd "$corpus" && "$OLDPWD/build/fuzz/fuzz_$target" -max_total_time="$seconds" -timeout=20 -rss_limit_mb=2000 \
      -max_len=4000 -seed=1 "$corpus" >fuzz.log 2>&1) || { tail -n 30 "$corpus/fuzz.log" >&2; return 1; }
    rm -rf "$corpus"
  done
}
