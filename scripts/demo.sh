#!/bin/sh
# Sets up, builds, and runs the demo end to end into elmcart-demo/.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
TARGET=elmcart sh "$here/scripts/build.sh" build
cd "$here"
build/elmcart demo "$@"
