#pragma once
#include <array>
#include <functional>
#include <map>
#include <string>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

/// One template per reason, by Reason; a client translates the game by replacing them. Placeholders:
/// `{card}`,
/// `{onto}`, `{zone}`, `{wanted}`, `{found}`, `{wanted_rank}`, `{wanted_suit}`, `{others}`, `{key}`.
struct Phrases {
  std::array<std::string, static_cast<std::size_t>(reason_count)> by_reason;
  /// Of rules in code and of what the game itself refuses: by the name in the verdict. What the verdict
  /// tells beside is there by its name, `{cost}`; a placeholder that nothing is known of stays as it is.
  std::map<std::string, std::string, std::less<>> by_rule = {};
  std::string others = {};  ///< comes after, when other ways of an `any` rule do not fit either; may be empty
};

/// The English sentences that Apsidon comes with.
[[nodiscard]] APSIDON_CORE_EXPORT const Phrases& default_phrases();

/// Throws Error when a template has a placeholder that is not in the list above, or braces that do not match.
APSIDON_CORE_EXPORT void check(const Phrases& phrases);

/// The verdict as a sentence that names the card, the zone and why; it begins with a capital letter.
/// `phrases` must have passed `check`.
[[nodiscard]] APSIDON_CORE_EXPORT std::string describe(const Verdict& verdict, const Table& table,
                                                       const Phrases& phrases = default_phrases());

}  // namespace apsidon
