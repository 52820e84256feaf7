#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

std::string read(GestureReader& reader, const PointerInput& input) {
  static const char* const names[] = {"hover",     "press",    "tap",   "drag_start",
                                      "drag_move", "drag_end", "cancel"};
  std::string out;
  for (const Gesture& g : reader.read(input)) out += std::string(out.empty() ? "" : " ") + names[int(g.kind)];
  return out;
}

PointerInput at(PointerPhase phase, float x, float y, std::uint32_t pointer = 0) {
  return {.phase = phase, .at = {x, y}, .time = 1, .pointer = pointer};
}

}  // namespace

TEST_CASE("gesture: a press that goes nowhere is a tap, one that goes far a drag") {
  GestureReader reader;
  CHECK(read(reader, at(PointerPhase::move, 0, 0)) == "hover");
  CHECK(read(reader, at(PointerPhase::down, 0, 0)) == "press");
  CHECK(read(reader, at(PointerPhase::move, 3, 0)).empty());
  CHECK(read(reader, at(PointerPhase::up, 3, 0)) == "tap");
  CHECK(read(reader, at(PointerPhase::down, 0, 0)) == "press");
  CHECK(read(reader, at(PointerPhase::move, 5, 0)) == "drag_start");
  CHECK(read(reader, at(PointerPhase::move, 1, 0)) == "drag_move");
  CHECK(read(reader, at(PointerPhase::up, 1, 0)) == "drag_end");
}

TEST_CASE("gesture: a release far away, with no move between, is a whole drag") {
  GestureReader reader;
  CHECK(read(reader, at(PointerPhase::down, 0, 0)) == "press");
  CHECK(read(reader, at(PointerPhase::up, 90, 0)) == "drag_start drag_end");
}

TEST_CASE("gesture: fingers may tremble more than mice") {
  GestureReader reader;
  PointerInput input = at(PointerPhase::down, 0, 0);
  input.kind = PointerKind::touch;
  CHECK(read(reader, input) == "press");
  input.phase = PointerPhase::move;
  input.at = {8, 0};
  CHECK(read(reader, input).empty());
  input.at = {12, 0};
  CHECK(read(reader, input) == "drag_start");
}

TEST_CASE("gesture: a second pointer does not disturb the first, and a lost release is a cancel") {
  GestureReader reader;
  CHECK(read(reader, at(PointerPhase::down, 0, 0)) == "press");
  CHECK(read(reader, at(PointerPhase::down, 50, 50, 2)).empty());
  CHECK(read(reader, at(PointerPhase::up, 50, 50, 2)).empty());
  CHECK(reader.pressed());
  CHECK(read(reader, at(PointerPhase::down, 5, 5)) == "cancel press");
  CHECK(read(reader, at(PointerPhase::leave, 5, 5)) == "cancel");
  CHECK(read(reader, at(PointerPhase::up, 5, 5)).empty());
  CHECK(read(reader, at(PointerPhase::cancel, 5, 5)).empty());
}

TEST_CASE("gesture: inputs that are not finite mean nothing; thresholds have a range") {
  GestureReader reader;
  CHECK(read(reader, at(PointerPhase::down, NAN, 0)).empty());
  CHECK_FALSE(reader.pressed());
  CHECK_THROWS_WITH(GestureReader({.mouse_slop = -1}),
                    "gesture thresholds: slop is -1: 0 to 1000 is expected");
}
