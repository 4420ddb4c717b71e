#!/usr/bin/env bash
# ui.sh [install]: installs the front end's packages when the lock file has
# changed, and builds the front end when a source is newer than the build.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/../ui"

mark=node_modules/.package-lock.json
if [ ! -e "$mark" ] || [ package-lock.json -nt "$mark" ]; then
  echo "gyrophane: installing the front end's packages"
  npm ci --silent --no-audit --no-fund </dev/null
  touch "$mark"
fi
[ "${1:-}" != install ] || exit 0

built=dist/index.html
if [ ! -e "$built" ] || [ -n "$(find src public index.html package-lock.json vite.config.ts tsconfig.json -newer "$built" -print -quit)" ]; then
  echo "gyrophane: building the front end"
  npm run --silent build </dev/null
fi
