#pragma once
#include <cstdint>
#include <functional>
#include <string>
#include <string_view>

#include "apsidon/core_export.hpp"

namespace apsidon {

/// What a client does not want to happen, and may want to hear of.
enum class NoticeKind : std::uint8_t {
  out_of_range,  ///< an input or a call was ignored: a number or a word of it is outside of its range
  bad_time,      ///< one was ignored: its time is no number, or beyond all clocks
  too_large,     ///< a script was not begun: it is nested too deep, or has too many acts
  too_many,      ///< one was ignored: as many of its kind live already as may
  late,          ///< an input came after its time: it counts as of now
  stale,         ///< a call named a card, a zone or a proposal that is not there (any more)
  callback,    ///< a function of the game's threw, or called back into the playfield: it counts as a refusal
  lost_event,  ///< an event was dropped: too many wait to be read
  internal,    ///< the library found a mistake of its own, and goes on as it can: please report it
};

/// How many kinds there are.
inline constexpr int notice_kind_count = static_cast<int>(NoticeKind::internal) + 1;

/// "out-of-range". Never changes once released.
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view name_of(NoticeKind kind);

/// One such thing. The views are of the library's own texts, and stay valid.
struct Notice {
  NoticeKind kind = NoticeKind::out_of_range;  ///< what happened
  double time = 0;                             ///< of the playfield, seconds
  std::string_view input = {};                 ///< of what: "pointer", "perform", …
  std::string_view part = {};                  ///< and which part of it: "at"; empty where it is not one
  std::string problem = {};                    ///< what an exception said; empty where there was none

  friend bool operator==(const Notice&, const Notice&) = default;
};

/// "pointer: 'at' is out of range: it is ignored".
[[nodiscard]] APSIDON_CORE_EXPORT std::string describe(const Notice& notice);

/// Hears of each when it happens. May not call back into the playfield; it may set another watcher.
using Watcher = std::function<void(const Notice&)>;

}  // namespace apsidon
