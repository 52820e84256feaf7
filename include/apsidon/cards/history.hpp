#pragma once
#include <cstddef>
#include <deque>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

/// The moves of a table, to be undone and redone: where cards lay and how, not what their faces are (what a
/// player has seen stays seen). It looks at the table when told to, and keeps of each step the zones that
/// have changed.
class APSIDON_CORE_EXPORT History {
 public:
  /// Keeps the last `most` steps, at least one.
  explicit History(std::size_t most = 1000) : most_(most > 0 ? most : 1) {}

  /// Forgets all steps; the table as it is now is where the next one begins.
  void start(const Table& table);
  /// What has changed since it last looked becomes a step, or a part of the last one when `belongs`; nothing
  /// becomes nothing, and a step whose parts come to nothing is forgotten. Ends what could be redone. A
  /// change that brought cards or took them away cannot be undone, and ends what could be. O(zones + cards of
  /// those that changed).
  void note(const Table& table, bool belongs = false);
  [[nodiscard]] bool can_undo() const { return done_ > 0; }
  [[nodiscard]] bool can_redo() const { return done_ < steps_.size(); }
  /// Takes the last step back. What has changed since it last looked goes back with it.
  Verdict undo(Table& table);
  Verdict redo(Table& table);

 private:
  struct Step {
    std::vector<ZoneContents> before, after;
  };
  [[nodiscard]] Step changes(const Table& table) const;
  void look(const Table& table);

  std::size_t most_;
  std::deque<Step> steps_ = {};
  std::size_t done_ = 0;                 // steps that can be undone; those after them can be redone
  std::vector<ZoneContents> seen_ = {};  // by zone
  std::vector<std::uint64_t> at_ = {};   // by zone: its revision then
};

}  // namespace apsidon
