#!/usr/bin/env bash
# Prints which part of the code is tests, in lines without blanks, comments and generated files; with --check it fails
# when that is too little to trust or too much to change.
set -euo pipefail
cd "$(dirname "$0")/.."

counted() {
  # shellcheck disable=SC2016
  xargs -r -d '\n' awk '
    FNR == 1 { inside = 0; generated = 0 }
    FNR <= 3 && /Code generated|auto-generated/ { generated = 1 }
    generated { next }
    inside { if (index($0, "*/")) inside = 0; next }
    /^[[:space:]]*$/ { next }
    /^[[:space:]]*(\/\/|--|#[^!])/ { next }
    /^[[:space:]]*\/\*/ { if (!index($0, "*/")) inside = 1; next }
    { n++ }
    END { print n + 0 }' | awk '{ sum += $1 } END { print sum + 0 }'
}

files() { git ls-files -- '*.go' '*.ts' '*.tsx' '*.sql' '*.sh' | grep -Ev '\.gen\.(go|ts)$'; }
is_test='(_test\.go|\.test\.tsx?)$|^e2e/|/storetest/'

tests=$(files | grep -E "$is_test" | counted)
code=$(files | grep -Ev "$is_test" | counted)
share=$((1000 * tests / (tests + code)))
printf 'tests are %d.%d %% of the code: %d of %d lines\n' $((share / 10)) $((share % 10)) "$tests" $((tests + code))
if [ "${1:-}" = --check ] && { [ "$share" -lt 250 ] || [ "$share" -gt 330 ]; }; then
  echo 'they should be 25 to 33 %' >&2
  exit 1
fi
