# Every target sets up what it needs: a virtual environment of its own and, as root, Qt's system libraries.
PY := .venv/bin/python
STAMP := .venv/.ready

.PHONY: setup demo test lint bench checks faults mutants soak screenshots tables wheel clean
setup: $(STAMP)

# What is compiled is compiled again when its source or its types change.
TYPED := $(wildcard src/keelroom/core/*.pxd src/keelroom/core/*/*.pxd)
$(STAMP): requirements/dev.lock pyproject.toml tools/system_libraries.sh tools/compile_core.py $(TYPED) $(TYPED:.pxd=.py)
	@echo "Setting up, once, about a minute: 1 of 4, the system libraries Qt needs"
	@sh tools/system_libraries.sh
	@echo "2 of 4: a virtual environment of its own in .venv"
	@test -x $(PY) || python3 -m venv .venv
	@echo "3 of 4: the pinned packages (the longest step; nothing outside .venv is touched)"
	@$(PY) -m pip install -q --disable-pip-version-check --require-hashes -r requirements/dev.lock
	@$(PY) -m pip install -q --disable-pip-version-check --no-deps --no-build-isolation -e .
	@echo "4 of 4: compiling"
	@$(PY) tools/compile_core.py
	@$(PY) -m compileall -q src
	touch $@

demo: setup
	sh tools/with_display.sh $(PY) -m keelroom demo

test: setup
	$(PY) -m pytest

lint: setup
	$(PY) -m ruff check .
	$(PY) -m ruff format --check .
	$(PY) -m mypy
	.venv/bin/lint-imports --no-cache
	$(PY) tools/check_docs.py

bench: setup
	$(PY) -m compileall -q src
	sh tools/with_display.sh $(PY) -m pytest tests/perf -s --override-ini addopts=-q --benchmark-columns=median,mean,stddev,rounds

checks: setup
	$(PY) -m tests.reference.outside

faults: setup
	$(PY) -m tests.faults.run

mutants: setup
	QT_QPA_PLATFORM=offscreen $(PY) -m tests.mutants.run 200 12 85

soak: setup
	QT_QPA_PLATFORM=offscreen $(PY) -m tests.soak

screenshots: setup
	QT_QPA_PLATFORM=offscreen $(PY) tools/screenshots.py docs/screenshots

tables: setup
	$(PY) tools/make_fluid_tables.py
	$(PY) tools/make_refrigerant_tables.py

wheel: setup
	$(PY) -m build --no-isolation --wheel --outdir dist

clean:
	rm -rf .venv dist
