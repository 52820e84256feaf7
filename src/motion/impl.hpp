#pragma once
// The inside of Motion; not installed. ways.cpp begins, shifts and ends ways, advance.cpp moves everything on
// to a time, motion.cpp is what a client calls and asks.
#include <algorithm>
#include <limits>
#include <map>
#include <utility>
#include <vector>

#include "apsidon/motion/motion.hpp"
#include "motion/clock.hpp"
#include "motion/inside.hpp"
#include "motion/run_merger.hpp"
#include "motion/track.hpp"

namespace apsidon {

struct Motion::Impl {
  using Bucket = motion_detail::Bucket;
  using Record = motion_detail::Record;
  using Values = motion_detail::Values;

  static constexpr std::uint32_t asleep = ~std::uint32_t{0};
  static constexpr std::uint32_t untouched = ~std::uint32_t{0};

  struct Track {
    Pose goal = {};
    std::uint32_t bucket = asleep;
    std::uint32_t index = 0;  // in the bucket
  };

  /// A clock of Motion, and whether it is in use.
  struct OwnClock {
    motion_detail::Clock clock;
    bool used = true;
  };

  struct RunningEffect {
    Effect effect;
    double start = 0;  // on its clock
    ClockIndex clock = 0;
    double fades = std::numeric_limits<double>::infinity();  // from when on: another has taken over
    double fading_seconds = 0;

    [[nodiscard]] double ends() const {
      return std::min(start + double{effect.seconds}, fades + fading_seconds);
    }
    /// What is added at a time of its clock, share of its height. While it fades, it goes on, and less and
    /// less of it counts: by a smooth step, so that neither place nor speed jumps.
    [[nodiscard]] float share_at(double own) const {
      const float share =
          motion_detail::share_of(effect, static_cast<float>((own - start) / double{effect.seconds}));
      if (!(own > fades)) return share;
      const auto gone = static_cast<float>((own - fades) / fading_seconds);
      return share * (1 - gone * gone * (3 - 2 * gone));
    }
  };

  /// A lean on a spring of its own: goal + offset * a + velocity * b, as of a track.
  struct Lean {
    Bucket as;  // how it moves
    Record record;
    bool resting = false;

    [[nodiscard]] bool is_over() const { return resting && record.goal == Values{}; }
  };

  std::vector<Track> tracks;
  std::vector<Bucket> buckets;
  std::vector<motion_detail::Bend> bends;
  std::vector<std::int32_t> free_bends;
  std::vector<OwnClock> clocks{1};  // the first is the time of all
  std::vector<double> clock_now{0.0};
  std::multimap<std::size_t, RunningEffect> effects;  // by slot, of one slot in the order of their starts
  std::map<std::size_t, Lean> leans;                  // by slot
  std::vector<Passage> passages;
  bool passages_sorted = true;  // put in order when they are asked for
  motion_detail::RunMerger<Passage> passage_merger;
  double now = 0;
  std::uint64_t revision = 0;
  std::uint64_t computed = 0;  // the revision that the poses have
  double rested = 0;
  std::vector<std::uint32_t> touched;        // by slot: its place among these
  std::vector<std::uint32_t> touched_slots;  // since `forget_moved`
  std::vector<std::uint32_t> landed;         // scratch: of a bucket

  [[nodiscard]] double own_now(ClockIndex clock) const { return clock_now[clock]; }
  [[nodiscard]] Record record(const Track& t) const { return buckets[t.bucket].record(t.index); }
  [[nodiscard]] const motion_detail::Bend* bend_of(const Record& r) const {
    return r.way == motion_detail::plain ? nullptr : &bends[static_cast<std::size_t>(r.way)];
  }
  /// When a clock shows this.
  [[nodiscard]] double when(ClockIndex clock, double own) const {
    return clock == 0 ? own : clocks[clock].clock.when(own);
  }
  /// Seconds that pass on a clock in one of the time of all.
  [[nodiscard]] double rate(ClockIndex clock) const {
    if (clock == 0) return 1;
    return clocks[clock].clock.stands() ? 0 : clocks[clock].clock.speed();
  }
  /// The pose of a card that rests may have changed.
  void touch(std::size_t slot) {
    if (touched[slot] != untouched) return;
    touched[slot] = static_cast<std::uint32_t>(touched_slots.size());
    touched_slots.push_back(static_cast<std::uint32_t>(slot));
  }
  /// The card is on its way again.
  void forget_touch(std::size_t slot) {
    const std::uint32_t at = std::exchange(touched[slot], untouched);
    if (at == untouched) return;
    const std::uint32_t last = touched_slots.back();
    touched_slots.pop_back();
    if (last == slot) return;
    touched_slots[at] = last;
    touched[last] = at;
  }

  // ways.cpp
  [[nodiscard]] motion_detail::State state(std::size_t slot) const;
  std::uint32_t bucket_for(const Glide& glide, ClockIndex clock);
  void put_to_sleep(std::size_t slot);
  std::int32_t keep_bend(const Glide& glide, std::span<const Vec2> through);
  void free_bend(std::int32_t way);
  [[nodiscard]] static double lands_at(const Bucket& b, const Record& r);
  [[nodiscard]] double edge_at(const Bucket& b, const Record& r) const;
  [[nodiscard]] static double arrives_at(const Bucket& b, const Record& r);
  void begin(Record& r, std::uint32_t bucket);
  void take_over(const Bucket& b, Record& r, const motion_detail::State& was, float seconds) const;
  [[nodiscard]] bool is_still(std::size_t slot) const;
  void travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay, ClockIndex clock,
              std::span<const Vec2> through);
  void shift(std::size_t slot, const Pose& goal, const Glide& glide);
  void lean(std::size_t slot, const Offset& by, const Spring& spring);
  [[nodiscard]] bool goes_by(ClockIndex clock) const;

  // advance.cpp
  /// Whether a clock of the cards has shown this. Asked by the time of all, so that a rounding on the way to
  /// and fro makes nothing early.
  [[nodiscard]] bool has_shown(ClockIndex clock, double own) const { return when(clock, own) <= now; }
  void pass(std::span<Pose> poses);
  void come_due(Bucket& b, std::size_t begin, std::size_t end, std::span<Pose> poses);
  void end_asides(std::span<Pose> poses);
  void write_all(std::span<Pose> poses);
  void write_one(std::size_t slot, std::span<Pose> poses);
  void refresh(std::size_t slot, std::span<Pose> poses);
  void add_asides(std::size_t slot, std::span<Pose> poses);
  [[nodiscard]] bool has_aside(std::size_t slot) const {
    return effects.contains(slot) || leans.contains(slot);
  }
  /// Tells when a clock of the cards showed this, and returns it.
  double note(Passage::Kind kind, std::size_t slot, ClockIndex clock, double own) {
    const double time = when(clock, own);
    passages.push_back({kind, slot, time});
    passages_sorted = false;
    return time;
  }
};

}  // namespace apsidon
