# make demo: start with the sample scenario · make demo-fresh: the same, from the beginning · make test: every check
PYTHON ?= python3
BIN := .venv/bin
PORT ?= 8740
PAGE := $(shell find web/src web/public web/index.html web/vite.config.ts -type f 2>/dev/null)
CORE := $(shell find src/bluekettle/core -name '*.py' -o -path '*/data/*')

.PHONY: demo demo-fresh test lint types check-made pytest vitest bench contract mutants quick lock openapi clean

demo: .stamp/python .stamp/page .stamp/warm
	@$(BIN)/kettle serve --demo --port $(PORT)

demo-fresh: .stamp/python .stamp/page .stamp/warm
	@$(BIN)/kettle serve --demo --fresh --port $(PORT)

.stamp/python: requirements.lock pyproject.toml
	@mkdir -p .stamp
	@test -x $(BIN)/python || $(PYTHON) -m venv .venv || { echo "Python cannot make a venv. Run: sudo apt-get install python3-venv" >&2; exit 1; }
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	@touch $@

.stamp/npm: web/package-lock.json web/package.json
	@mkdir -p .stamp
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

.stamp/page: .stamp/npm $(PAGE)
	cd web && npm run --silent build
	@touch $@

# The compiled kernels go into their cache once, so that the first request is not the slow one.
.stamp/warm: .stamp/python $(CORE)
	$(BIN)/kettle warm-up
	@touch $@

test: lint types check-made pytest vitest
	@echo "all checks passed"

lint: .stamp/python .stamp/npm
	$(BIN)/ruff check src tests benchmarks
	$(BIN)/ruff format --check src tests benchmarks
	$(BIN)/lint-imports
	cd web && npx eslint . && npx prettier --check --log-level warn .

types: .stamp/python .stamp/npm
	$(BIN)/mypy
	cd web && npm run --silent types

# What is made from other files must be up to date.
check-made: .stamp/python .stamp/npm
	@mkdir -p .stamp/made
	$(BIN)/kettle check-data --sources .stamp/made/sources.md
	$(BIN)/kettle openapi .stamp/made/openapi.json
	cd web && npx openapi-typescript openapi.json --default-non-nullable false -o ../.stamp/made/schema.d.ts >/dev/null
	diff -q .stamp/made/sources.md docs/sources.md
	diff -q .stamp/made/openapi.json web/openapi.json
	diff -q .stamp/made/schema.d.ts web/src/api/schema.d.ts

openapi: .stamp/python .stamp/npm
	$(BIN)/kettle check-data --sources docs/sources.md
	$(BIN)/kettle openapi web/openapi.json
	cd web && npx openapi-typescript openapi.json --default-non-nullable false -o src/api/schema.d.ts

pytest: .stamp/python .stamp/page .stamp/warm
	@sh scripts/chromium.sh
	$(BIN)/pytest -n auto --dist worksteal

vitest: .stamp/npm
	cd web && npm run --silent test

bench: .stamp/python .stamp/warm
	$(BIN)/python benchmarks/bench.py

# Whether a test sees a change of the core: some 170 of them, about two hours.
mutants: .stamp/python .stamp/warm
	$(BIN)/python benchmarks/mutants.py

# What is worth running after every edit.
quick: .stamp/python .stamp/npm
	$(BIN)/ruff check src tests benchmarks
	$(BIN)/lint-imports >/dev/null
	$(BIN)/mypy
	cd web && npm run --silent types
	$(BIN)/pytest -n auto tests/core/test_goldens.py tests/core/test_amounts.py tests/core/test_progress.py

# The whole OpenAPI document, in every phase: about four minutes.
contract: .stamp/python .stamp/page .stamp/warm
	@sh scripts/contract.sh

lock:
	uv pip compile pyproject.toml --extra dev --generate-hashes --no-header -p 3.11 -q -o requirements.lock

clean:
	rm -rf .venv .stamp web/node_modules src/bluekettle/static
