// Play against a server that answers late, while cards come and go.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "apsidon/files/saved_game.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A hand against a game that answers later.
Hand slow_hand() {
  Hand h(desk({}));
  h.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
  return h;
}

CardId offer(Hand& h, std::size_t index, const std::string& to) {
  const CardId card = h.cards("hand")[index];
  h.drag(h.grip(card), h.middle(to));
  return card;
}

Vec2 live(const Hand& h, CardId card) { return h.field.where().live_pose(card)->centre; }

/// Cards with the keys 1, 2, … in a hand, and a row that takes them: both known to a server.
TableSetup keyed(int cards) {
  TableSetup setup(glasshouse());
  const ZoneId row = setup.add({.name = "row",
                                .key = 1,
                                .layout = {.kind = SpreadLayout{.spacing = 1.1f}, .longest = 8},
                                .rules = {.drop = rule::anything()}});
  ZoneSetup hand{.name = "hand",
                 .key = 2,
                 .layout = {.kind = HandLayout{}, .longest = 10},
                 .rules = {.pick = {.kind = PickKind::any}}};
  for (int i = 1; i <= cards; ++i)
    hand.cards.push_back({.face = {static_cast<std::uint32_t>(i)}, .key = static_cast<std::uint64_t>(i)});
  const ZoneId id = setup.add(hand);
  setup.plans = {{.root = down({zone(row, 1), zone(id, 1)})}};
  return setup;
}

std::vector<WantedZone> wish(std::initializer_list<std::uint64_t> row,
                             std::initializer_list<std::uint64_t> hand) {
  std::vector<WantedZone> out{{.key = 1, .cards = {}}, {.key = 2, .cards = {}}};
  for (const std::uint64_t key : row) out[0].cards.push_back({.key = key});
  for (const std::uint64_t key : hand) out[1].cards.push_back({.key = key});
  return out;
}

}  // namespace

TEST_CASE("play: slow: a drag goes on when a card played before is answered, and when one is dealt") {
  Hand h = slow_hand();
  const CardId played = offer(h, 9, "shelf");
  h.settle();
  const CardId next = h.cards("hand")[3];
  h.point(PointerPhase::down, h.grip(next));
  h.point(PointerPhase::move, h.middle("meadow"));
  CHECK(h.field.moves().answer(h.field.moves().waiting()[0].id));
  CHECK(h.cards("shelf") == std::vector<CardId>{played});
  CHECK(h.field.edits().create(h.zone("hand"), open_card(h.field.table().deck(), "reed-2")).verdict);
  h.wait(0.1);
  CHECK(h.field.hand().held().first == next);
  CHECK(h.count(EventKind::cancelled) == 0);
  h.wait(1);
  CHECK(length(live(h, next) - h.middle("meadow")) < h.field.where().card_size().width);
  h.point(PointerPhase::up, h.middle("meadow"));
  REQUIRE(h.field.moves().waiting().size() == 1);
  CHECK(h.field.moves().waiting()[0].move.run.first == next);
}

TEST_CASE("play: slow: what waits on a zone lies beside each other, and stays there when it is allowed") {
  for_all("waiting cards", 8, [](Random& r) {
    Hand h(keyed(6), {.window = {1000, 700}, .feel = r.chance(0.5f) ? Feel{} : springy()});
    h.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
    const int count = r.between(2, 4);
    std::vector<CardId> cards;
    for (int i = 0; i < count; ++i) {
      const CardId card = h.cards("hand")[static_cast<std::size_t>(i)];
      cards.push_back(card);
      h.drag(h.grip(card), h.middle("row"));
    }
    h.settle();
    const float width = h.field.where().card_size().width;
    for (std::size_t i = 1; i < cards.size(); ++i)
      RC_ASSERT(live(h, cards[i]).x - live(h, cards[i - 1]).x > width * 0.9f);
    RC_ASSERT(h.cards("row").empty());
    // As they will lie when they are allowed: from then on nothing moves.
    std::vector<Vec2> shown;
    for (const CardId card : cards) shown.push_back(live(h, card));
    while (!h.field.moves().waiting().empty())
      RC_ASSERT(h.field.moves().answer(h.field.moves().waiting()[0].id).allowed());
    RC_ASSERT(h.cards("row") == cards);
    for (int step = 0; step < 20; ++step) {
      h.wait(0.02);
      for (std::size_t i = 0; i < cards.size(); ++i) {
        RC_ASSERT(length(live(h, cards[i]) - shown[i]) < 0.01f);
        RC_ASSERT(h.field.where().live_pose(cards[i])->lift < 0.01f);
      }
    }
    RC_ASSERT(h.count(EventKind::landed) == count);
  });
}

TEST_CASE(
    "play: slow: a waiting card makes room for one that arrives meanwhile, and goes home when refused") {
  Hand h(keyed(5));
  h.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
  const CardId waits = h.cards("hand")[0];
  h.drag(h.grip(waits), h.middle("row"));
  h.settle();
  const CardId other = h.cards("hand")[2];
  CHECK(h.field.edits().move({other, 1}, h.zone("row")));
  h.settle();
  const float width = h.field.where().card_size().width;
  CHECK(std::abs(live(h, other).x - live(h, waits).x) > width);
  CHECK(live(h, other) == h.field.where().resting_pose(other)->centre);
  CHECK(h.field.moves().answer(h.field.moves().waiting()[0].id, {.reason = Reason::refused_by_game}).reason ==
        Reason::refused_by_game);
  h.settle();
  for (const CardId card : {waits, other}) CHECK(live(h, card) == h.field.where().resting_pose(card)->centre);
  CHECK(h.cards("hand").size() == 4);
}

TEST_CASE("play: slow: a sync that has what is waited for is its answer") {
  Hand h(keyed(5));
  h.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
  const CardId first = h.cards("hand")[0];
  const CardId second = h.cards("hand")[1];
  h.drag(h.grip(first), h.middle("row"));
  h.drag(h.grip(second), h.middle("row"));
  h.settle();
  h.told.clear();
  const Vec2 shown = live(h, first);
  const std::uint64_t proposal = h.field.moves().waiting()[0].id;
  // The server has taken the first, and knows nothing of the second.
  CHECK(h.field.edits().sync(wish({1}, {2, 3, 4, 5})).verdict);
  h.wait(0);
  CHECK(h.count(EventKind::superseded) == 0);
  REQUIRE(h.count(EventKind::dropped) == 1);
  CHECK(h.last(EventKind::dropped)->proposal == proposal);
  CHECK(h.last(EventKind::dropped)->card == first);
  REQUIRE(h.field.moves().waiting().size() == 1);
  for (int i = 0; i < 30; ++i) {
    h.wait(0.02);
    CHECK(length(live(h, first) - shown) < 0.01f);
  }
  CHECK(h.count(EventKind::emptied) == 0);
  // One that has it elsewhere ends it.
  CHECK(h.field.edits().sync(wish({1}, {3, 4, 5})).retired.size() == 1);
  h.wait(0);
  CHECK(h.count(EventKind::superseded) == 1);
  CHECK(h.field.moves().waiting().empty());
}

TEST_CASE("play: slow: a sync that has the last card where it was to go tells that its zone is empty") {
  Hand h(keyed(1));
  h.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
  const ZoneId hand = h.zone("hand");
  h.drag(h.grip(h.cards("hand")[0]), h.middle("row"));
  h.settle();
  h.told.clear();
  CHECK(h.field.edits().sync(wish({1}, {})).verdict);
  h.wait(0);
  REQUIRE(h.count(EventKind::emptied) == 1);
  CHECK(h.last(EventKind::emptied)->from == hand);
}

TEST_CASE(
    "play: slow: a face that is covered and hidden at once shows until the card is edge-on, and is gone "
    "then") {
  Hand h(keyed(3));
  const CardId card = h.cards("hand")[1];
  const FaceId face = h.field.table().card(card)->face;
  std::vector<WantedZone> wanted = wish({}, {1, 2, 3});
  wanted[1].cards[1] = {.key = 2, .face = hidden_face, .face_up = false};
  CHECK(h.field.edits().sync(wanted).verdict);
  CHECK(h.field.table().card(card)->face == hidden_face);
  const auto item = [&] {
    for (const FrameItem& i : h.field.frame().items) {
      if (i.card == card) return i;
    }
    return FrameItem{};
  };
  bool edge_on = false;
  for (int i = 0; i < 60; ++i) {
    for (const Event& event : events_until(h.field, h.field.now() + 0.01)) {
      edge_on = edge_on || event.kind == EventKind::edge_on;
    }
    CHECK(item().back == edge_on);
    CHECK(item().face == (edge_on ? hidden_face : face));
  }
  CHECK(edge_on);
  // Turned up again before its face is known it waits on its edge, and shows none.
  wanted[1].cards[1].face_up = true;
  CHECK(h.field.edits().sync(wanted).verdict);
  h.wait(1);
  CHECK(item().face == hidden_face);
}

TEST_CASE("play: slow: what was concealed cannot be had back by undo") {
  Hand h(desk({}));
  h.drag(h.grip(h.cards("hand")[9]), h.middle("shelf"));
  REQUIRE(h.field.moves().can_undo());
  CHECK(h.field.edits().conceal(h.zone("hand")));
  CHECK_FALSE(h.field.moves().can_undo());
  for (const CardId card : h.cards("hand")) CHECK(h.field.table().card(card)->face == hidden_face);
}

TEST_CASE("play: slow: it is told why something was put back") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const auto hold = [&] {
    h.point(PointerPhase::down, h.grip(card));
    h.point(PointerPhase::move, h.middle("meadow"));
    REQUIRE(h.field.hand().held().first == card);
  };
  const auto cause = [&] {
    h.wait(0.01);
    REQUIRE(h.field.hand().held().count == 0);
    const CancelCause why = h.last(EventKind::cancelled)->cause;
    h.settle();
    return why;
  };
  hold();
  h.point(PointerPhase::cancel, {5, 5});
  CHECK(cause() == CancelCause::pointer_lost);
  hold();
  h.field.gate().close("menu");
  CHECK(cause() == CancelCause::gate_closed);
  h.field.gate().open("menu");
  h.point(PointerPhase::up, {5, 5});
  hold();
  h.field.blur(h.field.now());
  CHECK(cause() == CancelCause::blurred);
  h.point(PointerPhase::up, {5, 5});
  hold();
  h.field.resize({900, 650}, 1, h.field.now());
  CHECK(cause() == CancelCause::resized);
  h.point(PointerPhase::up, {5, 5});
  hold();
  CHECK(h.field.edits().move({card, 1}, h.zone("shelf")));
  CHECK(cause() == CancelCause::by_game);
  h.point(PointerPhase::up, {5, 5});
  const CardId other = h.cards("hand")[0];
  h.point(PointerPhase::down, h.grip(other));
  h.point(PointerPhase::move, h.grip(other) + Vec2{0, 12});
  h.point(PointerPhase::up, h.grip(other) + Vec2{0, 12});
  CHECK(cause() == CancelCause::nowhere);
  CHECK(h.key(Key::next));
  CHECK(h.key(Key::act));
  REQUIRE(h.field.hand().held().count == 1);
  CHECK(h.key(Key::cancel));
  CHECK(cause() == CancelCause::put_back);
}

TEST_CASE(
    "play: slow: where a card waits for its answer elsewhere, its place stays, or closes if the zone says "
    "so") {
  for (const bool closes : {false, true}) {
    TableSetup setup = keyed(5);
    setup.handling_of({2}).closes_gaps = closes;
    Hand h(setup);
    h.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
    const std::vector<CardId> cards = h.cards("hand");
    const auto rest = [&] {
      std::vector<Vec2> out;
      for (const std::size_t i : {0u, 2u, 3u, 4u})
        out.push_back(h.field.where().resting_pose(cards[i])->centre);
      return out;
    };
    const auto before = rest();
    h.drag(h.grip(cards[1]), h.middle("row"));
    h.settle();
    REQUIRE(h.field.moves().waiting().size() == 1);
    const auto waiting = rest();
    CHECK((waiting == before) == !closes);
    // A no brings it back to where it lay, and the others make room again.
    REQUIRE(h.field.moves().answer(1, {.reason = Reason::refused_by_game}).reason == Reason::refused_by_game);
    h.settle();
    CHECK(rest() == before);
    CHECK(live(h, cards[1]) == h.field.where().resting_pose(cards[1])->centre);
    // A yes leaves them where they have closed up to.
    h.drag(h.grip(cards[1]), h.middle("row"));
    h.settle();
    CHECK(rest() == waiting);
    REQUIRE(h.field.moves().answer(2));
    h.settle();
    CHECK((rest() == waiting) == closes);
    // While one is held they close up likewise.
    h.point(PointerPhase::down, h.grip(cards[3]));
    const auto at_rest = h.field.where().resting_pose(cards[4])->centre;
    h.point(PointerPhase::move, h.grip(cards[3]) + Vec2{0, -90});
    h.settle();
    CHECK((h.field.where().resting_pose(cards[4])->centre != at_rest) == closes);
  }
}

TEST_CASE("play: slow: what a server says while a performance runs is done when it has ended, in order") {
  const TableSetup setup = keyed(5);
  const PlayfieldOptions options{.window = {1000, 700}};
  SavedGame game{.setup = setup, .log = {.options = options}};
  Hand h(setup, options);
  h.field.set_recorder(game.recorder());
  const auto later = [&](PerformanceId id, std::initializer_list<std::uint64_t> row,
                         std::initializer_list<std::uint64_t> hand) {
    return h.field.performances().behind(
        id, [&] { CHECK(h.field.edits().sync(wish(row, hand)).verdict.allowed()); });
  };
  const PerformanceId deal = h.field.performances().deal();
  REQUIRE(later(deal, {3}, {1, 2, 4, 5}));
  REQUIRE(later(deal, {3, 1}, {2, 4, 5}));
  REQUIRE(h.field.performances()
              .behind(deal,
                      [&] {
                        (void)h.field.edits().set_number("round", 2);
                        throw "nothing";  // what was said before counts
                      })
              .reason == Reason::game_failed);
  CHECK(h.cards("row").empty());
  h.wait(0.2);
  CHECK(h.cards("row").empty());
  CHECK(h.field.performances().running(deal));
  h.settle();
  CHECK(h.cards("row").size() == 2);
  CHECK(h.field.table().number("round") == 2);
  const auto ended =
      std::find_if(h.told.begin(), h.told.end(), [](const Event& e) { return e.kind == EventKind::ended; });
  const auto counted =
      std::find_if(h.told.begin(), h.told.end(), [](const Event& e) { return e.kind == EventKind::counted; });
  REQUIRE(counted != h.told.end());
  CHECK(ended < counted);
  CHECK(ended->time == counted->time);
  // Behind what is over it is done at once; stopped is ended, too; and what waits for a round that is over is
  // not done.
  REQUIRE(later(deal, {3, 1, 2}, {4, 5}));
  CHECK(h.cards("row").size() == 3);
  const PerformanceId again = h.field.performances().deal();
  REQUIRE(later(again, {3}, {1, 2, 4, 5}));
  REQUIRE(h.field.performances().stop(again));
  h.wait(0);
  CHECK(h.cards("row").size() == 1);
  h.settle();
  // The log has each where it was done.
  const auto loaded = parse_game(write_game(game, h.field), "x");
  REQUIRE(loaded);
  CHECK(fingerprint(loaded->field) == fingerprint(h.field));
  const PerformanceId last = h.field.performances().deal();
  REQUIRE(later(last, {3, 4, 5}, {1, 2}));
  h.field.start_over(keyed(5));
  h.settle();
  CHECK(h.cards("row").empty());
}
