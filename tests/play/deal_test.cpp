#include <algorithm>
#include <map>

#include "support/loop.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

TableSetup dealt_setup(std::size_t cards_each, bool stock_first = true) {
  TableSetup setup(glasshouse(4));
  std::vector<PlanNode> columns;
  const std::vector<CardOptions> cards(cards_each, {.face = {7}});
  const ZoneId stock =
      setup.add({.name = "stock",
                 .layout = {.kind = PileLayout{}, .longest = 5},
                 .cards = {{.face = {1}, .face_up = false}, {.face = {2}, .face_up = false}}});
  for (int i = 1; i <= 4; ++i) {
    columns.push_back(zone(setup.add({.name = "column-" + std::to_string(i),
                                      .layout = {.kind = ColumnLayout{}, .longest = 14},
                                      .cards = cards})));
  }
  setup.plans = {{.root = across({zone(stock), across(columns)})}};
  if (stock_first) setup.deal_from = stock;
  return setup;
}

}  // namespace

TEST_CASE("play: dealt cards leave one after another and end exactly in their resting poses") {
  Playfield field(dealt_setup(13));
  std::map<CardId, Pose> before;
  field.performances().deal();
  for (const Zone& zone : field.table().zones()) {
    for (const CardId card : zone.cards) before[card] = *field.where().live_pose(card);
  }
  const double end = field.time().settles_at();
  std::map<CardId, double> left;
  for (int i = 1; i <= 1000; ++i) {
    field.advance_to(end * i / 1000);
    for (const auto& [card, pose] : before) {
      if (!left.contains(card) && *field.where().live_pose(card) != pose) left[card] = field.now();
    }
  }
  CHECK(left.size() == 52);  // the two on the stock stay
  std::vector<double> times;
  for (const auto& [card, time] : left) times.push_back(time);
  std::sort(times.begin(), times.end());
  CHECK(std::adjacent_find(times.begin(), times.end()) == times.end());
  for (const auto& [card, pose] : before)
    CHECK(*field.where().live_pose(card) == *field.where().resting_pose(card));
  CHECK(count_of(EventKind::landed, events_until(field, end + 1)) == 52);
}

TEST_CASE("play: a deal goes round by round or zone by zone") {
  const auto departures = [](DealOrder order) {
    Feel feel;
    feel.deal_order = order;
    Playfield field(dealt_setup(3), {.feel = feel});
    field.performances().deal();
    std::vector<std::string> landed;
    for (const Event& e : events_until(field, field.time().settles_at())) {
      if (e.kind == EventKind::landed) landed.push_back(field.table().zone(e.to)->name);
    }
    return landed;
  };
  const auto rounds = departures(DealOrder::rounds);
  REQUIRE(rounds.size() == 12);
  CHECK(rounds[0] == "column-1");
  CHECK(rounds[1] == "column-2");
  CHECK(rounds[4] == "column-1");
  const auto zones = departures(DealOrder::zones);
  CHECK(zones[1] == "column-1");
  CHECK(zones[3] == "column-2");
}

TEST_CASE("play: the figures of a deal do not depend on how time was cut into steps") {
  for_all("deal steps", 1, [](Random& r) {
    Playfield coarse(dealt_setup(5));
    Playfield fine(dealt_setup(5));
    coarse.performances().deal();
    fine.performances().deal();
    const double until = double{r.uniform(0.1f, 1.5f)};
    double time = 0;
    while ((time += double{r.uniform(0.0005f, 0.02f)}) < until) fine.advance_to(time);
    fine.advance_to(until);
    coarse.advance_to(until);
    for (const Zone& zone : coarse.table().zones()) {
      for (const CardId card : zone.cards)
        RC_ASSERT(*coarse.where().live_pose(card) == *fine.where().live_pose(card));
    }
    RC_ASSERT(coarse.frame().items.size() == fine.frame().items.size());
    for (std::size_t i = 0; i < coarse.frame().items.size(); ++i) {
      RC_ASSERT(coarse.frame().items[i].card == fine.frame().items[i].card);
    }
  });
}

TEST_CASE("play: a deal interrupted by another, or without a stock, still ends at rest") {
  Playfield field(dealt_setup(6, false));
  field.performances().deal();
  field.advance_to(0.3);
  field.performances().deal();
  field.advance_to(field.time().settles_at() + 1);
  for (const Zone& zone : field.table().zones()) {
    for (const CardId card : zone.cards)
      CHECK(*field.where().live_pose(card) == *field.where().resting_pose(card));
  }
  CHECK(field.time().settles_at() == field.now());
}
