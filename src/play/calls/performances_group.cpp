#include "apsidon/play/performances_group.hpp"

#include <utility>

#include "geometry/thrown.hpp"
#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

bool PerformancesGroup::running(PerformanceId id) const { return field()->performances.running(id); }
const Feel& PerformancesGroup::feel() const { return field()->feel(); }

PerformanceId PerformancesGroup::perform(const Script& script, const PerformOptions& options) {
  return {static_cast<std::uint32_t>(field()->call(script, options.closes_gate).id)};
}
PerformanceId PerformancesGroup::deal() { return perform(apsidon::deal()); }
Verdict PerformancesGroup::shake(CardId card, const std::optional<CardEffect>& effect) {
  return field()
      ->call(PerformanceInput{.what = PerformanceInput::What::shake, .card = card, .effect = effect})
      .verdict;
}
Verdict PerformancesGroup::pulse(CardId card, const std::optional<CardEffect>& effect) {
  return field()
      ->call(PerformanceInput{.what = PerformanceInput::What::pulse, .card = card, .effect = effect})
      .verdict;
}
Verdict PerformancesGroup::behind(PerformanceId id, const std::function<void()>& calls) {
  if (!calls) return {};
  const PerformanceId outer = std::exchange(field()->behind, running(id) ? id : PerformanceId{});
  const auto thrown = geometry_detail::thrown_by(calls);
  field()->behind = outer;
  if (!thrown) return {};
  return {.reason = Reason::game_failed, .arguments = {{"problem", *thrown}}};
}
Verdict PerformancesGroup::skip(PerformanceId id) {
  return field()->call(PerformanceInput{.what = PerformanceInput::What::skip, .performance = id}).verdict;
}
Verdict PerformancesGroup::stop(PerformanceId id) {
  return field()->call(PerformanceInput{.what = PerformanceInput::What::stop, .performance = id}).verdict;
}
Verdict PerformancesGroup::set_speed(PerformanceId id, double speed) {
  return field()
      ->call(PerformanceInput{.what = PerformanceInput::What::speed, .performance = id, .speed = speed})
      .verdict;
}
Verdict PerformancesGroup::set_feel(Feel feel) {
  return field()->call(FeelInput{.feel = std::move(feel)}).verdict;
}

}  // namespace apsidon
