#include "play/focus.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace apsidon::play_detail {
namespace {

std::optional<Vec2> middle_of(const Hit& what, const FocusView& view) {
  const Table& table = view.setup.table;
  if (const auto slot = table.slot(what.card)) return view.arrangement.neutral(*slot).centre;
  if (table.zone(what.zone)) {
    const auto top = table.top(what.zone);
    return top ? view.arrangement.neutral(*table.slot(*top)).centre
               : view.arrangement.outline(view.setup, what.zone).centre;
  }
  const auto panels = view.arrangement.panel_areas();
  if (what.panel && what.panel.value <= panels.size()) return panels[what.panel.value - 1].centre();
  return std::nullopt;
}

bool moves_focus(Key key) {
  return key == Key::left || key == Key::right || key == Key::up || key == Key::down || key == Key::next ||
         key == Key::previous;
}

}  // namespace

/// All that keys can act on: while something is carried, the zones that would take it; else cards that can be
/// picked up or tapped, empty zones that can be tapped, and buttons.
void Focus::gather(const FocusView& view) {
  candidates_.clear();
  const auto add = [&](const Hit& what) {
    if (const auto middle = middle_of(what, view)) candidates_.push_back({what, *middle});
  };
  const Table& table = view.setup.table;
  if (!view.carry.empty()) {
    for (const ZoneId zone : view.carry.targets) {
      if (zone != view.carry.home) add({.card = table.top(zone).value_or(CardId{}), .zone = zone});
    }
    return;
  }
  for (const Zone& zone : table.zones()) {
    const ZoneHandling& handling = view.setup.handling_of(zone.id);
    if (handling.tap == TapKind::draw) {
      // A stock is one candidate, with cards or without.
      if (judge_stock(table, view.referee.rulebook(), zone.id))
        add({.card = table.top(zone.id).value_or(CardId{}), .zone = zone.id});
      continue;
    }
    for (const CardId card : zone.cards) {
      const bool flips = handling.tap == TapKind::flip && (!handling.match || !table.card(card)->face_up);
      if (flips || view.referee.judge_pick(card).verdict) add({.card = card, .zone = zone.id});
    }
  }
  const auto areas = view.arrangement.panel_areas();
  for (std::uint32_t i = 1; i <= areas.size(); ++i) {
    if (view.panels.all()[i - 1].kind == PanelKind::button && !areas[i - 1].empty()) add({.panel = {i}});
  }
}

void Focus::set(const Hit& what, const FocusView& view, EventQueue& events) {
  if (const auto middle = middle_of(what, view)) at_ = *middle;
  if (on_ == what) return;
  on_ = what;
  ++revision_;
  if (!any()) return;
  events.tell({.kind = EventKind::focused,
               .time = view.time,
               .card = what.card,
               .count = what.card ? std::size_t{1} : 0,
               .from = what.zone,
               .panel = what.panel});
}

void Focus::keep(const FocusView& view, EventQueue& events) {
  if (!any()) return;
  gather(view);
  const Candidate* nearest = nullptr;
  for (const Candidate& candidate : candidates_) {
    // What the focus is on may lie elsewhere now: it stays on it.
    const bool same = candidate.what == on_ || (on_.card && candidate.what.card == on_.card);
    if (same) return set(Hit{candidate.what}, view, events);
    if (!nearest || length(candidate.middle - at_) < length(nearest->middle - at_)) nearest = &candidate;
  }
  set(nearest ? nearest->what : Hit{}, view, events);
}

/// To the nearest candidate in a direction; what lies aside counts as farther away.
void Focus::move(Vec2 direction, const FocusView& view, EventQueue& events) {
  gather(view);
  const bool has = any();
  const Vec2 from = has ? at_ : rect_at({0, 0}, view.arrangement.window().size).centre();
  const Candidate* best = nullptr;
  float best_cost = std::numeric_limits<float>::max();
  for (const Candidate& candidate : candidates_) {
    if (has && candidate.what == on_) continue;
    const Vec2 away = candidate.middle - from;
    const float along = dot(away, direction);
    const float aside = std::abs(dot(away, Vec2{-direction.y, direction.x}));
    if (has && !(along > 1)) continue;
    const float cost = has ? along + 2 * aside : length(away);
    if (cost >= best_cost) continue;
    best = &candidate;
    best_cost = cost;
  }
  if (best) set(best->what, view, events);
}

/// To the next candidate in the order of the table, around its end.
void Focus::step(int by, const FocusView& view, EventQueue& events) {
  gather(view);
  if (candidates_.empty()) return;
  const auto n = static_cast<std::ptrdiff_t>(candidates_.size());
  const auto it = std::find_if(candidates_.begin(), candidates_.end(),
                               [&](const Candidate& candidate) { return candidate.what == on_; });
  const std::ptrdiff_t at = it == candidates_.end() ? (by > 0 ? -1 : 0) : it - candidates_.begin();
  set(candidates_[static_cast<std::size_t>(((at + by) % n + n) % n)].what, view, events);
}

KeyRequest Focus::read(const KeyInput& input, const FocusView& view, EventQueue& events) {
  if (input.repeat && !moves_focus(input.key)) return KeyRequest::unused;  // a held key acts once
  const bool by_keys = !view.carry.empty() && view.carry.mode == Hand::Carry::Mode::keys;
  if (!view.carry.empty() && !by_keys) {
    return input.key == Key::cancel ? KeyRequest::put_back : KeyRequest::unused;
  }
  switch (input.key) {
    case Key::left:
      move({-1, 0}, view, events);
      return KeyRequest::moved;
    case Key::right:
      move({1, 0}, view, events);
      return KeyRequest::moved;
    case Key::up:
      move({0, -1}, view, events);
      return KeyRequest::moved;
    case Key::down:
      move({0, 1}, view, events);
      return KeyRequest::moved;
    case Key::next:
      step(1, view, events);
      return KeyRequest::moved;
    case Key::previous:
      step(-1, view, events);
      return KeyRequest::moved;
    case Key::act:
    case Key::second:
      if (by_keys) return view.carry.aimed ? KeyRequest::drop : KeyRequest::unused;
      keep(view, events);
      if (!any()) return KeyRequest::unused;
      return input.key == Key::second ? KeyRequest::act_twice : KeyRequest::act;
    case Key::cancel:
      if (by_keys) return KeyRequest::put_back;
      return any() ? KeyRequest::unfocus : KeyRequest::unused;
    case Key::undo:
      return KeyRequest::undo;
    case Key::redo:
      return KeyRequest::redo;
  }
  return KeyRequest::unused;
}

}  // namespace apsidon::play_detail
