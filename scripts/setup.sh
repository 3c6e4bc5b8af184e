#!/bin/sh
# Installs what the build needs on Debian 12 (as root) and fetches the grammar
# sources from the npm registry by the lock file.
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
packages="build-essential cmake ninja-build pkg-config git ca-certificates
  libboost-program-options-dev libfmt-dev nlohmann-json3-dev libtomlplusplus-dev
  libabsl-dev libpugixml-dev libtbb-dev libgit2-dev libgraphviz-dev graphviz fonts-dejavu-core
  libsqlite3-dev libxxhash-dev libkainjow-mustache-dev libre2-dev libgtest-dev libgmock-dev libtree-sitter-dev libmimalloc-dev"
missing=""
for package in $packages; do
  dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q '^install ok installed$' || missing="$missing $package"
done
command -v npm >/dev/null 2>&1 || missing="$missing nodejs npm"
if [ -n "$missing" ]; then
  export DEBIAN_FRONTEND=noninteractive
  apt-get update -qq
  # shellcheck disable=SC2086
  apt-get install -y -qq --no-install-recommends $missing >/dev/null
fi
if ! cmp -s "$here/grammars/package-lock.json" "$here/grammars/node_modules/.fetched"; then
  (cd "$here/grammars" && npm ci --ignore-scripts --silent && cp package-lock.json node_modules/.fetched)
fi
