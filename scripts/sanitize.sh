#!/bin/sh
# The unit tests under the address and undefined-behaviour sanitizers, and a few
# seconds of mutated samples for each language (scripts/fuzz.sh for longer).
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
sh "$here/scripts/build_sanitized.sh" unit_tests mutate
cd "$here"
# Instrumented, a call takes many times the stack.
ulimit -s 262144 2>/dev/null || true
# What is planned twice or three times there is planned once in the other tests of the moves.
# Graphviz keeps memory of its own until the process ends. Two halves run at a time.
halves=""
for half in 0 1; do
  GTEST_TOTAL_SHARDS=2 GTEST_SHARD_INDEX=$half ASAN_OPTIONS=detect_leaks=0 build-sanitize/tests/unit_tests --gtest_brief=1 '--gtest_filter=-*MovesEverywhere*:Excerpts.*:*KeepsLineEnds*:*LeavesNothingOfItBehind*' &
  halves="$halves $!"
done
for half in $halves; do wait "$half"; done
ASAN_OPTIONS=detect_leaks=0 build-sanitize/tests/mutate tests/samples 2
