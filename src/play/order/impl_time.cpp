// How a playfield goes on in time: from one thing that happens to the next.
#include <algorithm>
#include <cmath>
#include <limits>

#include "play/order/following.hpp"
#include "play/order/impl.hpp"

namespace apsidon::play_detail {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();

/// This time, or the last before what is due.
double before(double time, double due) { return time < due ? time : std::nextafter(due, -never); }

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

namespace {

void note_lost_events(Impl& field);
bool step(Impl& field, double until);
bool may_be_stuck(const Impl& field);
bool happen_by(Impl& field, double time, const Due& due);
Due next_due(const Impl& field);
void happen(Impl& field, const Due& due);
void go_to(Impl& field, double time, const Due& due);
void run_table_due(Impl& field);
void run_hand_due(Impl& field);
bool settles(const Impl& field);

/// The client hears of the events that have gone unread since it was told last.
void note_lost_events(Impl& field) {
  while (field.client.count(NoticeKind::lost_event) < field.events.lost())
    field.client.note({.kind = NoticeKind::lost_event, .time = field.now(), .input = "next_event"});
}

/// Lets the next thing happen that is to happen by `until`: what is due, then that all has settled, then an
/// input. Returns whether there was any. Whoever acts at a time acts after what is due then, however often
/// the client asks, and so in the same order in every replay.
bool step(Impl& field, double until) {
  const Due due = next_due(field);
  // All has happened that was to happen at this time, the game's answers included: time goes on.
  if (until > field.now() && std::min(field.inbox.due(), due.time) > field.now() && field.judge_standing())
    return true;
  // A log says that it was so here, before anything else.
  if (due.time > field.now() && field.inbox.due() <= field.now() && field.inbox.first<StandingInput>()) {
    (void)field.take(field.inbox.take());
    return true;
  }
  const double input = std::max(field.inbox.due(), field.now());
  if (happen_by(field, std::min(input, until), due)) return true;
  if (input > until) return false;
  go_to(field, input, due);
  (void)field.take(field.inbox.take());
  return true;
}

/// Whether only the player moves cards now: no script has any to move, and input is open.
bool may_be_stuck(const Impl& field) {
  return field.gate.is_open() && !field.performances.will_change_table() && !field.referee.finishing();
}

/// What is due happens if its time has come; when nothing more is due now, that all has settled is told.
bool happen_by(Impl& field, double time, const Due& due) {
  if (due.time > field.now() && settles(field)) {
    field.traffic.settle();
    field.events.tell({.kind = EventKind::settled, .time = field.now()});
    return true;
  }
  if (due.time > time) return false;
  happen(field, due);
  return true;
}

Due next_due(const Impl& field) {
  const double own = std::min({field.schedule.due(), field.referee.due(), field.switches.due()});
  const double cards = std::min(field.performances.due(field.traffic.motion()), field.traffic.due());
  const double on_table = std::min(own, cards < never ? field.schedule.cards_when(cards) : never);
  // While the table's clock stands still, what needs no time on it happens at once.
  const double table =
      on_table < never ? std::max(field.schedule.clock().when(on_table), field.now()) : never;
  const double pointers = std::max(std::min(field.hand.due(), field.hover.due()), field.now());
  const bool by_hand = pointers < table;
  return {.time = by_hand ? pointers : table, .by_hand = by_hand, .own = own, .cards = cards};
}

void happen(Impl& field, const Due& due) {
  field.bring_foretold(due.time);
  if (due.by_hand) {
    go_to(field, due.time, due);
    run_hand_due(field);
  } else {
    const double of_cards = due.cards < never ? field.schedule.cards_when(due.cards) : never;
    field.schedule.advance_to(due.time, std::min(due.own, of_cards));
    field.move_cards(of_cards <= due.own ? due.cards : before(field.schedule.cards_at(due.own), due.cards));
    run_table_due(field);
  }
  field.record_answers();
}

/// Time goes on, and the cards with it, to before what comes next by the table's clock.
void go_to(Impl& field, double time, const Due& due) {
  if (!(time > field.now())) return;
  // A rounding may put a clock on what is due while its time has not quite come.
  const double own = before(field.schedule.clock().at(time), due.own);
  field.schedule.advance_to(time, own);
  field.move_cards(before(field.schedule.cards_at(own), due.cards));
}

void run_table_due(Impl& field) {
  const double own = field.schedule.own();
  while (const auto id = field.performances.first_due(field.traffic.motion())) field.end_steps(*id);
  field.schedule.ring(own, field.now(), field.events);
  field.switches.end_marks(own);
  if (field.referee.compare_due() <= own) field.compare(field.now());
  if (field.referee.finish_due() <= own) field.finish_next(field.now());
}

void run_hand_due(Impl& field) {
  field.hand.straighten(field.now(), [&](const Hand::Carry& carry) {
    for (const Hand::Taken& taken : carry.cards)
      field.traffic.lean(taken.slot, {}, Hand::leaning_spring(field.feel()));
  });
  const auto gestures = field.hand.gestures().advance_to(field.now());
  for (std::size_t i = 0; i < gestures.size(); ++i) (void)field.handle(gestures[i]);
  Following follows(field);
  follows.hover_changed(field.hover.run_due(field.hover_view(), field.events));
}

bool settles(const Impl& field) { return field.traffic.to_be_settled() && field.at_rest(); }

}  // namespace

std::optional<Event> Impl::next_event(double until) {
  if (!may_call("next_event")) return std::nullopt;
  until = std::max(until, now());
  for (Watch watch(*this); !events.any() && watch.goes_on() && step(*this, until);) {
  }
  if (!events.any()) go_to(*this, until, next_due(*this));
  note_lost_events(*this);
  return events.take();
}

void Impl::advance_to(double time) {
  if (!may_call("advance_to")) return;
  time = std::max(time, now());
  for (Watch watch(*this); watch.goes_on() && step(*this, time);) {
  }
  go_to(*this, time, next_due(*this));
  note_lost_events(*this);
}

/// How the game stands, and what may be played, is judged, if that is due. Returns whether it was.
/// `from_log`: a log says so, and that is recorded already.
bool Impl::judge_standing(bool from_log) {
  const bool due = referee.standing_is_due(may_be_stuck(*this));
  if (!due && !playable.is_due(referee)) return false;
  bring_foretold(now());
  const bool told = due && referee.judge_standing(may_be_stuck(*this), now(), events);
  if (playable.is_due(referee)) playable.look(referee);
  // Where rules in code were asked, their answers are foretold for this moment and no other.
  if ((told || referee.trail().has_told()) && !from_log) {
    ++client.inputs;
    client.record(StandingInput{.standing = referee.standing(), .time = now()}, now());
  }
  if (referee.finishes_by_itself()) (void)finish();  // asks rules, too
  record_answers();
  return true;
}

/// All that is due now happens before a call.
void Impl::do_due() {
  while (happen_by(*this, now(), next_due(*this))) {
  }
}

/// Moves the cards on to a time of their clock, and tells of what came of it.
void Impl::move_cards(double cards) {
  traffic.advance_to(cards, now(), table(), events);
  performances.tell(traffic.motion(), table(), now(), events);
}

/// Whether nothing moves, nothing is held, and nothing goes on by itself.
bool Impl::at_rest() const {
  return traffic.rests() && hand.empty() && !performances.any() && !referee.comparing() &&
         !referee.finishing();
}

/// When something happens, or shows otherwise, if nobody does anything.
double Impl::wakes_at() const {
  const Due due = next_due(*this);
  const bool moves = (traffic.motion().awake_count() > 0 || hover.preview_grows(traffic.now())) &&
                     !schedule.clock().stands() && schedule.cards_speed() > 0;
  if (moves || !frames.is_current(frame_sources()) || events.any() || settles(*this) ||
      referee.standing_is_due(may_be_stuck(*this)))
    return now();
  double next = std::min(inbox.due(), due.time);
  panels.each_bound([&](PanelId panel, CountdownId countdown) {
    const Rect& area = arrangement.panel_areas()[panel.value - 1];
    const double steps = Panels::steps(area, arrangement.window().pixel_ratio);
    next = std::min(next, schedule.clock().when(schedule.next_step(countdown, steps)));
  });
  return std::max(next, now());
}

double Impl::settles_at() const {
  if (!performances.any() && !referee.comparing() && !referee.finishing()) {
    const double rests = schedule.cards_when(traffic.motion().settles_at());
    return rests < never ? std::max(schedule.clock().when(rests), now()) : never;
  }
  // What a performance does next depends on what it does first: a copy tries it, without the player.
  Impl ahead = *this;
  ahead.client.recorder = {};
  ahead.client.watcher = {};
  ahead.referee.trail().set_judge({});
  ahead.inbox = {};
  ahead.blur();
  while (ahead.performances.any() || ahead.referee.comparing() || ahead.referee.finishing() ||
         !ahead.traffic.rests()) {
    const Due due = next_due(ahead);
    if (due.time > ahead.now() && ahead.judge_standing()) continue;
    if (!(due.time < never)) return never;
    happen(ahead, due);
    ahead.events.forget();
  }
  return ahead.now();
}

}  // namespace apsidon::play_detail
