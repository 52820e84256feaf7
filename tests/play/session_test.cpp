// Sessions through every call there is, replayed from nothing but a table file and a log.
#include <cmath>
#include <filesystem>
#include <fstream>
#include <iomanip>
#include <sstream>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/loop.hpp"
#include "support/process.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Does something, whatever it is, and as often as not with what is not there.
class Session {
 public:
  Session(const TableSetup& setup, const PlayfieldOptions& options)
      : setup_(setup), options_(options), field_(setup, options), snapshot_(field_) {
    field_.set_recorder([this](const Input& input) { log_.push_back(input); });
    field_.moves().set_judge([this](const Proposal& p) -> std::optional<Verdict> {
      if ((p.id + salt_) % 3 == 0) return std::nullopt;
      if ((p.id + salt_) % 7 == 0) return Verdict{.reason = Reason::refused_by_game, .zone = p.move.to};
      return Verdict{};
    });
  }
  Session(const Session&) = delete;
  Session& operator=(const Session&) = delete;

  void step(Random& r) {
    if (r.chance(0.7f)) go(double{r.uniform(0, 0.3f)});
    if (r.chance(0.5f)) return play(r);
    if (r.chance(0.5f)) return edit(r);
    rest(r);
  }
  void finish() {
    field_.gate().open("test");
    field_.time().release("test");
    field_.time().set_speed(1);
    go(3);
  }

  [[nodiscard]] const TableSetup& setup() const { return setup_; }
  [[nodiscard]] InputLog log() const {
    return {.options = options_, .table = fingerprint(setup_), .inputs = log_};
  }
  [[nodiscard]] const std::vector<Event>& told() const { return told_; }
  [[nodiscard]] const Playfield& field() const { return field_; }

 private:
  void go(double seconds) {
    for (Event& e : events_until(field_, field_.now() + seconds)) told_.push_back(std::move(e));
  }
  CardId card(Random& r) const {
    const Zone& zone = field_.table().zones()[r.below(field_.table().zones().size())];
    if (zone.cards.empty() || r.chance(0.1f)) return {static_cast<std::uint32_t>(r.below(70))};
    return zone.cards[r.below(zone.cards.size())];
  }
  ZoneId zone(Random& r) const {
    return {static_cast<std::uint32_t>(r.below(field_.table().zones().size() + 2))};
  }
  Vec2 point(Random& r) const {
    const auto pose = field_.where().live_pose(card(r));
    return pose && r.chance(0.8f) ? pose->centre : Vec2{r.uniform(0, 1200), r.uniform(0, 800)};
  }

  /// As a player would, by hand or by call.
  void play(Random& r) {
    const double now = field_.now();
    switch (r.below(8)) {
      case 0: {
        const Vec2 from = point(r);
        const Vec2 to = point(r);
        (void)field_.pointer({.phase = PointerPhase::down, .at = from, .time = now + 0.02});
        (void)field_.pointer({.phase = PointerPhase::move, .at = (from + to) * 0.5f, .time = now + 0.05});
        (void)field_.pointer({.phase = PointerPhase::move, .at = to, .time = now + 0.09});
        if (r.chance(0.9f)) (void)field_.pointer({.phase = PointerPhase::up, .at = to, .time = now + 0.12});
        return;
      }
      case 1:
        (void)field_.key({.key = static_cast<Key>(r.below(11)), .time = now + 0.01});
        return;
      case 2:
      case 3: {
        const auto moves = field_.rules().legal_moves();
        if (!moves.empty()) (void)field_.moves().make(moves[r.below(moves.size())]);
        return;
      }
      case 4:
        (void)field_.moves().make(
            {.run = {card(r), 1 + r.below(2)}, .from = zone(r), .to = zone(r), .at = r.below(3)});
        return;
      case 5:
        (void)(r.chance(0.5f) ? field_.moves().send_to_best(card(r)) : field_.moves().draw_from(zone(r)));
        return;
      case 6:
        (void)(r.chance(0.5f)   ? field_.moves().flip(card(r))
               : r.chance(0.5f) ? field_.moves().undo()
                                : field_.moves().redo());
        return;
      default:
        if (field_.moves().waiting().empty()) return;
        const Verdict no{.reason = Reason::refused_by_game, .wanted = 3};
        (void)field_.moves().answer(field_.moves().waiting()[0].id, r.chance(0.7f) ? Verdict{} : no);
    }
  }

  void edit(Random& r) {
    const Edit edit{.kind = static_cast<EditKind>(r.below(13)),
                    .run = {card(r), 1},
                    .card = card(r),
                    .other = card(r),
                    .zone = zone(r),
                    .count = r.below(4),
                    .on = r.chance(0.6f),
                    .face = {static_cast<std::uint32_t>(r.below(12))},
                    .cell = r.between(-1, 8),
                    .position = {r.uniform(0, 1), r.uniform(0, 1)},
                    .seed = r.below(1000),
                    .made = {.face = {1}, .face_up = r.chance(0.5f)}};
    (void)field_.edits().make(edit);
  }

  void rest(Random& r) {
    const PerformanceId last{performances_};
    switch (r.below(19)) {
      case 18: {
        // Numbers that are none: what is recorded can be read again.
        Act odd{.kind = ActKind::draw, .from = zone(r), .to = zone(r), .count = 2, .seconds = NAN};
        odd.delays = {NAN, INFINITY};
        performances_ = field_.performances().perform({.act = odd}).value;
        (void)field_.time().start_timer(NAN);
        field_.time().start_countdown(field_.time().add_countdown(INFINITY));
        (void)field_.edits().set_position(card(r), {NAN, 0});
        return;
      }
      case 0: {
        const Script scripts[] = {deal(),
                                  shuffle(zone(r), r.below(99)),
                                  draw(zone(r), zone(r), 2),
                                  flip({card(r), card(r)}, false),
                                  collect({card(r)}, zone(r)),
                                  reveal({card(r)}, 0.4),
                                  finale(),
                                  gather(zone(r))};
        performances_ = field_.performances()
                            .perform(sequence({scripts[r.below(8)], wait(0.2), scripts[r.below(8)]}))
                            .value;
        return;
      }
      case 1:
        return field_.performances().skip(last);
      case 2:
        return field_.performances().stop(last);
      case 3:
        return field_.performances().set_speed(last, r.chance(0.2f) ? 0 : double{r.uniform(0.3f, 3)});
      case 4:
        return r.chance(0.5f) ? field_.performances().shake(card(r)) : field_.performances().pulse(card(r));
      case 5:
        return field_.performances().set_feel(r.chance(0.5f) ? springy() : r.chance(0.5f) ? calm() : Feel{});
      case 6:
        return field_.hand().set_drag_options({.look = r.chance(0.5f) ? DragLook::copy : DragLook::card});
      case 7:
        return field_.hand().set_hover_options({.zoom_seconds = double{r.uniform(0, 0.3f)}});
      case 8:
        return field_.hand().set_thresholds({.mouse_slop = r.uniform(1, 9)});
      case 9:
        return field_.where().scroll_to(zone(r), r.uniform(0, 300));
      case 10:
        return field_.edits().set_panel({1}, "so many", r.uniform(0, 1));
      case 11:
        (void)field_.time().start_timer(double{r.uniform(0, 1)});
        return field_.time().start_countdown(field_.time().add_countdown(double{r.uniform(0, 2)}));
      case 12:
        return r.chance(0.3f) ? field_.time().hold("test") : field_.time().release("test");
      case 13:
        return field_.time().set_speed(double{r.uniform(0.5f, 2)});
      case 14:
        return r.chance(0.3f) ? field_.gate().close("test") : field_.gate().open("test");
      case 15:
        if (r.chance(0.5f))
          return field_.resize({r.uniform(500, 1400), r.uniform(400, 900)}, 1, field_.now());
        return field_.blur(field_.now());
      case 16:
        if (r.chance(0.7f)) return;
        return r.chance(0.5f) ? field_.start_round(r.below(99)) : field_.start_over(setup_);
      default:
        if (r.chance(0.5f)) snapshot_ = field_;
        if (r.chance(0.3f)) field_.restore(snapshot_);
    }
  }

  TableSetup setup_;
  PlayfieldOptions options_;
  Playfield field_;
  Playfield snapshot_;
  std::vector<Input> log_ = {};
  std::vector<Event> told_ = {};
  std::uint32_t performances_ = 0;
  std::uint64_t salt_ = 1;
};

/// All digits, so that it reads back as the same number.
std::string fmt_time(double time) {
  std::ostringstream out;
  out << std::setprecision(17) << time;
  return out.str();
}

std::vector<std::string> lines_of(const std::vector<Event>& told, const Table& table) {
  std::vector<std::string> lines;
  for (const Event& e : told) lines.push_back(event_line(e, table));
  return lines;
}

/// Through the files: what the game has answered, by its judge and its own rules, is in the log.
void check_replay(const Session& session) {
  const auto table = parse_table(write_table(session.setup()), "table");
  if (!table) RC_FAIL(describe(table.error()[0]));
  const auto log = parse_log(write_log(session.log(), session.setup()), "log", *table);
  if (!log) RC_FAIL(describe(log.error()[0]));
  RC_ASSERT(write_log(*log, *table) == write_log(session.log(), session.setup()));
  Playfield again(*table, log->options);
  std::vector<Event> told;
  const auto hear = [&](const Event& e) { told.push_back(e); };
  RC_ASSERT(replay(again, log->inputs, session.field().now(), hear) == 0u);
  while (const auto e = again.next_event(session.field().now())) hear(*e);
  const auto was = lines_of(session.told(), again.table());
  const auto is = lines_of(told, again.table());
  for (std::size_t i = 0; i < std::min(was.size(), is.size()); ++i) RC_ASSERT(is[i] == was[i]);
  RC_ASSERT(told == session.told());
  for (const Zone& zone : session.field().table().zones()) {
    RC_ASSERT(again.table().contents_of(zone.id) == session.field().table().contents_of(zone.id));
    for (const CardId card : zone.cards)
      RC_ASSERT(*again.where().live_pose(card) == *session.field().where().live_pose(card));
  }
  RC_ASSERT(again.frame().items == session.field().frame().items);
}

/// What the random tables of the tests lack: rules in code, and a zone that scrolls.
TableSetup with_rules_in_code(Random& r) {
  TableSetup setup = random_setup(r);
  const Zone& any = setup.table.zones()[r.below(setup.table.zones().size())];
  setup.rules_of(any.id).drop = rule::own("odd", [](const RuleQuestion& q) {
    return q.card.value % 2 == 1 ? Verdict{} : q.answer(Reason::own_rule);
  });
  setup.layout_of(any.id).scrolls = true;
  setup.won = goal::own("few", [](const RuleQuestion& q) {
    return q.table.card_count() % 5 == 0 ? Verdict{} : q.answer(Reason::own_rule);
  });
  return setup;
}

}  // namespace

TEST_CASE("play: any session through the public interface is replayed from its table and its log alone") {
  for_all("sessions with every call", 2, [](Random& r) {
    Session session(with_rules_in_code(r),
                    {.window = {r.uniform(600, 1300), 700}, .feel = springy(), .most_undos = 5});
    for (int i = 0; i < 60; ++i) session.step(r);
    session.finish();
    check_replay(session);
  });
}

TEST_CASE("play: going back to a snapshot of another session cannot be replayed, and is said") {
  const TableSetup setup = []() {
    TableSetup made(glasshouse());
    (void)made.add({.name = "slot", .cards = {{.face = {1}}}});
    made.plans = {{.root = across({zone({1})})}};
    return made;
  }();
  Playfield other(setup);
  (void)other.edits().flip({1}, false);
  (void)other.edits().flip({1}, true);
  Playfield field(setup);
  std::vector<Input> log;
  field.set_recorder([&](const Input& input) { log.push_back(input); });
  const Playfield own = field;
  field.advance_to(1);
  field.restore(own);
  Playfield again(setup);
  CHECK(replay(again, log, 9, [](const Event&) {}) == 0);
  field.restore(other);
  Playfield once_more(setup);
  CHECK(replay(once_more, log, 9, [](const Event&) {}) == 1);
}

TEST_CASE("tool: sessions of the four demo tables replay exactly from table and log") {
  const auto folder = std::filesystem::temp_directory_path() / "apsidon-session-test";
  std::filesystem::create_directories(folder);
  Random r(20261127);
  for (const std::string name : {"potting-bench", "seed-drawer", "market-stall", "trellis"}) {
    for (int round = 0; round < 3; ++round) {
      CAPTURE(name, round);
      const auto loaded = load_table(source("data/" + name + "-start.table.json"));
      REQUIRE(loaded);
      Session session(dealt(*loaded, r.below(1000)), {.window = {1280, 800}});
      for (int i = 0; i < 150; ++i) session.step(r);
      session.finish();
      check_replay(session);
      const auto file = [&](const std::string& what) { return (folder / (name + what)).string(); };
      std::ofstream(file(".table.json")) << write_table(session.setup());
      std::ofstream(file(".log")) << write_log(session.log(), session.setup());
      {
        std::ofstream events(file(".events"));
        for (const std::string& line : lines_of(session.told(), session.field().table()))
          events << line << "\n";
      }
      const auto out = tool({"replay", file(".table.json"), file(".log"), "--check", file(".events"),
                             "--until", fmt_time(session.field().now())});
      CAPTURE(out.out, out.err);
      CHECK(out.code == 0);
      const InputLog log = session.log();
      const bool judged = std::any_of(log.inputs.begin(), log.inputs.end(),
                                      [](const Input& i) { return std::holds_alternative<JudgedInput>(i); });
      CHECK((out.out.find("answered from the log: the game's judge") != std::string::npos) == judged);
      // A log of another table is refused.
      const auto other = tool({"replay", source("data/trellis.table.json"), file(".log")});
      CHECK(other.code == 3);
      CHECK(other.err.find("another table") != std::string::npos);
    }
  }
}

TEST_CASE("tool: what a rule in the game's code has answered is told to come from the log") {
  const auto folder = std::filesystem::temp_directory_path() / "apsidon-session-test";
  std::filesystem::create_directories(folder);
  Random r(4);
  Session session(with_rules_in_code(r), {.window = {900, 700}});
  for (int i = 0; i < 80; ++i) session.step(r);
  const std::string table = (folder / "own.table.json").string();
  const std::string log = (folder / "own.log").string();
  std::ofstream(table) << write_table(session.setup());
  std::ofstream(log) << write_log(session.log(), session.setup());
  const auto out = tool({"replay", table, log});
  CAPTURE(out.out, out.err);
  CHECK(out.code == 0);
  CHECK(out.out.find("answered from the log: the game's rule 'few'") != std::string::npos);
}
