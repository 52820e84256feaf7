#include "apsidon/play/playfield.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "apsidon/geometry/error.hpp"
#include "play/impl.hpp"

namespace apsidon {
namespace {

Size finite_window(Size window) {
  const auto good = [](float v) { return std::isfinite(v) && v > 0 ? v : 0; };
  return {good(window.width), good(window.height)};
}

constexpr double never = std::numeric_limits<double>::infinity();

float finite_ratio(float ratio) { return std::isfinite(ratio) && ratio > 0 ? ratio : 1; }

}  // namespace

Playfield::Impl::Impl(TableSetup given, const PlayfieldOptions& wanted)
    : setup(std::move(given)),
      options(wanted),
      clock(wanted.start_time, wanted.start_time),
      gestures(wanted.thresholds),
      history(wanted.most_undos) {
  check(setup);
  check(options.feel);
  check(options.drag);
  check(options.hover);
  if (!(options.corner_radius >= 0 && options.corner_radius <= 0.5f)) {
    throw Error(fmt::format("playfield: corner radius is {}: 0 to 0.5 is expected", options.corner_radius));
  }
  if (!std::isfinite(options.start_time)) {
    throw Error(fmt::format("playfield: start time is {}: a finite number is expected", options.start_time));
  }
  options.window = finite_window(options.window);
  options.pixel_ratio = finite_ratio(options.pixel_ratio);
  const std::size_t zones = setup.table.zones().size();
  areas.resize(zones);
  panel_areas.resize(setup.panels.size());
  laid_revision.resize(zones, 0);
  reports.resize(zones);
  offsets.resize(zones, 0);
  empty.resize(zones, 0);
  rooms.resize(zones);
  closed_up.resize(zones, 0);
  motion.advance_to(options.start_time);
  solve_plan();
  lay_out_changed(Change::first);
  history.start(setup.table);
}

void Playfield::Impl::solve_plan() {
  (void)give_up_places();
  plan = best_plan(setup.plans, setup.places, window(), plan);
  solved = solve(setup.plans[*plan], setup.places, window(),
                 {.areas = areas, .panels = panel_areas, .empty = empty});
}

PlanWindow Playfield::Impl::window() const {
  return {.size = options.window, .insets = options.insets, .pixel_ratio = options.pixel_ratio};
}

/// Notes which zones are empty; returns whether a zone that gives up its place has got empty or got cards
/// since.
bool Playfield::Impl::give_up_places() {
  bool changed = false;
  for (const Zone& zone : setup.table.zones()) {
    const std::size_t i = zone.id.value - 1;
    const char now = zone.cards.empty() ? 1 : 0;
    changed = changed || (setup.places[i].gives_up && empty[i] != now);
    empty[i] = now;
  }
  return changed;
}

/// Goes on to a time of the inputs. What is due before is done at its own time.
void Playfield::Impl::advance_to(double time) {
  if (!(time > clock.now())) return;
  const std::size_t before = coming.size();
  for (;;) {
    // While the table's clock stands, what needs no time on it is told at the time of what brought it.
    if (clock.stands()) go_to(own_now());
    // What goes by the table's clock, and what goes by that of the inputs, in order of time.
    const double own = due();
    const double table_due = own <= clock.at(time) ? std::clamp(clock.when(own), clock.now(), time) : never;
    const double hand_due = input_due();
    if (std::min(table_due, hand_due) > time) break;
    if (table_due <= hand_due) {
      go_to(own);
      clock.advance_to(table_due);
      run_due();
    } else {
      go_to(clock.at(hand_due));
      clock.advance_to(hand_due);
      run_input_due(hand_due);
    }
  }
  go_to(clock.at(time));
  clock.advance_to(time);
  event_merger.sort(coming.all().subspan(before),
                    [](const Event& a, const Event& b) { return a.time < b.time; });
}

/// Moves the cards on to a time of the table's clock, and tells of what came of it.
void Playfield::Impl::go_to(double own) {
  see_motion();
  motion.advance_to(own);
  for (const Passage& passage : motion.passages()) {
    CardState& state = cards[passage.slot];
    const Card* card = setup.table.card(state.id);
    if (!card) continue;  // retired on its way
    const double time = told_at(passage.time);
    if (passage.kind == Passage::Kind::left) {
      set_waits(passage.slot, false);
      continue;
    }
    if (passage.kind == Passage::Kind::edge_on) {
      note_card(EventKind::turned, time, card->id, card->zone, {});
      continue;
    }
    if (state.departure == 0 || state.held) continue;
    if (state.locked) continue;  // it waits there, and has not landed
    state.departure = 0;
    stale = true;  // it lies among the others now
    note_card(EventKind::landed, time, card->id, state.zone, part_of[passage.slot]);
  }
  motion.forget_passages();
  tell_all();
  // While something is held the table is not at rest, however still the hand.
  if (unsettled && motion.awake_count() == 0 && carry.run.count == 0) {
    unsettled = false;
    note({.kind = EventKind::settled, .time = told_at(std::min(motion.rested_at(), own))});
  }
}

/// Before what moves may come to rest: that it has settled is to be told afterwards.
void Playfield::Impl::see_motion() { unsettled = unsettled || motion.awake_count() > 0; }

/// The time of the inputs at which something is told that comes at this time of the table's clock.
double Playfield::Impl::told_at(double own) const { return clock.stands() ? clock.now() : clock.when(own); }

void Playfield::Impl::note(Event event) { coming.add(std::move(event)); }

/// For what may happen to many cards at once: the event is written where it stays.
void Playfield::Impl::note_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by) {
  Event& event = coming.next();
  event.kind = kind;
  event.time = time;
  event.card = card;
  event.count = 1;
  event.to = to;
  event.performance = by;
}

/// Sends a card from where it is.
void Playfield::Impl::travel(std::size_t s, const Pose& goal, const Glide& glide, double delay,
                             ClockIndex by) {
  motion.travel(s, goal, glide, delay, by);
  set_waits(s, motion.waiting(s));
}

/// Puts a card down at once.
void Playfield::Impl::put(std::size_t s, const Pose& pose) {
  motion.place(s, pose);
  set_waits(s, false);
}

void Playfield::Impl::set_waits(std::size_t s, bool waits) {
  if (std::exchange(cards[s].waits, waits) != waits) stale = true;  // it is drawn elsewhere in the order
}

/// Sends a card through the air, above everything that rests.
void Playfield::Impl::fly(std::size_t s, const Pose& goal, const Glide& glide, double delay) {
  cards[s].departure = ++departures;
  travel(s, goal, glide, delay);
  stale = true;
}

Verdict Playfield::Impl::followed_up(Verdict verdict) {
  if (verdict) after_change();
  return verdict;
}

void Playfield::Impl::after_change() {
  sent = 0;
  keep_slots();
  cancel_if_touched();
  supersede_torn();
  lay_out_changed(Change::table);
  // What the game has covered or taken away is not compared any more.
  std::erase_if(opened, [&](CardId id) { return !setup.table.card(id) || !setup.table.card(id)->face_up; });
  if (hover.card && !setup.table.card(hover.card)) set_hovered({});
  if (hover.zoomed && !setup.table.card(hover.zoomed)) show_zoom({});
  if (hover.here) consider_hover();
  if (focus != Hit{}) keep_focus();
}

void Playfield::Impl::start_effect(CardId id, const CardEffect& effect, EffectKind kind, ClockIndex by) {
  const auto s = setup.table.slot(id);
  if (s) motion.start(*s, effect_of(effect, kind, solved.card.width), 0, by);
}

Playfield::Playfield(TableSetup setup, const PlayfieldOptions& options)
    : impl_(std::make_unique<Impl>(std::move(setup), options)) {}
Playfield::Playfield(const Playfield& other) : impl_(std::make_unique<Impl>(*other.impl_)) {
  impl_->recorder = {};
}
Playfield& Playfield::operator=(const Playfield& other) {
  if (this != &other) *this = Playfield(other);
  return *this;
}
Playfield::Playfield(Playfield&&) noexcept = default;
Playfield& Playfield::operator=(Playfield&&) noexcept = default;
Playfield::~Playfield() = default;

void Playfield::start_over(TableSetup setup) {
  Impl& old = *impl_;
  setup.table.give_ids_after(old.setup.table.last_id());
  PlayfieldOptions options = old.options;
  options.start_time = old.own_now();
  auto fresh = std::make_unique<Impl>(std::move(setup), options);
  fresh->clock = old.clock;
  fresh->judge = std::move(old.judge);
  fresh->recorder = std::move(old.recorder);
  fresh->gates = std::move(old.gates);
  fresh->open_gate("comparing");
  fresh->proposals = old.proposals;
  fresh->last_performance = old.last_performance;
  fresh->last_timer = old.last_timer;
  fresh->drawn.revision = old.drawn.revision;
  fresh->ignored = old.ignored;
  fresh->events = std::move(old.events);
  fresh->coming = std::move(old.coming);
  impl_ = std::move(fresh);
}

void Playfield::start_round(std::uint64_t seed) {
  impl_->record(RoundInput{seed, now()});
  start_over(dealt(impl_->setup, seed));
}

void Playfield::restore(const Playfield& snapshot) {
  if (this == &snapshot) return;
  auto copy = std::make_unique<Impl>(*snapshot.impl_);
  Impl& old = *impl_;
  copy->clock.set_now(old.clock.now());
  copy->recorder = std::move(old.recorder);
  // Numbers that were given out since are not given out again.
  copy->proposals = std::max(copy->proposals, old.proposals);
  copy->last_performance = std::max(copy->last_performance, old.last_performance);
  copy->last_timer = std::max(copy->last_timer, old.last_timer);
  copy->drawn.revision = std::max(copy->drawn.revision, old.drawn.revision);
  copy->events = std::move(old.events);
  copy->coming = std::move(old.coming);
  copy->stale = copy->hits_stale = true;
  impl_ = std::move(copy);
  impl_->blur();
}

void Playfield::resize(Size window, float pixel_ratio, double time, const Insets& insets) {
  if (!std::isfinite(window.width + window.height) || !std::isfinite(pixel_ratio) || !std::isfinite(time)) {
    ++impl_->ignored;
    return;
  }
  impl_->record(ResizeInput{window, pixel_ratio, time, insets});
  impl_->advance_to(time);
  impl_->cancel_all();
  impl_->show_zoom({});
  impl_->options.window = finite_window(window);
  impl_->options.pixel_ratio = finite_ratio(pixel_ratio);
  impl_->options.insets = insets;
  impl_->solve_plan();
  impl_->lay_out_changed(Impl::Change::window);
  impl_->place_locked();
  if (impl_->hover.here) impl_->consider_hover();
}

void Playfield::advance_to(double time) {
  if (!std::isfinite(time)) ++impl_->ignored;
  if (std::isfinite(time)) impl_->advance_to(time);
  std::swap(impl_->events, impl_->coming);
  impl_->coming.clear();
}

double Playfield::now() const { return impl_->clock.now(); }

Verdict Playfield::move(const Run& run, ZoneId to) {
  const Card* first = table().card(run.first);
  const ZoneId from = first ? first->zone : ZoneId{};
  const Verdict verdict = impl_->setup.table.move(run, to);
  if (!verdict) return verdict;
  impl_->after_change();
  if (from != to && table().zone(from)->cards.empty()) {
    impl_->note({.kind = EventKind::emptied, .time = now(), .from = from});
  }
  return verdict;
}

Verdict Playfield::flip(CardId card, bool face_up) {
  return impl_->followed_up(impl_->setup.table.flip(card, face_up));
}

Verdict Playfield::turn(CardId card, bool sideways) {
  return impl_->followed_up(impl_->setup.table.turn(card, sideways));
}

Verdict Playfield::set_face(CardId card, FaceId face) {
  return impl_->followed_up(impl_->setup.table.set_face(card, face));
}

Verdict Playfield::set_cell(CardId card, int cell) {
  return impl_->followed_up(impl_->setup.table.set_cell(card, cell));
}

Verdict Playfield::set_position(CardId card, Vec2 at) {
  return impl_->followed_up(impl_->setup.table.set_position(card, at));
}

void Playfield::set_panel(PanelId id, std::string text, float fill) {
  if (!std::isfinite(fill)) ++impl_->ignored;
  if (!id || id.value > impl_->setup.panels.size() || !std::isfinite(fill)) return;
  PanelSetup& panel = impl_->setup.panels[id.value - 1];
  panel.text = std::move(text);
  panel.fill = std::clamp(fill, 0.0f, 1.0f);
  impl_->stale = true;
}

std::span<const PanelSetup> Playfield::panels() const { return impl_->setup.panels; }

SyncReport Playfield::sync(std::span<const WantedZone> wanted) {
  impl_->record(SyncInput{{wanted.begin(), wanted.end()}, now()});
  const std::uint64_t before = table().revision();
  SyncReport report = impl_->setup.table.sync(wanted);
  if (!report.verdict || table().revision() == before) return report;
  if (!report.retired.empty()) impl_->clear_retired();
  impl_->after_change();
  impl_->history.start(table());  // what the game's own truth has replaced cannot come back
  return report;
}

Verdict Playfield::remove(CardId card) {
  const Verdict verdict = impl_->setup.table.remove(card);
  if (!verdict) return verdict;
  impl_->clear_retired();
  impl_->after_change();
  impl_->history.start(table());
  return verdict;
}

void Playfield::shake(CardId card) {
  impl_->start_effect(card, impl_->options.feel.shake, EffectKind::swing, 0);
}
void Playfield::pulse(CardId card) {
  impl_->start_effect(card, impl_->options.feel.pulse, EffectKind::pulse, 0);
}
const Table& Playfield::table() const { return impl_->setup.table; }
std::span<const Event> Playfield::events() const { return impl_->events.all(); }
const Frame& Playfield::frame() const { return impl_->frame(); }
Hit Playfield::hit(Vec2 point) const { return impl_->hit(point); }

PickVerdict Playfield::judge_pick(CardId card) const { return impl_->judge_pick(card); }
Verdict Playfield::judge_drop(const Run& run, ZoneId to) const {
  return apsidon::judge_drop(table(), impl_->rulebook(), run, to);
}
Verdict Playfield::judge_stock(ZoneId stock) const {
  return apsidon::judge_stock(table(), impl_->rulebook(), stock);
}
std::vector<LegalMove> Playfield::legal_moves() const {
  return apsidon::legal_moves(table(), impl_->rulebook());
}

Run Playfield::held() const { return impl_->carry.run; }
Run Playfield::held_by(std::uint32_t pointer) const {
  Run run;
  impl_->each_carry([&](const Impl::Carry& c) {
    if (c.mode == Impl::Carry::Mode::drag && c.by == pointer) run = c.run;
  });
  return run;
}
std::span<const ZoneId> Playfield::targets() const { return impl_->carry.targets; }
ZoneId Playfield::aimed_at() const {
  const auto& targets = impl_->carry.targets;
  return std::find(targets.begin(), targets.end(), impl_->carry.aimed) != targets.end() ? impl_->carry.aimed
                                                                                        : ZoneId{};
}
Size Playfield::card_size() const { return impl_->solved.card; }
bool Playfield::fits() const { return impl_->solved.fits; }
const Plan& Playfield::plan() const { return impl_->setup.plans[*impl_->plan]; }

std::optional<Pose> Playfield::neutral_pose(CardId card) const {
  const auto s = table().slot(card);
  return s ? std::optional(impl_->rests[*s].neutral) : std::nullopt;
}

std::optional<Pose> Playfield::resting_pose(CardId card) const {
  const auto s = table().slot(card);
  return s ? std::optional(impl_->rests[*s].resting) : std::nullopt;
}

std::optional<Pose> Playfield::live_pose(CardId card) const {
  const auto s = table().slot(card);
  return s ? std::optional(impl_->motion.pose(*s)) : std::nullopt;
}

double Playfield::settles_at() const {
  return std::max(impl_->clock.when(impl_->motion.settles_at()), now());
}
std::uint64_t Playfield::ignored_inputs() const { return impl_->ignored; }

}  // namespace apsidon
