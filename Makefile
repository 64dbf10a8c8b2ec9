# `make demo` and `make test` do everything a fresh machine needs; `make help` lists the rest.
PORT ?= 8077
RUN = .venv/bin

.PHONY: help setup setup-dev demo serve dev test check lint fmt trust mutants bench bench-lay shots api clean

help: ## what can be made
	@grep -E '^[a-z-]+:.*##' Makefile | sed -E 's/:.*## /\t/' | expand -t 14

setup: ## .venv with the package, the built pages, the compiled engine
	@tools/setup.sh

setup-dev:
	@tools/setup.sh dev

demo: setup ## serve the demo on 127.0.0.1 (PORT=N, 0 for any free one; RESET=1 starts it afresh)
	@$(RUN)/idle-selvage demo --port $(PORT) $(if $(RESET),--reset)

serve: setup ## serve your own projects on 127.0.0.1 (PORT=N)
	@$(RUN)/idle-selvage serve --port $(PORT)

dev: setup-dev ## the server and the pages' own server, which shows a change at once (http://127.0.0.1:5173/)
	@$(RUN)/idle-selvage serve --port 8077 & server=$$!; tools/node.sh npm --prefix web run -s dev; kill $$server

# two at a time, in an order that is another each time
PYTEST = $(RUN)/python -m pytest -n 2 --dist worksteal

test: setup-dev lint web-test ## everything: lint, types, contracts, and all tests, browser ones too
	@tools/chromium.sh
	$(PYTEST)

check: setup-dev lint web-test ## what is quick: lint, types, contracts, and the tests without a browser that take no time
	$(PYTEST) -m "not browser and not slow"

web-test: setup-dev
	@tools/node.sh npm --prefix web run -s test

lint: setup-dev ## ruff, mypy, import contracts, oxlint, tsc, lock files, drift of the API's types
	$(RUN)/ruff check .
	$(RUN)/ruff format --check .
	$(RUN)/mypy
	$(RUN)/lint-imports
	@tools/node.sh npm --prefix web run -s lint
	@tools/node.sh npm --prefix web run -s format -- --check
	@tools/node.sh npm --prefix web run -s types
	@tools/drift.sh

fmt: setup-dev ## write everything as it is to look: ruff, prettier
	$(RUN)/ruff check --fix .
	$(RUN)/ruff format .
	@tools/node.sh npm --prefix web run -s format -- --write

trust: setup-dev ## kills, spoilt requests, a sewing class: the long run (an hour and more), written to docs/trust.md
	$(RUN)/python -m benchmarks.trust --keep

mutants: setup-dev ## change the rules one at a time and list what no test notices (hours; SHARE=0.05 tries a twentieth)
	$(RUN)/python -m tools.mutants --share $(or $(SHARE),1)

bench: setup-dev ## what requests cost in time, queries and bytes; page load, first answers of the engine
	@tools/chromium.sh
	$(RUN)/python -m benchmarks.requests
	$(RUN)/python -m benchmarks.run
	$(RUN)/python -m benchmarks.hand
	$(RUN)/python -m benchmarks.match
	$(RUN)/python -m benchmarks.cut

bench-lay: setup-dev ## the lay engine against its targets and a general packer (about half an hour; KEEP=1 writes the baseline)
	$(RUN)/python -m benchmarks.lay $(if $(KEEP),--keep)

shots: setup-dev ## pictures of every main view into docs/screenshots
	@tools/chromium.sh
	$(RUN)/python -m tools.shots

api: setup-dev ## write docs/openapi.json and the client's types anew from the code
	$(RUN)/python -m idle_selvage.api.document > docs/openapi.json
	@tools/node.sh npm --prefix web run -s api

clean: ## take away everything that was made (never your data)
	rm -rf .venv .setup .mutants web/node_modules src/idle_selvage/web_dist
