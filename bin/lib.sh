# Shared by bin/demo and bin/test: Node, packages and the built application.
cd "$(dirname "${BASH_SOURCE[0]}")/.." || exit 1
export ASTRO_TELEMETRY_DISABLED=1

need_node() {
  if ! command -v node >/dev/null 2>&1; then
    echo "Oculent needs Node.js 20.19 or later, and there is none here. Install it, then try again." >&2
    exit 1
  fi
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' || {
    echo "Oculent needs Node.js 20.19 or later; this is $(node --version)." >&2
    exit 1
  }
}

# Installs when there is nothing yet, or when the lock file has changed since.
need_packages() { # the directory that names them, here where nothing is said
  local installed=${1:-.}/node_modules/.package-lock.json
  if [ ! -f "$installed" ] || [ "${1:-.}/package-lock.json" -nt "$installed" ]; then
    echo "Installing packages…"
    npm ci --prefix "${1:-.}" --no-fund --no-audit --loglevel=error || exit 1
    touch "$installed"
  fi
}

# Builds when a source is newer than the last build.
need_build() {
  if [ ! -f dist/server/entry.mjs ] || [ -n "$(find src public package-lock.json astro.config.ts -newer dist/server/entry.mjs -print -quit)" ]; then
    echo "Building…"
    local log
    log=$(mktemp)
    npm run --silent build >"$log" 2>&1 || { cat "$log" >&2; rm -f "$log"; exit 1; }
    rm -f "$log"
    touch dist/server/entry.mjs
  fi
}
