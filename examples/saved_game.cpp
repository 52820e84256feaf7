// A game that is saved in the middle of a drag's flight and goes on elsewhere, to the same frame; and the
// same file read as a bug report, which tells again what happened.
#include <cstdio>
#include <string>

#include "apsidon/apsidon.hpp"
#include "apsidon/files/saved_game.hpp"
#include "apsidon/files/table_file.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  auto setup = load_table(argc > 1 ? argv[1] : "data/potting-bench.table.json");
  if (!setup) return std::puts(describe(setup.error().front()).c_str()), 3;

  const PlayfieldOptions options{.window = {1280, 800}};
  SavedGame game{.setup = *setup, .log = {.options = options}};
  Playfield field(*setup, options);
  field.set_recorder(game.recorder());
  const Vec2 to = field.where().area(*field.table().find_zone("bed-2"))->centre();
  (void)field.pointer({.phase = PointerPhase::down, .at = {80, 250}, .time = 0.1});
  (void)field.pointer({.phase = PointerPhase::move, .at = to, .time = 0.4});
  (void)field.pointer({.phase = PointerPhase::up, .at = to, .time = 0.5});
  while (field.next_event(0.55)) {
  }
  const std::string saved = write_game(game, field);
  std::printf("saved at %.2f s, while %s\n", field.now(),
              field.time().at_rest() ? "all rests" : "a card flies");

  auto loaded = parse_game(saved, "evening.save");
  if (!loaded) return std::puts(describe(loaded.error().front()).c_str()), 3;
  for (Playfield* each : {&field, &loaded->field}) {
    while (each->next_event(5)) {
    }
  }
  std::printf("played on, both show %s\n",
              field.frame().items == loaded->field.frame().items ? "the same frame" : "different frames");

  Playfield again(loaded->game.setup,
                  loaded->game.log.options);  // as somebody else who looks for the mistake
  const auto tell = [&](const Event& event) { std::puts(event_line(event, again.table()).c_str()); };
  (void)replay(again, loaded->game.log.inputs, 5, tell);
  while (const auto event = again.next_event(5)) tell(*event);  // and what came of the last input
}
