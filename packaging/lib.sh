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

# Configures (once) and builds a preset, or only some targets of it; quiet when there is nothing to do.
build() {
  local preset=$1
  shift
  if [ ! -f "build/$preset/build.ninja" ]; then
    say "Configuring build/$preset"
    mkdir -p "build/$preset"
    cmake --preset "$preset" >"build/$preset/configure.log" 2>&1 || { cat "build/$preset/configure.log" >&2; return 1; }
  fi
  say "Building build/$preset"
  cmake --build --preset "$preset" ${1:+--target} "$@" -- --quiet >&2
}

# What ./run starts, and nothing else.
prepare_release() {
  install_missing
  build release snugrim snugrim-cli
}

prepare_benchmarks() {
  install_missing
  build release snugrim snugrim-cli snugrim-bench opencv-trace
}

# Runs a program on a virtual display of its own.
xvfb() { xvfb-run -a -s "-screen 0 1280x800x24" "$@"; }

# Runs each fuzz target for some seconds on a copy of its corpus.
fuzz() {
  local seconds=$1 target corpus
  for target in svg dxf mend; do
    say "Fuzzing: $target, $seconds s"
    corpus=$(mktemp -d)
    cp tests/fuzz/corpus/"$target"/* "$corpus"
    (cd "$corpus" && "$OLDPWD/build/sanitize/bin/fuzz_$target" -max_total_time="$seconds" -timeout=20 \
      -rss_limit_mb=2000 -max_len=4000 -seed=1 "$corpus" >fuzz.log 2>&1) || { tail -n 30 "$corpus/fuzz.log" >&2; return 1; }
    rm -rf "$corpus"
  done
}

# Runs the tests of a preset, all or those that further arguments of CTest choose, and keeps how long each took.
run_tests() {
  local preset=$1
  shift
  ctest --preset "$preset" -j2 --output-junit "$PWD/build/$preset/tests.xml" "$@"
}

# The ten tests that took longest, of all that were run.
slowest_tests() {
  say "The ten slowest tests:"
  grep -ho '<testcase name="[^"]*" classname="[^"]*" time="[^"]*"' build/*/tests.xml |
    sed -E 's/.*name="([^"]*)" classname.* time="([^"]*)"/\2 s  \1/' | sort -rn | head -n 10 >&2
}
