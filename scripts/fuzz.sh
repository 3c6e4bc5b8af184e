#!/bin/sh
# Mutated samples of each language, taken the whole way under the sanitizers.
#   sh scripts/fuzz.sh [SECONDS_A_LANGUAGE [SEED [LANGUAGE]]]
# The mutant at hand lies in the temporary folder as elmcart-mutant-LANGUAGE.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
TARGET=mutate sh "$here/scripts/build.sh" build-sanitize -DELMCART_SANITIZE=ON -DCMAKE_BUILD_TYPE=Debug -DCMAKE_CXX_FLAGS=-O1 -DCMAKE_C_FLAGS=-O1
cd "$here"
ASAN_OPTIONS=detect_leaks=0 build-sanitize/tests/mutate tests/samples "${1:-600}" "${2:-1}" ${3:+"$3"}
