#pragma once
// The options of a zone of a table file, read and written by the lists of their fields. Not installed.
#include <nlohmann/json.hpp>

#include "files/rules_json.hpp"

namespace apsidon::files_detail {

/// The keys of a zone of a table; and those of them that are options, which can be changed.
void expect_zone_keys(const Node& zone);
void expect_option_keys(const Node& options);
int recycled_of(const Node& zone);

/// What an object says of how a zone lies, of its rules and of its handling; what it does not say stays as it
/// is. Rules name other zones, which have to be there.
void read_zone_layout(const Node& node, ZoneLayout& layout);
void read_zone_rules(const Node& node, const TableSetup& setup, ZoneRange own, ZoneRules& rules,
                     ZoneHandling& handling);

/// Adds what differs from a zone that nothing is said of; `recycled` is how often a waste was recycled into
/// it.
void write_zone(nlohmann::ordered_json& json, const ZoneBehaviour& zone, const Table& table,
                int recycled = 0);

}  // namespace apsidon::files_detail
