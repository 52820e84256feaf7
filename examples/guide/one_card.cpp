// Chapter 1: one card, without a table. It is pressed, and flips; a strip of pictures shows how.
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/studio/sheets.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  const Deck deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4", "5"}});
  LoneCard card(
      deck,
      {.face = *deck.find("poppy-5"), .face_up = false, .box = rect_at({20, 20}, {120, 168}), .flips = true});

  // The pointer presses it: what a window's mouse events become.
  card.pointer({.phase = PointerPhase::down, .at = card.box().centre(), .time = 1});
  card.pointer({.phase = PointerPhase::up, .at = card.box().centre(), .time = 1.05});

  std::vector<Shot> strip;
  for (const double time : {1.06, 1.12, 1.18, 1.24, 1.5}) {
    LoneCard then = card;  // a value: its copies go on by themselves
    then.advance_to(time);
    strip.push_back(
        {.frame = frame_of({&then, 1}, {160, 208}), .caption = std::to_string(time).substr(0, 4) + " s"});
  }
  while (const auto event = card.next_event(2))
    std::printf("%.2f s  %s\n", event->time, name_of(event->kind).data());
  std::printf("%s\n", describe(card).c_str());
  if (argc > 1) contact_sheet(strip, deck, "A card that flips", {900, 300}).write_png(argv[1]);
}
