// The preview: who calls it, how it comes, goes, and stays.
#include <algorithm>
#include <catch2/catch.hpp>

#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

std::vector<FrameItem> previews(const Playfield& field) {
  std::vector<FrameItem> out;
  for (const FrameItem& item : field.frame().items) {
    if (item.kind == FrameKind::zoom) out.push_back(item);
  }
  return out;
}

}  // namespace

TEST_CASE("play: preview: where the focus goes, the preview of a card under the pointer stays") {
  Hand h(desk({.hover = HoverKind::raise, .zoom = true}));
  const CardId hovered = h.cards("hand")[2];
  h.point(PointerPhase::move, h.grip(hovered));
  h.wait(0.8);
  REQUIRE(h.field.hand().previewed() == hovered);
  CHECK(h.field.hand().focus({.card = h.cards("slot")[0], .zone = h.zone("slot")}));
  h.wait(0);
  CHECK(h.field.hand().previewed() == hovered);
  // One of the same hand is previewed after the delay, as it does not come from a focused neighbour.
  CHECK(h.field.hand().focus({.card = h.cards("hand")[6], .zone = h.zone("hand")}));
  CHECK(h.field.hand().previewed() == hovered);
  h.wait(0.8);
  CHECK(h.field.hand().previewed() == h.cards("hand")[6]);
}

TEST_CASE(
    "play: preview: from neighbour to neighbour it goes along at once, and one fades as the other comes") {
  Hand h(desk({.hover = HoverKind::raise, .zoom = true}));
  const CardId first = h.cards("hand")[2];
  const CardId second = h.cards("hand")[3];
  h.point(PointerPhase::move, h.grip(first));
  CHECK(previews(h.field).empty());
  h.wait(0.4);
  CHECK(h.field.hand().previewed() == first);
  h.wait(0.4);
  REQUIRE(previews(h.field).size() == 1);
  const float whole = bounds(previews(h.field)[0].corners).width();
  h.point(PointerPhase::move, h.grip(second));
  CHECK(h.field.hand().previewed() == second);
  CHECK(h.count(EventKind::zoomed) == 2);
  CHECK(h.count(EventKind::unzoomed) == 1);
  h.wait(0.03);
  const auto both = previews(h.field);
  REQUIRE(both.size() == 2);
  CHECK(both[0].card == first);
  CHECK(both[1].card == second);
  CHECK(bounds(both[0].corners).width() < whole);
  CHECK(bounds(both[1].corners).width() < whole);
  CHECK(both[0].order < both[1].order);
  h.wait(0.4);
  CHECK(previews(h.field).size() == 1);
  // It goes as it came, and a frame that is at rest stays as it is.
  h.point(PointerPhase::move, {2, 2});
  h.wait(0.1);
  CHECK(previews(h.field).size() == 1);
  CHECK(bounds(previews(h.field)[0].corners).width() < whole);
  h.wait(0.4);
  CHECK(previews(h.field).empty());
  const std::uint64_t revision = h.field.frame().revision;
  h.wait(1);
  CHECK(h.field.frame().revision == revision);
}

TEST_CASE("play: preview: keys and calls show it too, and it outlasts another window") {
  Hand h(desk({.hover = HoverKind::raise, .zoom = true}));
  const CardId card = h.cards("hand")[4];
  CHECK(h.field.hand().focus({.card = card, .zone = h.zone("hand")}));
  CHECK(h.field.hand().focused().card == card);
  h.wait(0.2);
  CHECK(h.field.hand().previewed() == CardId{});
  h.wait(0.2);
  CHECK(h.field.hand().previewed() == card);
  h.field.resize({900, 640}, 1, h.field.now());
  h.wait(0.5);
  CHECK(h.field.hand().previewed() == card);
  REQUIRE(previews(h.field).size() == 1);
  const Rect box = bounds(previews(h.field)[0].corners);
  CHECK((box.min.x >= 0 && box.min.y >= 0 && box.max.x <= 900 && box.max.y <= 640));
  CHECK(h.key(Key::right));
  CHECK(h.field.hand().previewed() == h.field.hand().focused().card);
  CHECK(h.field.hand().previewed() != card);
  CHECK(h.key(Key::cancel));
  CHECK(h.field.hand().previewed() == CardId{});
  CHECK(h.field.hand().preview(card));
  CHECK(h.field.hand().previewed() == card);
  CHECK(h.field.hand().preview({}));
  CHECK(h.field.hand().previewed() == CardId{});
  CHECK_FALSE(h.field.hand().preview({999}));
  CHECK_FALSE(h.field.hand().focus({.card = h.cards("slot")[0], .zone = h.zone("hand")}));
}

TEST_CASE("play: preview: a finger that rests shows it, slides on to the next card, and moves none") {
  Hand h(desk({.hover = HoverKind::raise, .zoom = true}));
  const CardId first = h.cards("hand")[5];
  const CardId next = h.cards("hand")[6];
  h.point(PointerPhase::down, h.grip(first), PointerKind::touch);
  h.wait(0.6);
  CHECK(h.field.hand().previewed() == first);
  h.point(PointerPhase::move, h.grip(next), PointerKind::touch);
  CHECK(h.field.hand().previewed() == next);
  CHECK(h.field.hand().held().count == 0);
  h.point(PointerPhase::move, {3, 3}, PointerKind::touch);
  CHECK(h.field.hand().previewed() == next);
  h.point(PointerPhase::up, {3, 3}, PointerKind::touch);
  CHECK(h.field.hand().previewed() == CardId{});
  CHECK(h.count(EventKind::picked_up) == 0);
  // Without a rest a finger drags, as ever.
  h.drag(h.grip(first), h.middle("shelf"));
  CHECK(h.cards("shelf").size() == 1);
}

TEST_CASE(
    "play: preview: with no delay it is told at the time of the hover, and in a small window it overlaps") {
  Hand h(desk({.hover = HoverKind::raise, .zoom = true}),
         {.window = {1000, 700}, .hover = {.zoom_seconds = 0}});
  h.point(PointerPhase::move, h.grip(h.cards("hand")[1]));
  REQUIRE(h.count(EventKind::zoomed) == 1);
  CHECK(h.last(EventKind::zoomed)->time == h.last(EventKind::hovered)->time);
  // A hand that fills its window leaves no room that is clear of it.
  TableSetup setup(glasshouse());
  const ZoneId zone_id =
      setup.add({.name = "hand",
                 .layout = {.kind = SpreadLayout{.spacing = 0.5f}, .longest = 4},
                 .handling = {.hover = HoverKind::lift, .zoom = true},
                 .cards = some(setup.table.deck(), {"fern-1", "fern-2", "fern-3", "fern-4"})});
  setup.plans = {{.root = zone(zone_id, 1), .margin = 4, .largest_width = 70}};
  Hand full(setup, {.window = {400, 300}, .hover = {.zoom_seconds = 0}});
  full.point(PointerPhase::move, full.grip(full.cards("hand")[3]));
  CHECK(full.field.hand().previewed() == full.cards("hand")[3]);
}
