// A layout of one's own: stepping stones, every other card lower. Its two functions are all that a plan, a
// pointer and a motion need to know of it.
#include <algorithm>
#include <cstdio>
#include <memory>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"

using namespace apsidon;

namespace {

constexpr float drop = 0.4f;   // of every other card, card heights
constexpr float gap = 1.15f;   // from card to card, card widths
constexpr float lean_deg = 4;  // to either side

LayoutReport lay_stones(const LayoutInput& in, std::span<Pose> poses) {
  const auto n = static_cast<float>(poses.size());
  const float room = in.area.width() - in.card.width;
  const float step = n > 1 ? std::min(gap * in.card.width, room / (n - 1)) : 0;
  const Vec2 middle = in.area.centre();
  for (std::size_t i = 0; i < poses.size(); ++i) {
    const float side = i % 2 == 0 ? -1.0f : 1.0f;
    poses[i].centre = {middle.x + (static_cast<float>(i) - (n - 1) / 2) * step,
                       middle.y + side * drop * in.card.height / 2};
    poses[i].rotation = static_cast<float>(Angle::degrees(double{side * lean_deg}).radians());
  }
  return {.crowded = step < in.card.width / 2 && n > 1, .content = (n - 1) * step + in.card.width};
}

/// Half a card of each has to be seen.
Size least_stones(const LayoutNeed& need, Size card) {
  const auto more = static_cast<float>(std::max<std::size_t>(need.cards, 1) - 1);
  return {card.width * (1.1f + more / 2), card.height * (1.1f + drop)};
}

}  // namespace

/// PICTURE: where the PNG goes.
int main(int argc, char** argv) {
  const auto stones = std::make_shared<const CustomFunctions>(CustomFunctions{lay_stones, least_stones});
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}, {"marigold", "orange"}},
            .ranks = {"1", "2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12", "13"}}));
  ZoneSetup path{.name = "path",
                 .layout = {.kind = CustomLayout{.name = "stones", .functions = stones}, .longest = 8},
                 .rules = {.pick = {.kind = PickKind::any}},
                 .handling = {.hover = HoverKind::lift}};
  for (const char* face : {"fern-4", "reed-13", "poppy-7", "marigold-9", "fern-11", "reed-2", "poppy-12"})
    path.cards.push_back({.face = *setup.table.deck().find(face)});
  const ZoneId there = setup.add(path);
  setup.plans = {{.root = zone(there, 1), .largest_width = 96}};

  Playfield field(setup, {.window = {900, 300}});
  const Vec2 third = field.where().neutral_pose(field.table().zone(there)->cards[2])->centre;
  field.pointer({.phase = PointerPhase::move, .at = third, .time = 0.1});
  while (const auto event = field.next_event(1)) {
    const std::string text = describe(*event, field);
    std::printf("%s%s%s\n", std::string(name_of(event->kind)).c_str(), text.empty() ? "" : ": ",
                text.c_str());
  }
  const Hit hit = field.where().hit(third);
  std::printf("under the pointer: %s\n",
              field.table().deck().text(field.table().card(hit.card)->face).c_str());
  paint(field.frame(), field.table().deck()).write_png(argc > 1 ? argv[1] : "stones.png");
}
