#!/bin/sh
# Builds the named targets into build-sanitize/, with the address and
# undefined-behaviour sanitizers. Of debug information the lines alone: traces need no
# more. Unoptimised: what is instrumented takes three times as long to optimise as to run.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
grammars=""
if [ -f "$here/build-test/libgrammars.a" ]; then grammars="-DELMCART_GRAMMARS=$here/build-test/libgrammars.a"; fi
# shellcheck disable=SC2086
TARGET="$*" sh "$here/scripts/build_tests.sh" build-sanitize -DELMCART_SANITIZE=ON -DCMAKE_BUILD_TYPE=Debug -DCMAKE_CXX_FLAGS_DEBUG=-g1 -DCMAKE_CXX_FLAGS=-O0 $grammars
