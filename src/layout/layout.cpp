#include "apsidon/layout/layout.hpp"

#include <type_traits>
#include <utility>

#include "geometry/each_field.hpp"
#include "geometry/options.hpp"
#include "geometry/thrown.hpp"
#include "layout/common.hpp"
#include "layout/fields.hpp"
#include "layout/kinds.hpp"

namespace apsidon {
using namespace layout_detail;

namespace {

struct Nothing {
  void operator()(std::string_view, const auto&...) const {}
};

/// Makes the least strips of a layout as wide as the preferred ones.
struct ToPreferred : geometry_detail::EachField<Nothing> {
  void least(std::string_view, float& value, float preferred, double) { value = preferred; }
};

template <class Kind>
void check_kind(const Kind& layout) {
  geometry_detail::check_options(fmt::format("{} layout", layout_detail::traits_of(layout).name), layout);
}
void check_kind(const CustomLayout& l) {
  if (l.name.empty()) throw Error("layout: the name of a layout of one's own is empty: a name is expected");
  geometry_detail::check_name("layout: name", l.name);
  if (l.functions && (!l.functions->lay_out || !l.functions->least_size)) {
    throw Error(
        fmt::format("layout '{}': a function is missing: lay_out and least_size are expected", l.name));
  }
}

}  // namespace

namespace {

thread_local int custom_layouts = 0;
thread_local std::optional<std::string> asked_thrown;

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

std::optional<std::string> layout_detail::take_asked_thrown() {
  return std::exchange(asked_thrown, std::nullopt);
}

namespace layout_detail {

LayoutTraits traits_of(const CustomLayout& l) {
  LayoutTraits traits = l.functions ? l.functions->traits : traits_of(SpreadLayout{});
  traits.name = l.name;
  return traits;
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
  asked_thrown = std::move(thrown);
  return least_size(SpreadLayout{}, need, card);
}

std::optional<std::size_t> own_insertion(const Layout& layout, const LayoutInput& in,
                                         std::span<const Pose> neutral, Vec2 point) {
  const auto* own = std::get_if<CustomLayout>(&layout);
  if (!own || !own->functions || !own->functions->insertion) return std::nullopt;
  std::size_t index = 0;
  auto thrown = thrown_by_custom([&] { index = own->functions->insertion(in, neutral, point); });
  if (!thrown) return std::min(index, neutral.size());
  asked_thrown = std::move(thrown);
  return std::nullopt;
}

}  // namespace layout_detail

LayoutTraits traits_of(const Layout& layout) {
  return std::visit([](const auto& l) { return layout_detail::traits_of(l); }, layout);
}

void check(const Layout& layout) {
  std::visit([](const auto& l) { check_kind(l); }, layout);
}

LayoutReport lay_out(const Layout& layout, const LayoutInput& in, std::span<Pose> poses) {
  return std::visit([&](const auto& l) { return layout_detail::lay_out(l, in, poses); }, layout);
}

Size least_size(const Layout& layout, const LayoutNeed& need, Size card) {
  return std::visit([&](const auto& l) { return layout_detail::least_size(l, need, card); }, layout);
}

Size layout_detail::preferred_size(const Layout& layout, const LayoutNeed& need, Size card) {
  const auto preferred = [&]<class Kind>(Kind l) {
    ToPreferred visitor;
    if constexpr (!std::is_same_v<Kind, CustomLayout>) fields(l, visitor);
    return layout_detail::least_size(l, need, card);
  };
  return std::visit(preferred, layout);
}

Pose lone_pose(const Layout& layout, const Rect& area, Size card, Facing facing) {
  const LaidCard one;
  Pose pose;
  const LayoutInput in{.area = area, .card = card, .cards = {&one, 1}, .facing = facing};
  std::visit([&](const auto& l) { layout_detail::lay_out(tidy(l), in, {&pose, 1}); }, layout);
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
