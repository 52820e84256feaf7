#pragma once
#include <cstdint>
#include <memory>
#include <string>
#include <string_view>
#include <variant>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/geometry/rect.hpp"
#include "apsidon/gesture/pointer.hpp"

namespace apsidon {

// What an input may hold. One that holds anything else cannot be meant: it is ignored and counted.

/// How far from 0 a point may be, and how long a side, px.
inline constexpr double most_input_px = 1e7;
/// How far from 0 a time may be, seconds: milliseconds since 1970 are within it, too.
inline constexpr double most_input_seconds = 1e13;
/// Device pixels in a logical one.
inline constexpr double least_pixel_ratio = 0.01;
/// Likewise, at most.
inline constexpr double most_pixel_ratio = 100;
/// How many times as fast as the inputs a clock may go.
inline constexpr double most_speed = 1000;

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
  send,      ///< what is focused goes to where it goes by itself
  send_top,  ///< so does the top card of the first zone of the table's `send_top_of` that has somewhere to go
};

/// A key that the table knows.
struct KeyInput {
  Key key = Key::act;   ///< which one
  double time = 0;      ///< seconds
  bool repeat = false;  ///< sent again because the key is held down

  friend bool operator==(const KeyInput&, const KeyInput&) = default;
};

/// The window has another size.
struct ResizeInput {
  Size window = {};       ///< logical px
  float pixel_ratio = 1;  ///< device pixels per logical px
  double time = 0;        ///< seconds
  Insets insets = {};     ///< kept free of cards and panels: a notch, bars of the system

  friend bool operator==(const ResizeInput&, const ResizeInput&) = default;
};

/// The window lost the player's attention: presses and drags are lost, nothing is hovered.
struct BlurInput {
  double time = 0;  ///< seconds

  friend bool operator==(const BlurInput&, const BlurInput&) = default;
};

/// A gate closes or opens, a clock is held or released, or undo is forbidden or allowed again, for a reason.
struct ReasonInput {
  /// Which call it is.
  enum class What : std::uint8_t { close_gate, open_gate, hold, release, forbid_undo, allow_undo };
  What what = What::close_gate;  ///< which call it is
  std::string reason = {};       ///< the game's own word for it
  bool lasts = false;            ///< of close_gate and forbid_undo: from round to round
  double time = 0;               ///< seconds

  friend bool operator==(const ReasonInput&, const ReasonInput&) = default;
};

/// A call of a group as a value, or what the game answered when it was asked: what a recorder hears, what a
/// line of a log is read as (`parse_input`), and what `Playfield::call` takes. What is in it, its text says
/// (`write_input`).
class APSIDON_CORE_EXPORT CallInput {
 public:
  /// Made by the library, from a call or a line of a log.
  explicit CallInput(play_detail::AnyInput input);
  /// What is in it, for the library.
  [[nodiscard]] const play_detail::AnyInput& any() const { return *any_; }

  friend APSIDON_CORE_EXPORT bool operator==(const CallInput& a, const CallInput& b);

 private:
  std::shared_ptr<const play_detail::AnyInput> any_;
};

/// One input of a playfield, with its time. A log of them replays the session. What the player does with
/// pointers and keys is an input, what the window does, and every call of the game that changes something;
/// and what the game answered when it was asked.
struct Input : std::variant<PointerInput, KeyInput, ResizeInput, BlurInput, ReasonInput, CallInput> {
  using variant::variant;
};

/// Seconds.
[[nodiscard]] APSIDON_CORE_EXPORT double time_of(const Input& input);
/// The same input at another time.
[[nodiscard]] APSIDON_CORE_EXPORT Input at_time(const Input& input, double time);
/// What kind it is, as a log has it: "pointer", "close_gate", "move".
[[nodiscard]] APSIDON_CORE_EXPORT std::string_view name_of(const Input& input);

}  // namespace apsidon
