# Ravska: everything is made from here. `make demo` and `make test` do all on a fresh machine.
.DEFAULT_GOAL := demo
SHELL := /bin/bash
export PYTHONPATH := core:server
export PIP_DISABLE_PIP_VERSION_CHECK := 1
# every command compiles this project's Python once, not each time anew
unexport PYTHONDONTWRITEBYTECODE

PY := .venv/bin/python
MANAGE := $(PY) server/manage.py
# called by Django, pytest and HTML parsers, not by name
CALLED := handle_*,pytest_*,add_arguments,Meta,*Config,same_origin,sealed,known_host,open_book,formatException,forget
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/package-lock.json

.PHONY: demo test units dev build migrate types fresh bench mutate reliability shots scale thermometer calibrate backup restore chromium lint clean

demo: .venv/.runtime build
	@exec $(MANAGE) serve --demo

# everything that must hold before a change lands
test:
	@$(MAKE) --no-print-directory -j2 --output-sync=target .venv/.checks lint build chromium units
	$(PY) -m pytest -n auto --dist worksteal

# the front end's own tests
units: web/node_modules/.locked
	cd web && npm run --silent test

lint: .venv/.checks web/node_modules/.locked
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/mypy
	.venv/bin/lint-imports
	.venv/bin/vulture core/ravska_core server tools --min-confidence 80 --exclude migrations
	@# of what no one calls only functions and classes: fields are read where JSON is written
	@! .venv/bin/vulture core/ravska_core server tools --min-confidence 60 --exclude migrations \
	  --ignore-decorators "@router.*,@api.*" --ignore-names "$(CALLED)" | grep -E "unused (function|class|method)"
	$(MANAGE) makemigrations --check --dry-run
	cd web && npm run --silent lint && npm run --silent check
	cd web && npx openapi-typescript src/api/openapi.json -o src/api/schema.d.ts --check

# hot reload: the page at 127.0.0.1:5173, the API behind it at 8000
dev: .venv/.runtime web/node_modules/.locked migrate
	@$(MANAGE) load_demo
	@trap 'kill 0' EXIT; RAVSKA_DEBUG=1 $(MANAGE) runserver 127.0.0.1:8000 & cd web && npm run --silent dev

build: web/dist/index.html

migrate: .venv/.runtime
	@$(MANAGE) migrate --verbosity 0

# after a change of the API: its document and the front end's types
types: .venv/.runtime web/node_modules/.locked
	$(PY) tools/openapi.py > web/src/api/openapi.json
	cd web && npm run --silent types

# after a migration: what a new book is made of
fresh: .venv/.runtime
	$(PY) tools/fresh.py > .fresh.sql && mv .fresh.sql server/book/fresh.sql

bench: .venv/.checks build chromium
	$(PY) tools/bench.py
	$(PY) tools/large_book.py

# turns lines round where numbers are decided and sees that a test fails; SUBJECTS, SEED and ALL=1 choose which
mutate: .venv/.checks web/node_modules/.locked
	$(PY) tools/mutate.py

shots: .venv/.checks build chromium
	$(PY) tools/shots.py

# kills, full disks, hostile imports, crowds: the figures of docs/reliability.md, in a quarter of an hour
reliability: .venv/.checks build chromium
	RAVSKA_EVERY_BOOK=1 $(PY) -m pytest tests/server/test_carry.py
	$(PY) tools/reliability.py

# a simulated kitchen scale beside a running Ravska; SCALE holds its options
scale: .venv/.runtime
	@exec $(MANAGE) scale $(SCALE)

# a simulated thermometer beside a running Ravska; THERMOMETER holds its options
thermometer: .venv/.runtime
	@exec $(MANAGE) thermometer $(THERMOMETER)

# how often forecasts of hidden cooks hold what they say: the tables of docs/calibration.md; COOKS and SEED choose others
calibrate: export OMP_NUM_THREADS := 1
calibrate: .venv/.runtime
	$(PY) tools/calibrate.py
	$(PY) tools/calibrate_verdicts.py

backup: .venv/.runtime
	@$(MANAGE) backup

# puts the newest whole backup in the book's place, or FROM=…; the server must have ended
restore: .venv/.runtime
	@$(MANAGE) restore $(FROM)

chromium:
	@command -v chromium >/dev/null || { \
	  as=$$([ "$$(id -u)" = 0 ] || echo sudo); \
	  $$as apt-get update -qq && DEBIAN_FRONTEND=noninteractive $$as apt-get install -y -qq --no-install-recommends chromium; }

.venv/bin/python:
	python3 -m venv .venv

.venv/.runtime: requirements.txt | .venv/bin/python
	.venv/bin/pip install --quiet --require-hashes -r requirements.txt
	@touch $@

.venv/.checks: requirements-dev.txt .venv/.runtime
	.venv/bin/pip install --quiet --require-hashes -r requirements-dev.txt
	@touch $@

web/node_modules/.locked: web/package-lock.json
	cd web && npm ci --silent --no-audit --no-fund
	@touch $@

web/dist/index.html: .venv/.runtime web/node_modules/.locked $(WEB_SOURCES)
	cd web && npm run --silent build -- --logLevel warn
	@# what was built of what is for the bench, and nobody's to fetch
	mv web/dist/.vite/manifest.json web/built.json && rmdir web/dist/.vite
	$(PY) -m whitenoise.compress --quiet web/dist
	@touch $@

clean:
	rm -rf .venv web/node_modules web/dist web/built.json
