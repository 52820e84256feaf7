#include <catch2/catch.hpp>

#include "apsidon/files/input_log.hpp"
#include "support/process.hpp"
#include "support/schema.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

Input random_input(Random& r, double time) {
  const auto text = [&] { return std::string(r.chance(0.5f) ? "a \"dialogue\"" : "background"); };
  switch (r.below(9)) {
    case 0:
      return PointerInput{.phase = static_cast<PointerPhase>(r.below(5)),
                          .at = {r.uniform(-1e4f, 1e4f), r.uniform(-1e4f, 1e4f)},
                          .time = time,
                          .pointer = static_cast<std::uint32_t>(r.below(5)),
                          .kind = static_cast<PointerKind>(r.below(3)),
                          .button = static_cast<PointerButton>(r.below(5))};
    case 1:
      return KeyInput{.key = static_cast<Key>(r.below(11)), .time = time, .repeat = r.chance(0.5f)};
    case 2:
      return ResizeInput{.window = {r.uniform(0, 5000), r.uniform(0, 5000)},
                         .pixel_ratio = r.uniform(0.5f, 4),
                         .time = time,
                         .insets = {r.uniform(0, 50), 0, r.uniform(0, 50), 0}};
    case 3:
      return BlurInput{time};
    case 4:
      return ReasonInput{static_cast<ReasonInput::What>(r.below(4)), text(), time};
    case 5:
      return AnswerInput{.proposal = r.below(100),
                         .verdict = {.reason = static_cast<Reason>(r.below(reason_count))},
                         .time = time};
    case 6: {
      SyncInput sync{.wanted = {{.key = 7, .cards = {}}, {.key = 9, .cards = {}}}, .time = time};
      for (std::uint64_t key = 1; key < 4; ++key) {
        WantedCard card{.key = key};
        if (r.chance(0.5f)) card.face = FaceId{static_cast<std::uint32_t>(r.between(0, 52))};
        if (r.chance(0.5f)) card.face_up = r.chance(0.5f);
        if (r.chance(0.5f)) card.sideways = r.chance(0.5f);
        sync.wanted[r.below(2)].cards.push_back(card);
      }
      return sync;
    }
    case 7:
      return UndoInput{.redo = r.chance(0.5f), .time = time};
    default:
      return RoundInput{.seed = r.below(1u << 30) * 4'000'000'007u, .time = time};
  }
}

}  // namespace

TEST_CASE("files: an input log reads back as the same bits, and every line of it is valid by the schema") {
  const Schema schema("input");
  const Deck deck = glasshouse();
  for_all("input logs", 20, [&](Random& r) {
    InputLog log{.window = {r.uniform(1, 3000), r.uniform(1, 3000)}, .pixel_ratio = r.uniform(0.5f, 4)};
    double time = double{r.uniform(0, 1)};
    for (int i = 0; i < 60; ++i) {
      time += double{r.uniform(0, 1)} / 3;
      log.inputs.push_back(random_input(r, time));
    }
    const std::string text = write_log(log, deck);
    for (const std::string& line : lines_of(text)) RC_ASSERT(schema.accepts(nlohmann::json::parse(line)));
    const auto read = parse_log(text, "x.log", deck);
    RC_ASSERT(read.has_value());
    RC_ASSERT(*read == log);
  });
}

TEST_CASE("files: what is wrong in a log is said with its line") {
  const Deck deck = glasshouse();
  const std::string head = R"({"apsidon": "input-log", "version": 1})";
  const auto says = [&](const std::string& text, const std::string& part) {
    const auto log = parse_log(text, "x.log", deck);
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
  says(head + "\n{\"time\": 1, \"answer\": 3, \"reason\": \"because\"}", "'because'");
  CHECK_FALSE(load_log("nowhere.log", deck).has_value());
}
