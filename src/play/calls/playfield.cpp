#include "apsidon/play/playfield.hpp"

#include <cmath>
#include <memory>
#include <utility>

#include "play/calls/groups.hpp"

namespace apsidon {

using namespace play_detail;

Playfield::Playfield(TableSetup setup, const PlayfieldOptions& options)
    : impl_(new Whole(std::move(setup), options)) {}
Playfield::Playfield(const Playfield& other) : impl_(other.impl_ ? new Whole(*other.impl_) : nullptr) {
  if (!impl_) return;
  impl_->client.recorder = {};
  impl_->client.watcher = {};
}
Playfield::Playfield(Playfield&& other) noexcept : impl_(std::exchange(other.impl_, nullptr)) {}
Playfield& Playfield::operator=(Playfield other) noexcept {
  std::swap(impl_, other.impl_);
  return *this;
}
Playfield::~Playfield() { delete impl_; }

bool Playfield::pointer(const PointerInput& input) { return impl_->offer(input); }
bool Playfield::key(const KeyInput& input) { return impl_->offer(input); }
void Playfield::blur(double time) { (void)impl_->offer(BlurInput{time}); }
void Playfield::resize(Size window, float pixel_ratio, double time, const Insets& insets) {
  (void)impl_->offer(ResizeInput{window, pixel_ratio, time, insets});
}
bool Playfield::input(const Input& input) { return impl_->offer(any_of(input)); }
Outcome Playfield::call(const Input& input) { return impl_->call(any_of(input)); }

void Playfield::set_recorder(Recorder recorder) { impl_->client.recorder = std::move(recorder); }
void Playfield::set_watcher(Watcher watcher) { impl_->client.watcher = std::move(watcher); }
std::uint64_t Playfield::inputs_taken() const { return impl_->client.inputs; }
std::uint64_t Playfield::count_of(NoticeKind kind) const { return impl_->client.count(kind); }
std::uint64_t Playfield::ignored() const {
  return count_of(NoticeKind::out_of_range) + count_of(NoticeKind::bad_time) +
         count_of(NoticeKind::too_large) + count_of(NoticeKind::too_many);
}

std::optional<Event> Playfield::next_event(double until) {
  if (std::abs(until) <= most_input_seconds) return impl_->next_event(until);
  impl_->client.note({.kind = NoticeKind::bad_time, .time = now(), .input = "next_event"});
  return impl_->next_event(now());
}

void Playfield::advance_to(double time) {
  if (std::abs(time) <= most_input_seconds) return impl_->advance_to(time);
  impl_->client.note({.kind = NoticeKind::bad_time, .time = now(), .input = "advance_to"});
}

double Playfield::next_due() const { return impl_->wakes_at(); }
double Playfield::now() const { return impl_->now(); }
const Frame& Playfield::frame() const { return impl_->frame(); }
FrameChanges Playfield::frame_changes(std::uint64_t since) const {
  (void)impl_->frame();
  return impl_->frames.changes(since);
}
const Table& Playfield::table() const { return impl_->table(); }

Verdict Playfield::start_over(TableSetup setup) {
  return impl_->call(StartOverInput{.setup = std::make_shared<const TableSetup>(std::move(setup))}).verdict;
}

Verdict Playfield::start_round(std::uint64_t seed, bool deals) {
  return impl_->call(RoundInput{.seed = seed, .deals = deals}).verdict;
}

void Playfield::restore(const Playfield& snapshot) {
  if (this == &snapshot) return;
  const Verdict taken =
      impl_->call(RestoreInput{.inputs = snapshot.impl_->client.inputs, .taken_at = snapshot.now()}).verdict;
  if (taken.reason != Reason::game_failed) impl_->restore(*snapshot.impl_);
}

const WhereGroup& Playfield::where() const { return impl_->groups.where; }
WhereGroup& Playfield::where() { return impl_->groups.where; }
const HandGroup& Playfield::hand() const { return impl_->groups.hand; }
HandGroup& Playfield::hand() { return impl_->groups.hand; }
const RulesGroup& Playfield::rules() const { return impl_->groups.rules; }
RulesGroup& Playfield::rules() { return impl_->groups.rules; }
const MovesGroup& Playfield::moves() const { return impl_->groups.moves; }
MovesGroup& Playfield::moves() { return impl_->groups.moves; }
EditsGroup& Playfield::edits() { return impl_->groups.edits; }
const TimeGroup& Playfield::time() const { return impl_->groups.time; }
TimeGroup& Playfield::time() { return impl_->groups.time; }
const GateGroup& Playfield::gate() const { return impl_->groups.gate; }
GateGroup& Playfield::gate() { return impl_->groups.gate; }
const SwitchesGroup& Playfield::switches() const { return impl_->groups.switches; }
SwitchesGroup& Playfield::switches() { return impl_->groups.switches; }
const PerformancesGroup& Playfield::performances() const { return impl_->groups.performances; }
PerformancesGroup& Playfield::performances() { return impl_->groups.performances; }

}  // namespace apsidon
