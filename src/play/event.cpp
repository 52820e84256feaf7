#include "apsidon/play/event.hpp"

#include <array>

namespace apsidon {

std::string_view name_of(EventKind kind) {
  static constexpr std::array<std::string_view, 10> names{"tapped",  "pick-refused", "picked-up", "proposed",
                                                          "dropped", "refused",      "cancelled", "emptied",
                                                          "landed",  "settled"};
  const auto i = static_cast<std::size_t>(kind);
  return i < names.size() ? names[i] : "unknown";
}

}  // namespace apsidon
