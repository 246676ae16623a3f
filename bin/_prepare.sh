# Shared beginning of the commands: the project's root, Node, the npm packages, the build. Sourced, never run.
set -eu
ROOT=$(cd "$(dirname "$0")/.." && pwd)
cd "$ROOT"
command -v node >/dev/null 2>&1 || { echo "Node 20 is needed and was not found. On Debian, install the package nodejs (20 or later)." >&2; exit 1; }
node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' || { echo "Node 20.19 or later is needed; this is $(node -v)." >&2; exit 1; }

# Buffers of megabytes go to and fro between threads. Left to itself, the C library keeps what was freed in pools of each thread: half as much memory again.
export MALLOC_ARENA_MAX=2 MALLOC_MMAP_THRESHOLD_=1048576 MALLOC_TRIM_THRESHOLD_=4194304

# Whether a step's inputs are as they were when it was last done.
stamp_is() { [ -f ".stamps/$1" ] && [ "$(cat ".stamps/$1")" = "$2" ]; }
stamp() { mkdir -p .stamps; printf '%s' "$2" > ".stamps/$1"; }
digest() { cat "$@" | sha256sum | cut -d' ' -f1; }

packages_ready() {
  lock=$(digest package-lock.json)
  if [ ! -d node_modules ] || ! stamp_is packages "$lock"; then
    echo "Installing npm packages …" >&2
    npm ci --no-audit --no-fund --loglevel=error >&2 || { echo "npm ci failed: is the package registry reachable?" >&2; exit 1; }
    stamp packages "$lock"
  fi
}

build_ready() {
  sources=$(find packages -path '*/node_modules' -prune -o -path '*/dist' -prune -o -type f ! -name '*.test.ts' -print0 | sort -z | xargs -0 cat tsconfig.base.json package-lock.json | sha256sum | cut -d' ' -f1)
  if [ ! -d packages/web/dist ] || [ ! -d packages/launch/dist ] || ! stamp_is build "$sources"; then
    echo "Building …" >&2
    npm run --silent build >&2 || { echo "The build failed." >&2; exit 1; }
    stamp build "$sources"
  fi
}
