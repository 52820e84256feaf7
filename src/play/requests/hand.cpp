#include "play/requests/hand.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

#include "apsidon/layout/free.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {
namespace {

constexpr double slides_on = 0.2;  // seconds for which a flicked card would slide on

/// Where a flick in this direction goes.
ZoneId flicked_to(const FlickTargets& targets, Vec2 way) {
  if (std::abs(way.x) >= std::abs(way.y)) return way.x < 0 ? targets.left : targets.right;
  return way.y < 0 ? targets.up : targets.down;
}

bool is_free(const TableSetup& setup, ZoneId zone) {
  return zone && traits_of(setup.layout_of(zone).kind).keeps_positions;
}

}  // namespace

bool Hand::Carry::wants(ZoneId zone) const {
  return std::find(targets.begin(), targets.end(), zone) != targets.end();
}

bool Hand::Carry::is_from(ZoneId zone) const {
  return std::all_of(cards.begin(), cards.end(), [&](const Taken& taken) { return taken.zone == zone; });
}

Move Hand::Carry::to(ZoneId zone) const {
  if (chosen.empty()) return {.run = run, .from = home, .to = zone};
  const auto first =
      std::find_if(cards.begin(), cards.end(), [&](const Taken& taken) { return taken.card == chosen[0]; });
  return {.kind = MoveKind::several, .cards = chosen, .from = first->zone, .to = zone};
}

void Hand::set_options(const DragOptions& options) {
  options_ = options;
  ++revision_;  // a copy that is held shows at once how much of it is seen
}

/// Keeps what the layouts ask for.
void Hand::note_change() {
  ++revision_;
  held_.clear();
  insertions_.clear();
  each([&](const Carry& carry) {
    if (carry.insert_at) insertions_.push_back({carry.aimed, *carry.insert_at, carry.run.count});
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
  const Pressed* down = pressed(gesture.pointer);
  const Hit* on = down ? &down->on : nullptr;
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
      return !busy && on && (on->zone || on->panel || down->anywhere || down->chooses) ? HandRequest::tap
                                                                                       : HandRequest::none;
    case GestureKind::long_press:
      return !busy && on_card ? HandRequest::long_press : HandRequest::none;
    case GestureKind::release:
      return !busy && on_card ? HandRequest::release : HandRequest::none;
    case GestureKind::drag_start: {
      const bool primary = gesture.button == PointerButton::primary;
      if (!busy && primary && down && down->chooses && gesture.pointer_kind != PointerKind::touch)
        return HandRequest::sweep;
      const bool may = (!busy || options_.several) && primary && on_card;
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

void Hand::press(std::uint32_t pointer, const Hit& on, bool anywhere, bool chooses) {
  // Fingers get new numbers all the time: what is over is forgotten.
  std::erase_if(pressed_,
                [&](const Pressed& p) { return p.pointer == pointer || !gestures_.expects(p.pointer); });
  pressed_.push_back({pointer, on, anywhere, chooses});
}

const Hand::Pressed* Hand::pressed(std::uint32_t pointer) const {
  const auto it =
      std::find_if(pressed_.begin(), pressed_.end(), [&](const Pressed& p) { return p.pointer == pointer; });
  return it == pressed_.end() ? nullptr : &*it;
}

const Hit* Hand::pressed_on(std::uint32_t pointer) const {
  const Pressed* down = pressed(pointer);
  return down ? &down->on : nullptr;
}

void Hand::take(Carry as, const Run& run, const Table& table) {
  if (!carry_.empty()) others_.push_back(std::move(carry_));
  carry_ = std::move(as);
  carry_.run = run;
  carry_.home = table.card(run.first)->zone;
  const bool chosen = !carry_.chosen.empty();
  carry_.cards_above = chosen ? 0 : above(run, table);
  for (const CardId card : chosen ? std::span<const CardId>(carry_.chosen) : table.cards_of(run))
    carry_.cards.push_back({card, *table.slot(card), table.card(card)->zone});
  if (chosen) {
    std::sort(carry_.cards.begin(), carry_.cards.end(), [&](const Taken& a, const Taken& b) {
      return std::pair(a.zone, table.card(a.card)->index) < std::pair(b.zone, table.card(b.card)->index);
    });
  }
  note_change();
}

std::size_t Hand::above(const Run& run, const Table& table) {
  const Card& first = *table.card(run.first);
  return table.zone(first.zone)->cards.size() - first.index - run.count;
}

float Hand::turned(const Carry& carry, const Card& card) {
  return carry.sideways.value_or(card.sideways) ? std::numbers::pi_v<float> / 2 : 0;
}

void Hand::find_targets(const Table& table, const Rulebook& rules) {
  carry_.targets.clear();
  // It may be that it would not be picked up any more: then nothing takes it.
  const bool may = !carry_.chosen.empty() && rules_detail::judge_chosen(table, rules, carry_.chosen);
  for (const Zone& zone : table.zones()) {
    if (may && rules_detail::judge_chosen_drop(table, rules, carry_.chosen, zone.id))
      carry_.targets.push_back(zone.id);
  }
  if (!carry_.chosen.empty()) return note_change();
  const PickVerdict pick = judge_pick(table, rules, carry_.run.first);
  if (pick.verdict && pick.run == carry_.run) {
    for (const Zone& zone : table.zones()) {
      if (judge_drop(table, rules, carry_.run, zone.id)) carry_.targets.push_back(zone.id);
    }
  }
  note_change();
}

void Hand::begin_drag(Vec2 grip, float turned, float card_height) {
  carry_.grip = options_.grip == Grip::keep ? grip : Vec2{};
  carry_.gripped = turned;
  if (carry_.kind == PointerKind::touch) carry_.above = {0, -options_.above_finger * card_height};
  carry_.holds = options_.look == DragLook::card;
  note_change();
}

void Hand::move_to(Vec2 pointer, double time, const TableSetup& setup, const Arrangement& arrangement,
                   const Feel& feel) {
  // A held card leans into its way, the more the faster it goes.
  const double passed = time - carry_.time;
  const float speed = passed > 1e-4 ? (pointer.x - carry_.pointer.x) / static_cast<float>(passed) : 0;
  const float whole = feel.tilt_speed * std::max(arrangement.card().width, 1.0f);
  const float tilt = std::clamp(speed / whole, -1.0f, 1.0f) * feel.tilt_angle.radians();
  carry_.tilt = carry_.holds ? tilt : 0;
  carry_.pointer = pointer;
  carry_.time = time;
  find_aim(setup, arrangement);
  note_change();
}

/// Where it would be let go now, at which index, and turned how.
void Hand::find_aim(const TableSetup& setup, const Arrangement& arrangement) {
  carry_.aimed = aim(carry_.pointer, arrangement);
  carry_.insert_at.reset();
  carry_.sideways.reset();
  const bool wanted = carry_.wants(carry_.aimed);
  const bool within = carry_.is_from(carry_.aimed);
  if (wanted && !within) carry_.sideways = setup.rules_of(carry_.aimed).lays_sideways;
  carry_.rotation = turned(carry_, *setup.table.card(carry_.run.first));
  if (!wanted) return;
  const ZoneRules& rules = setup.rules_of(carry_.aimed);
  if (within ? rules.sorts : rules.inserts) {
    carry_.insert_at = arrangement.insertion_index(setup, carry_.aimed, carry_.middle(carry_.pointer),
                                                   arrangement.room_before(carry_.aimed), held_);
  }
}

void Hand::aim_at(ZoneId zone) {
  carry_.aimed = zone;
  note_change();
}

/// The zone that a drop would go to: of those that would take the run, the one that the held card's goal and
/// the pointer are over most; else the zone under the pointer, to be told why not.
ZoneId Hand::aim(Vec2 pointer, const Arrangement& arrangement) const {
  const Size card = arrangement.card();
  const Rect goal = rect_around(carry_.middle(pointer, 0), card);  // however it lies: it would not flicker
  const float card_area = std::max(card.width * card.height, 1.0f);
  constexpr float pointer_weight = 0.5f;  // being under the pointer counts as half a card of overlap
  const float least = options_.aim_overlap;
  constexpr float stays = 0.1f;  // what it aims at stays until another is clearly more
  ZoneId best;
  float best_score = least;
  for (const ZoneId zone : carry_.targets) {
    const Rect& area = arrangement.area(zone);
    float score = overlap(goal, area) / card_area + (area.contains(pointer) ? pointer_weight : 0);
    if (score > 0 && zone == carry_.aimed) score += stays;
    // Of zones one over another the upper one is meant, while the pointer is on it.
    if (area.contains(pointer)) score += 2 * static_cast<float>(arrangement.layer(zone));
    if (score > best_score) {
      best_score = score;
      best = zone;
    }
  }
  return best ? best : arrangement.zone_at(pointer, [](ZoneId) { return true; });
}

/// Back to its own index is no move.
bool Hand::lies_elsewhere(const Table& table) const {
  std::size_t at = carry_.insert_at.value_or(0);
  const auto is_at = [&](CardId card) { return table.card(card)->index == at++; };
  if (!carry_.insert_at) return true;
  return carry_.chosen.empty() ? !is_at(carry_.run.first)
                               : !std::all_of(carry_.chosen.begin(), carry_.chosen.end(), is_at);
}

Hand::Letting Hand::let_go(const Gesture& gesture, const TableSetup& setup,
                           const Arrangement& arrangement) const {
  ZoneId to = carry_.aimed;
  // A flick by its speed slides on; a release far enough to one side counts as one.
  const Vec2 slides_to = gesture.at + gesture.velocity * static_cast<float>(slides_on);
  const Vec2 gone = gesture.at - gesture.from;
  const float far = options_.swipe * arrangement.card().width;
  const bool fast = gesture.kind == GestureKind::flick;
  const bool swipes = far > 0 && std::max(std::abs(gone.x), std::abs(gone.y)) >= far;
  Letting letting{.flicked = fast || swipes};
  const bool leaves = swipes || (fast && !arrangement.area(carry_.home).contains(slides_to));
  const ZoneId flicked = flicked_to(setup.handling_of(carry_.home).flick_to, fast ? gesture.velocity : gone);
  if (leaves && flicked) {
    const bool aims = to && to != carry_.home && carry_.wants(to);
    if (!aims) to = flicked;
  }
  const bool within = to && carry_.is_from(to);
  const bool sorts =
      within && setup.rules_of(to).sorts && (is_free(setup, to) || lies_elsewhere(setup.table));
  if (!to || (to == carry_.home && !sorts)) return letting;
  Move move = carry_.to(to);
  if (to == carry_.aimed) move.at = carry_.insert_at;
  if (is_free(setup, to)) {
    const Card& card = *setup.table.card(carry_.run.first);
    const LaidCard laid{.face_up = card.face_up,
                        .sideways = sorts ? card.sideways : setup.rules_of(to).lays_sideways};
    move.position = free_position(arrangement.input(setup, to), laid, carry_.middle(gesture.at));
  }
  letting.move = move;
  return letting;
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

bool Hand::is_covered(const Table& table, const Rulebook& rules) const {
  if (!carry_.chosen.empty() || above(carry_.run, table) <= carry_.cards_above) return false;
  const PickVerdict pick = judge_pick(table, rules, carry_.run.first);
  const Reason reason = pick.verdict.reason;
  return pick.verdict ? pick.run != carry_.run : reason == Reason::not_top || reason == Reason::not_linked;
}

bool Hand::is_torn(const Table& table) const {
  if (!carry_.chosen.empty()) {
    return std::any_of(carry_.cards.begin(), carry_.cards.end(), [&](const Taken& was) {
      return !table.card(was.card) || table.card(was.card)->zone != was.zone;
    });
  }
  const Card* first = table.card(carry_.run.first);
  const auto now = table.cards_of(carry_.run);
  return !first || first->zone != carry_.home ||
         !std::equal(now.begin(), now.end(), carry_.cards.begin(), carry_.cards.end(),
                     [](CardId is, const Taken& was) { return is == was.card; });
}

void Hand::aim_again(const TableSetup& setup, const Rulebook& rules, const Arrangement& arrangement) {
  find_targets(setup.table, rules);
  // Keys aim at a zone, until it does not take the run any more.
  if (carry_.drags()) {
    find_aim(setup, arrangement);
  } else if (!carry_.wants(carry_.aimed)) {
    carry_.aimed = {};
  }
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

Offset Hand::held_beside(const Carry& carry, const Table& table, const Arrangement& arrangement,
                         CardId card) {
  if (carry.chosen.empty()) {
    const auto middle = [&](CardId of) { return arrangement.neutral(*table.slot(of)).centre; };
    return {.move = middle(card) - middle(carry.run.first)};
  }
  const auto place = [&](CardId of) {
    const auto is = [&](const Taken& taken) { return taken.card == of; };
    return static_cast<float>(std::find_if(carry.cards.begin(), carry.cards.end(), is) - carry.cards.begin());
  };
  // A fan that a hand would hold: of many cards it is closer, so that it stays one.
  const float gaps = std::max(static_cast<float>(carry.cards.size()) - 1, 1.0f);
  const float steps = place(card) - place(carry.run.first);
  const Size size = arrangement.card();
  return {.move = {steps * std::min(0.24f, 1.7f / gaps) * size.width, steps * steps * 0.008f * size.height},
          .rotation = steps * std::min(0.07f, 0.5f / gaps)};
}

Pose Hand::goal(const Carry& carry, CardId card, const Table& table, const Arrangement& arrangement,
                const Feel& feel) const {
  Pose goal = arrangement.resting(*table.slot(card));
  const Offset beside = held_beside(carry, table, arrangement, card);
  goal.centre = carry.middle(carry.pointer) + beside.move;
  goal.rotation = turned(carry, *table.card(card)) + beside.rotation;
  goal.lift = feel.carry_lift;
  goal.opacity *= options_.held_opacity;
  return goal;
}

Pose Hand::copy_pose(const Carry& carry, const Table& table, const Arrangement& arrangement, CardId card) {
  Pose pose = arrangement.resting(*table.slot(card));
  const Offset beside = held_beside(carry, table, arrangement, card);
  pose.centre = carry.middle(carry.pointer) + beside.move;
  pose.rotation = turned(carry, *table.card(card)) + beside.rotation;
  return pose;
}

}  // namespace apsidon::play_detail
