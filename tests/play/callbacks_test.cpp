// Functions of the game's that throw, call back, or replace themselves: counted, told, answered as a refusal,
// and the playfield goes on. docs/callbacks.md says it in words.
#include <apsidon/apsidon.hpp>
#include <catch2/catch.hpp>
#include <memory>
#include <optional>
#include <stdexcept>
#include <string>
#include <utility>
#include <vector>

using namespace apsidon;

namespace {

/// Two slots, a card on the first.
TableSetup two_slots(Rule drop = rule::anything()) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2"}}));
  const ZoneId from = setup.add(
      {.name = "pot",
       .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything(), .flip = rule::anything()},
       .cards = {{.face = FaceId{1}, .face_up = true}}});
  const ZoneId to = setup.add(
      {.name = "bed",
       .rules = {.pick = {.kind = PickKind::top}, .drop = std::move(drop), .flip = rule::anything()}});
  setup.plans = {{.root = across({zone(from), zone(to)})}};
  return setup;
}

constexpr CardId only_card{1};
constexpr ZoneId first_slot{1};
constexpr ZoneId second_slot{2};
const Move to_second{.run = {only_card, 1}, .from = first_slot, .to = second_slot};

/// Drags the card to the bed, and lets it go; the events that come of it.
std::vector<EventKind> drag(Playfield& field) {
  const Vec2 at = field.where().live_pose(only_card)->centre;
  const Vec2 there = field.where().area(second_slot)->centre();
  const double t = field.now();
  field.pointer({.phase = PointerPhase::down, .at = at, .time = t + 0.1});
  field.pointer({.phase = PointerPhase::move, .at = (at + there) * 0.5f, .time = t + 0.2});
  field.pointer({.phase = PointerPhase::move, .at = there, .time = t + 0.3});
  field.pointer({.phase = PointerPhase::up, .at = there, .time = t + 0.5});
  std::vector<EventKind> told;
  while (const auto event = field.next_event(t + 3)) told.push_back(event->kind);
  return told;
}

bool has(const std::vector<EventKind>& told, EventKind kind) {
  return std::find(told.begin(), told.end(), kind) != told.end();
}

std::string problem_of(const Verdict& verdict) {
  REQUIRE(verdict.arguments.size() == 1);
  CHECK(verdict.arguments[0].name == "problem");
  return std::get<std::string>(verdict.arguments[0].value);
}

/// What the watcher of a field hears.
struct Heard {
  explicit Heard(Playfield& field) {
    field.set_watcher([this](const Notice& notice) { said.push_back(describe(notice)); });
  }
  std::vector<std::string> said;
};

}  // namespace

TEST_CASE("play: a judge that throws refuses, and nothing stays in the hand") {
  Playfield field(two_slots());
  const Heard heard(field);
  field.moves().set_judge(
      [](const Proposal&) -> std::optional<Verdict> { throw std::runtime_error("no network"); });
  const auto told = drag(field);
  CHECK(has(told, EventKind::refused));
  CHECK(field.hand().held().count == 0);
  CHECK(field.time().at_rest());
  CHECK(field.table().card(only_card)->zone == first_slot);
  CHECK(field.count_of(NoticeKind::callback) == 1);
  CHECK(heard.said ==
        std::vector<std::string>{"judge: it threw no network: the playfield goes on without it"});

  const Verdict verdict = field.moves().make(to_second);
  CHECK(verdict.reason == Reason::game_failed);
  CHECK(problem_of(verdict) == "no network");
  field.moves().set_judge({});
  CHECK(field.moves().make(to_second));
}

TEST_CASE("play: a rule in code that throws refuses, in a playfield and on a bare table") {
  const TableSetup setup =
      two_slots(rule::own("dry", [](const RuleQuestion&) -> Verdict { throw std::logic_error("no water"); }));
  Playfield field(setup);
  const Heard heard(field);
  CHECK_FALSE(has(drag(field), EventKind::dropped));
  CHECK(field.table().card(only_card)->zone == first_slot);
  CHECK(field.count_of(NoticeKind::callback) > 0);
  CHECK(heard.said.front() == "rule: it threw no water (of 'dry'): the playfield goes on without it");

  Table table = setup.table;
  const MoveReport report = apply_move(table, setup.rulebook(), to_second);
  CHECK(report.verdict.reason == Reason::game_failed);
  CHECK(report.verdict.rule == "dry");
  CHECK(problem_of(report.verdict) == "no water");
  CHECK(report.steps.empty());
}

TEST_CASE("play: what is thrown need be no exception of the standard library") {
  TableSetup setup = two_slots(rule::own("odd", [](const RuleQuestion&) -> Verdict { throw 7; }));
  setup.won = goal::when(rule::own("odd too", [](const RuleQuestion&) -> Verdict { throw "eight"; }));
  Playfield field(setup);
  const Verdict verdict = field.moves().make(to_second);
  CHECK(verdict.reason == Reason::game_failed);
  CHECK(problem_of(verdict) == "something that is no std::exception");
  CHECK(field.edits().flip(only_card, false));
  while (field.next_event(1)) {
  }
  CHECK(field.moves().standing() != Standing::won);
  CHECK(field.count_of(NoticeKind::callback) >= 2);
}

TEST_CASE("play: a recorder and a watcher that throw are counted, and the input is taken all the same") {
  Playfield field(two_slots());
  int recorded = 0;
  field.set_recorder([&](const Input&) {
    ++recorded;
    throw std::runtime_error("disk full");
  });
  CHECK(field.moves().make(to_second));
  CHECK(field.table().card(only_card)->zone == second_slot);
  CHECK(recorded == 1);
  CHECK(field.count_of(NoticeKind::callback) == 1);
  field.set_watcher([](const Notice&) { throw std::runtime_error("no log"); });
  CHECK_FALSE(field.moves().flip(CardId{99}));  // stale: the watcher hears of it, and of the recorder
  CHECK(field.count_of(NoticeKind::stale) == 1);
  CHECK(field.count_of(NoticeKind::callback) == 4);  // the recorder once more, and the watcher twice
}

TEST_CASE("play: a layout that throws lays its cards as a spread does") {
  const auto laid_by = [](const Layout& layout) {
    TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3"}}));
    const ZoneId row = setup.add({.name = "row", .layout = {.kind = layout, .longest = 3}});
    setup.add_deck(row);
    setup.plans = {{.root = across({zone(row, 1)})}};
    return Playfield(setup);
  };
  const auto no_size = [](const LayoutNeed&, Size) -> Size { throw std::runtime_error("no size"); };
  CustomLayout broken{.name = "broken",
                      .functions = std::make_shared<const CustomFunctions>(
                          CustomFunctions{.lay_out = [](const LayoutInput&, std::span<Pose>) -> LayoutReport {
                                            throw std::runtime_error("bent");
                                          },
                                          .least_size = no_size})};
  Playfield field = laid_by(broken);
  const Playfield spread = laid_by(SpreadLayout{});
  const Heard heard(field);
  for (std::uint32_t i = 1; i <= 3; ++i) CHECK(field.where().live_pose({i}) == spread.where().live_pose({i}));
  field.resize({900, 500}, 1, 1);
  while (field.next_event(2)) {
  }
  CHECK(field.count_of(NoticeKind::callback) > 0);
  CHECK(heard.said.front() == "layout: it threw bent: the playfield goes on without it");

  // One that only says no size is told of, too.
  broken.functions = std::make_shared<const CustomFunctions>(
      CustomFunctions{.lay_out = [](const LayoutInput& in,
                                    std::span<Pose> poses) { return lay_out(SpreadLayout{}, in, poses); },
                      .least_size = no_size});
  Playfield sizeless = laid_by(broken);
  const Heard of_size(sizeless);
  sizeless.resize({900, 500}, 1, 1);
  while (sizeless.next_event(2)) {
  }
  CHECK(of_size.said ==
        std::vector<std::string>{"layout: it threw no size: the playfield goes on without it"});
}

TEST_CASE("play: what a function of the game's calls back changes nothing, and is told") {
  Playfield field(two_slots());
  const Heard heard(field);
  std::optional<Verdict> inner;
  bool asked = false;
  field.moves().set_judge([&](const Proposal&) -> std::optional<Verdict> {
    inner = field.moves().flip(only_card);
    asked = field.rules().judge_pick(only_card).verdict.allowed();  // may be asked
    field.pointer({.phase = PointerPhase::down, .at = {1, 1}, .time = field.now()});
    CHECK_FALSE(field.next_event(100).has_value());
    field.advance_to(100);
    field.restore(Playfield(field));
    return Verdict{};
  });
  CHECK(field.moves().make(to_second));
  CHECK(asked);
  REQUIRE(inner);
  CHECK(inner->reason == Reason::game_failed);
  CHECK_THAT(problem_of(*inner), Catch::Contains("called from within a function of the game's"));
  CHECK(field.table().card(only_card)->zone == second_slot);
  CHECK(field.table().card(only_card)->face_up);
  CHECK(field.now() == 0);
  CHECK(field.count_of(NoticeKind::callback) == 5);
  CHECK(heard.said.size() == 5);
  CHECK(field.moves().flip(only_card));  // and from without as ever
}

TEST_CASE("play: a rule that calls back while somebody only asks changes nothing, either") {
  Playfield* field = nullptr;
  std::vector<Reason> inner;
  const auto calls_back = [&](const RuleQuestion&) {
    inner.push_back(field->moves().flip(only_card).reason);
    inner.push_back(field->moves().make(to_second).reason);
    return Verdict{};
  };
  Playfield asked(two_slots(rule::own("calls back", calls_back)));
  field = &asked;
  const Heard heard(asked);
  CHECK(asked.rules().judge_move(to_second));
  CHECK(asked.rules().legal_moves().size() == 2);  // and the flip
  CHECK(inner.size() == 4);
  CHECK(std::count(inner.begin(), inner.end(), Reason::game_failed) == 4);
  CHECK(heard.said.size() == 4);
  CHECK(asked.table().card(only_card)->zone == first_slot);
  CHECK(asked.table().card(only_card)->face_up);

  Playfield other(two_slots());  // may be changed meanwhile, as may a copy
  field = &other;
  inner.clear();
  CHECK(asked.rules().judge_move(to_second));
  CHECK(inner == std::vector{Reason::allowed, Reason::face_down});
}

TEST_CASE("play: a judge may try the move on a copy of the playfield") {
  Playfield field(two_slots());
  field.moves().set_judge([&](const Proposal& proposal) -> std::optional<Verdict> {
    Playfield ahead = field;
    CHECK(ahead.moves().make(proposal.move));
    CHECK(ahead.table().card(only_card)->zone == second_slot);
    return Verdict{.reason = Reason::refused_by_game};
  });
  CHECK(field.moves().make(to_second).reason == Reason::refused_by_game);
  CHECK(field.table().card(only_card)->zone == first_slot);
  CHECK(field.count_of(NoticeKind::callback) == 0);
}

TEST_CASE("play: judges, watchers and recorders may replace themselves while they run") {
  Playfield field(two_slots());
  const auto of_judge = std::make_shared<int>(0);
  const std::weak_ptr<int> seen = of_judge;
  field.moves().set_judge([&field, of_judge](const Proposal&) -> std::optional<Verdict> {
    field.moves().set_judge({});
    ++*of_judge;  // what runs is still there
    return Verdict{.reason = Reason::refused_by_game};
  });
  int first = 0;
  int second = 0;
  field.set_recorder([&](const Input&) {
    ++first;
    field.set_recorder([&](const Input&) { ++second; });
  });
  std::string heard;
  field.set_watcher(
      [&](const Notice&) { field.set_watcher([&](const Notice& later) { heard = describe(later); }); });
  CHECK(field.moves().make(to_second).reason == Reason::refused_by_game);
  CHECK(*of_judge == 1);
  CHECK(seen.use_count() == 1);  // the judge that was replaced is gone
  CHECK(field.moves().make(to_second));
  CHECK(first == 1);
  CHECK(second >= 1);
  (void)field.moves().flip(CardId{99});
  CHECK(heard.empty());
  (void)field.moves().flip(CardId{99});
  CHECK_THAT(heard, Catch::Contains("names what is not there"));
}

TEST_CASE("play: a log answers as the game did when its function threw") {
  const TableSetup setup =
      two_slots(rule::own("dry", [](const RuleQuestion&) -> Verdict { throw std::logic_error("no water"); }));
  Playfield field(setup);
  std::vector<Input> log;
  field.set_recorder([&](const Input& input) { log.push_back(input); });
  CHECK_FALSE(field.moves().make(to_second));
  Playfield again(two_slots(rule::own("dry")));
  std::vector<Verdict> refused;
  CHECK(replay(again, log, 1, [&](const Event& event) {
          if (event.kind == EventKind::refused) refused.push_back(event.verdict);
        }) == 0);
  REQUIRE(refused.size() == 1);
  CHECK(refused[0].reason == Reason::game_failed);
  CHECK(problem_of(refused[0]) == "no water");
  CHECK(again.count_of(NoticeKind::callback) == 0);
}

TEST_CASE(
    "play: a function that was given once is known by its name in rounds and snapshots that do not name it") {
  const auto refuses = [](const RuleQuestion& q) { return q.refuse({{"cost", 3}}); };
  Playfield field(two_slots(rule::own("dear", refuses)));
  const auto asked_by_name = [&] {
    ZoneBehaviour behaviour = field.where().behaviour(second_slot);
    behaviour.rules.drop = rule::own("dear");
    REQUIRE(field.edits().set_behaviour(second_slot, behaviour));
    return field.moves().make(
        {.run = {field.table().top(first_slot).value(), 1}, .from = first_slot, .to = second_slot});
  };
  REQUIRE(field.start_over(two_slots()));
  CHECK(asked_by_name().arguments == std::vector<VerdictArgument>{{"cost", 3}});

  Playfield later(two_slots());
  const Playfield before = later;
  ZoneBehaviour behaviour = later.where().behaviour(second_slot);
  behaviour.rules.drop = rule::own("dear", refuses);
  REQUIRE(later.edits().set_behaviour(second_slot, behaviour));
  later.restore(before);
  field = later;
  CHECK(asked_by_name().arguments == std::vector<VerdictArgument>{{"cost", 3}});

  // Both what the snapshot knew and what was known since.
  Playfield other(two_slots());
  other.restore(Playfield(two_slots(rule::own("dear", refuses))));
  field = other;
  CHECK(asked_by_name().arguments == std::vector<VerdictArgument>{{"cost", 3}});
}

TEST_CASE("play: a rule in code may try the move on a copy of the playfield") {
  bool tries = false;
  Playfield* field = nullptr;
  const auto looks_ahead = [&](const RuleQuestion& q) -> Verdict {
    if (std::exchange(tries, true)) return {};  // within its own copy
    Playfield ahead = *field;
    CHECK(ahead.moves().make(to_second));
    CHECK(ahead.count_of(NoticeKind::callback) == 0);
    return q.refuse();
  };
  Playfield asked(two_slots(rule::own("looks ahead", looks_ahead)));
  field = &asked;
  CHECK(asked.moves().make(to_second).reason == Reason::own_rule);
  CHECK(tries);
  CHECK(asked.count_of(NoticeKind::callback) == 0);
}
