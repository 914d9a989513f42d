#!/usr/bin/env bash
# Lines and branches that the tests reach; fails where a module of core, crypto or store is below 95 %.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
.venv/bin/python -m pytest -n 3 --dist worksteal --ignore=tests/e2e --ignore=tests/test_durability.py \
  --cov=newknot --cov-branch --cov-report=json:var/coverage.json --cov-report=
(cd web && npm run -s coverage)
exec .venv/bin/python scripts/coverage_floor.py var/coverage.json web/coverage/coverage-summary.json
