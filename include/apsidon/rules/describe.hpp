#pragma once
#include <array>
#include <functional>
#include <map>
#include <string>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

/// How cards and zones are spoken of.
struct Names {
  std::string card = {};  ///< of a card with a suit and a rank: "{rank} of {suit}"; empty: its face as text
  /// For ranks, suits, jokers, zones and panels: "7" is "seven". What has none is called as it is.
  std::map<std::string, std::string, std::less<>> words = {};

  friend bool operator==(const Names&, const Names&) = default;
};

/// "queen of diamonds", by these names.
[[nodiscard]] APSIDON_CORE_EXPORT std::string spoken(FaceId face, const Deck& deck, const Names& names);
/// A zone or a seat, likewise.
[[nodiscard]] APSIDON_CORE_EXPORT std::string spoken(std::string_view name, const Names& names);

/// One template per reason, by Reason; a client translates the game by replacing them. Placeholders:
/// `{card}`,
/// `{onto}`, `{zone}`, `{wanted}`, `{found}`, `{wanted_rank}`, `{wanted_suit}`, `{others}`, `{key}`,
/// `{number}`.
struct Phrases {
  std::array<std::string, static_cast<std::size_t>(reason_count)> by_reason;  ///< by Reason
  /// Of rules in code and of what the game itself refuses: by the name in the verdict. What the verdict
  /// tells beside is there by its name, `{cost}`; a placeholder that nothing is known of stays as it is.
  std::map<std::string, std::string, std::less<>> by_rule = {};
  Names names = {};         ///< how cards and zones are called
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
