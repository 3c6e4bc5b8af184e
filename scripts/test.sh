#!/bin/sh
# Sets up, builds, runs all tests, and lets Elm Cart judge its own source.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
sh "$here/scripts/setup_tests.sh"
sh "$here/scripts/build.sh" build
cd "$here"
ctest --test-dir build --output-on-failure -j "$(nproc)"
build/elmcart assess --gate 0 src
