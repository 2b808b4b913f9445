#!/usr/bin/env bash
# Says how much compressed script the first page loads: what index.html names.
set -euo pipefail
cd "$(dirname "$0")/../web/static/dist"
total=0
for script in $(grep -o 'assets/[^"]*\.js' index.html | sort -u); do
  total=$((total + $(gzip -9 -c "$script" | wc -c)))
done
echo "first load: $((total / 1000)) kB of compressed script (limit 250 kB)"
[ "$total" -le 250000 ]
