// The player's hand: from a press to exactly one of dropped, refused, cancelled.
#include <algorithm>

#include "play/impl.hpp"

namespace apsidon {

bool Playfield::Impl::handle(const Gesture& gesture) {
  switch (gesture.kind) {
    case GestureKind::hover:
      return false;
    case GestureKind::press:
      pressed = hit(gesture.at);
      return bool(pressed.zone);
    case GestureKind::tap:
      if (!pressed.zone) return false;
      note({.kind = EventKind::tapped,
            .time = gesture.time,
            .card = setup.table.card(pressed.card) ? pressed.card : CardId{},
            .from = pressed.zone,
            .at = gesture.at});
      return true;
    case GestureKind::drag_start:
      return pick_up(gesture);
    case GestureKind::drag_move:
      if (carry.run.count == 0) return false;
      carry_to(gesture.at);
      return true;
    case GestureKind::drag_end:
      if (carry.run.count == 0) return false;
      carry_to(gesture.at);
      let_go(gesture);
      return true;
    case GestureKind::cancel: {
      const bool held = carry.run.count > 0;
      cancel_carry(gesture.at);
      return held;
    }
  }
  return false;
}

bool Playfield::Impl::pick_up(const Gesture& gesture) {
  const Card* card = setup.table.card(pressed.card);
  if (!card) return false;
  const PickVerdict pick = apsidon::judge_pick(setup.table, setup.rules, card->id);
  if (!pick.verdict) {
    note({.kind = EventKind::pick_refused,
          .time = gesture.time,
          .card = card->id,
          .from = card->zone,
          .at = gesture.at,
          .verdict = pick.verdict});
    start_effect(card->id, options.feel.shake, EffectKind::swing, 0);
    return true;
  }
  carry.run = pick.run;
  carry.home = card->zone;
  carry.home_revision = setup.table.zone(card->zone)->revision;
  carry.grip = motion.pose(slot(pick.run.first)).centre - gesture.from;
  find_targets();
  for (const CardId id : setup.table.cards_of(pick.run)) {
    cards[slot(id)].held = true;
    cards[slot(id)].departure = ++departures;
    cards[slot(id)].performance = {};
  }
  note({.kind = EventKind::picked_up,
        .time = gesture.time,
        .card = pick.run.first,
        .count = pick.run.count,
        .from = carry.home,
        .at = gesture.at});
  carry_to(gesture.at);
  return true;
}

void Playfield::Impl::find_targets() {
  carry.targets.clear();
  for (const Zone& zone : setup.table.zones()) {
    if (apsidon::judge_drop(setup.table, setup.rules, carry.run, zone.id)) carry.targets.push_back(zone.id);
  }
}

void Playfield::Impl::carry_to(Vec2 pointer) {
  carry.pointer = pointer;
  carry.aimed = aim(pointer);
  const Vec2 first_neutral = cards[slot(carry.run.first)].neutral.centre;
  for (const CardId id : setup.table.cards_of(carry.run)) {
    const std::size_t s = slot(id);
    Pose goal = cards[s].resting;
    goal.centre = pointer + carry.grip + (cards[s].neutral.centre - first_neutral);
    goal.rotation = 0;
    goal.lift = options.feel.carry_lift;
    motion.travel(s, goal, options.feel.carry);
  }
  stale = true;
}

ZoneId Playfield::Impl::zone_at(Vec2 point) const {
  for (const Zone& zone : setup.table.zones()) {
    if (areas[zone.id.value - 1].contains(point)) return zone.id;
  }
  return {};
}

PanelId Playfield::Impl::panel_at(Vec2 point) const {
  for (std::size_t i = 0; i < panel_areas.size(); ++i) {
    if (panel_areas[i].contains(point)) return {static_cast<std::uint32_t>(i + 1)};
  }
  return {};
}

/// The zone that a drop would go to: of those that would take the run, the one that the held card's goal and
/// the pointer are over most; else the zone under the pointer, to be told why not.
ZoneId Playfield::Impl::aim(Vec2 pointer) const {
  const Rect goal = rect_around(pointer + carry.grip, solved.card);
  const float card_area = std::max(solved.card.width * solved.card.height, 1.0f);
  constexpr float pointer_weight = 0.5f;  // being under the pointer counts as half a card of overlap
  constexpr float least = 0.1f;           // touching a neighbour with an edge is no aim
  ZoneId best;
  float best_score = least;
  for (const ZoneId id : carry.targets) {
    const Rect& area = areas[id.value - 1];
    const float score = overlap(goal, area) / card_area + (area.contains(pointer) ? pointer_weight : 0);
    if (score > best_score) {
      best_score = score;
      best = id;
    }
  }
  return best ? best : zone_at(pointer);
}

void Playfield::Impl::let_go(const Gesture& gesture) {
  const ZoneId to = carry.aimed;
  Event event{.time = gesture.time,
              .card = carry.run.first,
              .count = carry.run.count,
              .from = carry.home,
              .to = to,
              .at = gesture.at};
  if (!to || to == carry.home) return put_back(EventKind::cancelled, event);

  event.proposal = ++proposals;
  event.kind = EventKind::proposed;
  note(event);
  event.verdict = apsidon::judge_drop(setup.table, setup.rules, carry.run, to);
  if (event.verdict) {
    const Verdict moved = setup.table.move(carry.run, to);
    if (!moved) event.verdict = moved;
  }
  if (!event.verdict) {
    const CardId first = carry.run.first;
    put_back(EventKind::refused, event);
    return start_effect(first, options.feel.shake, EffectKind::swing, 0);
  }
  event.kind = EventKind::dropped;
  note(event);
  first_move();
  if (setup.table.zone(event.from)->cards.empty()) {
    note({.kind = EventKind::emptied, .time = gesture.time, .from = event.from});
  }
  forget_carry();
  lay_out_changed(Change::table);
}

/// Ends a drag that moved nothing: the cards go home, each by itself, for the game may have torn the run
/// apart.
void Playfield::Impl::put_back(EventKind ending, const Event& event) {
  Event said = event;
  said.kind = ending;
  note(said);
  for (std::size_t s = 0; s < cards.size(); ++s) {
    // They keep the order in which they were picked up, so that the run stays stacked as it is.
    if (cards[s].held && setup.table.card(cards[s].id)) motion.travel(s, cards[s].resting, options.feel.back);
  }
  forget_carry();
}

void Playfield::Impl::forget_carry() {
  for (CardState& state : cards) state.held = false;
  carry.run = {};
  carry.aimed = {};
  carry.targets.clear();
  gestures.forget();
  stale = true;
}

void Playfield::Impl::cancel_carry(Vec2 at) {
  if (carry.run.count == 0) return;
  put_back(
      EventKind::cancelled,
      {.time = clock.now(), .card = carry.run.first, .count = carry.run.count, .from = carry.home, .at = at});
}

/// A change of the zone from which the held cards came ends the drag: they may be no run any more, or be
/// gone.
void Playfield::Impl::cancel_if_touched() {
  if (carry.run.count == 0) return;
  if (setup.table.zone(carry.home)->revision != carry.home_revision) {
    return cancel_carry(carry.pointer);
  }
  find_targets();
  carry.aimed = aim(carry.pointer);
}

}  // namespace apsidon
