#include "apsidon/play/hand_group.hpp"

#include "apsidon/play/switches_group.hpp"
#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

using play_detail::Hand;
using play_detail::Impl;

Run HandGroup::held() const { return field()->hand.carry().run; }

Run HandGroup::held_by(std::uint32_t pointer) const {
  Run run;
  field()->hand.each([&](const Hand::Carry& carry) {
    if (carry.drags() && carry.by == pointer) run = carry.run;
  });
  return run;
}

std::span<const ZoneId> HandGroup::targets() const { return field()->hand.carry().targets; }

ZoneId HandGroup::aimed_at() const {
  const Hand::Carry& carry = field()->hand.carry();
  return carry.wants(carry.aimed) ? carry.aimed : ZoneId{};
}

CardId HandGroup::hovered() const { return field()->hover.card(); }
CardId HandGroup::previewed() const { return field()->hover.previewed(); }
std::span<const CardId> HandGroup::selection() const { return field()->selection.cards(); }
Hit HandGroup::focused() const { return field()->focus.on(); }
Run HandGroup::focused_run() const { return field()->focus.run(); }

std::string_view HandGroup::cursor() const {
  const auto pointer = field()->hover.pointer();
  const auto above = pointer ? field()->over(*pointer) : std::nullopt;
  if (!field()->gate.is_open() && !(above && above->panel)) return "wait";
  const Hand::Carry& carry = field()->hand.carry();
  if (carry.drags()) {
    const bool home = !carry.aimed || carry.aimed == carry.home;
    return aimed_at() || home ? "grabbing" : "not-allowed";
  }
  if (!pointer) return "default";
  const Hit on = const_cast<Impl*>(field())->hit(*pointer);
  if (on.panel) {
    const bool button = field()->panels.all()[on.panel.value - 1].kind == PanelKind::button;
    return button && !play_detail::is_off(*field(), on.panel) ? "pointer" : "default";
  }
  if (on.card && judge_pick(field()->table(), field()->referee.plain_rulebook(), on.card).verdict)
    return "grab";
  const bool taps = on.zone && field()->setup().handling_of(on.zone).tap != TapKind::none;
  return taps && !field()->switches.is_off(on.zone) && !field()->switches.is_off(on.card) ? "pointer"
                                                                                          : "default";
}

const DragOptions& HandGroup::drag_options() const { return field()->hand.options(); }
const HoverOptions& HandGroup::hover_options() const { return field()->hover.options(); }
const GestureThresholds& HandGroup::thresholds() const { return field()->hand.gestures().thresholds(); }

Verdict HandGroup::select(CardId card) { return field()->call(SelectInput{.card = card}).verdict; }
Verdict HandGroup::deselect(CardId card) {
  return field()->call(SelectInput{.card = card, .on = false}).verdict;
}
Verdict HandGroup::clear_selection() { return field()->call(SelectInput{.on = false}).verdict; }
Verdict HandGroup::focus(const Hit& what) { return field()->call(FocusInput{.on = what}).verdict; }
Verdict HandGroup::preview(CardId card) { return field()->call(PreviewInput{.card = card}).verdict; }

Verdict HandGroup::set_drag_options(const DragOptions& options) {
  return field()->call(DragOptionsInput{.options = options}).verdict;
}

Verdict HandGroup::set_hover_options(const HoverOptions& options) {
  return field()->call(HoverOptionsInput{.options = options}).verdict;
}

Verdict HandGroup::set_thresholds(const GestureThresholds& thresholds) {
  return field()->call(ThresholdsInput{.options = thresholds}).verdict;
}

}  // namespace apsidon
