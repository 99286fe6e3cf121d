# make demo   install what is missing, build, load the demo where nothing hangs yet, serve it
# make demo-fresh  the same, its story begun anew
# make run    the same with the maker's own data
# make test   install what is missing, lint, check types, build, run every test
# make long   the tests that take longer: every light, power cuts, full disks, large moves
# make bench  print the measured figures
# make trust  pull plugs, fill disks, ask by the thousand: what is lost, let in or answered wrongly
# make backup [TO=FILE]; make backup-check [FILE=ARCHIVE]; make restore FILE=ARCHIVE DATA=EMPTY-FOLDER
# make take-out FILE=ZIP; make take-in FILE=ZIP   everything as open files
# make mutants [MANY=60] [SEED=1]   put small faults in, one at a time: which does no test notice?
# make approve   what is told, shown and drawn was read and looked at: keep it as it is now
# make audit  ask the advisory sources about what ships
# make lock   pin the requirements anew, with their hashes

PORT ?= 8420
BIND ?= 127.0.0.1
DATA ?= data
DEMO_DATA ?= demo-data
MANY ?= 60
SEED ?= 1

PY := .venv/bin/python
STAMPS := build/stamps
WEB := $(shell find web/src docs/glossary -type f) web/index.html web/vite.config.ts

.PHONY: demo demo-fresh run test long bench trust lint check build install screenshots clean
.PHONY: approve mutants compiled backup backup-check restore take-out take-in audit lock
.DEFAULT_GOAL := demo

$(STAMPS):
	@mkdir -p $@

$(STAMPS)/run: requirements/run.txt | $(STAMPS)
	@python3 -c 'import venv, ensurepip' 2>/dev/null || tools/apt python3-venv
	@test -x $(PY) || python3 -m venv .venv
	@test -x .venv/bin/uv || .venv/bin/pip --quiet --disable-pip-version-check install uv==0.13.9
	.venv/bin/uv pip install --quiet --compile-bytecode --require-hashes --python $(PY) -r requirements/run.txt
	@touch $@

$(STAMPS)/dev: requirements/dev.txt $(STAMPS)/run
	.venv/bin/uv pip install --quiet --compile-bytecode --require-hashes --python $(PY) -r requirements/dev.txt
	@touch $@

$(STAMPS)/web: web/package-lock.json | $(STAMPS)
	cd web && npm ci --silent --no-audit --no-fund
	@touch $@

$(STAMPS)/browser: | $(STAMPS)
	@command -v chromium-headless-shell >/dev/null || tools/apt chromium-headless-shell \
		|| command -v chromium >/dev/null || tools/apt chromium
	@touch $@

$(STAMPS)/built: $(STAMPS)/web $(STAMPS)/run $(WEB)
	cd web && npm run --silent build -- --logLevel warn
	@PROUD_RAKE_DATA=build/none $(PY) manage.py collectstatic --noinput --clear --verbosity 0
	@touch $@

install: $(STAMPS)/dev $(STAMPS)/web $(STAMPS)/browser
build: $(STAMPS)/built

# Compiled once here, not at each start where the surroundings forbid Python to write byte-code.
compiled: $(STAMPS)/run
	@$(PY) -m compileall -q splay workshop

demo: build compiled
	@PATH="$(CURDIR)/.venv/bin:$$PATH" PROUD_RAKE_DEMO=1 PROUD_RAKE_BIND=$(BIND) \
		PROUD_RAKE_DATA=$(DEMO_DATA) $(PY) manage.py serve --port $(PORT) --migrate --load-demo

demo-fresh: build compiled
	@PROUD_RAKE_DEMO=1 PROUD_RAKE_DATA=$(DEMO_DATA) $(PY) manage.py migrate --verbosity 0
	@PROUD_RAKE_DEMO=1 PROUD_RAKE_DATA=$(DEMO_DATA) $(PY) manage.py demo
	@$(MAKE) --no-print-directory demo

run: build compiled
	@PATH="$(CURDIR)/.venv/bin:$$PATH" PROUD_RAKE_BIND=$(BIND) \
		PROUD_RAKE_DATA=$(DATA) $(PY) manage.py serve --port $(PORT) --migrate

lint: install
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/lint-imports
	.venv/bin/mypy
	$(PY) manage.py schemas --check
	$(PY) tools/licences.py --check
	cd web && npm run --silent lint && npm run --silent format:check && npm run --silent check

test: install lint build compiled
	cd web && npm run --silent test
	$(PY) manage.py test --settings workshop.test_settings --parallel 2 --noinput --exclude-tag long

long: install build compiled
	$(PY) manage.py test --settings workshop.test_settings --parallel 2 --noinput --tag long

bench: install build compiled
	$(PY) tools/bench.py

trust: install build compiled
	$(PY) tools/trust.py

approve: install
	$(PY) -m tests.approve
	APPROVE=1 $(PY) manage.py test tests.api.test_demo_answers --settings workshop.test_settings --noinput

mutants: install build compiled
	$(PY) tools/mutants.py $(MANY) $(SEED)

backup: $(STAMPS)/run
	@PROUD_RAKE_DATA=$(DATA) $(PY) manage.py backup $(TO)

backup-check: $(STAMPS)/run
	@PROUD_RAKE_DATA=$(DATA) $(PY) manage.py backup_check $(FILE)

restore: $(STAMPS)/run
	@PROUD_RAKE_DATA=$(DATA) $(PY) manage.py restore $(FILE)

take-out: $(STAMPS)/run
	@PROUD_RAKE_DATA=$(DATA) $(PY) manage.py take_out $(FILE)

take-in: $(STAMPS)/run
	@PROUD_RAKE_DATA=$(DATA) $(PY) manage.py take_in $(FILE)

audit: install
	$(PY) tools/audit.py

lock: $(STAMPS)/run
	for kind in run dev; do .venv/bin/uv pip compile --quiet --no-header --generate-hashes \
		requirements/$$kind.in -o requirements/$$kind.txt || exit 1; done

screenshots: install build
	$(PY) tools/screenshots.py

clean:
	rm -rf build web/dist
