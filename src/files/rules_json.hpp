#pragma once
// Rules, stocks and handling of the zones of a table file, read and written. Not installed.
#include <cstddef>
#include <nlohmann/json.hpp>

#include "apsidon/play/setup.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

/// The keys of a zone of a table; and those of them that are options, which can be changed.
void expect_zone_keys(const Node& zone);
void expect_option_keys(const Node& options);
int recycled_of(const Node& zone);

/// Zones that are described by one object: one, or those that it repeats.
struct ZoneRange {
  ZoneId first = {};
  std::size_t count = 1;
};

/// What an object says of the rules and the handling of these zones; what it does not say stays as it is.
void read_rules(const Node& node, const TableSetup& setup, ZoneRange own, ZoneRules& rules,
                ZoneHandling& handling);
Goal read_goal(const Node& node, const TableSetup& setup);
nlohmann::ordered_json json_of(const Goal& goal, const Table& table);

/// Zones by their names, and groups of them by the name that they share.
std::vector<ZoneId> zones_named(const Node& node, const Table& table);

RoundPlan read_round(const Node& node, const TableSetup& setup);

/// Adds what differs from a zone without rules; `recycled` is how often a waste was recycled into it.
void write_rules(nlohmann::ordered_json& json, const ZoneRules& rules, const ZoneHandling& handling,
                 const Table& table, int recycled = 0);
nlohmann::ordered_json json_of(const RoundPlan& round, const Table& table);

}  // namespace apsidon::files_detail
