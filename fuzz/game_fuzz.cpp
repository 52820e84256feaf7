// A saved game from a file is refused with a sentence, or stands where it says, and can be saved again as the
// same.
#include "apsidon/apsidon.hpp"
#include "apsidon/files/saved_game.hpp"
#include "fuzz.hpp"
#include "lines.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  auto loaded = parse_game(text_of(data, size), "save");
  if (!loaded) return expect_sentence(loaded.error()), 0;
  const Playfield& field = loaded->field;
  for (const Zone& zone : field.table().zones()) {
    for (const CardId card : zone.cards)
      expect(is_finite(*field.where().live_pose(card)), "a pose is finite");
  }
  const auto again = parse_game(write_game(loaded->game, field), "again");
  expect(again.has_value(), "a game that was written is read");
  expect(again->field.now() == field.now(), "it stands where it stood");
  expect(again->field.frame().items == field.frame().items, "it shows what it showed");
  return 0;
}
