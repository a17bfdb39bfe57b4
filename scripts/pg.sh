#!/usr/bin/env bash
# A private PostgreSQL cluster in one directory, for root or for an ordinary user.
#   pg.sh install                 installs the server with apt-get when its programs are missing (root only)
#   pg.sh start DIR [--test]      makes the cluster if need be, starts it, prints DATABASE_URL=...
#   pg.sh stop|status|destroy DIR
#   pg.sh psql DIR [args...]      psql as superuser on the application's database
#   pg.sh dump|load DIR           the application's database to standard output, or from standard input
# DIR holds data/ (the cluster), log/, port, password (application), superpass.
# --test switches fsync off: for tests only, never for data that matters.
set -euo pipefail
umask 022
DB=${REFECTUM_DB:-refectum}
DBUSER=${REFECTUM_DBUSER:-refectum}

die() { echo "pg.sh: $*" >&2; exit 1; }
bindir() {
  local d
  if [ -n "${PG_BINDIR:-}" ]; then echo "$PG_BINDIR"; return; fi
  for d in $(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -Vr); do
    if [ -x "$d/initdb" ] && [ -x "$d/postgres" ]; then echo "$d"; return; fi
  done
  return 1
}
ensure_installed() {
  bindir >/dev/null && return 0
  [ "$(id -u)" = 0 ] || die "PostgreSQL is missing. As root: apt-get install postgresql"
  # Else Debian's package makes and starts a cluster 'main' on port 5432.
  mkdir -p /etc/postgresql-common/createcluster.d
  echo 'create_main_cluster = false' >/etc/postgresql-common/createcluster.d/refectum.conf
  apt-get update -q >&2
  DEBIAN_FRONTEND=noninteractive apt-get install -q -y --no-install-recommends postgresql >&2
  bindir >/dev/null || die "PostgreSQL's programs are still missing after apt-get install"
}
owner() { if [ "$(id -u)" = 0 ]; then echo "${REFECTUM_PG_OSUSER:-postgres}"; else id -un; fi; }
# PostgreSQL refuses to run as root. 'cd /' because the owner may not enter the caller's folder.
as() { if [ "$(id -u)" = 0 ]; then (cd / && exec runuser -u "$(owner)" -- "$@"); else "$@"; fi; }
freeport() { node -e 'const s=require("net").createServer();s.listen(0,"127.0.0.1",()=>{console.log(s.address().port);s.close()})'; }
running() { as "$BIN/pg_ctl" -D "$DIR/data" status >/dev/null 2>&1; }
url() { echo "DATABASE_URL=postgres://$DBUSER:$(cat "$DIR/password")@127.0.0.1:$(cat "$DIR/port")/$DB"; }
secret() { # FILE: a random password in a file that only its owner (and root) reads
  [ -s "$1" ] && return
  (umask 077; head -c 18 /dev/urandom | base64 | tr '+/' '-_' >"$1")
  [ "$(id -u)" != 0 ] || chown "$(owner)" "$1"
}
sql() { PGPASSWORD=$(cat "$DIR/superpass") as "$BIN/psql" -X -h 127.0.0.1 -p "$(cat "$DIR/port")" -U postgres -v ON_ERROR_STOP=1 "$@"; }
app() { # PROGRAM ARGUMENTS...: as the application's own role
  local program=$1; shift
  PGPASSWORD=$(cat "$DIR/password") as "$BIN/$program" -h 127.0.0.1 -p "$(cat "$DIR/port")" -U "$DBUSER" "$@"
}

start() {
  local test=${1:-} d o; o=$(owner)
  mkdir -p "$DIR"
  exec 9>"$DIR/lock"; flock 9 # one start at a time
  for d in data log; do
    [ -d "$DIR/$d" ] || install -d -m 700 ${o:+$([ "$(id -u)" = 0 ] && echo "-o $o -g $(id -gn "$o")")} "$DIR/$d"
  done
  as test -w "$DIR/data" || die "user $o cannot write $DIR/data: each folder above must let it through (o+x), and data must belong to it"
  secret "$DIR/superpass"; secret "$DIR/password"
  if ! as test -s "$DIR/data/PG_VERSION"; then
    # C.UTF-8 is always present on Debian; the caller's locale may not be.
    as "$BIN/initdb" -D "$DIR/data" -U postgres -E UTF8 --locale=C.UTF-8 --data-checksums \
      --auth=scram-sha-256 --pwfile="$DIR/superpass" $([ "$test" != --test ] || echo --no-sync) \
      >"$DIR/initdb.log" 2>&1 || { cat "$DIR/initdb.log" >&2; die "initdb failed"; }
  fi
  local n port opts ok=
  # A server that was just killed may still look alive for a moment: wait until it answers or is gone.
  for n in $(seq 50); do
    if ! running; then break; fi
    if [ -s "$DIR/port" ] && "$BIN/pg_isready" -q -h 127.0.0.1 -p "$(cat "$DIR/port")"; then ok=1; break; fi
    sleep 0.2
  done
  for n in 1 2 3 4 5; do
    [ -z "$ok" ] || break
    port=${REFECTUM_PGPORT:-$(freeport)}
    opts="-c listen_addresses=127.0.0.1 -c port=$port -c unix_socket_directories=''"
    [ "$test" != --test ] || opts+=" -c fsync=off -c synchronous_commit=off -c full_page_writes=off"
    if as "$BIN/pg_ctl" -D "$DIR/data" -l "$DIR/log/postgres.log" -w -t 60 -o "$opts" start >"$DIR/ctl.log" 2>&1 9>&-; then
      echo "$port" >"$DIR/port"; ok=1
    fi
  done
  [ -n "$ok" ] || { cat "$DIR/ctl.log" >&2; as tail -20 "$DIR/log/postgres.log" >&2; die "the server did not start"; }
  sql -q -d postgres -v u="$DBUSER" -v d="$DB" -v p="$(cat "$DIR/password")" >/dev/null <<'SQL'
SELECT format('CREATE ROLE %I LOGIN PASSWORD %L', :'u', :'p') WHERE NOT EXISTS (SELECT FROM pg_roles WHERE rolname = :'u') \gexec
SELECT format('CREATE DATABASE %I OWNER %I', :'d', :'u') WHERE NOT EXISTS (SELECT FROM pg_database WHERE datname = :'d') \gexec
SQL
  url
}

cmd=${1:-}; shift || true
[ "$cmd" = install ] && { ensure_installed; exit; }
DIR=$(realpath -m "${1:?usage: pg.sh start|stop|status|destroy|psql DIR}"); shift
BIN=$(bindir) || { ensure_installed; BIN=$(bindir); }
case $cmd in
  start) start "$@" ;;
  stop)
    # A file of a server that was killed may be left: then it is none's, and nothing is to be stopped.
    if [ -s "$DIR/data/postmaster.pid" ] && ! as "$BIN/pg_ctl" -D "$DIR/data" -w -m fast stop >"$DIR/ctl.log" 2>&1; then
      if running; then cat "$DIR/ctl.log" >&2; die "the server did not stop"; fi
    fi ;;
  status) if running; then url; else echo stopped; exit 3; fi ;;
  destroy)
    if running; then as "$BIN/pg_ctl" -D "$DIR/data" -w -m immediate stop >/dev/null; fi
    if [ -f "$DIR/superpass" ]; then rm -rf "$DIR"; fi ;;
  psql) sql -d "$DB" "$@" ;;
  dump) app pg_dump --format=custom --no-owner "$DB" ;;
  load) app pg_restore --dbname="$DB" --no-owner --single-transaction --exit-on-error ;;
  *) die "start|stop|status|destroy|psql|dump|load DIR" ;;
esac
