#include "motion/table_motion.hpp"

#include <algorithm>

#include "motion/impl.hpp"

namespace apsidon::motion_detail {

void TableMotion::clear(std::size_t slot) {
  impl_->effects.erase(slot);
  impl_->leans.erase(slot);
  impl_->rested = std::max(impl_->rested, now());
  put(slot, pose(slot));
}

ClockIndex TableMotion::add_clock() {
  std::size_t at = 1;
  while (at < impl_->clocks.size() && (impl_->clocks[at].used || impl_->goes_by(static_cast<ClockIndex>(at))))
    ++at;
  if (at == impl_->clocks.size()) {
    impl_->clocks.emplace_back();
    impl_->clock_now.emplace_back();
  }
  impl_->clocks[at] = {.clock = Clock(now(), now())};
  impl_->clock_now[at] = now();
  return static_cast<ClockIndex>(at);
}

void TableMotion::end_effects(ClockIndex clock) {
  std::vector<std::size_t> slots;
  std::erase_if(impl_->effects, [&](const auto& of) {
    if (of.second.clock != clock) return false;
    slots.push_back(of.first);
    return true;
  });
  for (const std::size_t slot : slots) impl_->refresh(slot, poses_);
  if (!slots.empty()) impl_->rested = std::max(impl_->rested, now());
}

void TableMotion::release_effects(ClockIndex clock) {
  for (auto& [slot, effect] : impl_->effects) {
    if (effect.clock != clock) continue;
    effect.start += now() - impl_->own_now(clock);
    effect.clock = 0;
  }
}

void TableMotion::remove_clock(ClockIndex clock) {
  if (clock > 0 && clock < impl_->clocks.size()) impl_->clocks[clock].used = false;
}

void TableMotion::set_speed(ClockIndex clock, double speed) {
  if (clock > 0 && clock < impl_->clocks.size()) impl_->clocks[clock].clock.set_speed(speed);
}

double TableMotion::own_time(ClockIndex clock) const { return impl_->clock_now[clock]; }

double TableMotion::when(ClockIndex clock, double own) const { return impl_->when(clock, own); }

double TableMotion::lands_at(std::size_t slot) const {
  const Impl::Track& t = impl_->tracks[slot];
  return t.bucket == Impl::asleep ? now() : impl_->buckets[t.bucket].dues[t.index].lands;
}

bool TableMotion::on_its_way(std::size_t slot) const { return impl_->tracks[slot].bucket != Impl::asleep; }

bool TableMotion::waiting(std::size_t slot) const {
  const Impl::Track& t = impl_->tracks[slot];
  if (t.bucket == Impl::asleep) return false;
  const Bucket& b = impl_->buckets[t.bucket];
  return (b.specials[t.index] & Bucket::waits) != 0;
}

void TableMotion::with_effect(EffectKind kind, std::vector<std::uint32_t>& slots) const {
  for (const auto& [slot, effect] : impl_->effects) {
    if (effect.effect.kind == kind) slots.push_back(static_cast<std::uint32_t>(slot));
  }
}

double TableMotion::rested_at() const { return impl_->rested; }

std::size_t TableMotion::moved_parts() const { return impl_->buckets.size() + 1; }

std::span<const std::uint32_t> TableMotion::moved(std::size_t part) const {
  if (stale_ || !begun_.empty()) compute();  // which finds those with effects
  return part < impl_->buckets.size() ? impl_->buckets[part].all_slots() : impl_->touched_slots;
}

void TableMotion::forget_moved() {
  for (const std::uint32_t slot : impl_->touched_slots) impl_->touched[slot] = Impl::untouched;
  impl_->touched_slots.clear();
}

std::uint64_t TableMotion::revision() const { return impl_->revision; }

}  // namespace apsidon::motion_detail
