#include "apsidon/play/gate_group.hpp"

#include "play/impl.hpp"

namespace apsidon {

bool GateGroup::is_open() const { return field()->gate.is_open(); }
bool GateGroup::closed_for(std::string_view reason) const { return field()->gate.closed_for(reason); }
std::span<const std::string> GateGroup::reasons() const { return field()->gate.reasons(); }

void GateGroup::close(std::string_view reason, bool lasts) {
  (void)field()->call(
      ReasonInput{.what = ReasonInput::What::close_gate, .reason = std::string(reason), .lasts = lasts});
}
void GateGroup::open(std::string_view reason) {
  (void)field()->call(ReasonInput{.what = ReasonInput::What::open_gate, .reason = std::string(reason)});
}

void GateGroup::let_through(PointerButton button, bool on) {
  (void)field()->call(LetThroughInput{.button = button, .on = on});
}

}  // namespace apsidon
