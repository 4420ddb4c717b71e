#!/usr/bin/env bash
# load.sh: a bounded load on the API from this machine, in a throwaway cluster.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
scripts/setup.sh
GYROPHANE_STATE=$(mktemp -d "${TMPDIR:-/tmp}/gyrophane-load.XXXXXX")
export GYROPHANE_STATE GYROPHANE_PGPORT=${GYROPHANE_TEST_PGPORT:-5644} GYROPHANE_LOAD=1
trap 'scripts/postgres.sh stop || true; rm -rf "$GYROPHANE_STATE"' EXIT
scripts/postgres.sh start
GYROPHANE_TEST_DATABASE_URL=$(scripts/postgres.sh url)
export GYROPHANE_TEST_DATABASE_URL
go test -count=1 -v -run TestLoad ./api | grep -E "requests|painters|FAIL|panic|^ok"
GYROPHANE_SITTINGS=50000 go test -count=1 -v -run ManySittings ./store | grep -E "sittings|FAIL|panic|^ok"
