#pragma once
// Rules, stocks and handling of the zones of a table file, read and written. Not installed.
#include <cstddef>
#include <nlohmann/json.hpp>

#include "apsidon/play/setup.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

void expect_zone_keys(const Node& zone);
int recycled_of(const Node& zone);

/// What a zone's object says of rules and handling, given to the zones [first, end) that it made.
void read_rules(const Node& zone, TableSetup& setup, std::size_t first, std::size_t end);
Goal read_goal(const Node& node, const TableSetup& setup);
nlohmann::ordered_json json_of(const Goal& goal, const Table& table);

RoundPlan read_round(const Node& node, const TableSetup& setup);

/// Adds what differs from a zone without rules. Throws Error for a rule of one's own: it is code.
void write_rules(nlohmann::ordered_json& json, const TableSetup& setup, const Zone& zone);
nlohmann::ordered_json json_of(const RoundPlan& round, const Table& table);

}  // namespace apsidon::files_detail
