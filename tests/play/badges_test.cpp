// Numbers as they show: on cards, on panels, as bars; and whose turn it is.
#include <algorithm>
#include <catch2/catch.hpp>

#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

TableSetup field_of_cards() {
  TableSetup setup(glasshouse());
  const SeatId south = setup.table.create_seat("south", {{"points", 2}});
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 6},
                                 .rules = {.pick = {.kind = PickKind::any}},
                                 .handling = {.zoom = true},
                                 .seat = south,
                                 .cards = some(setup.table.deck(), {"fern-1", "fern-2", "fern-3"})});
  const ZoneId plot =
      setup.add({.name = "plot", .layout = {.longest = 3}, .rules = {.drop = rule::anything()}});
  const PanelId name = setup.add_panel(
      {.name = "name", .kind = PanelKind::button, .text = "{points}, {cards of hand}", .seat = south});
  const PanelId bar = setup.add_panel(
      {.name = "water", .kind = PanelKind::bar, .filled_by = "points of south", .full_at = "wanted"});
  setup.plans = {
      {.root = down({zone(plot), zone(hand, 1),
                     across({panel(name, {.px = 90}, {.px = 30}), panel(bar, {.px = 90}, {.px = 30})})})}};
  (void)setup.table.set_number("wanted", 8);
  setup.badges = {{"hits", Corner::top_right}, {"life", Corner::bottom_left}, {"worn", Corner::bottom_left}};
  return setup;
}

std::vector<std::string> badges_of(const Frame& frame, CardId card) {
  std::vector<std::string> out;
  for (const FrameBadge& badge : frame.badges) {
    if (badge.card == card) out.push_back(badge.number + " " + badge.text);
  }
  return out;
}

}  // namespace

TEST_CASE(
    "play: a number of a card shows on it while it is not 0, at its corner, as large as the feel says") {
  Hand h(field_of_cards());
  const CardId card = h.cards("hand")[1];
  CHECK(h.field.frame().badges.empty());
  for (const auto& [name, value] :
       {std::pair{"life", 12}, std::pair{"worn", -3}, std::pair{"hits", 1}, std::pair{"secret", 9}})
    REQUIRE(h.field.edits().set_number(name, value, card));
  const std::uint64_t before = h.field.frame().revision;
  CHECK(badges_of(h.field.frame(), card) == std::vector<std::string>{"hits 1", "life 12", "worn -3"});
  const auto place = [&](std::size_t i) { return h.field.frame().badges.at(i).place; };
  const Size size = h.field.frame().card;
  CHECK(place(0).max.x > 0.8f);
  CHECK(place(0).max.y < 0.5f);
  CHECK(place(1).min.x < 0.2f);
  CHECK(place(1).max.y > 0.8f);
  CHECK(place(2).min.x > place(1).max.x);  // side by side at one corner
  CHECK(place(1).height() * size.height == Approx(0.3f * size.width));
  CHECK(place(1).width() * size.width == Approx(0.3f * size.width));
  for (const FrameBadge& badge : h.field.frame().badges)
    CHECK(h.field.frame().items.at(badge.item).card == card);
  // It is the table's: gone when it is 0, and when it is undone.
  REQUIRE(h.field.edits().set_number("life", 0, card));
  CHECK(badges_of(h.field.frame(), card) == std::vector<std::string>{"hits 1", "worn -3"});
  CHECK(h.field.frame().revision > before);
  // It stays legible where cards are small.
  Hand small(field_of_cards(), {.window = {400, 200}});
  REQUIRE(small.field.edits().set_number("hits", 3, small.cards("hand")[0]));
  REQUIRE(small.field.frame().card.width < 50);
  CHECK(small.field.frame().badges.at(0).place.height() * small.field.frame().card.height == Approx(16));
  Feel feel;
  feel.badge = 1;
  REQUIRE(h.field.performances().set_feel(feel));
  REQUIRE(h.field.edits().set_number("hits", 1234567, card));
  for (const FrameBadge& badge : h.field.frame().badges) {
    CHECK(badge.place.width() <= 1);
    CHECK(badge.place.height() * size.height <= Approx(size.width));
  }
}

TEST_CASE("play: a badge is on whatever shows its card: in the hand, in flight, larger, as a copy") {
  PlayfieldOptions options{.window = {1000, 700}};
  options.drag.look = DragLook::copy;
  Hand h(field_of_cards(), options);
  const CardId card = h.cards("hand")[0];
  REQUIRE(h.field.edits().set_number("hits", 2, card));
  const auto on = [&](FrameKind kind) {
    const Frame& frame = h.field.frame();
    return std::count_if(frame.badges.begin(), frame.badges.end(),
                         [&](const FrameBadge& b) { return frame.items.at(b.item).kind == kind; });
  };
  CHECK(on(FrameKind::card) == 1);
  h.point(PointerPhase::move, h.grip(card));
  h.wait(2);
  CHECK(on(FrameKind::zoom) == 1);
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, h.middle("plot"));
  CHECK(on(FrameKind::copy) == 1);
  h.point(PointerPhase::up, h.middle("plot"));
  for (int i = 0; i < 30; ++i) {
    h.wait(0.02);
    CHECK(on(FrameKind::card) == 1);
  }
}

TEST_CASE(
    "play: the badges of a frame are in the order of its items, each card with its own, whatever goes on") {
  for_all("badges", 2, [](Random& r) {
    Hand h(field_of_cards());
    for (int i = 0; i < 20; ++i) {
      const auto& cards = h.field.table().zone(h.zone(r.chance(0.7f) ? "hand" : "plot"))->cards;
      if (!cards.empty()) {
        const CardId card = cards[r.below(cards.size())];
        if (r.chance(0.5f))
          (void)h.field.edits().set_number(r.chance(0.5f) ? "hits" : "life", r.between(-2, 2), card);
        if (r.chance(0.3f)) (void)h.field.edits().move({card, 1}, h.zone(r.chance(0.5f) ? "hand" : "plot"));
        if (r.chance(0.2f)) h.point(PointerPhase::move, h.middle(card));
      }
      h.wait(r.uniform(0, 0.3f));
      const Frame& frame = h.field.frame();
      std::vector<std::string> wanted, shown;
      for (std::size_t item = 0; item < frame.items.size(); ++item) {
        for (const char* name : {"hits", "life"}) {
          const int value = frame.items[item].card ? h.field.table().number(name, frame.items[item].card) : 0;
          if (value != 0) wanted.push_back(std::to_string(item) + name + std::to_string(value));
        }
      }
      for (const FrameBadge& badge : frame.badges)
        shown.push_back(std::to_string(badge.item) + badge.number + badge.text);
      RC_ASSERT(shown == wanted);
    }
  });
}

TEST_CASE("play: panels say and fill by the numbers of the table, and the one of the seat on turn glows") {
  Hand h(field_of_cards());
  const SeatId south = *h.field.table().find_seat("south");
  const auto panel = [&](std::size_t i) { return h.field.frame().panels.at(i); };
  CHECK(panel(0).text == "2, 3");
  CHECK_FALSE(panel(0).glows);
  CHECK(panel(1).fill == 0.25f);
  REQUIRE(h.field.edits().set_number("points", 6, south));
  REQUIRE(h.field.edits().move({h.cards("hand")[0], 1}, h.zone("plot")));
  REQUIRE(h.field.edits().set_turn(std::vector{south}));
  CHECK(panel(0).text == "6, 2");
  CHECK(panel(0).glows);
  CHECK(panel(1).fill == 0.75f);
  REQUIRE(h.field.edits().set_number("points", 99, south));
  CHECK(panel(1).fill == 1);
  REQUIRE(h.field.edits().set_number("wanted", 0));
  CHECK(panel(1).fill == 0);
  h.field.hand().focus({.panel = {1}});
  CHECK(describe_focus(h.field) == "99, 2.");
}

TEST_CASE("play: badges and bars that make no sense are refused") {
  const auto refusal = [](auto change) {
    TableSetup setup = field_of_cards();
    change(setup);
    try {
      check(setup);
    } catch (const Error& e) {
      return std::string(e.what());
    }
    return std::string();
  };
  CHECK(refusal([](TableSetup&) {}) == "");
  CHECK(refusal([](TableSetup& s) { s.badges = {{""}}; }) ==
        "table: a badge of no number: its name is expected");
  CHECK(refusal([](TableSetup& s) { s.badges.assign(9, {"a"}); }) ==
        "table: 9 badges: at most 8 are expected");
  CHECK(refusal([](TableSetup& s) { s.badges.assign(8, {"a"}); }) == "");
  CHECK(refusal([](TableSetup& s) { s.panels[1].full_at = ""; }).find("both are expected") !=
        std::string::npos);
  CHECK(refusal([](TableSetup& s) { s.panels[0].seat = {2}; }) ==
        "panel 'name': seat 2: a seat of the table, or none, is expected");
}
