#include "apsidon/play/switches_group.hpp"

#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;
namespace {

using play_detail::Impl;
using What = SwitchInput::What;

/// What it is switched off or hidden with: the zone of a card, the overlay of a panel.
Switchable holder_of(const Impl& field, Switchable what) {
  if (const Card* card = field.table().card(what.card)) return card->zone;
  return field.arrangement.overlay_of(what.panel);
}

Verdict turn(Impl& field, What what, Switchable of, std::string_view reason, bool lasts = false) {
  return field.call(SwitchInput{.what = what, .of = of, .reason = std::string(reason), .lasts = lasts})
      .verdict;
}

}  // namespace

bool play_detail::is_off(const Impl& field, Switchable what) {
  return field.switches.is_off(what) || field.switches.is_off(holder_of(field, what));
}

bool SwitchesGroup::is_off(Switchable what) const { return play_detail::is_off(*field(), what); }
bool SwitchesGroup::is_hidden(Switchable what) const {
  return field()->switches.is_hidden(what) || field()->switches.is_hidden(holder_of(*field(), what));
}
std::span<const std::string> SwitchesGroup::reasons_off(Switchable what) const {
  return field()->switches.reasons_off(what);
}
std::span<const std::string> SwitchesGroup::reasons_hidden(Switchable what) const {
  return field()->switches.reasons_hidden(what);
}

std::span<const std::string> SwitchesGroup::marks(Switchable what) const {
  // A card that has left has none; undo may bring it back, with them.
  if (what.card && !field()->table().card(what.card)) return {};
  return field()->switches.marks_of(what);
}

Verdict SwitchesGroup::switch_off(Switchable what, std::string_view reason, bool lasts) {
  return turn(*field(), What::off, what, reason, lasts);
}
Verdict SwitchesGroup::switch_on(Switchable what, std::string_view reason) {
  return turn(*field(), What::on, what, reason);
}
Verdict SwitchesGroup::hide(Switchable what, std::string_view reason, bool lasts) {
  return turn(*field(), What::hide, what, reason, lasts);
}
Verdict SwitchesGroup::show(Switchable what, std::string_view reason) {
  return turn(*field(), What::show, what, reason);
}
Verdict SwitchesGroup::mark(Switchable what, std::string_view name, double seconds) {
  return field()
      ->call(SwitchInput{.what = What::mark, .of = what, .reason = std::string(name), .seconds = seconds})
      .verdict;
}
Verdict SwitchesGroup::unmark(Switchable what, std::string_view name) {
  return turn(*field(), What::unmark, what, name);
}

}  // namespace apsidon
