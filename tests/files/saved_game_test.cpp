// A game that is saved and loaded goes on, bit for bit, as the one that was not.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "apsidon/files/saved_game.hpp"
#include "apsidon/files/write_file.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"
#include "support/schema.hpp"
#include "support/session.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Where two playfields differ; empty when they do not.
std::string difference(const Playfield& a, const Playfield& b) {
  if (a.now() != b.now()) return "the time";
  for (const Zone& zone : a.table().zones()) {
    if (!(a.table().contents_of(zone.id) == b.table().contents_of(zone.id))) return "the table";
    for (const CardId card : zone.cards) {
      if (*a.where().live_pose(card) != *b.where().live_pose(card)) return "a pose";
    }
  }
  if (a.moves().can_undo() != b.moves().can_undo() || a.moves().can_redo() != b.moves().can_redo())
    return "undo";
  if (a.moves().waiting().size() != b.moves().waiting().size()) return "what waits";
  if (a.hand().held() != b.hand().held()) return "the hand";
  return a.frame().items == b.frame().items ? "" : "the frame";
}

}  // namespace

TEST_CASE("files: a game saved in the midst of anything is loaded to the same poses, and goes on the same") {
  for_all("saved games", 25, [](Random& r) {
    const TableSetup setup = with_rules_in_code(r);
    Session session(setup, {.window = {900, 650}, .start_time = 5});
    const int steps = r.between(0, 60);
    for (int i = 0; i < steps; ++i) session.step(r);
    session.go(0.15);  // what was handed in ahead of its time has come
    const SavedGame game{.setup = session.setup(), .log = session.log()};
    const std::string text = write_game(game, session.field());
    auto loaded = parse_game(text, "save", &setup);
    RC_ASSERT(loaded.has_value());
    RC_ASSERT(difference(loaded->field, session.field()) == "");
    RC_ASSERT(write_game(loaded->game, loaded->field) == text);
    // Both go on: what is loaded has heard of all that was told before, and hears the same from here on.
    Playfield kept = session.field();
    kept.moves().set_judge({});
    (void)events_until(kept, kept.now());
    for (int i = 0; i < 20; ++i) {
      const double until = kept.now() + double{r.uniform(0, 0.2f)};
      const Vec2 at{r.uniform(0, 900), r.uniform(0, 650)};
      const PointerPhase phase = static_cast<PointerPhase>(r.below(5));
      for (Playfield* field : {&kept, &loaded->field})
        (void)field->pointer({.phase = phase, .at = at, .time = until});
      RC_ASSERT(events_until(kept, until) == events_until(loaded->field, until));
    }
    RC_ASSERT(difference(loaded->field, kept) == "");
  });
}

TEST_CASE("files: a saved game keeps its clocks, its undo and its flights, and is recorded on") {
  const TableSetup setup = desk({});
  const PlayfieldOptions options{.window = {1000, 700}};
  SavedGame game{.setup = setup, .log = {.options = options}};
  Hand h(setup, options);
  h.field.set_recorder(game.recorder());
  const CountdownId dusk = h.field.time().add_countdown(5);
  h.field.time().start_countdown(dusk);
  const CardId card = h.cards("hand")[9];
  h.drag(h.grip(card), h.middle("shelf"));
  h.wait(0.05);  // it flies
  const std::filesystem::path file = std::filesystem::temp_directory_path() / "apsidon-evening.save";
  write_file(file, write_game(game, h.field));
  auto loaded = load_game(file);
  REQUIRE(loaded);
  CHECK(*loaded->field.where().live_pose(card) == *h.field.where().live_pose(card));
  CHECK_FALSE(loaded->field.time().at_rest());
  CHECK(loaded->field.time().seconds_left(dusk) == h.field.time().seconds_left(dusk));
  SavedGame& goes_on = loaded->game;
  loaded->field.set_recorder(goes_on.recorder());
  CHECK(loaded->field.moves().undo());
  CHECK(goes_on.log.inputs.size() == game.log.inputs.size() + 1);
  CHECK(loaded->field.table().card(card)->zone == *setup.table.find_zone("hand"));
  // The head is as the schema has it.
  const std::string text = write_game(goes_on, loaded->field);
  CHECK(Schema("game").accepts(nlohmann::json::parse(text.substr(0, text.find('\n')))));
}

TEST_CASE("files: a broken game gives a problem that says what and where") {
  SavedGame game{.setup = desk({})};
  Playfield field(game.setup);
  field.set_recorder(game.recorder());
  field.blur(2);
  while (field.next_event(3)) {
  }
  const std::string text = write_game(game, field);
  const auto why = [&](const std::string& broken, const TableSetup* own = nullptr) {
    const auto loaded = parse_game(broken, "evening.save", own);
    return loaded ? std::string("loaded") : describe(loaded.error().front());
  };
  CHECK(why(text) == "loaded");
  CHECK(why("").find("the file is empty") != std::string::npos);
  CHECK(why("{}\n").find("\"apsidon\"") != std::string::npos);
  CHECK(why(text.substr(0, text.find('\n'))).find("the log is empty") != std::string::npos);
  std::string early = text;
  early.replace(early.find("\"time\":3.0"), 10, "\"time\":1.0");
  CHECK(why(early).find("the game stands at 1, its last input is of 2") != std::string::npos);
  const std::string cut = text + "{\"time\": 4, \"bluur\": true}\n";
  CHECK(why(cut).find("evening.save:4:") != std::string::npos);
  std::string more = text;
  more.insert(1, "\"tiem\": 4, ");
  CHECK(why(more).find("unknown key 'tiem': did you mean 'time'?") != std::string::npos);
  TableSetup other = desk({});
  other.name = "another";
  CHECK(why(text, &other).find("of another table") != std::string::npos);
  std::string no_table = text;
  no_table.replace(no_table.find("\\\"apsidon\\\""), 11, "\\\"apsidom\\\"");
  CHECK(why(no_table).find("the table in the game") != std::string::npos);
  const auto missing = load_game("/nowhere/evening.save");
  REQUIRE_FALSE(missing);
  CHECK(missing.error().front().code == ProblemCode::cannot_read);
  std::string lost = text;
  const std::size_t blurred = lost.rfind("\"blur\":true");
  lost.replace(blurred, 11, "\"restore\":7,\"taken_at\":1");
  CHECK(why(lost).find("never had") != std::string::npos);
}

TEST_CASE("files: a saved game without one of its lines, or with another, is refused with the line") {
  const TableSetup setup = desk({});
  SavedGame game{.setup = setup};
  Playfield field(setup);
  field.set_recorder(game.recorder());
  const auto& hand = field.table().zone(*setup.table.find_zone("hand"))->cards;
  const std::vector<CardId> cards(hand.begin(), hand.end());
  for (std::size_t i = 0; i < 5; ++i) CHECK(field.edits().flip(cards[i], false));
  const std::string text = write_game(game, field);
  REQUIRE(parse_game(text, "evening.save"));
  std::vector<std::string> lines;
  for (std::size_t at = 0; at < text.size(); at = text.find('\n', at) + 1)
    lines.push_back(text.substr(at, text.find('\n', at) + 1 - at));
  const auto without = [&](std::size_t gone, const std::string& instead = "") {
    std::string left;
    for (std::size_t i = 0; i < lines.size(); ++i) left += i == gone ? instead : lines[i];
    const auto loaded = parse_game(left, "evening.save");
    return loaded ? std::string("loaded") : describe(loaded.error().front());
  };
  for (std::size_t i = 2; i < lines.size(); ++i) {
    CAPTURE(lines[i]);
    CHECK(without(i).starts_with(fmt::format("evening.save:{}:1: the log ends here with {} inputs",
                                             lines.size() - 1, game.log.inputs.size() - 1)));
    // Twice another line is as many, and leads elsewhere.
    const std::string other = i == 2 ? lines[3] : lines[2];
    if (lines[i] != other) {
      CHECK_THAT(without(i, other),
                 Catch::StartsWith(fmt::format("evening.save:{}:1: here the game is at", lines.size())) ||
                     Catch::Contains("expected in order of time"));
    }
  }
}

TEST_CASE("files: a game whose recorder came late is refused when it is written") {
  const TableSetup setup = desk({});
  SavedGame game{.setup = setup};
  Playfield field(setup);
  const CardId card = field.table().zone(*setup.table.find_zone("hand"))->cards[0];
  CHECK(field.edits().remove(card));
  field.set_recorder(game.recorder());
  CHECK(field.edits().flip(field.table().zone(*setup.table.find_zone("hand"))->cards[0], false));
  try {
    (void)write_game(game, field);
    FAIL("it was written");
  } catch (const Error& e) {
    CHECK_THAT(e.what(), Catch::Contains("has 1 inputs of the 2") && Catch::Contains("before the first"));
  }
}
