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
    ZoneSetup zone{.name = fmt::format("a-{}", i),
                   .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything()}};
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
  compare("shaken cards", [](int n) {
    Playfield field(many(n / 10, 10));
    std::vector<CardId> all;
    for (int i = 0; i < n; ++i) all.push_back({static_cast<std::uint32_t>(i + 1)});
    for (int again = 0; again < 3; ++again) {
      (void)field.performances().perform(shake(all));
      while (field.next_event(0.1 * again)) {
      }
      (void)field.frame();
    }
    while (field.next_event(10)) {
    }
  });
  compare("a carried run", [](int n) {
    TableSetup setup = many(2, n);
    ZoneBehaviour behaviour = setup.behaviour_of({1});
    behaviour.rules.pick = {.kind = PickKind::run, .link = rule::anything()};
    behaviour.layout.kind = SpreadLayout{};
    setup.set_behaviour({1}, behaviour);
    setup.plans = {{.root = down({across({zone({1}, 1)}), zone({2})})}};
    Playfield field(setup);
    const Vec2 at =
        field.where().live_pose(CardId{1})->centre - Vec2{field.where().card_size().width / 2 - 1, 0};
    field.pointer({.phase = PointerPhase::down, .at = at, .time = 1});
    for (int i = 1; i < 5; ++i) {
      field.pointer({.phase = PointerPhase::move, .at = at + Vec2{20.0f * float(i), 0}, .time = 1 + 0.1 * i});
      while (field.next_event(1 + 0.1 * i)) {
      }
      (void)field.frame();
    }
    CHECK(field.hand().held().count > std::size_t(n) / 2);
    field.pointer({.phase = PointerPhase::cancel, .at = at, .time = 2});
    while (field.next_event(10)) {
    }
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

TEST_CASE("budget: of what lives at one time no more than the stated number is taken, and one more is told") {
  Playfield field(many(1, 1));
  std::string heard;
  field.set_watcher([&](const Notice& notice) { heard = describe(notice); });
  // The last that is taken, the first that is not, and what is counted by then.
  const auto full = [&](std::size_t most, const std::string& what, const auto& add) {
    const std::uint64_t before = field.count_of(NoticeKind::too_many);
    for (std::size_t i = 0; i < most; ++i) add(i);
    CAPTURE(what);
    CHECK(field.count_of(NoticeKind::too_many) == before);
    add(most);
    CHECK(field.count_of(NoticeKind::too_many) == before + 1);
    CHECK(heard == what + " is one too many of those that live: it is ignored");
  };
  full(1'000, "perform", [&](std::size_t) { (void)field.performances().perform(wait(100)); });
  full(100'000, "clock", [&](std::size_t) { (void)field.time().start_timer(100); });
  full(100'000, "clock", [&](std::size_t) { (void)field.time().add_countdown(100); });
  const auto named = [](std::size_t i) { return fmt::format("reason {}", i); };
  full(1'000, "hold", [&](std::size_t i) { field.time().hold(named(i)); });
  full(1'000, "forbid_undo", [&](std::size_t i) { field.moves().forbid_undo(named(i)); });
  full(1'000, "switch", [&](std::size_t i) { (void)field.switches().switch_off(CardId{1}, named(i)); });
  full(100, "pointer", [&](std::size_t i) {
    field.pointer(
        {.phase = PointerPhase::down, .at = {1, 1}, .time = 1, .pointer = static_cast<std::uint32_t>(i)});
    while (field.next_event(1)) {
    }
  });
  full(1'000, "close_gate", [&](std::size_t i) { field.gate().close(named(i)); });
  // A reason that is held already is no further one.
  const std::uint64_t before = field.count_of(NoticeKind::too_many);
  field.gate().close(named(0), true);
  field.time().hold(named(0));
  CHECK(field.count_of(NoticeKind::too_many) == before);

  Playfield waits(many(1'001, 1));
  waits.moves().set_judge([](const Proposal&) { return std::nullopt; });
  const auto propose = [&](std::uint32_t card) {
    return waits.moves().make({.run = {{card}, 1}, .from = {card}, .to = {1'001}});
  };
  for (std::uint32_t card = 1; card <= 1'000; ++card) REQUIRE(propose(card));
  CHECK(waits.moves().waiting().size() == 1'000);
  CHECK(propose(1'001).reason == Reason::out_of_range);
  CHECK(waits.count_of(NoticeKind::too_many) == 1);
  CHECK(
      waits.moves().answer(waits.moves().waiting().front().id, {.reason = Reason::refused_by_game}).reason !=
      Reason::unknown_proposal);
  CHECK(waits.moves().waiting().size() == 999);
}
