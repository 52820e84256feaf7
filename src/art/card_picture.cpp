#include "apsidon/art/card_picture.hpp"

#include <array>
#include <numbers>

#include "art/art_parts.hpp"
#include "geometry/fit_in.hpp"
#include "geometry/shown_card.hpp"

namespace apsidon {
namespace {

/// Which side of a card shows.
struct Side {
  FaceId face = {};
  bool back = false;
  int back_suit = -1;
  bool larger = false;
};

std::optional<PicturePart> part_of(const Art& art, const Deck& deck, const Side& side,
                                   const PictureSize& size_of) {
  const std::array<std::optional<PicturePart>, 2> wanted{
      side.back     ? art_detail::back_of(art, deck, side.back_suit)
      : side.larger ? art_detail::detail_of(art, deck, side.face)
                    : std::nullopt,
      side.back ? art_detail::back_of(art, deck) : part_of(art, deck, side.face)};
  for (const auto& part : wanted) {
    if (!part) continue;
    if (!size_of) return part;
    const auto size = size_of(part->picture);
    if (!size) continue;
    return PicturePart{part->picture, part->part.empty() ? rect_at({0, 0}, *size) : part->part};
  }
  return std::nullopt;
}

CardPicture pictured(const Art& art, const Deck& deck, const Side& side, const PictureSize& size_of) {
  return {.part = part_of(art, deck, side, size_of),
          .name = side.back || !deck.has(side.face) ? std::string{} : deck.text(side.face),
          .back = side.back};
}

}  // namespace

CardPicture picture_of(const Art& art, const Deck& deck, const ShownCard& view, const PictureSize& size_of) {
  const bool back = !view.face_up || view.face == hidden_face;
  CardPicture out = pictured(art, deck,
                             {.face = view.face,
                              .back = back,
                              .back_suit = back ? deck.back_suit_of(view.face) : -1,
                              .larger = view.larger},
                             size_of);
  Size own = art.card;
  if (own.empty() && out.part) own = out.part->part.size();
  if (own.empty()) own = {5, 7};
  const Size lying = view.sideways ? Size{own.height, own.width} : own;
  const Rect box = geometry_detail::fit_in(view.box, lying, view.fit).box;
  out.size = view.sideways ? Size{box.height(), box.width()} : box.size();
  const Pose pose{.centre = box.centre(), .rotation = view.sideways ? std::numbers::pi_v<float> / 2 : 0};
  const auto lies = geometry_detail::shown(pose, out.size);
  out.matrix = lies.matrix;
  out.corners = lies.corners;
  return out;
}

CardPicture picture_of(const Art& art, const Deck& deck, const FrameItem& item, const PictureSize& size_of) {
  CardPicture out = pictured(art, deck,
                             {.face = item.face,
                              .back = item.back,
                              .back_suit = item.back_suit,
                              .larger = item.kind == FrameKind::zoom},
                             size_of);
  out.size = item.size;
  out.matrix = item.matrix;
  out.corners = item.corners;
  return out;
}

}  // namespace apsidon
