// Cards that are chosen and played together: dragged, by keys, by a call, over a server.
#include <catch2/catch.hpp>
#include <map>

#include "apsidon/files/input_log.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A hand and a shelf of which cards are chosen, a heap that takes two or three, and a shut pot.
TableSetup shedding(const Rule& takes = rule::all({rule::at_least(2), rule::at_most(3)})) {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  ZoneSetup hand{.name = "hand",
                 .layout = {.kind = HandLayout{}, .longest = 9},
                 .rules = {.select = SelectRule{}, .sorts = true},
                 .handling = {.hover = HoverKind::raise, .tap = TapKind::select},
                 .cards = some(deck, {"fern-1", "fern-2", "reed-2", "poppy-2", "fern-3", "reed-9"})};
  const ZoneId lower = setup.add(hand);
  hand.name = "shelf";
  hand.layout.kind = SpreadLayout{};
  hand.cards = some(deck, {"marigold-2", "marigold-3"});
  const ZoneId shelf = setup.add(hand);
  const ZoneId heap = setup.add({.name = "heap",
                                 .layout = {.kind = SpreadLayout{}, .longest = 9},
                                 .rules = {.drop = takes, .inserts = true},
                                 .cards = some(deck, {"poppy-8", "poppy-9"})});
  const ZoneId pot = setup.add({.name = "pot", .layout = {.longest = 9}});
  setup.plans = {{.root = down({across({zone(shelf, 1), zone(heap, 1), zone(pot)}), zone(lower, 1)}),
                  .largest_width = 90}};
  return setup;
}

/// Some of hand and shelf, in some order, chosen by calls.
std::vector<CardId> choose_some(Hand& h, Random& r, std::size_t most) {
  std::vector<CardId> cards = h.cards("hand");
  cards.insert(cards.end(), h.cards("shelf").begin(), h.cards("shelf").end());
  for (std::size_t i = 0; i + 1 < cards.size(); ++i)
    std::swap(cards[i], cards[i + r.below(cards.size() - i)]);
  cards.resize(std::min(cards.size(), 1 + r.below(most)));
  for (const CardId card : cards) REQUIRE(h.field.hand().select(card));
  return cards;
}

std::map<CardId, Pose> live_poses(Hand& h) {
  std::map<CardId, Pose> poses;
  for (const Zone& zone : h.field.table().zones())
    for (const CardId card : zone.cards) poses[card] = *h.field.where().live_pose(card);
  return poses;
}

std::size_t times_told(const std::vector<Event>& events, EventKind kind) {
  return static_cast<std::size_t>(
      std::count_if(events.begin(), events.end(), [&](const Event& e) { return e.kind == kind; }));
}

}  // namespace

TEST_CASE("play: a drag of one chosen card takes all, in a small fan, and ends as a bare table says") {
  for_all("dragging several", 12, [](Random& r) {
    const TableSetup setup = shedding();
    InputLog log{.options = {.window = {1000, 700}}};
    if (r.chance(0.3f)) log.options.drag.look = DragLook::copy;
    Hand h(setup, log.options);
    h.field.set_recorder([&](const Input& input) { log.inputs.push_back(input); });
    h.settle();
    const std::vector<CardId> cards = choose_some(h, r, 4);
    h.settle();
    const auto before = live_poses(h);
    h.told.clear();
    const CardId gripped = cards[r.below(cards.size())];
    const auto kind = r.chance(0.5f) ? PointerKind::mouse : PointerKind::touch;
    const std::string to = r.chance(0.8f) ? "heap" : "pot";
    h.point(PointerPhase::down, h.grip(gripped), kind);
    h.point(PointerPhase::move, h.grip(gripped) - Vec2{0, 40}, kind);
    h.point(PointerPhase::move, h.middle(to), kind);
    h.wait(0.4);
    RC_ASSERT(h.field.hand().held() == (Run{gripped, cards.size()}));
    const bool takes = cards.size() > 1 && cards.size() < 4;
    const auto targets = h.field.hand().targets();
    RC_ASSERT((std::find(targets.begin(), targets.end(), h.zone("heap")) != targets.end()) == takes);
    std::size_t near = 0;
    for (const FrameItem& item : h.field.frame().items) {
      if (!item.marks.held ||
          item.kind != (log.options.drag.look == DragLook::copy ? FrameKind::copy : FrameKind::card))
        continue;
      const Vec2 middle = (item.corners.corners[0] + item.corners.corners[2]) * 0.5f;
      near += length(middle - h.middle(to)) < 2.2f * h.field.where().card_size().height ? 1u : 0u;
    }
    RC_ASSERT(near == cards.size());
    Table bare = setup.table;
    Move move{.kind = MoveKind::several, .cards = cards, .from = bare.card(cards[0])->zone, .to = h.zone(to)};
    h.point(PointerPhase::up, h.middle(to), kind);
    h.settle();
    const Event* dropped = h.last(EventKind::dropped);
    RC_ASSERT((dropped != nullptr) == (takes && to == "heap"));
    RC_ASSERT(times_told(h.told, EventKind::picked_up) == 1);
    RC_ASSERT(times_told(h.told, EventKind::dropped) + times_told(h.told, EventKind::refused) +
                  times_told(h.told, EventKind::cancelled) ==
              1);
    if (dropped) {
      const auto& heap = h.cards("heap");
      move.at = static_cast<std::size_t>(std::find(heap.begin(), heap.end(), cards[0]) - heap.begin());
      RC_ASSERT(dropped->card == cards[0]);
      RC_ASSERT(dropped->count == cards.size());
      RC_ASSERT(apply_move(bare, setup.rulebook(), move).verdict);
      RC_ASSERT(h.chosen().empty());
    } else {
      RC_ASSERT(h.chosen() == cards);
      for (const auto& [card, pose] : live_poses(h)) {
        if (kind == PointerKind::touch) RC_ASSERT(length(pose.centre - before.at(card).centre) < 0.5f);
      }
    }
    for (const Zone& zone : bare.zones()) RC_ASSERT(h.field.table().zone(zone.id)->cards == zone.cards);
    Playfield again(setup, log.options);
    (void)replay(again, log.inputs, h.field.now(), [](const Event&) {});
    for (const Zone& zone : bare.zones()) RC_ASSERT(again.table().zone(zone.id)->cards == zone.cards);
    if (!dropped) return;
    REQUIRE(h.field.moves().undo());
    for (const Zone& zone : setup.table.zones())
      RC_ASSERT(h.field.table().zone(zone.id)->cards == zone.cards);
  });
}

TEST_CASE("play: what is chosen is played by a key, a call, and over a server that answers later") {
  for_all("playing what is chosen", 10, [](Random& r) {
    Hand h(shedding());
    const bool waits = r.chance(0.5f);
    const bool yes = r.chance(0.6f);
    if (waits)
      h.field.moves().set_judge([](const Proposal&) -> std::optional<Verdict> { return std::nullopt; });
    h.settle();
    const std::vector<CardId> cards = choose_some(h, r, 3);
    const bool may = cards.size() > 1;
    const Table before = h.field.table();
    if (r.chance(0.5f)) {
      RC_ASSERT(h.field.hand().focus({.card = cards.back(), .zone = before.card(cards.back())->zone}));
      RC_ASSERT(h.key(Key::send));
    } else {
      RC_ASSERT(h.field.moves().play_selection(r.chance(0.5f) ? h.zone("heap") : ZoneId{}).allowed() == may);
    }
    h.settle();
    if (waits && may) {
      RC_ASSERT(h.field.table().zone(h.zone("heap"))->cards == before.zone(h.zone("heap"))->cards);
      RC_ASSERT(h.chosen() == cards);
      for (const CardId card : cards)
        RC_ASSERT(overlap(bounds(corners(*h.field.where().live_pose(card), h.field.where().card_size())),
                          *h.field.where().area(h.zone("heap"))) > 0);
      RC_ASSERT(h.field.moves().play_selection(h.zone("heap")).reason == Reason::locked);
      const auto id = h.field.moves().waiting().front().id;
      (void)h.field.moves().answer(id, yes ? Verdict{} : Verdict{.reason = Reason::refused_by_game}, true);
      h.settle();
    }
    const bool made = may && (!waits || yes);
    std::vector<CardId> heap = before.zone(h.zone("heap"))->cards;
    if (made) heap.insert(heap.end(), cards.begin(), cards.end());
    RC_ASSERT(h.cards("heap") == heap);
    RC_ASSERT(h.chosen() == (made ? std::vector<CardId>{} : cards));
    RC_ASSERT(times_told(h.told, EventKind::dropped) == (made ? 1u : 0u));
  });
}

TEST_CASE("play: chosen cards that wait end as superseded when the game moves one of them elsewhere") {
  Hand h(shedding());
  h.field.moves().set_judge([](const Proposal&) -> std::optional<Verdict> { return std::nullopt; });
  const CardId one = h.cards("hand")[0];
  const CardId other = h.cards("shelf")[0];
  for (const CardId card : {one, other}) REQUIRE(h.field.hand().select(card));
  REQUIRE(h.field.moves().play_selection(h.zone("heap")));
  const auto id = h.field.moves().waiting().front().id;
  REQUIRE(h.field.edits().move({other, 1}, h.zone("pot")));
  h.wait(0);
  REQUIRE(h.last(EventKind::superseded));
  CHECK(h.field.moves().waiting().empty());
  CHECK(h.field.moves().answer(id, {}, true).reason == Reason::unknown_proposal);
  CHECK(h.cards("pot") == std::vector{other});
  CHECK(h.cards("hand").front() == one);
  CHECK(h.chosen() == std::vector{one});
}

TEST_CASE("play: a rectangle from an empty place chooses what lies in it, and lets go of what it leaves") {
  for_all("rectangles", 10, [](Random& r) {
    const SelectRule rule = r.chance(0.5f) ? SelectRule{} : SelectRule{.when = rule::at_most(2)};
    TableSetup setup = shedding();
    for (const char* name : {"hand", "shelf"}) setup.rules_of(*setup.table.find_zone(name)).select = rule;
    Hand h(std::move(setup));
    h.settle();
    const auto before = live_poses(h);
    const Vec2 from{2, 698};
    REQUIRE(h.field.where().hit(from).card == CardId{});
    CHECK(h.point(PointerPhase::down, from));
    for (int step = 0; step < 4; ++step) {
      const Vec2 to{r.uniform(10, 990), r.uniform(10, 690)};
      h.point(PointerPhase::move, to);
      RC_ASSERT(h.field.frame().sweep == (Rect{{2, to.y}, {to.x, 698}}));
      std::size_t in = 0;
      for (const char* name : {"hand", "shelf"}) {
        for (const CardId card : h.cards(name)) {
          const bool is_in = h.field.frame().sweep.contains(h.field.where().neutral_pose(card)->centre);
          const auto now = h.chosen();
          const bool is = std::find(now.begin(), now.end(), card) != now.end();
          if (is) RC_ASSERT(is_in);
          if (is_in && !rule.when.number) RC_ASSERT(is);
          in += is_in ? 1u : 0u;
        }
      }
      if (rule.when.number) RC_ASSERT(h.chosen().size() == std::min<std::size_t>(in, 2));
    }
    h.point(PointerPhase::up, {900, 100});
    RC_ASSERT(h.field.frame().sweep.empty());
    RC_ASSERT(h.field.hand().held() == Run{});
    h.tap(from, r.chance(0.5f) ? PointerKind::mouse : PointerKind::touch);
    RC_ASSERT(h.chosen().empty());
    RC_ASSERT(times_told(h.told, EventKind::tapped) == 0);
  });
}

TEST_CASE(
    "play: a tap may choose one alone, with Ctrl one more, with Shift all up to it, and fingers choose "
    "each") {
  for_all("modifier keys", 8, [](Random& r) {
    TableSetup setup = shedding();
    const bool one = r.chance(0.7f);
    setup.handling_of(*setup.table.find_zone("hand")).tap = one ? TapKind::select_one : TapKind::select;
    Hand h(std::move(setup));
    h.settle();
    const auto hand = h.cards("hand");
    std::vector<CardId> model;
    for (int step = 0; step < 12; ++step) {
      const std::size_t i = r.below(hand.size());
      const bool shift = r.chance(0.3f);
      const bool control = r.chance(0.4f);
      const auto kind = r.chance(0.8f) ? PointerKind::mouse : PointerKind::touch;
      for (const PointerPhase phase : {PointerPhase::down, PointerPhase::up})
        h.field.pointer({.phase = phase,
                         .at = h.grip(hand[i]),
                         .time = h.field.now() + 0.02,
                         .kind = kind,
                         .shift = shift,
                         .control = control});
      h.wait(0.1);
      h.settle();
      const CardId card = h.last(EventKind::tapped)->card;
      const auto at = [&](CardId of) { return std::find(hand.begin(), hand.end(), of) - hand.begin(); };
      if (shift && !model.empty()) {
        const auto to = at(card);
        for (auto k = at(model.back()); k != to;) {
          k += to > k ? 1 : -1;
          const CardId next = hand[static_cast<std::size_t>(k)];
          if (std::find(model.begin(), model.end(), next) == model.end()) model.push_back(next);
        }
      } else if (one && !control && kind == PointerKind::mouse) {
        model = {card};
      } else if (std::erase(model, card) == 0) {
        model.push_back(card);
      }
      RC_ASSERT(h.chosen() == model);
    }
  });
}

TEST_CASE("play: what the rules would not let be chosen any more is let go of, as at another's turn") {
  TableSetup setup = shedding();
  const SeatId south = setup.table.create_seat("south");
  const SeatId north = setup.table.create_seat("north");
  setup.rules_of(*setup.table.find_zone("hand")).select = SelectRule{.when = rule::on_turn()};
  (void)setup.table.set_turn(std::vector{south});
  Hand h(std::move(setup), {.window = {1000, 700}, .seat = south});
  const auto hand = h.cards("hand");
  REQUIRE(h.field.hand().select(hand[0]));
  REQUIRE(h.field.hand().select(hand[1]));
  CHECK(h.field.rules().addable().size() == 6);
  REQUIRE(h.field.edits().set_turn(std::vector{north}));
  CHECK(h.chosen().empty());
  CHECK(h.field.hand().select(hand[0]).reason == Reason::not_on_turn);
  CHECK(h.field.rules().addable() == h.cards("shelf"));
  CHECK(h.field.moves().play_selection().reason == Reason::nothing_chosen);
  REQUIRE(h.field.edits().set_turn(std::vector{south}));
  REQUIRE(h.field.hand().select(hand[0]));
  REQUIRE(h.field.hand().select(hand[1]));
  REQUIRE(h.field.switches().switch_off(h.zone("heap"), "frost"));
  CHECK(h.field.moves().play_selection(h.zone("heap")).reason == Reason::switched_off);
  CHECK(h.field.moves().play_selection({99}).reason == Reason::unknown_zone);
  REQUIRE(h.field.switches().switch_on(h.zone("heap"), "frost"));
  CHECK(h.field.moves().play_selection(h.zone("heap")));
}

TEST_CASE("play: which cards may be played is marked or dimmed, and one that may not says why at a tap") {
  for (const PlayableLook look : {PlayableLook::mark, PlayableLook::dim}) {
    TableSetup setup(glasshouse());
    const ZoneId hand =
        setup.add({.name = "hand",
                   .layout = {.kind = SpreadLayout{}, .longest = 4},
                   .rules = {.pick = {.kind = PickKind::any}},
                   .handling = {.playable = look},
                   .cards = some(setup.table.deck(), {"fern-1", "fern-2", "reed-2", "poppy-2"})});
    const ZoneId heap = setup.add({.name = "heap",
                                   .layout = {.longest = 9},
                                   .rules = {.drop = rule::any({rule::same_suit(), rule::rank_up()})},
                                   .cards = some(setup.table.deck(), {"fern-5"})});
    setup.plans = {{.root = across({zone(hand, 1), zone(heap)})}};
    Hand h(std::move(setup));
    h.settle();
    const auto shown = [&] {
      std::vector<CardId> cards;
      for (const FrameItem& item : h.field.frame().items) {
        const bool dimmed = item.brightness < 1;
        if (item.zone != hand || item.kind != FrameKind::card) continue;
        if (look == PlayableLook::mark ? item.marks.playable : !dimmed) cards.push_back(item.card);
      }
      return cards;
    };
    const auto cards = h.cards("hand");
    CHECK(shown() == std::vector{cards[0], cards[1]});
    h.tap(h.grip(cards[2]));
    REQUIRE(h.last(EventKind::pick_refused));
    CHECK(h.last(EventKind::pick_refused)->verdict.reason == Reason::not_same_suit);
    h.told.clear();
    h.tap(h.grip(cards[0]));
    CHECK_FALSE(h.last(EventKind::pick_refused));
    REQUIRE(h.field.edits().move({cards[2], 1}, heap));
    h.settle();
    CHECK(shown() == std::vector<CardId>{});
    REQUIRE(h.field.rules().ask_again(false));
    h.settle();
    CHECK(shown().size() == (look == PlayableLook::mark ? 0u : 3u));
  }
}
