// The preview of a card: where it stands, and how it grows.
#include <algorithm>

#include "apsidon/geometry/quad.hpp"
#include "apsidon/motion/spring.hpp"
#include "play/hover.hpp"

namespace apsidon::play_detail {
namespace {

/// How long a preview grows, seconds.
double growing_seconds(const Feel& feel) {
  const Glide& glide = feel.zoom;
  return glide.spring ? double{settle_seconds(*glide.spring, 1, 0, 2e-4f)} : double{glide.seconds};
}

}  // namespace

/// Where the preview of a card stands: on the first of the wanted sides that has room for it clear of the
/// card's zone, as large as wanted or as the window has room for; empty when there is none.
Rect Hover::preview_area(const TableSetup& setup, const Arrangement& arrangement, CardId id) const {
  const Card* card = setup.table.card(id);
  if (!card) return {};
  const Size size = arrangement.card();
  const float gap = options_.zoom_gap;
  const Size whole = arrangement.window().size;
  const Rect window{{gap, gap}, Vec2{whole.width, whole.height} - Vec2{gap, gap}};
  const Pose& pose = arrangement.resting(*setup.table.slot(id));
  const Rect own = bounds(corners(pose, size));
  const Rect& area = arrangement.area(card->zone);
  // What has to stay free: the card as it stands out, and the way to its neighbours.
  const Rect keep{{std::min(own.min.x, area.min.x), std::min(own.min.y, area.min.y)},
                  {std::max(own.max.x, area.max.x), std::max(own.max.y, area.max.y)}};
  Rect best;
  for (const Side side : options_.zoom_sides) {
    Rect room = window;
    if (side == Side::above) room.max.y = keep.min.y - gap;
    if (side == Side::below) room.min.y = keep.max.y + gap;
    if (side == Side::left) room.max.x = keep.min.x - gap;
    if (side == Side::right) room.min.x = keep.max.x + gap;
    if (room.empty()) continue;
    const float fits = std::min(room.width() / size.width, room.height() / size.height);
    const Size shown = size * std::min(options_.zoom, fits);
    const Vec2 half{shown.width / 2, shown.height / 2};
    const Vec2 wanted = side == Side::above   ? Vec2{pose.centre.x, room.max.y - half.y}
                        : side == Side::below ? Vec2{pose.centre.x, room.min.y + half.y}
                        : side == Side::left  ? Vec2{room.max.x - half.x, pose.centre.y}
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

std::optional<Hover::Preview> Hover::preview(const TableSetup& setup, const Arrangement& arrangement,
                                             double own, const Feel& feel) const {
  if (!setup.table.card(previewed_) || arrangement.card().empty()) return std::nullopt;
  const Rect area = preview_area(setup, arrangement, previewed_);
  if (area.empty()) return std::nullopt;
  const double since = own - previewed_at_;
  float share = 1;
  if (since < growing_seconds(feel)) {
    const float seconds = static_cast<float>(since);
    share = feel.zoom.spring ? 1 - shares_of(*feel.zoom.spring, seconds).of_distance
                             : feel.zoom.curve.value(seconds / feel.zoom.seconds);
  }
  const Pose& from = arrangement.resting(*setup.table.slot(previewed_));
  Preview out{.pose = {.centre = from.centre + (area.centre() - from.centre) * share},
              .opacity = std::clamp(share * 2, 0.0f, 1.0f)};
  const float size = area.width() / arrangement.card().width;
  out.pose.scale = std::max(from.scale + (size - from.scale) * share, 0.0f);
  return out;
}

bool Hover::preview_grew(double drawn, double own, const Feel& feel) const {
  return previewed_ && own != drawn && drawn - previewed_at_ < growing_seconds(feel);
}

}  // namespace apsidon::play_detail
