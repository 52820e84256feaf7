// The file of a table that is being played and changed: what the bench saves into it can be read, whatever
// the file has become meanwhile, and a game goes on with another file's table.
#include "apsidon/apsidon.hpp"
#include "apsidon/files/table_file.hpp"
#include "bench/saved_knobs.hpp"
#include "bytes.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

namespace {

bool is_small(const TableSetup& table) {
  return table.table.card_count() <= 200 && table.table.zones().size() <= 50;
}

/// Each zone lies as the one before it, and the plans have other gaps: what a bench may change, all at once.
TableSetup changed(TableSetup setup) {
  const TableSetup before = setup;
  ZoneId last = {};
  for (const Zone& zone : before.table.zones()) {
    ZoneBehaviour behaviour = before.behaviour_of(zone.id);
    if (last) behaviour.layout = before.behaviour_of(last).layout;
    setup.set_behaviour(zone.id, behaviour);
    last = zone.id;
  }
  for (Plan& plan : setup.plans) {
    plan.margin += 3;
    plan.root.gap.cards += 0.25f;
  }
  return setup;
}

void save(const std::string& file, const TableSetup& now) {
  const auto before = parse_table(file, "file.json");
  const tool::SavedKnobs saved = tool::with_knobs(file, *before, now);
  const auto read = parse_table(saved.text, "saved.json");
  expect(read.has_value(), "what is saved is read: " + (read ? "" : describe(read.error()[0])));
  const tool::SavedKnobs again = tool::with_knobs(saved.text, *read, now);
  if (saved.left_out.empty() && again.left_out.empty())
    expect(again.text == saved.text, "what is saved twice is saved once");
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto [file, other_file] = two_files(text_of(data, size));
  const auto table = parse_table(file, "table.json");
  if (!table) return expect_sentence(table.error()), 0;
  if (!is_small(*table)) return 0;
  save(file, *table);
  save(file, changed(*table));
  const auto other = parse_table(other_file, "other.json");
  if (!other || !is_small(*other)) return 0;
  save(file, *other);  // the file was replaced while it was played
  Playfield field(*table, {.window = {700, 500}});
  (void)field.performances().deal();
  (void)field.pointer({.phase = PointerPhase::down, .at = {350, 250}, .time = 0.5});
  (void)field.pointer({.phase = PointerPhase::move, .at = {100, 100}, .time = 0.6});
  while (field.next_event(0.7)) {
  }
  (void)field.edits().set_plans(other->plans);
  for (const Zone& zone : table->table.zones()) {
    if (zone.id.value <= other->table.zones().size())
      (void)field.edits().set_behaviour(zone.id, other->behaviour_of(zone.id));
  }
  while (field.next_event(0.8)) {
  }
  expect(field.start_over(*other).allowed(), "a game begins anew with any table that was read");
  (void)field.pointer({.phase = PointerPhase::up, .at = {100, 100}, .time = 0.9});
  while (field.next_event(20)) {
  }
  expect(field.table().card_count() == other->table.card_count(), "the cards are those of the other table");
  for (const FrameItem& item : field.frame().items)
    expect(std::isfinite(item.matrix.tx), "a frame is finite");
  return 0;
}
