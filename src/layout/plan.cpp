#include "apsidon/layout/plan.hpp"

#include <cstdint>

#include "geometry/options.hpp"
#include "layout/common.hpp"
#include "layout/fields.hpp"
#include "layout/solver.hpp"

namespace apsidon {
using namespace layout_detail;

namespace {

struct Seen {
  std::vector<bool> zones;
  std::vector<bool> panels;
  std::size_t nodes = 0;
};

void check_length(std::string_view what, const Length& length) {
  geometry_detail::check_range(fmt::format("plan: {} in cards", what), length.cards, 0, 1000);
  geometry_detail::check_range(fmt::format("plan: {} in px", what), length.px, 0, 100'000);
}

void see(std::string_view what, std::uint32_t id, std::vector<bool>& seen) {
  if (id == 0 || id > seen.size()) {
    throw Error(fmt::format("plan: {} {} is not on the table: 1 to {} is expected", what, id, seen.size()));
  }
  if (seen[id - 1])
    throw Error(fmt::format("plan: {} {} is named twice: each {} has one place", what, id, what));
  seen[id - 1] = true;
}

void check_node(const PlanNode& node, Seen& seen, int depth = 1) {
  if (depth > most_nesting) {
    throw Error(fmt::format("plan: it is nested deeper than {} levels: fewer are expected", most_nesting));
  }
  if (++seen.nodes > most_plan_nodes) {
    throw Error(fmt::format("plan: more than {} nodes: fewer are expected", most_plan_nodes));
  }
  check_length("space", node.space);
  check_length("gap", node.gap);
  check_length("width", node.width);
  check_length("height", node.height);
  check_length("least", node.least);
  if (node.most) check_length("most", *node.most);
  geometry_detail::check_range("plan: share", node.share, 0, 1000);
  switch (node.kind) {
    case PlanKind::zone:
      see("zone", node.zone.value, seen.zones);
      break;
    case PlanKind::panel:
      see("panel", node.panel.value, seen.panels);
      break;
    case PlanKind::space:
      break;
    case PlanKind::formation:
      if (node.places.empty()) throw Error("plan: a formation has no slots: at least one is expected");
      for (const FormationSlot& place : node.places) {
        geometry_detail::check_range("plan: slot x", place.at.x, -100'000, 100'000);
        geometry_detail::check_range("plan: slot y", place.at.y, -100'000, 100'000);
        see("zone", place.zone.value, seen.zones);
      }
      break;
    case PlanKind::across:
    case PlanKind::down:
    case PlanKind::layers:
      if (node.parts.empty())
        throw Error("plan: an across, down or layers has no parts: at least one is expected");
      break;
  }
  for (const PlanNode& part : node.parts) check_node(part, seen, depth + 1);
}

/// An overlay is no place for cards.
void check_inside(const PlanNode& node) {
  if (node.kind == PlanKind::zone || node.kind == PlanKind::formation) {
    throw Error("plan: a zone within an overlay: panels, spaces and lists of them are expected");
  }
  for (const PlanNode& part : node.parts) check_inside(part);
}

float finite_or(float value, float otherwise) { return std::isfinite(value) ? value : otherwise; }

/// The window less its insets, and less the margin; empty where they leave nothing.
Rect inner(const PlanWindow& window, float margin) {
  const auto length = [](float v) { return std::max(finite_or(v, 0), 0.0f); };
  const Insets& i = window.insets;
  const Size size{length(window.size.width), length(window.size.height)};
  Rect r{{length(i.left) + margin, length(i.top) + margin},
         {size.width - length(i.right) - margin, size.height - length(i.bottom) - margin}};
  const auto empty = [](float& low, float& high) {
    if (high < low) low = high = std::max((low + high) / 2, 0.0f);
  };
  empty(r.min.x, r.max.x);
  empty(r.min.y, r.max.y);
  return r;
}

float ratio_of(const PlanWindow& window) {
  return std::isfinite(window.pixel_ratio) && window.pixel_ratio > 0 ? window.pixel_ratio : 1;
}

/// The widest card with which the plan fits, on a lattice of 1/128 px that is the same for all windows, so
/// that a larger window never gives a smaller card by a rounding. What is needed is convex in the width:
/// Newton's method, begun above, never steps below the answer but for roundings, which the last loops put
/// right.
float widest(const Plan& plan, std::span<const ZoneLayout> places, Size room,
             std::span<const Rect> units = {}) {
  constexpr float lattice = 128;
  const auto need = [&](float width) { return need_of(plan, places, {width, width / plan.aspect}, units); };
  const auto fits = [&](std::int64_t step) {
    const Need n = need(static_cast<float>(step) / lattice);
    return n.width.px <= room.width && n.height.px <= room.height;
  };
  float limit = std::min(std::max(room.width, room.height * plan.aspect), 1e6f);
  if (plan.largest_width > 0) limit = std::min(limit, plan.largest_width);
  float width = limit;
  for (int i = 0; i < 30 && width > 0; ++i) {
    const Need n = need(width);
    const auto back = [&](const Grown& length, float most) {
      return length.px > most && length.slope > 0 ? (length.px - most) / length.slope : 0;
    };
    const float step = std::max(back(n.width, room.width), back(n.height, room.height));
    if (step < 0.5f / lattice) break;
    width -= step;
  }
  auto step = static_cast<std::int64_t>(std::floor(std::max(width, 0.0f) * lattice));
  const auto last = static_cast<std::int64_t>(std::floor(limit * lattice));
  while (step > 0 && !fits(step)) --step;
  while (step < last && fits(step + 1)) ++step;
  return static_cast<float>(step) / lattice;
}

/// The card in device pixels: the largest multiple of the art where that is asked for, else rounded down.
Size on_device(const Plan& plan, Size exact, float ratio) {
  const Size& art = plan.whole_multiples_of;
  if (!art.empty()) {
    constexpr float hair = 1e-4f;
    const float times =
        std::floor(std::min(exact.width * ratio / art.width, exact.height * ratio / art.height) + hair);
    if (times >= 1) return art * (times / ratio);
  }
  const auto whole = [&](float px) { return std::floor(px * ratio) / ratio; };
  return {whole(exact.width), whole(exact.height)};
}

}  // namespace

PlanNode across(std::vector<PlanNode> parts, float gap) {
  return {.kind = PlanKind::across, .parts = std::move(parts), .gap = {.cards = gap}};
}
PlanNode down(std::vector<PlanNode> parts, float gap) {
  return {.kind = PlanKind::down, .parts = std::move(parts), .gap = {.cards = gap}};
}
PlanNode layers(std::vector<PlanNode> parts) { return {.kind = PlanKind::layers, .parts = std::move(parts)}; }
PlanNode placed(PlanNode part, Align across, Align down) {
  part.place = Placement{across, down};
  return part;
}
PlanNode zone(ZoneId id, float share) { return {.kind = PlanKind::zone, .zone = id, .share = share}; }
PlanNode panel(PanelId id, Length width, Length height, float share) {
  return {.kind = PlanKind::panel, .panel = id, .width = width, .height = height, .share = share};
}
PlanNode space(float card_widths) { return {.kind = PlanKind::space, .space = {.cards = card_widths}}; }
PlanNode formation(std::vector<FormationSlot> places, float share) {
  return {.kind = PlanKind::formation, .places = std::move(places), .share = share};
}

std::vector<Facing> facings(std::size_t seats) {
  if (seats == 2) return {Facing::bottom, Facing::top};
  std::vector<Facing> out;
  for (std::size_t i = 0; i < seats; ++i) {
    out.push_back(i == 0           ? Facing::bottom
                  : i == 1         ? Facing::left
                  : i + 1 == seats ? Facing::right
                                   : Facing::top);
  }
  return out;
}

PlanNode seats(std::vector<PlanNode> seats, PlanNode middle, float gap) {
  const std::vector<Facing> sides = facings(seats.size());
  std::vector<PlanNode> by_side[4];
  for (std::size_t i = 0; i < seats.size(); ++i) {
    by_side[static_cast<std::size_t>(sides[i])].push_back(std::move(seats[i]));
  }
  const auto take = [&](Facing side, std::vector<PlanNode>& into) {
    std::vector<PlanNode>& from = by_side[static_cast<std::size_t>(side)];
    if (from.size() == 1) into.push_back(std::move(from.front()));
    if (from.size() > 1) {
      into.push_back(across(std::move(from), gap));
      into.back().justify = Justify::spread;
    }
  };
  std::vector<PlanNode> middle_row;
  take(Facing::left, middle_row);
  middle.share = middle.share > 0 ? middle.share : 1;
  middle_row.push_back(std::move(middle));
  take(Facing::right, middle_row);
  std::vector<PlanNode> rows;
  take(Facing::top, rows);
  rows.push_back(across(std::move(middle_row), gap));
  rows.back().share = 1;
  take(Facing::bottom, rows);
  return down(std::move(rows), gap);
}

void check(const ZoneLayout& layout) { geometry_detail::check_options("zone", layout); }

void check(const Plan& plan, std::span<const ZoneLayout> places, std::size_t panels) {
  geometry_detail::check_text("plan: name", plan.name, most_name_bytes);
  geometry_detail::check_range("plan: margin", plan.margin, 0, 10'000);
  geometry_detail::check_range("plan: aspect", plan.aspect, 0.05f, 20);
  geometry_detail::check_range("plan: largest width", plan.largest_width, 0, 1e6f);
  if (plan.whole_multiples_of != Size{}) {
    geometry_detail::check_range("plan: multiples of width", plan.whole_multiples_of.width, 1, 100'000);
    geometry_detail::check_range("plan: multiples of height", plan.whole_multiples_of.height, 1, 100'000);
  }
  for (const ZoneLayout& place : places) check(place);
  Seen seen{std::vector<bool>(places.size(), false), std::vector<bool>(panels, false)};
  check_node(plan.root, seen);
  for (const Overlay& overlay : plan.overlays) {
    check_length("overlay width", overlay.width);
    check_length("overlay height", overlay.height);
    check_length("overlay padding", overlay.padding);
    see("panel", overlay.panel.value, seen.panels);
    check_node(overlay.inside, seen);  // not nested too deep
    check_inside(overlay.inside);
  }
  for (std::size_t i = 0; i < places.size(); ++i) {
    if (seen.zones[i] != places[i].off_table.has_value()) continue;
    throw Error(
        places[i].off_table
            ? fmt::format("plan: zone {} is off the table and has a place: none is expected", i + 1)
            : fmt::format("plan: zone {} has no place: every zone of the table is expected in the plan",
                          i + 1));
  }
}

namespace {

bool has_panel(const PlanNode& node, PanelId panel) {
  return (node.kind == PlanKind::panel && node.panel == panel) ||
         std::any_of(node.parts.begin(), node.parts.end(),
                     [&](const PlanNode& part) { return has_panel(part, panel); });
}

/// Exchanges left and right of areas within a room: from device pixel to device pixel, where that leaves all
/// of them in it.
void mirror(const Rect& room, float ratio, std::span<Rect> areas) {
  constexpr float rounding = 0.01f;
  const auto within = [&](float left, float right) {
    return left >= room.min.x - rounding && right <= room.max.x + rounding;
  };
  const float whole =
      std::ceil(room.min.x * ratio - rounding) / ratio + std::floor(room.max.x * ratio + rounding) / ratio;
  const bool stays = std::all_of(areas.begin(), areas.end(), [&](const Rect& area) {
    return !within(area.min.x, area.max.x) || within(whole - area.max.x, whole - area.min.x);
  });
  const float sum = stays ? whole : room.min.x + room.max.x;
  for (Rect& area : areas) {
    if (area == Rect{}) continue;  // of what the plan does not show
    const float left = sum - area.max.x;
    area.max.x = sum - area.min.x;
    area.min.x = left;
  }
}

void mirror(const Plan& plan, const PlanWindow& window, std::span<Rect> areas, std::span<Rect> panels) {
  const float ratio = ratio_of(window);
  mirror(inner(window, plan.margin), ratio, areas);
  for (std::uint32_t i = 0; i < panels.size(); ++i) {
    const bool over = std::any_of(plan.overlays.begin(), plan.overlays.end(), [&](const Overlay& overlay) {
      return overlay.panel == PanelId{i + 1} || has_panel(overlay.inside, {i + 1});
    });
    mirror(inner(window, over ? 0 : plan.margin), ratio, panels.subspan(i, 1));
  }
}

}  // namespace

namespace {

/// Where a zone that is off the table lies: beyond the middle of an edge, where nobody sees what lies there.
Rect beyond(Facing edge, Size window, Size card) {
  const float far = 2 * card.height;  // its longer side, whichever way it lies
  Vec2 middle{window.width / 2, window.height / 2};
  if (edge == Facing::left) middle.x = -far;
  if (edge == Facing::right) middle.x = window.width + far;
  if (edge == Facing::top) middle.y = -far;
  if (edge == Facing::bottom) middle.y = window.height + far;
  return rect_around(middle, card);
}

}  // namespace

PlanResult solve(const Plan& plan, std::span<const ZoneLayout> places, const PlanWindow& window,
                 std::span<Rect> areas, std::span<Rect> panels, std::span<const char> empty) {
  const float ratio = ratio_of(window);
  const Rect room = inner(window, plan.margin);
  PlanResult result;
  measure_least(places, {1, 1 / plan.aspect}, areas);
  const float width = widest(plan, places, room.size(), areas);
  result.unsnapped_card = {width, width / plan.aspect};
  result.card = on_device(plan, result.unsnapped_card, ratio);
  result.fits = result.card.width > 0 && result.card.height > 0;
  measure_zones(places, result.card, areas);
  arrange(plan, places, result.card, ratio, room, inner(window, 0), {areas, panels, empty});
  if (plan.mirrored) mirror(plan, window, areas, panels);
  const Size whole = inner({.size = window.size}, 0).size();
  for (std::size_t i = 0; i < places.size(); ++i) {
    if (!places[i].off_table) continue;
    areas[i] = beyond(side_in(plan, *places[i].off_table), whole, result.card * places[i].factor);
  }
  return result;
}

std::size_t best_plan(std::span<const Plan> plans, std::span<const ZoneLayout> places,
                      const PlanWindow& window, std::optional<std::size_t> current) {
  constexpr float worth_a_change = 1.04f;
  const auto width_of = [&](const Plan& plan) {
    return widest(plan, places, inner(window, plan.margin).size());
  };
  std::size_t best = 0;
  float best_width = -1;
  for (std::size_t i = 0; i < plans.size(); ++i) {
    const float width = width_of(plans[i]);
    if (width > best_width) {
      best = i;
      best_width = width;
    }
  }
  if (!current || *current >= plans.size()) return best;
  return best_width > width_of(plans[*current]) * worth_a_change ? best : *current;
}

}  // namespace apsidon
