#include "play/reads/hit_view.hpp"

#include <array>

#include "hit/circle.hpp"
#include "play/values/layers.hpp"

namespace apsidon::play_detail {
namespace {

/// If more than one in so many moved, all are treated as moved: checking each costs more.
constexpr std::size_t few_moved = 16;
constexpr std::size_t block = 64;

HitShape shape_of(const FrameOrder::Entry& entry, const FrameBuilder& frames, const Traffic& traffic) {
  const FrameItem& item = frames.frame().items[frames.item_of(entry.slot)];
  return {.pose = traffic.motion().pose(entry.slot),
          .size = frames.frame().card,
          .corner_radius = frames.frame().corner_radius,
          .clip = item.clip};
}

}  // namespace

void HitView::follow(const FrameBuilder& frames) {
  scanned_ = 0;
  if (frames.reordered()) dirty_ = true;
  if (dirty_) return;
  for (const std::uint32_t slot : frames.moved()) {
    if (many_moved(frames)) return;
    const std::uint32_t item = frames.item_of(slot);
    if (item != no_item) moved_.push_back(item - static_cast<std::uint32_t>(frames.first_card()));
  }
}

bool HitView::many_moved(const FrameBuilder& frames) const {
  return moved_.size() * few_moved > frames.order().cards().size();
}

/// Brings the index up to date: the shapes that have moved, or all of them.
void HitView::update_index(const FrameBuilder& frames, const Traffic& traffic) {
  const auto cards = frames.order().cards();
  const Motion& motion = traffic.motion();
  if (dirty_) {
    dirty_ = false;
    index_.clear();
    // What takes no hits is of no kind.
    for (const FrameOrder::Entry& entry : cards) {
      const Traffic::CardState& state = traffic.card(entry.slot);
      index_.add(shape_of(entry, frames, traffic), state.id.value, state.takes_hits() ? 1 : 0);
    }
  } else if (many_moved(frames)) {
    for (std::size_t i = 0; i < cards.size(); i += block) {
      const std::size_t n = std::min(block, cards.size() - i);
      std::array<Pose, block> poses;
      for (std::size_t k = 0; k < n; ++k) poses[k] = motion.pose(cards[i + k].slot);
      index_.move(i, std::span(poses.data(), n));
    }
  } else {
    for (const std::uint32_t i : moved_) index_.move(i, motion.pose(cards[i].slot));
  }
  moved_.clear();
}

/// A scan of all cards from the top: for a question or two that is quicker than to bring the index up to date
/// first.
CardId HitView::scan(Vec2 point, const FrameBuilder& frames, const Traffic& traffic) const {
  const auto cards = frames.order().cards();
  const float circle = hit_detail::circle_of(frames.frame().card);
  for (std::size_t i = cards.size(); i-- > 0;) {
    const std::size_t s = cards[i].slot;
    const Pose& pose = traffic.motion().pose(s);
    const Vec2 away = point - pose.centre;
    if (!(dot(away, away) <= hit_detail::reach_of(circle, pose.scale))) continue;
    const Traffic::CardState& state = traffic.card(s);
    if (state.takes_hits() && contains(shape_of(cards[i], frames, traffic), point)) return state.id;
  }
  return {};
}

CardId HitView::topmost_of_moved(Vec2 point, const FrameBuilder& frames, const Traffic& traffic) {
  constexpr int few_scans = 4;
  if ((dirty_ || many_moved(frames)) && ++scanned_ <= few_scans) return scan(point, frames, traffic);
  update_index(frames, traffic);
  return {index_.topmost(point).value_or(0)};
}

std::optional<Hit> HitView::over(Vec2 point, const TableSetup& setup, const Arrangement& arrangement,
                                 const Switches& switches) {
  const std::vector<Overlay>& overlays = setup.plans[arrangement.plan()].overlays;
  const auto areas = arrangement.panel_areas();
  for (std::size_t i = overlays.size(); i-- > 0;) {
    const Overlay& overlay = overlays[i];
    if (overlay.hits == OverlayHits::none || switches.is_hidden(overlay.panel)) continue;
    if (!areas[overlay.panel.value - 1].contains(point)) {
      if (overlay.hits == OverlayHits::all) return Hit{};
      continue;
    }
    for (std::uint32_t p = 1; p <= areas.size(); ++p) {
      const PanelId panel{p};
      if (arrangement.overlay_of(panel) == overlay.panel && areas[p - 1].contains(point) &&
          !switches.is_hidden(panel))
        return Hit{.panel = panel};
    }
    return Hit{.panel = overlay.panel};
  }
  return std::nullopt;
}

CardId HitView::nearest(Vec2 point, float slop, const FrameBuilder& frames, const Traffic& traffic) {
  if (dirty_ || !moved_.empty()) update_index(frames, traffic);
  return {index_.nearest(point, slop).value_or(0)};
}

}  // namespace apsidon::play_detail
