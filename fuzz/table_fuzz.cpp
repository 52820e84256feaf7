// A table from a file can be written, read again as the same, and played.
#include "apsidon/apsidon.hpp"
#include "apsidon/files/table_file.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto table = parse_table(text_of(data, size), "table.json");
  if (!table) return expect_sentence(table.error()), 0;
  const std::string written = write_table(*table);
  const auto again = parse_table(written, "again.json");
  expect(again.has_value(), "a table that was written is read");
  expect(write_table(*again) == written, "a table reads back as it was written");
  if (table->table.card_count() > 500 || table->table.zones().size() > 200) return 0;
  Playfield field(*table, {.window = {700, 500}});
  (void)field.performances().deal();
  (void)field.pointer({.phase = PointerPhase::down, .at = {350, 250}, .time = 0.5});
  (void)field.pointer({.phase = PointerPhase::move, .at = {100, 100}, .time = 0.6});
  (void)field.pointer({.phase = PointerPhase::up, .at = {100, 100}, .time = 0.7});
  while (field.next_event(2)) {
  }
  field.resize({1, 1}, 1, field.now());
  while (field.next_event(30)) {
  }
  for (const Zone& zone : field.table().zones()) {
    for (const CardId card : zone.cards) {
      expect(is_finite(*field.where().live_pose(card)), "a pose is finite");
      expect(*field.where().live_pose(card) == *field.where().resting_pose(card), "all comes to rest");
    }
  }
  (void)field.frame();
  return 0;
}
