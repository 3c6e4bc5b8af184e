#!/bin/sh
# Builds the named targets into build-sanitize/, with the address and
# undefined-behaviour sanitizers.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
TARGET="$*" sh "$here/scripts/build.sh" build-sanitize -DELMCART_SANITIZE=ON -DCMAKE_BUILD_TYPE=Debug -DCMAKE_CXX_FLAGS=-O1 -DCMAKE_C_FLAGS=-O1
