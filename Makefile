# Two commands for a fresh machine: `make demo` and `make test`. Both do all the set-up they need.
# Needs Python 3.11 or newer, Node 20 or newer, and make.

PYTHON ?= python3
BIN := .venv/bin
STAMPS := .make
PAGE := src/just_plane/web/page/index.html
PAGE_SOURCES := $(shell find frontend/src frontend/public -type f 2>/dev/null) frontend/index.html frontend/vite.config.ts
PORT ?=
# Tests at a time: as many as there are cores, 2 to 4.
WORKERS ?= $(shell n=$$(nproc 2>/dev/null || echo 2); echo $$((n < 2 ? 2 : n > 4 ? 4 : n)))

.PHONY: demo serve test build check python-tests page-tests browser-tests api lock bench rounds mutants screenshots wheel format clean

demo: $(STAMPS)/runtime $(PAGE) ## install, build, fill and serve the demo; prints its address
	$(BIN)/just-plane demo $(if $(PORT),--port $(PORT))

serve: $(STAMPS)/runtime $(PAGE) ## the same on your own shots
	$(BIN)/just-plane serve $(if $(PORT),--port $(PORT))

build: $(STAMPS)/runtime $(PAGE) ## install and build, start nothing

test: check page-tests python-tests browser-tests ## everything

# --- set-up: a stamp a step, made again when what it came from is newer -------------------------------------------

$(STAMPS)/venv:
	$(PYTHON) -c 'import sys; sys.exit("Python 3.11 or newer is needed, this is %s" % sys.version.split()[0] if sys.version_info < (3, 11) else 0)'
	$(PYTHON) -m venv .venv
	mkdir -p $(STAMPS) && touch $@

$(STAMPS)/runtime: $(STAMPS)/venv requirements.txt requirements-build.txt pyproject.toml
	$(BIN)/python -m pip install --quiet --require-hashes -r requirements.txt -r requirements-build.txt
	$(BIN)/python -m pip install --quiet --no-deps --no-build-isolation --no-index -e .
	touch $@

$(STAMPS)/dev: $(STAMPS)/runtime requirements-dev.txt
	$(BIN)/python -m pip install --quiet --require-hashes -r requirements-dev.txt
	touch $@

$(STAMPS)/node: frontend/package.json frontend/package-lock.json
	cd frontend && npm ci --no-audit --no-fund --loglevel=error
	mkdir -p $(STAMPS) && touch $@

$(PAGE): $(STAMPS)/node $(PAGE_SOURCES)
	cd frontend && npm run --silent build -- --logLevel warn
	touch $@

$(STAMPS)/chromium:
	tools/need-chromium
	mkdir -p $(STAMPS) && touch $@

# --- checks -------------------------------------------------------------------------------------------------------

check: $(STAMPS)/dev $(STAMPS)/node ## linters and types, both languages
	$(BIN)/ruff check src tests tools
	$(BIN)/ruff format --check src tests tools
	$(BIN)/mypy
	cd frontend && npm run --silent types && npm run --silent lint

page-tests: $(STAMPS)/node
	cd frontend && npm run --silent test

python-tests: $(STAMPS)/dev $(PAGE)
	$(BIN)/python -m pytest -m "not browser" -n $(WORKERS) --dist loadgroup

browser-tests: $(STAMPS)/dev $(STAMPS)/chromium $(PAGE)
	$(BIN)/python -m pytest -m browser tests/browser -n $(WORKERS) --reruns 1 -r R

# --- things made from others --------------------------------------------------------------------------------------

api: $(STAMPS)/dev $(STAMPS)/node ## the OpenAPI document, the shot file's schema, and the page's types from them
	$(BIN)/python -m just_plane.web.write_documents docs frontend/src/api/fields.json
	cd frontend && npm run --silent api

format: $(STAMPS)/dev $(STAMPS)/node
	$(BIN)/ruff check --fix src tests tools; $(BIN)/ruff format src tests tools
	cd frontend && npm run --silent format

bench: $(STAMPS)/dev $(STAMPS)/chromium $(PAGE) ## measure, print a table, keep it in docs/benchmarks.md
	$(BIN)/python tools/bench docs/benchmarks.md

rounds: $(STAMPS)/dev $(STAMPS)/chromium $(PAGE) ## every browser test N=20 times in a row while all cores are kept busy
	$(BIN)/python tools/rounds.py $(or $(N),20) $(WORKERS)

mutants: $(STAMPS)/dev ## change core and planning line by line, see what no test misses; ONLY='just_plane.core.stack*' for a part
	$(BIN)/mutmut run $(if $(ONLY),'$(ONLY)')
	$(BIN)/mutmut results

screenshots: $(STAMPS)/dev $(STAMPS)/chromium $(PAGE) ## docs/screenshots from the demo data
	$(BIN)/python tools/screenshots.py docs/screenshots

wheel: $(STAMPS)/runtime $(PAGE) ## dist/*.whl with the built page in it
	$(BIN)/python -m hatchling build -t wheel -d dist

lock: $(STAMPS)/venv ## the Python locks from requirements*.in, without addresses
	$(BIN)/python -m pip install --quiet uv
	for part in requirements requirements-build requirements-dev; do \
	  $(BIN)/uv pip compile --quiet --universal --generate-hashes --no-emit-index-url --no-emit-find-links \
	    --python-version 3.11 --custom-compile-command "make lock" -o $$part.txt $$part.in || exit 1; done

clean:
	rm -rf .venv $(STAMPS) dist frontend/node_modules src/just_plane/web/page
