// The player's hand: from a pick-up to exactly one of dropped, refused, cancelled, superseded.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "apsidon/layout/insertion.hpp"
#include "play/impl.hpp"

namespace apsidon {

/// What the rules say, and what is being waited for.
PickVerdict Playfield::Impl::judge_pick(CardId id) const {
  PickVerdict pick = apsidon::judge_pick(setup.table, rulebook(), id);
  for (const CardId card : setup.table.cards_of(pick.run)) {
    if (!cards[slot(card)].locked) continue;
    pick.verdict = {.reason = Reason::locked, .card = card, .zone = setup.table.card(card)->zone};
    pick.run.count = 0;
    break;
  }
  return pick;
}

Event Playfield::Impl::carry_event(EventKind kind, double time) const {
  return {.kind = kind,
          .time = time,
          .card = carry.run.first,
          .count = carry.run.count,
          .from = carry.home,
          .at = carry.pointer};
}

/// A run is in the hand from now on.
void Playfield::Impl::take(const Run& run, ZoneId home) {
  carry.run = run;
  carry.cards.clear();
  for (const CardId id : setup.table.cards_of(run)) carry.cards.push_back({id, slot(id)});
  carry.home = home;
  carry.home_revision = setup.table.zone(home)->revision;
}

/// Takes a run into the hand, or says why not.
bool Playfield::Impl::pick_up(CardId id, const Gesture& gesture, Carry as) {
  const Card* card = setup.table.card(id);
  if (!card) return false;
  PickVerdict pick = judge_pick(id);
  for (const CardId each : setup.table.cards_of(pick.run)) {
    // Of the run below what another pointer drags.
    if (cards[slot(each)].picked)
      pick.verdict = {.reason = Reason::in_hand, .card = each, .zone = card->zone};
  }
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
  set_hovered({});
  if (carry.run.count > 0) other_drags.push_back(std::move(carry));
  carry = std::move(as);
  take(pick.run, card->zone);
  carry.pointer = gesture.at;
  carry.time = gesture.time;
  find_targets();
  for (const CardId each : setup.table.cards_of(pick.run)) {
    cards[slot(each)].picked = true;
    // Picked up by a tap or a key it stays where it is, and rises.
    if (carry.mode != Carry::Mode::drag) motion.lean(slot(each), risen(), rise_spring());
  }
  note(carry_event(EventKind::picked_up, gesture.time));
  stale = true;
  return true;
}

bool Playfield::Impl::start_drag(const Gesture& gesture) {
  const auto it = std::find_if(pressed.begin(), pressed.end(),
                               [&](const Pressed& p) { return p.pointer == gesture.pointer; });
  if (gesture.button != PointerButton::primary || it == pressed.end()) return false;
  const CardId id = it->on.card;
  if (!setup.table.card(id)) return false;
  if (carry.mode != Carry::Mode::drag) cancel_carry(gesture.at);  // what a tap or key has picked up
  // The grip is where the card is now, on its way or raised.
  const Vec2 grip = motion.pose(slot(id)).centre - gesture.from;
  if (!pick_up(id, gesture, {.by = gesture.pointer, .kind = gesture.pointer_kind})) return false;
  if (carry.run.count == 0 || carry.by != gesture.pointer) return true;  // refused, and said so
  carry.grip = options.drag.grip == Grip::keep ? grip : Vec2{};
  if (gesture.pointer_kind == PointerKind::touch) {
    carry.grip.y -= options.drag.above_finger * solved.card.height;
  }
  if (options.drag.look == DragLook::card) {
    for (const CardId each : setup.table.cards_of(carry.run)) {
      CardState& state = cards[slot(each)];
      state.held = true;
      state.departure = ++departures;
      part_of[slot(each)] = {};
    }
  }
  carry_to(gesture.at, gesture.time);
  return true;
}

void Playfield::Impl::find_targets() {
  carry.targets.clear();
  for (const Zone& zone : setup.table.zones()) {
    if (apsidon::judge_drop(setup.table, rulebook(), carry.run, zone.id)) carry.targets.push_back(zone.id);
  }
}

Vec2 Playfield::Impl::carried_middle(Vec2 pointer) const { return pointer + carry.grip; }

void Playfield::Impl::carry_to(Vec2 pointer, double time) {
  // A held card leans into its way, the more the faster it goes: fully at five widths in a tenth of a second.
  const double passed = time - carry.time;
  const float speed = passed > 1e-4 ? (pointer.x - carry.pointer.x) / static_cast<float>(passed) : 0;
  const float whole = 50 * std::max(solved.card.width, 1.0f);
  const float tilt =
      std::clamp(speed / whole, -1.0f, 1.0f) * options.feel.tilt_deg * std::numbers::pi_v<float> / 180;
  carry.pointer = pointer;
  carry.time = time;
  carry.aimed = aim(pointer);
  carry.insert_at.reset();
  const bool wanted =
      std::find(carry.targets.begin(), carry.targets.end(), carry.aimed) != carry.targets.end();
  float rotation = 0;
  if (wanted) {
    const std::size_t i = carry.aimed.value - 1;
    const bool within = carry.aimed == carry.home;
    if (within ? setup.rules[i].sorts : setup.handling[i].inserts) {
      const std::optional<std::size_t> before =
          rooms[i].insert_at == no_place ? std::nullopt
                                         : std::optional(static_cast<std::size_t>(rooms[i].insert_at));
      carry.insert_at = insertion_place(carry.aimed, carried_middle(pointer), before);
    }
    // Over a place whose cards lie sideways, it lies as it would there.
    if (setup.handling[i].lays_sideways) rotation = std::numbers::pi_v<float> / 2;
  }
  make_room();
  stale = true;
  if (options.drag.look == DragLook::copy) return;
  const Vec2 first_neutral = rests[slot(carry.run.first)].neutral.centre;
  for (const CardId id : setup.table.cards_of(carry.run)) {
    const std::size_t s = slot(id);
    Pose goal = rests[s].resting;
    goal.centre = carried_middle(pointer) + (rests[s].neutral.centre - first_neutral);
    goal.rotation = rotation;
    goal.lift = options.feel.carry_lift;
    travel(s, goal, options.feel.carry);
    if (options.feel.tilt_deg > 0) motion.lean(s, {.rotation = tilt}, options.feel.tilt);
  }
  carry.tilts = tilt != 0;
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
  const Rect goal = rect_around(carried_middle(pointer), solved.card);
  const float card_area = std::max(solved.card.width * solved.card.height, 1.0f);
  constexpr float pointer_weight = 0.5f;  // being under the pointer counts as half a card of overlap
  constexpr float least = 0.1f;           // touching a neighbour with an edge is no aim
  constexpr float stays = 0.1f;           // what it aims at stays until another is clearly more
  ZoneId best;
  float best_score = least;
  for (const ZoneId id : carry.targets) {
    const Rect& area = areas[id.value - 1];
    float score = overlap(goal, area) / card_area + (area.contains(pointer) ? pointer_weight : 0);
    if (score > 0 && id == carry.aimed) score += stays;
    if (score > best_score) {
      best_score = score;
      best = id;
    }
  }
  return best ? best : zone_at(pointer);
}

void Playfield::Impl::let_go(const Gesture& gesture) {
  ZoneId to = carry.aimed;
  const ZoneId flicked = setup.handling[carry.home.value - 1].flick_to;
  // Where it would come to rest if it slid on for a fifth of a second.
  const Vec2 slides_to = gesture.at + gesture.velocity * 0.2f;
  if (flicked && gesture.kind == GestureKind::flick && !areas[carry.home.value - 1].contains(slides_to)) {
    const bool aims = to && to != carry.home &&
                      std::find(carry.targets.begin(), carry.targets.end(), to) != carry.targets.end();
    if (!aims) to = flicked;
  }
  const bool free = to && std::holds_alternative<FreeLayout>(setup.places[to.value - 1].layout);
  // Back to its own place is no move.
  const bool elsewhere = free || carry.insert_at != setup.table.card(carry.run.first)->place;
  const bool sorts = to && to == carry.home && setup.rules[to.value - 1].sorts && elsewhere;
  if (!to || (to == carry.home && !sorts))
    return put_back(EventKind::cancelled, carry_event({}, gesture.time));

  Proposal proposal{.id = ++proposals, .run = carry.run, .from = carry.home, .to = to};
  if (to == carry.aimed) proposal.at = carry.insert_at;
  if (std::holds_alternative<FreeLayout>(setup.places[to.value - 1].layout)) {
    proposal.middle = carried_middle(gesture.at);
  }
  propose(proposal, gesture.at, gesture.time);
}

/// Ends a drag that moved nothing: the cards go home, each by itself, for the game may have torn the run
/// apart.
void Playfield::Impl::put_back(EventKind ending, const Event& event) {
  Event said = event;
  said.kind = ending;
  note(said);
  // They keep the order in which they were picked up, so that the run stays stacked as it is.
  std::vector<std::size_t> back;
  for (const Taken& taken : carry.cards) {
    if (cards[taken.slot].held && setup.table.card(taken.card)) back.push_back(taken.slot);
  }
  forget_carry();
  for (const std::size_t s : back) travel(s, rests[s].resting, options.feel.back);
}

/// What is in the hand is so no more; another pointer's drag goes on.
void Playfield::Impl::forget_carry() {
  for (const Taken& taken : carry.cards) {
    CardState& state = cards[taken.slot];
    if (state.id != taken.card) continue;
    if (state.picked) motion.lean(taken.slot, {}, state.held ? options.feel.tilt : rise_spring());
    state.held = state.picked = false;
  }
  if (carry.mode == Carry::Mode::drag && carry.run.count > 0) gestures.forget(carry.by);
  carry = {};
  if (!other_drags.empty()) {
    carry = std::move(other_drags.back());
    other_drags.pop_back();
  }
  make_room();
  stale = true;
}

void Playfield::Impl::cancel_carry(Vec2 at) {
  if (carry.run.count == 0) return;
  Event event = carry_event(EventKind::cancelled, clock.now());
  event.at = at;
  put_back(EventKind::cancelled, event);
}

void Playfield::Impl::cancel_all() {
  while (carry.run.count > 0) cancel_carry(carry.pointer);
}

/// The drag of this pointer, if it has one, is what is in the hand from now on.
void Playfield::Impl::turn_to_drag_of(std::uint32_t pointer) {
  for (Carry& other : other_drags) {
    if (other.by == pointer) return std::swap(other, carry);
  }
}

/// A change of the zone from which held cards came ends the drag: they may be no run any more, or be gone.
void Playfield::Impl::cancel_if_touched() {
  std::vector<std::uint32_t> drags;
  for (const Carry& other : other_drags) drags.push_back(other.by);
  const std::uint32_t first = carry.by;
  const auto look = [&] {
    if (carry.run.count == 0) return;
    if (setup.table.zone(carry.home)->revision != carry.home_revision) return cancel_carry(carry.pointer);
    find_targets();
    carry.aimed = aim(carry.pointer);
    const auto& targets = carry.targets;
    if (std::find(targets.begin(), targets.end(), carry.aimed) == targets.end()) carry.insert_at.reset();
  };
  look();
  for (const std::uint32_t by : drags) {
    turn_to_drag_of(by);
    if (carry.by == by) look();
  }
  turn_to_drag_of(first);
}

}  // namespace apsidon
