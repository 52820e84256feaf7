#include "apsidon/play/gate_view.hpp"

#include "play/impl.hpp"

namespace apsidon {

bool GateView::is_open() const { return field_->gate.is_open(); }
bool GateView::closed_for(std::string_view reason) const { return field_->gate.closed_for(reason); }
std::span<const std::string> GateView::reasons() const { return field_->gate.reasons(); }

void GateCalls::close(std::string_view reason, bool lasts) {
  (void)field_->call(
      ReasonInput{.what = ReasonInput::What::close_gate, .reason = std::string(reason), .lasts = lasts});
}
void GateCalls::open(std::string_view reason) {
  (void)field_->call(ReasonInput{.what = ReasonInput::What::open_gate, .reason = std::string(reason)});
}

void GateCalls::let_through(PointerButton button, bool on) {
  (void)field_->call(LetThroughInput{.button = button, .on = on});
}

}  // namespace apsidon
