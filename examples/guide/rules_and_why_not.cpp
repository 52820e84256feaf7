// Chapter 6: rules, and why not. Rules are values that combine; each refusal is a sentence.
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4"}}));
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 8},
                                 .rules = {.pick = {.kind = PickKind::any}}});
  const ZoneId bed =
      setup.add({.name = "bed",  // begins with a 1, and goes on one rank up in its suit
                 .layout = {.kind = ColumnLayout{}, .longest = 4},
                 .rules = {.drop = rule::any(
                               {rule::rank_on_empty(0), rule::all({rule::same_suit(), rule::rank_up()})})}});
  const ZoneId pot =
      setup.add({.name = "pot", .rules = {.drop = rule::own("too-thirsty", [](const RuleQuestion& q) {
                                            const int water = q.table.number("water");
                                            const int wants = q.table.deck().rank_of(q.face) + 1;
                                            return wants <= water
                                                       ? Verdict{}
                                                       : q.refuse({{"wants", std::int64_t{wants}},
                                                                   {"water", std::int64_t{water}}});
                                          })}});
  setup.sentences["too-thirsty"] = "{card} drinks {wants}, and there are only {water} left.";
  (void)setup.table.set_number("water", 2);
  setup.add_deck(hand, {.face_up = true});
  setup.plans = {{.root = down({across({zone(bed), zone(pot)}, 0.5f), zone(hand, 1)})}};
  Playfield field(setup, {.window = {640, 480}});

  const auto card = [&](const char* face) {
    for (const CardId id : field.table().zone(hand)->cards) {
      if (field.table().deck().text(field.table().card(id)->face) == face) return id;
    }
    return CardId{};
  };
  const auto lay = [&](const char* face, ZoneId to) {
    const Verdict verdict = field.moves().make({.run = {card(face), 1}, .from = hand, .to = to});
    std::printf("%s: %s\n", face, describe(verdict, field).c_str());
  };
  std::printf("%zu moves are legal.\n", field.rules().legal_moves().size());
  lay("fern-2", bed);
  lay("fern-1", bed);
  lay("fern-3", bed);
  lay("poppy-2", bed);
  lay("fern-2", bed);
  lay("poppy-4", pot);
  lay("poppy-1", pot);
  (void)field.switches().switch_off(card("fern-3"), "asleep");
  lay("fern-3", bed);
  while (field.next_event(2)) {
  }
  (void)field.switches().mark(field.rules().legal_moves().front().run.first, "hint");
  if (argc > 1) paint(field.frame(), field.table().deck()).write_png(argv[1]);
}
