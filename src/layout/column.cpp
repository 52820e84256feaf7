#include "layout/common.hpp"
#include "layout/kinds.hpp"

namespace apsidon::layout_detail {

namespace {

struct Strip {
  float least;
  float preferred;
};

/// Strips of a card whose height, as it lies, is 1.
Strip strip_of(const ColumnLayout& l, bool face_up, bool looked_at) {
  const Strip s =
      face_up ? Strip{l.least_open_strip, l.open_strip} : Strip{l.least_covered_strip, l.covered_strip};
  return looked_at ? Strip{std::max(s.least, l.look_strip), std::max(s.preferred, l.look_strip)} : s;
}

/// Strips are in pixels here: cards of several heights have several.
Squeeze fit_uneven(const ColumnLayout& l, const LayoutInput& in, float length) {
  const auto own = [&](std::size_t i) { return own_size(in.cards[i], in.card).height; };
  const auto strip = [&](std::size_t i) {
    const Strip s = strip_of(l, in.cards[i].face_up, static_cast<std::ptrdiff_t>(i) == in.room.raised);
    return Strip{s.least * own(i), s.preferred * own(i)};
  };
  return squeeze_uneven(length, in.cards.size(), strip, own);
}

Squeeze fit_even(const ColumnLayout& l, const LayoutInput& in, float length, float height) {
  const std::size_t n = in.cards.size();
  float covered = 0;
  for (std::size_t i = 0; i + 1 < n; ++i) covered += in.cards[i].face_up ? 0.0f : 1.0f;
  const float open = static_cast<float>(n - 1) - covered;
  float least = open * l.least_open_strip + covered * l.least_covered_strip;
  float preferred = open * l.open_strip + covered * l.covered_strip;
  if (in.room.raised >= 0 && in.room.raised + 1 < static_cast<std::ptrdiff_t>(n)) {
    const bool face_up = in.cards[static_cast<std::size_t>(in.room.raised)].face_up;
    const Strip before = strip_of(l, face_up, false);
    const Strip after = strip_of(l, face_up, true);
    least += after.least - before.least;
    preferred += after.preferred - before.preferred;
  }
  return squeeze(std::max(length - height, 0.0f), least * height, preferred * height);
}

}  // namespace

LayoutTraits traits_of(const ColumnLayout&) {
  return {.name = "column", .axis = LayoutAxis::down, .strips = true, .raises = false};
}

LayoutReport lay_out(const ColumnLayout& l, const LayoutInput& in, std::span<Pose> poses) {
  const std::size_t n = in.cards.size();
  if (n == 0) return {};
  const PlayerFrame side(in);
  bool uneven = false;
  for (const LaidCard& card : in.cards) uneven |= card.sideways != in.cards.front().sideways;
  const float height = own_size(in.cards.front(), in.card).height;
  Squeeze fit;
  if (!in.scrolls) fit = uneven ? fit_uneven(l, in, side.height) : fit_even(l, in, side.height, height);

  // Every pixel of a strip is known before the loop, so that it is nothing but additions.
  const float open = fit.strip(l.least_open_strip, l.open_strip);
  const float covered = fit.strip(l.least_covered_strip, l.covered_strip);
  const float start = std::min(-side.height / 2, -largest_of(in.cards.first(1), in.card).height / 2);
  const float last = side.height / 2;
  const std::ptrdiff_t raised = in.room.raised;
  const std::span<const LaidCard> cards = in.cards;
  const Size upright = in.card;
  const bool scrolls = in.scrolls;
  float top = start - (scrolls ? in.offset : 0);
  float content = 0;
  for (std::size_t i = 0; i < n; ++i) {
    const LaidCard card{.face_up = cards[i].face_up, .sideways = cards[i].sideways};
    const float own = card.sideways ? upright.width : upright.height;
    // Adding up strips must not carry a card over the end by a rounding.
    const float at = scrolls ? top : std::min(top, std::max(last - own, -own / 2));
    poses[i] = side.pose(0, at + own / 2, card);
    content = std::max(content, at + own - start);
    float strip = card.face_up ? open : covered;
    if (static_cast<std::ptrdiff_t>(i) == raised) {
      const Strip looked = strip_of(l, card.face_up, true);
      strip = fit.strip(looked.least, looked.preferred);
    }
    top += strip * own;
  }
  return {.crowded = fit.crowded, .content = content + (in.scrolls ? in.offset : 0)};
}

Size least_size(const ColumnLayout& l, const LayoutNeed& need, Size card) {
  const Size one = needed_of(need, card);
  const std::size_t below = need.cards > 0 ? need.cards - 1 : 0;  // those that show a strip only
  const auto covered = static_cast<float>(std::min(need.covered, below));
  const float strips =
      covered * l.least_covered_strip + (static_cast<float>(below) - covered) * l.least_open_strip;
  return {one.width, one.height + one.height * strips};
}

}  // namespace apsidon::layout_detail
