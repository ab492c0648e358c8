# `make demo` and `make test` do all the set-up themselves; see README.md.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
STAMPS := .stamps
NPM := npm --prefix frontend
SOURCES := $(shell find frontend/src frontend/public -type f 2>/dev/null) frontend/index.html \
           $(wildcard frontend/vite*.config.ts) frontend/package-lock.json

# Where Python is told to keep no compiled modules, every worker, server and test process would
# compile all of them again.
export PYTHONDONTWRITEBYTECODE :=

.PHONY: demo serve dev build test soak check check-lint check-rest bench truth demo-clips screenshots wheel api lock clean

demo: $(STAMPS)/app $(STAMPS)/build
	$(BIN)/ridgewind demo $(ARGS)

serve: $(STAMPS)/app $(STAMPS)/build
	$(BIN)/ridgewind serve $(ARGS)

# The server and the front end, each reloading as its files change: open the address that is printed
# once, for its key, then http://127.0.0.1:5173
dev: $(STAMPS)/app $(STAMPS)/node
	$(BIN)/ridgewind demo & trap 'kill $$!' EXIT INT TERM; $(NPM) run dev

build: $(STAMPS)/build

# What fails beside two other tests is tried once more alone, and named: servers, browsers and
# renderers share two cores, and a wait that was too short says nothing of the code.
test: $(STAMPS)/dev $(STAMPS)/build $(STAMPS)/browser check
	$(BIN)/python -m pytest -n 3 --dist loadfile --no-loadscope-reorder $(ARGS) || { \
	  echo "Tried once more, alone:"; \
	  $(BIN)/python -m pytest -n 1 -rA --last-failed --last-failed-no-failures none $(ARGS); }

# Sweeps that look for rarities; run before storage, media, jobs or network change.
soak: $(STAMPS)/dev $(STAMPS)/build $(STAMPS)/browser
	$(BIN)/python -m pytest -n 2 --dist load -m soak $(ARGS)

# Two halves of about the same length, side by side.
check: $(STAMPS)/dev $(STAMPS)/node
	@$(MAKE) --no-print-directory -j2 check-lint check-rest

check-lint:
	$(NPM) run --silent lint

check-rest:
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/lint-imports --no-logo
	$(BIN)/mypy
	$(NPM) run --silent check
	$(NPM) run --silent test

bench: $(STAMPS)/dev
	$(BIN)/python bench/run.py $(ARGS)

# Film every hazard and measure it; the table is kept in docs/truth.md and docs/truth-live.md.
truth: $(STAMPS)/app
	$(BIN)/python scripts/truth.py
	$(BIN)/python scripts/truth_live.py

# Render the demo's clips again (about two minutes).
demo-clips: $(STAMPS)/app
	$(BIN)/python -m ridgewind.demo.story

screenshots: $(STAMPS)/dev $(STAMPS)/build $(STAMPS)/browser
	$(BIN)/python scripts/screenshots.py docs/screenshots

# A wheel and a source package with the built front end inside, in dist/.
wheel: $(STAMPS)/dev $(STAMPS)/build
	rm -rf dist build
	$(BIN)/python -m build --outdir dist > $(STAMPS)/wheel.log || { cat $(STAMPS)/wheel.log; exit 1; }
	rm -rf build
	@du -h dist/*

# The OpenAPI document, the TypeScript types made from it, and the table of addresses.
api: $(STAMPS)/app $(STAMPS)/node
	$(BIN)/python -m ridgewind.web.document frontend/openapi.json ridgewind/web/addresses.json
	$(NPM) run --silent api

# Pin the newest versions of everything; the files hold no addresses.
LOCK := pip-compile --quiet --strip-extras --generate-hashes --no-header --no-emit-index-url \
        --no-emit-trusted-host --no-emit-find-links --upgrade
lock:
	$(BIN)/pip install --quiet pip-tools
	$(BIN)/$(LOCK) -o requirements.lock pyproject.toml
	$(BIN)/$(LOCK) --extra dev -c requirements.lock -o requirements-dev.lock pyproject.toml

$(VENV)/bin/python:
	$(PYTHON) -m venv $(VENV)

$(STAMPS)/app: requirements.lock pyproject.toml | $(VENV)/bin/python
	@mkdir -p $(STAMPS)
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --editable .
	@touch $@

$(STAMPS)/dev: requirements-dev.lock $(STAMPS)/app
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements-dev.lock
	@touch $@

$(STAMPS)/node: frontend/package-lock.json frontend/package.json
	@mkdir -p $(STAMPS)
	@# Not `ci`: it refuses a lock that leaves out builds for other systems, as mirrors do.
	$(NPM) install --no-save --no-audit --no-fund --loglevel=error
	@touch $@

$(STAMPS)/build: $(STAMPS)/node $(SOURCES)
	$(NPM) run --silent build
	@touch $@

# What the tests run beside Python: a browser, and a broker.
$(STAMPS)/browser:
	@mkdir -p $(STAMPS)
	@test -x /usr/bin/chromium -a -x /usr/bin/redis-server || \
	  { apt-get update -qq && apt-get install -y -qq chromium redis-server; }
	@touch $@

clean:
	rm -rf $(STAMPS) $(VENV) frontend/node_modules ridgewind/web/static
