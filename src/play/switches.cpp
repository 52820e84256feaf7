#include "play/switches.hpp"

namespace apsidon::play_detail {

Switches::Switches(std::span<const PanelSetup> panels) {
  for (std::uint32_t i = 0; i < panels.size(); ++i) {
    const PanelId panel{i + 1};
    if (panels[i].hidden) change(hidden_, panel, true, "");
    if (panels[i].off) change(off_, panel, true, "");
  }
}

bool Switches::change(Held& held, Switchable what, bool give, std::string_view reason, bool lasts) {
  if (give) return held[what].give(reason, lasts);
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
  if (!change(held, input.of, give, input.reason, input.lasts)) return false;
  list();
  ++revision_;
  return true;
}

void Switches::list() {
  list_ = {};
  const auto add = [&](const Switchable& what, const std::string& reason) {
    if (what.card) list_.cards.push_back(what.card);
    if (what.card) list_.cards_for.push_back(reason);
    if (what.zone) list_.zones.push_back(what.zone);
    if (what.zone) list_.zones_for.push_back(reason);
  };
  for (const auto& [what, reasons] : off_) add(what, reasons.all().front());
  for (const auto& [what, reasons] : hidden_) {
    if (!off_.contains(what)) add(what, reasons.all().front());
  }
}

}  // namespace apsidon::play_detail
