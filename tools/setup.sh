# What ./start and ./test share: each step is skipped when its result is there, says what it does, and says what to do
# when it fails. Sourced, not run.

cd "$(dirname "${BASH_SOURCE[0]}")/.."
ROOT=$PWD
LOGS=$ROOT/var/log
mkdir -p "$LOGS"

say() { printf '%s\n' "$*"; }

# step NAME ADVICE COMMAND...: runs quietly, shows the end of its log if it fails
step() {
  local name=$1 advice=$2 log
  shift 2
  log=$LOGS/$(printf '%s' "$name" | tr -c 'a-zA-Z0-9\n' '-').log
  say "$name ..."
  if ! "$@" >"$log" 2>&1 </dev/null; then
    tail -n 15 "$log" >&2
    say "Failed: $name. $advice (log: $log)" >&2
    exit 1
  fi
}

# able PYTHON: where it is, if it is new enough and can make an environment
able() {
  "$1" -c 'import ensurepip, os, sys; sys.version_info < (3, 11) and sys.exit(1); print(os.path.realpath(sys.executable))' 2>/dev/null
}

# the_python: what the environment is made of. Debian's own before another on the path: it is built with
# profile-guided optimisation, which one that was compiled on the spot often is not, and answers an edit sooner.
the_python() {
  able /usr/bin/python3 || able python3
}

need_packages() {
  local missing=()
  ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || command -v initdb >/dev/null || missing+=(postgresql-15)
  able /usr/bin/python3 >/dev/null || { [ "$(id -u)" != 0 ] && able python3 >/dev/null; } || missing+=(python3-venv)
  command -v nginx >/dev/null || [ -x /usr/sbin/nginx ] || missing+=(nginx-light)
  # what paper is set with
  python3 -c 'import ctypes.util as u, sys; sys.exit(not (u.find_library("pangoft2-1.0") and u.find_library("harfbuzz-subset")))' ||
    missing+=(libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0 fonts-dejavu-core)
  if [ "${1:-}" = browser ]; then
    command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null || missing+=(chromium-headless-shell)
  fi
  [ ${#missing[@]} -eq 0 ] && return
  if [ "$(id -u)" != 0 ]; then
    say "Missing packages. Run this once, then try again: sudo apt-get install -y ${missing[*]}" >&2
    exit 1
  fi
  step "Reading the package lists" "Check the network." apt-get update
  # nginx is to run for us alone, not as a service of the machine
  DEBIAN_FRONTEND=noninteractive step "Installing ${missing[*]}" "Check the network, or install it by hand." \
    without_services apt-get install -y --no-install-recommends "${missing[@]}"
}

# without_services COMMAND...: packages that it installs start nothing
without_services() {
  local policy=/usr/sbin/policy-rc.d code=0
  [ -e $policy ] && { "$@"; return; }
  printf '#!/bin/sh\nexit 101\n' >$policy
  chmod 755 $policy
  "$@" || code=$?
  rm -f $policy
  return $code
}

need_tools() {
  if ! python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null; then
    say "Python 3.11 or newer is needed (Debian 12 has it): apt-get install -y python3 python3-venv" >&2
    exit 1
  fi
  if ! node -e 'process.exit(Number(process.versions.node.split(".")[0]) < 20 ? 1 : 0)' 2>/dev/null || ! command -v npm >/dev/null; then
    say "Node 20 or newer with npm is needed." >&2
    exit 1
  fi
}

# python_packages FILE: hashed requirements into .venv
python_packages() {
  local want python
  python=$(the_python) || { say "No Python of 3.11 or newer that can make an environment. Is python3-venv installed?" >&2; exit 1; }
  want=$(cat "$1" pyproject.toml | sha256sum | cut -d' ' -f1)
  [ "$(readlink -f .venv/bin/python)" = "$python" ] || rm -f .venv/.installed # made of another one
  grep -qx "$want" .venv/.installed 2>/dev/null && return
  if [ ! -f .venv/.installed ]; then
    step "Making the Python environment" "Is python3-venv installed?" "$python" -m venv --clear .venv
    step "Installing uv" "Check the network." .venv/bin/python -m pip install --quiet uv==0.13.9
  fi
  VIRTUAL_ENV=$ROOT/.venv step "Installing Python packages" "Check the network." \
    .venv/bin/uv pip install --compile-bytecode --require-hashes -r "$1"
  VIRTUAL_ENV=$ROOT/.venv step "Installing Oblatus" "See the log." .venv/bin/uv pip install --no-deps -e .
  printf '%s\n' "$want" >>.venv/.installed
}

# byte_code: our own sources compiled once, as the packages are when they are installed: every process starts some seconds
# sooner, also where Python is told to write none itself
byte_code() {
  .venv/bin/python -m compileall -q src >/dev/null
}

# compile_kernels: once, beside other work: else whoever comes first waits for it. What was compiled from other sources goes.
compile_kernels() {
  local kept warm='from oblatus.usecases.warm_up import warm_up; warm_up()'
  kept=$(.venv/bin/python -c 'from oblatus.core._compiled import KEPT; print(KEPT)')
  [ -f "$kept/.compiled" ] && return
  find "$(dirname "$kept")" -maxdepth 1 -name 'kernels-*' -not -path "$kept" -exec rm -rf {} +
  step "Compiling the kernels (once, two minutes)" "See the log." .venv/bin/python -c "$warm"
  touch "$kept/.compiled"
}

node_packages() {
  local want
  want=$(sha256sum frontend/package-lock.json | cut -d' ' -f1)
  [ "$(cat frontend/node_modules/.installed 2>/dev/null)" = "$want" ] && return
  step "Installing front-end packages" "Check the network." npm --prefix frontend ci --loglevel=error
  printf '%s' "$want" >frontend/node_modules/.installed
}

build_frontend() {
  local want
  want=$(cd frontend && find src public index.html phone.html vite.config.ts package-lock.json ../src/oblatus/formats/print/fonts -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
  [ "$(cat frontend/dist/.built 2>/dev/null)" = "$want" ] && return
  local room=$PWD/frontend/node_modules/.room  # what the maker of the service worker leaves goes with it
  rm -rf frontend/dist.new
  mkdir -p "$room"
  TMPDIR=$room step "Building the front end" "See the log." npm --prefix frontend run build --loglevel=error -- --outDir dist.new --emptyOutDir
  printf '%s' "$want" >frontend/dist.new/.built
  rm -rf frontend/dist "$room"
  mv frontend/dist.new frontend/dist
}
