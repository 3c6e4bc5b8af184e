#!/bin/sh
# Tests are a quarter to a third of the code: all lines under tests/ (samples and expected texts
# too) against those under src/. Prints the share and fails outside 0.20 to 0.34.
set -eu
cd "$(dirname "$0")/.."
lines() { find "$1" -type f -not -path '*/node_modules/*' -not -name package-lock.json -exec cat {} + | wc -l; }
src=$(lines src)
tests=$(lines tests)
share=$((1000 * tests / (tests + src)))
echo "tests: $tests lines, src: $src lines, share of tests: 0.$(printf %03d $share)"
[ "$share" -ge 200 ] && [ "$share" -le 340 ]
