#include "apsidon/play/performances_view.hpp"

#include <utility>

#include "play/impl.hpp"

namespace apsidon {

bool PerformancesView::running(PerformanceId id) const { return field_->performances.running(id); }
const Feel& PerformancesView::feel() const { return field_->feel(); }

PerformanceId PerformancesCalls::perform(const Script& script) { return field_->perform(script); }
PerformanceId PerformancesCalls::deal() { return field_->perform(apsidon::deal()); }
void PerformancesCalls::shake(CardId card) { field_->shake(card); }
void PerformancesCalls::pulse(CardId card) {
  field_->start_effect(card, field_->feel().pulse, EffectKind::pulse, 0);
}
void PerformancesCalls::skip(PerformanceId id) { field_->skip(id); }
void PerformancesCalls::stop(PerformanceId id) { field_->stop(id); }

void PerformancesCalls::set_speed(PerformanceId id, double speed) {
  if (!(speed >= 0 && speed <= 1000)) {
    ++field_->client.ignored;
  } else if (field_->performances.running(id)) {
    field_->traffic.set_clock_speed(field_->performances.clock_of(id), speed);
  }
}

void PerformancesCalls::set_feel(Feel feel) {
  check(feel);
  field_->client.feel = std::move(feel);
}

}  // namespace apsidon
