#include "apsidon/play/playfield.hpp"

#include <cmath>
#include <type_traits>
#include <utility>

#include "apsidon/play/edits_view.hpp"
#include "apsidon/play/gate_view.hpp"
#include "apsidon/play/hand_view.hpp"
#include "apsidon/play/moves_view.hpp"
#include "apsidon/play/performances_view.hpp"
#include "apsidon/play/rules_view.hpp"
#include "apsidon/play/time_view.hpp"
#include "apsidon/play/where_view.hpp"
#include "play/impl.hpp"

namespace apsidon {

using play_detail::Change;
using play_detail::Impl;
using play_detail::Sender;

Playfield::Playfield(TableSetup setup, const PlayfieldOptions& options)
    : impl_(new Impl(std::move(setup), options)) {}
Playfield::Playfield(const Playfield& other) : impl_(other.impl_ ? new Impl(*other.impl_) : nullptr) {
  if (impl_) impl_->client.recorder = {};
}
Playfield& Playfield::operator=(const Playfield& other) {
  if (this != &other) *this = Playfield(other);
  return *this;
}
Playfield::Playfield(Playfield&& other) noexcept : impl_(std::exchange(other.impl_, nullptr)) {}
Playfield& Playfield::operator=(Playfield&& other) noexcept {
  std::swap(impl_, other.impl_);
  return *this;
}
Playfield::~Playfield() { delete impl_; }

bool Playfield::pointer(const PointerInput& input) {
  if (!is_finite(input.at) || !std::isfinite(input.time)) {
    ++impl_->client.ignored;
    return false;
  }
  impl_->record(input);
  impl_->advance_to(input.time);
  PointerInput timed = input;
  timed.time = now();
  return impl_->pointer(timed);
}

bool Playfield::key(const KeyInput& input) {
  if (!impl_->is_finite_or_ignored(input.time)) return false;
  impl_->record(input);
  impl_->advance_to(input.time);
  return impl_->gate.is_open() && impl_->key(input);
}

void Playfield::blur(double time) {
  if (!impl_->is_finite_or_ignored(time)) return;
  impl_->record(BlurInput{time});
  impl_->advance_to(time);
  impl_->blur();
}

void Playfield::resize(Size window, float pixel_ratio, double time, const Insets& insets) {
  if (!impl_->is_finite_or_ignored(double{window.width} + double{window.height} + double{pixel_ratio} + time))
    return;
  impl_->record(ResizeInput{window, pixel_ratio, time, insets});
  impl_->advance_to(time);
  impl_->resize({.size = window, .insets = insets, .pixel_ratio = pixel_ratio});
}

bool Playfield::input(const Input& input) {
  const double time = time_of(input);
  return std::visit(
      [&](const auto& i) {
        using Kind = std::decay_t<decltype(i)>;
        if constexpr (std::is_same_v<Kind, PointerInput>) {
          return pointer(i);
        } else if constexpr (std::is_same_v<Kind, KeyInput>) {
          return key(i);
        } else if constexpr (std::is_same_v<Kind, ResizeInput>) {
          return resize(i.window, i.pixel_ratio, i.time, i.insets), true;
        } else if constexpr (std::is_same_v<Kind, BlurInput>) {
          return blur(i.time), true;
        } else {
          if (!impl_->is_finite_or_ignored(time)) return false;
          impl_->advance_to(time);
          if constexpr (std::is_same_v<Kind, ReasonInput>) {
            if (i.what == ReasonInput::What::close_gate) gate().close(i.reason);
            if (i.what == ReasonInput::What::open_gate) gate().open(i.reason);
            if (i.what == ReasonInput::What::hold) this->time().hold(i.reason);
            if (i.what == ReasonInput::What::release) this->time().release(i.reason);
            return true;
          } else if constexpr (std::is_same_v<Kind, AnswerInput>) {
            return moves().answer(i.proposal, i.verdict).allowed();
          } else if constexpr (std::is_same_v<Kind, SyncInput>) {
            return edits().sync(i.wanted).verdict.allowed();
          } else if constexpr (std::is_same_v<Kind, UndoInput>) {
            return (i.redo ? moves().redo() : moves().undo()).allowed();
          } else {
            static_assert(std::is_same_v<Kind, RoundInput>);
            return start_round(i.seed), true;
          }
        }
      },
      input);
}

void Playfield::set_recorder(Recorder recorder) { impl_->client.recorder = std::move(recorder); }
std::uint64_t Playfield::ignored_inputs() const { return impl_->client.ignored; }

void Playfield::advance_to(double time) {
  if (impl_->is_finite_or_ignored(time)) impl_->advance_to(time);
  impl_->events.publish();
}

double Playfield::now() const { return impl_->now(); }
std::span<const Event> Playfield::events() const { return impl_->events.readable(); }
const Frame& Playfield::frame() const { return impl_->frame(); }
FrameChanges Playfield::frame_changes(std::uint64_t since) const {
  (void)impl_->frame();
  return impl_->frames.changes(since);
}
const Table& Playfield::table() const { return impl_->table(); }

void Playfield::start_over(TableSetup setup) { impl_->start_over(std::move(setup)); }

void Playfield::start_round(std::uint64_t seed) {
  impl_->record(RoundInput{seed, now()});
  TableSetup next = dealt(impl_->setup(), seed);
  next.panels = impl_->panels.all();
  start_over(std::move(next));
}

void Playfield::restore(const Playfield& snapshot) {
  if (this != &snapshot) impl_->restore(*snapshot.impl_);
}

WhereView Playfield::where() const { return WhereView(*impl_); }
WhereCalls Playfield::where() { return WhereCalls(*impl_); }
HandView Playfield::hand() const { return HandView(*impl_); }
HandCalls Playfield::hand() { return HandCalls(*impl_); }
RulesView Playfield::rules() const { return RulesView(*impl_); }
MovesView Playfield::moves() const { return MovesView(*impl_); }
MovesCalls Playfield::moves() { return MovesCalls(*impl_); }
EditsCalls Playfield::edits() { return EditsCalls(*impl_); }
TimeView Playfield::time() const { return TimeView(*impl_); }
TimeCalls Playfield::time() { return TimeCalls(*impl_); }
GateView Playfield::gate() const { return GateView(*impl_); }
GateCalls Playfield::gate() { return GateCalls(*impl_); }
PerformancesView Playfield::performances() const { return PerformancesView(*impl_); }
PerformancesCalls Playfield::performances() { return PerformancesCalls(*impl_); }

}  // namespace apsidon
