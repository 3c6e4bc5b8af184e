#!/bin/sh
# Times surveys against a bare parse: scripts/benchmark.sh FOLDER …
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
sh "$here/scripts/build.sh" build -DELMCART_BENCH=ON
for folder in "$@"; do
  echo "== $(basename "$folder")"
  "$here/build/bench/elmcart_bench" "$folder" 2 5
  echo "with the system's allocator:"
  LD_PRELOAD=libc.so.6 "$here/build/bench/elmcart_bench" "$folder" 2 5 bare
done
