#pragma once
#include <array>
#include <string>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/rules/describe.hpp"

namespace apsidon {

/// One template per EventKind, for screen readers and logs; a client translates by replacing
/// them. Empty: nothing is said. Placeholders: `{card}`, `{count}`, `{from}`, `{to}`, `{panel}`, `{why}` (the
/// sentence of the verdict), `{name}` (of a number, a named move, a cue), `{turn}` (whose turn it is now).
struct EventPhrases {
  std::array<std::string, event_kind_count> by_kind;  ///< by EventKind
  std::string run = "{card} and {more} on it";        ///< `{card}` of several cards; `{card}`, `{more}`
  std::string moved_meanwhile =
      "{card} has been moved meanwhile.";     ///< cancelled: the game has played it itself
  std::string covered = "a covered card";     ///< a card that shows its back
  std::string sideways = "{card}, sideways";  ///< around a lone card that lies so
  std::string focus_card = "{card}, {position} of {count} in {zone}";  ///< of a focused card
  std::string focus_zone = "{zone}, empty";                            ///< of a focused empty zone
  std::string focus_panel = "{panel}";                                 ///< of a focused panel
  std::string both = "{one} and {other}";     ///< `{turn}` of several seats: `{one}`, `{other}`
  std::string nobody = "nobody";              ///< `{turn}` of none
  std::string may_pick = "may be picked up";  ///< added to what is focused
  std::string chosen = "chosen";              ///< likewise, of a card that is chosen
  std::string may_choose = "may be chosen";   ///< likewise
};

/// The English ones that Apsidon comes with.
[[nodiscard]] APSIDON_CORE_EXPORT const EventPhrases& default_event_phrases();

/// Throws Error when a template has a placeholder that is not in its list, or braces that do not match.
APSIDON_CORE_EXPORT void check(const EventPhrases& phrases);

/// The event as a sentence; empty where its template is. `phrases` must have passed `check`.
[[nodiscard]] APSIDON_CORE_EXPORT std::string describe(const Event& event, const Playfield& field,
                                                       const EventPhrases& phrases = default_event_phrases(),
                                                       const Phrases& reasons = default_phrases());

/// A verdict as a sentence: of a rule in code as the table has it (`TableSetup::sentences`), unless `reasons`
/// has one of that name.
[[nodiscard]] APSIDON_CORE_EXPORT std::string describe(const Verdict& verdict, const Playfield& field,
                                                       const Phrases& reasons = default_phrases());

/// What is focused, for a screen reader; empty when nothing is.
[[nodiscard]] APSIDON_CORE_EXPORT std::string describe_focus(
    const Playfield& field, const EventPhrases& phrases = default_event_phrases(),
    const Phrases& reasons = default_phrases());

}  // namespace apsidon
