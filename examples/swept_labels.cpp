// Labels strewn face down over a desk and swept back into their box, that stands on it; some are caught in
// flight.
#include <cstdio>

#include "apsidon/draw/paint.hpp"
#include "mouse.hpp"

using namespace apsidon;

namespace {

TableSetup labels() {
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4", "5", "6"}}));
  setup.name = "Labels on a desk";
  const ZoneId desk = setup.add({.name = "desk",
                                 .layout = {.kind = FreeLayout{}, .longest = 12},
                                 .rules = {.pick = {.kind = PickKind::any, .covered = true}, .sorts = true}});
  const ZoneId box =
      setup.add({.name = "box",
                 .layout = {.kind = PileLayout{}, .longest = 12},
                 .rules = {.pick = {.kind = PickKind::any, .covered = true}, .drop = rule::anything()}});
  const ZoneId pocket = setup.add({.name = "pocket",
                                   .layout = {.kind = SpreadLayout{}, .longest = 4},
                                   .rules = {.drop = rule::anything()}});
  setup.add_deck(box, {});
  // The box lies over the desk, in its corner.
  const PlanNode on_desk = layers({zone(desk), placed(zone(box), Align::end, Align::start)});
  setup.plans = {{.root = down({on_desk, zone(pocket)}, 0.3f), .largest_width = 84}};
  setup.plans[0].root.parts[0].share = 1;
  return setup;
}

}  // namespace

int main(int argc, char** argv) {
  Playfield field(labels(), {.window = {960, 640}});
  const auto named = [&](const char* name) { return *field.table().find_zone(name); };
  const auto cards = [&](const char* name) { return field.table().zone(named(name))->cards; };
  int caught = 0;
  example::Mouse mouse(field, [&](const Event& event) {
    if (event.kind == EventKind::dropped && event.to == named("pocket")) ++caught;
    if (event.kind == EventKind::pick_refused) std::puts(describe(event, field).c_str());
  });
  Feel feel = field.performances().feel();
  feel.gather.glide.seconds = 0.9f;
  feel.gather.stagger = 1.6f;
  field.performances().set_feel(feel);

  // Out of the box, and over the desk by chance; what happens meanwhile is not for the player.
  field.performances().perform(
      sequence({move_cards(cards("box"), named("desk")), scatter(named("desk"), 11)}), {.closes_gate = true});
  mouse.wait(3);
  std::printf("%zu labels lie on the desk, %s.\n", cards("desk").size(),
              field.gate().is_open() ? "and the gate is open again" : "behind a closed gate");
  if (argc > 1) paint(field.frame(), field.table().deck()).write_png(argv[1]);

  // Swept back, one after another; the pointer catches what flies.
  const PerformanceId sweep = field.performances().perform(gather(named("box"), named("desk")));
  const std::vector<CardId> flying = cards("box");
  const Vec2 pocket = field.where().area(named("pocket"))->centre();
  for (const std::size_t i : {2u, 6u, 10u}) {
    while (field.performances().running(sweep)) {
      const float gone =
          length(field.where().live_pose(flying[i])->centre - field.where().resting_pose(flying[i])->centre);
      const bool flies = gone > 60 && field.where().live_pose(flying[i])->lift > 0.05f;
      if (flies && field.where().hit(field.where().live_pose(flying[i])->centre).card == flying[i]) break;
      mouse.wait(1.0 / 60);
    }
    mouse.drag(field.where().live_pose(flying[i])->centre, pocket, 0.2);
  }
  mouse.wait(4);
  std::printf("%d were caught, %zu are back in the box, %zu on the desk.\n", caught, cards("box").size(),
              cards("desk").size());
  for (const CardId card : cards("pocket"))
    std::printf("%s lies face %s.\n", field.table().deck().text(field.table().card(card)->face).c_str(),
                field.table().card(card)->face_up ? "up" : "down");
}
