#pragma once
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/rules/rule.hpp"

namespace apsidon {

/// What may be done, and why not: `field.rules().judge_pick(card)`.
class APSIDON_CORE_EXPORT RulesView {
 public:
  explicit RulesView(const play_detail::Impl& field) : field_(&field) {}

  /// What the rules say, and whether the cards wait for an answer.
  [[nodiscard]] PickVerdict judge_pick(CardId card) const;
  [[nodiscard]] Verdict judge_drop(const Run& run, ZoneId to) const;
  [[nodiscard]] Verdict judge_stock(ZoneId stock) const;
  /// All that the player may do. O(cards * zones).
  [[nodiscard]] std::vector<LegalMove> legal_moves() const;

 private:
  const play_detail::Impl* field_;
};

}  // namespace apsidon
