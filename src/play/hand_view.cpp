#include "apsidon/play/hand_view.hpp"

#include "apsidon/play/switches_view.hpp"
#include "play/impl.hpp"

namespace apsidon {

using play_detail::Hand;
using play_detail::Impl;

Run HandView::held() const { return field_->hand.carry().run; }

Run HandView::held_by(std::uint32_t pointer) const {
  Run run;
  field_->hand.each([&](const Hand::Carry& carry) {
    if (carry.drags() && carry.by == pointer) run = carry.run;
  });
  return run;
}

std::span<const ZoneId> HandView::targets() const { return field_->hand.carry().targets; }

ZoneId HandView::aimed_at() const {
  const Hand::Carry& carry = field_->hand.carry();
  return carry.wants(carry.aimed) ? carry.aimed : ZoneId{};
}

CardId HandView::hovered() const { return field_->hover.card(); }
CardId HandView::previewed() const { return field_->hover.previewed(); }
Hit HandView::focused() const { return field_->focus.on(); }
Run HandView::focused_run() const { return field_->focus.run(); }

std::string_view HandView::cursor() const {
  const auto pointer = field_->hover.pointer();
  const auto above = pointer ? field_->over(*pointer) : std::nullopt;
  if (!field_->gate.is_open() && !(above && above->panel)) return "wait";
  const Hand::Carry& carry = field_->hand.carry();
  if (carry.drags()) {
    const bool home = !carry.aimed || carry.aimed == carry.home;
    return aimed_at() || home ? "grabbing" : "not-allowed";
  }
  if (!pointer) return "default";
  const Hit on = const_cast<Impl*>(field_)->hit(*pointer);
  if (on.panel) {
    const bool button = field_->panels.all()[on.panel.value - 1].kind == PanelKind::button;
    return button && !SwitchesView(*field_).is_off(on.panel) ? "pointer" : "default";
  }
  if (on.card && judge_pick(field_->table(), field_->referee.plain_rulebook(), on.card).verdict)
    return "grab";
  const bool taps = on.zone && field_->setup().handling_of(on.zone).tap != TapKind::none;
  return taps && !field_->switches.is_off(on.zone) && !field_->switches.is_off(on.card) ? "pointer"
                                                                                        : "default";
}

const DragOptions& HandView::drag_options() const { return field_->hand.options(); }
const HoverOptions& HandView::hover_options() const { return field_->hover.options(); }
const GestureThresholds& HandView::thresholds() const { return field_->hand.gestures().thresholds(); }

Verdict HandCalls::focus(const Hit& what) { return field_->call(FocusInput{.on = what}).verdict; }
Verdict HandCalls::preview(CardId card) { return field_->call(PreviewInput{.card = card}).verdict; }

Verdict HandCalls::set_drag_options(const DragOptions& options) {
  return field_->call(DragOptionsInput{.options = options}).verdict;
}

Verdict HandCalls::set_hover_options(const HoverOptions& options) {
  return field_->call(HoverOptionsInput{.options = options}).verdict;
}

Verdict HandCalls::set_thresholds(const GestureThresholds& thresholds) {
  return field_->call(ThresholdsInput{.options = thresholds}).verdict;
}

}  // namespace apsidon
