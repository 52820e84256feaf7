// What rests on whole pixels and what does not, and which back a covered card shows.
#include "apsidon/play/lone_card.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

Deck two_backs() {
  return Deck(
      {.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3"}, .suit_backs = true});
}

}  // namespace

TEST_CASE("play: cards of a zone that is exempt from snapping rest as exactly as they are laid") {
  for_all("exempt from snapping", 10, [](Random& r) {
    const Size window{r.uniform(300, 900), r.uniform(300, 900)};
    const auto field = [&](bool snaps) {
      TableSetup setup(glasshouse());
      ZoneSetup column{.name = "column", .layout = {.kind = ColumnLayout{}, .longest = 9, .snaps = snaps}};
      for (std::uint32_t i = 1; i <= 7; ++i) column.cards.push_back({.face = {i}});
      setup.plans = {{.root = zone(setup.add(column), 1)}};
      return Playfield(std::move(setup), {.window = window});
    };
    const Playfield snapping = field(true);
    const Playfield exact = field(false);
    for (const CardId card : exact.table().zones()[0].cards) {
      RC_ASSERT(*exact.where().resting_pose(card) == *exact.where().neutral_pose(card));
      const Vec2 corner =
          snapping.where().resting_pose(card)->centre -
          Vec2{snapping.where().card_size().width, snapping.where().card_size().height} * 0.5f;
      RC_ASSERT(std::abs(corner.y - std::round(corner.y)) < 1e-3f);
    }
  });
}

TEST_CASE(
    "play: a frame says which back shows, only of a deck whose backs tell the suit, and only of a back") {
  for (const bool differ : {true, false}) {
    DeckOptions options = two_backs().options();
    options.suit_backs = differ;
    TableSetup setup{Deck(options)};
    const ZoneId zone_id = setup.add(
        {.name = "a",
         .layout = {.kind = HandLayout{}, .longest = 4},
         .cards = {{.face = {4}, .face_up = false}, {.face = {1}}, {.face = hidden_face, .face_up = false}}});
    setup.plans = {{.root = zone(zone_id)}};
    Playfield field(setup, {.window = {600, 400}});
    const auto suits = [&] {
      std::vector<int> out;
      for (const FrameItem& item : field.frame().items) out.push_back(item.back_suit);
      return out;
    };
    CHECK(suits() == std::vector<int>{differ ? 1 : -1, -1, -1});
    // In the middle of a flip it is told of as long as the back shows.
    const CardId covered = field.table().zones()[0].cards[0];
    field.edits().flip(covered, true);
    for (double time = 0; time < 1; time += 0.02) {
      field.advance_to(time);
      for (const FrameItem& item : field.frame().items) {
        if (item.card == covered) CHECK(item.back_suit == (item.back && differ ? 1 : -1));
        CHECK((!item.back || item.face == hidden_face));
      }
    }
    CHECK(suits() == std::vector<int>{-1, -1, -1});
    const Deck deck(options);
    LoneCard lone(deck, {.face = {5}, .face_up = false, .box = {{0, 0}, {50, 70}}});
    CHECK(lone.item().back_suit == (differ ? 1 : -1));
    lone.flip(Pace::at_once);
    CHECK(lone.item().back_suit == -1);
  }
}

TEST_CASE("play: a resting pointer is asked again when a lone card comes to lie elsewhere") {
  const Deck deck = glasshouse();
  LoneCard card(deck, {.face = {3}, .box = {{0, 0}, {100, 140}}});
  card.pointer({.phase = PointerPhase::move, .at = {50, 70}, .time = 1});
  CHECK(card.hovered());
  card.set_box({{200, 0}, {300, 140}});
  CHECK_FALSE(card.hovered());
  card.set_box({{0, 0}, {100, 140}});
  CHECK(card.hovered());
  card.set_off(true);
  CHECK_FALSE(card.hovered());
  card.set_off(false);
  CHECK(card.hovered());
  // It stays hovered while it turns below the pointer, and is left once where it turns away from it.
  card.pointer({.phase = PointerPhase::move, .at = {4, 70}, .time = 2});
  CHECK(card.hovered());
  card.set_box({{0, 0}, {140, 140}});
  CHECK_FALSE(card.hovered());
  card.set_sideways(true);
  CHECK(card.hovered());
  card.pointer({.phase = PointerPhase::leave, .at = {4, 70}, .time = 3});
  card.set_box({{0, 0}, {100, 140}});
  CHECK_FALSE(card.hovered());
}
