#include "play/hand.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

#include "apsidon/layout/free.hpp"

namespace apsidon::play_detail {
namespace {

constexpr double slides_on = 0.2;  // seconds for which a flicked card would slide on

bool is_free(const TableSetup& setup, ZoneId zone) {
  return zone && std::holds_alternative<FreeLayout>(setup.layout_of(zone).layout);
}

}  // namespace

bool Hand::Carry::wants(ZoneId zone) const {
  return std::find(targets.begin(), targets.end(), zone) != targets.end();
}

void Hand::set_options(const DragOptions& options) {
  options_ = options;
  ++revision_;
}

/// Keeps what the layouts ask for.
void Hand::note_change() {
  ++revision_;
  held_.clear();
  insertions_.clear();
  each([&](const Carry& carry) {
    if (carry.insert_at) insertions_.push_back({carry.aimed, *carry.insert_at});
    if (!carry.holds) return;
    for (const Taken& taken : carry.cards) held_.push_back(taken.card);
  });
}

bool Hand::has(CardId card) const {
  bool found = false;
  each([&](const Carry& carry) {
    found = found || (carry.picked_up && std::any_of(carry.cards.begin(), carry.cards.end(),
                                                     [&](const Taken& taken) { return taken.card == card; }));
  });
  return found;
}

HandRequest Hand::read(const Gesture& gesture, const Table& table) {
  select(gesture.pointer);
  const bool busy = carry_.drags();
  const bool mine = busy && carry_.by == gesture.pointer;
  const Hit* on = pressed_on(gesture.pointer);
  const bool on_card = on && table.card(on->card);
  switch (gesture.kind) {
    case GestureKind::hover:
      return HandRequest::hover;
    case GestureKind::leave:
      return HandRequest::leave;
    case GestureKind::press:
      return HandRequest::press;
    case GestureKind::tap:
    case GestureKind::double_tap:
      return !busy && on && (on->zone || on->panel) ? HandRequest::tap : HandRequest::none;
    case GestureKind::long_press:
      return !busy && on_card ? HandRequest::long_press : HandRequest::none;
    case GestureKind::release:
      return !busy && on_card ? HandRequest::release : HandRequest::none;
    case GestureKind::drag_start: {
      const bool may = (!busy || options_.several) && gesture.button == PointerButton::primary && on_card;
      return may ? HandRequest::drag : HandRequest::none;
    }
    case GestureKind::drag_move:
      return mine ? HandRequest::carry : HandRequest::none;
    case GestureKind::drag_end:
    case GestureKind::flick:
      return mine ? HandRequest::let_go : HandRequest::none;
    case GestureKind::cancel:
      return mine ? HandRequest::cancel : HandRequest::none;
  }
  return HandRequest::none;
}

void Hand::press(std::uint32_t pointer, const Hit& on) {
  // Fingers get new numbers all the time: what is over is forgotten.
  std::erase_if(pressed_,
                [&](const Pressed& p) { return p.pointer == pointer || !gestures_.expects(p.pointer); });
  pressed_.push_back({pointer, on});
}

const Hit* Hand::pressed_on(std::uint32_t pointer) const {
  const auto it =
      std::find_if(pressed_.begin(), pressed_.end(), [&](const Pressed& p) { return p.pointer == pointer; });
  return it == pressed_.end() ? nullptr : &it->on;
}

void Hand::take(Carry as, const Run& run, const Table& table) {
  if (!carry_.empty()) others_.push_back(std::move(carry_));
  carry_ = std::move(as);
  carry_.run = run;
  carry_.home = table.card(run.first)->zone;
  carry_.home_revision = table.zone(carry_.home)->revision;
  for (const CardId card : table.cards_of(run)) carry_.cards.push_back({card, *table.slot(card)});
  note_change();
}

void Hand::find_targets(const Table& table, const Rulebook& rules) {
  carry_.targets.clear();
  for (const Zone& zone : table.zones()) {
    if (judge_drop(table, rules, carry_.run, zone.id)) carry_.targets.push_back(zone.id);
  }
  note_change();
}

void Hand::begin_drag(Vec2 grip, float card_height) {
  carry_.grip = options_.grip == Grip::keep ? grip : Vec2{};
  if (carry_.kind == PointerKind::touch) carry_.grip.y -= options_.above_finger * card_height;
  carry_.holds = options_.look == DragLook::card;
  note_change();
}

void Hand::move_to(Vec2 pointer, double time, const TableSetup& setup, const Arrangement& arrangement,
                   const Feel& feel) {
  // A held card leans into its way, the more the faster it goes: fully at five widths in a tenth of a second.
  const double passed = time - carry_.time;
  const float speed = passed > 1e-4 ? (pointer.x - carry_.pointer.x) / static_cast<float>(passed) : 0;
  const float whole = 50 * std::max(arrangement.card().width, 1.0f);
  const float tilt = std::clamp(speed / whole, -1.0f, 1.0f) * feel.tilt_deg * std::numbers::pi_v<float> / 180;
  carry_.tilt = carry_.holds ? tilt : 0;
  carry_.pointer = pointer;
  carry_.time = time;
  carry_.aimed = aim(pointer, arrangement);
  carry_.insert_at.reset();
  carry_.rotation = 0;
  if (carry_.wants(carry_.aimed)) {
    const ZoneRules& rules = setup.rules_of(carry_.aimed);
    const bool within = carry_.aimed == carry_.home;
    if (within ? rules.sorts : rules.inserts) {
      carry_.insert_at = arrangement.insertion_index(setup, carry_.aimed, carry_.middle(pointer),
                                                     arrangement.room_before(carry_.aimed), held_);
    }
    // Over a zone whose cards lie sideways, it lies as it would there.
    if (rules.lays_sideways) carry_.rotation = std::numbers::pi_v<float> / 2;
  }
  note_change();
}

void Hand::aim_at(ZoneId zone) {
  carry_.aimed = zone;
  note_change();
}

/// The zone that a drop would go to: of those that would take the run, the one that the held card's goal and
/// the pointer are over most; else the zone under the pointer, to be told why not.
ZoneId Hand::aim(Vec2 pointer, const Arrangement& arrangement) const {
  const Size card = arrangement.card();
  const Rect goal = rect_around(carry_.middle(pointer), card);
  const float card_area = std::max(card.width * card.height, 1.0f);
  constexpr float pointer_weight = 0.5f;  // being under the pointer counts as half a card of overlap
  constexpr float least = 0.1f;           // touching a neighbour with an edge is no aim
  constexpr float stays = 0.1f;           // what it aims at stays until another is clearly more
  ZoneId best;
  float best_score = least;
  for (const ZoneId zone : carry_.targets) {
    const Rect& area = arrangement.area(zone);
    float score = overlap(goal, area) / card_area + (area.contains(pointer) ? pointer_weight : 0);
    if (score > 0 && zone == carry_.aimed) score += stays;
    if (score > best_score) {
      best_score = score;
      best = zone;
    }
  }
  return best ? best : arrangement.zone_at(pointer);
}

std::optional<Move> Hand::let_go(const Gesture& gesture, const TableSetup& setup,
                                 const Arrangement& arrangement) const {
  ZoneId to = carry_.aimed;
  const ZoneId flicked = setup.handling_of(carry_.home).flick_to;
  const Vec2 slides_to = gesture.at + gesture.velocity * static_cast<float>(slides_on);
  if (flicked && gesture.kind == GestureKind::flick && !arrangement.area(carry_.home).contains(slides_to)) {
    const bool aims = to && to != carry_.home && carry_.wants(to);
    if (!aims) to = flicked;
  }
  // Back to its own index is no move.
  const bool elsewhere = is_free(setup, to) || carry_.insert_at != setup.table.card(carry_.run.first)->index;
  const bool sorts = to && to == carry_.home && setup.rules_of(to).sorts && elsewhere;
  if (!to || (to == carry_.home && !sorts)) return std::nullopt;
  Move move = move_to(to);
  if (to == carry_.aimed) move.at = carry_.insert_at;
  if (is_free(setup, to)) {
    const Card& card = *setup.table.card(carry_.run.first);
    const LaidCard laid{.face_up = card.face_up,
                        .sideways = sorts ? card.sideways : setup.rules_of(to).lays_sideways};
    move.position = free_position(arrangement.input(setup, to), laid, carry_.middle(gesture.at));
  }
  return move;
}

Hand::Carry Hand::forget() {
  Carry was = std::exchange(carry_, {});
  if (!others_.empty()) {
    carry_ = std::move(others_.back());
    others_.pop_back();
  }
  note_change();
  return was;
}

std::vector<std::uint32_t> Hand::pointers() const {
  std::vector<std::uint32_t> out{carry_.by};
  for (const Carry& other : others_) out.push_back(other.by);
  return out;
}

void Hand::select(std::uint32_t pointer) {
  for (Carry& other : others_) {
    if (other.by == pointer) return std::swap(other, carry_);
  }
}

bool Hand::is_touched(const Table& table) const {
  return table.zone(carry_.home)->revision != carry_.home_revision;
}

void Hand::aim_again(const Table& table, const Rulebook& rules, const Arrangement& arrangement) {
  find_targets(table, rules);
  carry_.aimed = aim(carry_.pointer, arrangement);
  if (!carry_.wants(carry_.aimed)) carry_.insert_at.reset();
  note_change();
}

double Hand::due() const {
  double next = gestures_.due();
  each([&](const Carry& carry) {
    if (carry.tilt != 0) next = std::min(next, carry.time + tilt_stays);
  });
  return next;
}

Event Hand::event(EventKind kind, double time) const {
  return {.kind = kind,
          .time = time,
          .card = carry_.run.first,
          .count = carry_.run.count,
          .from = carry_.home,
          .at = carry_.pointer};
}

Vec2 Hand::from_first(const Run& run, const Table& table, const Arrangement& arrangement, CardId card) {
  return arrangement.neutral(*table.slot(card)).centre - arrangement.neutral(*table.slot(run.first)).centre;
}

Pose Hand::goal(CardId card, const Table& table, const Arrangement& arrangement, const Feel& feel) const {
  Pose goal = arrangement.resting(*table.slot(card));
  goal.centre = carry_.middle(carry_.pointer) + from_first(carry_.run, table, arrangement, card);
  goal.rotation = carry_.rotation;
  goal.lift = feel.carry_lift;
  return goal;
}

Pose Hand::copy_pose(const Carry& carry, const Table& table, const Arrangement& arrangement, CardId card) {
  Pose pose = arrangement.resting(*table.slot(card));
  pose.centre = carry.middle(carry.pointer) + from_first(carry.run, table, arrangement, card);
  pose.rotation = 0;
  return pose;
}

}  // namespace apsidon::play_detail
