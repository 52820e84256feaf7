// A table from a file, two questions, a drag, what happened, and a picture of it.
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/files/table_file.hpp"

int main(int argc, char** argv) {
  auto file = apsidon::load_table(argc > 1 ? argv[1] : "data/potting-bench.table.json");
  if (!file) return std::puts(describe(file.error().front()).c_str()), 3;
  apsidon::Playfield field{*std::move(file), {.window = {1280, 800}}};

  const apsidon::Hit hit = field.where().hit({80, 250});  // what lies here?
  const auto bed = field.table().find_zone("bed-2");
  const auto [verdict, run] = field.rules().judge_pick(hit.card);  // may it be picked up?
  std::puts(describe(verdict, field.table()).c_str());
  std::puts(describe(field.rules().judge_drop(run, *bed), field.table()).c_str());  // and dropped there?

  const apsidon::Vec2 to = field.where().area(*bed)->centre();
  field.pointer({.phase = apsidon::PointerPhase::down, .at = {80, 250}, .time = 0.1});
  field.pointer({.phase = apsidon::PointerPhase::move, .at = to, .time = 0.4});
  field.pointer({.phase = apsidon::PointerPhase::up, .at = to, .time = 0.5});
  while (const auto event = field.next_event(2)) {  // what happens until then, each at its own time
    std::puts(std::string(name_of(event->kind)).c_str());
  }

  paint(field.frame(), field.table().deck()).write_png(argc > 2 ? argv[2] : "potting-bench.png");
}
