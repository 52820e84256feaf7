#pragma once
// What keys act on. Not installed.
#include <cstdint>
#include <optional>
#include <vector>

#include "apsidon/play/handling.hpp"
#include "apsidon/play/hit.hpp"
#include "apsidon/play/input.hpp"
#include "play/arrangement.hpp"
#include "play/event_queue.hpp"
#include "play/hand.hpp"
#include "play/panels.hpp"
#include "play/referee.hpp"

namespace apsidon::play_detail {

/// What a key asks for.
enum class KeyRequest : std::uint8_t {
  unused,     ///< the key means nothing now
  moved,      ///< the focus has moved, or has not found where to
  put_back,   ///< what is carried, by keys or not
  drop,       ///< the run that the keys carry goes where they aim
  act,        ///< a tap on what is focused
  act_twice,  ///< a double tap
  unfocus,
  undo,
  redo,
};

/// What the focus looks at, and when.
struct FocusView {
  const TableSetup& setup;
  const Panels& panels;
  const Arrangement& arrangement;
  const Referee& referee;
  const Hand::Carry& carry;
  double time;
};

/// Invariant: the focus is on something that keys can act on, or on nothing; it is told once whenever it
/// changes.
class Focus {
 public:
  [[nodiscard]] const Hit& on() const { return on_; }
  [[nodiscard]] bool any() const { return on_ != Hit{}; }
  [[nodiscard]] Vec2 at() const { return at_; }
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  /// Moves the focus, or says what else the key asks for.
  KeyRequest read(const KeyInput& input, const FocusView& view, EventQueue& events);
  /// A focus whose card has gone, or can no longer be acted on, finds the nearest that can.
  void keep(const FocusView& view, EventQueue& events);
  void set(const Hit& what, const FocusView& view, EventQueue& events);

 private:
  struct Candidate {
    Hit what;
    Vec2 middle;
  };
  void gather(const FocusView& view);
  void move(Vec2 direction, const FocusView& view, EventQueue& events);
  void step(int by, const FocusView& view, EventQueue& events);

  Hit on_ = {};
  Vec2 at_ = {};
  std::vector<Candidate> candidates_ = {};  // scratch
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
