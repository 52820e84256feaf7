#include "apsidon/cards/verdict.hpp"

#include <array>

namespace apsidon {
namespace {

constexpr std::array<std::string_view, reason_count> codes{
    "allowed",          "unknown-card",     "unknown-zone",    "unknown-index",
    "out-of-range",     "unknown-key",      "unknown-move",    "unknown-seat",
    "unknown-face",     "missing-key",      "repeated-key",    "empty-zone",
    "pick-nothing",     "not-top",          "face-down",       "not-linked",
    "switched-off",     "other-run",        "flip-nothing",    "reorient-nothing",
    "select-nothing",   "nothing-chosen",   "other-side",      "same-zone",
    "drop-nothing",     "not-rank-down",    "not-rank-up",     "not-same-suit",
    "not-same-colour",  "not-empty",        "needs-card",      "not-rank-on-empty",
    "too-few",          "no-sequence",      "too-many",        "negated",
    "no-rank",          "not-same-rank",    "not-together",    "wrong-source",
    "needs-neighbours", "waits-for",        "wrong-suit",      "too-low",
    "own-rule",         "number-low",       "number-high",     "number-differs",
    "not-on-turn",      "not-own-zone",     "no-exchange",     "locked",
    "in-hand",          "in-flight",        "open-already",    "no-passes",
    "no-stock",         "too-many-open",    "refused-by-game", "game-failed",
    "superseded",       "unknown-proposal", "nothing-to-undo", "nothing-to-finish",
    "nothing-to-redo",  "unknown-panel",    "unknown-timer",   "unknown-performance",
    "undo-forbidden",   "no-focus",         "no-preview",      "unbound",
};

}  // namespace

std::string_view code_of(Reason reason) {
  const auto i = static_cast<std::size_t>(reason);
  return i < codes.size() ? codes[i] : "unknown-reason";
}

}  // namespace apsidon
