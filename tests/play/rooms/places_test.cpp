// The rooms of where cards are, each alone: Arrangement, Traffic, FrameOrder.
#include <catch2/catch.hpp>

#include "play/keeps/arrangement.hpp"
#include "play/keeps/traffic.hpp"
#include "play/reads/frame_order.hpp"
#include "rooms_support.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::play_detail;
using namespace apsidon::test;

TEST_CASE(
    "play: the poses of an arrangement are those of the table that was laid out, and only changes are "
    "listed") {
  for_all("arrangement", 3, [](Random& r) {
    TableSetup setup = keyed_setup(r);
    Arrangement arrangement(setup, {.size = {900, 600}});
    RC_ASSERT(arrangement.lay_out(setup, Change::first, {}).size() == setup.table.card_count());
    RC_ASSERT(arrangement.lay_out(setup, Change::table, {}).empty());
    for (int i = 0; i < 6; ++i) {
      change_somehow(r, setup.table);
      std::vector<Pose> before;
      for (const Rest& rest : arrangement.rests()) before.push_back(rest.resting);
      const auto shifts = arrangement.lay_out(setup, Change::table, {});
      std::vector<char> listed(setup.table.slot_count(), 0);
      for (const Shift& shift : shifts) listed[shift.slot] = 1;
      Arrangement fresh(setup, {.size = {900, 600}});
      (void)fresh.lay_out(setup, Change::first, {});
      for (std::size_t s = 0; s < setup.table.slot_count(); ++s) {
        RC_ASSERT(arrangement.resting(s) == fresh.resting(s));
        RC_ASSERT(arrangement.neutral(s) == fresh.neutral(s));
        if (before[s] != arrangement.resting(s)) RC_ASSERT(listed[s] != 0);
      }
    }
  });
}

TEST_CASE("play: room is made once for what is asked, and goes when it is no longer asked for") {
  Random r(3);
  TableSetup setup = two_hands();
  Arrangement arrangement(setup, {.size = {900, 600}});
  (void)arrangement.lay_out(setup, Change::first, {});
  const auto at_rest = arrangement.rests()[0];
  const Insertion insertion{.zone = {1}, .index = 2};
  const LayoutRequest request{.insertions = {&insertion, 1}};
  CHECK_FALSE(arrangement.make_room(setup, request).empty());
  CHECK(arrangement.room_before({1}) == 2);
  CHECK(arrangement.make_room(setup, request).empty());
  CHECK_FALSE(arrangement.make_room(setup, {}).empty());
  CHECK(arrangement.rests()[0].resting == at_rest.resting);
  CHECK(arrangement.rests()[0].neutral == at_rest.neutral);
}

TEST_CASE("play: a card waits exactly while motion has it wait, and has a departure until it lands") {
  for_all("traffic", 5, [](Random& r) {
    TableSetup setup = two_hands();
    Arrangement arrangement(setup, {.size = {900, 600}});
    Traffic traffic(0);
    EventQueue events;
    const Feel feel;
    test::follow(traffic, arrangement, setup, Change::first, feel);
    const std::size_t held = r.below(setup.table.slot_count());
    traffic.hold(held);
    const Pose stays = traffic.motion().goal(held);
    std::size_t landed = 0;
    std::size_t sent = 0;
    for (double t = 0; t < 3; t += double{r.uniform(0.01f, 0.3f)}) {
      if (t < 1 && r.chance(0.5f)) {
        change_somehow(r, setup.table);
        traffic.begin_change();
        test::follow(traffic, arrangement, setup, Change::table, feel);
      }
      if (t < 1 && r.chance(0.3f)) {
        const auto s = static_cast<std::uint32_t>(r.below(setup.table.slot_count()));
        const auto lands = traffic.depart({.slot = s,
                                           .goal = {.centre = {1.0f + static_cast<float>(sent), 9}},
                                           .delay = double{r.uniform(0, 0.5f)}},
                                          feel.draw.glide, {}, 0);
        RC_ASSERT(lands.has_value() == (s != held));
        if (lands) ++sent;
      }
      traffic.advance_to(t, t, setup.table, events);
      while (events.any()) landed += events.take()->kind == EventKind::landed ? 1u : 0u;
      for (std::size_t s = 0; s < setup.table.slot_count(); ++s) {
        RC_ASSERT(traffic.card(s).waits == traffic.motion().waiting(s));
        if (!traffic.motion().on_its_way(s) && s != held) RC_ASSERT(traffic.card(s).departure == 0);
      }
    }
    RC_ASSERT(traffic.motion().goal(held) == stays);
    RC_ASSERT(landed > 0 || sent == 0);
  });
}

TEST_CASE("play: that all has settled is told once, and again only after something moved") {
  TableSetup setup = two_hands();
  Arrangement arrangement(setup, {.size = {900, 600}});
  Traffic traffic(0);
  EventQueue events;
  test::follow(traffic, arrangement, setup, Change::first);
  CHECK_FALSE(traffic.to_be_settled());
  for (int round = 0; round < 2; ++round) {
    traffic.fly(0, {.centre = {50.0f + static_cast<float>(round), 50}}, {.seconds = 0.5f}, true);
    const double start = traffic.now();
    traffic.advance_to(start + 0.2, start + 0.2, setup.table, events);
    CHECK_FALSE(traffic.to_be_settled());
    CHECK(traffic.due() == Approx(start + 0.5));
    traffic.advance_to(start + 1, start + 1, setup.table, events);
    CHECK(traffic.to_be_settled());
    traffic.settle();
    CHECK_FALSE(traffic.to_be_settled());
  }
}

TEST_CASE("play: cards are listed once in the order of their keys, as a plain sort lists them") {
  for_all("order", 5, [](Random& r) {
    TableSetup setup = keyed_setup(r);
    Arrangement arrangement(setup, {.size = {900, 600}});
    Traffic traffic(0);
    EventQueue events;
    test::follow(traffic, arrangement, setup, Change::first);
    FrameOrder kept;
    for (int i = 0; i < 8; ++i) {
      change_somehow(r, setup.table);
      test::follow(traffic, arrangement, setup, Change::table);
      const double t = traffic.now() + double{r.uniform(0, 0.2f)};
      traffic.advance_to(t, t, setup.table, events);
      kept.update(setup.table, arrangement, traffic, {});
      FrameOrder fresh;
      fresh.update(setup.table, arrangement, traffic, {});
      RC_ASSERT(kept.cards().size() == setup.table.card_count());
      for (std::size_t k = 0; k < kept.cards().size(); ++k) {
        RC_ASSERT(kept.cards()[k].shows_as(fresh.cards()[k]));
        if (k > 0) RC_ASSERT(kept.cards()[k - 1].before(kept.cards()[k]));
      }
    }
  });
}
