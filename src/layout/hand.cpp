#include "apsidon/layout/hand.hpp"

#include <algorithm>
#include <cmath>

#include "layout/common.hpp"

namespace apsidon {
using namespace layout_detail;

namespace {

/// The arc on which the middles of the cards lie.
struct Arc {
  float half = 0;   ///< angle between the middle and either end, rad
  float chord = 0;  ///< distance between the middles of the first card and the last
  float sag = 0;    ///< how much lower the ends lie than the middle
  float reach = 0;  ///< how far any card reaches above or below its own middle
  float side = 0;   ///< how far any card reaches left or right of its own middle
};

/// Half the width of the box around a card turned by `angle`, 0 to pi/2; with width and height exchanged,
/// half its height.
float half_extent(float along, float across, float angle) {
  return (along * std::cos(angle) + across * std::sin(angle)) / 2;
}

Arc arc_of(float half, float preferred_chord, float width, Size card) {
  Arc arc{.half = half};
  // A card turned until its diagonal points up or sideways reaches furthest; turned further it reaches less
  // again.
  arc.side = half_extent(card.width, card.height, std::min(half, std::atan2(card.height, card.width)));
  arc.reach = half_extent(card.height, card.width, std::min(half, std::atan2(card.width, card.height)));
  arc.chord = std::clamp(width - 2 * arc.side, 0.0f, preferred_chord);
  arc.sag = arc.chord / 2 * std::tan(half / 2);
  return arc;
}

float height_of(const Arc& arc) { return arc.sag + 2 * arc.reach; }

/// The most bent arc up to `half` that fits the area.
Arc fitting_arc(float half, float preferred_chord, Size area, Size card) {
  Arc arc = arc_of(half, preferred_chord, area.width, card);
  const auto fits = [&](const Arc& a) { return height_of(a) <= area.height && 2 * a.side <= area.width; };
  if (fits(arc)) return arc;
  float low = 0;
  float high = half;
  for (int i = 0; i < 20; ++i) {
    const float middle = (low + high) / 2;
    (fits(arc_of(middle, preferred_chord, area.width, card)) ? low : high) = middle;
  }
  return arc_of(low, preferred_chord, area.width, card);
}

float half_angle(const HandLayout& l, std::size_t cards) {
  return std::min(l.step.radians() * static_cast<float>(cards - 1), l.largest_angle.radians()) / 2;
}

/// Lifts the raised card out of the hand and lets the others step aside, the nearer the further.
void raise(const HandLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const auto at = static_cast<std::size_t>(in.room.raised);
  Pose& up = poses[at];
  const float distance = l.raise * in.card.height;
  up.centre = up.centre + Vec2{std::sin(up.rotation), -std::cos(up.rotation)} * distance;
  for (std::size_t i = 0; i < poses.size(); ++i) {
    if (i == at) continue;
    const float away = static_cast<float>(i) - static_cast<float>(at);
    poses[i].centre.x += l.part * in.card.width / away;
  }
}

}  // namespace

void check(const HandLayout& l) {
  check_range("hand layout", "spacing", l.spacing, 0.001f, 4);
  check_range("hand layout", "least spacing", l.least_spacing, 0, l.spacing);
  check_range("hand layout", "step in degrees", static_cast<float>(l.step.degrees()), 0, 45);
  check_range("hand layout", "largest angle in degrees", static_cast<float>(l.largest_angle.degrees()), 0,
              160);
  check_range("hand layout", "raise", l.raise, 0, 2);
  check_range("hand layout", "part", l.part, 0, 2);
}

LayoutReport lay_out(const HandLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const auto cards = static_cast<std::ptrdiff_t>(n);
  const bool inserting = in.room.insert_at >= 0 && in.room.insert_at <= cards;
  const std::size_t places = n + (inserting ? 1 : 0);
  const float steps = static_cast<float>(places - 1);

  const Arc arc =
      fitting_arc(half_angle(l, places), steps * l.spacing * in.card.width, in.area.size(), in.card);
  const float radius = arc.half > 0 ? arc.chord / 2 / std::sin(arc.half) : 0;
  const Vec2 middle = in.area.centre();
  const float top = middle.y - arc.sag / 2;  // of the arc: the arc with its sag is centred in the area

  for (std::size_t i = 0; i < n; ++i) {
    const bool after = inserting && static_cast<std::ptrdiff_t>(i) >= in.room.insert_at;
    const float t = steps > 0 ? static_cast<float>(i + (after ? 1 : 0)) / steps * 2 - 1 : 0;
    const float angle = t * arc.half;
    const Vec2 centre = arc.half > 0
                            ? Vec2{middle.x + radius * std::sin(angle), top + radius * (1 - std::cos(angle))}
                            : Vec2{middle.x + t * arc.chord / 2, middle.y};
    poses[i] = flat_pose(centre, in.cards[i]);
    poses[i].rotation += angle;
  }
  if (in.room.raised >= 0 && in.room.raised < cards) raise(l, in, poses);
  return {.crowded = arc.chord < steps * l.least_spacing * in.card.width};
}

Size least_size(const HandLayout& l, std::size_t cards, Size card) {
  if (cards <= 1) return card;
  const float steps = static_cast<float>(cards - 1);
  const float half = half_angle(l, cards);
  // As high as the hand is where it has the width it prefers: a wide window must not flatten it.
  const Arc preferred = arc_of(half, steps * l.spacing * card.width,
                               card.width * steps * l.spacing + card.width + card.height, card);
  return {steps * l.least_spacing * card.width + 2 * preferred.side, height_of(preferred)};
}

}  // namespace apsidon
