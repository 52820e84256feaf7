#pragma once
// What can be filmed, by name.
#include <array>
#include <string>

#include "apsidon/apsidon.hpp"

namespace apsidon::tool {

inline constexpr std::array<std::string_view, 10> motion_names{
    "deal", "gather", "shuffle", "draw", "flip", "reveal", "shake", "pulse", "collect", "finale"};

/// "deal, gather, …".
std::string all_motions();

struct Motions {
  std::string motion;
  std::string zone;  ///< empty: one that suits
  std::string card;  ///< empty: ones that suit
  int count = 3;
  std::uint64_t seed = 1;
};

/// What was begun, and how many cards it happens to.
struct Begun {
  PerformanceId id;
  std::size_t cards = 0;
};
/// Begins it; stops with a bad call when the table has nothing that it could happen to.
Begun begin(Playfield& field, const Motions& motions);

/// One of the built-in feels, or the feel in a file.
Feel feel_named(const std::string& name);

}  // namespace apsidon::tool
