// Only motion: two cards glide across a table, one on a curve and one on a spring, and half way the goal
// moves. Nothing jumps, and what happens is told at its own time, however time is cut into frames.
#include <cstdio>

#include "apsidon/motion/motion.hpp"

int main() {
  apsidon::Motion motion;
  motion.resize(2);
  const apsidon::Glide on_a_curve{.seconds = 0.5f, .lift = 0.4f};
  const apsidon::Glide on_a_spring{.spring = apsidon::Spring{.period = 0.5f, .damping = 0.6f}};
  motion.travel(0, {.centre = {400, 100}, .flip = 3.14159265f}, on_a_curve);
  motion.travel(1, {.centre = {400, 300}}, on_a_spring, 0.1);  // leaves a tenth of a second later

  for (int frame = 0; frame <= 14; ++frame) {
    motion.advance_to(frame / 8.0);
    for (const apsidon::Passage& passage : motion.passages()) {
      static constexpr const char* names[] = {"departs", "is edge-on", "arrives", "lands"};
      std::printf("         card %zu %s at %.3f s\n", passage.slot, names[static_cast<int>(passage.kind)],
                  passage.time);
    }
    motion.forget_passages();
    if (frame == 2) motion.travel(1, {.centre = {200, 400}}, on_a_spring);  // the player has changed his mind
    const apsidon::Pose &first = motion.pose(0), &second = motion.pose(1);
    std::printf("%.3f s  %3.0f,%3.0f  lift %.2f   %3.0f,%3.0f\n", motion.now(), double{first.centre.x},
                double{first.centre.y}, double{first.lift}, double{second.centre.x}, double{second.centre.y});
  }
}
