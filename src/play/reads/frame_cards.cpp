// How the cards of a frame are drawn, a block of them at once.
#include <algorithm>
#include <array>

#include "geometry/shown.hpp"
#include "play/reads/frame_builder.hpp"
#include "play/values/layers.hpp"

namespace apsidon::play_detail {
namespace {

constexpr std::size_t card_block = 16;

}  // namespace

FrameBuilder::Appearance FrameBuilder::appearance_of(const FrameSources& from, std::size_t slot) {
  const Pose& pose = from.traffic.motion().pose(slot);
  const bool back = !geometry_detail::shows_its_face(pose.flip);
  const Traffic::CardState& state = from.traffic.card(slot);
  const Card& card = *from.setup.table.card(state.id);
  // A card that was covered, and has another face by now, shows what it showed until it is edge-on.
  const FaceId front = !card.face_up && state.still_shows ? state.still_shows : card.face;
  return {
      .card = card.id,
      .zone = card.zone,
      .face = back ? hidden_face : front,
      .brightness = pose.brightness * (state.off || from.playable.dims(card.id) ? dimmed_brightness : 1),
      .back = back,
      .back_suit = static_cast<std::int16_t>(back ? from.setup.table.deck().back_suit_of(card.face) : -1)};
}

/// A card may show its other side, or change its brightness, while it moves.
void FrameBuilder::draw_appearance(const FrameSources& from, FrameItem& item, std::size_t slot) {
  appearances_[slot] = appearance_of(from, slot);
  item.back = appearances_[slot].back;
  item.back_suit = appearances_[slot].back_suit;
  item.face = appearances_[slot].face;
  item.brightness = appearances_[slot].brightness;
}

/// Draws the cards whose poses have changed.
void FrameBuilder::draw_moved(const FrameSources& from) {
  const motion_detail::TableMotion& motion = from.traffic.motion();
  for (std::size_t part = 0; part < motion.moved_parts(); ++part) {
    const std::span<const std::uint32_t> slots = motion.moved(part);
    if (!reordered_) moved_.insert(moved_.end(), slots.begin(), slots.end());
    for (std::size_t i = 0; i < slots.size(); i += card_block) {
      draw(from, slots.subspan(i, std::min(card_block, slots.size() - i)));
    }
  }
}

/// Draws what has another index in the order and does not move.
void FrameBuilder::draw_waiting(const FrameSources& from) {
  std::array<std::uint32_t, card_block> slots;
  std::size_t n = 0;
  for (std::uint32_t s = 0; s < needs_redraw_.size(); ++s) {
    if (!needs_redraw_[s]) continue;
    slots[n++] = s;
    if (n < card_block) continue;
    draw(from, slots);
    n = 0;
  }
  draw(from, std::span(slots.data(), n));
}

/// At most `card_block` cards: their sines and cosines at once, for one after another each would wait for the
/// last.
void FrameBuilder::draw(const FrameSources& from, std::span<const std::uint32_t> slots) {
  FrameItem* const items = drawn_.items.data();
  const std::uint32_t* const item_at = item_of_.data();
  const Pose* const live = from.traffic.motion().poses().data();
  const geometry_detail::FlatCard flat(drawn_.card);
  float turns[card_block] = {};
  geometry_detail::SinCos rotations[card_block];
  for (std::size_t k = 0; k < slots.size(); ++k) {
    turns[k] = geometry_detail::turns_of(live[slots[k]].rotation);
  }
  for (std::size_t k = 0; k < card_block; ++k) rotations[k] = geometry_detail::sin_cos_of_turns(turns[k]);
  std::size_t tilted = 0;
  for (std::size_t k = 0; k < slots.size(); ++k) {
    const std::uint32_t s = slots[k];
    const std::uint32_t at = item_at[s];
    if (at == no_item) continue;
    const Pose& pose = live[s];
    FrameItem& item = items[at];
    item.opacity = pose.opacity;
    item.lift = pose.lift;
    needs_redraw_[s] = 0;
    if (!geometry_detail::lies_flat(pose.flip)) {
      ++tilted;
      continue;
    }
    flat.show(pose, rotations[k], item.matrix, item.corners);
    const Appearance& shown = appearances_[s];
    if (pose.brightness != shown.brightness || (pose.flip != 0) != shown.back) draw_appearance(from, item, s);
  }
  if (tilted > 0) draw_tilted(from, slots, rotations);
}

/// Those of a block that are flipping.
void FrameBuilder::draw_tilted(const FrameSources& from, std::span<const std::uint32_t> slots,
                               std::span<const geometry_detail::SinCos> rotations) {
  const motion_detail::TableMotion& motion = from.traffic.motion();
  const geometry_detail::TiltedCard tilted(drawn_.card);
  float turns[card_block] = {};
  float axis_turns[card_block] = {};
  geometry_detail::SinCos tilts[card_block];
  geometry_detail::SinCos axes[card_block];
  for (std::size_t k = 0; k < slots.size(); ++k) {
    const Pose& pose = motion.pose(slots[k]);
    turns[k] = geometry_detail::turns_of(geometry_detail::tilt(pose.flip));
    axis_turns[k] = geometry_detail::turns_of(pose.flip_axis);
  }
  for (std::size_t k = 0; k < card_block; ++k) tilts[k] = geometry_detail::sin_cos_of_turns(turns[k]);
  for (std::size_t k = 0; k < card_block; ++k) axes[k] = geometry_detail::sin_cos_of_turns(axis_turns[k]);
  for (std::size_t k = 0; k < slots.size(); ++k) {
    const Pose& pose = motion.pose(slots[k]);
    const std::uint32_t s = slots[k];
    if (item_of_[s] == no_item || geometry_detail::lies_flat(pose.flip)) continue;
    FrameItem& item = drawn_.items[item_of_[s]];
    tilted.show(pose, rotations[k], tilts[k], axes[k], item.matrix, item.corners);
    const bool back = !geometry_detail::shows_its_face(pose.flip);
    if (pose.brightness != appearances_[s].brightness || back != appearances_[s].back)
      draw_appearance(from, item, s);
  }
}

}  // namespace apsidon::play_detail
