// Chapter 2: a table. A deck, three zones, cards in them, and what a client asks of it.
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4", "5", "6"}}));
  const ZoneId stock = setup.add({.name = "stock", .layout = {.kind = PileLayout{}, .longest = 12}});
  const ZoneId bed = setup.add({.name = "bed", .layout = {.kind = ColumnLayout{}, .longest = 5}});
  const ZoneId hand = setup.add({.name = "hand", .layout = {.kind = HandLayout{}, .longest = 5}});
  setup.plans = {{.root = down({across({zone(stock), zone(bed)}, 1), zone(hand, 1)})}};

  // Cards are made in a zone, and moved from there: the table owns them.
  setup.add_deck(stock, {.face_up = false});
  Table& table = setup.table;
  (void)table.shuffle(stock, 7);
  (void)table.take(stock, hand, 4, true);  // four cards, face up
  (void)table.take(stock, bed, 2, false);
  (void)table.take(stock, bed, 1, true);

  const Playfield field(setup, {.window = {640, 480}});
  for (const Zone& zone : field.table().zones()) {
    std::printf("%s: %zu cards", zone.name.c_str(), zone.cards.size());
    if (const auto top = field.table().top(zone.id))
      std::printf(", on top %s", field.table().card(*top)->face_up ? "an open one" : "a covered one");
    std::printf("\n");
  }
  const CardId first = field.table().zone(hand)->cards.front();
  const Vec2 at = field.where().resting_pose(first)->centre;
  std::printf("%s lies at %.0f, %.0f; a card is %.0f px wide.\n",
              field.table().deck().text(field.table().card(first)->face).c_str(), double{at.x}, double{at.y},
              double{field.where().card_size().width});
  Playfield shown = field;
  if (argc > 1) paint(shown.frame(), shown.table().deck()).write_png(argv[1]);
}
