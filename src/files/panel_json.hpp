#pragma once
// Panels of a table file, read and written. Not installed.
#include <nlohmann/json.hpp>

#include "apsidon/play/setup.hpp"
#include "files/reader.hpp"
#include "files/verbatim.hpp"

namespace apsidon::files_detail {

/// All of a panel but what it says, its data, and how often it is repeated.
PanelSetup read_panel(const Node& node, const Table& table);
nlohmann::ordered_json json_of(const PanelSetup& panel, const Table& table, Verbatim& verbatim);

}  // namespace apsidon::files_detail
