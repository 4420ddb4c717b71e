#!/usr/bin/env bash
# test.sh [quick]: everything that must hold, on a machine that may be new:
# linters, types, core, store and API tests against a real PostgreSQL, and the
# real interface in Chromium. A missing database or browser fails, it never
# skips. With quick, all but the browser, and fewer
# tries of what is tried often.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."

say() { printf '\n== %s\n' "$*"; }

say "set-up"
quick=${1:-}
scripts/setup.sh ${quick:-test}
scripts/ui.sh

# The tests have a cluster of their own, so that they never touch what a
# painter keeps in .gyrophane.
GYROPHANE_STATE=$(mktemp -d "${TMPDIR:-/tmp}/gyrophane-test.XXXXXX")
export GYROPHANE_STATE GYROPHANE_PGPORT=${GYROPHANE_TEST_PGPORT:-5644}
finish() {
  [ -z "${front:-}" ] || kill "$front" 2>/dev/null || true
  scripts/postgres.sh stop || true
  rm -rf "$GYROPHANE_STATE"
}
trap finish EXIT
scripts/postgres.sh start
scripts/postgres.sh volatile
GYROPHANE_TEST_DATABASE_URL=$(scripts/postgres.sh url)
export GYROPHANE_TEST_DATABASE_URL

# The front end is looked at while Go is, tests and all: what looks at it keeps
# one core busy.
( cd ui && npm run --silent types:check && npm run --silent format:check && npm run --silent typecheck && npm run --silent lint ) \
  > "$GYROPHANE_STATE/front.log" 2>&1 &
front=$!

say "Go: vet and staticcheck"
# Everything that git knows, and what it would add.
unformatted=$(git ls-files --cached --others --exclude-standard '*.go' | xargs gofmt -l)
[ -z "$unformatted" ] || { echo "not formatted by gofmt: $unformatted"; exit 1; }
go vet ./...
go tool staticcheck ./...
go vet -tags trouble ./trouble
go tool staticcheck -tags trouble ./trouble

say "types from Go"
{ go run ./cmd/gyrophane openapi | diff -u ui/src/api/openapi.json - &&
  go run ./cmd/gyrophane openapi --constants | diff -u ui/src/api/constants.json -; } ||
  { echo "the API's types have drifted from Go: run make types and commit"; exit 1; }

say "Go: tests"
go list ./... | grep -v '/e2e$' | xargs go test ${quick:+-short} -p "$(( $(nproc) + 1 ))" -count=1 -timeout 10m

say "front end: types, prettier, tsc, eslint"
looked=0
wait "$front" || looked=$?
front=
cat "$GYROPHANE_STATE/front.log"
[ "$looked" -eq 0 ] || exit 1

[ -z "$quick" ] || exit 0

# A browser mostly waits, so more of them go side by side than there are cores.
say "the interface, in Chromium"
go build -trimpath -o bin/gyrophane ./cmd/gyrophane
go test -count=1 -timeout 40m -parallel "$((2 * $(nproc)))" ./e2e
