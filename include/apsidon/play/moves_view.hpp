#pragma once
#include <cstdint>
#include <span>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/play/judge.hpp"

namespace apsidon {

/// What was moved, and what waits: `field.moves().can_undo()`.
class APSIDON_CORE_EXPORT MovesView {
 public:
  explicit MovesView(const play_detail::Impl& field) : field_(&field) {}

  [[nodiscard]] bool can_undo() const;
  [[nodiscard]] bool can_redo() const;
  /// The proposals that wait for an answer. Valid until the next call of the playfield that is not const.
  [[nodiscard]] std::span<const Proposal> waiting() const;

 private:
  const play_detail::Impl* field_;
};

/// Moves that the player could make, made for them: judged, and with their consequences.
class APSIDON_CORE_EXPORT MovesCalls : public MovesView {
 public:
  explicit MovesCalls(play_detail::Impl& field) : MovesView(field), field_(&field) {}

  /// Takes from a stock, or recycles its waste into it.
  Verdict draw_from(ZoneId stock);
  /// Moves the run from a card to the zone that takes it: one that takes by itself, else one with cards, else
  /// an empty one; the first of those in the order of the table.
  Verdict send_to_best(CardId card);
  Verdict undo();
  Verdict redo();

  /// Every drop is a proposal. The rules answer at once; what they allow, the game may answer too, now or
  /// later.
  void set_judge(Judge judge);
  /// Answers a proposal that waits. A refused verdict puts the cards back; an allowed one is applied to the
  /// table as it is now, or the proposal ends as superseded: what is returned says so.
  Verdict answer(std::uint64_t proposal, const Verdict& verdict = {});

 private:
  play_detail::Impl* field_;
};

}  // namespace apsidon
