#!/bin/sh
# Looks for data races: surveys and assesses folders (the samples, where none are
# named) with several threads under the thread sanitizer. Ends with 66 at a race.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
TARGET=elmcart sh "$here/scripts/build.sh" build-races -DELMCART_RACES=ON
[ $# -gt 0 ] || set -- "$here/tests/samples"
for folder in "$@"; do
  echo "== $(basename "$folder")"
  "$here/build-races/elmcart" assess --no-cache --quiet --jobs 3 "$folder" >/dev/null
done
