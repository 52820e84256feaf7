# Sourced by the scripts: says what is being done, and clearly what failed.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
jobs="$(nproc)"

# step "what it is" COMMAND …: runs quietly; when it fails, its last lines and its log are shown.
step() {
  local what="$1"
  shift
  local log
  log="$(mktemp)"
  printf '%s …\n' "$what"
  if ! "$@" >"$log" 2>&1; then
    tail -n 40 "$log" >&2
    printf '%s FAILED: %s\n  its last lines are above, all of them in %s\n' "$what" "$*" "$log" >&2
    exit 1
  fi
  rm -f "$log"
}
