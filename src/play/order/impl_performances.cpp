// The order in which scripts run.
#include <algorithm>

#include "play/order/following.hpp"
#include "play/order/impl.hpp"

namespace apsidon::play_detail {
namespace {

void begin_steps(Impl& field, PerformanceId id);
void follow_rest(Impl& field, std::vector<Shift>& shifts, const StepPlan& plan);
void end_performance(Impl& field, PerformanceId id, EventKind kind);

/// Begins every step whose time has come: it follows on the last of those that it waits for.
void begin_steps(Impl& field, PerformanceId id) {
  const ClockIndex clock = field.performances.clock_of(id);
  while (const auto step = field.performances.next_ready(id, field.traffic.motion())) {
    const auto change = field.performances.change_of(*step, field.scene());
    Following follows(
        field, {.acting = id, .act_sends = true, .within_too = field.performances.sends_within(*step)});
    if (change) {
      field.referee.perform(*change);
      follows.table_changed();
    }
    const StepPlan plan = field.performances.plan(*step, change, follows.for_act(), field.scene());
    follow_rest(field, follows.for_act(), plan);
    for (const CardId card : plan.with_effect) field.start_effect(card, plan.effect, plan.effect_kind, clock);
    for (const Departure& departure : plan.departures) {
      const auto lands = field.traffic.depart(departure, plan.glide, id, clock);
      if (lands)
        field.performances.depart(*step, field.traffic.card(departure.slot).id, departure.delay, *lands);
    }
    field.performances.begun(*step, plan);
  }
}

/// What an act has moved or flipped beside the cards that it sends goes there by the feel: the neighbours of
/// a card that is taken from them, say.
void follow_rest(Impl& field, std::vector<Shift>& shifts, const StepPlan& plan) {
  std::vector<std::uint32_t> sent;
  for (const Departure& departure : plan.departures) sent.push_back(departure.slot);
  std::sort(sent.begin(), sent.end());
  std::erase_if(shifts, [&](const Shift& s) { return std::binary_search(sent.begin(), sent.end(), s.slot); });
  if (!shifts.empty()) Following(field).send(shifts, Change::table);
}

void end_performance(Impl& field, PerformanceId id, EventKind kind) {
  field.traffic.end(id, field.performances.clock_of(id));
  field.performances.remove(id);
  if (!field.performances.closes_gate()) field.open_gate(performing_reason);
  field.events.tell({.kind = kind, .time = field.now(), .performance = id});
  field.inbox.release_behind(id, field.now());
}

}  // namespace

PerformanceId Impl::perform(const Script& script, bool closes_gate) {
  const PerformanceId id = ids.next_performance();
  performances.add(id, traffic.add_clock(), script, feel(), closes_gate);
  if (closes_gate) close_gate(performing_reason);
  if (performances.needs_empty_hand(id)) Following(*this).cancel_all(CancelCause::by_game);
  events.tell({.kind = EventKind::began, .time = now(), .performance = id});
  begin_steps(*this, id);
  end_steps(id);
  if (performances.running(id)) performances.tell(id, traffic.motion(), table(), now(), events);
  return id;
}

/// Ends the steps whose time has come, begins those that waited for them, and at last ends the whole.
void Impl::end_steps(PerformanceId id) {
  while (performances.end_steps(id, traffic.motion())) begin_steps(*this, id);
  if (!performances.finished(id)) return;
  performances.tell(id, traffic.motion(), table(), now(), events);
  end_performance(*this, id, EventKind::ended);
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
  end_performance(*this, id, EventKind::stopped);
}

}  // namespace apsidon::play_detail
