#pragma once
// Shared by the layouts; not installed.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>
#include <string_view>

#include "apsidon/geometry/error.hpp"
#include "apsidon/layout/laid.hpp"
#include "geometry/pi.hpp"
#include "geometry/sin_cos.hpp"

namespace apsidon::layout_detail {

/// Whether a layout of the game's own runs in this thread.
[[nodiscard]] bool in_custom_layout();
/// What the `least_size` or `insertion` of one threw in this thread since this was asked last.
[[nodiscard]] std::optional<std::string> take_asked_thrown();

/// The area as the player sees it toward whom its cards face: x to the right, y toward the player, from its
/// middle.
class PlayerFrame {
 public:
  explicit PlayerFrame(const LayoutInput& in) : middle_(in.area.centre()) {
    const auto quarter = static_cast<std::size_t>(in.facing) % 4;
    constexpr float cosines[] = {1, 0, -1, 0};
    constexpr float sines[] = {0, 1, 0, -1};
    constexpr float turns[] = {0, pi / 2, pi, -pi / 2};
    cosine_ = cosines[quarter];
    sine_ = sines[quarter];
    turn_ = turns[quarter];
    width = quarter % 2 == 0 ? in.area.width() : in.area.height();
    height = quarter % 2 == 0 ? in.area.height() : in.area.width();
  }

  float width;   ///< of the area, px
  float height;  ///< toward the player, px

  [[nodiscard]] Vec2 to_window(float x, float y) const { return middle_ + rotated({x, y}, cosine_, sine_); }

  [[nodiscard]] Vec2 from_window(Vec2 at) const { return rotated(at - middle_, cosine_, -sine_); }

  /// A card lying flat with its middle at (x, y).
  [[nodiscard]] Pose pose(float x, float y, const LaidCard& card, float turn = 0) const {
    return {.centre = to_window(x, y),
            .rotation = turn_ + turn + (card.sideways ? pi / 2 : 0),
            .flip = card.face_up ? 0 : pi};
  }

 private:
  Vec2 middle_;
  float cosine_ = 1;
  float sine_ = 0;
  float turn_ = 0;
};

/// A card's own size, turned where it lies sideways.
inline Size own_size(const LaidCard& card, Size upright) {
  return card.sideways ? Size{upright.height, upright.width} : upright;
}

/// The smallest box that any of the cards fits, lying as it does; an upright card's where there are none.
inline Size largest_of(std::span<const LaidCard> cards, Size upright) {
  bool any_sideways = false;
  bool any_upright = cards.empty();
  for (const LaidCard& card : cards) {
    any_sideways |= card.sideways;
    any_upright |= !card.sideways;
  }
  if (!any_sideways) return upright;
  if (!any_upright) return {upright.height, upright.width};
  const float longer = std::max(upright.width, upright.height);
  return {longer, longer};
}

inline Size needed_of(const LayoutNeed& need, Size upright) {
  const float longer = std::max(upright.width, upright.height);
  return need.sideways ? Size{longer, longer} : upright;
}

/// How strips share a length: each is `scale * (least + blend * (preferred - least))`. As preferred where
/// there is room, narrowed evenly toward the least, and below that, crowded, in proportion.
struct Squeeze {
  float blend = 1;
  float scale = 1;
  bool crowded = false;

  [[nodiscard]] float strip(float least, float preferred) const {
    return scale * (least + blend * (preferred - least));
  }
};

/// For cards of one length: `room` is what is left beside the last of them.
inline Squeeze squeeze(float room, float all_least, float all_preferred) {
  if (all_preferred <= room) return {};
  if (all_least <= room) return {.blend = (room - all_least) / (all_preferred - all_least)};
  return {.blend = 0, .scale = std::max(room, 0.0f) / all_least, .crowded = true};
}

/// For cards of several lengths: none of them may reach over the end of `length`. Where a card starts is
/// linear in blend and in scale, so the tightest card decides. `strip(i)` gives {least, preferred} of card i,
/// `own(i)` its length.
template <class Strip, class Own>
Squeeze squeeze_uneven(float length, std::size_t count, Strip strip, Own own) {
  float least = 0;
  float preferred = 0;
  Squeeze best;
  for (std::size_t i = 0; i < count; ++i) {
    const float room = length - own(i);
    if (preferred > room && preferred > least)
      best.blend = std::min(best.blend, (room - least) / (preferred - least));
    if (least > room) best.scale = std::min(best.scale, std::max(room, 0.0f) / least);
    const auto [l, p] = strip(i);
    least += l;
    preferred += p;
  }
  if (best.scale < 1) return {.blend = 0, .scale = best.scale, .crowded = true};
  best.blend = std::max(best.blend, 0.0f);
  return best;
}

/// Where something of `content` length starts in a `length`, from its start; centred where it is longer.
inline float aligned(Align align, float length, float content) {
  const float free = length - content;
  if (free < 0) return free / 2;
  return align == Align::start ? 0 : align == Align::centre ? free / 2 : free;
}

using geometry_detail::SinCos;
inline SinCos sin_cos(float quarter) { return geometry_detail::sin_cos_of_quarter(quarter); }

/// How long the box around a card is that may be turned by any angle up to `most`, 0 to pi/2: a card whose
/// diagonal has come to lie along that direction reaches furthest, and less again when turned further.
inline float turned_extent(float along, float across, SinCos most) {
  return most.sine * along >= across * most.cosine ? std::sqrt(along * along + across * across)
                                                   : along * most.cosine + across * most.sine;
}

}  // namespace apsidon::layout_detail
