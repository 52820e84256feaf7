#include <catch2/catch.hpp>
#include <set>

#include "apsidon/files/input_log.hpp"
#include "play/values/any_input.hpp"
#include "support/process.hpp"
#include "support/property.hpp"
#include "support/schema.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::play_detail;
using namespace apsidon::test;

namespace {

constexpr std::size_t input_kinds = std::variant_size_v<AnyInput::variant>;

/// Of every kind that there is.
AnyInput random_input(Random& r, double time) {
  const auto text = [&] { return std::string(r.chance(0.5f) ? "a \"dialogue\"" : "background"); };
  const auto zone = [&] { return ZoneId{static_cast<std::uint32_t>(r.below(4))}; };
  const auto card = [&] { return CardId{static_cast<std::uint32_t>(r.below(99))}; };
  const auto arguments = [&] {
    return std::vector<VerdictArgument>{{"cost", std::int64_t{r.between(-9, 9)}},
                                        {"owner", text()},
                                        {"dearer", card()},
                                        {"stall", ZoneId{1}}};
  };
  const auto verdict = [&] {
    return Verdict{.reason = static_cast<Reason>(r.below(reason_count)),
                   .card = card(),
                   .face = {static_cast<std::uint32_t>(r.below(53))},
                   .zone = zone(),
                   .wanted = r.between(-1, 9),
                   .alternative = r.between(-1, 3),
                   .key = r.below(3),
                   .arguments = r.chance(0.5f) ? arguments() : std::vector<VerdictArgument>{}};
  };
  const auto panel = [&] { return PanelId{static_cast<std::uint32_t>(r.below(3))}; };
  const auto any_edit = [&] {
    Edit edit{.kind = static_cast<EditKind>(r.below(16)),
              .run = {card(), r.below(3)},
              .card = card(),
              .other = card(),
              .zone = zone(),
              .count = r.below(3),
              .on = r.chance(0.5f),
              .face = {static_cast<std::uint32_t>(r.below(53))},
              .cell = r.between(-1, 5),
              .position = {r.uniform(0, 1), 0},
              .seed = r.below(1u << 30) * 4'000'000'007u,
              .name = text(),
              .value = r.between(-9, 9),
              .seat = {static_cast<std::uint32_t>(r.below(3))}};
    if (r.chance(0.5f)) edit.seats = {{1}, {static_cast<std::uint32_t>(r.below(3))}};
    if (r.chance(0.5f)) edit.at = r.below(5);
    if (r.chance(0.5f))
      edit.made = {
          .face = {7}, .key = 12, .face_up = false, .cell = 3, .at = {0.25f, 1}, .numbers = {{"hits", 2}}};
    return edit;
  };
  switch (r.below(input_kinds)) {
    case 24: {
      SwitchInput input{.what = static_cast<SwitchInput::What>(r.below(6)), .reason = text(), .time = time};
      if (input.what == SwitchInput::What::mark && r.chance(0.5f)) input.seconds = 0.25 * r.between(1, 9);
      if (r.chance(0.3f)) {
        input.of = card();
      } else if (r.chance(0.5f)) {
        input.of = zone();
      } else {
        input.of = panel();
      }
      return input;
    }
    case 25:
      return LetThroughInput{
          .button = static_cast<PointerButton>(r.below(5)), .on = r.chance(0.5f), .time = time};
    case 26:
      return FocusInput{.on = {.card = card(), .zone = zone(), .panel = panel()}, .time = time};
    case 35:
      return SelectInput{.card = card(), .on = r.chance(0.5f), .time = time};
    case 27:
      return PreviewInput{.card = card(), .time = time};
    case 28:
      return FinishInput{.time = time};
    case 33:
      return StandingInput{.standing = static_cast<Standing>(r.below(4)), .time = time};
    case 29:
      return AskAgainInput{.on_turn = r.chance(0.5f), .time = time};
    case 30: {
      BehaviourInput input{.zone = {2}, .time = time};
      input.behaviour.layout.kind = random_layout(r);
      input.behaviour.layout.longest = r.between(1, 9);
      input.behaviour.rules.drop = rule::any({rule::rank_down(), rule::own("too-dear")});
      input.behaviour.handling.flick_to.left = {1};
      return input;
    }
    case 31:
      return PlansInput{.plans = {{.root = down({apsidon::zone({3}), apsidon::zone({1}, r.uniform(0, 2)),
                                                 apsidon::zone({2})})}},
                        .time = time};
    case 32: {
      TableSetup other(glasshouse());
      (void)other.add({.name = "bed", .cards = {{.face = {9}}}});
      other.plans = {{.root = apsidon::zone({1})}};
      return StartOverInput{.setup = std::make_shared<const TableSetup>(other), .time = time};
    }
    case 9:
      return JudgedInput{.proposal = r.below(9),
                         .verdict = r.chance(0.5f) ? std::optional(verdict()) : std::nullopt,
                         .time = time};
    case 10:
      return OwnRuleInput{.rule = text(), .verdict = verdict(), .time = time};
    case 11: {
      Move move{.kind = static_cast<MoveKind>(r.below(9)),
                .on = r.chance(0.5f),
                .run = {card(), r.below(4)},
                .cards = std::vector<CardId>(r.below(4), card()),
                .from = zone(),
                .to = zone()};
      if (r.chance(0.5f)) move.at = r.below(5);
      if (r.chance(0.5f)) move.position = Vec2{r.uniform(0, 1), r.uniform(0, 1)};
      return MoveInput{.move = move, .time = time};
    }
    case 12:
      return TapInput{.tap = r.chance(0.5f)   ? TapKind::send
                             : r.chance(0.5f) ? TapKind::draw
                             : r.chance(0.5f) ? TapKind::flip
                                              : TapKind::reorient,
                      .card = card(),
                      .zone = zone(),
                      .time = time};
    case 13:
      return EditInput{.edit = any_edit(), .time = time};
    case 34:
      return FollowedInput{.name = text(), .edits = {any_edit(), any_edit()}, .time = time};
    case 14:
      return RestoreInput{.inputs = r.below(99), .taken_at = time / 3, .time = time};
    case 15:
      return PerformInput{
          .script = sequence({deal(), together({flip({card(), card()}, false), apsidon::wait(0.3)}),
                              draw({1}, {2}, 3), shuffle({1}, 88), reveal({card()}, time)}),
          .time = time};
    case 16:
      return PerformanceInput{
          .what = static_cast<PerformanceInput::What>(r.below(5)),
          .performance = {static_cast<std::uint32_t>(r.below(9))},
          .card = card(),
          .effect = r.chance(0.5f) ? std::optional(CardEffect{.swings = 3, .lift = 1}) : std::nullopt,
          .speed = double{r.uniform(0, 9)},
          .time = time};
    case 17:
      return ClockInput{.what = static_cast<ClockInput::What>(r.below(10)),
                        .number = double{r.uniform(0, 9)},
                        .reason = text(),
                        .at_first_move = r.chance(0.5f),
                        .countdown = {static_cast<std::uint32_t>(r.below(9))},
                        .time = time};
    case 18:
      return PanelInput{.panel = {static_cast<std::uint32_t>(r.below(9))},
                        .text = text(),
                        .fill = r.uniform(0, 1),
                        .tone = static_cast<PanelTone>(r.below(3)),
                        .time = time};
    case 19:
      return ScrollInput{.zone = zone(), .offset = r.uniform(0, 900), .time = time};
    case 20: {
      FeelInput feel{.feel = r.chance(0.5f) ? springy() : calm(), .time = time};
      feel.feel.move.stagger = r.uniform(0, 1);
      return feel;
    }
    case 21:
      return DragOptionsInput{
          .options = {.look = DragLook::copy, .several = r.chance(0.5f), .copy_opacity = r.uniform(0, 1)},
          .time = time};
    case 22:
      return HoverOptionsInput{.options = {.in_seconds = double{r.uniform(0, 1)},
                                           .zoom_sides = {ZoomSide::left},
                                           .zoomed = ZoomedLook::hidden},
                               .time = time};
    case 23:
      return ThresholdsInput{.options = {.mouse_slop = r.uniform(0, 9)}, .time = time};
    case 0:
      return PointerInput{.phase = static_cast<PointerPhase>(r.below(5)),
                          .at = {r.uniform(-1e4f, 1e4f), r.uniform(-1e4f, 1e4f)},
                          .time = time,
                          .pointer = static_cast<std::uint32_t>(r.below(5)),
                          .kind = static_cast<PointerKind>(r.below(3)),
                          .button = static_cast<PointerButton>(r.below(5)),
                          .shift = r.chance(0.3f),
                          .control = r.chance(0.3f)};
    case 1:
      return KeyInput{.key = static_cast<Key>(r.below(13)), .time = time, .repeat = r.chance(0.5f)};
    case 2:
      return ResizeInput{.window = {r.uniform(0, 5000), r.uniform(0, 5000)},
                         .pixel_ratio = r.uniform(0.5f, 4),
                         .time = time,
                         .insets = {r.uniform(0, 50), 0, r.uniform(0, 50), 0}};
    case 3:
      return BlurInput{time};
    case 4:
      return ReasonInput{.what = static_cast<ReasonInput::What>(r.below(6)), .reason = text(), .time = time};
    case 5:
      return AnswerInput{
          .proposal = r.below(100), .verdict = verdict(), .is_final = r.chance(0.5f), .time = time};
    case 6: {
      SyncInput sync{.wanted = {{.key = 7, .cards = {}}, {.key = 9, .cards = {}}}, .time = time};
      for (std::uint64_t key = 1; key < 4; ++key) {
        WantedCard wanted{.key = key};
        if (r.chance(0.5f)) wanted.face = FaceId{static_cast<std::uint32_t>(r.between(0, 52))};
        if (r.chance(0.5f)) wanted.face_up = r.chance(0.5f);
        if (r.chance(0.5f)) wanted.sideways = r.chance(0.5f);
        if (r.chance(0.5f)) wanted.numbers = Numbers{{"hits", r.between(-9, 9)}};
        sync.wanted[r.below(2)].cards.push_back(wanted);
      }
      if (r.chance(0.5f)) sync.wanted[0].numbers = Numbers{{"air", 2}, {"water", 3}};
      return sync;
    }
    case 7:
      return UndoInput{.redo = r.chance(0.5f), .time = time};
    default:
      return RoundInput{.seed = r.below(1u << 30) * 4'000'000'007u, .deals = r.chance(0.5f), .time = time};
  }
}

}  // namespace

TEST_CASE("files: an input log reads back as the same bits, and every line of it is valid by the schema") {
  const Schema schema("input");
  TableSetup table(glasshouse());
  for (const char* name : {"stock", "waste", "hand"}) (void)table.add({.name = name});
  table.plans = {{.root = across({zone({1}), zone({2}), zone({3})})}};
  std::set<std::size_t> seen;
  for_all("input logs", 3, [&](Random& r) {
    InputLog log{
        .options = {.window = {r.uniform(1, 3000), r.uniform(1, 3000)}, .pixel_ratio = r.uniform(0.5f, 4)},
        .table = fingerprint(table)};
    if (r.chance(0.5f)) log.options.feel = calm();
    if (r.chance(0.5f)) log.options.insets = {1, 2, 3, 4};
    if (r.chance(0.5f)) log.options.drag.grip = Grip::centre;
    if (r.chance(0.5f)) log.options.hover.zoom = 3;
    if (r.chance(0.5f)) log.options.most_undos = 7;
    double time = double{r.uniform(0, 1)};
    for (int i = 0; i < 60; ++i) {
      time += double{r.uniform(0, 1)} / 3;
      const AnyInput input = random_input(r, time);
      log.inputs.push_back(input_of(input));
      // What follows a round on another table is of that table.
      if (std::holds_alternative<StartOverInput>(input)) i = 60;
      seen.insert(input.index());
    }
    const std::string text = write_log(log, table);
    for (const std::string& line : lines_of(text)) {
      if (!schema.accepts(nlohmann::json::parse(line))) RC_FAIL(line);
    }
    const auto read = parse_log(text, "x.log", table);
    if (!read) RC_FAIL(describe(read.error().front()));
    RC_ASSERT(read.has_value());
    RC_ASSERT(read->inputs.size() == log.inputs.size());
    for (std::size_t i = 0; i < log.inputs.size(); ++i) {
      // A table, and a rule in code, is the one that is written the same.
      const bool by_text = as<StartOverInput>(log.inputs[i]) || as<BehaviourInput>(log.inputs[i]);
      if (!by_text && read->inputs[i] != log.inputs[i])
        RC_FAIL(std::to_string(i) + ": " + lines_of(text)[i + 1]);
    }
    RC_ASSERT(write_log(*read, table) == text);
    RC_ASSERT(read->options == log.options && read->table == log.table);
  });
  CHECK(seen.size() == input_kinds);
}

TEST_CASE("files: what is wrong in a log is said with its line") {
  TableSetup table(glasshouse());
  (void)table.add({.name = "hand"});
  table.plans = {{.root = across({zone({1})})}};
  CHECK_THROWS_WITH(
      write_log({.inputs = {input_of(PlansInput{.plans = {{.root = apsidon::zone({7})}}})}}, table),
      Catch::Contains("zone 7 is not on the table"));
  BehaviourInput behaviour{.zone = {1}};
  behaviour.behaviour.handling.flick_to.left = {7};
  CHECK_THROWS_WITH(write_log({.inputs = {input_of(behaviour)}}, table), Catch::Contains("zone 7"));
  const std::string head = R"({"apsidon": "input-log", "version": 1})";
  const auto finger = [&](const std::string& id) {
    return parse_log(head + "\n" + R"({"time": 1, "pointer": "down", "at": [1, 2], "id": )" + id + "}\n",
                     "x.log", table);
  };
  REQUIRE(finger("4294967295"));
  CHECK(std::get<PointerInput>(finger("4294967295")->inputs[0]).pointer == 4'294'967'295u);
  CHECK_FALSE(finger("4294967296"));
  const auto says = [&](const std::string& text, const std::string& part) {
    const auto log = parse_log(text, "x.log", table);
    REQUIRE_FALSE(log.has_value());
    CAPTURE(describe(log.error()[0]));
    CHECK(describe(log.error()[0]).find(part) != std::string::npos);
  };
  says("", "the log is empty");
  says("{\"apsidon\": \"table\"}", "\"input-log\" is expected");
  says(head + "\n{\"time\": 1, \"pointer\": \"hover\", \"at\": [1, 2]}", "x.log:2:");
  says(head + "\n{\"time\": 1, \"pointer\": \"hover\", \"at\": [1, 2]}", "'hover'");
  says(head + "\n\n{\"time\": 1, \"key\": \"enter\"}", "x.log:3:");
  says(head + "\n{\"time\": 2, \"key\": \"act\"}\n{\"time\": 1, \"key\": \"act\"}", "in order of time");
  says(head + "\n{\"time\": 1}", "no input: one of 'pointer', 'key'");
  says(head + "\n{\"time\": 1, \"key\": \"act\", \"at\": 3}", "'at'");
  says(head + "\n{\"time\": 1e999, \"key\": \"act\"}", "x.log:2:");
  says(head + "\nnot json", "x.log:2:");
  says(head + "\n{\"time\": 1, \"answer\": 3, \"verdict\": {\"reason\": \"because\"}}", "'because'");
  says(head + "\n{\"time\": 1, \"scroll\": \"hadn\"}", "'hand'");
  says(head + "\n{\"time\": 1, \"start_over\": \"{}\"}", "the table in the log");
  says(R"({"apsidon": "input-log", "version": 1, "table": "0123456789abcdef"})", "another table");
  CHECK_FALSE(load_log("nowhere.log", table).has_value());
}
