#pragma once
#include <cstdint>
#include <optional>

#include "apsidon/cards/card.hpp"

namespace apsidon {

/// A drop that waits for its answer.
struct Proposal {
  std::uint64_t id = 0;  ///< from 1
  Run run = {};
  ZoneId from = {};
  ZoneId to = {};
  std::optional<std::size_t> at = {};  ///< before which index of `to`, where it inserts or sorts
  std::optional<Vec2> middle = {};     ///< where it was let go, in a free zone

  friend bool operator==(const Proposal&, const Proposal&) = default;
};

}  // namespace apsidon
