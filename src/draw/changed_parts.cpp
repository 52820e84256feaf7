#include "draw/changed_parts.hpp"

#include <algorithm>

#include "draw/draw_frame.hpp"

namespace apsidon::draw_detail {
namespace {

Rect united(const Rect& a, const Rect& b) {
  return {{std::min(a.min.x, b.min.x), std::min(a.min.y, b.min.y)},
          {std::max(a.max.x, b.max.x), std::max(a.max.y, b.max.y)}};
}

Rect shared(const Rect& a, const Rect& b) {
  return {{std::max(a.min.x, b.min.x), std::max(a.min.y, b.min.y)},
          {std::min(a.max.x, b.max.x), std::min(a.max.y, b.max.y)}};
}

float area_of(const Rect& r) { return r.width() * r.height(); }

}  // namespace

/// Boxes that touch become one; of too many the two that waste least.
void ChangedParts::add(Rect box) {
  if (box.empty()) return;
  for (std::size_t i = 0; i < boxes_.size();) {
    if (!meet(boxes_[i], box)) {
      ++i;
      continue;
    }
    box = united(box, boxes_[i]);
    boxes_[i] = boxes_.back();
    boxes_.pop_back();
    i = 0;
  }
  boxes_.push_back(box);
  constexpr std::size_t most = 12;
  if (boxes_.size() <= most) return;
  std::size_t a = 0, b = 1;
  float least = 1e30f;
  for (std::size_t i = 0; i < boxes_.size(); ++i) {
    for (std::size_t k = i + 1; k < boxes_.size(); ++k) {
      const float wasted = area_of(united(boxes_[i], boxes_[k])) - area_of(boxes_[i]) - area_of(boxes_[k]);
      if (wasted >= least) continue;
      least = wasted;
      a = i;
      b = k;
    }
  }
  const Rect both = united(boxes_[a], boxes_[b]);
  boxes_.erase(boxes_.begin() + static_cast<std::ptrdiff_t>(b));
  boxes_.erase(boxes_.begin() + static_cast<std::ptrdiff_t>(a));
  add(both);
}

/// Both lists are in the order of drawing, and an item keeps its place in that order while it is the same.
void ChangedParts::compare_items(const Frame& frame, std::span<const Shadow> shadows) {
  const auto& was = before_.items;
  const auto& is = frame.items;
  std::size_t a = 0, b = 0;
  while (a < was.size() || b < is.size()) {
    const bool gone = b == is.size() || (a < was.size() && was[a].order < is[b].order);
    const bool came = a == was.size() || (b < is.size() && is[b].order < was[a].order);
    if (!gone && !came && was[a] == is[b] && shadows_[a] == shadows[b]) {
      ++a;
      ++b;
      continue;
    }
    if (!came) add(reach_of(was[a], shadows_[a]));
    if (!gone) add(reach_of(is[b], shadows[b]));
    a += came ? 0u : 1u;
    b += gone ? 0u : 1u;
  }
}

void ChangedParts::compare_panels(const Frame& frame) {
  constexpr float reach = 5;
  const std::size_t n = std::max(frame.panels.size(), before_.panels.size());
  for (std::size_t i = 0; i < n; ++i) {
    const FramePanel* was = i < before_.panels.size() ? &before_.panels[i] : nullptr;
    const FramePanel* is = i < frame.panels.size() ? &frame.panels[i] : nullptr;
    if (was && is && *was == *is) continue;
    if (was) add(grown(was->area, reach));
    if (is) add(grown(is->area, reach));
  }
}

void ChangedParts::compare_badges(const Frame& frame, std::span<const Shadow> shadows) {
  const auto same = [](const FrameBadge& a, const FrameBadge& b) {
    return a.card == b.card && a.text == b.text && a.place == b.place;
  };
  if (std::equal(before_.badges.begin(), before_.badges.end(), frame.badges.begin(), frame.badges.end(),
                 same))
    return;
  const auto add_all = [&](const Frame& of, std::span<const Shadow> with) {
    for (const FrameBadge& badge : of.badges) {
      if (badge.item < of.items.size()) add(reach_of(of.items[badge.item], with[badge.item]));
    }
  };
  add_all(before_, shadows_);
  add_all(frame, shadows);
}

std::span<const Rect> ChangedParts::of(const Frame& frame, std::span<const Shadow> shadows) {
  boxes_.clear();
  const Rect window = rect_at({0, 0}, frame.window);
  const bool same = before_.window == frame.window && before_.pixel_ratio == frame.pixel_ratio &&
                    before_.card == frame.card && before_.corner_radius == frame.corner_radius &&
                    before_.revision > 0;
  if (same) {
    compare_items(frame, shadows);
    compare_badges(frame, shadows);
    compare_panels(frame);
    if (before_.sweep != frame.sweep) {
      add(grown(before_.sweep, 2));
      add(grown(frame.sweep, 2));
    }
    for (const Rect& box : again_) add(box);
    for (Rect& box : boxes_) box = shared(box, window);
    std::erase_if(boxes_, [](const Rect& box) { return box.empty(); });
  } else {
    boxes_.push_back(window);
  }
  again_.clear();
  before_ = frame;
  before_.revision = 1;
  shadows_.assign(shadows.begin(), shadows.end());
  return boxes_;
}

}  // namespace apsidon::draw_detail
