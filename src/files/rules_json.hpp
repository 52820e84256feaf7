#pragma once
// Rules, goals, consequences and rounds of a table file, read and written. Not installed.
#include <cstddef>
#include <nlohmann/json.hpp>

#include "apsidon/play/setup.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

/// Zones that are described by one object: one, or those that it repeats.
struct ZoneRange {
  ZoneId first = {};
  std::size_t count = 1;
};

/// A zone of the table, and none of those that name it.
ZoneId other_zone(const Node& node, const TableSetup& setup, ZoneRange own);
/// Zones by their names, and groups of them by the name that they share.
std::vector<ZoneId> zones_named(const Node& node, const Table& table);

/// An object with a whole number for each name.
Numbers read_numbers(const Node& node, bool of_zone = false);
SeatId seat_named(const Node& node, const Table& table);

Rule read_rule(const Node& node, const Table& table);
SelectRule read_select(const Node& node, const Table& table);
PickRule read_pick(const Node& node, const Table& table);
Goal read_goal(const Node& node, const TableSetup& setup);
Consequence read_consequence(const Node& node, const TableSetup& setup);
NamedMove read_named_move(const Node& node, const TableSetup& setup);
/// A list of numbers, each with its corner.
std::vector<Badge> read_badges(const Node& node);
RoundPlan read_round(const Node& node, const TableSetup& setup);

nlohmann::ordered_json json_of(const Numbers& numbers);
nlohmann::ordered_json json_of(const Rule& rule, const Table& table);
nlohmann::ordered_json json_of(const PickRule& pick, const Table& table);
nlohmann::ordered_json json_of(const SelectRule& select, const Table& table);
nlohmann::ordered_json json_of(const Goal& goal, const Table& table);
nlohmann::ordered_json json_of(const Consequence& consequence, const Table& table);
nlohmann::ordered_json json_of(const NamedMove& move, const Table& table);
nlohmann::ordered_json json_of(const std::vector<Badge>& badges);
nlohmann::ordered_json json_of(const RoundPlan& round, const Table& table);

}  // namespace apsidon::files_detail
