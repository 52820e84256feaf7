// The loop of a game, with a window that is only a script here: what a window of your own has to do is five
// functions. It sleeps until something is due, and prints when it woke.
#include <cstdio>
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

namespace {

/// Stands for your window: its clock, its events, its drawing.
class Window {
 public:
  explicit Window(std::vector<PointerInput> coming) : coming_(std::move(coming)) {}

  [[nodiscard]] bool open() const { return now_ < 4; }
  [[nodiscard]] double now() const { return now_; }
  /// What came in since it was asked last.
  std::vector<PointerInput> events() {
    std::vector<PointerInput> came;
    while (!coming_.empty() && coming_.front().time <= now_) {
      came.push_back(coming_.front());
      coming_.erase(coming_.begin());
    }
    return came;
  }
  void draw(const Frame&) { ++frames_; }
  /// Until then, or until something comes in; at 60 frames a second while something moves.
  void sleep_until(double due) {
    const double next_frame = now_ + 1.0 / 60;
    const double comes_in = coming_.empty() ? 4 : coming_.front().time;
    now_ = due <= now_ ? next_frame : std::min(due, comes_in);
    ++wakes_;
  }
  [[nodiscard]] int frames() const { return frames_; }
  [[nodiscard]] int wakes() const { return wakes_; }

 private:
  std::vector<PointerInput> coming_;
  double now_ = 0;
  int frames_ = 0;
  int wakes_ = 0;
};

TableSetup two_beds() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3"}}));
  const auto bed = [&](const char* name) {
    return setup.add({.name = name,
                      .layout = {.kind = PileLayout{}, .longest = 3},
                      .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything()}});
  };
  const ZoneId left = bed("left"), right = bed("right");
  setup.plans = {{.root = across({zone(left), zone(right)}), .largest_width = 100}};
  setup.add_deck(left, {.face_up = true});
  return setup;
}

}  // namespace

int main() {
  Playfield field(two_beds(), {.window = {400, 200}});
  const Vec2 from = field.where().area({1})->centre(), to = field.where().area({2})->centre();
  Window window({{.phase = PointerPhase::down, .at = from, .time = 1},
                 {.phase = PointerPhase::move, .at = to, .time = 1.2},
                 {.phase = PointerPhase::up, .at = to, .time = 1.3}});
  field.time().start_timer(3);
  std::uint64_t drawn = 0;
  while (window.open()) {
    for (const PointerInput& input : window.events()) field.pointer(input);
    while (const auto event = field.next_event(window.now())) {
      // The game answers here: the playfield stands at the event's own time.
      std::printf("%.2f s  %s\n", event->time, std::string(name_of(event->kind)).c_str());
    }
    if (const Frame& frame = field.frame(); frame.revision != drawn) {
      window.draw(frame);
      drawn = frame.revision;
    }
    window.sleep_until(field.next_due());
  }
  std::printf("%d frames drawn, and woken %d times in 4 s\n", window.frames(), window.wakes());
}
