#!/bin/sh
# Mutated samples of each language, taken the whole way under the sanitizers.
#   sh scripts/fuzz.sh [SECONDS_A_LANGUAGE [SEED [LANGUAGE]]]
# The mutant at hand lies in the temporary folder as elmcart-mutant-LANGUAGE.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
sh "$here/scripts/build_sanitized.sh" mutate
cd "$here"
# Instrumented, a call takes many times the stack.
ulimit -s 262144 2>/dev/null || true
ASAN_OPTIONS=detect_leaks=0 build-sanitize/tests/mutate tests/samples "${1:-600}" "${2:-1}" ${3:+"$3"}
