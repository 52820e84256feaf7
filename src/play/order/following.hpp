#pragma once
// What follows a change. Not installed.
#include <cstddef>
#include <span>
#include <utility>

#include "apsidon/geometry/vec2.hpp"
#include "apsidon/motion/glide.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/switchable.hpp"
#include "play/requests/hover.hpp"
#include "play/values/shift.hpp"

namespace apsidon::play_detail {

struct Impl;

/// A change, while all that follows it is done: begun with who sends the cards that it moves (the feel, or an
/// act, which finds them here when it is over). Who has changed something says what; what has to be looked at
/// again for that, and in which order, is known here alone.
///
/// Invariant: after each call the cards rest where the table and the room have them, and what is carried,
/// hovered and focused is there to be so.
class Following {
 public:
  explicit Following(Impl& field, Sender by = {}) : field_(field), by_(std::move(by)) {}
  Following(const Following&) = delete;
  Following& operator=(const Following&) = delete;

  /// The table has changed: torn carries and proposals end, zones are laid out, and all that is carried,
  /// hovered or focused is looked at again.
  void table_changed();
  /// So it has, but cards alone are shown where they lie now; the rest is to follow.
  void lay_out();
  /// Cards rest elsewhere.
  void send(std::span<const Shift> shifts, Change change);
  /// Others are raised, inserted or held: the layouts make room for them.
  void make_room();
  /// What may be done has changed: all that was asked of rules is asked anew.
  void ask_again();
  /// Likewise for what is carried alone: it finds its targets and its aim again, where it is, and is held as
  /// it would lie there.
  void aim_carries_again();
  /// The focus has moved: what the keys carry aims at where it is.
  void aim_keys();
  /// Another card is hovered, or none.
  void hover_changed(const HoverChange& change);
  void set_hovered(CardId card);
  /// What lies under a pointer that rests may be another.
  void consider_hover();
  /// What is switched off or hidden shows so, wherever it lies by now.
  void show_switches();
  void show_switch(Switchable what);

  /// Ends a carry that moved nothing: the cards go home, each by itself, for the game may have torn the run
  /// apart.
  void put_back(const Event& event);
  void cancel_carry(Vec2 at, CancelCause cause);
  void cancel_all(CancelCause cause);
  /// What is in the hand is so no more; another pointer's goes on.
  void forget_carry();

  /// How a card rises in place: no further than the window shows it.
  [[nodiscard]] Offset risen_in_window(std::size_t slot) const;
  /// The cards that an act is to send.
  [[nodiscard]] std::vector<Shift>& for_act() { return by_.for_act; }

 private:
  void cancel_torn();
  void supersede_torn();
  void hold_again();
  bool keep_chosen();

  Impl& field_;
  Sender by_;
};

}  // namespace apsidon::play_detail
