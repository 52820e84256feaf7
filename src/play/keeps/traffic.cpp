#include "play/keeps/traffic.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "motion/inside.hpp"
#include "play/values/layers.hpp"

namespace apsidon::play_detail {

void Traffic::set_waits(std::size_t slot, bool waits) {
  if (std::exchange(cards_[slot].waits, waits) != waits) ++revision_;
}

void Traffic::travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay, ClockIndex clock) {
  motion_.travel(slot, goal, glide, delay, clock);
  set_waits(slot, motion_.waiting(slot));
}

void Traffic::put(std::size_t slot, const Pose& pose) {
  motion_.put(slot, pose);
  cards_[slot].still_shows = {};
  set_waits(slot, false);
}

void Traffic::set_departure(std::size_t slot, bool travels) {
  cards_[slot].departure = ++departures_;
  cards_[slot].travels = travels;
  cards_[slot].arrived = false;
}

void Traffic::fly(std::size_t slot, const Pose& goal, const Glide& glide, bool travels, double delay) {
  set_departure(slot, travels);
  travel(slot, goal, glide, delay);
  ++revision_;
}

void Traffic::put_in_flight(std::size_t slot, const Pose& pose) {
  put(slot, pose);
  set_departure(slot, false);
  ++revision_;
}

void Traffic::hold(std::size_t slot) {
  cards_[slot].held = true;
  set_departure(slot, false);
  part_of_[slot] = {};
  ++revision_;
}

bool Traffic::let_go(std::size_t slot) {
  ++revision_;
  return std::exchange(cards_[slot].held, false);
}

void Traffic::show(std::size_t slot, bool off, bool hidden) {
  CardState& state = cards_[slot];
  if (state.off == off && state.hidden == hidden) return;
  state.off = off;
  state.hidden = hidden;
  ++revision_;
}

void Traffic::lock(std::size_t slot) {
  cards_[slot].locked = true;
  ++revision_;
}

void Traffic::unlock(std::size_t slot) {
  cards_[slot].locked = false;
  ++revision_;
}

void Traffic::keep_slots(std::size_t slots) {
  motion_.resize(slots);
  cards_.resize(slots);
  part_of_.resize(slots);
}

void Traffic::clear_retired(const Table& table) {
  note_awake();
  for (std::size_t s = 0; s < cards_.size(); ++s) {
    if (cards_[s].id && !table.card(cards_[s].id)) motion_.clear(s);
  }
}

void Traffic::follow(std::span<const Shift> shifts, std::span<const Rest> rests, Change change,
                     Sender& sender, const Feel& feel) {
  const auto way = [&](std::size_t s) { return length(rests[s].resting.centre - motion_.pose(s).centre); };
  motion_detail::Traveller next{.of = sent_};
  for (const Shift& shift : shifts) {
    next.of += shift.other_zone ? 1 : 0;
    if (shift.other_zone && feel.move.by == StaggerBy::distance)
      next.farthest = std::max(next.farthest, way(shift.slot));
  }
  for (const Shift& shift : shifts) {
    const std::size_t s = shift.slot;
    const Pose& resting = rests[s].resting;
    CardState& state = cards_[s];
    if (shift.appeared) {
      state = {.id = shift.card};
      part_of_[s] = {};
      put(s, resting);
      continue;
    }
    if (state.held || state.locked) continue;
    if (sender.act_sends && (sender.within_too || shift.other_zone || shift.flips)) {
      state.waits_at = shift.rested_at;
      sender.for_act.push_back(shift);
      continue;
    }
    // Cards that shift for an act join its performance. A flight whose goal shifts goes on by the clock of
    // its own performance, and is that one's to skip and to stop.
    const bool shifts_only = change == Change::window || change == Change::room || change == Change::plan ||
                             (!shift.other_zone && !shift.flips);
    if (!(shifts_only && part_of_[s] && motion_.on_its_way(s))) part_of_[s] = sender.acting;
    if (change == Change::window) {
      if (motion_.on_its_way(s)) {
        motion_.shift(s, resting, feel.shift);
      } else {
        put(s, resting);
      }
    } else if (shift.other_zone && shows_at(s, resting)) {
      // It waited there for its answer: it goes on, or has landed.
      state.travels = true;
      state.arrived = false;
      if (motion_.on_its_way(s)) {
        motion_.shift(s, resting, feel.move.glide);
      } else {
        fly(s, resting, {.seconds = 0}, true);
      }
    } else if (shift.other_zone) {
      state.waits_at = shift.rested_at;
      next.index = sent_++;
      next.distance = next.farthest > 0 ? way(s) : 0;
      fly(s, resting, feel.move.glide, true, motion_detail::departure(feel.move, next));
    } else if (shift.flips) {
      travel(s, resting, feel.flip);
    } else {
      // What was carried within its zone lies elsewhere now.
      const bool elsewhere = change == Change::table && resting.centre != shift.before.centre;
      state.travels = state.travels || (state.departure > 0 && elsewhere);
      motion_.shift(s, resting, change == Change::room ? feel.raise : feel.shift);
    }
  }
}

/// Whether a card is shown as it would rest there already, or is on its way to that.
bool Traffic::shows_at(std::size_t slot, const Pose& resting) const {
  const Pose& goal = motion_.goal(slot);
  return cards_[slot].departure > 0 && goal.centre == resting.centre && goal.rotation == resting.rotation &&
         goal.scale == resting.scale && goal.flip == resting.flip;
}

void Traffic::follow_guests(std::span<const GuestShift> shifts, Change change, const Feel& feel) {
  for (const GuestShift& shift : shifts) {
    if (motion_.goal(shift.slot) == shift.goal) continue;
    if (change == Change::window) {
      put(shift.slot, shift.goal);
    } else if (shift.arrives) {
      fly(shift.slot, shift.goal, feel.move.glide, false);
    } else {
      motion_.shift(shift.slot, shift.goal, change == Change::room ? feel.raise : feel.shift);
    }
  }
}

std::optional<double> Traffic::depart(const Departure& d, const Glide& glide, PerformanceId by,
                                      ClockIndex clock) {
  CardState& state = cards_[d.slot];
  if (state.held || state.locked) return std::nullopt;
  if (d.from) put(d.slot, *d.from);
  // Until it leaves it is drawn where it is.
  const bool waits = state.departure > 0 && state.waits;
  if (!waits || d.waits_at) {
    state.waits_at = d.waits_at.value_or(state.departure > 0 ? flight_order(state.departure) : d.rests_at);
  }
  part_of_[d.slot] = by;
  set_departure(d.slot, d.from || motion_.goal(d.slot).centre != d.goal.centre);
  travel(d.slot, d.goal, glide, d.delay, clock);
  ++revision_;
  return motion_.lands_at(d.slot);
}

void Traffic::finish(PerformanceId performance) {
  note_awake();
  for (std::size_t s = 0; s < cards_.size(); ++s) {
    if (part_of_[s] == performance && !cards_[s].held) motion_.finish(s);
  }
}

void Traffic::end_effects(ClockIndex clock) {
  note_awake();
  motion_.end_effects(clock);
}

void Traffic::send_home(PerformanceId performance, const Table& table, std::span<const Rest> rests,
                        const Feel& feel) {
  for (std::size_t s = 0; s < cards_.size(); ++s) {
    if (part_of_[s] != performance || cards_[s].held || !table.card(cards_[s].id)) continue;
    travel(s, rests[s].resting, feel.back);
  }
}

void Traffic::end(PerformanceId performance, ClockIndex clock) {
  std::replace(part_of_.begin(), part_of_.end(), performance, PerformanceId{});
  motion_.remove_clock(clock);
}

void Traffic::advance_to(double own, double time, const Table& table, EventQueue& events) {
  note_awake();
  motion_.advance_to(own);
  for (const Passage& passage : motion_.passages()) {
    CardState& state = cards_[passage.slot];
    const Card* card = table.card(state.id);
    if (!card) continue;  // retired on its way
    if (passage.kind == Passage::Kind::departed) {
      set_waits(passage.slot, false);
      continue;
    }
    if (passage.kind == Passage::Kind::edge_on) {
      state.still_shows = {};
      Event event{.kind = EventKind::edge_on, .time = time, .card = card->id, .count = 1, .to = card->zone};
      event.face_up = std::cos(motion_.goal(passage.slot).flip) > 0;
      events.tell(std::move(event), table);
      continue;
    }
    // A locked card waits where it has arrived: it has not landed.
    if (state.departure == 0 || state.held || state.locked) continue;
    const bool landed = passage.kind == Passage::Kind::landed;
    const PerformanceId by = part_of_[passage.slot];
    if (state.travels && !std::exchange(state.arrived, true))
      events.tell_card(EventKind::arrived, time, *card, by);
    if (!landed) continue;
    state.departure = 0;
    ++revision_;
    if (std::exchange(state.travels, false)) events.tell_card(EventKind::landed, time, *card, by);
  }
  motion_.forget_passages();
}

}  // namespace apsidon::play_detail
