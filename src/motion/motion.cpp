#include "apsidon/motion/motion.hpp"

#include <algorithm>
#include <utility>

#include "motion/impl.hpp"

namespace apsidon {

using namespace motion_detail;

Motion::Motion(double now) : impl_(std::make_unique<Impl>()) {
  impl_->now = impl_->clock_now[0] = impl_->rested = now;
  impl_->clocks[0].clock = Clock(now, now);
}
Motion::Motion(const Motion& other)
    : impl_(std::make_unique<Impl>(*other.impl_)),
      poses_(other.poses_),
      stale_(other.stale_),
      begun_(other.begun_) {}
Motion::Motion(Motion&&) noexcept = default;
Motion& Motion::operator=(const Motion& other) {
  if (this != &other) *this = Motion(other);
  return *this;
}
Motion& Motion::operator=(Motion&&) noexcept = default;
Motion::~Motion() = default;

void Motion::resize(std::size_t slots) {
  if (slots <= poses_.size()) return;
  impl_->tracks.resize(slots);
  impl_->touched.resize(slots, Impl::untouched);
  impl_->touched_slots.reserve(slots);
  poses_.resize(slots);
  impl_->landed.reserve(slots);
  impl_->passages.reserve(4 * slots);
}

double Motion::now() const { return impl_->now; }

void Motion::put(std::size_t slot, const Pose& pose) {
  impl_->put_to_sleep(slot);
  impl_->tracks[slot].goal = pose;
  poses_[slot] = pose;
  impl_->touch(slot);
  if (impl_->has_aside(slot)) impl_->add_asides(slot, poses_);
  ++impl_->revision;
}

void Motion::travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay, ClockIndex clock,
                    std::span<const Vec2> through) {
  impl_->travel(slot, goal, glide, delay, clock, through);
  poses_[slot].flip_axis = goal.flip_axis;
  if (!stale_) begun_.push_back(static_cast<std::uint32_t>(slot));
}

void Motion::shift(std::size_t slot, const Pose& goal, const Glide& glide) {
  impl_->shift(slot, goal, glide);
  poses_[slot].flip_axis = goal.flip_axis;
  if (!stale_) begun_.push_back(static_cast<std::uint32_t>(slot));
}

void Motion::finish(std::size_t slot) {
  const Impl::Track& t = impl_->tracks[slot];
  if (t.bucket == Impl::asleep) return;
  const Record r = impl_->record(t);
  if (r.waits) (void)impl_->note(Passage::Kind::departed, slot, 0, now());
  if (r.edge != never) (void)impl_->note(Passage::Kind::edge_on, slot, 0, now());
  if (r.arrives != never) (void)impl_->note(Passage::Kind::arrived, slot, 0, now());
  (void)impl_->note(Passage::Kind::landed, slot, 0, now());
  impl_->rested = std::max(impl_->rested, now());
  put(slot, t.goal);
}

void Motion::start(std::size_t slot, const Effect& effect, double delay, ClockIndex clock) {
  const bool none = !(effect.seconds > 0) || effect.most == Offset{};
  bool taken_back = false;
  const auto [first, last] = impl_->effects.equal_range(slot);
  for (auto it = first; it != last;) {
    const auto at = it++;
    Impl::RunningEffect& e = at->second;
    const double own = impl_->own_now(e.clock);
    if (e.effect.kind != effect.kind) continue;
    if (none || !(own > e.start)) {
      impl_->effects.erase(at);
      taken_back = true;
    } else if (!(e.fading_seconds > 0)) {
      constexpr double fading_seconds = 0.12;
      e.fading_seconds = std::min(fading_seconds, e.ends() - own);
      e.fades = own;
    }
  }
  if (none) {
    if (taken_back) impl_->refresh(slot, poses_);
    return;
  }
  impl_->effects.emplace(slot,
                         Impl::RunningEffect{effect, impl_->own_now(clock) + std::max(delay, 0.0), clock});
  ++impl_->revision;
}

void Motion::lean(std::size_t slot, const Offset& by, const Spring& spring) {
  impl_->lean(slot, by, spring);
  if (!stale_) begun_.push_back(static_cast<std::uint32_t>(slot));
}

const Pose& Motion::goal(std::size_t slot) const { return impl_->tracks[slot].goal; }

bool Motion::awake(std::size_t slot) const {
  if (impl_->tracks[slot].bucket != Impl::asleep || impl_->effects.contains(slot)) return true;
  const auto lean = impl_->leans.find(slot);
  return lean != impl_->leans.end() && !lean->second.resting;
}

double Motion::settles_at() const {
  double last = now();
  for (const Bucket& b : impl_->buckets) {
    double lands = -never;
    for (std::size_t i = 0; i < b.size(); ++i) lands = std::max(lands, b.dues[i].lands);
    if (b.size() > 0) last = std::max(last, impl_->when(b.clock, lands));
  }
  for (const auto& [slot, e] : impl_->effects) last = std::max(last, impl_->when(e.clock, e.ends()));
  for (const auto& [slot, l] : impl_->leans) {
    if (!l.resting) last = std::max(last, l.record.lands);
  }
  return last;
}

std::size_t Motion::awake_count() const {
  std::size_t count = impl_->effects.size();
  for (const Bucket& b : impl_->buckets) count += b.size();
  for (const auto& [slot, lean] : impl_->leans) count += lean.resting ? 0 : 1;
  return count;
}

std::span<const Passage> Motion::passages() const {
  if (impl_->passages.empty()) return {};
  if (!std::exchange(impl_->passages_sorted, true)) {
    impl_->passage_merger.sort(std::span(impl_->passages), [](const Passage& a, const Passage& b) {
      if (a.time != b.time) return a.time < b.time;
      return a.slot != b.slot ? a.slot < b.slot : a.kind < b.kind;
    });
  }
  return impl_->passages;
}
void Motion::forget_passages() { impl_->passages.clear(); }

void Motion::advance_to(double time) {
  const bool same_time = !(time > now());
  if (same_time) time = now();
  impl_->now = time;
  for (std::size_t i = 0; i < impl_->clocks.size(); ++i) {
    impl_->clocks[i].clock.advance_to(time);
    impl_->clock_now[i] = i == 0 ? time : impl_->clocks[i].clock.own();
  }
  if (awake_count() == 0) return;
  if (same_time && impl_->computed == impl_->revision && next_due() > now()) return;
  impl_->computed = ++impl_->revision;
  impl_->pass(poses_);
  stale_ = true;
}

/// All poses after time has gone on; else those of the ways that have begun since, one by one while they are
/// few.
void Motion::compute() const {
  constexpr std::size_t few = 8;  // one alone costs as much as so many together
  if (stale_ || begun_.size() * few > awake_count()) {
    impl_->write_all(poses_);
  } else {
    for (const std::uint32_t slot : begun_) impl_->write_one(slot, poses_);
  }
  stale_ = false;
  begun_.clear();
}

double Motion::next_due() const {
  double next = never;
  for (Bucket& b : impl_->buckets) {
    if (b.size() > 0) next = std::min(next, impl_->when(b.clock, b.next_due()));
  }
  for (const auto& [slot, e] : impl_->effects) next = std::min(next, impl_->when(e.clock, e.ends()));
  for (const auto& [slot, l] : impl_->leans) {
    if (!l.resting) next = std::min(next, l.record.lands);
  }
  return next;
}

}  // namespace apsidon
