// Frames while much goes on: in what order cards are drawn, and that a frame does not depend on those before.
#include <algorithm>
#include <map>

#include "support/allocations.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"
#include "support/stage.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: frames take nothing from the heap once they are warm, in motion, under a pointer, at rest") {
  Playfield field(desk(), {.window = {1000, 700}});
  const Rect area = *field.where().area(*field.table().find_zone("hand"));
  double time = 0;
  // The same rounds: cards are dealt, the pointer sweeps over them while they come, then all is still.
  for (int round = 0; round < 4; ++round) {
    field.performances().deal();
    const std::size_t taken = allocations_in([&] {
      for (int i = 0; i < 400; ++i) {
        time += 1.0 / 60;
        if (i < 300) {
          const float share = static_cast<float>(i) / 300;
          send(field, PointerInput{.phase = PointerPhase::move,
                                   .at = {area.min.x + area.width() * share, area.centre().y},
                                   .time = time});
        }
        while (field.next_event(time)) {
        }
        (void)field.where().hit({500, 350});
        (void)field.frame();
      }
    });
    CAPTURE(round);
    CHECK((round < 2 || taken == 0));
  }
}

TEST_CASE("play: cards that wait in a paused deal are drawn in flight when it goes on and they leave") {
  Stage s;
  const PerformanceId deal = s.field.performances().deal();
  s.field.performances().set_speed(deal, 0);
  (void)s.go(1);
  const auto orders = [&] {
    std::map<CardId, std::uint64_t> of;
    for (const FrameItem& item : s.field.frame().items) of[item.card] = item.order;
    return of;
  };
  const auto waiting = orders();
  s.field.performances().set_speed(deal, 1);
  std::vector<CardId> left;
  while (left.size() < 3) {
    for (const Event& e : s.go(s.field.now() + 0.005)) {
      REQUIRE(e.kind != EventKind::landed);
      if (e.kind == EventKind::departed) left.push_back(e.card);
    }
    const auto now = orders();
    for (const CardId card : left) CHECK(now.at(card) > waiting.at(card));
    for (std::size_t i = 1; i < left.size(); ++i) CHECK(now.at(left[i]) > now.at(left[i - 1]));
  }
}

TEST_CASE("play: cards that wait in a deal that is stopped are drawn in flight on their way home") {
  Stage s;
  const PerformanceId deal = s.field.performances().deal();
  s.field.advance_to(0.2);
  s.field.performances().set_speed(deal, 0);  // so that nobody is about to leave anyway
  const auto order_of = [&](CardId card) {
    for (const FrameItem& item : s.field.frame().items) {
      if (item.card == card) return item.order;
    }
    return std::uint64_t{0};
  };
  std::uint64_t lowest_in_flight = ~std::uint64_t{0};
  for (const Event& e : events_so_far(s.field)) {
    if (e.kind == EventKind::departed) lowest_in_flight = std::min(lowest_in_flight, order_of(e.card));
  }
  s.field.performances().stop(deal);
  s.field.advance_to(0.21);
  std::size_t flying = 0;
  for (const CardId card : s.cards(s.hand)) {
    if (*s.field.where().live_pose(card) == *s.field.where().resting_pose(card)) continue;
    ++flying;
    CHECK(order_of(card) >= lowest_in_flight);
  }
  CHECK(flying > 3);
}

TEST_CASE("play: nothing in flight is drawn below what it will lie on") {
  Stage s(springy());
  s.field.performances().perform(gather(s.stock));
  for (double t = 0.01; t < 2; t += 0.02) {
    s.field.advance_to(t);
    const auto pile = s.cards(s.stock);
    std::map<CardId, std::size_t> drawn;
    for (std::size_t i = 0; i < s.field.frame().items.size(); ++i) drawn[s.field.frame().items[i].card] = i;
    for (std::size_t i = 1; i < pile.size(); ++i) {
      const bool both_there = length(s.field.where().live_pose(pile[i])->centre -
                                     s.field.where().resting_pose(pile[i])->centre) < 1 &&
                              length(s.field.where().live_pose(pile[i - 1])->centre -
                                     s.field.where().resting_pose(pile[i - 1])->centre) < 1;
      if (both_there) CHECK(drawn[pile[i]] > drawn[pile[i - 1]]);
    }
  }
}

TEST_CASE("play: a frame does not depend on which frames were asked for before") {
  for_all("sessions of performances", 1, [](Random& r) {
    const Stage start(springy(), static_cast<std::size_t>(r.between(0, 20)),
                      static_cast<std::size_t>(r.between(1, 20)));
    Playfield often = start.field;
    Playfield seldom = start.field;
    PerformanceId last = {};
    // Chosen once, done to both.
    const auto both = [&](auto&& call) {
      call(often);
      call(seldom);
    };
    double time = 0;
    for (int step = 0; step < 60; ++step) {
      const auto zones = start.field.table().zones();
      const ZoneId from = zones[r.below(zones.size())].id;
      const ZoneId to = zones[r.below(zones.size())].id;
      const double pace = double{r.uniform(0, 3)};
      const Vec2 at = often.where().area(from)->centre();
      const std::size_t what = r.below(12);
      both([&](Playfield& field) {
        if (what == 0) last = field.performances().deal();
        if (what == 1) last = field.performances().perform(gather(to, from));
        if (what == 2)
          last = field.performances().perform(
              together({draw(from, to, 4), flip(field.table().zone(to)->cards, true)}));
        if (what == 3) field.performances().skip(last);
        if (what == 4) field.performances().stop(last);
        if (what == 5) field.performances().set_speed(last, pace);
        if (what == 6) last = field.performances().perform(shuffle(from, 7));
        if (what == 7)
          (void)field.edits().move(field.table().run_from(field.table().top(from).value_or(CardId{})), to);
        if (what == 8) send(field, PointerInput{.phase = PointerPhase::move, .at = at, .time = time});
        if (what == 9) field.performances().shake(field.table().top(from).value_or(CardId{}));
        field.advance_to(time);
      });
      time += double{r.uniform(0, 0.2f)};
      both([&](Playfield& field) { field.advance_to(time); });
      const Frame& frame = often.frame();
      if (!r.chance(0.15f)) continue;
      RC_ASSERT(seldom.frame().items == frame.items);
    }
  });
}

TEST_CASE(
    "play: events of performances at once come in the order of their times, and tell nothing of others") {
  Stage s({}, 20, 20);
  int told = 0;
  for (int round = 0; round < 4; ++round) {
    s.field.performances().perform(
        together({draw(s.stock, s.waste, 8), gather(s.waste, s.hand), shake(s.cards(s.stock))}));
    s.field.performances().perform(sequence({wait(0.05), draw(s.stock, s.hand, 6)}));
    // One large step: all that happens in it is sorted at once.
    const std::vector<Event> events = s.go(s.field.now() + 60);
    CHECK(std::is_sorted(events.begin(), events.end(),
                         [](const Event& a, const Event& b) { return a.time < b.time; }));
    std::map<CardId, int> away;
    for (const Event& e : events) {
      if (e.kind != EventKind::departed && e.kind != EventKind::landed) continue;
      ++told;
      away[e.card] += e.kind == EventKind::departed ? 1 : -1;
      CHECK(e == Event{.kind = e.kind,
                       .time = e.time,
                       .card = e.card,
                       .count = 1,
                       .to = e.to,
                       .performance = e.performance,
                       .face = e.face});
    }
    for (const auto& [card, balance] : away) CHECK(balance >= 0);
    // Events of another kind take the places of these in the next round.
    const CardId top = s.cards(s.hand).back();
    const Vec2 at = s.field.where().resting_pose(top)->centre;
    send(s.field, PointerInput{.phase = PointerPhase::down, .at = at, .time = s.field.now()});
    send(s.field,
         PointerInput{.phase = PointerPhase::move, .at = at + Vec2{30, 0}, .time = s.field.now() + 0.1});
    send(s.field, PointerInput{.phase = PointerPhase::up, .at = {1, 1}, .time = s.field.now() + 0.1});
    CHECK_FALSE(s.go(s.field.now() + 5).empty());
    (void)s.field.performances().perform(gather(s.stock));
    (void)s.go(s.field.now() + 60);
  }
  CHECK(told > 50);
}
