// A grafting frame: a slot waits for the two below it, and a rule in code says in its own sentence why not.
#include <cstdio>

#include "apsidon/draw/paint.hpp"
#include "mouse.hpp"

using namespace apsidon;

namespace {

/// A graft has to be younger than both stems on which it stands; what each slot waits for the rule asks
/// itself.
Verdict younger(const RuleQuestion& q) {
  const Deck& deck = q.table.deck();
  for (const ZoneId below : q.waits_for()) {
    const auto stem = q.table.top(below);
    if (!stem || deck.rank_of(q.face) < deck.rank_of(q.table.card(*stem)->face)) continue;
    return q.refuse({{"stem", *stem}, {"slot", below}});
  }
  return {};
}

TableSetup frame() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}},
                         .ranks = {"1", "2", "3", "4", "5", "6"}}));
  setup.name = "Grafting frame";
  setup.names = {.card = "{rank} of {suit}",
                 .words = {{"fern", "ferns"}, {"reed", "reeds"}, {"poppy", "poppies"}}};
  setup.sentences = {{"too-old", "{card} is too old to stand on {stem} in {slot}."}};
  const Rule fits = rule::all({rule::on_empty(), rule::waited_for(), rule::own("too-old", younger)});
  const PlanNode slots = setup.add_formation({.name = "frame", .rules = {.drop = fits}},
                                             with_waits(formation_of_pyramid(3, {0.3f, 0.15f})));
  ZoneSetup hand{.name = "grafts",
                 .layout = {.kind = SpreadLayout{.spacing = 0.7f, .align = Align::centre}, .longest = 7},
                 .rules = {.pick = {.kind = PickKind::any}}};
  for (const char* face : {"fern-5", "reed-6", "poppy-4", "fern-3", "reed-2", "poppy-5", "fern-1"})
    hand.cards.push_back({.face = *setup.table.deck().find(face)});
  const ZoneId grafts = setup.add(hand);
  setup.plans = {{.root = down({slots, zone(grafts, 1)}, 0.4f), .largest_width = 84}};
  std::vector<ZoneId> all;
  for (const FormationSlot& slot : slots.places) all.push_back(slot.zone);
  setup.won = goal::filled(all);
  return setup;
}

}  // namespace

int main(int argc, char** argv) {
  Playfield field(frame(), {.window = {900, 640}});
  const Deck& deck = field.table().deck();
  const ZoneId grafts = *field.table().find_zone("grafts");
  example::Mouse mouse(field, [&](const Event& event) {
    if (event.kind == EventKind::dropped || event.kind == EventKind::refused || event.kind == EventKind::won)
      std::puts(describe(event, field).c_str());
  });
  const auto graft = [&](const char* face, const char* slot) {
    for (const CardId card : field.table().zone(grafts)->cards) {
      if (deck.text(field.table().card(card)->face) != face) continue;
      const Vec2 grip = field.where().resting_pose(card)->centre - Vec2{20, 0};
      return mouse.drag(grip, field.where().area(*field.table().find_zone(slot))->centre(), 0.3),
             mouse.wait(0.4);
    }
  };
  graft("poppy-4", "frame-2-1");  // nothing stands below it yet
  graft("fern-5", "frame-3-1");
  graft("reed-6", "frame-3-2");
  graft("poppy-5", "frame-3-3");
  // Which slots take a card is known as soon as it is in the hand.
  const CardId card = field.table().zone(grafts)->cards.back();
  const Vec2 grip = field.where().resting_pose(card)->centre;
  mouse.press(grip);
  mouse.move(grip - Vec2{0, 60});
  std::printf("Slots for the %s:",
              spoken(field.table().card(card)->face, deck, field.rules().names()).c_str());
  for (const ZoneId zone : field.hand().targets()) std::printf(" %s", field.table().zone(zone)->name.c_str());
  std::puts("");
  mouse.wait(0.3);
  if (argc > 1) paint(field.frame(), deck).write_png(argv[1]);
  mouse.release(grip);
  graft("poppy-4", "frame-2-1");
  graft("fern-3", "frame-2-2");
  graft("fern-1", "frame-1-1");
}
