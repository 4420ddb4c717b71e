# Two commands: make demo, make test. The rest serves them.
.PHONY: demo stop test test-quick setup ui build types lint fuzz bench load trouble screenshots

demo: build
	@scripts/app.sh start

stop:
	@scripts/app.sh stop
	@scripts/postgres.sh stop

# What is missing on this machine, installed (as root) or named.
setup:
	@scripts/setup.sh

build: setup ui
	go build -trimpath -o bin/gyrophane ./cmd/gyrophane

ui: setup
	@scripts/ui.sh

# The TypeScript types of the API and its constants, written from Go.
types: ui/node_modules/.package-lock.json
	go run ./cmd/gyrophane openapi > ui/src/api/openapi.json
	go run ./cmd/gyrophane openapi --constants > ui/src/api/constants.json
	cd ui && npm run --silent types

ui/node_modules/.package-lock.json: ui/package-lock.json
	@scripts/ui.sh install

test:
	@scripts/test.sh

# All but the browser.
test-quick:
	@scripts/test.sh quick

# Every fuzz target for a short while; the seeds run in make test.
fuzz:
	@scripts/fuzz.sh

bench:
	go test -run '^$$' -bench . -benchmem ./core/...

# Twenty clients on this machine for a few seconds; prints how long answers took.
load:
	@scripts/load.sh

# Applications and the database killed while they are written to; prints what was lost (nothing may be).
trouble:
	@scripts/trouble.sh

# One picture of each main view, from fresh demo data.
screenshots: build
	@scripts/screenshots.sh
