#!/usr/bin/env bash
# Checks that need no database: form, layers, stale generated files.
set -euo pipefail
cd "$(dirname "$0")/.."

unformatted=$(git ls-files '*.go' | xargs gofmt -l)
if [ -n "$unformatted" ]; then
  printf 'not formatted by gofmt:\n%s\n' "$unformatted" >&2
  exit 1
fi
go vet ./...
go tool staticcheck ./...
go run ./scripts/layers
go mod tidy -diff >/dev/null || { echo 'go.mod is not tidy: run go mod tidy' >&2; exit 1; }

draft=$(mktemp -d)
trap 'rm -rf "$draft"' EXIT
go run ./cmd/heron openapi >"$draft/openapi.json"
cmp -s "$draft/openapi.json" docs/openapi.json || { echo 'docs/openapi.json is stale: run make generate' >&2; exit 1; }
(cd ui && npx --no-install openapi-typescript "$draft/openapi.json" --default-non-nullable=false -o "$draft/schema.gen.ts" >/dev/null)
cmp -s "$draft/schema.gen.ts" ui/src/api/schema.gen.ts || { echo 'ui/src/api/schema.gen.ts is stale: run make generate' >&2; exit 1; }

cd ui
npm run --silent typecheck
npm run --silent lint
echo 'lint: nothing to put right'
