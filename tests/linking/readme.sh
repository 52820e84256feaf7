#!/usr/bin/env bash
# Does what the README says, block by block, in an empty folder: installs, links in the four ways, uses the tool.
#
#   readme.sh SOURCE WORK CXX
#
# What is built is not optimised, to save time; what an installed program draws is the same.
set -euo pipefail
source="$1" work="$2" export_cxx="$3"
rm -rf "$work"
mkdir -p "$work/home" "$work/source"
export HOME="$work/home" CXX="$export_cxx" CMAKE_GENERATOR=Ninja
"$source/scripts/tarball" "$work/all.tar.gz" >/dev/null
tar --extract --gzip --file "$work/all.tar.gz" --directory "$work/source" --strip-components 1
cd "$work/source"

# block N: the text of a fenced block of the README.
block() { awk -v n="$1" '/^```/ { inside = !inside; if (inside) i++; next } inside && i == n' "$source/README.md"; }
count="$(grep -c '^```[a-z]' "$source/README.md")"
[ "$count" -eq 10 ] || { echo "README.md has $count blocks: 10 are expected, each of which is tried here" >&2; exit 1; }

# drew FOLDER: the first program ran there.
drew() { [ -s "$1/hand.png" ] || { echo "no picture in $1" >&2; exit 1; }; }

# 1: the two commands are there; one of them runs this.
block 1 | while read -r command _; do [ -x "$command" ]; done

# 3: install.
cmake() {
  case "$*" in
    "--preset install") command cmake --preset install -DCMAKE_CXX_FLAGS_RELEASE=-O0 ;;
    *) command cmake "$@" ;;
  esac
}
eval "$(block 3)" >"$work/install.log" 2>&1 || { tail -n 30 "$work/install.log" >&2; exit 1; }

# 4 with 2: by CMake.
mkdir "$work/by_cmake" "$work/by_pkg_config" "$work/taken_along"
block 2 | tee "$work/by_cmake/main.cpp" >"$work/by_pkg_config/main.cpp"
block 4 >"$work/by_cmake/CMakeLists.txt"
command cmake -S "$work/by_cmake" -B "$work/by_cmake/build" -DCMAKE_PREFIX_PATH=~/apsidon >/dev/null
command cmake --build "$work/by_cmake/build" >/dev/null
(cd "$work/by_cmake" && build/game)
drew "$work/by_cmake"

# 5: by pkg-config.
(cd "$work/by_pkg_config" && eval "$(block 5)" && ./game)
drew "$work/by_pkg_config"

# 6, 7, 8: the tarball, and the sources as a folder; what is built of them is built by run.cmake.
eval "$(block 6)" >/dev/null
listed() { tar --list --file apsidon-*.tar.gz | sort; }
first="$(listed)"
eval "$(block 6)" >/dev/null
[ "$(listed)" = "$first" ] || { echo "a second tarball holds the first one" >&2; exit 1; }
cp "$source/tests/linking/main.cpp" "$work/taken_along/"
mv apsidon-*.tar.gz "$work/taken_along/"
ln -s "$work/source" "$work/taken_along/apsidon"
for way in 7 8; do
  {
    printf 'cmake_minimum_required(VERSION 3.25)\nproject(game LANGUAGES CXX)\nadd_executable(game main.cpp)\n'
    block "$way"
  } >"$work/taken_along/CMakeLists.txt"
  command cmake -S "$work/taken_along" -B "$work/taken_along/build$way" >/dev/null
done

# 10: the tool, by the name that its folder gives it.
export PATH="$HOME/apsidon/bin:$PATH"
apsidon() {
  case "$1" in
    play) xvfb-run --auto-servernum command apsidon "$@" --frames 3 ;;
    demo) command apsidon "$@" --out "$work/demo" ;;
    *) command apsidon "$@" ;;
  esac
}
eval "$(block 10 | sed 's/ #.*//')" >"$work/tool.log" 2>&1 || { tail -n 30 "$work/tool.log" >&2; exit 1; }
