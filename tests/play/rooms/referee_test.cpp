// The room that alone changes the table, and those that show it.
#include <catch2/catch.hpp>
#include <map>

#include "play/reads/hit_view.hpp"
#include "rooms_support.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::play_detail;
using namespace apsidon::test;

TEST_CASE("play: every proposal ends once, and one that is refused leaves the table as it was") {
  for_all("referee", 5, [](Random& r) {
    Referee referee(two_hands(), {.most_undos = 50});
    if (r.chance(0.7f)) {
      referee.trail().set_judge([salt = r.below(9)](const Proposal& p) -> std::optional<Verdict> {
        if ((p.id + salt) % 3 == 0) return std::nullopt;
        return (p.id + salt) % 3 == 1 ? Verdict{} : Verdict{.reason = Reason::refused_by_game};
      });
    }
    EventQueue events;
    std::map<std::uint64_t, int> ended;
    std::uint64_t id = 0;
    for (int i = 0; i < 20; ++i) {
      const CardId card{static_cast<std::uint32_t>(r.between(1, 8))};
      const ZoneId from = referee.table().card(card)->zone;
      const std::uint64_t before = referee.table().revision();
      if (referee.judge_pick(card).verdict) {
        const Proposal p{.id = ++id,
                         .move = {.run = {card, 1}, .from = from, .to = {from.value == 1 ? 2u : 1u}}};
        const Ruling ruling = referee.propose(p, {}, i, events);
        RC_ASSERT(ruling.waits == (referee.find(p.id) != nullptr));
        if (!ruling.waits) ++ended[p.id];
        RC_ASSERT((referee.table().revision() != before) == (!ruling.waits && ruling.verdict.allowed()));
      }
      if (!referee.waiting().empty() && r.chance(0.5f)) {
        const Proposal p = referee.waiting()[r.below(referee.waiting().size())];
        RC_ASSERT(!referee.judge_pick(p.move.run.first).verdict.allowed());
        (void)referee.end_waiting(p.id);
        (void)referee.answer(p, r.chance(0.5f) ? Verdict{} : Verdict{.reason = Reason::refused_by_game},
                             r.chance(0.3f), i, events);
        ++ended[p.id];
      }
      if (r.chance(0.2f)) {
        referee.edit([&](Table& table) { change_somehow(r, table); });
        while (const auto torn = referee.torn()) {
          (void)referee.end_waiting(torn->id);
          referee.supersede(*torn, i, events);
          ++ended[torn->id];
        }
      }
    }
    for (std::uint64_t p = 1; p <= id; ++p) RC_ASSERT(ended[p] == (referee.find(p) ? 0 : 1));
  });
}

TEST_CASE("play: undo takes back a move with its consequences in one step, and redo makes it again") {
  TableSetup setup(small_deck());
  const ZoneId column = setup.add({.name = "column",
                                   .layout = {.kind = ColumnLayout{}},
                                   .rules = {.pick = {.kind = PickKind::top}, .flips_uncovered = true},
                                   .cards = {{.face = {1}, .face_up = false}, {.face = {2}}}});
  const ZoneId slot = setup.add({.name = "slot", .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = across({zone(column), zone(slot)})}};
  Referee referee(std::move(setup), {.most_undos = 10});
  EventQueue events;
  const Move move{.run = {{2}, 1}, .from = column, .to = slot};
  CHECK(referee.propose({.id = 1, .move = move}, {}, 0, events).verdict);
  referee.follow_up(column, 0, events);
  referee.finish_move();
  CHECK(referee.table().card({1})->face_up);
  REQUIRE(referee.can_undo());
  CHECK(referee.go_back(false, 0));
  CHECK_FALSE(referee.table().card({1})->face_up);
  CHECK(referee.table().card({2})->zone == column);
  CHECK_FALSE(referee.can_undo());
  CHECK(referee.go_back(true, 0));
  CHECK(referee.table().card({2})->zone == slot);
}

namespace {

/// All rooms that a frame shows.
struct Showing {
  explicit Showing(TableSetup given)
      : referee(std::move(given), {.most_undos = 10}),
        arrangement(referee.setup(), {.size = {900, 600}}),
        panels({}) {
    traffic.keep_slots(referee.table().slot_count());
    follow(Change::first);
  }
  void follow(Change change) { test::follow(traffic, arrangement, referee.setup(), change, feel); }
  FrameSources sources() const {
    return {referee.setup(), panels, schedule,  switches, arrangement, traffic, hand,
            hover,           focus,  selection, referee,  playable,    feel,    0.07f};
  }
  Referee referee;
  Arrangement arrangement;
  Panels panels;
  Schedule schedule{0};
  Switches switches{{}};
  Traffic traffic{0};
  Hand hand{{}, {}};
  Hover hover{{}};
  Selection selection;
  Playable playable{referee};
  Focus focus;
  Feel feel;
  EventQueue events;
};

}  // namespace

TEST_CASE(
    "play: a frame is the one that a builder without a past makes, and hits what a plain look from the top "
    "hits") {
  for_all("frames", 4, [](Random& r) {
    Showing rooms(keyed_setup(r));
    FrameBuilder kept;
    HitView hits;
    for (int i = 0; i < 25; ++i) {
      if (r.chance(0.4f)) {
        rooms.referee.edit([&](Table& table) { change_somehow(r, table); });
        rooms.follow(Change::table);
      }
      const double t = rooms.traffic.now() + double{r.uniform(0, 0.15f)};
      rooms.traffic.advance_to(t, t, rooms.referee.table(), rooms.events);
      const std::uint64_t before = kept.frame().revision;
      if (!kept.is_current(rooms.sources())) {
        kept.update(rooms.sources());
        hits.follow(kept);
        RC_ASSERT(kept.frame().revision == before + 1);
      }
      FrameBuilder fresh;
      fresh.update(rooms.sources());
      rooms.traffic.forget_moved();
      RC_ASSERT(kept.frame().items == fresh.frame().items);
      RC_ASSERT(kept.is_current(rooms.sources()));
      for (int k = 0; k < 6; ++k) {
        const Vec2 at{r.uniform(0, 900), r.uniform(0, 600)};
        CardId plain;
        for (const FrameItem& item : kept.frame().items) {
          if (item.kind != FrameKind::card) continue;
          const Pose& pose = rooms.traffic.motion().pose(*rooms.referee.table().slot(item.card));
          const HitShape shape{.pose = pose,
                               .size = item.size,
                               .corner_radius = kept.frame().corner_radius,
                               .clip = item.clip};
          if (contains(shape, at)) plain = item.card;
        }
        RC_ASSERT(hits.topmost(at, kept, rooms.traffic) == plain);
      }
    }
  });
}
