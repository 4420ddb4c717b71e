#!/usr/bin/env bash
# postgres.sh start|stop|status|url|volatile: the project's own PostgreSQL cluster.
#
# Its data, password and port live in a folder of the project
# (GYROPHANE_STATE, default .gyrophane); it listens on loopback only. Works as
# root (the server then runs as the user postgres) and as an ordinary user;
# starting twice is the same as once, and a start after kill -9 recovers.
# volatile is for the throw-away clusters of tests alone: nothing in one has to
# survive the machine, so it does not wait for the disk.
set -euo pipefail

root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
state=${GYROPHANE_STATE:-$root/.gyrophane}
name=gyrophane
# Text sorts the same on every machine, and messages are in one language.
export LC_ALL=C.UTF-8

fail() { printf 'gyrophane: %s\n' "$*" >&2; exit 1; }

mkdir -p "$state"
chmod go-rwx,go+x "$state"
state=$(cd "$state" && pwd -P)
data=$state/postgres
log=$state/postgres-log

# A cluster is served by the version that made it; a new one by the newest.
version='*'
if [ -s "$data/PG_VERSION" ]; then version=$(cat "$data/PG_VERSION"); fi
bin=$(compgen -G "/usr/lib/postgresql/$version/bin/initdb" | sort -V | tail -n 1 | xargs -r dirname) || true
if [ -z "${bin:-}" ]; then
  [ "$version" = '*' ] || fail "$data was made by PostgreSQL $version, which is not installed; install postgresql-$version, or set GYROPHANE_STATE to another folder."
  fail "PostgreSQL is not installed; run make setup."
fi

# as_owner COMMAND...: runs a command as the user the server runs as. Root
# hands over to postgres, with the right to look through closed parent folders
# only where there are some.
as_owner() (
  cd /
  if [ "$(id -u)" -ne 0 ]; then
    exec "$@"
  fi
  local caps=()
  if ! setpriv --reuid=postgres --regid=postgres --init-groups -- test -x "$state"; then
    caps=(--inh-caps=+dac_read_search --ambient-caps=+dac_read_search)
  fi
  exec setpriv --reuid=postgres --regid=postgres --init-groups "${caps[@]}" -- "$@"
)

port_is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() {
  local p=${GYROPHANE_PGPORT:-5544}
  for _ in $(seq 200); do
    if port_is_free "$p"; then echo "$p"; return; fi
    p=$((p + 1))
  done
  fail "no free port for PostgreSQL from ${GYROPHANE_PGPORT:-5544} upward; set GYROPHANE_PGPORT."
}

# running: is the process named in the pid file alive and really ours?
running() {
  local pid stat_line
  pid=$(head -n 1 "$data/postmaster.pid" 2>/dev/null) || return 1
  [ -n "$pid" ] && [ -d "/proc/$pid" ] || return 1
  stat_line=$(sed -n 's/^State:[[:space:]]*\(.\).*/\1/p' "/proc/$pid/status" 2>/dev/null) || return 1
  [ "$stat_line" != Z ] || return 1
  [ "$(as_owner readlink "/proc/$pid/cwd" 2>/dev/null)" = "$data" ]
}

# A killed server may linger a second or two as a zombie; then its pid file is
# stale and would name a process that is not ours.
clear_stale_pid() {
  [ -e "$data/postmaster.pid" ] || return 0
  local pid
  pid=$(head -n 1 "$data/postmaster.pid")
  for _ in $(seq 50); do
    grep -q '^State:[[:space:]]*Z' "/proc/$pid/status" 2>/dev/null || break
    sleep 0.1
  done
  running || rm -f "$data/postmaster.pid"
}

# create makes a cluster beside the place where it will stand, so that what
# stands there is whole, whenever a first start was cut short.
create() {
  local pwfile new=$state/postgres-unfinished
  rm -rf "$new"
  mkdir -m 0700 "$new"
  ( umask 077; od -An -N24 -tx1 /dev/urandom | tr -d ' \n' >"$state/password" )
  pwfile=$(mktemp)
  cat "$state/password" >"$pwfile"
  if [ "$(id -u)" -eq 0 ]; then chown postgres:postgres "$new" "$pwfile"; fi
  as_owner "$bin/initdb" -D "$new" -U "$name" -A scram-sha-256 --pwfile="$pwfile" \
    -E UTF8 --locale=C.UTF-8 >"$log" 2>&1 </dev/null ||
    { tail -n 5 "$log" >&2; rm -rf "$pwfile" "$new"; fail "PostgreSQL could not set up its data folder; the lines above say why."; }
  rm -f "$pwfile"
  as_owner tee -a "$new/postgresql.conf" >/dev/null <<CONF
listen_addresses = '127.0.0.1'
unix_socket_directories = ''
max_connections = 200
CONF
  mv -T "$new" "$data"
}

# ensure_cluster makes a cluster where there is none. What stands there already
# is used or refused, and never deleted: it may be all that a painter has.
ensure_cluster() {
  if [ ! -e "$data" ] || { [ -d "$data" ] && [ -z "$(ls -A "$data")" ]; }; then
    if [ -d "$data" ]; then rmdir "$data"; fi
    create
  elif [ ! -s "$data/PG_VERSION" ] || [ ! -e "$data/global/pg_control" ]; then
    fail "$data is there but holds no whole PostgreSQL cluster, and was left as it is. Restore it, move it away, or set GYROPHANE_STATE to another folder."
  elif [ ! -s "$state/password" ]; then
    fail "$data holds a PostgreSQL cluster, but its password is missing, and it was left as it is. Restore $state/password beside it, move the folder away, or set GYROPHANE_STATE to another folder."
  fi
}

sql() {
  PGPASSWORD=$(cat "$state/password") PGCONNECT_TIMEOUT=5 \
    "$bin/psql" -qtAX -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$(cat "$state/port")" -U "$name" -d "$1" -c "$2" </dev/null
}

answers() { running && sql postgres 'select 1' >/dev/null 2>&1; }

launch() {
  local port
  clear_stale_pid
  port=$(cat "$state/port" 2>/dev/null || true)
  if [ -z "$port" ] || ! port_is_free "$port"; then port=$(free_port); fi
  echo "$port" >"$state/port"
  : >"$log"
  if [ "$(id -u)" -eq 0 ]; then chown postgres "$log"; fi
  as_owner "$bin/pg_ctl" -D "$data" -w -t 30 -l "$log" -o "-p $port" start >/dev/null 2>&1 </dev/null 9>&-
}

start() {
  exec 9>"$state/lock"
  flock -w 60 9 || fail "another start of PostgreSQL is still under way; try again in a minute."
  ensure_cluster
  # One that was killed a moment ago may still look alive, and what it started may
  # still hold its memory: a server runs when it answers.
  local tries=1
  if [ -e "$data/postmaster.pid" ]; then tries=60; fi
  while ! answers; do
    if ! running && launch; then break; fi
    tries=$((tries - 1))
    if [ "$tries" -eq 0 ]; then
      tail -n 5 "$log" >&2
      fail "PostgreSQL did not start; the lines above say why."
    fi
    sleep 0.5
  done
  [ "$(sql postgres "select 1 from pg_database where datname = '$name'")" = 1 ] || sql postgres "create database $name"
}

stop() {
  exec 9>"$state/lock"
  flock -w 60 9 || fail "a start of PostgreSQL is still under way; try again in a minute."
  running || return 0
  as_owner "$bin/pg_ctl" -D "$data" -w -t 30 -m fast stop >/dev/null 9>&- ||
    fail "PostgreSQL did not stop; see $log."
}

# Waits for the disk no more, which is quicker and loses everything in a crash: for
# tests alone.
volatile() {
  [ "$state" != "$root/.gyrophane" ] || fail "what is kept in $state has to survive: volatile is for the clusters of tests."
  local setting
  for setting in fsync synchronous_commit full_page_writes; do sql postgres "alter system set $setting = off"; done
  sql postgres "select pg_reload_conf()" >/dev/null
}

case "${1:-}" in
  start) start ;;
  volatile) volatile ;;
  stop) stop ;;
  status) if running; then echo running; else echo stopped; fi ;;
  url)
    [ -e "$state/port" ] || fail "PostgreSQL has not been started yet; run scripts/postgres.sh start."
    echo "postgres://$name:$(cat "$state/password")@127.0.0.1:$(cat "$state/port")/$name?sslmode=disable" ;;
  *) fail "usage: scripts/postgres.sh start|stop|status|url|volatile" ;;
esac
