#pragma once
#include <cstdint>

#include "apsidon/rules/move.hpp"

namespace apsidon {

/// A move that the rules allow, and that may still wait for the game's answer.
struct Proposal {
  std::uint64_t id = 0;  ///< from 1
  Move move = {};        ///< as it was allowed by the rules

  friend bool operator==(const Proposal&, const Proposal&) = default;
};

}  // namespace apsidon
