// Chapter 8: drawing it. The smallest renderer there can be: each item's corners are filled with a colour.
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/picture.hpp"

using namespace apsidon;

namespace {

/// Whether a point lies in the corners, which go round clockwise.
bool inside(const Quad& quad, Vec2 p) {
  for (std::size_t i = 0; i < 4; ++i) {
    const Vec2 a = quad.corners[i];
    const Vec2 side = quad.corners[(i + 1) % 4] - a;
    if (side.x * (p.y - a.y) - side.y * (p.x - a.x) < 0) return false;
  }
  return true;
}

void fill(Pixels& picture, const Quad& quad, Pixel colour) {
  for (std::size_t i = 0; i < picture.all.size(); ++i) {
    const Vec2 middle{static_cast<float>(i % 640) + 0.5f, static_cast<float>(i / 640) + 0.5f};
    if (inside(quad, middle)) picture.all[i] = colour;
  }
}

}  // namespace

int main(int argc, char** argv) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4"}}));
  const ZoneId hand = setup.add(
      {.name = "hand", .layout = {.kind = HandLayout{}, .longest = 8}, .rules = {.flip = rule::anything()}});
  setup.add_deck(hand, {.face_up = true});
  setup.plans = {{.root = zone(hand)}};
  Playfield field(setup, {.window = {640, 360}});
  (void)field.moves().flip(field.table().zone(hand)->cards.back());
  while (field.next_event(0.12)) {  // in the middle of the flip
  }

  const Frame& frame = field.frame();
  Pixels picture{.width = 640, .height = 360, .all = std::vector<Pixel>(640 * 360, {14, 35, 29, 255})};
  for (const FrameItem& item : frame.items) {  // from back to front
    const bool fern = item.face && setup.table.deck().suit_of(item.face) == 0;
    fill(picture, item.corners, {20, 20, 20, 255});  // a rim
    Quad within = item.corners;
    for (Vec2& corner : within.corners)
      corner = corner + (point_in(item.corners, {0.5f, 0.5f}) - corner) * 0.04f;
    fill(picture, within,
         item.back ? Pixel{74, 52, 92, 255}
         : fern    ? Pixel{94, 140, 84, 255}
                   : Pixel{214, 122, 58, 255});
  }
  std::printf("%zu items, the frame has number %llu\n", frame.items.size(),
              static_cast<unsigned long long>(frame.revision));
  if (argc > 1) Picture::of(picture).write_png(argv[1]);
}
