#!/usr/bin/env bash
# trouble.sh: a year of trouble in some minutes, on loopback alone, in a throwaway cluster that writes to its disk as a real one
# does. Its figures stand in docs/reliability.md.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
scripts/setup.sh
scripts/ui.sh
go build -trimpath -o bin/gyrophane ./cmd/gyrophane
GYROPHANE_STATE=$(mktemp -d "${TMPDIR:-/tmp}/gyrophane-trouble.XXXXXX")
export GYROPHANE_STATE GYROPHANE_PGPORT=${GYROPHANE_TEST_PGPORT:-5644}
trap 'scripts/postgres.sh stop || true; rm -rf "$GYROPHANE_STATE"' EXIT
scripts/postgres.sh start
GYROPHANE_TEST_DATABASE_URL=$(scripts/postgres.sh url)
export GYROPHANE_TEST_DATABASE_URL
go test -tags trouble -count=1 -timeout 30m -v ./trouble | grep -E "acknowledged|Error|FAIL|panic|_test.go|^ok"
