// The preview of a card: where it stands, and how it grows.
#include <algorithm>

#include "apsidon/geometry/quad.hpp"
#include "play/requests/hover.hpp"

namespace apsidon::play_detail {

/// Beside what has to stay free, on the first of the wanted sides that has room, as large as wanted or as the
/// window has room for; empty when there is none.
Rect Hover::preview_beside(const Rect& keep, const Pose& pose, const Arrangement& arrangement) const {
  const Size size = arrangement.card();
  const float gap = options_.zoom_gap;
  const Size whole = arrangement.window().size;
  const Rect window{{gap, gap}, Vec2{whole.width, whole.height} - Vec2{gap, gap}};
  Rect best;
  for (const ZoomSide side : options_.zoom_sides) {
    Rect room = window;
    if (side == ZoomSide::above) room.max.y = keep.min.y - gap;
    if (side == ZoomSide::below) room.min.y = keep.max.y + gap;
    if (side == ZoomSide::left) room.max.x = keep.min.x - gap;
    if (side == ZoomSide::right) room.min.x = keep.max.x + gap;
    if (room.empty()) continue;
    const float fits = std::min(room.width() / size.width, room.height() / size.height);
    const Size shown = size * std::min(options_.zoom, fits);
    const Vec2 half{shown.width / 2, shown.height / 2};
    const Vec2 wanted = side == ZoomSide::above   ? Vec2{pose.centre.x, room.max.y - half.y}
                        : side == ZoomSide::below ? Vec2{pose.centre.x, room.min.y + half.y}
                        : side == ZoomSide::left  ? Vec2{room.max.x - half.x, pose.centre.y}
                                                  : Vec2{room.min.x + half.x, pose.centre.y};
    const Vec2 middle{
        std::clamp(wanted.x, room.min.x + half.x, std::max(room.max.x - half.x, room.min.x + half.x)),
        std::clamp(wanted.y, room.min.y + half.y, std::max(room.max.y - half.y, room.min.y + half.y))};
    // A side that would show it smaller than wanted gives way to one that does not.
    if (shown.width > best.width() * 1.01f) best = rect_around(middle, shown);
    if (shown.width >= size.width * options_.zoom * 0.99f) break;
  }
  // No larger than the card itself, it would show nothing that is not seen already.
  return best.width() > size.width * pose.scale * 1.1f ? best : Rect{};
}

/// Where the preview of a card stands: beside the card as it stands out; of a hand, and where a zone asks for
/// that, clear of the whole zone, and so of the way to its neighbours. Where there is no room for that, over
/// the others of its zone, rather than not at all.
Rect Hover::preview_area(const TableSetup& setup, const Arrangement& arrangement, CardId id) const {
  const Card* card = setup.table.card(id);
  if (!card) return {};
  const Pose& pose = arrangement.resting(*setup.table.slot(id));
  const Rect own = bounds(corners(pose, arrangement.card()));
  const bool clear_of_zone = traits_of(setup.layout_of(card->zone).kind).previews_clear;
  if (!clear_of_zone && !setup.handling_of(card->zone).zooms_beside_zone)
    return preview_beside(own, pose, arrangement);
  const Rect& area = arrangement.area(card->zone);
  const Rect zone{{std::min(own.min.x, area.min.x), std::min(own.min.y, area.min.y)},
                  {std::max(own.max.x, area.max.x), std::max(own.max.y, area.max.y)}};
  const Rect clear = preview_beside(zone, pose, arrangement);
  return clear.empty() ? preview_beside(own, pose, arrangement) : clear;
}

/// This one comes from now on, and all others go as they came.
void Hover::show(CardId card, double own, const Feel& feel) {
  std::erase_if(shown_,
                [&](const ShownPreview& p) { return p.share.goal() == 0 && own >= p.share.ends_at(); });
  const bool there =
      std::any_of(shown_.begin(), shown_.end(), [&](const ShownPreview& p) { return p.card == card; });
  if (card && !there) shown_.push_back({.card = card});
  for (ShownPreview& p : shown_) {
    const float to = p.card == card ? 1.0f : 0.0f;
    if (p.share.goal() != to) p.share.go(to, feel.zoom, own);
  }
}

void Hover::previews(const TableSetup& setup, const Arrangement& arrangement, double own,
                     std::vector<Preview>& out) const {
  out.clear();
  if (arrangement.card().empty()) return;
  const auto add = [&](const ShownPreview& p) {
    const float share = p.share.at(own);
    if (!setup.table.card(p.card) || (p.share.goal() == 0 && !(share > 0))) return;
    const Rect area = preview_area(setup, arrangement, p.card);
    if (area.empty()) return;
    const Pose& from = arrangement.resting(*setup.table.slot(p.card));
    Preview preview{.card = p.card,
                    .pose = {.centre = from.centre + (area.centre() - from.centre) * share},
                    .opacity = std::clamp(share * 2, 0.0f, 1.0f)};
    const float size = area.width() / arrangement.card().width;
    preview.pose.scale = std::max(from.scale + (size - from.scale) * share, 0.0f);
    out.push_back(preview);
  };
  for (const ShownPreview& p : shown_) {
    if (p.share.goal() == 0) add(p);
  }
  for (const ShownPreview& p : shown_) {
    if (p.share.goal() != 0) add(p);
  }
}

bool Hover::preview_grew(double drawn, double own) const {
  return own != drawn && std::any_of(shown_.begin(), shown_.end(),
                                     [&](const ShownPreview& p) { return drawn < p.share.ends_at(); });
}

}  // namespace apsidon::play_detail
