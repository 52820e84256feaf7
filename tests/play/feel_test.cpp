// What of a feel is seen in a pose.
#include <catch2/catch.hpp>
#include <numbers>

#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: a held card is lifted as the feel has it, and a flip turns about its axis") {
  for (const float lift : {0.0f, 0.3f, 1.5f}) {
    Feel feel;
    feel.carry_lift = lift;
    Hand h(desk(), {.window = {1000, 700}, .feel = feel});
    const CardId card = h.cards("slot").front();
    h.point(PointerPhase::down, h.middle(card));
    h.point(PointerPhase::move, h.middle(card) + Vec2{60, 0});
    h.wait(2);
    REQUIRE(h.field.hand().held().first == card);
    CHECK(h.field.where().live_pose(card)->lift == Approx(lift).margin(1e-3));
  }
  for (const float degrees : {0.0f, 90.0f, -45.0f}) {
    Feel feel;
    feel.flip_axis = Angle::degrees(double{degrees});
    Hand h(desk(), {.window = {1000, 700}, .feel = feel});
    const CardId card = h.cards("slot").front();
    REQUIRE(h.field.edits().flip(card, false));
    h.wait(0.1);
    const Pose pose = *h.field.where().live_pose(card);
    CHECK(pose.flip > 0);
    CHECK(pose.flip_axis == Approx(degrees * std::numbers::pi_v<float> / 180));
  }
}
