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
  const auto rests = [&](std::size_t slot) {
    touch(slot);
    if (tracks[slot].bucket == asleep) poses[slot] = tracks[slot].goal;
  };
  std::erase_if(effects, [&](const auto& of) {
    const auto& [slot, effect] = of;
    if (!has_shown(effect.clock, effect.ends())) return false;
    rested = std::max(rested, when(effect.clock, effect.ends()));
    rests(slot);
    return true;
  });
  for (auto& [slot, lean] : leans) {
    if (lean.resting || now < lean.record.lands) continue;
    lean.resting = true;
    rested = std::max(rested, lean.record.lands);
    touch(slot);
  }
  std::erase_if(leans, [&](const auto& of) {
    if (of.second.is_over()) rests(of.first);
    return of.second.is_over();
  });
}

/// The poses of all that is awake, as they are now.
void Motion::Impl::write_all(std::span<Pose> poses) {
  for (const Bucket& b : buckets) {
    for (std::size_t i = 0; i < b.size(); i += block_size) {
      write_poses(b, i, std::min(i + block_size, b.size()), clock_now[b.clock], bends, poses);
    }
  }
  for (auto it = effects.begin(); it != effects.end(); it = effects.upper_bound(it->first))
    add_asides(it->first, poses);
  for (const auto& [slot, lean] : leans) {
    if (!effects.contains(slot)) add_asides(slot, poses);
  }
}

/// The pose of one card, as its record has it now.
void Motion::Impl::write_one(std::size_t slot, std::span<Pose> poses) {
  if (has_aside(slot)) return add_asides(slot, poses);
  const Track& t = tracks[slot];
  if (t.bucket == asleep) return;
  const Bucket& b = buckets[t.bucket];
  write_poses(b, t.index, t.index + 1, clock_now[b.clock], bends, poses);
}

/// An effect of a card was taken away before its end: nothing of it stays in the card's pose.
void Motion::Impl::refresh(std::size_t slot, std::span<Pose> poses) {
  add_asides(slot, poses);
  ++revision;
}

/// The pose of a card with its effects and its lean.
void Motion::Impl::add_asides(std::size_t slot, std::span<Pose> poses) {
  const Track& t = tracks[slot];
  Values values = t.bucket == asleep ? values_of(t.goal) : state(slot).value;
  touch(slot);
  const auto [first, last] = effects.equal_range(slot);
  for (auto it = first; it != last; ++it) {
    const RunningEffect& e = it->second;
    const double own = own_now(e.clock);
    if (own <= e.start || own >= e.ends()) continue;
    values = plus(values, e.effect.most, e.share_at(own));
  }
  const auto lean = leans.find(slot);
  if (lean != leans.end()) {
    const Lean& l = lean->second;
    const Values by = l.resting ? l.record.goal : state_of(l.as, l.record, nullptr, now).value;
    for (std::size_t i = 0; i < channels; ++i) values[i] += by[i];
  }
  poses[slot] = pose_of(values, t.goal.flip_axis);
}

}  // namespace apsidon
