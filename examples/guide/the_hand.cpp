// Chapter 5: pointing, dragging, keys, touch. One card is dragged by a mouse, one sent by keys, one flicked
// away.
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/studio/sheets.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3", "4", "5"}}));
  const ZoneId heap = setup.add(
      {.name = "heap", .layout = {.kind = PileLayout{}, .longest = 5}, .rules = {.drop = rule::anything()}});
  const ZoneId bed = setup.add(
      {.name = "bed", .layout = {.kind = SpreadLayout{}, .longest = 5}, .rules = {.drop = rule::anything()}});
  const ZoneId hand =
      setup.add({.name = "hand",
                 .layout = {.kind = HandLayout{}, .longest = 5},
                 .rules = {.pick = {.kind = PickKind::any}, .sends_to = {bed}},
                 .handling = {.hover = HoverKind::raise, .flick_to = FlickTargets::anywhere(heap)}});
  setup.add_deck(hand, {.face_up = true});
  setup.plans = {{.root = down({across({zone(bed, 1), zone(heap)}), zone(hand, 1)})}};
  Playfield field(setup, {.window = {560, 420}});

  std::vector<Shot> strip;
  const auto run_to = [&](double time) {
    while (const auto event = field.next_event(time)) {
      if (const std::string line = describe(*event, field); !line.empty())
        std::printf("%.2f s  %s\n", event->time, line.c_str());
    }
  };
  const auto at = [&](std::uint32_t card) { return field.where().resting_pose({card})->centre; };
  const auto drag = [&](PointerKind kind, Vec2 from, Vec2 to, double begins, double ends, double shown) {
    field.pointer({.phase = PointerPhase::down, .at = from, .time = begins, .kind = kind});
    for (int i = 1; i <= 8; ++i) {
      const float share = static_cast<float>(i) / 8;
      field.pointer({.phase = PointerPhase::move,
                     .at = from + (to - from) * share,
                     .time = begins + (ends - begins) * double{share},
                     .kind = kind});
    }
    field.pointer({.phase = PointerPhase::up, .at = to, .time = ends + 0.01, .kind = kind});
    run_to(shown);
    strip.push_back({.frame = field.frame(), .caption = kind == PointerKind::touch ? "flicked" : "dragged"});
    run_to(ends + 1);
  };
  drag(PointerKind::mouse, at(5), field.where().area(bed)->centre(), 1, 1.6, 1.5);
  field.key({.key = Key::left, .time = 3});  // the focus comes to a card
  field.key({.key = Key::send, .time = 3.2});
  run_to(3.3);
  strip.push_back({.frame = field.frame(), .caption = "sent by a key"});
  run_to(4.5);
  drag(PointerKind::touch, at(1), at(1) + Vec2{10, 95}, 5, 5.08, 5.14);
  if (argc > 1)
    contact_sheet(strip, setup.table.deck(), "A mouse, keys, a finger", {1100, 340}).write_png(argv[1]);
}
