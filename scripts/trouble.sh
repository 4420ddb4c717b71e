#!/usr/bin/env bash
# trouble.sh: a year of trouble in an afternoon, on loopback alone, in a throwaway cluster that writes to its disk as a real one
# does. Its figures stand in docs/reliability.md. What this machine has no rights for is said, and skipped. TROUBLE names the tests that
# are run (all), TROUBLE_MINUTES how long twenty painters are at work (10), FUZZTIME how long each parser is fed (5m; 0 for not at all).
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
scripts/setup.sh trouble
scripts/ui.sh
go build -trimpath -o bin/gyrophane ./cmd/gyrophane
GYROPHANE_STATE=$(mktemp -d "${TMPDIR:-/tmp}/gyrophane-trouble.XXXXXX")
export GYROPHANE_STATE GYROPHANE_PGPORT=${GYROPHANE_TEST_PGPORT:-5644}
trap 'scripts/postgres.sh stop || true; rm -rf "$GYROPHANE_STATE"' EXIT
scripts/postgres.sh start
GYROPHANE_TEST_DATABASE_URL=$(scripts/postgres.sh url)
export GYROPHANE_TEST_DATABASE_URL
go test -tags trouble -count=1 -timeout 60m -run "${TROUBLE:-.}" -v ./trouble | grep --line-buffered -E "acknowledged|painters|phones|routes|search|SKIP|Error|FAIL|panic|_test.go|^ok"
[ "${FUZZTIME:-5m}" = 0 ] || FUZZTIME=${FUZZTIME:-5m} scripts/fuzz.sh
