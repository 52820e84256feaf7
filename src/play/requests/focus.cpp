#include "play/requests/focus.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

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
/// picked up, tapped or chosen, empty zones that can be tapped, and buttons.
void Focus::gather(const FocusView& view) {
  candidates_.clear();
  const auto add = [&](const Hit& what) {
    if (const auto middle = middle_of(what, view)) candidates_.push_back({what, *middle});
  };
  const Table& table = view.setup.table;
  if (view.only_overlays) return add_buttons(view);
  if (!view.carry.empty()) {
    for (const ZoneId zone : view.carry.targets) {
      if (zone != view.carry.home) add({.card = table.top(zone).value_or(CardId{}), .zone = zone});
    }
    return;
  }
  const Rulebook rules = view.referee.rulebook();
  const std::size_t compared = rules_detail::compared_cards(table, rules).size();
  for (const Zone& zone : table.zones()) {
    const ZoneHandling& handling = view.setup.handling_of(zone.id);
    if (handling.tap == TapKind::draw) {
      // A stock is one candidate, with cards or without.
      if (judge_stock(table, rules, zone.id))
        add({.card = table.top(zone.id).value_or(CardId{}), .zone = zone.id});
      continue;
    }
    for (const CardId card : zone.cards) {
      const bool flips = handling.tap == TapKind::flip;
      const MoveKind side = flips ? MoveKind::flip : MoveKind::reorient;
      const bool turns = (flips || handling.tap == TapKind::reorient) &&
                         rules_detail::judge_side(table, rules, *table.card(card), side, compared);
      const bool chooses = (handling.tap == TapKind::select || handling.tap == TapKind::select_one) &&
                           view.selection.judge(card, table, rules);
      if (turns || chooses || view.referee.judge_pick(card).verdict) add({.card = card, .zone = zone.id});
    }
  }
  add_buttons(view);
}

/// Buttons that can be tapped.
void Focus::add_buttons(const FocusView& view) {
  const auto areas = view.arrangement.panel_areas();
  for (std::uint32_t i = 1; i <= areas.size(); ++i) {
    const PanelId panel{i};
    const bool off = view.switches.is_off(panel) || view.switches.is_off(view.arrangement.overlay_of(panel));
    if (view.panels.all()[i - 1].kind != PanelKind::button || areas[i - 1].empty() || off) continue;
    if (view.only_overlays && !view.arrangement.is_over(panel)) continue;
    candidates_.push_back({{.panel = panel}, areas[i - 1].centre()});
  }
}

bool Focus::may_be_on(const Hit& what, const FocusView& view) {
  gather(view);
  return std::any_of(candidates_.begin(), candidates_.end(),
                     [&](const Candidate& candidate) { return candidate.what == what; });
}

void Focus::set(const Hit& what, const FocusView& view, EventQueue& events) {
  if (const auto middle = middle_of(what, view)) at_ = *middle;
  const bool picks = what.card && view.carry.empty();
  const Run run = picks ? view.referee.judge_pick(what.card).run : Run{};
  if (on_ == what && run_ == run) return;
  on_ = what;
  run_ = run;
  ++revision_;
  if (!deferred_) tell(view, events);
}

void Focus::tell(const FocusView& view, EventQueue& events) {
  deferred_ = false;
  if (std::exchange(told_, on_) == on_ || !any()) return;
  events.tell({.kind = EventKind::focused,
               .time = view.time,
               .card = on_.card,
               .count = on_.card ? std::size_t{1} : 0,
               .from = on_.zone,
               .panel = on_.panel},
              view.setup.table);
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

std::optional<Rect> Focus::area_of(const Hit& what, const FocusView& view) {
  if (view.setup.table.zone(what.zone)) return view.arrangement.area(what.zone);
  const auto panels = view.arrangement.panel_areas();
  if (what.panel && what.panel.value <= panels.size()) return panels[what.panel.value - 1];
  return std::nullopt;
}

/// The way to a candidate that lies in a direction: within a zone first, then to the one beside it, so that
/// from a column the next column is reached however short it is, and above it the row above.
std::optional<Focus::Way> Focus::way_to(const Candidate& candidate, Vec2 direction,
                                        const FocusView& view) const {
  const Vec2 away = candidate.middle - at_;
  const float along = dot(away, direction);
  const float aside = std::abs(dot(away, Vec2{-direction.y, direction.x}));
  if (candidate.what == on_ || !(along > 1)) return std::nullopt;
  const float cost = along + 2 * aside;
  if (on_.zone && candidate.what.zone == on_.zone) return Way{aside <= along ? 0 : 3, 0, cost};
  const auto here = area_of(on_, view);
  const auto there = area_of(candidate.what, view);
  if (!here || !there) return Way{3, 0, cost};
  const bool across = direction.x != 0;
  const float gap = direction.x > 0   ? there->min.x - here->max.x
                    : direction.x < 0 ? here->min.x - there->max.x
                    : direction.y > 0 ? there->min.y - here->max.y
                                      : here->min.y - there->max.y;
  const bool beside = across ? there->min.y < here->max.y && here->min.y < there->max.y
                             : there->min.x < here->max.x && here->min.x < there->max.x;
  if (gap < -1) return Way{3, 0, cost};
  return Way{beside ? 1 : 2, gap, cost};
}

/// To the nearest candidate in a direction.
void Focus::move(Vec2 direction, const FocusView& view, EventQueue& events) {
  gather(view);
  const Vec2 middle = rect_at({0, 0}, view.arrangement.window().size).centre();
  const Candidate* best = nullptr;
  Way nearest;
  for (const Candidate& candidate : candidates_) {
    const auto way =
        any() ? way_to(candidate, direction, view) : Way{0, 0, length(candidate.middle - middle)};
    if (!way || (best && !(*way < nearest))) continue;
    best = &candidate;
    nearest = *way;
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
  if (view.only_overlays) {
    gather(view);
    if (candidates_.empty()) return KeyRequest::unused;
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
      if (view.only_overlays && !may_be_on(on_, view)) {
        // What was focused lies below: nothing is acted on that the player did not choose.
        keep(view, events);
        return any() ? KeyRequest::moved : KeyRequest::unused;
      }
      keep(view, events);
      if (!any()) return KeyRequest::unused;
      return input.key == Key::second ? KeyRequest::act_twice : KeyRequest::act;
    case Key::cancel:
      if (by_keys) return KeyRequest::put_back;
      return any() ? KeyRequest::unfocus : KeyRequest::unused;
    case Key::undo:
      return view.only_overlays ? KeyRequest::unused : KeyRequest::undo;
    case Key::redo:
      return view.only_overlays ? KeyRequest::unused : KeyRequest::redo;
    case Key::send:
      if (by_keys || view.only_overlays) return KeyRequest::unused;
      keep(view, events);
      return on_.card ? KeyRequest::send : KeyRequest::unused;
    case Key::send_top:
      return by_keys || view.only_overlays ? KeyRequest::unused : KeyRequest::send_top;
  }
  return KeyRequest::unused;
}

}  // namespace apsidon::play_detail
