// Chapter 7: motion and sound. A script deals, the feel says how it looks, events say when to make a noise.
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/studio/sheets.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4"}}));
  const ZoneId stock = setup.add({.name = "stock", .layout = {.kind = PileLayout{}, .longest = 8}});
  std::vector<ZoneId> hands;
  for (const char* name : {"south", "west", "north", "east"}) {
    const Facing facing = static_cast<Facing>(hands.size());  // bottom, left, top, right
    hands.push_back(
        setup.add({.name = name, .layout = {.kind = HandLayout{}, .longest = 2, .facing = facing}}));
  }
  setup.add_deck(stock, {.face_up = false});
  setup.plans = {
      {.root = seats({zone(hands[0]), zone(hands[1]), zone(hands[2]), zone(hands[3])}, zone(stock))}};

  Playfield field(setup, {.window = {480, 480}, .feel = springy()});
  std::vector<Script> cards;  // each leaves 0.15 s after the one before it
  for (int i = 0; i < 8; ++i)
    cards.push_back(sequence({wait(0.15 * i), draw(stock, hands[static_cast<std::size_t>(i) % 4], 1)}));
  const Script deal = sequence({shuffle(stock, 7), together(cards)});
  (void)field.performances().perform(deal, {.closes_gate = true});

  std::vector<Shot> strip;
  int told = 0;
  for (double now = 0; now < 6; now += 1.0 / 30) {
    while (const auto event = field.next_event(now)) {
      const bool lands = event->kind == EventKind::arrived && event->to != stock;
      if (lands && ++told <= 4)  // play a sound here: on a spring a card arrives first, and swings on
        std::printf("%.2f s  a soft tap for %s\n", event->time, field.table().zone(event->to)->name.c_str());
      if (event->kind == EventKind::ended) std::printf("dealt, with %d taps\n", told);
    }
    if (strip.size() < 5 && now > 2.45 + 0.2 * static_cast<double>(strip.size()))
      strip.push_back({.frame = field.frame(), .caption = std::to_string(now).substr(0, 4) + " s"});
  }
  if (argc > 1) contact_sheet(strip, setup.table.deck(), "A deal to four", {1300, 320}).write_png(argv[1]);
}
