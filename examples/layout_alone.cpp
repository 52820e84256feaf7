// Only a layout, in somebody's own scene: it says where nine cards of a hand lie, and the scene's nodes go
// there.
#include <array>
#include <cstdio>

#include "apsidon/layout/layout.hpp"

/// A node as a scene graph has it.
struct Node {
  double x = 0, y = 0, degrees = 0;
};

int main() {
  std::array<apsidon::LaidCard, 9> cards{};
  std::array<apsidon::Pose, 9> poses{};
  std::array<Node, 9> nodes{};
  const apsidon::HandLayout hand{.spacing = 0.7f};

  apsidon::LayoutInput in{.area = {{20, 420}, {620, 600}}, .card = {80, 112}, .cards = cards};
  for (const std::ptrdiff_t raised : {apsidon::no_index, std::ptrdiff_t{4}}) {
    in.room.raised = raised;
    const apsidon::LayoutReport report = lay_out(hand, in, poses);
    std::printf("%s, %.0f px long%s\n", raised < 0 ? "at rest" : "the middle card raised",
                double{report.content}, report.crowded ? ", crowded" : "");
    for (std::size_t i = 0; i < nodes.size(); ++i) {
      nodes[i] = {poses[i].centre.x, poses[i].centre.y, apsidon::Angle::radians(poses[i].rotation).degrees()};
      std::printf("  %5.1f %5.1f  %+5.1f degrees\n", nodes[i].x, nodes[i].y, nodes[i].degrees);
    }
  }
}
