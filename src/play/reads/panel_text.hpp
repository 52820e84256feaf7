#pragma once
// What a panel says, with the numbers of the table in it. Not installed.
#include <string>

#include "apsidon/cards/table.hpp"
#include "apsidon/play/panel.hpp"

namespace apsidon::play_detail {

/// Into a text that is used again. O(bytes of the text * log of numbers).
void say_panel(const PanelSetup& panel, const Table& table, std::string& out);

/// The share of a bar that a number fills, [0, 1]; empty where it is full at 0 or less.
[[nodiscard]] float filled_share(const PanelSetup& panel, const Table& table);

}  // namespace apsidon::play_detail
