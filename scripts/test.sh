#!/usr/bin/env bash
# Every check in order of cost; stops at the first that fails.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
step() { printf '\n== %s\n' "$1"; shift; "$@"; }

current_schema() {
  .venv/bin/python -m newknot openapi > var/openapi.json
  web/node_modules/.bin/openapi-typescript var/openapi.json -o var/schema.d.ts >/dev/null 2>&1
  cmp -s var/schema.d.ts web/src/api/schema.d.ts || { echo "web/src/api/schema.d.ts is not current: ./run schema"; return 1; }
}

no_hosts() {
  ! grep -nE 'https?://' requirements.txt web/.npmrc && ! grep -nE 'https?://' web/package-lock.json
}

in_web() { (cd web && "$@"); }

step "Python: lint and format" .venv/bin/ruff check .
.venv/bin/ruff format --check -q .
step "Python: types" .venv/bin/mypy
step "Lock files name no hosts" no_hosts
step "Types of the client are current" current_schema
step "Web: lint, format, types" in_web npm run -s lint
in_web npx prettier --check --log-level warn src vite.config.ts
in_web npm run -s types
step "Web: tests" in_web npm run -s test
step "Share of tests in the code" .venv/bin/python scripts/test_share.py
if [ $# -gt 0 ]; then
  step "Python and browser tests" .venv/bin/python -m pytest "$@"
  exit
fi
# Side by side: those with real browsers and killed servers wait much, the others compute.
others=$(mktemp)
trap 'rm -f "$others"' EXIT
nice -n 15 .venv/bin/python -m pytest tests --ignore=tests/e2e --ignore=tests/test_durability.py > "$others" 2>&1 &
step "Browser journeys and killed servers" .venv/bin/python -m pytest tests/e2e tests/test_durability.py || failed=1
step "Python tests" true
wait $! || failed=1
cat "$others"
exit "${failed:-0}"
