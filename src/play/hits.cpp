// What a point hits of the cards, as they are drawn.
#include <array>

#include "play/impl.hpp"

namespace apsidon {
namespace {

/// Where more than one in so many has moved, all are taken to have.
constexpr std::size_t few_moved = 16;
constexpr std::size_t block = 64;

}  // namespace

/// What is held or flies shows wherever it is; what rests in a zone that scrolls shows there only.
Rect Playfield::Impl::clip_of(std::size_t s) const {
  const CardState& state = cards[s];
  return state.held || state.departure > 0 ? everywhere : clips[state.zone.value - 1];
}

/// Brings the hit index up to date: the shapes that have moved, or all of them.
void Playfield::Impl::refresh_hits() {
  frame();
  if (hits_stale) {
    hits_stale = false;
    hits.clear();
    // What is held takes no hits: it is of no kind.
    for (const Ordered& o : ordered) {
      hits.add(hit_shape(o.slot), cards[o.slot].id.value, cards[o.slot].held ? 0 : 1);
    }
  } else if (many_moved()) {
    for (std::size_t i = 0; i < ordered.size(); i += block) {
      const std::size_t n = std::min(block, ordered.size() - i);
      std::array<Pose, block> moved;
      for (std::size_t k = 0; k < n; ++k) moved[k] = motion.pose(ordered[i + k].slot);
      hits.move(i, std::span(moved.data(), n));
    }
  } else {
    for (const std::uint32_t place : hits_moved) hits.move(place, motion.pose(ordered[place].slot));
  }
  hits_moved.clear();
}

bool Playfield::Impl::many_moved() const { return hits_moved.size() * few_moved > ordered.size(); }

HitShape Playfield::Impl::hit_shape(std::size_t s) const {
  return {
      .pose = motion.pose(s), .size = solved.card, .corner_radius = drawn.corner_radius, .clip = clip_of(s)};
}

/// The topmost card at a point, by a look at all from the top: for a question or two that is quicker than to
/// bring the index up to date first.
CardId Playfield::Impl::look_for(Vec2 point) const {
  const Size size = solved.card;
  const float span = (size.width * size.width + size.height * size.height) * 0.2501f;
  for (std::size_t i = ordered.size(); i-- > 0;) {
    const std::size_t s = ordered[i].slot;
    const Pose& pose = motion.pose(s);
    const Vec2 away = point - pose.centre;
    if (!(dot(away, away) <= span * pose.scale * pose.scale + 0.01f)) continue;
    if (!cards[s].held && contains(hit_shape(s), point)) return cards[s].id;
  }
  return {};
}

CardId Playfield::Impl::topmost(Vec2 point) {
  frame();
  constexpr int few_looks = 4;
  if ((hits_stale || many_moved()) && ++asked <= few_looks) return look_for(point);
  if (hits_stale || !hits_moved.empty()) refresh_hits();
  return {hits.topmost(point).value_or(0)};
}

Hit Playfield::Impl::hit(Vec2 point) {
  if (const CardId id = topmost(point)) return {.card = id, .zone = setup.table.card(id)->zone};
  const ZoneId zone = zone_at(point);
  return {.zone = zone, .panel = zone ? PanelId{} : panel_at(point)};
}

}  // namespace apsidon
