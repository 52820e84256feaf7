#pragma once
// Plans as JSON. Not installed.
#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "apsidon/play/setup.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

/// What a plan may name, beside the zones and panels of the table.
struct PlanNames {
  std::map<std::string, std::vector<ZoneId>> groups;  ///< repeated zones by the name they share
  std::map<std::string, PlanNode> formations;         ///< nodes of formations by the name of their zone
};

/// Reads the plans of a table; every zone must have its place in each.
class PlanReader {
 public:
  PlanReader(const TableSetup& setup, const PlanNames& names);
  Plan read(const Node& node);

 private:
  std::vector<PlanNode> read_node(const Node& node);
  std::vector<PlanNode> read_each(const Node& node);
  PlanNode read_nth(const Node& node, int n);
  [[nodiscard]] std::string name_in_each(const Node& node) const;
  PlanNode read_list(const Node& node, std::string_view direction);
  PlanNode read_seats(const Node& node);
  PlanNode read_panel(const Node& node);
  PlanNode read_formation(const Node& node);
  PlanNode read_slots(const Node& node);
  void count(const Node& node, std::size_t nodes);
  void read_common(const Node& node, PlanNode& into) const;
  Overlay read_overlay(const Node& node);
  ZoneId place(const Node& node);
  void place(const Node& node, ZoneId id);
  PanelId place_panel(const Node& node);

  const TableSetup& setup_;
  const PlanNames& names_;
  std::unordered_map<std::string_view, PanelId> panels_ = {};
  std::size_t nodes_ = 0;  // of all plans
  // Of the plan that is read:
  std::set<ZoneId> placed_ = {};
  std::set<PanelId> shown_ = {};
  int nth_ = 0;  // while a node is read that stands for the n-th of a group
};

/// "column-3": what `repeat` calls the n-th.
std::string nth_name(std::string_view base, int n);

/// The zone of this name, or a stop that names the nearest.
ZoneId zone_named(const Node& node, const Table& table);

nlohmann::ordered_json json_of(const Plan& plan, const TableSetup& setup);

}  // namespace apsidon::files_detail
