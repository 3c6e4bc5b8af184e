#!/bin/sh
# The unit tests under the address and undefined-behaviour sanitizers.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
sh "$here/scripts/build.sh" build-sanitize -DELMCART_SANITIZE=ON -DCMAKE_BUILD_TYPE=RelWithDebInfo
cd "$here"
# Graphviz keeps memory of its own until the process ends.
ASAN_OPTIONS=detect_leaks=0 build-sanitize/tests/unit_tests --gtest_brief=1
