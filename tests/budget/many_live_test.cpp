// Ten times as much of anything that lives in a playfield costs ten times as much, and a little for sorting.
#include <fmt/format.h>

#include <apsidon/apsidon.hpp>
#include <catch2/catch.hpp>
#include <functional>
#include <string>

#include "budget/counting.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

TableSetup many(int zones, int cards) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2"}, .copies = 100'000}));
  std::vector<PlanNode> parts;
  for (int i = 0; i < zones; ++i) {
    ZoneSetup zone{.name = fmt::format("a-{}", i), .pick = {.kind = PickKind::any}, .drop = rule::anything()};
    for (int k = 0; k < cards; ++k) zone.cards.push_back({.face = FaceId{1}, .face_up = true});
    parts.push_back(apsidon::zone(setup.add(zone)));
  }
  std::vector<PlanNode> rows;
  for (std::size_t i = 0; i < parts.size(); i += 100)
    rows.push_back(across({parts.begin() + static_cast<std::ptrdiff_t>(i),
                           parts.begin() + static_cast<std::ptrdiff_t>(std::min(i + 100, parts.size()))}));
  setup.plans = {{.root = down(rows)}};
  return setup;
}

void compare(const std::string& name, const std::function<void(int)>& work) {
  const Cost few = cost_of([&] { work(1'000); });
  const Cost lots = cost_of([&] { work(10'000); });
  INFO(fmt::format("{}: {} steps for 1,000 and {} for 10,000", name, few.steps, lots.steps));
  CHECK(double(lots.steps) < 15 * double(few.steps));
}

}  // namespace

TEST_CASE("budget: what lives in a playfield costs no more than its number, times a logarithm") {
  compare("nothing", [](int n) {
    Playfield field(many(n, 1));
    (void)field.frame();
  });
  compare("touches", [](int n) {
    Playfield field(many(1, 1));
    for (int i = 0; i < n; ++i) {
      field.pointer({.phase = PointerPhase::down,
                     .at = {float(i % 1000), 300},
                     .time = i * 0.001,
                     .pointer = static_cast<std::uint32_t>(i + 1),
                     .kind = PointerKind::touch});
      while (field.next_event(i * 0.001)) {
      }
    }
  });
  compare("performances", [](int n) {
    Playfield field(many(1, 1));
    for (int i = 0; i < n; ++i) (void)field.performances().perform(wait(1 + i * 1e-4));
    while (field.next_event(100)) {
    }
  });
  compare("timers", [](int n) {
    Playfield field(many(1, 1));
    for (int i = 0; i < n; ++i) (void)field.time().start_timer(1 + i * 1e-4);
    while (field.next_event(100)) {
    }
  });
  compare("countdowns", [](int n) {
    Playfield field(many(1, 1));
    for (int i = 0; i < n; ++i)
      (void)field.time().start_countdown(field.time().add_countdown(1 + i * 1e-4, true));
    while (field.next_event(100)) {
    }
  });
  compare("holds", [](int n) {
    Playfield field(many(1, 1));
    for (int i = 0; i < n; ++i) field.time().hold(fmt::format("r{}", i));
    for (int i = 0; i < n; ++i) field.time().release(fmt::format("r{}", i));
  });
  compare("gates", [](int n) {
    Playfield field(many(1, 1));
    for (int i = 0; i < n; ++i) field.gate().close(fmt::format("r{}", i));
    for (int i = 0; i < n; ++i) field.gate().open(fmt::format("r{}", i));
  });
  compare("waiting inputs", [](int n) {
    Playfield field(many(1, 1));
    for (int i = 0; i < n; ++i)
      field.pointer({.phase = PointerPhase::move, .at = {1, 1}, .time = 1 + (i * 7919 % n) * 1e-4});
    while (field.next_event(100)) {
    }
  });
  compare("cards off", [](int n) {
    Playfield field(many(n / 10, 10));
    for (int i = 0; i < n; ++i)
      (void)field.switches().switch_off(CardId{static_cast<std::uint32_t>(i + 1)}, "off");
    while (field.next_event(100)) {
    }
    (void)field.frame();
    (void)field.rules().legal_moves();
  });
  compare("proposals", [](int n) {
    Playfield field(many(n / 10, 10));
    field.moves().set_judge([](const Proposal&) { return std::nullopt; });
    for (int i = 0; i < n; ++i)
      (void)field.moves().make({.run = {{static_cast<std::uint32_t>(i + 1)}, 1},
                                .from = field.table().card({static_cast<std::uint32_t>(i + 1)})->zone,
                                .to = field.table().zones()[0].id});
    while (field.next_event(100)) {
    }
    (void)field.frame();
  });
  compare("carried targets", [](int n) {
    Playfield field(many(n, 1));
    const Vec2 at = field.where().live_pose(CardId{5})->centre;
    field.pointer({.phase = PointerPhase::down, .at = at, .time = 1});
    field.pointer({.phase = PointerPhase::move, .at = at + Vec2{50, 0}, .time = 1.1});
    while (field.next_event(2)) {
    }
    (void)field.frame();
  });
}
