# Sourced by the scripts: says what is being done, and clearly what failed.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
jobs="$(nproc)"

# progress LOG: says how far a build has come, for as long as the script runs: on a terminal in one line, else now and then.
progress() {
  local said="" far quiet=0
  while sleep 1 && kill -0 "$$" 2>/dev/null; do
    far="$(grep -oE '^\[[0-9]+/[0-9]+\]' "$1" | tail -n 1 || true)"
    quiet=$((quiet + 1))
    [[ -z "$far" || "$far" == "$said" ]] && continue
    if [[ -t 1 ]]; then
      printf '\r  %s ' "$far"
    elif ((quiet >= 30)); then
      printf '  %s\n' "$far"
    else
      continue
    fi
    said="$far" quiet=0
  done
}

# step "what it is" COMMAND …: runs it and shows how far it is; when it fails, its last lines and its log are shown.
step() {
  local what="$1" failed=0
  shift
  local log reporter
  log="$(mktemp)"
  printf '%s …\n' "$what"
  progress "$log" &
  reporter=$!
  "$@" >"$log" 2>&1 || failed=1
  kill "$reporter" 2>/dev/null || true
  wait "$reporter" 2>/dev/null || true
  [[ -t 1 ]] && printf '\r\033[K'
  if ((failed)); then
    tail -n 40 "$log" >&2
    printf '%s FAILED: %s\n  its last lines are above, all of them in %s\n' "$what" "$*" "$log" >&2
    exit 1
  fi
  rm -f "$log"
}
