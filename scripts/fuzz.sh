#!/usr/bin/env bash
# fuzz.sh: every fuzz target in turn, FUZZTIME each (default 20s). What is found
# interesting is made smaller for a moment only: a minute of it looks like a
# target that stands still.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
log=$(mktemp)
trap 'rm -f "$log"' EXIT
find . -name '*_test.go' -not -path './ui/node_modules/*' -exec grep -lE '^func Fuzz' {} + | sort | while read -r file; do
  grep -oE '^func Fuzz[A-Za-z0-9]+' "$file" | cut -c6- | while read -r target; do
    echo "== $(dirname "$file") $target"
    # Go may end the time itself as a failure, without an input that fails: that is none.
    go test -run '^$' -fuzz "^$target\$" -fuzztime "${FUZZTIME:-20s}" -fuzzminimizetime 1s "./$(dirname "$file")" | tee "$log" ||
      { grep -q "context deadline exceeded" "$log" && ! grep -q "Failing input" "$log"; }
  done
done
