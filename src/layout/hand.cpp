#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

namespace {

/// The arc on which the middles of the cards lie.
struct Arc {
  float half = 0;   ///< angle between the middle and either end, rad
  float chord = 0;  ///< distance between the middles of the first card and the last
  float sag = 0;    ///< how much lower the ends lie than the middle
  float reach = 0;  ///< how far any card reaches above or below its own middle
  float side = 0;   ///< how far any card reaches left or right of its own middle
  float radius = 0;

  [[nodiscard]] float height() const { return sag + 2 * reach; }
};

Arc arc_of(float half, float preferred_chord, float width, Size card) {
  const SinCos end = sin_cos(half);
  Arc arc{.half = half};
  arc.side = turned_extent(card.width, card.height, end) / 2;
  arc.reach = turned_extent(card.height, card.width, end) / 2;
  arc.chord = std::clamp(width - 2 * arc.side, 0.0f, preferred_chord);
  arc.sag = arc.chord / 2 * end.sine / (1 + end.cosine);  // half the chord times tan(half / 2)
  arc.radius = end.sine > 0 ? arc.chord / 2 / end.sine : 0;
  return arc;
}

/// How fast `turned_extent` grows with the angle.
float turned_growth(float along, float across, SinCos most) {
  return most.sine * along >= across * most.cosine ? 0 : across * most.cosine - along * most.sine;
}

/// By how much an arc does not fit, px, and how fast that grows with its half angle.
struct Excess {
  float px;
  float slope;
};

Excess excess_of(const Arc& arc, float preferred_chord, Size area, Size card) {
  const SinCos end = sin_cos(arc.half);
  const float side_grows = turned_growth(card.width, card.height, end);  // of both sides together
  const float too_wide = 2 * arc.side - area.width;
  const float too_high = arc.height() - area.height;
  if (too_wide > too_high) return {too_wide, side_grows};
  const float tangent = end.sine / (1 + end.cosine);  // of half the half angle, as in the sag
  const float chord_grows = arc.chord > 0 && arc.chord < preferred_chord ? -side_grows : 0;
  const float sag_grows = chord_grows / 2 * tangent + arc.chord / 4 * (1 + tangent * tangent);
  return {too_high, sag_grows + turned_growth(card.height, card.width, end)};
}

/// The most bent arc up to `half` that fits the area, to some thousandths of a px; the arc that is returned
/// always fits. Newton's method from above, kept between an arc that fits and one that does not.
Arc fitting_arc(float half, float preferred_chord, Size area, Size card) {
  Arc arc = arc_of(half, preferred_chord, area.width, card);
  Excess excess = excess_of(arc, preferred_chord, area, card);
  if (excess.px <= 0) return arc;
  Arc best = arc_of(0, preferred_chord, area.width, card);
  if (excess_of(best, preferred_chord, area, card).px >= 0) return best;  // no straighter than straight
  // Steps aim a little inside, so that the last of them lands there.
  const float inside = std::max(area.height, area.width) * 1e-6f;
  float high = half;
  for (int i = 0; i < 40 && high - best.half > 1e-7f; ++i) {
    float next = arc.half - (excess.px + inside) / excess.slope;
    if (!(next > best.half && next < high)) next = (best.half + high) / 2;
    arc = arc_of(next, preferred_chord, area.width, card);
    excess = excess_of(arc, preferred_chord, area, card);
    if (excess.px > 0) {
      high = next;
      continue;
    }
    best = arc;
    if (excess.px > -4 * inside) break;
  }
  return best;
}

float half_angle(const HandLayout& l, std::size_t cards) {
  return std::min(l.step.radians() * static_cast<float>(cards - 1), l.largest_angle.radians()) / 2;
}

/// Takes a card out of the hand, the way its top points.
void take_out(Pose& pose, const LaidCard& card, float distance) {
  const float up = pose.rotation - (card.sideways ? pi / 2 : 0);
  pose.centre = pose.centre + Vec2{std::sin(up), -std::cos(up)} * distance;
}

/// Takes the raised card out and lets the others step aside, the nearer the further, but not out of the area:
/// `left_room` and `right_room` are what it leaves beside the first and the last card.
void raise(const HandLayout& l, const LayoutInput& in, const PlayerFrame& side, float left_room,
           float right_room, std::span<Pose> poses) {
  const auto at = static_cast<std::size_t>(in.room.raised);
  take_out(poses[at], in.cards[at], l.raise * in.card.height);
  const Vec2 right = side.to_window(1, 0) - side.to_window(0, 0);
  const Vec2 first = poses.front().centre, last = poses.back().centre;
  for (std::size_t i = 0; i < poses.size(); ++i) {
    if (i == at) continue;
    const float away = static_cast<float>(i) - static_cast<float>(at);
    const float aside = l.part * in.card.width / away;
    const float least = -left_room - dot(poses[i].centre - first, right);
    const float most = right_room + dot(last - poses[i].centre, right);
    poses[i].centre =
        poses[i].centre + right * std::clamp(aside, std::min(least, 0.0f), std::max(most, 0.0f));
  }
}

}  // namespace

LayoutTraits traits_of(const HandLayout&) { return {.name = "hand", .strips = true, .previews_clear = true}; }

LayoutReport lay_out(const HandLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const PlayerFrame side(in);
  const auto cards = static_cast<std::ptrdiff_t>(n);
  const bool inserting = in.room.insert_at >= 0 && in.room.insert_at <= cards;
  const std::size_t insert_at = inserting ? static_cast<std::size_t>(in.room.insert_at) : n;
  const std::size_t gap = inserting ? in.room.insert_count : 0;
  const std::size_t places = n + gap;
  const float steps = static_cast<float>(places - 1);
  const Size own = largest_of(in.cards, in.card);
  const float preferred = steps * l.spacing * in.card.width;

  // A hand that scrolls is as long as it likes to be.
  const Size room{in.scrolls ? std::max(preferred + own.width + own.height, side.width) : side.width,
                  side.height};
  const Arc arc = fitting_arc(half_angle(l, places), preferred, room, own);
  const float content = arc.chord + 2 * arc.side;
  float middle = aligned(l.align, side.width, content) - (side.width - content) / 2;
  if (in.scrolls) middle = std::max(middle, (content - side.width) / 2) - in.offset;
  const float top = -arc.sag / 2;  // of the arc: the arc with its sag is centred in the area
  const bool bent = arc.half > 0;
  const float each = steps > 0 ? 2 / steps : 0;
  // In blocks whose arithmetic is apart from the writing of poses, so that the compiler can do several cards
  // at once.
  constexpr std::size_t block = 16;
  float angles[block];
  float xs[block];
  float ys[block];
  for (std::size_t begin = 0; begin < n; begin += block) {
    const std::size_t count = std::min(block, n - begin);
    for (std::size_t k = 0; k < block; ++k) {
      const std::size_t i = begin + k;
      const float t =
          steps > 0 ? static_cast<float>(static_cast<int>(i) + (i >= insert_at ? static_cast<int>(gap) : 0)) *
                              each -
                          1
                    : 0;
      const SinCos a = sin_cos(t * arc.half);
      angles[k] = t * arc.half;
      // r (1 - cos a) is r sin² a / (1 + cos a), which loses no digits for a flat arc.
      xs[k] = middle + (bent ? arc.radius * a.sine : t * arc.chord / 2);
      ys[k] = bent ? top + arc.radius * a.sine * a.sine / (1 + a.cosine) : 0;
    }
    for (std::size_t k = 0; k < count; ++k) {
      const LaidCard& c = in.cards[begin + k];
      poses[begin + k] = side.pose(xs[k], ys[k], c, angles[k]);
    }
  }
  if (in.room.raised >= 0 && in.room.raised < cards) {
    const float free = in.scrolls ? side.width : 0;  // what scrolls goes on beyond its area
    const float beside = (side.width - content) / 2 + free;
    raise(l, in, side, beside + middle, beside - middle, poses);
  }
  return {.crowded = arc.chord < steps * l.least_spacing * in.card.width * (1 - 1e-5f), .content = content};
}

Size least_size(const HandLayout& l, const LayoutNeed& need, Size card) {
  const Size one = needed_of(need, card);
  if (need.cards <= 1) return one;
  const float steps = static_cast<float>(need.cards - 1);
  // As high as the hand is where it has the width it prefers: a wide window must not flatten it.
  const float preferred = steps * l.spacing * card.width;
  const Arc arc = arc_of(half_angle(l, need.cards), preferred, preferred + one.width + one.height, one);
  return {steps * l.least_spacing * card.width + 2 * arc.side, arc.height()};
}

}  // namespace apsidon::layout_detail
