// A feel from a file can be written, read again as the same, and moved with.
#include "apsidon/apsidon.hpp"
#include "apsidon/files/feel_file.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

namespace {

TableSetup small() {
  TableSetup setup(standard_deck());
  const ZoneId stock = setup.add({.name = "stock", .layout = {.kind = PileLayout{}, .longest = 8}});
  for (std::uint32_t i = 1; i <= 8; ++i) setup.table.create_card(stock, {.face = {i}});
  const ZoneId hand = setup.add(
      {.name = "hand", .layout = {.kind = HandLayout{}, .longest = 8}, .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = down({zone(stock), zone(hand)})}};
  setup.deal_from = stock;
  return setup;
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto feel = parse_feel(text_of(data, size), "feel.json");
  if (!feel) return expect_sentence(feel.error()), 0;
  const auto again = parse_feel(write_feel(*feel), "again.json");
  expect(again.has_value(), "a feel that was written is read");
  expect(*again == *feel, "a feel reads back as the same");
  static const TableSetup setup = small();
  Playfield field(setup, {.feel = *feel});
  const ZoneId stock{1};
  (void)field.performances().perform(together({draw(stock, {2}, 3), shuffle(stock, 1), shake({{4}})}));
  for (int i = 0; i < 40; ++i) {
    while (field.next_event(field.now() + 0.05)) {
    }
    for (const Pose& pose : {*field.where().live_pose({1}), *field.where().live_pose({8})})
      expect(is_finite(pose), "a pose is finite");
    if (i == 10) (void)field.edits().move({{8}, 1}, stock);
  }
  return 0;
}
