// Rules of the game's own, and tables whose rules, places and cards are switched and changed while they run.
#include <catch2/catch.hpp>

#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// What a game keeps beside the table.
struct Purse {
  bool my_turn = true;
  int coins = 5;
};

/// A hand whose cards cost their rank, and a stall.
TableSetup stall(Purse& purse) {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  const Rule may_play = rule::own(
      "not-your-turn", [&purse](const RuleQuestion& q) { return purse.my_turn ? Verdict{} : q.refuse(); });
  const Rule affordable = rule::own("too-dear", [&purse](const RuleQuestion& q) {
    const std::int64_t cost = q.table.deck().traits(q.face).rank + 1;
    return cost <= purse.coins ? Verdict{} : q.refuse({{"cost", cost}, {"left", std::int64_t{purse.coins}}});
  });
  setup.sentences = {{"not-your-turn", "It is not your turn."},
                     {"too-dear", "{card} costs {cost}, and {left} are left in {zone}."}};
  const ZoneId hand =
      setup.add({.name = "hand",
                 .layout = {.kind = SpreadLayout{}, .longest = 6},
                 .rules = {.pick = {.kind = PickKind::any, .when = rule::all({may_play, affordable})}},
                 .cards = some(deck, {"fern-2", "reed-4", "poppy-9"})});
  const ZoneId sold = setup.add({.name = "sold",
                                 .layout = {.kind = SpreadLayout{}, .longest = 6},
                                 .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = down({zone(sold), zone(hand)})}};
  return setup;
}

const FrameItem& item_of(const Playfield& field, CardId card) {
  for (const FrameItem& item : field.frame().items) {
    if (item.card == card) return item;
  }
  throw Error("no item");
}

}  // namespace

TEST_CASE("play: a zone whose rules change asks again what is left, and who holds a card aims again") {
  TableSetup setup(glasshouse());
  const ZoneId from =
      setup.add({.name = "from", .rules = {.pick = {.kind = PickKind::any}}, .cards = {{.face = {1}}}});
  const ZoneId to = setup.add({.name = "to", .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = across({zone(from), zone(to)}), .largest_width = 100}};
  ZoneBehaviour closed = setup.behaviour_of(to);
  closed.rules.drop = rule::nothing();
  Hand h(setup);
  h.settle();
  h.point(PointerPhase::down, h.middle("from"));
  h.point(PointerPhase::move, h.middle("to"));
  REQUIRE(h.field.hand().aimed_at() == to);
  CHECK(h.count(EventKind::no_moves) == 0);
  REQUIRE(h.field.edits().set_behaviour(to, closed));
  CHECK_FALSE(h.field.hand().aimed_at() == to);
  h.point(PointerPhase::up, h.middle("from"));
  h.settle();
  CHECK(h.count(EventKind::no_moves) == 1);
}

TEST_CASE("play: a rule in code says why a card is not picked up, by its name, in its own sentence") {
  Purse purse;
  Hand h(stall(purse));
  const CardId dear = h.cards("hand")[2];
  const PickVerdict pick = h.field.rules().judge_pick(dear);
  CHECK(pick.verdict.reason == Reason::own_rule);
  CHECK(pick.verdict.rule == "too-dear");
  CHECK(describe(pick.verdict, h.field) == "Poppy-9 costs 9, and 5 are left in hand.");
  // A client's own phrase comes before the table's.
  Phrases phrases = default_phrases();
  phrases.by_rule["too-dear"] = "Cost {cost}, {nothing}";
  CHECK(describe(pick.verdict, h.field, phrases) == "Cost 9, {nothing}");
  h.drag(h.middle(dear), h.middle("sold"));
  REQUIRE(h.last(EventKind::pick_refused) != nullptr);
  CHECK(describe(*h.last(EventKind::pick_refused), h.field) == "Poppy-9 costs 9, and 5 are left in hand.");
  for (const Move& move : h.field.rules().legal_moves()) CHECK(move.run.first != dear);
  purse.my_turn = false;
  CHECK(h.field.rules().legal_moves().empty());
  CHECK(describe(h.field.rules().judge_pick(dear).verdict, h.field) == "It is not your turn.");
}

TEST_CASE("play: when the game's state has changed, targets, aim, marks, cursor and letting go agree") {
  Purse purse;
  Hand h(stall(purse));
  const CardId card = h.cards("hand")[0];
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, h.middle("sold"));
  CHECK(h.field.hand().targets().size() == 1);
  CHECK(h.field.hand().aimed_at() == h.zone("sold"));
  CHECK(h.field.hand().cursor() == "grabbing");
  purse.my_turn = false;
  h.field.rules().ask_again();
  CHECK(h.field.hand().held().first == card);
  CHECK(h.field.hand().targets().empty());
  CHECK(h.field.hand().aimed_at() == ZoneId{});
  CHECK(h.field.hand().cursor() == "not-allowed");
  for (const FrameItem& item : h.field.frame().items) {
    CHECK_FALSE(item.marks.legal_target);
    CHECK_FALSE(item.marks.aimed_at);
  }
  h.wait(0.01);
  CHECK(h.count(EventKind::no_moves) == 1);
  h.point(PointerPhase::up, h.middle("sold"));
  CHECK(h.cards("sold").empty());
  REQUIRE(h.last(EventKind::refused) != nullptr);
  CHECK(h.last(EventKind::refused)->verdict.rule == "not-your-turn");
  // And back again.
  h.settle();
  purse.my_turn = true;
  h.field.rules().ask_again();
  h.wait(0.01);
  CHECK(h.field.moves().standing() == Standing::open);
  h.drag(h.grip(card), h.middle("sold"));
  CHECK(h.cards("sold") == std::vector<CardId>{card});
}

TEST_CASE("play: what is switched off is neither picked up nor given cards, shows so, and comes back") {
  Hand h(desk({.hover = HoverKind::raise, .tap = TapKind::send}));
  const CardId card = h.cards("hand")[9];
  const ZoneId shelf = h.zone("shelf");
  h.field.switches().switch_off(card, "asleep");
  h.field.switches().switch_off(card, "tired");
  CHECK(h.field.switches().is_off(card));
  CHECK(h.field.rules().judge_pick(card).verdict.reason == Reason::switched_off);
  CHECK(h.field.switches().reasons_off(card).size() == 2);
  h.point(PointerPhase::move, h.grip(card));
  CHECK(h.field.hand().hovered() != card);
  CHECK(item_of(h.field, card).marks.off);
  CHECK(item_of(h.field, card).brightness < 0.8f);
  h.drag(h.grip(card), h.middle("shelf"));
  CHECK(h.last(EventKind::pick_refused)->verdict.reason == Reason::switched_off);
  h.field.switches().switch_on(card, "asleep");
  CHECK(h.field.switches().is_off(card));
  h.field.switches().switch_on(card, "tired");
  CHECK(h.field.rules().judge_pick(card).verdict);
  h.settle();
  CHECK(item_of(h.field, card).brightness == 1);

  h.field.switches().switch_off(shelf);
  CHECK(h.field.rules().judge_drop({card, 1}, shelf).reason == Reason::switched_off);
  for (const Move& move : h.field.rules().legal_moves()) CHECK(move.to != shelf);
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, h.middle("shelf"));
  for (const ZoneId target : h.field.hand().targets()) CHECK(target != shelf);
  h.field.switches().switch_on(shelf);
  CHECK(h.field.hand().aimed_at() == shelf);  // in mid-drag, too
  h.point(PointerPhase::up, h.middle("shelf"));
  CHECK(h.cards("shelf").size() == 1);
  h.field.switches().switch_off(CardId{999});
  CHECK_FALSE(h.field.switches().is_off(CardId{999}));
}

TEST_CASE("play: what is hidden is not drawn and takes no hits, wherever it comes to lie") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  h.field.switches().hide(h.zone("shelf"), "fog");
  CHECK(h.field.edits().move({card, 1}, h.zone("shelf")));
  h.settle();
  const Vec2 at = h.middle(card);
  CHECK(h.field.switches().is_hidden(card));
  CHECK(item_of(h.field, card).opacity == 0);
  CHECK(h.field.where().hit(at) == Hit{});
  h.field.performances().pulse(card);
  h.wait(0.1);
  CHECK(item_of(h.field, card).opacity == 0);
  h.settle();
  h.field.switches().show(h.zone("shelf"), "fog");
  CHECK(item_of(h.field, card).opacity == 1);
  CHECK(h.field.where().hit(at).card == card);
  h.field.switches().hide(h.zone("shelf"));
  CHECK(h.field.edits().move({card, 1}, h.zone("hand")));
  h.settle();
  CHECK(item_of(h.field, card).opacity == 1);
}

TEST_CASE("play: a slider that changes a gap moves cards every frame, and never by a jump") {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  const ZoneId row = setup.add({.name = "row",
                                .layout = {.kind = SpreadLayout{.spacing = 0.3f}, .longest = 6},
                                .rules = {.pick = {.kind = PickKind::any}},
                                .cards = some(deck, {"fern-1", "fern-2", "fern-3", "fern-4"})});
  setup.plans = {{.root = zone(row), .largest_width = 80}};
  Hand h(setup);
  const CardId last = h.cards("row")[3];
  Vec2 before = h.field.where().live_pose(last)->centre;
  float most = 0;
  int moved = 0;
  for (int i = 0; i <= 60; ++i) {
    ZoneBehaviour behaviour = h.field.where().behaviour(row);
    std::get<SpreadLayout>(behaviour.layout.kind).spacing = 0.3f + 0.015f * static_cast<float>(i);
    CHECK(h.field.edits().set_behaviour(row, behaviour));
    h.wait(1.0 / 60);
    const Vec2 now = h.field.where().live_pose(last)->centre;
    most = std::max(most, length(now - before));
    moved += now != before ? 1 : 0;
    before = now;
  }
  CHECK(most < 12);
  CHECK(moved > 50);
  h.settle();
  CHECK(h.field.where().live_pose(last)->centre == h.field.where().resting_pose(last)->centre);
  CHECK(length(h.field.where().resting_pose(last)->centre -
               h.field.where().resting_pose(h.cards("row")[2])->centre) == Approx(80 * 1.2f).margin(1));
}

TEST_CASE(
    "play: rules, facing, factor and plans change while cards lie there, and the next question sees it") {
  Hand h(desk({}));
  const ZoneId shelf = h.zone("shelf");
  const CardId card = h.cards("hand")[9];
  ZoneBehaviour behaviour = h.field.where().behaviour(shelf);
  behaviour.rules.drop = rule::nothing();
  behaviour.layout.facing = Facing::left;
  behaviour.layout.factor = 0.5f;
  CHECK(h.field.edits().set_behaviour(shelf, behaviour));
  CHECK(h.field.rules().judge_drop({card, 1}, shelf).reason == Reason::drop_nothing);
  CHECK(h.field.where().facing(shelf) == Facing::left);
  CHECK(h.field.where().outline(shelf)->scale == 0.5f);
  behaviour.layout.factor = 0;
  CHECK(h.field.edits().set_behaviour(shelf, behaviour).reason == Reason::out_of_range);
  CHECK(h.field.edits().set_behaviour({99}, {}).reason == Reason::unknown_zone);

  const Rect area = *h.field.where().area(shelf);
  Plan plan = h.field.where().plan();
  std::reverse(plan.root.parts.begin(), plan.root.parts.end());
  const Vec2 from = h.field.where().live_pose(card)->centre;
  h.field.edits().set_plans({plan});
  CHECK(*h.field.where().area(shelf) != area);
  CHECK(length(h.field.where().live_pose(card)->centre - from) < 1);  // it glides there
  h.settle();
  CHECK(*h.field.where().live_pose(card) == *h.field.where().resting_pose(card));
  CHECK(h.field.edits().set_plans({}).reason == Reason::out_of_range);
  plan.root.parts.pop_back();
  CHECK(h.field.edits().set_plans({plan}).reason == Reason::out_of_range);
}

TEST_CASE(
    "play: a card of a covered pile is picked up where the rule says so, and one in flight is not called "
    "covered") {
  TableSetup setup(glasshouse());
  const ZoneId box =
      setup.add({.name = "box",
                 .layout = {.kind = PileLayout{}, .longest = 5},
                 .rules = {.pick = {.kind = PickKind::top, .covered = true}, .drop = rule::anything()}});
  const ZoneId bench = setup.add({.name = "bench",
                                  .layout = {.kind = SpreadLayout{}, .longest = 5},
                                  .rules = {.drop = rule::anything()}});
  for (std::uint32_t i = 1; i <= 4; ++i) (void)setup.table.create_card(box, {.face = {i}, .face_up = false});
  setup.plans = {{.root = across({zone(box), zone(bench, 1)})}};
  Hand h(setup);
  const CardId top = h.cards("box").back();
  CHECK_FALSE(h.field.table().card(top)->face_up);
  h.drag(h.middle(top), h.middle("bench"));
  CHECK(h.cards("bench") == std::vector<CardId>{top});
  CHECK_FALSE(h.field.table().card(top)->face_up);

  // Swept back together, the first lies below the others already while it still flies.
  h.settle();
  for (int i = 0; i < 2; ++i) h.drag(h.middle(h.cards("box").back()), h.middle("bench"));
  h.settle();
  const std::vector<CardId> all = h.cards("bench");
  (void)h.field.performances().perform(move_cards(all, h.zone("box")));
  h.wait(0.15);
  const CardId first = all.front();
  h.point(PointerPhase::down, h.field.where().live_pose(first)->centre);
  h.point(PointerPhase::move, h.field.where().live_pose(first)->centre + Vec2{0, 60});
  if (h.last(EventKind::pick_refused)) {
    CHECK(h.last(EventKind::pick_refused)->verdict.reason == Reason::in_flight);
  } else {
    CHECK(h.field.hand().held().count == 1);
  }
}
