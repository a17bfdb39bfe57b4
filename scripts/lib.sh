# Shared by bin/refectum and scripts/test.sh. Expects ROOT.
die() { echo "refectum: $*" >&2; exit 1; }
say() { echo "refectum: $*" >&2; }

need_node() {
  local version
  command -v node >/dev/null || die "Node.js is missing: install Node.js 20.19 or newer."
  version=$(node -p 'process.versions.node')
  node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)' ||
    die "Node.js $version is too old: install 20.19 or newer."
  command -v npm >/dev/null || die "npm is missing: install the npm that comes with Node.js."
}

need_disk() { # MB
  local free
  free=$(df -Pm "$ROOT" | awk 'NR==2 {print $4}')
  [ "$free" -ge "$1" ] || die "the disk is full: $free MB are free in $ROOT, $1 MB are needed."
}

# One installation or build at a time, whoever asks for it.
locked() {
  mkdir -p "$ROOT/.refectum"
  (flock 8; "$@") 8>"$ROOT/.refectum/lock"
}

need_packages() { locked install_packages; }
install_packages() {
  local stamp=$ROOT/node_modules/.refectum-stamp want
  want=$(sha256sum "$ROOT/package-lock.json" | cut -c1-64)
  [ "$(cat "$stamp" 2>/dev/null)" != "$want" ] || return 0
  need_disk 1200
  say "installing npm packages"
  npm ci --no-audit --no-fund --loglevel=error 8>&- >"$ROOT/.refectum/npm.log" 2>&1 ||
    { tail -5 "$ROOT/.refectum/npm.log" >&2; die "npm packages could not be installed: the lines above say why (all of it: .refectum/npm.log)."; }
  echo "$want" >"$stamp"
}

need_build() { locked build_web; }
build_web() {
  local stamp=$ROOT/web/build/.refectum-stamp want
  want=$(cd "$ROOT" && find core/src web/src web/static web/drizzle web/package.json web/*.ts web/*.js package-lock.json -type f -print0 2>/dev/null |
    sort -z | xargs -0 sha256sum | sha256sum | cut -c1-64)
  [ "$(cat "$stamp" 2>/dev/null)" != "$want" ] || return 0
  need_disk 300
  say "building the application"
  npm run build -w web 8>&- >"$ROOT/.refectum/build.log" 2>&1 ||
    { tail -20 "$ROOT/.refectum/build.log" >&2; die "the build failed: the lines above say why (all of it: .refectum/build.log)."; }
  echo "$want" >"$stamp"
}

need_program() { # PROGRAM PACKAGE
  command -v "$1" >/dev/null && return 0
  [ "$(id -u)" = 0 ] || die "$1 is missing. As root: apt-get install $2"
  say "installing $2"
  locked apt_install "$2"
  command -v "$1" >/dev/null || die "$1 is still missing after apt-get install $2."
}
apt_install() {
  { apt-get update -q && DEBIAN_FRONTEND=noninteractive apt-get install -q -y --no-install-recommends "$@"; } \
    8>&- >"$ROOT/.refectum/apt.log" 2>&1 ||
    { tail -5 "$ROOT/.refectum/apt.log" >&2; die "apt-get could not install $*: the lines above say why."; }
}
need_chromium() { need_program chromium chromium; }

# PostgreSQL refuses to run as root, and its own user must reach the folder.
home_dir() {
  if [ -n "${REFECTUM_HOME:-}" ]; then echo "$REFECTUM_HOME"
  elif [ "$(id -u)" != 0 ] || (cd / && runuser -u postgres -- test -x "$ROOT") 2>/dev/null; then echo "$ROOT/.refectum"
  else echo "/var/lib/refectum-$(echo "$ROOT" | sha256sum | cut -c1-8)"; fi
}

port_free() { node -e 'const s=require("net").createServer();s.on("error",()=>process.exit(1));s.listen(+process.argv[1],"127.0.0.1",()=>s.close())' "$1"; }
alive() { [ -s "$1" ] && kill -0 "$(cat "$1")" 2>/dev/null; }

# Runs a step so that a signal reaches us at once: in a process group of its own, waited for.
child=
attend() {
  set -m
  "$@" 7>&- &
  child=$!
  set +m
  wait "$child"
}

serve() { # demo|start
  local home url
  attend scripts/pg.sh install || exit 1
  home=$(home_dir)
  mkdir -p "$home"
  exec 7>"$home/instance.lock"
  flock -n 7 || already_running "$home"
  trap 'end_serving "$home"; exit 0' TERM INT HUP
  echo "$$" >"$home/launcher.pid"
  port_free "$PORT" || die "port $PORT is in use: end the program that has it, or give another with --port N."
  attend need_packages || exit 1
  attend need_build || exit 1
  [ -z "$RESET" ] || attend scripts/pg.sh destroy "$home/postgres"
  url=$(scripts/pg.sh start "$home/postgres" 7>&-) || exit 1
  export "${url?}"
  export PORT MIGRATIONS_DIR="$ROOT/web/drizzle"
  if [ "$1" = demo ]; then
    export REFECTUM_DEMO=1
    start_standins "$home"
  fi
  [ -z "$LAN" ] || export REFECTUM_LAN=1
  set -m
  node "$ROOT/web/serve.js" >"$home/server.log" 2>&1 7>&- &
  child=$!
  set +m
  if answers; then
    echo "$PORT" >"$home/server.port"
    echo "Refectum is running: http://127.0.0.1:$PORT/   (end with Ctrl-C or bin/refectum stop)"
    [ -z "$standins" ] || echo "  its simulated bench: http://127.0.0.1:$REFECTUM_STANDINS/"
    [ -z "$LAN" ] || node -e 'import(process.argv[1]).then((lan) => lan.lanAddresses().forEach((address) =>
      console.log(`  on the network: http://${address}:${process.env.PORT}/`)))' "$ROOT/web/lan.js"
    wait "$child" || true
  fi
  child=
  end_serving "$home"
  tail -5 "$home/server.log" >&2
  die "the application ended: the lines above say why (all of it: $home/server.log)."
}

# Simulated instruments beside the demo: their page, then seven ports. (Browsers refuse 4190, ten after the usual one.)
standins=
start_standins() { # HOME
  local first=$((PORT + 20)) port
  for port in $(seq "$first" $((first + 7))); do
    port_free "$port" || { say "port $port is in use: the demo goes on without simulated instruments"; return 0; }
  done
  export REFECTUM_STANDINS=$first
  set -m
  (cd "$ROOT" && exec node --import ./scripts/typescript.mjs standins/src/main.ts "$first") >"$1/standins.log" 2>&1 7>&- &
  standins=$!
  set +m
}

answers() {
  for _ in $(seq 300); do
    if node -e 'fetch(process.argv[1]).then(r=>process.exit(r.ok?0:1),()=>process.exit(1))' "http://127.0.0.1:$PORT/api/health"; then return 0; fi
    kill -0 "$child" 2>/dev/null || return 1
    sleep 0.2
  done
  return 1
}

end_serving() { # HOME
  trap '' TERM INT HUP
  rm -f "$1/server.port" "$1/launcher.pid"
  if [ -n "$child" ]; then
    kill -TERM -- "-$child" 2>/dev/null || true
    wait "$child" 2>/dev/null || true
  fi
  # What it leaned on ends after it.
  [ -z "$standins" ] || kill -TERM -- "-$standins" 2>/dev/null || true
  [ ! -d "$1/postgres" ] || scripts/pg.sh stop "$1/postgres" 7>&-
  [ -z "$standins" ] || wait "$standins" 2>/dev/null || true
}

already_running() { # HOME
  [ -z "$RESET" ] || die "running since before: end it with bin/refectum stop, then start anew with --reset."
  for _ in $(seq 600); do
    if [ -s "$1/server.port" ]; then
      echo "Refectum is already running: http://127.0.0.1:$(cat "$1/server.port")/"
      exit 0
    fi
    flock -n 7 && die "another start ended before it served: start again."
    sleep 0.5
  done
  die "another start is under way and does not come to an end: bin/refectum stop, then start again."
}

stop_all() {
  local home pid; home=$(home_dir)
  if alive "$home/launcher.pid"; then
    pid=$(cat "$home/launcher.pid")
    kill -TERM "$pid"
    for _ in $(seq 100); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
  elif [ -d "$home/postgres" ]; then
    scripts/pg.sh stop "$home/postgres"
  fi
  echo "Refectum is stopped."
}

# Runs a step with the database up; it is left as it was found.
with_database() { # HOME COMMAND...
  local home=$1 code=0; shift
  if scripts/pg.sh status "$home/postgres" >/dev/null; then "$@"; return; fi
  scripts/pg.sh start "$home/postgres" >/dev/null
  "$@" || code=$?
  scripts/pg.sh stop "$home/postgres"
  return "$code"
}

backup() { # FILE
  local home
  home=$(home_dir)
  [ -d "$home/postgres" ] || die "there is nothing to back up yet: start the application first."
  [ -d "$(dirname "$1")" ] || die "there is no folder $(dirname "$1")."
  with_database "$home" dump_to "$home" "$1" || die "the backup failed: nothing was written to $1."
  echo "Everything is in $1 ($(du -h "$1" | cut -f1)): customers' names too, so keep it where they are safe."
}
dump_to() { # HOME FILE
  (umask 077; scripts/pg.sh dump "$1/postgres" >"$2.part") && mv "$2.part" "$2" && return
  rm -f "$2.part"
  return 1
}

restore() { # FILE [--replace]
  local home
  [ -z "${2:-}" ] || [ "$2" = --replace ] || die "unknown option “$2”: see bin/refectum help"
  [ -r "$1" ] || die "there is no file $1."
  [ "$(head -c 5 "$1")" = PGDMP ] || die "$1 is no backup made by bin/refectum backup."
  home=$(home_dir)
  mkdir -p "$home"
  exec 7>"$home/instance.lock"
  flock -n 7 || die "the application is running: end it with bin/refectum stop, then restore."
  with_database "$home" load_from "$home" "$(realpath "$1")" "${2:-}"
}
load_from() { # HOME FILE [--replace]
  local jobs
  jobs=$(scripts/pg.sh psql "$1/postgres" -Atqc "select case when to_regclass('public.job') is null then 0 else (xpath('/row/n/text()', query_to_xml('select count(*) as n from public.job', false, true, '')))[1]::text::int end")
  if [ "$jobs" != 0 ]; then
    [ "${3:-}" = --replace ] || { say "the database holds $jobs jobs already: restore into an empty one, or give --replace."; return 1; }
    dump_to "$1" "$1/before-restore.dump" || { say "what is there could not be kept: nothing was changed."; return 1; }
    say "what was there is kept in $1/before-restore.dump"
  fi
  # PostgreSQL 15's own owner of the schema, so that a dump made later has nothing to say of it.
  scripts/pg.sh psql "$1/postgres" -qc 'set client_min_messages to warning' -c 'drop schema if exists drizzle cascade' \
    -c 'drop schema public cascade' -c 'create schema public authorization pg_database_owner' >/dev/null &&
    scripts/pg.sh load "$1/postgres" <"$2" || { say "the restore failed; the lines above say why."; return 1; }
  echo "Restored from $2."
}
