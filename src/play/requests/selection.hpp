#pragma once
// The cards that the player has chosen. Not installed.
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "play/decides/referee.hpp"
#include "play/keeps/arrangement.hpp"
#include "play/keeps/event_queue.hpp"

namespace apsidon::play_detail {

/// What is chosen, in the order of choosing. It asks the referee, and changes nothing on the table.
///
/// Invariant: the rules let all of it be chosen in this order, and each card lies in the zone where it was
/// chosen; each change is told by one event.
class Selection {
 public:
  [[nodiscard]] std::span<const CardId> cards() const { return cards_; }
  [[nodiscard]] bool has(CardId card) const;
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  /// Whether it may be chosen, with what is chosen already; a card that is chosen may.
  [[nodiscard]] Verdict judge(CardId card, const Table& table, const Rulebook& rules) const;
  /// Chooses it; refused where the rules refuse it. A card that is chosen stays so.
  Verdict select(CardId card, const Referee& referee, double time, EventQueue& events);
  void deselect(CardId card, const Referee& referee, double time, EventQueue& events);
  void clear(const Referee& referee, double time, EventQueue& events);
  /// All is told of that is chosen, as by a table of before that is there again.
  void tell_again(const Referee& referee, double time, EventQueue& events);
  /// What could not be chosen any more, as things are now, is not.
  void keep(const Referee& referee, double time, EventQueue& events);

  // A rectangle that a pointer draws from an empty place: what lies in it is chosen, beside what was.

  void begin_sweep(std::uint32_t pointer, Vec2 from);
  [[nodiscard]] bool sweeps(std::uint32_t pointer) const { return sweep_ && sweep_->pointer == pointer; }
  /// Empty when none is drawn.
  [[nodiscard]] Rect swept() const { return sweep_ ? sweep_->box : Rect{}; }
  /// The rectangle reaches as far as this: of the cards that may be chosen those whose middles lie in it are.
  void sweep_to(Vec2 at, const Arrangement& arrangement, const Referee& referee, double time,
                EventQueue& events);
  void end_sweep();

 private:
  struct Sweep {
    std::uint32_t pointer = 0;
    Vec2 from = {};
    Rect box = {};
    std::vector<CardId> before = {};  // chosen already
  };
  void tell(EventKind kind, CardId card, std::size_t count, const Referee& referee, double time,
            EventQueue& events) const;

  std::vector<CardId> cards_ = {};
  std::vector<ZoneId> zones_ = {};  // where each was chosen
  std::optional<Sweep> sweep_ = {};
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
