// Another window, another round, and back to a snapshot.
#include <utility>

#include "cards/inside.hpp"
#include "play/order/following.hpp"
#include "play/order/impl.hpp"

namespace apsidon::play_detail {
namespace {

void lay_out_window(Impl& field);
void end_what_is_pending(Impl& field, const Referee* next);
void take_over_switches(Impl& field, const Impl& before);

/// What rests is at its new place at once, and so is what waits at a target.
void lay_out_window(Impl& field) {
  Following follows(field);
  follows.send(field.arrangement.lay_out(field.setup(), Change::window, field.layout_request()),
               Change::window);
}

/// What is carried or waits for an answer does not outlast the table that it is of.
void end_what_is_pending(Impl& field, const Referee* next) {
  Following(field).cancel_all(CancelCause::by_game);
  field.selection.clear(field.referee, field.now(), field.events);
  const std::vector<Proposal> waiting(field.referee.waiting().begin(), field.referee.waiting().end());
  for (const Proposal& proposal : waiting) {
    if (!next || !next->find(proposal.id)) field.referee.supersede(proposal, field.now(), field.events);
  }
}

/// What is switched off for a reason that lasts is so in the next round, where that has a zone or a panel of
/// the same name.
void take_over_switches(Impl& field, const Impl& before) {
  field.switches.take_over(before.switches, [&](const Switchable& what) -> Switchable {
    if (const Zone* zone = before.table().zone(what.zone)) {
      const auto same = field.table().find_zone(zone->name);
      return same ? Switchable(*same) : Switchable{};
    }
    if (const PanelSetup* panel = before.panels.panel(what.panel)) {
      return field.panels.find(panel->name);
    }
    return {};
  });
  field.referee.switch_off(field.switches.off());
  if (!field.switches.empty()) Following(field).show_switches();
}

}  // namespace

void Impl::resize(const PlanWindow& window) {
  Following(*this).cancel_all(CancelCause::resized);
  arrangement.resize(setup(), usable(window));
  lay_out_window(*this);
  Following(*this).consider_hover();
}

void Impl::start_round(std::uint64_t seed, bool deals) {
  TableSetup next = dealt(setup(), seed);
  next.panels = panels.all();
  start_over(std::move(next));
  if (deals) (void)perform(deal());
}

void Impl::start_over(TableSetup next) {
  cards_detail::Inside::give_ids_after(next.table, table().last_id());
  referee.own_code().adopt(next);
  PlayfieldOptions with = options();
  if (with.seat.value > next.table.seats().size()) with.seat = {};  // nobody in particular plays there
  client.seat = with.seat;
  Impl fresh(std::move(next), with);
  end_what_is_pending(*this, nullptr);
  fresh.client = std::move(client);
  fresh.ids = ids;
  fresh.inbox = std::move(inbox);
  fresh.inbox.keep_behind([](PerformanceId) { return false; });
  fresh.events = std::move(events);
  fresh.gate = std::move(gate);
  fresh.gate.end_round();
  take_over_switches(fresh, *this);
  fresh.schedule = Schedule::after(schedule);
  fresh.referee.trail() = std::move(referee.trail());
  fresh.referee.own_code().learn(referee.own_code());  // the next table may not name all of it
  fresh.traffic.settle_for(traffic);
  fresh.frames.number_from(frames.frame().revision);
  fresh.follow_comparing();
  *this = std::move(fresh);
}

void Impl::restore(const Impl& snapshot) {
  Impl copy = snapshot;
  copy.client.recorder = {};
  copy.do_due();  // what was due when it was taken has been heard, or not, by then
  // What was in the hand then is put back without an event: it has ended since, one way or another.
  copy.blur();
  end_what_is_pending(*this, &copy.referee);
  copy.schedule.clock().set_now(now());
  copy.client.recorder = std::move(client.recorder);
  copy.client.watcher = std::move(client.watcher);
  copy.client.counts = client.counts;
  copy.client.inputs = client.inputs;
  copy.inbox = std::move(inbox);
  copy.inbox.keep_behind([&](PerformanceId id) { return copy.performances.running(id); });
  copy.referee.trail() = std::move(referee.trail());
  copy.referee.own_code().learn(referee.own_code());
  copy.ids.keep_ahead_of(ids);
  copy.referee.keep_ids_ahead_of(table());
  copy.events = std::move(events);
  copy.selection.tell_again(copy.referee, now(), copy.events);
  copy.arrangement.resize(copy.setup(), arrangement.window());
  lay_out_window(copy);
  copy.traffic.settle_for(traffic);
  copy.frames.number_from(frames.frame().revision);
  *this = std::move(copy);
}

}  // namespace apsidon::play_detail
