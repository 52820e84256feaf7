// How a playfield goes on in time: from one thing that happens to the next.
#include <algorithm>
#include <cmath>
#include <limits>

#include "play/impl.hpp"

namespace apsidon::play_detail {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();

/// Sees to it that time goes on: what happened again and again at one time would be a mistake of ours, and
/// hang the client.
class Watch {
 public:
  explicit Watch(Impl& field) : field_(field), now_(field.now()) {}

  bool goes_on() {
    if (field_.now() > now_) steps_ = 0;
    now_ = field_.now();
    if (++steps_ < most_steps) return true;
    field_.client.note({.kind = NoticeKind::internal, .time = now_, .input = "time", .part = "stands still"});
    return false;
  }

 private:
  static constexpr int most_steps = 20'000'000;
  Impl& field_;
  double now_;
  int steps_ = 0;
};

}  // namespace

std::optional<Event> Impl::next_event(double until) {
  until = std::max(until, now());
  for (Watch watch(*this); !events.any() && watch.goes_on() && step(until);) {
  }
  if (!events.any()) go_to(until, table_due());
  note_lost_events();
  return events.take();
}

void Impl::advance_to(double time) {
  time = std::max(time, now());
  for (Watch watch(*this); watch.goes_on() && step(time);) {
  }
  go_to(time, table_due());
  note_lost_events();
}

/// The client hears of the events that have gone unread since it was told last.
void Impl::note_lost_events() {
  while (client.counters.lost_events < events.lost())
    client.note({.kind = NoticeKind::lost_event, .time = now(), .input = "next_event"});
}

/// Lets the next thing happen that is to happen by `until`: what is due, then that all has settled, then an
/// input. Returns whether there was any. Whoever acts at a time acts after what is due then, however often
/// the client asks, and so in the same order in every replay.
bool Impl::step(double until) {
  const Due due = next_due();
  const double input = std::max(inbox.due(), now());
  if (happen_by(std::min(input, until), due)) return true;
  if (input > until) return false;
  go_to(input, due.own);
  (void)take(inbox.take());
  return true;
}

/// All that is due now happens before a call.
void Impl::do_due() {
  while (happen_by(now(), next_due())) {
  }
}

/// What is due happens if its time has come; when nothing more is due now, that all has settled is told.
bool Impl::happen_by(double time, const Due& due) {
  if (due.time > now() && settles()) {
    traffic.settle();
    events.tell({.kind = EventKind::settled, .time = now()});
    return true;
  }
  if (due.time > time) return false;
  happen(due);
  return true;
}

double Impl::table_due() const {
  return std::min({performances.due(traffic.motion()), schedule.due(), referee.due(), traffic.due()});
}

Due Impl::next_due() const {
  const double own = table_due();
  // While the table's clock stands still, what needs no time on it happens at once.
  const double table = own < never ? std::max(schedule.clock().when(own), now()) : never;
  const double pointers = std::max(std::min(hand.due(), hover.due()), now());
  const bool by_hand = pointers < table;
  return {.time = by_hand ? pointers : table, .by_hand = by_hand, .own = own};
}

void Impl::happen(const Due& due) {
  bring_foretold(due.time);
  if (due.by_hand) {
    go_to(due.time, due.own);
    run_hand_due();
  } else {
    schedule.clock().advance_to(due.time);
    move_cards(due.own);
    run_table_due();
  }
  record_answers();
}

/// Time goes on, and the cards with it, to before what comes next by the table's clock.
void Impl::go_to(double time, double own_due) {
  if (!(time > now())) return;
  Clock& clock = schedule.clock();
  const double own = clock.at(time);
  clock.advance_to(time);
  // A rounding may put the clock on what is due while its time has not quite come.
  move_cards(own < own_due ? own : std::nextafter(own_due, -never));
}

/// Moves the cards on to a time of the table's clock, and tells of what came of it.
void Impl::move_cards(double own) {
  traffic.advance_to(own, now(), table(), events);
  performances.tell(traffic.motion(), table(), now(), events);
}

void Impl::run_table_due() {
  const double own = traffic.now();
  while (const auto id = performances.first_due(traffic.motion())) end_steps(*id);
  schedule.ring(own, now(), events);
  if (referee.due() <= own) compare(now());
}

void Impl::run_hand_due() {
  hand.straighten(now(), [&](const Run& run) {
    for (const CardId card : table().cards_of(run)) traffic.lean(slot(card), {}, feel().tilt);
  });
  const auto gestures = hand.gestures().advance_to(now());
  for (std::size_t i = 0; i < gestures.size(); ++i) (void)handle(gestures[i]);
  Sender by;
  apply(hover.run_due(hover_view(), events), by);
}

/// Whether nothing moves, nothing is held, and nothing goes on by itself.
bool Impl::at_rest() const {
  return traffic.rests() && hand.empty() && !performances.any() && !referee.comparing();
}

bool Impl::settles() const { return traffic.to_be_settled() && at_rest(); }

double Impl::settles_at() const {
  if (!performances.any() && !referee.comparing()) {
    return std::max(schedule.clock().when(traffic.motion().settles_at()), now());
  }
  // What a performance does next depends on what it does first: a copy tries it, without the player.
  Impl ahead = *this;
  ahead.client.recorder = {};
  ahead.client.watcher = {};
  ahead.referee.trail().set_judge({});
  ahead.inbox = {};
  ahead.blur();
  while (ahead.performances.any() || ahead.referee.comparing() || !ahead.traffic.rests()) {
    const Due due = ahead.next_due();
    if (!(due.time < never)) return never;
    ahead.happen(due);
    ahead.events.forget();
  }
  return ahead.now();
}

}  // namespace apsidon::play_detail
