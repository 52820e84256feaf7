// Random timed pointers, syncs, moves and resizes over random tables.
#include <algorithm>
#include <iostream>
#include <map>

#include "support/loop.hpp"
#include "support/tables.hpp"
#include "support/whole.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

struct Happened {
  std::map<EventKind, int> events;
  int syncs = 0;
  int torn = 0;  ///< drags that a change by the game ended
};

/// One session: a playfield and a hand that does what a seed says.
class RandomPlay {
 public:
  RandomPlay(Random& r, TableSetup setup)
      : field(std::move(setup), {.window = window(r)}), cards_(field.table().card_count()) {}

  void step(Random& r, Happened& tally) {
    time_ += double{r.uniform(0, 0.2f)};
    const std::size_t what = r.below(40);
    if (what < 9) {
      point(PointerPhase::down, some_card_point(r, field));
    } else if (what < 20) {
      point(PointerPhase::move, some_zone_point(r));
    } else if (what < 30) {
      point(PointerPhase::up, r.chance(0.3f) ? some_zone_point(r) : at_);
    } else if (what < 31) {
      point(r.chance(0.5f) ? PointerPhase::cancel : PointerPhase::leave, at_);
    } else {
      disturb(r, tally);
    }
    if (r.chance(0.6f)) field.advance_to(time_);
    listen(tally);
  }

  /// Lets go of everything and waits until all is at rest.
  void finish(Happened& tally) {
    point(PointerPhase::cancel, at_);
    field.advance_to(field.time().settles_at() + 1);
    listen(tally);
  }

  void check(Random& r) const {
    assert_whole(field.table(), cards_);
    for (const Zone& zone : field.table().zones()) {
      for (const CardId card : zone.cards) RC_ASSERT(is_finite(*field.where().live_pose(card)));
    }
    const Run held = field.hand().held();
    if (held.count > 0) RC_ASSERT(field.table().cards_of(held).size() == held.count);
    for (const Zone& zone : field.table().zones()) {
      const auto targets = field.hand().targets();
      const bool listed = std::find(targets.begin(), targets.end(), zone.id) != targets.end();
      RC_ASSERT(listed ==
                (held.count > 0 &&
                 field.rules()
                     .judge_move({.run = held, .from = field.table().card(held.first)->zone, .to = zone.id})
                     .allowed()));
    }
    check_hit({r.uniform(0, 1300), r.uniform(0, 900)});
    if (cards_ > 0) check_hit(some_card_point(r, field));
  }

  void check_rest() const {
    RC_ASSERT(open_ == 0);
    for (const Zone& zone : field.table().zones()) {
      for (const CardId card : zone.cards)
        RC_ASSERT(*field.where().live_pose(card) == *field.where().resting_pose(card));
    }
  }

  Playfield field;

 private:
  static Size window(Random& r) { return {r.uniform(300, 1300), r.uniform(300, 900)}; }

  void point(PointerPhase phase, Vec2 at) {
    at_ = at;
    send(field, PointerInput{.phase = phase, .at = at, .time = time_});
  }

  Vec2 some_zone_point(Random& r) const {
    const Zone& zone = field.table().zones()[r.below(field.table().zones().size())];
    return field.where().area(zone.id)->centre() + Vec2{r.uniform(-30, 30), r.uniform(-30, 30)};
  }

  void disturb(Random& r, Happened& tally) {
    const bool held = field.hand().held().count > 0;
    switch (r.below(6)) {
      case 0: {
        const SyncReport report = field.edits().sync(random_wish(r, field.table()));
        RC_ASSERT(report.verdict.allowed());
        cards_ += report.created.size();
        cards_ -= report.retired.size();
        ++tally.syncs;
        break;
      }
      case 1:
        send(field, ResizeInput{window(r), r.chance(0.5f) ? 1.0f : 2.0f, time_});
        break;
      case 2:
        field.performances().deal();
        break;
      case 3:
        (void)field.edits().flip({static_cast<std::uint32_t>(r.below(60))}, r.chance(0.5f));
        break;
      case 4:
        field.performances().shake({static_cast<std::uint32_t>(r.below(60))});
        break;
      default: {
        const Run run = field.table().run_from({static_cast<std::uint32_t>(r.below(60))});
        (void)field.edits().move(run, {static_cast<std::uint32_t>(r.below(9))});
        break;
      }
    }
    if (held && field.hand().held().count == 0) ++tally.torn;
  }

  /// Every pick-up ends in exactly one of dropped, refused, cancelled.
  void listen(Happened& tally) {
    for (const Event& e : events_so_far(field)) {
      ++tally.events[e.kind];
      if (e.kind == EventKind::picked_up) RC_ASSERT(++open_ == 1);
      const bool ends =
          e.kind == EventKind::dropped || e.kind == EventKind::refused || e.kind == EventKind::cancelled;
      if (ends) RC_ASSERT(--open_ == 0);
    }
  }

  /// The card that is hit is the last in drawing order that has the point and is not held.
  void check_hit(Vec2 at) const {
    const Hit hit = field.where().hit(at);
    CardId expected;
    for (const FrameItem& item : field.frame().items) {
      if (item.kind != FrameKind::card || item.marks.held) continue;
      const HitShape shape{.pose = *field.where().live_pose(item.card),

                           .size = item.size,
                           .corner_radius = field.frame().corner_radius,
                           .clip = item.clip};
      if (contains(shape, at)) expected = item.card;
    }
    RC_ASSERT(hit.card == expected);
  }

  std::size_t cards_;
  double time_ = 0;
  double heard_ = -1;
  Vec2 at_ = {};
  int open_ = 0;
};

}  // namespace

TEST_CASE(
    "play: no sequence of pointers, syncs, moves and resizes loses or doubles a card, and all comes to "
    "rest") {
  Happened tally;
  for_all("random play", 2, [&](Random& r) {
    RandomPlay session(r, random_setup(r));
    for (int i = 0; i < 120; ++i) {
      session.step(r, tally);
      session.check(r);
    }
    session.finish(tally);
    session.check(r);
    session.check_rest();
  });
  const int accepted = tally.events[EventKind::dropped];
  const int refused = tally.events[EventKind::refused];
  std::cout << "random play: " << accepted << " drops accepted, " << refused << " refused, "
            << tally.events[EventKind::cancelled] << " drags cancelled, " << tally.torn
            << " of them by the game, " << tally.events[EventKind::pick_refused] << " pick-ups refused, "
            << tally.events[EventKind::tapped] << " taps, " << tally.syncs << " syncs\n";
  for (const int count : {accepted, refused, tally.torn, tally.syncs, tally.events[EventKind::cancelled],
                          tally.events[EventKind::pick_refused], tally.events[EventKind::tapped]}) {
    CHECK(count > 0);
  }
  CHECK(accepted * 10 >= accepted + refused);
}

TEST_CASE("play: poses and events do not depend on how time is cut between the same timed inputs") {
  for_all("cut time", 1, [](Random& r) {
    const TableSetup setup = random_setup(r);
    Playfield coarse(setup);
    Playfield fine(setup);
    std::vector<Event> told[2];
    double time = 0;
    for (int i = 0; i < 40; ++i) {
      const double next = time + double{r.uniform(0.01f, 0.3f)};
      for (double t = time; t < next; t += double{r.uniform(0.002f, 0.05f)}) {
        for (const Event& e : events_until(fine, t)) told[1].push_back(e);
      }
      time = next;
      const PointerPhase phases[] = {PointerPhase::down, PointerPhase::move, PointerPhase::move,
                                     PointerPhase::up};
      const PointerInput input{
          .phase = phases[r.below(4)], .at = {r.uniform(0, 1280), r.uniform(0, 800)}, .time = time};
      Playfield* fields[] = {&coarse, &fine};
      for (std::size_t f = 0; f < 2; ++f) {
        fields[f]->pointer(input);
        for (const Event& e : events_until(*fields[f], time)) told[f].push_back(e);
      }
      for (const Zone& zone : coarse.table().zones()) {
        for (const CardId card : zone.cards)
          RC_ASSERT(*coarse.where().live_pose(card) == *fine.where().live_pose(card));
      }
    }
    RC_ASSERT(told[0] == told[1]);
  });
}
