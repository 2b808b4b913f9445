#!/usr/bin/env bash
# Makes sure that what the project needs beside its own code is on the machine: what Debian
# packages is installed where we may, else named.
set -euo pipefail

has_postgresql() { compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null || command -v initdb >/dev/null; }
has_chromium() { command -v chromium >/dev/null || command -v chromium-browser >/dev/null || command -v google-chrome >/dev/null; }

# install PACKAGE: from Debian, as root or with sudo.
install() {
  local run=()
  if ! command -v apt-get >/dev/null; then
    echo "Missing: $1. Install it with your system's package manager, then try again." >&2
    exit 1
  fi
  if [ "$(id -u)" -ne 0 ]; then
    if ! command -v sudo >/dev/null || ! sudo -n true 2>/dev/null && [ ! -t 0 ]; then
      echo "Missing: $1. Ask an administrator for: apt-get install $1" >&2
      exit 1
    fi
    run=(sudo)
  fi
  echo "Installing $1 ..."
  local log
  log=$(mktemp)
  if ! { "${run[@]}" apt-get update && "${run[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "$1"; } >"$log" 2>&1; then
    tail -n 20 "$log" >&2
    echo "Could not install $1; see $log" >&2
    exit 1
  fi
  rm -f "$log"
}

# at_least WANTED HAVE: compares versions.
at_least() { [ "$(printf '%s\n' "$1" "$2" | sort -V | head -n 1)" = "$1" ]; }

case "$1" in
  postgresql) has_postgresql || install postgresql ;;
  chromium) has_chromium || install chromium ;;
  toolchain)
    missing=()
    if ! command -v go >/dev/null; then missing+=("Go 1.26 or newer (go.dev)"); fi
    if ! command -v npm >/dev/null || ! command -v node >/dev/null; then
      missing+=("Node.js 20.19 or newer, with npm")
    elif ! at_least 20.19.0 "$(node --version | tr -d v)"; then
      missing+=("Node.js 20.19 or newer (this is $(node --version))")
    fi
    if [ ${#missing[@]} -gt 0 ]; then
      printf 'Missing: %s\n' "${missing[@]}" >&2
      exit 1
    fi
    ;;
esac
