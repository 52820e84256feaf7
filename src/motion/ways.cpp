// How a way begins: from rest or by interrupting another, with a goal that may shift, and when it will end.
#include <algorithm>
#include <cmath>

#include "geometry/pi.hpp"
#include "motion/first_change.hpp"
#include "motion/impl.hpp"
#include "motion/inside.hpp"

namespace apsidon {

using namespace motion_detail;

namespace {

/// How near its goal a spring has to stay to be there: what nobody sees. By channel.
constexpr Values near{0.01f, 0.01f, 1e-4f, 1e-4f, 1e-4f, 1e-3f, 1e-3f, 1e-3f};

}  // namespace

State Motion::Impl::state(std::size_t slot) const {
  const Track& t = tracks[slot];
  if (t.bucket == asleep) return {values_of(t.goal), {}};
  const Record r = record(t);
  return state_of(buckets[t.bucket], r, bend_of(r), own_now(r.clock));
}

std::uint32_t Motion::Impl::bucket_for(const Glide& glide, ClockIndex clock) {
  std::size_t spare = buckets.size();
  for (std::size_t i = 0; i < buckets.size(); ++i) {
    if (buckets[i].moves_like(glide, clock)) return static_cast<std::uint32_t>(i);
    if (buckets[i].size() == 0) spare = i;
  }
  if (spare == buckets.size()) buckets.emplace_back();
  Bucket& b = buckets[spare];
  b.clock = clock;
  b.curve = glide.curve;
  b.spring = glide.spring;
  if (glide.spring) b.form = SpringForm(*glide.spring);
  return static_cast<std::uint32_t>(spare);
}

/// Takes a card out of its bucket; the last of the bucket gets its place.
void Motion::Impl::put_to_sleep(std::size_t slot) {
  Track& t = tracks[slot];
  if (t.bucket == asleep) return;
  Bucket& b = buckets[t.bucket];
  free_bend(b.whos[t.index]);
  tracks[b.slots[b.size() - 1]].index = t.index;
  b.erase(t.index);
  t.bucket = asleep;
}

std::int32_t Motion::Impl::keep_bend(const Glide& glide, std::span<const Vec2> through) {
  if (glide.bend == 0 && glide.flip_from == 0 && glide.flip_to == 1 && through.empty()) return plain;
  if (free_bends.empty()) {
    free_bends.push_back(static_cast<std::int32_t>(bends.size()));
    bends.emplace_back();
    free_bends.reserve(bends.capacity());  // so that no landing takes from the heap
  }
  const std::int32_t at = free_bends.back();
  free_bends.pop_back();
  Bend& b = bends[static_cast<std::size_t>(at)];
  b.bend = glide.bend;
  b.flip_from = glide.flip_from;
  b.flip_to = glide.flip_to;
  b.through.assign(through.begin(), through.end());
  return at;
}

void Motion::Impl::free_bend(std::int32_t way) {
  if (way == plain) return;
  bends[static_cast<std::size_t>(way)].through.clear();
  free_bends.push_back(way);
}

/// When the record has arrived: its way is over and nothing of the way before is left.
double Motion::Impl::lands_at(const Bucket& b, const Record& r) {
  double lands = r.start + double{r.seconds};
  if (b.spring) {
    float longest = 0;
    const bool own_velocity = !(r.left_seconds > 0);
    for (std::size_t i = 0; i < channels; ++i) {
      const float v = own_velocity ? r.velocity[i] : 0;
      if (r.offset[i] == 0 && v == 0) continue;
      longest = std::max(longest, settle_seconds(*b.spring, r.offset[i], v, near[i]));
    }
    lands = r.start + double{r.lift != 0 || r.way != plain ? std::max(longest, r.seconds) : longest};
  }
  return r.left_seconds > 0 ? std::max(lands, r.left_start + double{r.left_seconds}) : lands;
}

/// When it will be edge-on for the first time from now on; `never` when it does not flip.
double Motion::Impl::edge_at(const Bucket& b, const Record& r) const {
  if (r.offset[flip_angle] == 0 && r.velocity[flip_angle] == 0 && r.left[flip_angle] == 0) return never;
  const double begin = own_now(r.clock);
  // Without a way between there is one moment, in which the other side shows.
  if (r.lands <= begin) {
    const bool turns =
        shows_face(r.goal[flip_angle] + r.offset[flip_angle]) != shows_face(r.goal[flip_angle]);
    return turns && r.start >= begin ? r.lands : never;
  }
  const auto side = [&](double time) {
    return shows_face(time >= r.lands ? r.goal[flip_angle]
                                      : state_of(b, r, bend_of(r), time).value[flip_angle]);
  };
  constexpr int looks = 48;
  return first_change(begin, r.lands, looks, side);
}

/// When a spring has its card at the goal for the first time: it passes it, or, where it does not swing,
/// comes within a pixel. Along the straight way: x cos(wt) + (v + d x) / w sin(wt) = 0.
double Motion::Impl::arrives_at(const Bucket& b, const Record& r) {
  if (!b.spring) return never;
  const float distance = std::hypot(r.offset[x], r.offset[y]);
  constexpr float pixel = 1;
  if (!(distance > pixel) || r.left_seconds > 0 || r.way != plain) return r.lands;
  const float speed = (r.offset[x] * r.velocity[x] + r.offset[y] * r.velocity[y]) / distance;
  float seconds = settle_seconds(*b.spring, distance, speed, pixel);
  if (b.form.kind == SpringForm::Kind::under) {
    seconds = std::atan2(distance, -(speed + b.form.rate * distance) / b.form.angular) / b.form.angular;
  }
  return std::min(r.start + double{seconds}, r.lands);
}

/// Lets a record go in a bucket.
void Motion::Impl::begin(Record& r, std::uint32_t bucket) {
  r.waits = own_now(r.clock) < r.start;
  // What a shift has brought to its end already lands now.
  r.lands = std::max(lands_at(buckets[bucket], r), own_now(r.clock));
  r.edge = edge_at(buckets[bucket], r);
  r.arrives = std::max(arrives_at(buckets[bucket], r), own_now(r.clock));
  Track& t = tracks[r.slot];
  t.bucket = bucket;
  t.index = static_cast<std::uint32_t>(buckets[bucket].size());
  buckets[bucket].push(r);
  forget_touch(r.slot);
  ++revision;
}

/// Keeps position and velocity as they were: what the record lacks decays within `seconds`.
void Motion::Impl::take_over(const Bucket& b, Record& r, const State& was, float seconds) const {
  r.left_seconds = 0;
  r.lands = never;
  const State base = state_of(b, r, bend_of(r), own_now(r.clock));
  bool any = false;
  for (std::size_t i = 0; i < channels; ++i) {
    const float missing = was.velocity[i] - base.velocity[i];
    r.left[i] = was.value[i] - base.value[i];
    r.velocity[i] = missing;
    any = any || r.left[i] != 0 || r.velocity[i] != 0;
  }
  r.left_start = own_now(r.clock);
  r.left_seconds = any ? seconds : 0;
}

/// Whether a card rests, or is on a way that it has just been given, or waits for, from rest.
bool Motion::Impl::is_still(std::size_t slot) const {
  if (tracks[slot].bucket == asleep) return true;
  const Record r = record(tracks[slot]);
  return own_now(r.clock) <= r.start && r.left_seconds == 0 && r.velocity == Values{};
}

void Motion::Impl::travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay,
                          ClockIndex clock, std::span<const Vec2> through) {
  State was = state(slot);
  const bool moving = !is_still(slot);
  if (const ClockIndex before = moving ? buckets[tracks[slot].bucket].clock : clock; before != clock) {
    // Taken over from another clock a card keeps the speed that is seen.
    const double faster = rate(clock) > 0 ? rate(before) / rate(clock) : 0;
    for (float& v : was.velocity) v *= static_cast<float>(faster);
  }
  put_to_sleep(slot);
  // The short way round, and to the goal's own number.
  was.value[rotation] = goal.rotation + std::remainder(was.value[rotation] - goal.rotation, 2 * pi);
  tracks[slot].goal = goal;
  const std::uint32_t bucket = bucket_for(glide, clock);
  Record r;
  r.slot = static_cast<std::uint32_t>(slot);
  r.clock = clock;
  r.goal = values_of(goal);
  for (std::size_t i = 0; i < channels; ++i) r.offset[i] = was.value[i] - r.goal[i];
  r.start = own_now(clock) + std::max(delay, 0.0);
  r.seconds = motion_detail::travel_seconds(glide);
  r.lift = glide.lift;
  r.way = keep_bend(glide, through);
  if (moving && glide.spring && delay <= 0 && r.way == plain) {
    r.velocity = was.velocity;
  } else if (moving) {
    take_over(buckets[bucket], r, was, std::max(r.seconds, static_cast<float>(std::max(delay, 0.0))));
  }
  begin(r, bucket);
}

void Motion::Impl::shift(std::size_t slot, const Pose& goal, const Glide& glide) {
  if (tracks[slot].bucket == asleep) return travel(slot, goal, glide, 0, 0, {});
  State was = state(slot);
  const std::uint32_t bucket = tracks[slot].bucket;
  Record r = record(tracks[slot]);
  const double time = own_now(r.clock);
  // The bend goes on with the record: it is not freed.
  const std::int32_t way = std::exchange(buckets[bucket].whos[tracks[slot].index], plain);
  put_to_sleep(slot);
  const float round = goal.rotation +
                      std::remainder(r.goal[rotation] + r.offset[rotation] - goal.rotation, 2 * pi) -
                      (r.goal[rotation] + r.offset[rotation]);
  was.value[rotation] += round;
  const Values to = values_of(goal);
  for (std::size_t i = 0; i < channels; ++i) r.offset[i] += r.goal[i] - to[i];
  r.offset[rotation] += round;
  r.goal = to;
  r.way = way;
  tracks[slot].goal = goal;
  const Bucket& b = buckets[bucket];
  if (b.spring && time >= r.start && way == plain && r.lift == 0) {
    // A spring has no memory: it starts anew from where it is, and the same comes of it.
    for (std::size_t i = 0; i < channels; ++i) r.offset[i] = was.value[i] - r.goal[i];
    r.velocity = was.velocity;
    r.left_seconds = 0;
    r.left = {};
    r.start = time;
  } else if (time >= r.start || r.left_seconds > 0) {  // one that waits from rest lacks nothing
    r.velocity = {};
    take_over(b, r, was, motion_detail::travel_seconds(glide));
  }
  begin(r, bucket);
}

/// Whether a card or an effect still goes by a clock.
bool Motion::Impl::goes_by(ClockIndex clock) const {
  return std::any_of(effects.begin(), effects.end(),
                     [&](const auto& of) { return of.second.clock == clock; }) ||
         std::any_of(buckets.begin(), buckets.end(),
                     [&](const Bucket& b) { return b.clock == clock && b.size() > 0; });
}

void Motion::Impl::lean(std::size_t slot, const Offset& by, const Spring& spring) {
  auto it = leans.find(slot);
  if (it == leans.end()) {
    if (by == Offset{}) return;
    it = leans.try_emplace(slot).first;
  }
  Lean& lean = it->second;
  Record& r = lean.record;
  const State was = lean.as.spring ? state_of(lean.as, r, nullptr, now) : State{};
  // One that has been taken back is gone, whether a frame has seen that or not.
  if (by == Offset{} && r.goal == Values{} && now >= r.lands) return;
  lean.as.spring = spring;
  lean.as.form = SpringForm(spring);
  lean.resting = false;
  r.goal = plus(Values{}, by, 1);
  for (std::size_t i = 0; i < channels; ++i) r.offset[i] = was.value[i] - r.goal[i];
  r.velocity = was.velocity;
  r.start = now;
  r.lands = lands_at(lean.as, r);
  ++revision;
}

}  // namespace apsidon
