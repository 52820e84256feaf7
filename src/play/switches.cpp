#include "play/switches.hpp"

namespace apsidon::play_detail {

Switches::Switches(std::span<const PanelSetup> panels) {
  for (std::uint32_t i = 0; i < panels.size(); ++i) {
    const PanelId panel{i + 1};
    if (panels[i].hidden) change(hidden_, panel, true, "");
    if (panels[i].off) change(off_, panel, true, "");
  }
}

bool Switches::change(Held& held, Switchable what, bool give, std::string_view reason) {
  if (give) return held[what].give(reason);
  const auto it = held.find(what);
  if (it == held.end() || !it->second.release(reason)) return false;
  if (!it->second.any()) held.erase(it);
  return true;
}

bool Switches::turn(const SwitchInput& input) {
  using What = SwitchInput::What;
  if (input.of == Switchable{}) return false;
  Held& held = input.what == What::hide || input.what == What::show ? hidden_ : off_;
  const bool give = input.what == What::hide || input.what == What::off;
  if (!change(held, input.of, give, input.reason)) return false;
  list();
  ++revision_;
  return true;
}

void Switches::list() {
  cards_off_.clear();
  zones_off_.clear();
  const auto add = [&](const Switchable& what) {
    if (what.card) cards_off_.push_back(what.card);
    if (what.zone) zones_off_.push_back(what.zone);
  };
  for (const auto& [what, reasons] : off_) add(what);
  for (const auto& [what, reasons] : hidden_) {
    if (!off_.contains(what)) add(what);
  }
}

}  // namespace apsidon::play_detail
