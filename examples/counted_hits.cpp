// Points of a seat, and what each card has borne: numbers of the table that panels and cards show. The game
// answers an event with another number, and undo takes both back.
#include <cstdio>
#include <string>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

namespace {

void show(const Playfield& field) {
  const Frame& frame = field.frame();
  std::string line;
  for (const FramePanel& panel : frame.panels) line += panel.text + "  ";
  for (const FrameBadge& badge : frame.badges)
    line += field.table().deck().text(frame.items[badge.item].face) + ":" + badge.text + " ";
  std::printf("%s bar %.2f\n", line.c_str(), static_cast<double>(frame.panels.back().fill));
}

}  // namespace

int main() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4"}}));
  const SeatId grower = setup.table.create_seat("grower", {{"points", 0}});
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 8},
                                 .rules = {.pick = {.kind = PickKind::any}},
                                 .seat = grower});
  // A bed takes what is not worn out, and wears it by its rain.
  const ZoneId bed =
      setup.add({.name = "bed",
                 .layout = {.kind = ColumnLayout{}, .longest = 8},
                 .rules = {.pick = {.kind = PickKind::top},
                           .drop = rule::number({"worn", NumberOf::card}, Compared::at_most, 1)},
                 .numbers = {{"rain", 1}}});
  setup.rules_of(hand).drop = rule::from({bed});
  setup.add_deck(hand, {.face_up = true});
  setup.add_panel({.name = "points",
                   .kind = PanelKind::counter,
                   .text = "{points} points, {cards of bed} in the bed",
                   .seat = grower});
  setup.add_panel(
      {.name = "harvest", .kind = PanelKind::bar, .filled_by = "points", .full_at = "10", .seat = grower});
  setup.badges = {{"worn", Corner::bottom_left}};
  setup.consequences = {{.name = "rain", .follow = [=](const FollowQuestion& q) -> std::vector<Edit> {
                           if (q.steps.back().kind == MoveStep::Kind::counted || q.steps.front().to != bed)
                             return {};
                           const CardId card = q.steps.front().card;
                           return {{.kind = EditKind::set_number,
                                    .card = card,
                                    .name = "worn",
                                    .value = q.table.number("worn", card) + q.table.number("rain", bed)},
                                   {.kind = EditKind::set_number,
                                    .name = "points",
                                    .value = q.table.number("points", grower) + 2,
                                    .seat = grower}};
                         }}};
  setup.sentences = {{"worn", "{card} is worn out: {found} times, and {wanted} are borne."}};
  setup.won = goal::when(rule::number({"points", grower}, Compared::at_least, 10));
  const PanelId points{1}, bar{2};
  setup.plans = {{.root = down({zone(bed), zone(hand, 1), panel(points, {.px = 300}, {.px = 30}),
                                panel(bar, {.px = 300}, {.px = 20})})}};

  Playfield field(setup, {.seat = grower});
  const auto play = [&](CardId card, ZoneId from, ZoneId to) {
    const Verdict verdict = field.moves().make({.run = {card, 1}, .from = from, .to = to});
    if (!verdict) std::printf("%s\n", describe(verdict, field).c_str());
    while (const auto event = field.next_event(field.now() + 1)) {
      // The game answers itself: what is planted last pays one more.
      const bool last =
          event->kind == EventKind::dropped && event->to == bed && field.table().zone(bed)->cards.size() == 3;
      if (last) (void)field.edits().set_number("points", field.table().number("points", grower) + 1, grower);
      if (event->kind == EventKind::won) std::printf("won\n");
    }
    show(field);
  };
  const std::vector<CardId> cards = field.table().zone(hand)->cards;
  for (int i = 0; i < 3; ++i) {  // a third time it is refused
    play(cards[0], hand, bed);
    if (field.table().card(cards[0])->zone == bed) play(cards[0], bed, hand);
  }
  for (std::size_t i = 1; i < 4; ++i) play(cards[i], hand, bed);
  (void)field.moves().undo();
  std::printf("undone\n");
  show(field);
}
