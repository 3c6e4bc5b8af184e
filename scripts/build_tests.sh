#!/bin/sh
# As build.sh, with the compiler and linker that take the least time where they are
# there (setup_tests.sh installs them), and with files compiled in batches.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
folder=$1
shift
if [ ! -f "$here/$folder/CMakeCache.txt" ] && command -v clang++-16 >/dev/null 2>&1 && command -v mold >/dev/null 2>&1; then
  export CC=clang-16 CXX=clang++-16
  set -- -DCMAKE_EXE_LINKER_FLAGS=-fuse-ld=mold "$@"
fi
sh "$here/scripts/build.sh" "$folder" -DELMCART_BATCHES=ON "$@"
