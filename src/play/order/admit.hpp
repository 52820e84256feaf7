#pragma once
// What may come in. Not installed.
#include <optional>
#include <string>
#include <string_view>

#include "apsidon/play/notice.hpp"
#include "play/values/any_input.hpp"

namespace apsidon::play_detail {

/// Why an input is ignored.
struct Refusal {
  Notice notice = {};
  std::string problem = {};  ///< what is wrong, where more than the part of the input is known
};

/// Why an input, its time aside, cannot be meant: a number, word or option of it is out of its range, or it
/// is too large. Nothing when it can be: what is cut, and text that is not UTF-8, has been put right then,
/// and it can be written to a log and read again as the same. O(what it holds).
[[nodiscard]] std::optional<Refusal> refuse(AnyInput& input);

/// "pointer": what an input is called.
[[nodiscard]] std::string_view name_of(const AnyInput& input);

/// Whether a script is nested too deep, or has too many acts, to be played.
[[nodiscard]] bool is_too_large(const Script& script);

/// A verdict of the game's own, with a reason that there is.
[[nodiscard]] Verdict usable(Verdict verdict);
/// Likewise of a proposal: a refusal that names no card and no zone is about those of the move.
[[nodiscard]] Verdict usable(Verdict verdict, const Move& move);

}  // namespace apsidon::play_detail
