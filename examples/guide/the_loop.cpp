// Chapter 4: the loop. Inputs in, events out, a frame to draw, and sleep; the game answers an event.
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/studio/sheets.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3"}}));
  const ZoneId stock = setup.add({.name = "stock", .layout = {.kind = PileLayout{}, .longest = 6}});
  const ZoneId waste = setup.add({.name = "waste", .layout = {.kind = SpreadLayout{}, .longest = 6}});
  setup.rules_of(stock).stock = StockRule{.to = waste};
  setup.handling_of(stock).tap = TapKind::draw;
  setup.add_deck(stock, {.face_up = false});
  const PanelId count = setup.add_panel({.name = "taps", .kind = PanelKind::counter, .text = "{taps} taps"});
  (void)setup.table.set_number("taps", 0);
  setup.plans = {
      {.root = down({panel(count, {.px = 120}, {.px = 36}), across({zone(stock), zone(waste, 1)})})}};
  Playfield field(setup, {.window = {480, 300}});

  // A window would give these: a press on the stock at 0.5 s, and it is let go.
  const Vec2 at = field.where().area(stock)->centre();
  std::vector<PointerInput> inputs{{.phase = PointerPhase::down, .at = at, .time = 0.5},
                                   {.phase = PointerPhase::up, .at = at, .time = 0.58}};
  std::vector<Shot> strip;
  std::uint64_t drawn = 0;
  for (double now = 0; now < 1.2; now += 1.0 / 60) {
    while (!inputs.empty() && inputs.front().time <= now) {
      field.pointer(inputs.front());
      inputs.erase(inputs.begin());
    }
    while (const auto event = field.next_event(now)) {
      std::printf("%.2f s  %s\n", event->time, name_of(event->kind).data());
      if (event->kind == EventKind::tapped)  // the game answers, at the event's own time
        (void)field.edits().set_number("taps", field.table().number("taps") + 1);
    }
    const Frame& frame = field.frame();
    if (frame.revision == drawn) continue;  // nothing to draw: sleep until field.next_due()
    drawn = frame.revision;
    if (strip.size() < 5 && (strip.empty() || now > strip.back().seconds + 0.06))
      strip.push_back({.frame = frame, .seconds = now, .caption = std::to_string(now).substr(0, 4) + " s"});
  }
  if (argc > 1)
    contact_sheet(strip, setup.table.deck(), "A tap on the stock", {1200, 260}).write_png(argv[1]);
}
