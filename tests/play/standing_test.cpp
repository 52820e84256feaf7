// How a game stands is judged when the game has answered all that happened at a time.
#include <catch2/catch.hpp>

#include "apsidon/files/input_log.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Three cards in the hand, a sale that takes them one by one, and a cellar from which only the game takes.
TableSetup cellar_sale(std::size_t in_hand = 3, std::size_t in_cellar = 6) {
  TableSetup setup(glasshouse());
  const auto faces = setup.table.deck().faces();
  ZoneSetup hand{.name = "hand",
                 .key = 1,
                 .layout = {.kind = HandLayout{}, .longest = 12},
                 .rules = {.pick = {.kind = PickKind::any}}};
  ZoneSetup cellar{.name = "cellar", .key = 2, .layout = {.kind = PileLayout{}, .longest = 12}};
  for (std::size_t i = 0; i < in_hand; ++i) hand.cards.push_back({.face = faces[i], .key = i + 1});
  for (std::size_t i = 0; i < in_cellar; ++i) cellar.cards.push_back({.face = faces[20 + i], .key = 20 + i});
  const ZoneId from = setup.add(hand);
  const ZoneId below = setup.add(cellar);
  const ZoneId to = setup.add({.name = "sale",
                               .key = 3,
                               .layout = {.kind = PileLayout{}, .longest = 20},
                               .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = down({across({zone(below), zone(to)}), zone(from, 1)})}};
  return setup;
}

/// Sells the last card of the hand.
void sell(Hand& h) {
  const CardId card = h.cards("hand").back();
  REQUIRE(h.field.moves().make({.run = {card, 1}, .from = h.zone("hand"), .to = h.zone("sale")}));
}

/// Reads what is told up to a time, and answers each event when the playfield stands at it.
template <class Answer>
void play_until(Hand& h, double until, Answer answer) {
  while (auto event = h.field.next_event(until)) {
    answer(*event);
    h.told.push_back(*std::move(event));
  }
}

/// Whatever is told, for comparing sessions.
std::vector<std::pair<EventKind, double>> kinds_and_times(const std::vector<Event>& events) {
  std::vector<std::pair<EventKind, double>> out;
  for (const Event& e : events) out.emplace_back(e.kind, e.time);
  return out;
}

}  // namespace

TEST_CASE("play: a card that the game draws in answer to the last drop is a move left") {
  Hand h(cellar_sale(1));
  sell(h);
  play_until(h, 2, [&](const Event& e) {
    if (e.kind == EventKind::dropped)
      REQUIRE(h.field.edits().move({h.cards("cellar").back(), 1}, h.zone("hand")));
  });
  CHECK(h.count(EventKind::no_moves) == 0);
  CHECK(h.field.moves().standing() == Standing::open);
  // And the other way round: what the game takes away leaves none.
  REQUIRE(h.field.edits().move({h.cards("hand").back(), 1}, h.zone("cellar")));
  h.wait(0.1);
  CHECK(h.count(EventKind::no_moves) == 1);
  CHECK(h.field.moves().standing() == Standing::stuck);
  REQUIRE(h.field.edits().move({h.cards("cellar").back(), 1}, h.zone("hand")));
  h.wait(0.1);
  CHECK(h.field.moves().standing() == Standing::open);
  CHECK(h.count(EventKind::no_moves) == 1);
}

TEST_CASE(
    "play: while a script has cards to move, the gate is closed or it is not one's turn, no-moves waits") {
  for (const int how : {0, 1, 2}) {
    CAPTURE(how);
    Hand h(cellar_sale(1));
    play_until(h, 0.5, [](const Event&) {});
    PerformanceId brings;
    if (how == 0) {
      brings = h.field.performances().perform(
          sequence({wait(1), draw(h.zone("cellar"), h.zone("hand"), 1), wait(1)}));
    }
    if (how == 1) h.field.gate().close("others move");
    if (how == 2) h.field.rules().ask_again(false);
    REQUIRE(h.field.edits().move({h.cards("hand").back(), 1}, h.zone("sale")));
    h.wait(0.9);
    CHECK(h.count(EventKind::no_moves) == 0);
    CHECK(h.field.moves().standing() == Standing::open);
    if (how == 0) CHECK(h.field.performances().running(brings));
    if (how == 1) h.field.gate().open("others move");
    if (how == 2) h.field.rules().ask_again(true);
    h.wait(3);
    // The script has brought a card; otherwise it is told as soon as it counts, once.
    CHECK(h.count(EventKind::no_moves) == (how == 0 ? 0 : 1));
    CHECK(h.field.moves().standing() == (how == 0 ? Standing::open : Standing::stuck));
  }
}

TEST_CASE("play: the standing is what the rules say, whatever the game answers") {
  for_all("standing", 10, [](Random& r) {
    Hand h(cellar_sale(1 + r.below(3), 8));
    bool stuck = false;
    const auto answer = [&](const Event& e) {
      if (e.kind != EventKind::dropped && e.kind != EventKind::landed && e.kind != EventKind::no_moves)
        return;
      const std::vector<CardId>& below = h.cards("cellar");
      switch (r.below(5)) {
        case 0:
          if (!below.empty()) (void)h.field.edits().move({below.back(), 1}, h.zone("hand"));
          break;
        case 1:
          if (!h.cards("hand").empty()) (void)h.field.edits().remove(h.cards("hand").front());
          break;
        case 2:
          (void)h.field.edits().sync(
              std::vector<WantedZone>{{.key = 1, .cards = {{.key = 90 + r.below(3)}}}});
          break;
        case 3:
          (void)h.field.performances().perform(draw(h.zone("cellar"), h.zone("hand"), r.below(2)));
          break;
        default:
          break;
      }
    };
    for (int step = 0; step < 12; ++step) {
      h.told.clear();
      if (!h.cards("hand").empty() && r.chance(0.7f)) {
        const CardId card = h.cards("hand").back();
        (void)h.field.moves().make({.run = {card, 1}, .from = h.zone("hand"), .to = h.zone("sale")});
      }
      play_until(h, h.field.now() + double{r.uniform(0.01f, 0.5f)}, answer);
      const bool none = h.field.rules().legal_moves().empty();
      const bool changed_at_all = !h.told.empty() || step > 0;
      if (!changed_at_all) continue;  // what it begins with is no news
      RC_ASSERT((h.field.moves().standing() == Standing::stuck) ==
                (none && (stuck || h.count(EventKind::no_moves) > 0)));
      if (none && !stuck && !h.told.empty()) RC_ASSERT(h.count(EventKind::no_moves) >= 1);
      if (!none) RC_ASSERT(h.field.moves().standing() == Standing::open);
      stuck = h.field.moves().standing() == Standing::stuck;
    }
  });
}

TEST_CASE("play: a game that answers no-moves at once is replayed to the same events without the game") {
  Hand h(cellar_sale(1, 4));
  std::vector<Input> inputs;
  h.field.set_recorder([&](const Input& input) { inputs.push_back(input); });
  int redeals = 0;
  const auto answer = [&](const Event& e) {
    if (e.kind != EventKind::no_moves || redeals == 2) return;
    ++redeals;
    (void)h.field.edits().move({h.cards("cellar").back(), 1}, h.zone("hand"));
  };
  for (int i = 0; i < 3; ++i) {
    if (!h.cards("hand").empty()) sell(h);
    play_until(h, h.field.now() + 1, answer);
  }
  CHECK(redeals == 2);
  CHECK(h.count(EventKind::no_moves) == 3);
  const auto marks =
      std::count_if(inputs.begin(), inputs.end(), [](const Input& i) { return name_of(i) == "standing"; });
  CHECK(marks == 3);
  Playfield again(cellar_sale(1, 4), {.window = {1000, 700}});
  std::vector<Event> told;
  CHECK(replay(again, inputs, h.field.now(), [&](const Event& e) { told.push_back(e); }) == 0);
  CHECK(kinds_and_times(told) == kinds_and_times(h.told));
  for (const Zone& zone : h.field.table().zones()) CHECK(again.table().zone(zone.id)->cards == zone.cards);
  CHECK(again.now() == h.field.now());
}

TEST_CASE("play: what a rule in code said when the standing was judged is foretold for that moment") {
  const auto table = [](std::function<Verdict(const RuleQuestion&)> judge) {
    TableSetup setup = cellar_sale(3, 6);
    for (const ZoneId zone : {*setup.table.find_zone("sale"), *setup.table.find_zone("cellar")})
      setup.rules_of(zone).drop = rule::own("fickle", judge);
    return setup;
  };
  int asked = 0;
  // Says something else each time, so that answers which are told to the wrong question show.
  const auto fickle = [&](const RuleQuestion&) {
    ++asked;
    return asked % 4 != 0 ? Verdict{} : Verdict{.reason = Reason::own_rule, .arguments = {{"asked", asked}}};
  };
  PlayfieldOptions options{.window = {1000, 700}};
  options.feel.move.glide.seconds = options.feel.shift.seconds = 0;
  Hand h(table(fickle), options);
  std::vector<Input> inputs;
  h.field.set_recorder([&](const Input& input) { inputs.push_back(input); });
  // Without motion all has settled at the time at which it was judged; then the game answers.
  int drawn = 0;
  const auto answer = [&](const Event& e) {
    if (e.kind != EventKind::settled || drawn == 4) return;
    ++drawn;
    REQUIRE(h.field.edits().move({h.cards("cellar").back(), 1}, h.zone("hand")));
  };
  for (int i = 0; i < 8; ++i) {
    const CardId card = h.cards("hand").back();
    (void)h.field.moves().make({.run = {card, 1}, .from = h.zone("hand"), .to = h.zone("sale")});
    play_until(h, h.field.now() + 1, answer);
  }
  CHECK(drawn == 4);
  CHECK(h.count(EventKind::dropped) > 1);
  Playfield again(table({}), options);
  std::vector<Event> told;
  CHECK(replay(again, inputs, h.field.now(), [&](const Event& e) { told.push_back(e); }) == 0);
  REQUIRE(kinds_and_times(told) == kinds_and_times(h.told));
  for (std::size_t i = 0; i < told.size(); ++i) CHECK(told[i].verdict == h.told[i].verdict);
}

TEST_CASE(
    "play: where the rules give nothing, because the game moves every card itself, no-moves is no news") {
  TableSetup setup(glasshouse());
  const ZoneId a = setup.add({.name = "a", .cards = some(setup.table.deck(), {"fern-1"})});
  const ZoneId b = setup.add({.name = "b"});
  setup.plans = {{.root = across({zone(a), zone(b)})}};
  Hand h(setup);
  REQUIRE(h.field.edits().move({h.cards("a")[0], 1}, b));
  h.wait(1);
  CHECK(h.count(EventKind::no_moves) == 0);
  CHECK(h.field.moves().standing() == Standing::open);
}

TEST_CASE("play: won is told once the game has answered, and not for what it takes back at once") {
  for (const bool takes_back : {false, true}) {
    TableSetup setup = cellar_sale(1, 0);
    setup.won = goal::all_in({*setup.table.find_zone("sale")});
    Hand h(setup);
    sell(h);
    play_until(h, 2, [&](const Event& e) {
      if (takes_back && e.kind == EventKind::dropped)
        REQUIRE(h.field.edits().move({h.cards("sale").back(), 1}, h.zone("hand")));
    });
    CHECK(h.count(EventKind::won) == (takes_back ? 0 : 1));
    CHECK(h.field.moves().standing() == (takes_back ? Standing::open : Standing::won));
    const auto at = [&](EventKind kind) {
      return std::find_if(h.told.begin(), h.told.end(), [&](const Event& e) { return e.kind == kind; }) -
             h.told.begin();
    };
    if (!takes_back) CHECK(at(EventKind::won) < at(EventKind::landed));
  }
}

TEST_CASE("play: the next round of a game that closed its gate when it was won takes input") {
  TableSetup setup = cellar_sale(2, 0);
  setup.won = goal::empty({*setup.table.find_zone("hand")});
  setup.add_panel({.name = "menu", .kind = PanelKind::button});
  setup.plans[0].root = down({panel({1}, {.px = 30}, {.px = 100}), setup.plans[0].root});
  for (const bool lasts : {false, true}) {
    CAPTURE(lasts);
    Hand h(setup);
    REQUIRE(h.field.switches().switch_off(h.zone("cellar"), "locked", lasts));
    REQUIRE(h.field.switches().hide(PanelId{1}, "no menu", lasts));
    REQUIRE(h.field.switches().switch_off(h.cards("hand")[0], "asleep", lasts));
    h.field.time().hold("background");
    h.field.time().release("background");
    REQUIRE(h.field.switches().switch_on(h.cards("hand")[0], "asleep"));
    sell(h);
    sell(h);
    play_until(h, 3, [&](const Event& e) {
      if (e.kind == EventKind::won) h.field.gate().close("over", lasts);
    });
    REQUIRE(h.count(EventKind::won) == 1);
    CHECK_FALSE(h.field.gate().is_open());
    REQUIRE(h.field.start_over(setup));
    CHECK(h.field.gate().is_open() == !lasts);
    CHECK(h.field.switches().is_off(h.zone("cellar")) == lasts);
    CHECK(h.field.switches().is_hidden(PanelId{1}) == lasts);
    const CardId card = h.cards("hand").back();
    h.drag(h.grip(card), h.middle("sale"));
    CHECK((h.cards("sale") == std::vector<CardId>{card}) == !lasts);
  }
}

TEST_CASE("play: a round's countdowns and timers end with it, and the client's clock, feel and ids go on") {
  Hand h(cellar_sale());
  const CountdownId timer = h.field.time().start_timer(1);
  const CountdownId countdown = h.field.time().add_countdown(2);
  REQUIRE(h.field.time().start_countdown(countdown));
  REQUIRE(h.field.performances().set_feel(calm()));
  REQUIRE(h.field.time().set_speed(2));
  h.field.time().hold("menu");
  h.field.gate().let_through(PointerButton::secondary);
  h.field.start_round(3);
  h.field.time().release("menu");
  CHECK(h.field.performances().feel() == calm());
  CHECK(h.field.time().speed() == 2);
  h.wait(5);
  CHECK(h.count(EventKind::rang) == 0);
  CHECK(h.count(EventKind::time_up) == 0);
  CHECK(h.field.time().stop_countdown(timer).reason == Reason::unknown_timer);
  h.field.gate().close("dialogue");
  h.point(PointerPhase::move, {5, 5});
  CHECK(h.field.pointer({.phase = PointerPhase::down,
                         .at = {5, 5},
                         .time = h.field.now(),
                         .button = PointerButton::secondary}));
}

TEST_CASE(
    "play: while a reason forbids it nothing is taken back, by calls or by keys, and the next round lets "
    "it") {
  Hand h(cellar_sale(3, 0));
  sell(h);
  h.settle();
  h.field.moves().forbid_undo("the server does not know of it");
  CHECK_FALSE(h.field.moves().can_undo());
  CHECK(h.field.moves().undo().reason == Reason::undo_forbidden);
  CHECK_FALSE(h.key(Key::undo));
  CHECK(h.cards("sale").size() == 1);
  h.field.moves().allow_undo("the server does not know of it");
  CHECK(h.key(Key::undo));
  CHECK(h.cards("sale").empty());
  h.field.moves().forbid_undo("a");
  h.field.moves().forbid_undo("b", true);
  h.field.moves().allow_undo("b");
  CHECK(h.field.moves().redo().reason == Reason::undo_forbidden);
  REQUIRE(h.field.start_over(cellar_sale(3, 0)));
  sell(h);
  CHECK(h.field.moves().undo());
}
