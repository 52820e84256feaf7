#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

namespace {

float share(float value) { return std::isfinite(value) ? std::clamp(value, 0.0f, 1.0f) : 0.5f; }

/// What the area leaves beside a card, px.
Size room_beside(const PlayerFrame& side, const LaidCard& card, Size upright) {
  const Size own = own_size(card, upright);
  return {std::max(side.width - own.width, 0.0f), std::max(side.height - own.height, 0.0f)};
}

}  // namespace

LayoutTraits traits_of(const FreeLayout&) {
  return {.name = "free", .inserts = Inserts::on_top, .keeps_positions = true};
}

LayoutReport lay_out(const FreeLayout&, const LayoutInput& in, std::span<Pose> poses) {
  const PlayerFrame side(in);
  for (std::size_t i = 0; i < in.cards.size(); ++i) {
    const LaidCard& card = in.cards[i];
    const Size room = room_beside(side, card, in.card);
    poses[i] =
        side.pose((share(card.at.x) - 0.5f) * room.width, (share(card.at.y) - 0.5f) * room.height, card);
  }
  return {.content = side.width};
}

Size least_size(const FreeLayout&, const LayoutNeed& need, Size card) { return needed_of(need, card); }

}  // namespace apsidon::layout_detail

namespace apsidon {

Vec2 free_position(const LayoutInput& in, const LaidCard& card, Vec2 middle) {
  using namespace layout_detail;
  const PlayerFrame side(in);
  const Size room = room_beside(side, card, in.card);
  const Vec2 local = side.from_window(middle);
  return {room.width > 0 ? share(local.x / room.width + 0.5f) : 0.5f,
          room.height > 0 ? share(local.y / room.height + 0.5f) : 0.5f};
}

}  // namespace apsidon
