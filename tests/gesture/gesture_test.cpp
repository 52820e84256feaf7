#include <cmath>
#include <map>

#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

const char* name_of(GestureKind kind) {
  static const char* const names[] = {"hover",      "leave",      "press",   "tap",
                                      "double_tap", "long_press", "release", "drag_start",
                                      "drag_move",  "drag_end",   "flick",   "cancel"};
  return names[static_cast<int>(kind)];
}

/// A reader that is told inputs in order of time, and writes down what it says.
struct Listener {
  GestureReader reader;
  double time = 0;

  std::string said(std::span<const Gesture> gestures) {
    std::string out;
    for (const Gesture& g : gestures) out += std::string(out.empty() ? "" : " ") + name_of(g.kind);
    return out;
  }
  std::string tell(PointerInput input) {
    input.time = time;
    return said(reader.read(input));
  }
  std::string at(PointerPhase phase, float x, float y, std::uint32_t pointer = 0) {
    return tell({.phase = phase, .at = {x, y}, .pointer = pointer});
  }
  std::string wait(double seconds) {
    time += seconds;
    return said(reader.advance_to(time));
  }
};

}  // namespace

TEST_CASE("gesture: two taps of a finger may be twice as far apart as those of a mouse") {
  for (const bool touch : {false, true}) {
    for (const float apart : {20.0f, 40.0f, 50.0f}) {
      Listener l;
      const PointerKind kind = touch ? PointerKind::touch : PointerKind::mouse;
      const auto tap = [&](float x) {
        (void)l.tell({.phase = PointerPhase::down, .at = {x, 0}, .kind = kind});
        l.reader.want_double_tap(0);
        return l.tell({.phase = PointerPhase::up, .at = {x, 0}, .kind = kind});
      };
      (void)tap(0);
      (void)l.wait(0.1);
      const bool both = tap(apart).find("double_tap") != std::string::npos;
      CHECK(both == (apart <= (touch ? 48 : 24)));
    }
  }
}

TEST_CASE("gesture: a press that goes nowhere is a tap, one that goes far a drag") {
  Listener l;
  CHECK(l.at(PointerPhase::move, 0, 0) == "hover");
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.at(PointerPhase::move, 3, 0).empty());
  CHECK(l.at(PointerPhase::up, 3, 0) == "tap");
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.at(PointerPhase::move, 5, 0) == "drag_start");
  CHECK(l.at(PointerPhase::move, 1, 0) == "drag_move");
  CHECK(l.at(PointerPhase::up, 1, 0) == "drag_end");
}

TEST_CASE("gesture: a release far away, with no move between, is a whole drag") {
  Listener l;
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.wait(0.3).empty());
  CHECK(l.at(PointerPhase::up, 90, 0) == "drag_start drag_end");
}

TEST_CASE("gesture: fingers may tremble more than mice, and leave when they are lifted") {
  Listener l;
  PointerInput input{.phase = PointerPhase::down, .kind = PointerKind::touch};
  CHECK(l.tell(input) == "press");
  input.phase = PointerPhase::move;
  input.at = {8, 0};
  CHECK(l.tell(input).empty());
  input.at = {12, 0};
  CHECK(l.tell(input) == "drag_start");
  input.phase = PointerPhase::up;
  l.time += 1;
  CHECK(l.tell(input) == "drag_end leave");
}

TEST_CASE("gesture: every pointer is read by itself, and a lost release is a cancel") {
  Listener l;
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.at(PointerPhase::down, 50, 50, 2) == "press");
  CHECK(l.at(PointerPhase::up, 50, 50, 2) == "tap");
  CHECK(l.reader.pressed());
  CHECK(l.at(PointerPhase::down, 5, 5) == "cancel press");
  CHECK(l.at(PointerPhase::leave, 5, 5) == "cancel leave");
  CHECK_FALSE(l.reader.pressed());
  CHECK(l.at(PointerPhase::up, 5, 5).empty());
  CHECK(l.at(PointerPhase::cancel, 5, 5) == "leave");
}

TEST_CASE("gesture: a second button ends the press of the first, and begins nothing") {
  Listener l;
  PointerInput input{.phase = PointerPhase::down};
  CHECK(l.tell(input) == "press");
  input.button = PointerButton::secondary;
  CHECK(l.tell(input) == "cancel");
  input.phase = PointerPhase::up;
  CHECK(l.tell(input).empty());
  input.phase = PointerPhase::down;
  CHECK(l.tell(input) == "press");
  input.phase = PointerPhase::up;
  CHECK(l.tell(input) == "tap");
}

TEST_CASE("gesture: who stays down presses long, once, and its release is no tap") {
  Listener l;
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.reader.due() == 0.5);
  CHECK(l.wait(0.49).empty());
  CHECK(l.wait(0.02) == "long_press");
  CHECK(l.wait(5).empty());
  CHECK(l.at(PointerPhase::up, 0, 0) == "release");
  CHECK(std::isinf(l.reader.due()));
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.at(PointerPhase::move, 30, 0) == "drag_start");
  CHECK(l.wait(5).empty());
}

TEST_CASE("gesture: a tap that waits is told of when the press after it is cancelled, and not as of before") {
  Listener l;
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  l.reader.want_double_tap(0);
  CHECK(l.at(PointerPhase::up, 0, 0).empty());
  (void)l.wait(0.2);
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.wait(0.3).empty());  // while it is pressed again the tap waits on
  const auto said = l.reader.read({.phase = PointerPhase::cancel, .time = l.time});
  REQUIRE(said.size() == 3);
  CHECK(said[0].kind == GestureKind::tap);
  CHECK(said[1].kind == GestureKind::cancel);
  for (const Gesture& g : said) CHECK(g.time == l.time);
  CHECK(l.wait(9).empty());
}

TEST_CASE("gesture: where double taps are wanted a tap waits for a second one, elsewhere it is at once") {
  Listener l;
  const auto tap = [&](float x) {
    CHECK(l.at(PointerPhase::down, x, 0) == "press");
    l.reader.want_double_tap(0);
    return l.at(PointerPhase::up, x, 0);
  };
  CHECK(tap(0).empty());
  CHECK(l.wait(0.2).empty());
  CHECK(tap(5) == "double_tap");
  CHECK(l.wait(1).empty());
  CHECK(tap(0).empty());
  CHECK(l.wait(0.31) == "tap");
  CHECK(tap(0).empty());
  CHECK(tap(100) == "tap");  // too far away: two taps, and the second may still become a double one
  CHECK(tap(101) == "double_tap");
  CHECK(tap(0).empty());
  CHECK(l.at(PointerPhase::down, 0, 0) == "press");
  CHECK(l.at(PointerPhase::move, 40, 0) == "tap drag_start");
}

TEST_CASE(
    "gesture: a drag that is fast at its end is a flick with its velocity, one that stops first is not") {
  Listener l;
  const auto drag = [&](double pause) {
    std::string said = l.at(PointerPhase::down, 0, 0);
    for (int i = 1; i <= 10; ++i) {
      l.time += 0.01;
      said = l.at(PointerPhase::move, 20.0f * static_cast<float>(i), 0);
    }
    l.time += pause;
    const auto last = l.reader.read({.phase = PointerPhase::up, .at = {200, 0}, .time = l.time});
    REQUIRE(last.size() == 1);
    return last[0];
  };
  const Gesture flick = drag(0.001);
  CHECK(flick.kind == GestureKind::flick);
  CHECK(flick.velocity.x == Approx(2000).epsilon(0.05));
  CHECK(flick.velocity.y == 0);
  CHECK(drag(0.5).kind == GestureKind::drag_end);
}

TEST_CASE("gesture: a flick is as fast at four thousand places a second as at sixty, though they tremble") {
  for (const double rate : {60.0, 144.0, 1000.0, 4000.0}) {
    Listener l;
    (void)l.at(PointerPhase::down, 0, 0);
    float x = 0;
    for (int i = 1; l.time < 0.3; ++i) {
      l.time += 1 / rate;
      x = static_cast<float>(1500 * l.time) + (i % 2 == 0 ? 1.5f : -1.5f);
      (void)l.at(PointerPhase::move, x, 0);
    }
    const auto last = l.reader.read({.phase = PointerPhase::up, .at = {x, 0}, .time = l.time});
    CAPTURE(rate);
    REQUIRE(last.size() == 1);
    CHECK(last[0].kind == GestureKind::flick);
    CHECK(last[0].velocity.x == Approx(1500).epsilon(0.06));
  }
}

TEST_CASE(
    "gesture: random inputs of many pointers: every press ends in exactly one way, all deadlines are met") {
  for_all("pointers", 20, [](Random& r) {
    Listener l;
    std::map<std::uint32_t, int> down;
    std::map<std::uint32_t, bool> dragging;
    double said_until = 0;
    const auto hear = [&](std::span<const Gesture> gestures) {
      for (const Gesture& g : gestures) {
        RC_ASSERT(is_finite(g.at));
        RC_ASSERT(g.time <= l.time);
        switch (g.kind) {
          case GestureKind::press:
            RC_ASSERT(down[g.pointer]++ == 0);
            break;
          case GestureKind::drag_start:
            RC_ASSERT(down[g.pointer] == 1 && !dragging[g.pointer]);
            dragging[g.pointer] = true;
            break;
          case GestureKind::drag_move:
            RC_ASSERT(dragging[g.pointer]);
            break;
          case GestureKind::long_press:
            RC_ASSERT(down[g.pointer] == 1 && !dragging[g.pointer]);
            break;
          case GestureKind::drag_end:
          case GestureKind::flick:
            RC_ASSERT(std::exchange(dragging[g.pointer], false));
            RC_ASSERT(--down[g.pointer] == 0);
            break;
          case GestureKind::cancel:
          case GestureKind::release:
            dragging[g.pointer] = false;
            RC_ASSERT(--down[g.pointer] == 0);
            break;
          case GestureKind::tap:
          case GestureKind::double_tap:
            RC_ASSERT(!dragging[g.pointer]);
            if (g.time == l.time && down[g.pointer] == 1) --down[g.pointer];
            break;
          case GestureKind::hover:
            RC_ASSERT(down[g.pointer] == 0);
            break;
          case GestureKind::leave:
            break;
        }
      }
      said_until = l.time;
    };
    for (int i = 0; i < 300; ++i) {
      const double next = l.time + double{r.uniform(0, 0.3f)};
      while (l.reader.due() <= next) {
        l.time = std::max(l.time, l.reader.due());
        hear(l.reader.advance_to(l.time));
        RC_ASSERT(l.reader.due() > l.time);
      }
      l.time = next;
      hear(l.reader.read({.phase = static_cast<PointerPhase>(r.below(5)),
                          .at = {r.uniform(0, 60), r.uniform(0, 60)},
                          .time = l.time,
                          .pointer = static_cast<std::uint32_t>(r.below(3)),
                          .kind = static_cast<PointerKind>(r.below(3)),
                          .button = r.chance(0.9f) ? PointerButton::primary : PointerButton::secondary}));
    }
  });
}

TEST_CASE("gesture: inputs that are not finite mean nothing, and thresholds have a range") {
  Listener l;
  CHECK(l.at(PointerPhase::down, NAN, 0).empty());
  CHECK_FALSE(l.reader.pressed());
  CHECK_THROWS_WITH(GestureReader({.mouse_slop = -1}),
                    "gesture thresholds: mouse_slop is -1: 0 to 1000 is expected");
  CHECK_THROWS_WITH(GestureReader({.flick_seconds = 0}),
                    "gesture thresholds: flick_seconds is 0: 0.005 to 1 is expected");
}

TEST_CASE(
    "gesture: a finger may tremble within its own slop, a mouse and a pen within theirs, until it lets go") {
  for (const PointerKind kind : {PointerKind::mouse, PointerKind::pen, PointerKind::touch}) {
    const float slop = kind == PointerKind::touch ? 10.0f : 4.0f;
    const std::string gone = kind == PointerKind::touch ? " leave" : "";
    for (const float far : {slop - 0.1f, slop + 0.1f}) {
      Listener l;
      (void)l.tell({.phase = PointerPhase::down, .kind = kind});
      // Let go there, without a move between.
      const std::string end = l.tell({.phase = PointerPhase::up, .at = {far, 0}, .kind = kind});
      CHECK(end == (far < slop ? "tap" : "drag_start drag_end") + gone);
    }
  }
}

TEST_CASE("gesture: a long press comes at its time, however the finger trembles while it holds") {
  for (const PointerKind kind : {PointerKind::mouse, PointerKind::touch}) {
    Listener l;
    (void)l.tell({.phase = PointerPhase::down, .kind = kind});
    for (int i = 1; i <= 9; ++i) {
      CHECK(l.wait(0.05).empty());
      CHECK(
          l.tell({.phase = PointerPhase::move, .at = {i % 2 == 0 ? 3.0f : -3.0f, 0}, .kind = kind}).empty());
      CHECK(l.reader.due() == Approx(0.5));
    }
    CHECK(l.wait(0.06) == "long_press");
    CHECK(l.tell({.phase = PointerPhase::up, .kind = kind}).starts_with("release"));
  }
}

TEST_CASE(
    "gesture: two taps are a double tap by the time between their ends, however long each was pressed") {
  for (const double between : {0.29, 0.31}) {
    Listener l;
    const auto press = [&](double seconds) {
      (void)l.at(PointerPhase::down, 0, 0);
      l.reader.want_double_tap(0);
      std::string said = l.wait(seconds);
      said += l.at(PointerPhase::up, 0, 0);
      return said;
    };
    CHECK(press(0.25).empty());
    (void)l.wait(between - 0.25);
    const std::string second = press(0.25);
    CHECK((second.find("double_tap") != std::string::npos) == (between < 0.3));
  }
}

TEST_CASE("gesture: each threshold is where it is set, for the pointer that it is of") {
  const auto with = [](const GestureThresholds& thresholds) {
    Listener l;
    l.reader.set_thresholds(thresholds);
    return l;
  };
  for (const auto& [kind, slop] :
       {std::pair(PointerKind::mouse, 6.0f), std::pair(PointerKind::touch, 15.0f)}) {
    Listener l = with({.mouse_slop = 6, .touch_slop = 15});
    const auto move = [&, of = kind](float x) {
      return l.tell({.phase = PointerPhase::move, .at = {x, 0}, .kind = of});
    };
    (void)l.tell({.phase = PointerPhase::down, .at = {0, 0}, .kind = kind});
    CHECK(move(slop - 0.5f).find("drag_start") == std::string::npos);
    CHECK(move(slop + 0.5f).find("drag_start") != std::string::npos);
  }
  {
    Listener l = with({.long_press_seconds = 0.8});
    (void)l.at(PointerPhase::down, 0, 0);
    CHECK(l.wait(0.79).empty());
    CHECK(l.wait(0.02) == "long_press");
  }
  for (const double between : {0.45, 0.55}) {
    for (const float apart : {30.0f, 50.0f}) {
      Listener l = with({.double_tap_seconds = 0.5, .double_tap_distance = 40});
      const auto tap = [&](float x) {
        (void)l.at(PointerPhase::down, x, 0);
        l.reader.want_double_tap(0);
        return l.at(PointerPhase::up, x, 0);
      };
      (void)tap(0);
      (void)l.wait(between);
      CHECK((tap(apart).find("double_tap") != std::string::npos) == (between < 0.5 && apart < 40));
    }
  }
  // A pointer that goes at a speed for a fifth of a second, and stands still for some time before it is let
  // go.
  const auto let_go = [&](const GestureThresholds& thresholds, float speed, double stands) {
    Listener l = with(thresholds);
    (void)l.at(PointerPhase::down, 0, 0);
    float x = 0;
    const auto go_on = [&](double seconds, float by) {
      for (double t = 0; t < seconds - 1e-9; t += 0.05) {
        l.time += 0.05;
        x += by * 0.05f;
        (void)l.at(PointerPhase::move, x, 0);
      }
    };
    go_on(0.2, speed);
    go_on(stands, 0);
    return l.at(PointerPhase::up, x, 0);
  };
  CHECK(let_go({.flick_speed = 300}, 330, 0).find("flick") != std::string::npos);
  CHECK(let_go({.flick_speed = 300}, 270, 0).find("flick") == std::string::npos);
  CHECK(let_go({.flick_seconds = 0.05}, 3000, 0.1).find("flick") == std::string::npos);
  CHECK(let_go({.flick_seconds = 0.25}, 3000, 0.1).find("flick") != std::string::npos);
}
