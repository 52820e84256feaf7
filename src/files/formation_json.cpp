#include "files/formation_json.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <string_view>
#include <vector>

#include "apsidon/geometry/limits.hpp"
#include "files/names.hpp"

namespace apsidon::files_detail {
namespace {

Formation read_slots(const Node& node) {
  const std::array<std::string_view, 4> kinds{"rows", "pyramid", "diamond", "ring"};
  const auto count =
      std::count_if(kinds.begin(), kinds.end(), [&](std::string_view kind) { return node.has(kind); });
  if (count != 1) {
    node.stop(ProblemCode::wrong_type,
              fmt::format("{} of 'rows', 'pyramid', 'diamond', 'ring': exactly one is expected", count));
  }
  if (node.has("links") && !node.has("rows"))
    node.child("links").stop(ProblemCode::misplaced, "only rows have links that can be chosen");
  Vec2 gaps{0.15f, 0.15f};
  if (node.has("pyramid")) gaps.y = -0.5f;
  if (node.has("diamond")) gaps = {1.15f, -0.46f};
  gaps.x = node.number_or("gap_across", gaps.x, -1, 100);
  gaps.y = node.number_or("gap_down", gaps.y, -1, 100);
  if (node.has("pyramid")) return formation_of_pyramid(node.child("pyramid").whole(1, 100), gaps);
  if (node.has("diamond")) return formation_of_diamond(node.child("diamond").whole(1, 70), gaps);
  if (node.has("ring")) return formation_of_ring(node.child("ring").whole(1, 1000), gaps);
  std::vector<int> counts;
  std::size_t slots = 0;
  for (const Node& row : node.child("rows").items()) {
    counts.push_back(row.whole(0, 1000));
    slots += static_cast<std::size_t>(counts.back());
  }
  if (slots < 1 || slots > most_zones) {
    node.child("rows").stop(ProblemCode::out_of_range,
                            fmt::format("{} slots: 1 to {} are expected", slots, most_zones));
  }
  const RowLinks links =
      node.has("links") ? named(node.child("links"), "links", node.child("links").text(), row_links_names)
                        : RowLinks::all;
  return formation_of_rows(counts, gaps, links);
}

}  // namespace

Formation formation_from(const Node& node) {
  node.expect_keys({"rows", "pyramid", "diamond", "ring", "gap_across", "gap_down", "links", "waits"});
  const Formation formation = read_slots(node);
  if (!node.has("waits")) return formation;
  const bool above = named(node.child("waits"), "waits", node.child("waits").text(), waits_names);
  return with_waits(formation, above);
}

}  // namespace apsidon::files_detail
