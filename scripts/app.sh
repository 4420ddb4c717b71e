#!/usr/bin/env bash
# app.sh start|stop: the application, with demo data, in the background on
# loopback. Starting again replaces a running one by the present build.
set -euo pipefail

root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
state=${GYROPHANE_STATE:-$root/.gyrophane}

fail() { printf 'gyrophane: %s\n' "$*" >&2; exit 1; }

running() {
  local pid
  pid=$(cat "$state/app.pid" 2>/dev/null) || return 1
  [ -n "$pid" ] || return 1
  case "$(readlink "/proc/$pid/exe" 2>/dev/null)" in
    "$root/bin/gyrophane"*) return 0 ;;
    *) return 1 ;;
  esac
}

stop() {
  running || { rm -f "$state/app.pid"; return 0; }
  local pid
  pid=$(cat "$state/app.pid")
  kill -TERM "$pid"
  for _ in $(seq 100); do
    running || break
    sleep 0.1
  done
  if running; then kill -KILL "$pid"; fi
  rm -f "$state/app.pid"
}

start() {
  mkdir -p "$state"
  local url=${DATABASE_URL:-}
  if [ -z "$url" ]; then
    "$root/scripts/postgres.sh" start
    url=$("$root/scripts/postgres.sh" url)
  fi
  stop
  rm -f "$state/app.addr"
  local more
  read -ra more <<<"${GYROPHANE_FLAGS:-}"
  DATABASE_URL=$url setsid "$root/bin/gyrophane" serve --demo --with-meter --dumps "$state/dumps" --any-port --address-file "$state/app.addr" \
    --log-file "$state/app-log" ${GYROPHANE_LISTEN:+--listen "$GYROPHANE_LISTEN"} "${more[@]}" >"$state/app-said" 2>&1 </dev/null &
  # What was started is our own child: it lives for as long as kill -0 finds it,
  # also before it has become the program.
  local pid=$!
  echo "$pid" >"$state/app.pid"
  for _ in $(seq 600); do
    if [ -s "$state/app.addr" ]; then
      echo "Gyrophane is at $(cat "$state/app.addr")   (make stop ends it)"
      return 0
    fi
    kill -0 "$pid" 2>/dev/null || break
    sleep 0.1
  done
  for said in "$state/app-log" "$state/app-said"; do
    if [ -s "$said" ]; then tail -n 5 "$said" >&2; fi
  done
  fail "the application did not start; the lines above say why."
}

case "${1:-}" in
  start) start ;;
  stop) stop ;;
  *) fail "usage: scripts/app.sh start|stop" ;;
esac
