#include "apsidon/play/gate_group.hpp"

#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

bool GateGroup::is_open() const { return field()->gate.is_open(); }
bool GateGroup::closed_for(std::string_view reason) const { return field()->gate.closed_for(reason); }
std::span<const std::string> GateGroup::reasons() const { return field()->gate.reasons(); }

Verdict GateGroup::close(std::string_view reason, bool lasts) {
  return field()
      ->call(
          ReasonInput{.what = ReasonInput::What::close_gate, .reason = std::string(reason), .lasts = lasts})
      .verdict;
}
Verdict GateGroup::open(std::string_view reason) {
  return field()
      ->call(ReasonInput{.what = ReasonInput::What::open_gate, .reason = std::string(reason)})
      .verdict;
}

Verdict GateGroup::let_through(PointerButton button, bool on) {
  return field()->call(LetThroughInput{.button = button, .on = on}).verdict;
}

}  // namespace apsidon
