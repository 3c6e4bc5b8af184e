#!/bin/sh
# Installs the compilers and interpreters with which tests build and run samples
# of other languages (Debian 12, as root), and the tests' own npm packages.
#   setup_tests.sh kotlin   Kotlin's compiler too, whose tests are skipped without it: they take minutes
set -eu
here=$(cd "$(dirname "$0")/.." && pwd)
packages=""
need() { command -v "$1" >/dev/null 2>&1 || packages="$packages $2"; }
need javac default-jdk-headless
need go golang-go
need php php-cli
need mcs "mono-mcs mono-runtime"
need python3 python3
# The page is opened in it.
need chromium chromium
# They compile the tests in a third of the time.
need clang++-16 clang-16
need mold mold
if [ "${1:-}" = kotlin ]; then need kotlinc kotlin; fi
# The second is the sanitizers' part of the compiler, which it brings along on some machines only.
for package in junit4 libclang-rt-16-dev; do
  dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q '^install ok installed$' || packages="$packages $package"
done
if [ -n "$packages" ]; then
  export DEBIAN_FRONTEND=noninteractive
  apt-get update -qq
  # shellcheck disable=SC2086
  apt-get install -y -qq --no-install-recommends $packages >/dev/null
fi
tools="$here/tests/tools"
if ! cmp -s "$tools/package-lock.json" "$tools/node_modules/.fetched"; then
  (cd "$tools" && npm ci --ignore-scripts --silent && cp package-lock.json node_modules/.fetched)
fi
