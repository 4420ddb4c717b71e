#!/usr/bin/env bash
# screenshots.sh: one current picture of each main view into docs/screenshots,
# from demo data in a throwaway cluster.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
scripts/setup.sh test
GYROPHANE_STATE=$(mktemp -d "${TMPDIR:-/tmp}/gyrophane-shots.XXXXXX")
export GYROPHANE_STATE GYROPHANE_PGPORT=${GYROPHANE_TEST_PGPORT:-5644}
trap 'scripts/postgres.sh stop || true; rm -rf "$GYROPHANE_STATE"' EXIT
scripts/postgres.sh start
GYROPHANE_TEST_DATABASE_URL=$(scripts/postgres.sh url)
export GYROPHANE_TEST_DATABASE_URL GYROPHANE_SCREENSHOTS=$PWD/docs/screenshots
go test -count=1 -run TestScreenshots ./e2e
