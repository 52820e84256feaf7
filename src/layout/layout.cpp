#include "apsidon/layout/layout.hpp"

#include <cmath>

namespace apsidon {
namespace {

struct Name {
  std::string_view operator()(const SlotLayout&) const { return "slot"; }
  std::string_view operator()(const PileLayout&) const { return "pile"; }
  std::string_view operator()(const ColumnLayout&) const { return "column"; }
  std::string_view operator()(const HandLayout&) const { return "hand"; }
  std::string_view operator()(const GridLayout&) const { return "grid"; }
};

}  // namespace

std::string_view name_of(const Layout& layout) { return std::visit(Name{}, layout); }

void check(const Layout& layout) {
  std::visit([](const auto& l) { check(l); }, layout);
}

LayoutReport lay_out(const Layout& layout, const LayoutInput& in, std::span<Pose> poses) {
  return std::visit([&](const auto& l) { return lay_out(l, in, poses); }, layout);
}

Size least_size(const Layout& layout, std::size_t cards, Size card) {
  return std::visit([&](const auto& l) { return least_size(l, cards, card); }, layout);
}

Pose lone_pose(const Layout& layout, const Rect& area, Size card) {
  const LaidCard one;
  Pose pose;
  lay_out(layout, {.area = area, .card = card, .cards = {&one, 1}}, {&pose, 1});
  return pose;
}

Pose snapped(const Pose& pose, Size card, float pixel_ratio) {
  if (pose.rotation != 0) return pose;
  const auto snap = [&](float centre, float length) {
    const float corner = centre - length / 2;
    return std::round(corner * pixel_ratio) / pixel_ratio + length / 2;
  };
  Pose out = pose;
  out.centre = {snap(pose.centre.x, card.width), snap(pose.centre.y, card.height)};
  return out;
}

}  // namespace apsidon
