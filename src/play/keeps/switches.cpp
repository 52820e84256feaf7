#include "play/keeps/switches.hpp"

#include <algorithm>
#include <limits>

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

bool Switches::turn(const SwitchInput& input, double own) {
  using What = SwitchInput::What;
  if (input.of == Switchable{}) return false;
  if (input.what == What::mark || input.what == What::unmark) {
    const bool marks = input.what == What::mark;
    if (change(marks_, input.of, marks, input.reason)) ++revision_;
    ends_.erase({input.of, input.reason});
    if (marks && input.seconds > 0) ends_[{input.of, input.reason}] = own + input.seconds;
    return false;
  }
  Held& held = input.what == What::hide || input.what == What::show ? hidden_ : off_;
  const bool give = input.what == What::hide || input.what == What::off;
  if (!change(held, input.of, give, input.reason, input.lasts)) return false;
  list_.set(input.of, first_reason(input.of));
  ++revision_;
  return true;
}

double Switches::due() const {
  double due = std::numeric_limits<double>::infinity();
  for (const auto& [mark, end] : ends_) due = std::min(due, end);
  return due;
}

void Switches::end_marks(double own) {
  std::erase_if(ends_, [&](const auto& mark) {
    if (mark.second > own) return false;
    change(marks_, mark.first.first, false, mark.first.second);
    ++revision_;
    return true;
  });
}

std::optional<std::string> Switches::first_reason(Switchable what) const {
  for (const Held* held : {&off_, &hidden_}) {
    if (const auto it = held->find(what); it != held->end()) return it->second.all().front();
  }
  return std::nullopt;
}

}  // namespace apsidon::play_detail
