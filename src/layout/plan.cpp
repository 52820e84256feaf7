#include "apsidon/layout/plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>

#include "apsidon/geometry/error.hpp"
#include "layout/common.hpp"

namespace apsidon {
using layout_detail::check_range;

namespace {

/// What a node needs, in both directions, for cards of one size.
struct Solver {
  std::span<const ZonePlace> places;
  Size card;
  float pixel_ratio = 0;  ///< > 0: lengths are whole device pixels

  float length(float card_widths) const {
    const float px = card_widths * card.width;
    return pixel_ratio > 0 ? std::floor(px * pixel_ratio) / pixel_ratio : px;
  }

  float gaps(const PlanNode& node) const {
    return length(node.gap) * static_cast<float>(node.parts.size() - 1);
  }

  Size need(const PlanNode& node) const {
    switch (node.kind) {
      case PlanKind::zone: {
        const ZonePlace& place = places[node.zone.value - 1];
        return least_size(place.layout, static_cast<std::size_t>(place.longest), card);
      }
      case PlanKind::space:
        return {length(node.space), length(node.space)};
      case PlanKind::across:
      case PlanKind::down:
        break;
    }
    const bool across = node.kind == PlanKind::across;
    Size sum;
    for (const PlanNode& part : node.parts) {
      Size s = need(part);
      if (part.kind == PlanKind::space) (across ? s.height : s.width) = 0;
      if (across) {
        sum = {sum.width + s.width, std::max(sum.height, s.height)};
      } else {
        sum = {std::max(sum.width, s.width), sum.height + s.height};
      }
    }
    (across ? sum.width : sum.height) += gaps(node);
    return sum;
  }

  void arrange(const PlanNode& node, const Rect& box, std::span<Rect> areas) const {
    if (node.kind == PlanKind::zone) areas[node.zone.value - 1] = box;
    if (node.kind == PlanKind::zone || node.kind == PlanKind::space) return;
    const bool across = node.kind == PlanKind::across;
    const auto along = [&](Size s) { return across ? s.width : s.height; };
    float rest = along(box.size()) - gaps(node);
    float shares = 0;
    for (const PlanNode& part : node.parts) {
      rest -= along(need(part));
      shares += part.share;
    }
    const auto whole = [&](float px) {
      return pixel_ratio > 0 ? std::floor(px * pixel_ratio) / pixel_ratio : px;
    };
    float at = across ? box.min.x : box.min.y;
    float gap = length(node.gap);
    if (shares <= 0) {
      const float spare = std::max(rest, 0.0f);
      if (node.justify == Justify::centre) at += whole(spare / 2);
      if (node.justify == Justify::end) at += whole(spare);
      if (node.justify == Justify::spread && node.parts.size() > 1) {
        gap += whole(spare / static_cast<float>(node.parts.size() - 1));
      }
    }
    for (const PlanNode& part : node.parts) {
      float size = along(need(part));
      if (shares > 0) size += whole(std::max(rest, 0.0f) * part.share / shares);
      const Rect inner = across ? Rect{{at, box.min.y}, {at + size, box.max.y}}
                                : Rect{{box.min.x, at}, {box.max.x, at + size}};
      arrange(part, inner, areas);
      at += size + gap;
    }
  }
};

Size card_of_width(float width, float aspect) { return {width, width / aspect}; }

Size usable(Size window, float margin) {
  const auto less = [&](float v) { return std::isfinite(v) ? std::max(v - 2 * margin, 0.0f) : 0.0f; };
  return {less(window.width), less(window.height)};
}

/// The widest card with which the plan fits, by bisection: what a node needs never shrinks as the card grows.
float widest(const Plan& plan, std::span<const ZonePlace> places, Size room) {
  const auto fits = [&](float width) {
    const Size need = Solver{places, card_of_width(width, plan.aspect)}.need(plan.root);
    return need.width <= room.width && need.height <= room.height;
  };
  // Widths are tried in steps of 1/128 px: on one lattice for all windows, so that a larger window never
  // gives a smaller card by the way the halves happen to fall.
  float limit = std::max(room.width, room.height * plan.aspect);
  if (plan.largest_width > 0) limit = std::min(limit, plan.largest_width);
  constexpr float lattice = 128;
  std::int64_t low = 0;
  std::int64_t high = static_cast<std::int64_t>(std::min(limit, 1e6f) * lattice) + 1;
  while (high - low > 1) {
    const std::int64_t middle = (low + high) / 2;
    (fits(static_cast<float>(middle) / lattice) ? low : high) = middle;
  }
  return static_cast<float>(low) / lattice;
}

void check_node(const PlanNode& node, std::span<const ZonePlace> places, std::vector<bool>& seen) {
  check_range("plan", "space", node.space, 0, 1000);
  check_range("plan", "gap", node.gap, 0, 100);
  check_range("plan", "share", node.share, 0, 1000);
  if (node.kind == PlanKind::zone) {
    if (!node.zone || node.zone.value > places.size()) {
      throw Error(fmt::format("plan: zone {} is not on the table: 1 to {} is expected", node.zone.value,
                              places.size()));
    }
    if (seen[node.zone.value - 1]) {
      throw Error(fmt::format("plan: zone {} is named twice: each zone has one place", node.zone.value));
    }
    seen[node.zone.value - 1] = true;
  } else if (node.kind != PlanKind::space && node.parts.empty()) {
    throw Error("plan: an across or down has no parts: at least one is expected");
  }
  for (const PlanNode& part : node.parts) check_node(part, places, seen);
}

}  // namespace

PlanNode across(std::vector<PlanNode> parts, float gap) {
  return {.kind = PlanKind::across, .parts = std::move(parts), .gap = gap};
}
PlanNode down(std::vector<PlanNode> parts, float gap) {
  return {.kind = PlanKind::down, .parts = std::move(parts), .gap = gap};
}
PlanNode zone(ZoneId id, float share) { return {.kind = PlanKind::zone, .zone = id, .share = share}; }
PlanNode space(float card_widths) { return {.kind = PlanKind::space, .space = card_widths}; }

void check(const Plan& plan, std::span<const ZonePlace> places) {
  check_range("plan", "margin", plan.margin, 0, 10'000);
  check_range("plan", "aspect", plan.aspect, 0.05f, 20);
  check_range("plan", "largest width", plan.largest_width, 0, 1e6f);
  for (const ZonePlace& place : places) {
    check(place.layout);
    check_range("zone", "longest", static_cast<float>(place.longest), 0, 100'000);
  }
  std::vector<bool> seen(places.size(), false);
  check_node(plan.root, places, seen);
  const auto missing = std::find(seen.begin(), seen.end(), false);
  if (missing != seen.end()) {
    throw Error(fmt::format("plan: zone {} has no place: every zone of the table is expected in the plan",
                            missing - seen.begin() + 1));
  }
}

PlanResult solve(const Plan& plan, std::span<const ZonePlace> places, Size window, float pixel_ratio,
                 std::span<Rect> areas) {
  const float ratio = std::isfinite(pixel_ratio) && pixel_ratio > 0 ? pixel_ratio : 1;
  const Size room = usable(window, plan.margin);
  PlanResult result;
  result.unsnapped_card = card_of_width(widest(plan, places, room), plan.aspect);
  const auto whole = [&](float px) { return std::floor(px * ratio) / ratio; };
  result.card = {whole(result.unsnapped_card.width), whole(result.unsnapped_card.height)};
  result.fits = result.card.width > 0 && result.card.height > 0;
  const Solver solver{places, result.card, ratio};
  const Vec2 corner = window.width > 0 && window.height > 0 && std::isfinite(window.width + window.height)
                          ? Vec2{(window.width - room.width) / 2, (window.height - room.height) / 2}
                          : Vec2{};
  solver.arrange(plan.root, rect_at(corner, room), areas);
  return result;
}

std::size_t best_plan(std::span<const Plan> plans, std::span<const ZonePlace> places, Size window) {
  std::size_t best = 0;
  float best_width = -1;
  for (std::size_t i = 0; i < plans.size(); ++i) {
    const float width = widest(plans[i], places, usable(window, plans[i].margin));
    if (width > best_width) {
      best = i;
      best_width = width;
    }
  }
  return best;
}

}  // namespace apsidon
