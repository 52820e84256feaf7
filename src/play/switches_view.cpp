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

Verdict turn(Impl& field, What what, Switchable of, std::string_view reason, bool lasts = false) {
  return field.call(SwitchInput{.what = what, .of = of, .reason = std::string(reason), .lasts = lasts})
      .verdict;
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

Verdict SwitchesCalls::switch_off(Switchable what, std::string_view reason, bool lasts) {
  return turn(*field_, What::off, what, reason, lasts);
}
Verdict SwitchesCalls::switch_on(Switchable what, std::string_view reason) {
  return turn(*field_, What::on, what, reason);
}
Verdict SwitchesCalls::hide(Switchable what, std::string_view reason, bool lasts) {
  return turn(*field_, What::hide, what, reason, lasts);
}
Verdict SwitchesCalls::show(Switchable what, std::string_view reason) {
  return turn(*field_, What::show, what, reason);
}

}  // namespace apsidon
