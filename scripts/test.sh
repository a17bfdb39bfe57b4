#!/usr/bin/env bash
# Every check and test, one after the other, each counted; ends with "N passed, N failed".
set -uo pipefail
cd "$(dirname "$(realpath "$0")")/.."
ROOT=$PWD
. scripts/lib.sh

scripts/pg.sh install || exit 1
(need_program ngspice ngspice) || exit 1
(need_chromium) || exit 1
(need_program pdftotext poppler-utils) || exit 1
(need_program python3 python3-minimal) || exit 1
(need_packages) || exit 1
work=$(mktemp -d); trap 'rm -rf "$work"' EXIT
passed=0 failed=0

step() { # NAME COMMAND...: one check, passed or failed by its exit code
  local name=$1; shift
  if "$@" >"$work/out" 2>&1; then passed=$((passed + 1)); echo "ok      $name"
  else failed=$((failed + 1)); echo "FAILED  $name"; tail -60 "$work/out"; fi
}
suite() { # NAME MOCHA-ARGUMENTS...: counted test by test
  local name=$1 code=0 counts; shift
  node_modules/.bin/mocha "$@" --reporter scripts/mocha-count.cjs --reporter-option "counts=$work/counts" || code=$?
  counts=$(cat "$work/counts" 2>/dev/null || echo "0 0"); rm -f "$work/counts"
  local p=${counts% *} f=${counts#* }
  # A run that ended badly without a failed test, or ran nothing, has failed.
  if [ "$f" = 0 ] && { [ "$code" != 0 ] || [ "$p" = 0 ]; }; then f=1; fi
  passed=$((passed + p)); failed=$((failed + f))
  echo "$([ "$f" = 0 ] && echo 'ok     ' || echo FAILED) $name: $p passed, $f failed"
}

step "types: svelte" npm run check -w web
step "types: core" node_modules/.bin/tsc -p core
step "types: core tests" node_modules/.bin/tsc -p core/test
step "types: tests of parts" node_modules/.bin/tsc -p web/unit-tests
step "types: interface tests" node_modules/.bin/tsc -p e2e
step "types: scripts" node_modules/.bin/tsc -p scripts
step "types: stand-ins" node_modules/.bin/tsc -p standins
step "lint" node_modules/.bin/eslint .
step "format" node_modules/.bin/prettier --check --log-level warn .
step "walls between the rooms" node_modules/.bin/depcruise core standins web/src web/unit-tests e2e scripts --config .dependency-cruiser.cjs
suite "core and parts" --config .mocharc.json --parallel --jobs "$(nproc)"
step "build" bash -c 'ROOT=$PWD; . scripts/lib.sh; need_build'
suite "interface" --config e2e/.mocharc.json

echo "$passed passed, $failed failed"
[ "$failed" = 0 ]
