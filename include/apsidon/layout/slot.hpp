#pragma once
#include "apsidon/layout/laid.hpp"

namespace apsidon {

/// One place in the middle of the area; several cards lie exactly on each other.
struct SlotLayout {
  friend bool operator==(const SlotLayout&, const SlotLayout&) = default;
};

}  // namespace apsidon
