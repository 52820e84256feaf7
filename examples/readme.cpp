// The first program of the README, to the letter.
#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"
using namespace apsidon;

int main() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4"}}));
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 8},
                                 .rules = {.pick = {.kind = PickKind::any}}});
  const ZoneId bed =
      setup.add({.name = "bed", .layout = {.kind = PileLayout{}}, .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = down({zone(bed), zone(hand, 1)})}};
  setup.add_deck(hand, {.face_up = true});

  Playfield field(setup, {.window = {640, 400}});
  (void)field.moves().make(field.rules().legal_moves().front());  // or a drag: field.pointer(…)
  while (field.next_event(1.0)) {                                 // whatever happens until it has landed
  }
  paint(field.frame(), field.table().deck()).write_png("hand.png");
}
