# Two commands: `make demo` to use Pleat, `make test` to check it. Both install what they need. CONTRIBUTING.md says what the others are for.
PYTHON ?= python3
PORT ?= 5180
VENV := .venv
BIN := $(VENV)/bin
SUITE := PYTHONDONTWRITEBYTECODE= $(BIN)/python -m pytest -n 2 --dist worksteal
LOCK := $(BIN)/uv pip compile --quiet --universal --python-version 3.11 --generate-hashes --no-annotate

.PHONY: demo test long-test lint types templates scripts declared suite screenshots glossary tables pins audit benchmark clean

demo: $(VENV)/.app
	@tools/system_packages.sh libcairo2:libcairo.so.2
	@$(BIN)/pleat serve --demo --database .demo/pleat.db --port $(PORT)

# Everything beside each other: a browser waits often enough for the linters and types to cost little. Each of them can fail it.
test: $(VENV)/.dev
	@tools/system_packages.sh libcairo2:libcairo.so.2 chromium-headless-shell:chromium-headless-shell poppler-utils:pdftoppm
	@$(MAKE) --no-print-directory --keep-going -j6 lint templates scripts declared types suite

long-test: $(VENV)/.dev
	@tools/system_packages.sh libcairo2:libcairo.so.2 chromium-headless-shell:chromium-headless-shell poppler-utils:pdftoppm
	PLEAT_SUITE=long $(SUITE)

lint:
	$(BIN)/ruff check src tests tools benchmarks
	$(BIN)/ruff format --check src tests tools benchmarks

types:
	$(BIN)/mypy

templates:
	$(BIN)/djlint --lint --quiet src/pleat/web/templates

# Our own scripts; the linter comes with the Python packages and needs nothing else.
scripts:
	$(BIN)/oxlint --quiet src/pleat/web/static/js

# What is imported against what is declared: by Pleat, and by its tests and tools.
declared:
	$(BIN)/deptry src
	$(BIN)/deptry src tests tools benchmarks --exclude '^$$' --ignore DEP004

suite:
	$(SUITE)

# Pictures of every main view from the demo data, into docs/screenshots.
screenshots: $(VENV)/.dev
	$(BIN)/python -m tools.screenshots

glossary tables: $(VENV)/.dev
	$(BIN)/python -m tools.$@

# What is installed, every version with its hashes, from what is declared.
pins: $(VENV)/.dev
	$(LOCK) -o requirements/app.lock requirements/app.txt
	$(LOCK) -o requirements/dev.lock requirements/app.txt requirements/dev.txt

# Asks the network: whether the locks follow from what is declared, and every package still has the hash it was pinned with.
audit: $(VENV)/.dev pins
	git diff --exit-code requirements
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --require-hashes --no-deps --ignore-installed --dry-run -r requirements/dev.lock
	$(BIN)/python -m pip check

# Speed and safety figures; run by hand, they take a few minutes.
benchmark: $(VENV)/.dev
	$(BIN)/python -m benchmarks.run

$(VENV)/.app: requirements/app.lock
	tools/environment.sh $(PYTHON) $(VENV) requirements/app.lock
	@touch $@

$(VENV)/.dev: requirements/dev.lock
	tools/environment.sh $(PYTHON) $(VENV) requirements/dev.lock
	@touch $(VENV)/.app $@

clean:
	rm -rf $(VENV) .demo .mypy_cache .ruff_cache .pytest_cache .hypothesis
