// A fan of cards as a picture, without a window: one zone, one plan, one frame.
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"

using namespace apsidon;

/// PICTURE: where the PNG goes.
int main(int argc, char** argv) {
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}, {"marigold", "orange"}},
            .ranks = {"1", "2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12", "13"}}));
  ZoneSetup hand{.name = "hand",
                 .layout = {.kind = HandLayout{.spacing = 0.6f, .step = Angle::degrees(6)}, .longest = 7}};
  for (const char* face : {"fern-4", "fern-11", "reed-2", "reed-13", "poppy-7", "poppy-12", "marigold-9"})
    hand.cards.push_back({.face = *setup.table.deck().find(face)});
  setup.plans = {{.root = zone(setup.add(hand), 1)}};

  const Playfield field(setup, {.window = {480, 260}, .pixel_ratio = 2});
  const Picture picture = paint(field.frame(), setup.table.deck(), nullptr, Ground::transparent);
  picture.write_png(argc > 1 ? argv[1] : "fan.png");
  std::printf("%d x %d pixels, cards %.0f px wide\n", picture.width(), picture.height(),
              double{field.where().card_size().width});
}
