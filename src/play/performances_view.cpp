#include "apsidon/play/performances_view.hpp"

#include <utility>

#include "play/impl.hpp"

namespace apsidon {

bool PerformancesView::running(PerformanceId id) const { return field_->performances.running(id); }
const Feel& PerformancesView::feel() const { return field_->feel(); }

PerformanceId PerformancesCalls::perform(const Script& script, const PerformOptions& options) {
  return {static_cast<std::uint32_t>(field_->call(script, options.closes_gate).id)};
}
PerformanceId PerformancesCalls::deal() { return perform(apsidon::deal()); }
Verdict PerformancesCalls::shake(CardId card, const std::optional<CardEffect>& effect) {
  return field_->call(PerformanceInput{.what = PerformanceInput::What::shake, .card = card, .effect = effect})
      .verdict;
}
Verdict PerformancesCalls::pulse(CardId card, const std::optional<CardEffect>& effect) {
  return field_->call(PerformanceInput{.what = PerformanceInput::What::pulse, .card = card, .effect = effect})
      .verdict;
}
Verdict PerformancesCalls::skip(PerformanceId id) {
  return field_->call(PerformanceInput{.what = PerformanceInput::What::skip, .performance = id}).verdict;
}
Verdict PerformancesCalls::stop(PerformanceId id) {
  return field_->call(PerformanceInput{.what = PerformanceInput::What::stop, .performance = id}).verdict;
}
Verdict PerformancesCalls::set_speed(PerformanceId id, double speed) {
  return field_
      ->call(PerformanceInput{.what = PerformanceInput::What::speed, .performance = id, .speed = speed})
      .verdict;
}
Verdict PerformancesCalls::set_feel(Feel feel) {
  return field_->call(FeelInput{.feel = std::move(feel)}).verdict;
}

}  // namespace apsidon
