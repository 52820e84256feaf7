#pragma once
// Cells of grids that keep them. Not installed.
#include "apsidon/cards/table.hpp"

namespace apsidon {

/// Gives every card of a zone that has no cell the first that is free. Returns whether any got one.
bool give_cells(Table& table, ZoneId zone);

}  // namespace apsidon
