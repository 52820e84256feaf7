// Another window, another round, and back to a snapshot.
#include <utility>

#include "play/impl.hpp"

namespace apsidon::play_detail {

void Impl::resize(const PlanWindow& window) {
  cancel_all(CancelCause::resized);
  arrangement.resize(setup(), usable(window));
  lay_out_window();
  consider_hover();
}

/// What rests is at its new place at once, and so is what waits at a target.
void Impl::lay_out_window() {
  Sender by_feel;
  follow(arrangement.lay_out(setup(), Change::window, layout_request()), Change::window, by_feel);
}

/// What is carried or waits for an answer does not outlast the table that it is of.
void Impl::end_what_is_pending(const Referee* next) {
  cancel_all(CancelCause::by_game);
  const std::vector<Proposal> waiting(referee.waiting().begin(), referee.waiting().end());
  for (const Proposal& proposal : waiting) {
    if (!next || !next->find(proposal.id)) referee.supersede(proposal, now(), events);
  }
}

void Impl::start_round(std::uint64_t seed, bool deals) {
  TableSetup next = dealt(setup(), seed);
  next.panels = panels.all();
  start_over(std::move(next));
  if (deals) (void)perform(deal());
}

void Impl::start_over(TableSetup next) {
  next.table.give_ids_after(table().last_id());
  referee.own_code().adopt(next);
  Impl fresh(std::move(next), options());
  end_what_is_pending(nullptr);
  fresh.client = std::move(client);
  fresh.ids = ids;
  fresh.inbox = std::move(inbox);
  fresh.events = std::move(events);
  fresh.gate = std::move(gate);
  fresh.gate.end_round();
  fresh.take_over_switches(*this);
  fresh.schedule = Schedule::after(schedule);
  fresh.referee.trail() = std::move(referee.trail());
  fresh.referee.own_code().learn(referee.own_code());  // the next table may not name all of it
  fresh.traffic.settle_for(traffic);
  fresh.frames.number_from(frames.frame().revision);
  *this = std::move(fresh);
}

/// What is switched off for a reason that lasts is so in the next round, where that has a zone or a panel of
/// the same name.
void Impl::take_over_switches(const Impl& before) {
  switches.take_over(before.switches, [&](const Switchable& what) -> Switchable {
    if (const Zone* zone = before.table().zone(what.zone)) {
      const auto same = table().find_zone(zone->name);
      return same ? Switchable(*same) : Switchable{};
    }
    if (const PanelSetup* panel = before.panels.panel(what.panel)) {
      return panels.find(panel->name);
    }
    return {};
  });
  referee.switch_off(switches.off());
  if (!switches.empty()) follow_switches();
}

void Impl::restore(const Impl& snapshot) {
  Impl copy = snapshot;
  copy.client.recorder = {};
  copy.do_due();  // what was due when it was taken has been heard, or not, by then
  // What was in the hand then is put back without an event: it has ended since, one way or another.
  copy.blur();
  end_what_is_pending(&copy.referee);
  copy.schedule.clock().set_now(now());
  copy.client.recorder = std::move(client.recorder);
  copy.client.watcher = std::move(client.watcher);
  copy.client.counters = client.counters;
  copy.client.inputs = client.inputs;
  copy.inbox = std::move(inbox);
  copy.referee.trail() = std::move(referee.trail());
  copy.referee.own_code().learn(referee.own_code());
  copy.ids.keep_ahead_of(ids);
  copy.referee.keep_ids_ahead_of(table());
  copy.events = std::move(events);
  copy.arrangement.resize(copy.setup(), arrangement.window());
  copy.lay_out_window();
  copy.traffic.settle_for(traffic);
  copy.frames.number_from(frames.frame().revision);
  *this = std::move(copy);
}

}  // namespace apsidon::play_detail
