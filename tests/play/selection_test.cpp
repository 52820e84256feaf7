// Cards that the player has chosen.
#include <catch2/catch.hpp>
#include <map>

#include "apsidon/files/input_log.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Two hands of several suits, of which cards are chosen by a rule, and a heap that takes anything.
TableSetup chooser(const SelectRule& select) {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  ZoneSetup hand{.name = "hand",
                 .layout = {.kind = HandLayout{}, .longest = 8},
                 .rules = {.pick = {.kind = PickKind::any}, .select = select},
                 .handling = {.hover = HoverKind::raise, .tap = TapKind::select},
                 .cards = some(deck, {"fern-1", "fern-2", "reed-2", "poppy-2", "fern-3", "reed-9"})};
  const ZoneId lower = setup.add(hand);
  hand.name = "shelf";
  hand.layout.kind = SpreadLayout{};
  hand.cards = some(deck, {"marigold-2", "marigold-3", "reed-3"});
  const ZoneId shelf = setup.add(hand);
  const ZoneId heap =
      setup.add({.name = "heap", .layout = {.longest = 9}, .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = down({across({zone(shelf, 1), zone(heap)}), zone(lower, 1)}), .largest_width = 90}};
  return setup;
}

std::vector<CardId> marked(Playfield& field) {
  std::vector<CardId> cards;
  for (const FrameItem& item : field.frame().items)
    if (item.marks.selected) cards.push_back(item.card);
  std::sort(cards.begin(), cards.end());
  return cards;
}

/// What events tell of, from the beginning.
std::vector<CardId> told_of(const std::vector<Event>& events) {
  std::vector<CardId> cards;
  for (const Event& e : events) {
    if (e.kind == EventKind::selected) cards.push_back(e.card);
    if (e.kind == EventKind::deselected) std::erase(cards, e.card);
    const bool tells = e.kind == EventKind::selected || e.kind == EventKind::deselected;
    if (tells) RC_ASSERT(e.count == cards.size());
  }
  return cards;
}

}  // namespace

TEST_CASE(
    "play: what is chosen by taps, keys and calls is what a plain list says, told, marked and replayed") {
  for_all("choosing", 4, [](Random& r) {
    const std::vector<SelectRule> rules{{},
                                        {.when = rule::at_most(3)},
                                        {.link = rule::same_rank()},
                                        {.link = rule::all({rule::same_suit(), rule::rank_up()})},
                                        {.when = rule::sum(Compared::at_most, 7)}};
    const TableSetup setup = chooser(rules[r.below(rules.size())]);
    InputLog log{.options = {.window = {1000, 700}}};
    Hand h(setup, log.options);
    h.field.set_recorder([&](const Input& input) { log.inputs.push_back(input); });
    std::vector<CardId> model;
    std::vector<CardId> then;
    Playfield saved = h.field;
    for (int step = 0; step < 25; ++step) {
      h.settle();
      const auto& zone = h.cards(r.chance(0.6f) ? "hand" : "shelf");
      if (zone.empty()) continue;
      const CardId card = zone[r.below(zone.size())];
      std::map<CardId, bool> may;
      for (const char* name : {"hand", "shelf"}) {
        for (const CardId each : h.cards(name)) {
          const bool has = std::find(model.begin(), model.end(), each) != model.end();
          may[each] = h.field.rules().judge_select(each).allowed();
          RC_ASSERT(may[each] ==
                    (has || judge_select(h.field.table(), setup.rulebook(), model, each).allowed()));
        }
      }
      const auto toggle = [&](CardId of) {
        if (std::erase(model, of) == 0 && may[of]) model.push_back(of);
      };
      switch (r.below(6)) {
        case 0:
        case 1:
          h.tap(h.grip(card), r.chance(0.5f) ? PointerKind::mouse : PointerKind::touch);
          toggle(h.last(EventKind::tapped)->card);
          break;
        case 2:
          if (!h.field.hand().focus({.card = card, .zone = h.field.table().card(card)->zone}))
            break;  // covered
          RC_ASSERT(h.key(Key::act));
          toggle(card);
          break;
        case 3:
          RC_ASSERT(h.field.hand().select(card).allowed() == may[card]);
          if (std::find(model.begin(), model.end(), card) == model.end()) toggle(card);
          break;
        case 4:
          RC_ASSERT(h.field.hand().deselect(card));
          std::erase(model, card);
          break;
        default:
          if (r.chance(0.3f)) {
            RC_ASSERT(h.field.edits().move({card, 1}, h.zone("heap")));
            std::erase(model, card);
          } else if (r.chance(0.3f)) {
            RC_ASSERT(h.field.edits().flip(card, false));
            std::erase(model, card);
          } else if (r.chance(0.3f)) {
            RC_ASSERT(h.field.hand().clear_selection());
            model.clear();
          } else if (r.chance(0.2f)) {
            RC_ASSERT(h.field.start_round(r.below(99)));
            model.clear();
          } else if (r.chance(0.3f)) {
            h.field.restore(saved);
            model = then;
          } else {
            saved = h.field;
            then = model;
          }
      }
      // What the rules would not let be chosen any more is let go of.
      std::vector<CardId> kept;
      for (const CardId each : model)
        if (judge_select(h.field.table(), setup.rulebook(), kept, each)) kept.push_back(each);
      model = kept;
      h.wait(0);
      RC_ASSERT(h.chosen() == model);
      RC_ASSERT(told_of(h.told) == model);
      std::vector<CardId> sorted = model;
      std::sort(sorted.begin(), sorted.end());
      RC_ASSERT(marked(h.field) == sorted);
    }
    Playfield again(setup, log.options);
    (void)replay(again, log.inputs, h.field.now(), [](const Event&) {});
    RC_ASSERT(std::vector<CardId>(again.hand().selection().begin(), again.hand().selection().end()) == model);
  });
}

TEST_CASE("play: chosen cards come out of their row, several at once, and the others keep still") {
  Hand h(chooser({}));
  h.settle();
  const std::vector<CardId> cards = h.cards("hand");
  std::map<CardId, Vec2> before;
  for (const CardId card : cards) before[card] = h.field.where().live_pose(card)->centre;
  for (const std::size_t i : {1u, 4u}) REQUIRE(h.field.hand().select(cards[i]));
  h.settle();
  const float rise = 0.2f * h.field.where().card_size().height;
  for (std::size_t i = 0; i < cards.size(); ++i) {
    const Vec2 now = h.field.where().live_pose(cards[i])->centre;
    CHECK(before[cards[i]].y - now.y ==
          Approx(i == 1 || i == 4 ? rise : 0).margin(0.06 * double{rise} + 0.6));
    CHECK(length(h.field.where().neutral_pose(cards[i])->centre - before[cards[i]]) < 1);
  }
  REQUIRE(h.field.hand().focus({.card = cards[1], .zone = h.zone("hand")}));
  CHECK(describe_focus(h.field) == "Fern-2, 2 of 6 in hand; chosen; may be picked up.");
  REQUIRE(h.field.hand().focus({.card = cards[0], .zone = h.zone("hand")}));
  CHECK(describe_focus(h.field) == "Fern-1, 1 of 6 in hand; may be chosen; may be picked up.");
  CHECK(h.key(Key::cancel));  // lets go of what is chosen, then of the focus
  CHECK(h.field.hand().selection().empty());
  CHECK(h.field.hand().focused() != Hit{});
  CHECK(h.key(Key::cancel));
  CHECK(h.field.hand().focused() == Hit{});
}

TEST_CASE("play: a card that may not be chosen shakes and says why, and a function sees all that is chosen") {
  std::size_t seen = 0;
  Rule no_five = rule::own("no-five", [&](const RuleQuestion& q) {
    seen = q.others.size();
    int sum = q.table.deck().rank_of(q.face) + 1;
    for (const CardId card : q.others) sum += q.table.deck().rank_of(q.table.card(card)->face) + 1;
    return sum <= 5 ? Verdict{} : q.refuse({{"sum", sum}});
  });
  TableSetup setup = chooser({.when = no_five});
  setup.sentences["no-five"] = "With {card} these are {sum}: at most five.";
  Hand h(setup);
  h.settle();
  const std::vector<CardId> cards = h.cards("hand");
  REQUIRE(h.field.hand().select(cards[1]));
  REQUIRE(h.field.hand().select(cards[4]));  // 2 and 3
  h.tap(h.grip(cards[0]));
  REQUIRE(h.last(EventKind::pick_refused));
  CHECK(seen == 2);
  CHECK(describe(*h.last(EventKind::pick_refused), h.field).find("these are 6: at most five") !=
        std::string::npos);
  CHECK(h.chosen() == std::vector{cards[1], cards[4]});
  CHECK(h.field.hand().select({99}).reason == Reason::unknown_card);
  REQUIRE(h.field.switches().switch_off(cards[1], "frost"));
  h.wait(0);
  CHECK(h.chosen() == std::vector{cards[4]});
  CHECK(h.field.hand().select(cards[1]).reason == Reason::switched_off);
}
