// Chapter 3: a plan for every window. The same table on a desk and on a telephone.
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/studio/sheets.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4", "5", "6"}}));
  std::vector<PlanNode> beds;
  for (const char* name : {"clay", "loam", "sand", "peat"})
    beds.push_back(zone(setup.add({.name = name, .layout = {.kind = ColumnLayout{}, .longest = 8}})));
  const ZoneId hand = setup.add({.name = "hand", .layout = {.kind = HandLayout{}, .longest = 6}});
  const PanelId score =
      setup.add_panel({.name = "score", .kind = PanelKind::counter, .text = "{cards of hand} in hand"});
  const PlanNode says = panel(score, {.px = 150}, {.px = 36});

  // Rows and columns; what is left over goes to whatever has a share.
  setup.plans = {{.name = "wide", .root = across({down({says, zone(hand, 1)}), across(beds, 0.2f)}, 0.4f)},
                 {.name = "tall", .root = down({says, across(beds, 0.2f), zone(hand, 1)})}};
  setup.add_deck(hand, {.face_up = true});
  for (std::uint32_t bed = 1; bed <= 4; ++bed) (void)setup.table.take(hand, {bed}, bed == 4 ? 1 : 2, true);

  std::vector<Shot> shots;
  const PlanWindow windows[] = {{.size = {900, 500}},
                                {.size = {400, 700}, .insets = {.top = 44}, .pixel_ratio = 3}};
  for (const PlanWindow& window : windows) {
    Playfield field(setup,
                    {.window = window.size, .pixel_ratio = window.pixel_ratio, .insets = window.insets});
    const Plan& plan = field.where().plan();
    std::printf("%.0f x %.0f: the plan '%s', cards of %.1f px\n", double{window.size.width},
                double{window.size.height}, plan.name.c_str(), double{field.where().card_size().width});
    shots.push_back({.frame = field.frame(), .caption = plan.name});
  }
  if (argc > 1)
    contact_sheet(shots, setup.table.deck(), "One table, two windows", {1000, 520}).write_png(argv[1]);
}
