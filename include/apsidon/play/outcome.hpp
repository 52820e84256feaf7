#pragma once
#include <cstdint>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/cards/wanted.hpp"

namespace apsidon {

/// What came of an input or a call; what does not apply is at its default.
struct Outcome {
  bool used = false;       ///< it did something, or began to
  Verdict verdict = {};    ///< why it was refused, if it was
  SyncReport report = {};  ///< of a sync
  std::uint64_t id = 0;    ///< of the performance or countdown that was made
  CardId card = {};        ///< that was made
};

}  // namespace apsidon
