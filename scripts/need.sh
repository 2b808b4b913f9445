#!/usr/bin/env bash
# need.sh NAME...: makes sure that what the project needs beside its own code is on the machine.
# Debian packages (postgresql, chromium) are installed where we may; everything else is listed.
set -euo pipefail

missing=()  # what only the user can install
packages=() # what Debian has

# at_least WANTED HAVE: compares versions.
at_least() { [ "$(printf '%s\n' "$1" "$2" | sort -V | head -n 1)" = "$1" ]; }

for name in "$@"; do
  case "$name" in
    toolchain)
      command -v go >/dev/null || missing+=("Go 1.26 or newer")
      if ! command -v node >/dev/null || ! command -v npm >/dev/null; then
        missing+=("Node.js 20.19 or newer, with npm")
      elif ! at_least 20.19.0 "$(node --version | tr -d v)"; then
        missing+=("Node.js 20.19 or newer (this is $(node --version))")
      fi
      ;;
    postgresql)
      compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null || command -v initdb >/dev/null || packages+=(postgresql)
      ;;
    chromium)
      command -v chromium >/dev/null || command -v chromium-browser >/dev/null || command -v google-chrome >/dev/null || packages+=(chromium)
      ;;
    *)
      echo "need.sh: $name is nothing the project needs" >&2
      exit 2
      ;;
  esac
done

as_root=()
if [ "$(id -u)" -ne 0 ]; then
  # Without a terminal nobody could type the password that sudo may ask for.
  if command -v sudo >/dev/null && { sudo -n true 2>/dev/null || [ -t 0 ]; }; then
    as_root=(sudo)
  else
    as_root=(none)
  fi
fi
if [ ${#packages[@]} -gt 0 ] && { [ "${as_root[0]:-}" = none ] || ! command -v apt-get >/dev/null; }; then
  missing+=("${packages[@]/%/ (on Debian: apt-get install, as an administrator)}")
  packages=()
fi
if [ ${#missing[@]} -gt 0 ]; then
  echo 'Please install:' >&2
  printf '  %s\n' "${missing[@]}" >&2
  exit 1
fi
[ ${#packages[@]} -gt 0 ] || exit 0

echo "Installing ${packages[*]} ..."
log=$(mktemp)
if ! { "${as_root[@]}" apt-get update && "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${packages[@]}"; } >"$log" 2>&1; then
  tail -n 20 "$log" >&2
  echo "Could not install ${packages[*]}; the whole story is in $log" >&2
  exit 1
fi
rm -f "$log"
