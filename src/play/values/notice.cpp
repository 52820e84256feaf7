#include "apsidon/play/notice.hpp"

#include <fmt/format.h>

#include <array>

namespace apsidon {

std::string_view name_of(NoticeKind kind) {
  static constexpr std::array<std::string_view, notice_kind_count> names{
      "out-of-range", "bad-time", "too-large",  "too-many", "late",
      "stale",        "callback", "lost-event", "internal"};
  const auto i = static_cast<std::size_t>(kind);
  return i < names.size() ? names[i] : "unknown";
}

std::string describe(const Notice& n) {
  const bool whole = n.part.empty() || n.part == n.input;
  const std::string what = whole ? std::string(n.input) : fmt::format("{}: '{}'", n.input, n.part);
  switch (n.kind) {
    case NoticeKind::out_of_range:
      return what + " is out of range: it is ignored";
    case NoticeKind::bad_time:
      return what + " has no time that a clock could show: it is ignored";
    case NoticeKind::too_large:
      return what + " is nested too deep, or has too many acts: it is not begun";
    case NoticeKind::too_many:
      return what + " is one too many of those that live: it is ignored";
    case NoticeKind::late:
      return what + " came after its time: it counts as of now";
    case NoticeKind::stale:
      return what + " names what is not there: it changes nothing";
    case NoticeKind::callback:
      return n.problem.empty()
                 ? fmt::format("{}: it was called from within a function of the game's: it is refused",
                               n.input)
                 : fmt::format("{}: it threw {}: the playfield goes on without it", n.input, n.problem);
    case NoticeKind::lost_event:
      return "an event was dropped: too many wait to be read";
    case NoticeKind::internal:
      return what + ": a mistake of the library's own; please report it";
  }
  return what;
}

}  // namespace apsidon
