// Everything goes on to a time: who departs, flips and lands meanwhile, and all poses.
#include <algorithm>

#include "motion/impl.hpp"

namespace apsidon {

using namespace motion_detail;

void Motion::Impl::advance(std::span<Pose> poses) {
  for (Bucket& b : buckets) {
    landed.clear();
    for (std::size_t i = 0; i < b.size(); i += block_size) {
      const std::size_t end = std::min(i + block_size, b.size());
      if (write_poses(b, i, end, clock_now, bends, poses)) come_due(b, i, end, poses);
    }
    // The last of the bucket get the places of those that have landed.
    std::size_t count = b.size();
    for (auto it = landed.rbegin(); it != landed.rend(); ++it) {
      if (*it == --count) continue;
      tracks[b.slots[count]].index = *it;
      b.move(count, *it);
    }
    if (!landed.empty()) b.cut(count);
  }
  advance_asides(poses);
}

/// Tells of what has come to pass with the records of a block, and lets those that have landed sleep at their
/// goals.
void Motion::Impl::come_due(Bucket& b, std::size_t begin, std::size_t end, std::span<Pose> poses) {
  const std::size_t before = landed.size();
  std::size_t due = 0;
  for (std::size_t i = begin; i < end; ++i) {
    const std::size_t slot = b.slots[i];
    const ClockIndex clock = b.whos[i].clock;
    const double own = own_now(clock);
    if (own < b.nexts[i]) continue;
    ++due;
    if ((b.specials[i] & Bucket::waits) != 0 && own >= b.starts[i]) {
      b.specials[i] &= static_cast<std::uint8_t>(~Bucket::waits);
      (void)note(Passage::Kind::departed, slot, clock, b.starts[i]);
    }
    if (own >= b.dues[i].edge)
      (void)note(Passage::Kind::edge_on, slot, clock, std::exchange(b.dues[i].edge, never));
    if (own < b.dues[i].lands) {
      b.find_next(i);
      continue;
    }
    rested = std::max(rested, note(Passage::Kind::landed, slot, clock, b.dues[i].lands));
    landed.push_back(static_cast<std::uint32_t>(i));
    free_bend(b.whos[i].way);
    Track& t = tracks[slot];
    t.bucket = asleep;
    poses[slot] = t.goal;
    touch(slot);
  }
  if (due < end - begin || landed.size() - before == due) return;
  // Where something is due for all, mostly all have landed; not here.
  (void)write_poses(b, begin, end, clock_now, bends, poses, true);
  for (std::size_t i = before; i < landed.size(); ++i)
    poses[b.slots[landed[i]]] = tracks[b.slots[landed[i]]].goal;
}

void Motion::Impl::advance_asides(std::span<Pose> poses) {
  // Effects that have ended are removed first; those still on are added afterwards.
  for (const RunningEffect& e : effects) {
    if (own_now(e.clock) < e.ends()) continue;
    rested = std::max(rested, when(e.clock, e.ends()));
    touch(e.slot);
    if (tracks[e.slot].bucket == asleep) poses[e.slot] = tracks[e.slot].goal;
  }
  std::erase_if(effects, [&](const RunningEffect& e) { return own_now(e.clock) >= e.ends(); });
  for (Lean& l : leans) {
    if (!l.resting && now >= l.record.lands) {
      l.resting = true;
      rested = std::max(rested, l.record.lands);
      touch(l.slot);
    }
    if (l.resting && l.record.goal == Values{} && tracks[l.slot].bucket == asleep) {
      poses[l.slot] = tracks[l.slot].goal;
    }
  }
  std::erase_if(leans, [](const Lean& l) { return l.resting && l.record.goal == Values{}; });
  if (!effects.empty() || !leans.empty()) add_asides(poses);
}

/// An effect of a card was taken away before its end: nothing of it stays in the card's pose.
void Motion::Impl::end_aside(std::size_t slot, std::span<Pose> poses) {
  const Track& t = tracks[slot];
  poses[slot] = t.bucket == asleep ? t.goal : pose_of(state(slot).value, t.goal.flip_axis);
  touch(slot);
  add_asides(poses);
  ++revision;
}

/// Adds effects and leans to the poses of their cards.
void Motion::Impl::add_asides(std::span<Pose> poses) {
  const auto reset = [&](std::size_t slot) {
    const Track& t = tracks[slot];
    poses[slot] = t.bucket == asleep ? t.goal : pose_of(state(slot).value, t.goal.flip_axis);
  };
  for (const RunningEffect& e : effects) reset(e.slot);
  for (const Lean& l : leans) reset(l.slot);
  for (const RunningEffect& e : effects) touch(e.slot);
  for (const Lean& l : leans) touch(l.slot);
  for (const RunningEffect& e : effects) {
    const double since = own_now(e.clock) - e.start;
    if (since <= 0 || since >= double{e.effect.seconds}) continue;
    const float share = share_of(e.effect, static_cast<float>(since / double{e.effect.seconds}));
    poses[e.slot] = pose_of(plus(values_of(poses[e.slot]), e.effect.most, share), poses[e.slot].flip_axis);
  }
  for (const Lean& l : leans) {
    const Record& r = l.record;
    const Values by = l.resting ? r.goal : state_of(l.as, r, nullptr, now).value;
    Values v = values_of(poses[l.slot]);
    for (std::size_t i = 0; i < channels; ++i) v[i] += by[i];
    poses[l.slot] = pose_of(v, poses[l.slot].flip_axis);
  }
}

}  // namespace apsidon
