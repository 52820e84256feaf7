// A bench whose gap and order change while cards lie on it: by a slider, by sorting, by another plan.
#include <algorithm>
#include <cmath>
#include <cstdio>

#include "apsidon/draw/paint.hpp"
#include "mouse.hpp"

using namespace apsidon;

namespace {

TableSetup bench() {
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4", "5"}}));
  setup.name = "A bench that changes";
  const ZoneId row =
      setup.add({.name = "bench",
                 .layout = {.kind = SpreadLayout{.spacing = 0.3f, .least_spacing = 0.1f}, .longest = 10},
                 .rules = {.pick = {.kind = PickKind::any}, .sorts = true},
                 .handling = {.hover = HoverKind::lift}});
  const ZoneId crate = setup.add({.name = "crate",
                                  .layout = {.kind = PileLayout{}, .longest = 10},
                                  .rules = {.drop = rule::anything()}});
  for (std::uint32_t face = 1; face <= 7; ++face) (void)setup.table.create_card(row, {.face = {face}});
  setup.plans = {{.root = across({zone(row, 1), zone(crate)}, 0.5f), .largest_width = 96}};
  return setup;
}

}  // namespace

int main(int argc, char** argv) {
  Playfield field(bench(), {.window = {960, 420}});
  const ZoneId row = *field.table().find_zone("bench");
  example::Mouse mouse(field, [&](const Event& event) {
    if (event.kind == EventKind::dropped) std::puts(describe(event, field).c_str());
  });
  const auto last = [&] { return field.table().zone(row)->cards.back(); };
  const auto at = [&](CardId card) { return field.where().live_pose(card)->centre; };

  // The slider: every frame another gap. The cards follow, and none of them jumps.
  Vec2 before = at(last());
  float most = 0;
  for (int i = 0; i <= 60; ++i) {
    ZoneBehaviour behaviour = field.where().behaviour(row);
    std::get<SpreadLayout>(behaviour.layout.kind).spacing = 0.3f + 0.01f * static_cast<float>(i);
    (void)field.edits().set_behaviour(row, behaviour);
    mouse.wait(1.0 / 60);
    most = std::max(most, length(at(last()) - before));
    before = at(last());
  }
  std::printf("While the gap grew, the last card went at most %.1f px a frame.\n", double{most});

  // The player sorts; meanwhile the crate gets a card.
  const CardId first = field.table().zone(row)->cards.front();
  const Vec2 grip = at(first) - Vec2{25, 0};
  mouse.press(grip);
  mouse.move(grip + Vec2{200, 0});
  (void)field.edits().move({last(), 1}, *field.table().find_zone("crate"));
  std::printf("Still held: %s\n", field.hand().held().first == first ? "yes" : "no");
  mouse.move(grip + Vec2{300, 0});
  mouse.release(grip + Vec2{300, 0});
  std::printf("It is number %zu of %zu now.\n", field.table().card(first)->index + 1,
              field.table().zone(row)->cards.size());

  mouse.wait(0.5);

  // Another order of the bench and its crate: everything glides there.
  Plan other = field.where().plan();
  std::reverse(other.root.parts.begin(), other.root.parts.end());
  const float from = at(first).x;
  field.edits().set_plans({other});
  mouse.wait(1.0 / 60);
  const float at_first = std::abs(at(first).x - from);
  mouse.wait(1);
  std::printf("The crate is on the left now; in the first frame the bench went %.1f of %.0f px.\n",
              double{at_first}, double{std::abs(at(first).x - from)});
  if (argc > 1) paint(field.frame(), field.table().deck()).write_png(argv[1]);
}
