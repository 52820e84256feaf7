// What is legal, what is shown and what letting go does agree, whatever the game changes in mid-drag.
#include <catch2/catch.hpp>
#include <map>
#include <memory>
#include <set>

#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr int slot_count = 4;

/// What the game goes by beside the table: which slots it has opened, and the highest rank that may be
/// played.
struct House {
  std::set<ZoneId> open = {};
  std::int64_t highest = 9;
};

TableSetup house_table(const std::shared_ptr<House>& house) {
  TableSetup setup(glasshouse());
  const Rule opened = rule::own("closed", [house](const RuleQuestion& q) {
    return house->open.contains(q.zone) ? Verdict{} : q.refuse();
  });
  const Rule affordable = rule::own("too-dear", [house](const RuleQuestion& q) {
    return q.table.deck().traits(q.face).rank <= house->highest ? Verdict{} : q.refuse();
  });
  std::vector<PlanNode> slots;
  for (std::uint64_t i = 1; i <= slot_count; ++i) {
    slots.push_back(zone(setup.add({.name = "slot-" + std::to_string(i),
                                    .key = i,
                                    .layout = {.kind = SpreadLayout{}, .longest = 4},
                                    .rules = {.drop = rule::all({opened, rule::at_most(3)})}})));
  }
  ZoneSetup hand{.name = "hand",
                 .key = 9,
                 .layout = {.kind = SpreadLayout{}, .longest = 10},
                 .rules = {.pick = {.kind = PickKind::any, .when = affordable}}};
  for (std::uint32_t face = 1; face <= 8; ++face) hand.cards.push_back({.face = {face}, .key = face});
  setup.plans = {{.root = down({across(slots), zone(setup.add(hand))}, 0.2f), .largest_width = 80}};
  return setup;
}

/// The table as a server has it that has moved a card to another zone, or nothing.
std::vector<WantedZone> somewhere_else(const Table& table, CardId moved, ZoneId to) {
  std::vector<WantedZone> out;
  for (const Zone& zone : table.zones()) {
    WantedZone wanted{.key = zone.key, .cards = {}};
    for (const CardId card : zone.cards) {
      if (card != moved) wanted.cards.push_back({.key = table.card(card)->key});
    }
    if (zone.id == to) wanted.cards.push_back({.key = table.card(moved)->key});
    out.push_back(wanted);
  }
  return out;
}

class Drag {
 public:
  explicit Drag(Random& r) : r_(r), house_(std::make_shared<House>()), h_(house_table(house_)) {
    h_.field.moves().set_judge([](const Proposal&) { return std::nullopt; });
    for (int i = 1; i <= slot_count; ++i) {
      slots_.push_back(h_.zone("slot-" + std::to_string(i)));
      if (r_.chance(0.7f)) house_->open.insert(slots_.back());
    }
    h_.field.rules().ask_again();
  }

  /// One drag; counts what was seen by name.
  void run(std::map<std::string, int>& seen) {
    const std::vector<CardId> cards = h_.cards("hand");
    if (cards.empty()) return;
    at_ = h_.middle(cards[r_.below(cards.size())]);
    h_.point(PointerPhase::down, at_);
    go(h_.middle("slot-1"));
    for (int i = 0; i < 8 && h_.field.hand().held().count > 0; ++i) {
      check_agreement(seen);
      change(seen);
    }
    if (h_.field.hand().held().count == 0) ++seen["torn"];
    h_.point(PointerPhase::up, at_);
    h_.wait(0.3);
  }

 private:
  void go(Vec2 at) {
    at_ = at;
    h_.point(PointerPhase::move, at_);
  }

  ZoneId any_slot() { return slots_[r_.below(slots_.size())]; }

  void change(std::map<std::string, int>& seen) {
    const ZoneId slot = any_slot();
    const auto said = [&](const char* what) { ++seen[what]; };
    switch (r_.below(9)) {
      case 0:
        said("rules");
        if (!house_->open.erase(slot)) house_->open.insert(slot);
        house_->highest = r_.chance(0.5f) ? 9 : r_.between(0, 9);
        return (void)h_.field.rules().ask_again();
      case 1:
        said("switches");
        return (void)(h_.field.switches().is_off(slot) ? h_.field.switches().switch_on(slot)
                                                       : h_.field.switches().switch_off(slot));
      case 2:
        if (h_.field.moves().waiting().empty()) return;
        said("answers");
        return (void)h_.field.moves().answer(
            h_.field.moves().waiting()[0].id,
            r_.chance(0.5f) ? Verdict{} : Verdict{.reason = Reason::refused_by_game});
      case 3: {
        const std::vector<CardId> cards = h_.cards("hand");
        const CardId card = cards[r_.below(cards.size())];
        if (card == h_.field.hand().held().first && r_.chance(0.8f)) return;
        said("syncs");
        const auto synced = h_.field.edits().sync(somewhere_else(h_.field.table(), card, slot));
        RC_ASSERT(synced.verdict.allowed());
        return h_.wait(0);
      }
      case 4: {
        said("behaviour");
        ZoneBehaviour behaviour = h_.field.where().behaviour(slot);
        behaviour.rules.drop = r_.chance(0.5f) ? rule::at_most(1) : rule::on_empty();
        RC_ASSERT(h_.field.edits().set_behaviour(slot, behaviour).allowed());
        return;
      }
      case 5:
        if (r_.chance(0.8f)) return;
        said("gates");
        h_.field.gate().close("test");
        return (void)h_.field.gate().open("test");
      default:
        said("moves");
        return go(r_.chance(0.8f) ? h_.field.where().area(slot)->centre()
                                  : Vec2{r_.uniform(0, 1000), r_.uniform(0, 700)});
    }
  }

  void check_agreement(std::map<std::string, int>& seen) const {
    const Playfield& field = h_.field;
    const Run held = field.hand().held();
    std::set<ZoneId> legal;
    for (const Move& move : field.rules().legal_moves()) {
      if (move.kind == MoveKind::run && move.run == held) legal.insert(move.to);
    }
    const auto targets = field.hand().targets();
    RC_ASSERT(std::set<ZoneId>(targets.begin(), targets.end()) == legal);
    const ZoneId aimed = field.hand().aimed_at();
    RC_ASSERT(!aimed || legal.contains(aimed));
    if (aimed) RC_ASSERT(field.hand().cursor() == "grabbing");
    for (const FrameItem& item : field.frame().items) {
      const bool of_slot = field.table().top(item.zone).value_or(CardId{}) == item.card;
      if (item.marks.legal_target) RC_ASSERT(legal.contains(item.zone));
      if (of_slot && legal.contains(item.zone)) RC_ASSERT(item.marks.legal_target);
      if (item.marks.aimed_at) RC_ASSERT(item.zone == aimed);
    }
    // A copy lets go here.
    Playfield copy = field;
    const std::size_t waiting = copy.moves().waiting().size();
    (void)copy.pointer({.phase = PointerPhase::up, .at = at_, .time = copy.now()});
    (void)events_until(copy, copy.now());
    RC_ASSERT(copy.moves().waiting().size() == waiting + (aimed ? 1 : 0));
    if (aimed) {
      RC_ASSERT(copy.moves().waiting().back().move.to == aimed);
      RC_ASSERT(copy.moves().waiting().back().move.run == held);
    }
    ++seen[aimed ? "aimed" : "not aimed"];
  }

  Random& r_;
  std::shared_ptr<House> house_;
  Hand h_;
  std::vector<ZoneId> slots_ = {};
  Vec2 at_ = {};
};

}  // namespace

TEST_CASE(
    "play: agree: what is legal, marked and aimed at, the cursor and letting go do while rules, gates, "
    "answers "
    "and syncs change in mid-drag") {
  std::map<std::string, int> seen;
  for_all("changes in mid-drag", 20, [&](Random& r) {
    Drag drag(r);
    for (int i = 0; i < 12; ++i) drag.run(seen);
  });
  for (const char* what : {"aimed", "not aimed", "torn", "rules", "switches", "answers", "syncs", "behaviour",
                           "gates", "moves"}) {
    CAPTURE(what);
    CHECK(seen[what] > 10);
  }
}
