#include "apsidon/layout/layout.hpp"

#include <utility>

#include "geometry/options.hpp"
#include "geometry/thrown.hpp"
#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

namespace {

struct Name {
  std::string_view operator()(const SlotLayout&) const { return "slot"; }
  std::string_view operator()(const PileLayout&) const { return "pile"; }
  std::string_view operator()(const ColumnLayout&) const { return "column"; }
  std::string_view operator()(const SpreadLayout&) const { return "spread"; }
  std::string_view operator()(const HandLayout&) const { return "hand"; }
  std::string_view operator()(const GridLayout&) const { return "grid"; }
  std::string_view operator()(const RingLayout&) const { return "ring"; }
  std::string_view operator()(const FreeLayout&) const { return "free"; }
  std::string_view operator()(const CustomLayout& l) const { return l.name; }
};

/// The same layout with its least strips as wide as the preferred ones.
struct Preferred {
  ColumnLayout operator()(ColumnLayout l) const {
    l.least_open_strip = l.open_strip;
    l.least_covered_strip = l.covered_strip;
    return l;
  }
  SpreadLayout operator()(SpreadLayout l) const {
    l.least_spacing = l.spacing;
    return l;
  }
  HandLayout operator()(HandLayout l) const {
    l.least_spacing = l.spacing;
    return l;
  }
};

}  // namespace

namespace {

thread_local int custom_layouts = 0;
thread_local std::optional<std::string> size_thrown;

/// What a function of a layout of the game's own threw.
template <class Function>
std::optional<std::string> thrown_by_custom(Function function) {
  ++custom_layouts;
  auto thrown = geometry_detail::thrown_by(function);
  --custom_layouts;
  return thrown;
}

}  // namespace

bool layout_detail::in_custom_layout() { return custom_layouts > 0; }

std::optional<std::string> layout_detail::take_size_thrown() {
  return std::exchange(size_thrown, std::nullopt);
}

void check(const CustomLayout& l) {
  if (l.name.empty()) throw Error("layout: the name of a layout of one's own is empty: a name is expected");
  geometry_detail::check_name("layout: name", l.name);
  if (l.functions && (!l.functions->lay_out || !l.functions->least_size)) {
    throw Error(
        fmt::format("layout '{}': a function is missing: lay_out and least_size are expected", l.name));
  }
}

LayoutReport lay_out(const CustomLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  if (!l.functions) return lay_out(SpreadLayout{}, in, poses);
  const PlayerFrame side(in);
  for (std::size_t i = 0; i < in.cards.size(); ++i) poses[i] = side.pose(0, 0, in.cards[i]);
  LayoutReport report;
  if (auto thrown = thrown_by_custom([&] { report = l.functions->lay_out(in, poses); })) {
    report = lay_out(SpreadLayout{}, in, poses);
    report.thrown = *std::move(thrown);
    return report;
  }
  for (std::size_t i = 0; i < in.cards.size(); ++i) {
    const Vec2 at = poses[i].centre;
    constexpr float farthest = 1e7f;
    const bool near = std::abs(at.x) <= farthest && std::abs(at.y) <= farthest;
    if (!near || !is_finite(poses[i])) poses[i] = side.pose(0, 0, in.cards[i]);
  }
  return report;
}

Size least_size(const CustomLayout& l, const LayoutNeed& need, Size card) {
  if (!l.functions) return least_size(SpreadLayout{}, need, card);
  Size size;
  auto thrown = thrown_by_custom([&] { size = l.functions->least_size(need, card); });
  if (!thrown) return size;
  size_thrown = std::move(thrown);
  return least_size(SpreadLayout{}, need, card);
}

LayoutAxis axis_of(const Layout& layout) {
  if (const auto* own = std::get_if<CustomLayout>(&layout); own && own->functions)
    return own->functions->axis;
  const bool down =
      std::holds_alternative<ColumnLayout>(layout) || std::holds_alternative<GridLayout>(layout);
  return down ? LayoutAxis::down : LayoutAxis::across;
}

std::string_view name_of(const Layout& layout) { return std::visit(Name{}, layout); }

void check(const Layout& layout) {
  std::visit([](const auto& l) { check(l); }, layout);
}

LayoutReport lay_out(const Layout& layout, const LayoutInput& in, std::span<Pose> poses) {
  return std::visit([&](const auto& l) { return lay_out(l, in, poses); }, layout);
}

Size least_size(const Layout& layout, const LayoutNeed& need, Size card) {
  return std::visit([&](const auto& l) { return least_size(l, need, card); }, layout);
}

Size preferred_size(const Layout& layout, const LayoutNeed& need, Size card) {
  return std::visit(
      [&](const auto& l) {
        if constexpr (requires { Preferred{}(l); }) {
          return least_size(Preferred{}(l), need, card);
        } else {
          return least_size(l, need, card);
        }
      },
      layout);
}

Pose lone_pose(const Layout& layout, const Rect& area, Size card, Facing facing) {
  if (const auto* pile = std::get_if<PileLayout>(&layout); pile && pile->untidy_angle != Angle{}) {
    PileLayout tidy = *pile;
    tidy.untidy_angle = {};
    tidy.untidy_offset = 0;
    return lone_pose(tidy, area, card, facing);
  }
  const LaidCard one;
  Pose pose;
  lay_out(layout, {.area = area, .card = card, .cards = {&one, 1}, .facing = facing}, {&pose, 1});
  return pose;
}

Pose snapped(const Pose& pose, Size card, float pixel_ratio) {
  if (pose.rotation != 0) return pose;
  const auto snap = [&](float centre, float length) {
    const float half = length * pose.scale / 2;
    return std::round((centre - half) * pixel_ratio) / pixel_ratio + half;
  };
  Pose out = pose;
  out.centre = {snap(pose.centre.x, card.width), snap(pose.centre.y, card.height)};
  return out;
}

Pose snapped(const Pose& pose, Size card, float pixel_ratio, const Rect& area) {
  Pose out = snapped(pose, card, pixel_ratio);
  if (pose.rotation != 0) return out;
  constexpr float hair = 1e-3f;
  const auto keep = [&](float exact, float length, float low, float high, float& centre) {
    const float half = length * pose.scale / 2;
    const auto within = [&](float at) { return at - half >= low - hair && at + half <= high + hair; };
    if (within(centre) || !within(exact)) return;
    const float other = centre + (centre > exact ? -1 : 1) / pixel_ratio;
    centre = within(other) ? other : exact;
  };
  keep(pose.centre.x, card.width, area.min.x, area.max.x, out.centre.x);
  keep(pose.centre.y, card.height, area.min.y, area.max.y, out.centre.y);
  return out;
}

}  // namespace apsidon
