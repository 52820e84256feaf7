// Packets sorted to the left and to the right by a flick before dusk; while the window is in the background,
// dusk waits.
#include <cstdio>

#include "apsidon/draw/paint.hpp"
#include "mouse.hpp"

using namespace apsidon;

namespace {

TableSetup packets() {
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}, {"marigold", "orange"}},
            .ranks = {"1", "2", "3"}}));
  setup.name = "Packets before dusk";
  const Rule green = rule::any({rule::of_suit(0), rule::of_suit(1)});
  const ZoneId left =
      setup.add({.name = "green", .layout = {.kind = PileLayout{}, .longest = 12}, .rules = {.drop = green}});
  const ZoneId right = setup.add({.name = "orange",
                                  .layout = {.kind = PileLayout{}, .longest = 12},
                                  .rules = {.drop = rule::negate(green)}});
  const ZoneId heap = setup.add({.name = "heap",
                                 .layout = {.kind = PileLayout{.untidy_angle = 6_deg}, .longest = 12},
                                 .rules = {.pick = {.kind = PickKind::top}},
                                 .handling = {.flick_to = {.left = left, .right = right}}});
  setup.add_deck(heap, {.face_up = true});
  (void)setup.table.shuffle(heap, 5);
  const PanelId dusk = setup.add_panel({.name = "dusk", .kind = PanelKind::bar, .text = "Daylight"});
  setup.plans = {
      {.root = down({panel(dusk, {.px = 300}, {.px = 24}), across({zone(left), zone(heap), zone(right)}, 1)}),
       .largest_width = 120}};
  return setup;
}

}  // namespace

int main(int argc, char** argv) {
  // A release far enough to one side counts as a flick, however slow it is.
  Playfield field(packets(), {.window = {900, 520}, .drag = {.swipe = 1.2f}});
  const ZoneId heap = *field.table().find_zone("heap");
  const PanelId bar = *field.where().find_panel("dusk");
  const CountdownId dusk = field.time().add_countdown(9, true);  // begins with the first packet
  (void)field.edits().bind_fill(bar, dusk);
  int sorted = 0;
  int wrong = 0;
  const auto hear = [&](const Event& event) {
    if (event.kind == EventKind::dropped) ++sorted;
    if (event.kind == EventKind::refused) {
      ++wrong;
      std::printf("%s (%s)\n", describe(event, field).c_str(), event.flicked ? "flicked" : "let go");
    }
    if (event.kind == EventKind::time_up) {
      std::puts("Dusk has come.");
      field.gate().close("dusk");
    }
  };
  example::Mouse mouse(field, hear);

  for (int turn = 0; !field.table().zone(heap)->cards.empty() && field.gate().is_open() && turn < 30;
       ++turn) {
    const CardId packet = *field.table().top(heap);
    const bool green = field.table().deck().colour_of(field.table().card(packet)->face) == 0;
    const bool hasty = turn == 2;  // once the player is too quick, and wrong
    const Vec2 from = field.where().resting_pose(packet)->centre;
    const float way = (green != hasty ? -1.0f : 1.0f) * 150;
    mouse.drag(from, from + Vec2{way, 0}, turn % 2 == 0 ? 0.1 : 0.5);  // now fast, now slow
    if (turn == 4) {
      field.blur(field.now());
      field.time().hold_countdown(dusk, "background");
      const double left = field.time().seconds_left(dusk);
      mouse.wait(20);
      std::printf("In the background for 20 s: %.2f s were left, and are.\n", left);
      field.time().release_countdown(dusk, "background");
      if (argc > 1) paint(field.frame(), field.table().deck()).write_png(argv[1]);
    }
    mouse.wait(0.15);
  }
  std::printf("%d packets are sorted, %d went the wrong way first, %.1f s of daylight are left.\n", sorted,
              wrong, field.time().seconds_left(dusk));
}
