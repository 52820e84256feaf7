#pragma once
#include <cstdint>
#include <string>
#include <variant>
#include <vector>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/cards/wanted.hpp"
#include "apsidon/geometry/rect.hpp"
#include "apsidon/gesture/pointer.hpp"

namespace apsidon {

/// What a key or a pad's button means; which one that is is the client's.
enum class Key : std::uint8_t {
  left,
  right,
  up,
  down,
  next,      ///< the next place in the order of the table
  previous,  ///< the one before
  act,       ///< pick up, drop, tap
  second,    ///< what a double tap does
  cancel,    ///< put back; no focus any more
  undo,
  redo,
};

struct KeyInput {
  Key key = Key::act;
  double time = 0;      ///< seconds
  bool repeat = false;  ///< sent again because the key is held down

  friend bool operator==(const KeyInput&, const KeyInput&) = default;
};

struct ResizeInput {
  Size window = {};
  float pixel_ratio = 1;
  double time = 0;
  Insets insets = {};

  friend bool operator==(const ResizeInput&, const ResizeInput&) = default;
};

/// The window lost the player's attention: presses and drags are lost, nothing is hovered.
struct BlurInput {
  double time = 0;

  friend bool operator==(const BlurInput&, const BlurInput&) = default;
};

/// A gate closes or opens, or a clock is held or released, for a reason.
struct ReasonInput {
  enum class What : std::uint8_t { close_gate, open_gate, hold, release };
  What what = What::close_gate;
  std::string reason = {};
  double time = 0;

  friend bool operator==(const ReasonInput&, const ReasonInput&) = default;
};

/// The game's answer to a proposal.
struct AnswerInput {
  std::uint64_t proposal = 0;
  Verdict verdict = {};
  double time = 0;

  friend bool operator==(const AnswerInput&, const AnswerInput&) = default;
};

/// What should lie where, by the game's own keys.
struct SyncInput {
  std::vector<WantedZone> wanted = {};
  double time = 0;

  friend bool operator==(const SyncInput&, const SyncInput&) = default;
};

/// The last move is taken back or made again by a call: by a button of the client's, say. Unlike the key, it
/// does not ask the gate.
struct UndoInput {
  bool redo = false;
  double time = 0;

  friend bool operator==(const UndoInput&, const UndoInput&) = default;
};

/// A new round, dealt by this seed.
struct RoundInput {
  std::uint64_t seed = 0;
  double time = 0;

  friend bool operator==(const RoundInput&, const RoundInput&) = default;
};

/// One input of a playfield, with its time. A log of them replays the session.
struct Input : std::variant<PointerInput, KeyInput, ResizeInput, BlurInput, ReasonInput, AnswerInput,
                            SyncInput, UndoInput, RoundInput> {
  using variant::variant;
};

[[nodiscard]] inline double time_of(const Input& input) {
  return std::visit([](const auto& i) { return i.time; }, input);
}

}  // namespace apsidon
