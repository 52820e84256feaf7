// The order in which scripts run.
#include <algorithm>

#include "play/impl.hpp"

namespace apsidon::play_detail {

PerformanceId Impl::perform(const Script& script, bool closes_gate) {
  const PerformanceId id = ids.next_performance();
  performances.add(id, traffic.add_clock(), script, feel(), closes_gate);
  if (closes_gate) close_gate(performing_reason);
  if (performances.needs_empty_hand(id)) cancel_all(CancelCause::by_game);
  events.tell({.kind = EventKind::began, .time = now(), .performance = id});
  begin_steps(id);
  end_steps(id);
  if (performances.running(id)) performances.tell(id, traffic.motion(), table(), now(), events);
  return id;
}

/// Begins every step whose time has come: it follows on the last of those that it waits for.
void Impl::begin_steps(PerformanceId id) {
  const ClockIndex clock = performances.clock_of(id);
  while (const auto step = performances.next_ready(id, traffic.motion())) {
    const auto change = performances.change_of(*step, scene());
    Sender by{.acting = id, .act_sends = true, .within_too = performances.sends_within(*step)};
    if (change) {
      referee.perform(*change);
      after_change(by);
    }
    const StepPlan plan = performances.plan(*step, change, by.for_act, scene());
    follow_rest(by.for_act, plan);
    for (const CardId card : plan.with_effect) start_effect(card, plan.effect, plan.effect_kind, clock);
    for (const Departure& departure : plan.departures) {
      const auto lands = traffic.depart(departure, plan.glide, id, clock);
      if (lands) performances.depart(*step, traffic.card(departure.slot).id, departure.delay, *lands);
    }
    performances.begun(*step, plan);
  }
}

/// What an act has moved or flipped beside the cards that it sends goes there by the feel: the neighbours of
/// a card that is taken from them, say.
void Impl::follow_rest(std::vector<Shift>& shifts, const StepPlan& plan) {
  std::vector<std::uint32_t> sent;
  for (const Departure& departure : plan.departures) sent.push_back(departure.slot);
  std::sort(sent.begin(), sent.end());
  std::erase_if(shifts, [&](const Shift& s) { return std::binary_search(sent.begin(), sent.end(), s.slot); });
  Sender by_feel;
  if (!shifts.empty()) follow(shifts, Change::table, by_feel);
}

/// Ends the steps whose time has come, begins those that waited for them, and at last ends the whole.
void Impl::end_steps(PerformanceId id) {
  while (performances.end_steps(id, traffic.motion())) begin_steps(id);
  if (!performances.finished(id)) return;
  performances.tell(id, traffic.motion(), table(), now(), events);
  end_performance(id, EventKind::ended);
}

void Impl::end_performance(PerformanceId id, EventKind kind) {
  traffic.end(id, performances.clock_of(id));
  performances.remove(id);
  if (!performances.closes_gate()) open_gate(performing_reason);
  events.tell({.kind = kind, .time = now(), .performance = id});
}

void Impl::skip(PerformanceId id) {
  // A step at a time: what is in flight arrives, what waited for it begins.
  while (performances.running(id)) {
    traffic.finish(id);
    traffic.end_effects(performances.clock_of(id));
    move_cards(traffic.now());
    performances.cut_short(id);
    performances.tell(id, traffic.motion(), table(), now(), events);
    end_steps(id);
  }
}

void Impl::stop(PerformanceId id) {
  if (!performances.running(id)) return;
  traffic.send_home(id, table(), arrangement.rests(), feel());
  traffic.release_effects(performances.clock_of(id));
  end_performance(id, EventKind::stopped);
}

}  // namespace apsidon::play_detail
