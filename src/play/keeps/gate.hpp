#pragma once
// What opens and closes input. Not installed.
#include <cstdint>
#include <span>
#include <string>
#include <string_view>

#include "apsidon/gesture/pointer.hpp"
#include "play/keeps/reasons.hpp"

namespace apsidon::play_detail {

/// Invariant: open exactly while no reason holds it closed, and undo lets exactly while none forbids it.
class Gate {
 public:
  /// `lasts`: from round to round. Returns whether the reason is a new one.
  bool close(std::string_view reason, bool lasts = false) { return reasons_.give(reason, lasts); }
  void end_round() {
    reasons_.end_round();
    no_undo_.end_round();
  }
  void open(std::string_view reason) { reasons_.release(reason); }
  [[nodiscard]] bool is_open() const { return !reasons_.any(); }
  [[nodiscard]] bool closed_for(std::string_view reason) const { return reasons_.has(reason); }
  [[nodiscard]] std::span<const std::string> reasons() const { return reasons_.all(); }

  /// Whether what was done may be taken back.
  void forbid_undo(std::string_view reason, bool lasts) { (void)no_undo_.give(reason, lasts); }
  void allow_undo(std::string_view reason) { (void)no_undo_.release(reason); }
  [[nodiscard]] bool lets_undo() const { return !no_undo_.any(); }
  /// For which it may not.
  [[nodiscard]] std::span<const std::string> undo_reasons() const { return no_undo_.all(); }

  /// Whether presses of this button are told even while it is closed.
  [[nodiscard]] bool lets_through(PointerButton button) const { return (through_ & bit(button)) != 0; }
  void let_through(PointerButton button, bool on) {
    through_ = static_cast<std::uint8_t>(on ? through_ | bit(button) : through_ & ~bit(button));
  }

 private:
  static constexpr std::uint8_t bit(PointerButton button) {
    return static_cast<std::uint8_t>(1u << static_cast<unsigned>(button));
  }

  Reasons reasons_ = {};
  Reasons no_undo_ = {};
  std::uint8_t through_ = 0;  // a bit for each button
};

}  // namespace apsidon::play_detail
