// Only hit-testing: an index of turned, overlapping cards, asked what lies under a finger.
#include <cstdio>
#include <vector>

#include "apsidon/geometry/angle.hpp"
#include "apsidon/hit/hit_index.hpp"

int main() {
  constexpr apsidon::HitKinds cards = 1, buttons = 2;
  apsidon::HitIndex index;
  for (std::uint32_t i = 0; i < 5; ++i) {  // a fan, from the back to the front
    const float turn = apsidon::Angle::degrees(10.0f * (static_cast<float>(i) - 2)).radians();
    const apsidon::Pose pose{.centre = {100 + 40.0f * static_cast<float>(i), 200}, .rotation = turn};
    index.add({.pose = pose, .size = {80, 112}, .corner_radius = 6}, 100 + i, cards);
  }
  index.add({.pose = {.centre = {400, 200}}, .size = {90, 30}}, 7, buttons);

  for (const apsidon::Vec2 at : {apsidon::Vec2{100, 200}, {170, 160}, {62, 143}, {400, 200}, {450, 222}}) {
    const auto top = index.topmost(at);
    const auto button = index.nearest(at, 12, buttons);  // a finger is wide: 12 px beside it still count
    std::vector<std::uint32_t> all;
    index.all(at, all);
    std::printf("%3.0f,%3.0f  ", double{at.x}, double{at.y});
    std::printf(top ? "topmost %u of %zu" : "nothing", top.value_or(0), all.size());
    std::printf(button ? ", button %u\n" : "\n", button.value_or(0));
  }
}
