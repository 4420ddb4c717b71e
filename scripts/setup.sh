#!/usr/bin/env bash
# setup.sh [test|trouble]: makes sure that what Gyrophane stands on is on this machine.
# Go and Node are expected; PostgreSQL (and, for the tests, Chromium and what looks
# into a PDF or computes from spectra) come from Debian. As root they are installed; anyone else is told what to ask for.
set -euo pipefail

fail() { printf 'gyrophane: %s\n' "$*" >&2; exit 1; }

command -v go >/dev/null || fail "Go is not installed (or not in PATH). Install Go 1.26 or newer, then run make again."
command -v node >/dev/null || fail "Node is not installed (or not in PATH). Install Node 20 or newer, then run make again."
command -v npm >/dev/null || fail "npm is not installed (or not in PATH). It comes with Node; install it, then run make again."

missing=()
compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null || missing+=(postgresql)
for tool in flock:util-linux setpriv:util-linux; do
  command -v "${tool%%:*}" >/dev/null || missing+=("${tool##*:}")
done
if [ "${1:-}" = test ]; then
  for tool in chromium-headless-shell:chromium-headless-shell qpdf:qpdf pdffonts:poppler-utils spec2cie:argyll; do
    command -v "${tool%%:*}" >/dev/null || missing+=("${tool##*:}")
  done
fi
if [ "${1:-}" = trouble ] && [ ! -x /usr/sbin/nginx ]; then missing+=(nginx-light); fi
[ ${#missing[@]} -gt 0 ] || exit 0

if [ "$(id -u)" -ne 0 ]; then
  fail "these Debian packages are needed and you may not install them: ${missing[*]}. Ask for: sudo apt-get install --no-install-recommends ${missing[*]}"
fi
echo "gyrophane: installing ${missing[*]}"
export DEBIAN_FRONTEND=noninteractive
# What is installed starts nothing by itself: servers run where a script of ours says so.
policy=/usr/sbin/policy-rc.d
if [ ! -e "$policy" ]; then
  printf '#!/bin/sh\nexit 101\n' > "$policy" && chmod +x "$policy"
  trap 'rm -f "$policy"' EXIT
fi
log=$(mktemp)
if ! { apt-get update && apt-get install -y --no-install-recommends "${missing[@]}"; } >"$log" 2>&1 </dev/null; then
  tail -n 20 "$log" >&2
  rm -f "$log"
  fail "could not install ${missing[*]}; the lines above say why."
fi
rm -f "$log"
