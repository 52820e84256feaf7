#pragma once
#include <cstddef>
#include <cstdint>
#include <deque>
#include <optional>
#include <utility>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

namespace cards_detail {

/// A card that is not on the table, and how it would lie.
using KeptCard = std::pair<CardId, CardOptions>;

/// Whose turn it is, and the numbers of the table and, after them, of each seat.
struct Sides {
  std::vector<SeatId> turn = {};
  std::vector<Numbers> numbers = {};

  friend bool operator==(const Sides&, const Sides&) = default;
};

}  // namespace cards_detail

/// The moves of a table, to be undone and redone: which cards there were, where they lay and how, the
/// numbers, and whose turn it was; not what their faces are (what a player has seen stays seen). It looks at
/// the table when told to, and keeps of each step what has changed.
class APSIDON_CORE_EXPORT History {
 public:
  /// Keeps the last `most` steps, at least one.
  explicit History(std::size_t most = 1000) : most_(most > 0 ? most : 1) {}

  /// Forgets all steps; the table as it is now is where the next one begins.
  void start(const Table& table);
  /// What has changed since it last looked becomes a step, or a part of the last one when `belongs`; nothing
  /// becomes nothing, and a step whose parts come to nothing is forgotten. Ends what could be redone. Cards
  /// that came are taken away with it, and cards that were taken away come back, with their ids; after more
  /// than 10,000 of those at once nothing can be undone any more. O(zones + cards of those that changed).
  void note(const Table& table, bool belongs = false);
  /// Whether there is a step to take back.
  [[nodiscard]] bool can_undo() const { return done_ > 0; }
  /// Whether a step was taken back, and none was made since.
  [[nodiscard]] bool can_redo() const { return done_ < steps_.size(); }
  /// Takes the last step back. What has changed since it last looked goes back with it.
  Verdict undo(Table& table);
  /// Makes the step again that was taken back last.
  Verdict redo(Table& table);

 private:
  struct State {
    std::vector<ZoneContents> zones = {};           // those that have changed
    std::optional<cards_detail::Sides> sides = {};  // none: they have not

    friend bool operator==(const State&, const State&) = default;
  };
  struct Step {
    State before = {}, after = {};
    std::vector<cards_detail::KeptCard> left = {}, came = {};  // in the order of ids
  };
  [[nodiscard]] std::optional<Step> changes(const Table& table) const;
  void look(const Table& table);
  static void join(Step& last, Step&& step);
  static Verdict go(Table& table, Step& step, bool back);

  std::size_t most_;
  std::deque<Step> steps_ = {};
  std::size_t done_ = 0;                 // steps that can be undone; those after them can be redone
  std::vector<ZoneContents> seen_ = {};  // by zone
  std::vector<std::uint64_t> at_ = {};   // by zone: its revision then
  cards_detail::Sides sides_ = {};
  std::uint64_t sides_at_ = 0;  // their revision then
};

}  // namespace apsidon
