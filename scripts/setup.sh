# What ./start and ./check share: each function makes sure of one thing and says what takes long.

say() { printf '%s\n' "$*"; }

need_node() {
  command -v node >/dev/null || { say "Node.js is missing: install Node 20.19 or newer, then try again."; exit 1; }
  node -e 'const [a,b]=process.versions.node.split(".").map(Number); process.exit(a>20||(a===20&&b>=19)?0:1)' ||
    { say "Node $(node -v) is too old: 20.19 or newer is needed."; exit 1; }
}

# A digest of what a step depends on, kept beside its result, so that an unchanged step is not done again.
digest() { cat "$@" 2>/dev/null | node -e 'const h=require("crypto").createHash("sha256");process.stdin.on("data",d=>h.update(d)).on("end",()=>console.log(h.digest("hex")))'; }

need_packages() {
  local wanted; wanted="$(node -v) $(digest package.json package-lock.json)"
  if [ "$(cat node_modules/.installed 2>/dev/null)" != "$wanted" ] || ! node -e 'new (require("better-sqlite3"))(":memory:")' 2>/dev/null; then
    say "Installing packages. The database library may be compiled from source, which takes 2 to 3 minutes."
    # Not `npm ci`: it insists on lock entries for every other platform's binaries, which not every registry can give.
    npm install --no-save --no-progress --loglevel=error || { say "The packages could not be installed: see npm's message above."; exit 1; }
    # Where install scripts are held back, the one that is needed is run by name.
    if ! node -e 'new (require("better-sqlite3"))(":memory:")' 2>/dev/null; then
      say "Compiling the database library (2 to 3 minutes)."
      npm rebuild better-sqlite3 --ignore-scripts=false --loglevel=error
    fi
    printf '%s' "$wanted" > node_modules/.installed
  fi
}

need_build() {
  local wanted; wanted="$(git ls-files -co --exclude-standard app core db server workers public 'docs/*.md' scripts/serviceWorker.mjs '*.ts' '*.json' 2>/dev/null | sort | tr '\n' '\0' | xargs -0 cat 2>/dev/null | node -e 'const h=require("crypto").createHash("sha256");process.stdin.on("data",d=>h.update(d)).on("end",()=>console.log(h.digest("hex")))')"
  if [ ! -f build/serve.mjs ] || [ ! -f build/heron.mjs ] || [ "$(cat build/.built 2>/dev/null)" != "$wanted" ]; then
    say "Building."
    npm run --silent build >build.log 2>&1 || { tail -40 build.log; say "The build failed; the whole output is in build.log."; exit 1; }
    printf '%s' "$wanted" > build/.built
  fi
}

# The headless build of Debian's Chromium is a quarter faster than the whole one, which serves where it is missing.
need_chromium() {
  [ -x /usr/bin/chromium-headless-shell ] && return
  say "Installing Chromium for the browser tests."
  local as=""; [ "$(id -u)" = 0 ] || as="sudo"
  if $as apt-get update -qq && $as apt-get install -y -qq chromium-headless-shell >/dev/null; then return; fi
  [ -x /usr/bin/chromium ] || $as apt-get install -y -qq chromium >/dev/null ||
    { say "Chromium could not be installed: install the package 'chromium-headless-shell' or 'chromium' and try again."; exit 1; }
}
