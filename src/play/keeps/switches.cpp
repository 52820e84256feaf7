#include "play/keeps/switches.hpp"

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
  list_.set(input.of, first_reason(input.of));
  ++revision_;
  return true;
}

std::optional<std::string> Switches::first_reason(Switchable what) const {
  for (const Held* held : {&off_, &hidden_}) {
    if (const auto it = held->find(what); it != held->end()) return it->second.all().front();
  }
  return std::nullopt;
}

}  // namespace apsidon::play_detail
