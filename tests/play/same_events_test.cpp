// The events do not depend on how much is seen of the motion, nor on who brings it about.
#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <utility>
#include <vector>

#include "support/stage.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: reduced motion has the same events, and no card is ever between") {
  Stage s(reduced(Feel{}));
  const auto before = [&] {
    std::map<CardId, Pose> poses;
    for (const Zone& zone : s.field.table().zones()) {
      for (const CardId card : zone.cards) poses[card] = *s.field.where().live_pose(card);
    }
    return poses;
  }();
  s.field.performances().perform(draw(s.stock, s.waste, 3));
  std::vector<Event> events;
  for (double t = 0.01; t < 1; t += 0.01) {
    for (const Event& e : s.go(t)) events.push_back(e);
    for (const auto& [card, pose] : before) {
      const Pose live = *s.field.where().live_pose(card);
      CHECK((live.centre == pose.centre || live.centre == s.field.where().resting_pose(card)->centre));
    }
  }
  Stage moving;
  moving.field.performances().perform(draw(moving.stock, moving.waste, 3));
  CHECK(counted(events)[EventKind::landed] == counted(moving.go(1))[EventKind::landed]);
}

TEST_CASE("play: reduced motion keeps the time of every event") {
  const auto heard = [](const Feel& feel) {
    Stage s(feel);
    std::vector<Event> events;
    const auto go = [&](double seconds) {
      for (Event& e : s.go(s.field.now() + seconds)) events.push_back(std::move(e));
    };
    s.field.performances().perform(sequence({draw(s.stock, s.waste, 3), flip(s.cards(s.hand), false)}));
    go(0.15);
    CHECK(s.field.edits().move({s.cards(s.hand)[4], 1}, s.waste));
    go(4);
    s.field.performances().perform(sequence({gather(s.stock), shuffle(s.stock, 3), deal(), finale()}));
    go(20);
    // Two that are due together may come either way round, for a share of a glide's time is rounded.
    std::stable_sort(events.begin(), events.end(), [](const Event& a, const Event& b) {
      return std::pair(a.kind, a.card.value) < std::pair(b.kind, b.card.value);
    });
    return events;
  };
  Feel lifted;
  lifted.flip = {.seconds = 0.5f, .curve = ease_out, .lift = 0.4f, .flip_from = 0.2f, .flip_to = 0.6f};
  for (const Feel& feel : {Feel{}, lifted, calm()}) {
    const std::vector<Event> full = heard(feel);
    const std::vector<Event> less = heard(reduced(feel));
    REQUIRE(full.size() == less.size());
    for (std::size_t i = 0; i < full.size(); ++i) {
      INFO(feel.name << ": " << i << " of " << full.size() << ", " << name_of(full[i].kind) << " at "
                     << full[i].time << ", " << name_of(less[i].kind) << " at " << less[i].time);
      CHECK(full[i].kind == less[i].kind);
      CHECK(full[i].card == less[i].card);
      CHECK(full[i].time == Approx(less[i].time).margin(1e-5));
    }
  }
}

TEST_CASE("play: a glide of 0 seconds tells all in order, and the new side shows at once") {
  Feel feel;
  feel.flip.seconds = 0;
  feel.move.glide.seconds = 0;
  Stage s(feel);
  const CardId card = s.cards(s.hand)[2];
  CHECK(s.field.edits().flip(card, false));
  const auto shows_back = [&] {
    for (const FrameItem& item : s.field.frame().items) {
      if (item.card == card) return item.back;
    }
    return false;
  };
  CHECK(shows_back());
  CHECK(*s.field.where().live_pose(card) == *s.field.where().resting_pose(card));
  std::vector<EventKind> kinds;
  for (const Event& e : s.go(0)) {
    CHECK(e.time == 0);
    kinds.push_back(e.kind);
    if (e.kind == EventKind::edge_on) CHECK_FALSE(e.face_up);
  }
  CHECK(kinds == std::vector<EventKind>{EventKind::edge_on, EventKind::settled});
  CHECK(s.field.edits().move({card, 1}, s.waste));
  kinds.clear();
  for (const Event& e : s.go(0)) kinds.push_back(e.kind);
  CHECK(std::count(kinds.begin(), kinds.end(), EventKind::edge_on) == 0);
  CHECK(std::is_sorted(kinds.begin(), kinds.end()));  // arrived, then landed
  CHECK(std::count(kinds.begin(), kinds.end(), EventKind::landed) == 1);
}

TEST_CASE("play: a call and a script that do the same tell the same") {
  Stage called;
  Stage scripted;
  const CardId card = called.cards(called.hand)[1];
  CHECK(called.field.edits().move({card, 1}, called.waste));
  scripted.field.performances().perform(move_cards({card}, scripted.waste));
  const auto told = [](Stage& s) {
    auto counts = counted(s.go(3));
    for (const EventKind of_performance : {EventKind::began, EventKind::departed, EventKind::ended})
      counts.erase(of_performance);
    return counts;
  };
  CHECK(told(called) == told(scripted));
  CHECK(called.field.edits().flip(card, false));
  scripted.field.performances().perform(flip({card}, false));
  CHECK(told(called) == told(scripted));
}
