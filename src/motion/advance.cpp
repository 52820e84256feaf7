// Everything goes on to a time: who departs, flips and lands meanwhile, and all poses.
#include <algorithm>

#include "motion/impl.hpp"

namespace apsidon {

using namespace motion_detail;

/// Who departs, flips and lands by now.
void Motion::Impl::pass(std::span<Pose> poses) {
  for (Bucket& b : buckets) {
    if (b.size() == 0) continue;
    landed.clear();
    // Block by block, while those that are due are few: mostly one is, or all are.
    for (int few = 8; b.least_due() < never && has_shown(b.clock, b.least_due()); --few) {
      const std::size_t block = b.first_block();
      const std::size_t begin = few > 0 ? block * due_block : 0;
      come_due(b, begin, few > 0 ? std::min(begin + due_block, b.size()) : b.size(), poses);
      if (few > 0) {
        b.look_again(block);
      } else {
        b.look_again_at_all();
      }
    }
    // The last of the bucket get the places of those that have landed.
    if (!std::is_sorted(landed.begin(), landed.end())) std::sort(landed.begin(), landed.end());
    std::size_t count = b.size();
    for (auto it = landed.rbegin(); it != landed.rend(); ++it) {
      if (*it == --count) continue;
      tracks[b.slots[count]].index = *it;
      b.move(count, *it);
    }
    if (!landed.empty()) b.cut(count);
  }
  end_asides(poses);
}

/// Tells of what has come to pass with the records of a block, and lets those that have landed sleep at their
/// goals.
void Motion::Impl::come_due(Bucket& b, std::size_t begin, std::size_t end, std::span<Pose> poses) {
  for (std::size_t i = begin; i < end; ++i) {
    if (!has_shown(b.clock, b.nexts[i])) continue;
    const std::size_t slot = b.slots[i];
    if ((b.specials[i] & Bucket::waits) != 0 && has_shown(b.clock, b.starts[i])) {
      b.specials[i] &= static_cast<std::uint8_t>(~Bucket::waits);
      (void)note(Passage::Kind::departed, slot, b.clock, b.starts[i]);
    }
    if (has_shown(b.clock, b.dues[i].edge))
      (void)note(Passage::Kind::edge_on, slot, b.clock, std::exchange(b.dues[i].edge, never));
    if (has_shown(b.clock, b.dues[i].arrives))
      (void)note(Passage::Kind::arrived, slot, b.clock, std::exchange(b.dues[i].arrives, never));
    if (!has_shown(b.clock, b.dues[i].lands)) {
      b.find_next(i);
      continue;
    }
    rested = std::max(rested, note(Passage::Kind::landed, slot, b.clock, b.dues[i].lands));
    landed.push_back(static_cast<std::uint32_t>(i));
    b.nexts[i] = never;
    free_bend(b.whos[i]);
    Track& t = tracks[slot];
    t.bucket = asleep;
    poses[slot] = t.goal;
    touch(slot);
  }
}

/// Effects and leans that are over by now are removed.
void Motion::Impl::end_asides(std::span<Pose> poses) {
  for (const RunningEffect& e : effects) {
    if (!has_shown(e.clock, e.ends())) continue;
    rested = std::max(rested, when(e.clock, e.ends()));
    touch(e.slot);
    if (tracks[e.slot].bucket == asleep) poses[e.slot] = tracks[e.slot].goal;
  }
  std::erase_if(effects, [&](const RunningEffect& e) { return has_shown(e.clock, e.ends()); });
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
}

/// The poses of all that is awake, as they are now.
void Motion::Impl::write_all(std::span<Pose> poses) {
  for (const Bucket& b : buckets) {
    for (std::size_t i = 0; i < b.size(); i += block_size) {
      write_poses(b, i, std::min(i + block_size, b.size()), clock_now[b.clock], bends, poses);
    }
  }
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

/// The pose of one card, as its record has it now.
void Motion::Impl::write_one(std::size_t slot, std::span<Pose> poses) {
  const Track& t = tracks[slot];
  if (t.bucket != asleep) {
    const Bucket& b = buckets[t.bucket];
    write_poses(b, t.index, t.index + 1, clock_now[b.clock], bends, poses);
  }
  const bool aside =
      std::any_of(effects.begin(), effects.end(), [&](const auto& e) { return e.slot == slot; }) ||
      std::any_of(leans.begin(), leans.end(), [&](const auto& l) { return l.slot == slot; });
  if (aside) add_asides(poses);
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
    const double own = own_now(e.clock);
    if (own <= e.start || own >= e.ends()) continue;
    const float share = e.share_at(own);
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
