# Two commands: `make demo` to use Pleat, `make test` to check it. Both install what they need.
PYTHON ?= python3
PORT ?= 5180
VENV := .venv
BIN := $(VENV)/bin

.PHONY: demo test check screenshots benchmark clean

demo: $(VENV)/.app
	@tools/system_packages.sh libcairo2:libcairo.so.2
	@$(BIN)/pleat serve --demo --database .demo/pleat.db --port $(PORT)

test: $(VENV)/.dev
	@tools/system_packages.sh libcairo2:libcairo.so.2 chromium:chromium poppler-utils:pdftoppm
	$(BIN)/ruff check src tests tools benchmarks
	$(BIN)/ruff format --check src tests tools benchmarks
	$(BIN)/mypy
	$(BIN)/djlint --lint --quiet src/pleat/web/templates
	$(BIN)/python -m pytest -n 2 --dist worksteal

# Pictures of every main view from the demo data, into docs/screenshots.
screenshots: $(VENV)/.dev
	$(BIN)/python -m tools.screenshots

# Speed and safety figures; run by hand, they take a few minutes.
benchmark: $(VENV)/.dev
	$(BIN)/python -m benchmarks.run

$(VENV)/.app: requirements/app.txt requirements/pins.txt pyproject.toml
	tools/environment.sh $(PYTHON) $(VENV) requirements/app.txt
	@touch $@

$(VENV)/.dev: requirements/app.txt requirements/dev.txt requirements/pins.txt pyproject.toml
	tools/environment.sh $(PYTHON) $(VENV) requirements/dev.txt
	@touch $(VENV)/.app $@

clean:
	rm -rf $(VENV) .demo .mypy_cache .ruff_cache .pytest_cache .hypothesis
