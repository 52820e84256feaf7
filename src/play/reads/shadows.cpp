// The shadows of a frame.
#include <algorithm>
#include <cmath>

#include "apsidon/play/frame.hpp"

namespace apsidon {
namespace {

float width_of(const FrameItem& item) {
  return item.size.width *
         std::max(std::hypot(item.matrix.a, item.matrix.b), std::hypot(item.matrix.c, item.matrix.d));
}

Shadow shadow_of(const FrameItem& item) {
  const float w = width_of(item);
  constexpr float held = 0.15f;  // a held card is drawn a little higher
  const float lift = item.lift + (item.marks.held ? held : 0);
  return {.offset = {0, w * (0.018f + 0.11f * lift)},
          .blur = 2 * w * (0.045f + 0.16f * lift),
          .opacity = (0.42f - 0.12f * std::min(lift, 1.0f)) * item.opacity};
}

/// How far the corners of one are from those of the other at the most, px.
float apart(const FrameItem& a, const FrameItem& b) {
  float most = 0;
  for (std::size_t i = 0; i < 4; ++i)
    most = std::max(most, length(a.corners.corners[i] - b.corners.corners[i]));
  return most;
}

}  // namespace

void shadows_of(const Frame& frame, std::vector<Shadow>& out) {
  out.resize(frame.items.size());
  for (std::size_t i = 0; i < frame.items.size(); ++i) {
    const FrameItem& item = frame.items[i];
    out[i] = item.kind == FrameKind::outline ? Shadow{} : shadow_of(item);
    if (i == 0 || item.kind != FrameKind::card) continue;
    const FrameItem& below = frame.items[i - 1];
    if (below.kind != FrameKind::card || below.zone != item.zone || !item.zone) continue;
    // Beyond a twelfth of its width a card shows enough of the one below to darken it.
    const float shows = apart(item, below) / std::max(width_of(item) / 12, 1e-3f);
    out[i].opacity *= std::min(shows, 1.0f);
  }
}

}  // namespace apsidon
