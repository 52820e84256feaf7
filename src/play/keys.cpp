// Keys and pads: a focus that moves between what can be acted on, and does all that a pointer does.
#include <algorithm>
#include <cmath>
#include <limits>

#include "play/impl.hpp"

namespace apsidon {

std::optional<Vec2> Playfield::Impl::middle_of(const Hit& what) const {
  if (const auto s = setup.table.slot(what.card)) return rests[*s].neutral.centre;
  if (setup.table.zone(what.zone)) {
    const auto top = setup.table.top(what.zone);
    return top ? rests[slot(*top)].neutral.centre : outline_pose(what.zone).centre;
  }
  if (what.panel && what.panel.value <= panel_areas.size()) return panel_areas[what.panel.value - 1].centre();
  return std::nullopt;
}

/// All that keys can act on: while something is picked up, the places that would take it, else cards that can
/// be picked up or tapped, empty places that can be tapped, and buttons.
void Playfield::Impl::gather_places() {
  focus_places.clear();
  const auto add = [&](const Hit& what) {
    if (const auto middle = middle_of(what)) focus_places.push_back({what, *middle});
  };
  if (carry.run.count > 0) {
    for (const ZoneId zone : carry.targets) {
      if (zone != carry.home) add({.card = setup.table.top(zone).value_or(CardId{}), .zone = zone});
    }
    return;
  }
  for (const Zone& zone : setup.table.zones()) {
    const ZoneHandling& handling = setup.handling[zone.id.value - 1];
    if (handling.tap == TapKind::draw) {
      // A stock is one place, with cards or without.
      if (apsidon::judge_stock(setup.table, rulebook(), zone.id)) {
        add({.card = setup.table.top(zone.id).value_or(CardId{}), .zone = zone.id});
      }
      continue;
    }
    for (const CardId card : zone.cards) {
      const bool turns =
          handling.tap == TapKind::flip && (!handling.match || !setup.table.card(card)->face_up);
      if (turns || judge_pick(card).verdict) add({.card = card, .zone = zone.id});
    }
  }
  for (std::uint32_t i = 1; i <= setup.panels.size(); ++i) {
    if (setup.panels[i - 1].kind == PanelKind::button && !panel_areas[i - 1].empty()) add({.panel = {i}});
  }
}

void Playfield::Impl::set_focus(const Hit& what) {
  if (const auto middle = middle_of(what)) focus_at = *middle;
  if (focus == what) return;
  focus = what;
  stale = true;
  if (what == Hit{}) return;
  note({.kind = EventKind::focused,
        .time = clock.now(),
        .card = what.card,
        .count = what.card ? std::size_t{1} : 0,
        .from = what.zone,
        .panel = what.panel});
}

/// Focus whose card has gone, or can be acted on no more, finds the nearest place that can.
void Playfield::Impl::keep_focus() {
  if (focus == Hit{}) return;
  gather_places();
  const Place* nearest = nullptr;
  for (const Place& place : focus_places) {
    // What the focus is on may lie elsewhere now: it stays on it.
    if (place.what == focus || (focus.card && place.what.card == focus.card)) return set_focus(place.what);
    if (!nearest || length(place.middle - focus_at) < length(nearest->middle - focus_at)) nearest = &place;
  }
  set_focus(nearest ? nearest->what : Hit{});
}

/// To the nearest place in a direction; what lies aside counts as farther away.
void Playfield::Impl::move_focus(Vec2 direction) {
  gather_places();
  const bool has = focus != Hit{};
  const Vec2 from = has ? focus_at : rect_at({0, 0}, options.window).centre();
  const Place* best = nullptr;
  float best_cost = std::numeric_limits<float>::max();
  for (const Place& place : focus_places) {
    if (has && place.what == focus) continue;
    const Vec2 away = place.middle - from;
    const float along = dot(away, direction);
    const float aside = std::abs(dot(away, Vec2{-direction.y, direction.x}));
    if (has && !(along > 1)) continue;
    const float cost = has ? along + 2 * aside : length(away);
    if (cost >= best_cost) continue;
    best = &place;
    best_cost = cost;
  }
  if (best) set_focus(best->what);
}

/// To the next place in the order of the table, around its end.
void Playfield::Impl::step_focus(int by) {
  gather_places();
  if (focus_places.empty()) return;
  const auto n = static_cast<std::ptrdiff_t>(focus_places.size());
  const auto it = std::find_if(focus_places.begin(), focus_places.end(),
                               [&](const Place& place) { return place.what == focus; });
  const std::ptrdiff_t at = it == focus_places.end() ? (by > 0 ? -1 : 0) : it - focus_places.begin();
  set_focus(focus_places[static_cast<std::size_t>(((at + by) % n + n) % n)].what);
}

/// What a tap does; `other`: what a double tap does, where that is something.
bool Playfield::Impl::act_on_focus(TapKind other, double time) {
  const Hit on = focus;
  const Gesture gesture{.kind = GestureKind::tap, .at = focus_at, .from = focus_at, .time = time};
  if (on.panel) {
    note({.kind = EventKind::tapped, .time = time, .panel = on.panel, .at = focus_at});
    return true;
  }
  if (!on.zone) return false;
  const TapKind tap = setup.handling[on.zone.value - 1].tap;
  const TapKind kind = other != TapKind::none ? other : tap;
  if (kind != TapKind::none && kind != TapKind::pick) {
    note({.kind = EventKind::tapped,
          .time = time,
          .card = on.card,
          .count = on.card ? std::size_t{1} : 0,
          .from = on.zone,
          .at = focus_at});
    return do_tap(kind, on.card, on.zone, gesture);
  }
  if (!pick_up(on.card, gesture, {.mode = Carry::Mode::keys})) return false;
  if (carry.run.count == 0) return true;
  // The nearest place that takes it comes first; where there is none the focus stays on what is held.
  keep_focus();
  if (focus == Hit{}) set_focus(on);
  carry.aimed = focus.zone != carry.home ? focus.zone : ZoneId{};
  return true;
}

bool Playfield::Impl::key(const KeyInput& input) {
  const bool moves = input.key == Key::left || input.key == Key::right || input.key == Key::up ||
                     input.key == Key::down || input.key == Key::next || input.key == Key::previous;
  if (input.repeat && !moves) return false;  // a held key acts once
  const bool by_keys = carry.run.count > 0 && carry.mode == Carry::Mode::keys;
  if (carry.run.count > 0 && !by_keys) {
    if (input.key != Key::cancel) return false;
    cancel_all();
    return true;
  }
  const auto go = [&](Vec2 direction) {
    move_focus(direction);
    if (by_keys) carry.aimed = focus.zone;
    stale = true;
    return focus != Hit{};
  };
  switch (input.key) {
    case Key::left:
      return go({-1, 0});
    case Key::right:
      return go({1, 0});
    case Key::up:
      return go({0, -1});
    case Key::down:
      return go({0, 1});
    case Key::next:
    case Key::previous:
      step_focus(input.key == Key::next ? 1 : -1);
      if (by_keys) carry.aimed = focus.zone;
      stale = true;
      return focus != Hit{};
    case Key::act:
    case Key::second: {
      if (by_keys) {
        if (!carry.aimed) return false;
        const CardId card = carry.run.first;
        propose({.id = ++proposals, .run = carry.run, .from = carry.home, .to = carry.aimed}, focus_at,
                input.time);
        if (const Card* moved = setup.table.card(card)) set_focus({.card = card, .zone = moved->zone});
        keep_focus();
        return true;
      }
      keep_focus();
      if (focus == Hit{}) return false;
      const TapKind other = focus.zone ? setup.handling[focus.zone.value - 1].double_tap : TapKind::none;
      const bool used = act_on_focus(input.key == Key::second ? other : TapKind::none, input.time);
      if (carry.run.count == 0) keep_focus();
      return used;
    }
    case Key::cancel: {
      const bool used = by_keys || focus != Hit{};
      if (by_keys) {
        const CardId card = carry.run.first;
        cancel_carry(focus_at);
        if (const Card* back = setup.table.card(card)) set_focus({.card = card, .zone = back->zone});
      } else {
        set_focus({});
      }
      return used;
    }
    case Key::undo:
    case Key::redo: {
      const bool done = go_back(input.key == Key::redo).allowed();
      keep_focus();
      return done;
    }
  }
  return false;
}

Hit Playfield::focused() const { return impl_->focus; }

}  // namespace apsidon
