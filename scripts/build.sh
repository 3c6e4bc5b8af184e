#!/bin/sh
# Builds into build/ (or the folder named first); further arguments go to CMake.
# TARGET=name builds that target only.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
folder=${1:-build}
[ $# -gt 0 ] && shift
sh "$here/scripts/setup.sh"
cmake -S "$here" -B "$here/$folder" -G Ninja "$@" >/dev/null
# shellcheck disable=SC2086
cmake --build "$here/$folder" --target ${TARGET:-all}
