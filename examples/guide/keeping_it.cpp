// Chapter 9: undo, saves, replays, and testing a game without a window: this program is such a test.
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/files/saved_game.hpp"

using namespace apsidon;

namespace {

TableSetup two_pots() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3"}}));
  for (const char* name : {"shade", "light"}) {
    setup.add({.name = name,
               .layout = {.kind = SpreadLayout{}, .longest = 6},
               .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything()}});
  }
  setup.add_deck({1}, {.face_up = true});
  setup.plans = {{.root = down({zone({1}), zone({2})})}};
  return setup;
}

int failed = 0;
void expect(bool holds, const char* what) {
  std::printf("%s: %s\n", what, holds ? "yes" : "NO");
  failed += holds ? 0 : 1;
}

}  // namespace

int main(int argc, char** argv) {
  SavedGame game{.setup = two_pots(), .log = {.options = {.window = {480, 400}}}};
  Playfield field(game.setup, game.log.options);
  field.set_recorder(game.recorder());  // every input and call, from the beginning

  for (int i = 0; i < 4; ++i) (void)field.moves().make(field.rules().legal_moves().front());
  (void)field.moves().undo();
  while (field.next_event(0.1)) {
  }
  expect(field.moves().can_redo(), "what was undone can be done again");
  const std::string saved = write_game(game, field);  // in the middle of a flight

  auto loaded = parse_game(saved, "evening.save");
  expect(loaded.has_value(), "the game can be read");
  expect(fingerprint(loaded->field) == fingerprint(field), "it is the same to the bit");
  (void)field.moves().redo();
  (void)loaded->field.moves().redo();
  expect(fingerprint(loaded->field) == fingerprint(field), "and goes on in the same way");
  const Playfield snapshot = field;  // a copy is a snapshot
  (void)field.moves().make(field.rules().legal_moves().front());
  field.restore(snapshot);
  expect(field.table().zone({2})->cards.size() == snapshot.table().zone({2})->cards.size(),
         "back to a snapshot");
  while (field.next_event(2)) {
  }
  if (argc > 1) paint(field.frame(), field.table().deck()).write_png(argv[1]);
  return failed;
}
