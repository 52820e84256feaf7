#include "apsidon/play/switches_view.hpp"

#include "play/impl.hpp"

namespace apsidon {
namespace {

using play_detail::Impl;
using What = SwitchInput::What;

/// What it is switched off or hidden with: the zone of a card, the overlay of a panel.
Switchable holder_of(const Impl& field, Switchable what) {
  if (const Card* card = field.table().card(what.card)) return card->zone;
  return field.arrangement.overlay_of(what.panel);
}

void turn(Impl& field, What what, Switchable of, std::string_view reason) {
  (void)field.call(SwitchInput{.what = what, .of = of, .reason = std::string(reason)});
}

}  // namespace

bool SwitchesView::is_off(Switchable what) const {
  return field_->switches.is_off(what) || field_->switches.is_off(holder_of(*field_, what));
}
bool SwitchesView::is_hidden(Switchable what) const {
  return field_->switches.is_hidden(what) || field_->switches.is_hidden(holder_of(*field_, what));
}
std::span<const std::string> SwitchesView::reasons_off(Switchable what) const {
  return field_->switches.reasons_off(what);
}
std::span<const std::string> SwitchesView::reasons_hidden(Switchable what) const {
  return field_->switches.reasons_hidden(what);
}

void SwitchesCalls::switch_off(Switchable what, std::string_view reason) {
  turn(*field_, What::off, what, reason);
}
void SwitchesCalls::switch_on(Switchable what, std::string_view reason) {
  turn(*field_, What::on, what, reason);
}
void SwitchesCalls::hide(Switchable what, std::string_view reason) {
  turn(*field_, What::hide, what, reason);
}
void SwitchesCalls::show(Switchable what, std::string_view reason) {
  turn(*field_, What::show, what, reason);
}

}  // namespace apsidon
