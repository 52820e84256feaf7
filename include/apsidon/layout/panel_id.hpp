#pragma once
#include "apsidon/cards/ids.hpp"

namespace apsidon {

/// One panel of a plan: a named box that holds no cards.
using PanelId = Id<struct PanelThing>;

}  // namespace apsidon
