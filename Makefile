# Frugal Heron. make demo and make test do everything on a fresh machine.

PORT ?= 8080
HOST ?= 127.0.0.1
export HERON_DATA ?= data
GO ?= go
UI_SOURCES := $(shell find ui/src ui/public ui/index.html ui/vite.config.ts ui/tsconfig.json ui/package-lock.json -type f 2>/dev/null)
GO_SOURCES := $(shell find cmd core store app web demo instruments -type f ! -path 'web/static/dist/*' 2>/dev/null) go.mod go.sum

.PHONY: demo demo-reset test test-share build lint bench measure-ui screenshots generate demo-needs test-needs toolchain

demo: demo-needs
	@$(MAKE) --no-print-directory build
	@exec bin/heron demo --host $(HOST) --port $(PORT)

demo-reset: demo-needs
	@$(MAKE) --no-print-directory build
	@exec bin/heron demo --host $(HOST) --port $(PORT) --reset

build: bin/heron

bin/heron: web/static/dist/index.html $(GO_SOURCES)
	$(GO) build -o $@ ./cmd/heron

web/static/dist/index.html: ui/node_modules/.ready $(UI_SOURCES)
	cd ui && npm run --silent build
	@touch $@

ui/node_modules/.ready: ui/package.json ui/package-lock.json | toolchain
	cd ui && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

# -p 2: each package with a database runs a server of its own.
test: test-needs
	@$(MAKE) --no-print-directory web/static/dist/index.html
	cd ui && npm run --silent test
	$(GO) test -p 2 -timeout 40m ./...

lint: ui/node_modules/.ready
	scripts/lint.sh

# Which part of the code is tests.
test-share:
	@scripts/test-share.sh

bench: test-needs
	@$(MAKE) --no-print-directory web/static/dist/index.html
	$(GO) test -run '^$$' -bench . -benchmem -timeout 40m ./core/... ./app/... ./web/...
	scripts/script-size.sh

# How the interface behaves in a browser, as a table; it fails where a view jumps while it loads.
measure-ui: test-needs
	@$(MAKE) --no-print-directory web/static/dist/index.html
	$(GO) run ./e2e/measure

screenshots: test-needs
	@$(MAKE) --no-print-directory web/static/dist/index.html
	$(GO) run ./e2e/screenshots

# The OpenAPI document and the client's types, both kept in the repository.
generate: ui/node_modules/.ready
	$(GO) run ./cmd/heron openapi > docs/openapi.json.new
	mv docs/openapi.json.new docs/openapi.json
	cd ui && npm run --silent generate

# What is missing is asked for at once, so that one sees the whole list.
demo-needs:
	@scripts/need.sh toolchain postgresql

test-needs:
	@scripts/need.sh toolchain postgresql chromium

toolchain:
	@scripts/need.sh toolchain
