#pragma once
// What may come in. Not installed.
#include "apsidon/play/input.hpp"

namespace apsidon::play_detail {

/// Whether an input, its time aside, can be meant: every number, word and option of it is in its range. What
/// is capped, and text that is not UTF-8, is put right first. What has passed here can be written to a log
/// and read again as the same. O(what it holds).
[[nodiscard]] bool admit(Input& input);

/// Whether a script is nested too deep, or has too many acts, to be played.
[[nodiscard]] bool is_too_large(const Script& script);

/// A verdict of the game's own, with a reason that there is.
[[nodiscard]] Verdict usable(Verdict verdict);

}  // namespace apsidon::play_detail
