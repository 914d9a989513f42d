#!/usr/bin/env bash
# Every check, side by side: what computes fills the cores while what waits for browsers waits.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."

if [ $# -gt 0 ]; then exec .venv/bin/python -m pytest "$@"; fi

logs=$(mktemp -d)
trap 'rm -rf "$logs"' EXIT
names=() jobs=()
# beside NAME COMMAND…: in the background, its output kept until it is known to be of use.
beside() {
  local name=$1; shift
  ( "$@" ) > "$logs/$name" 2>&1 & jobs+=($!); names+=("$name")
}

current_schema() {
  .venv/bin/python -m newknot openapi > var/openapi.json
  web/node_modules/.bin/openapi-typescript var/openapi.json -o var/schema.d.ts >/dev/null 2>&1
  cmp -s var/schema.d.ts web/src/api/schema.d.ts || { echo "web/src/api/schema.d.ts is not current: ./run schema"; return 1; }
}

no_hosts() { ! grep -nE 'https?://' requirements/*.txt web/.npmrc web/package-lock.json; }

python_checks() {
  .venv/bin/ruff check . && .venv/bin/ruff format --check -q . && no_hosts && current_schema &&
    .venv/bin/python scripts/test_share.py && .venv/bin/mypy
}

web_checks() {
  cd web && npm run -s lint && node_modules/.bin/prettier --check --cache --cache-strategy content --log-level warn src test vite.config.ts &&
    npm run -s types && npm run -s test
}

beside web web_checks
beside python python_checks
# Journeys of a file, or of several, share a demo.
beside journeys .venv/bin/python -m pytest -n 2 --dist loadfile tests/e2e
failed=0
.venv/bin/python -m pytest -n 2 --dist worksteal --ignore=tests/e2e || failed=1
for at in "${!jobs[@]}"; do
  if wait "${jobs[$at]}"; then printf '%s: ok\n' "${names[$at]}"
  else printf '\n== %s failed\n' "${names[$at]}"; cat "$logs/${names[$at]}"; failed=1; fi
done
grep -hE "lines of code|passed|failed" "$logs/python" "$logs/journeys" || true
exit "$failed"
