#!/bin/sh
# Sets up, builds into build-test/ (compiled in half the time, for the tests wait for other
# compilers mostly), runs all tests, and lets Elm Cart judge its own source.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
sh "$here/scripts/setup_tests.sh"
sh "$here/scripts/build_tests.sh" build-test -DELMCART_QUICK=ON
cd "$here"
sh scripts/test_share.sh
ctest --test-dir build-test --output-on-failure -j "$(nproc)"
build-test/elmcart assess --gate 0 src
# What is said of the samples and of the demo does not contradict itself.
python3 scripts/self_check.py build-test/elmcart tests/samples demo
