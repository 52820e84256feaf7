#pragma once
#include "apsidon/cards/ids.hpp"

namespace apsidon {

/// One performance that was asked for: what it is skipped, stopped and asked by.
using PerformanceId = Id<struct PerformanceThing>;

}  // namespace apsidon
