#include "apsidon/motion/motion.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

#include "apsidon/motion/clock.hpp"
#include "motion/track.hpp"

namespace apsidon {

using namespace motion_detail;

namespace {

constexpr float pi = std::numbers::pi_v<float>;
constexpr std::uint32_t asleep = ~std::uint32_t{0};
/// How near its goal a spring has to stay to be there: what nobody sees. By channel.
constexpr Values near{0.01f, 0.01f, 1e-4f, 1e-4f, 1e-4f, 1e-3f, 1e-3f, 1e-3f};

Values plus(const Values& v, const Offset& o, float share) {
  Values out = v;
  out[x] += o.move.x * share;
  out[y] += o.move.y * share;
  out[rotation] += o.rotation * share;
  out[scale] += o.scale * share;
  out[brightness] += o.brightness * share;
  out[lift] += o.lift * share;
  return out;
}

/// A clock of Motion, and whether somebody may go by it.
struct OwnClock {
  Clock clock;
  bool used = true;
};

struct RunningEffect {
  Effect effect;
  double start = 0;  // on its clock
  std::size_t slot = 0;
  ClockIndex clock = 0;

  [[nodiscard]] double ends() const { return start + double{effect.seconds}; }
};

/// A lean on a spring of its own: goal + offset * a + velocity * b, as of a track.
struct Lean {
  Bucket as;  // how it moves
  Record record;
  std::size_t slot = 0;
  bool resting = false;
};

}  // namespace

struct Motion::Impl {
  struct Track {
    Pose goal = {};
    std::uint32_t bucket = asleep;
    std::uint32_t index = 0;  // in the bucket
  };

  std::vector<Track> tracks;
  std::vector<Bucket> buckets;
  std::vector<Bend> bends;
  std::vector<std::int32_t> free_bends;
  std::vector<OwnClock> clocks{1};  // the first is the time of all
  std::vector<double> clock_now{0.0};
  std::vector<RunningEffect> effects;
  std::vector<Lean> leans;
  std::vector<Passage> passages;
  bool passages_sorted = true;  // put in order when they are asked for
  double now = 0;
  std::uint64_t revision = 0;
  std::uint64_t computed = 0;  // the revision that the poses have
  double rested = 0;
  std::vector<char> touched;                 // by slot
  std::vector<std::uint32_t> touched_slots;  // since `forget_moved`

  [[nodiscard]] double own_now(ClockIndex clock) const { return clock_now[clock]; }
  [[nodiscard]] Record record(const Track& t) const { return buckets[t.bucket].record(t.index); }
  [[nodiscard]] const Bend* bend_of(const Record& r) const {
    return r.way == plain ? nullptr : &bends[static_cast<std::size_t>(r.way)];
  }

  [[nodiscard]] State state(std::size_t slot) const {
    const Track& t = tracks[slot];
    if (t.bucket == asleep) return {values_of(t.goal), {}};
    const Record r = record(t);
    return state_of(buckets[t.bucket], r, bend_of(r), own_now(r.clock));
  }

  std::uint32_t bucket_for(const Glide& glide) {
    std::size_t spare = buckets.size();
    for (std::size_t i = 0; i < buckets.size(); ++i) {
      if (buckets[i].moves_like(glide)) return static_cast<std::uint32_t>(i);
      if (buckets[i].size() == 0) spare = i;
    }
    if (spare == buckets.size()) buckets.emplace_back();
    Bucket& b = buckets[spare];
    b.curve = glide.curve;
    b.spring = glide.spring;
    if (glide.spring) b.form = SpringForm(*glide.spring);
    return static_cast<std::uint32_t>(spare);
  }

  /// Takes a card out of its bucket; the last of the bucket gets its place.
  void put_to_sleep(std::size_t slot) {
    Track& t = tracks[slot];
    if (t.bucket == asleep) return;
    Bucket& b = buckets[t.bucket];
    free_bend(b.whos[t.index].way);
    tracks[b.slots.back()].index = t.index;
    b.erase(t.index);
    t.bucket = asleep;
  }

  void insert(const Record& r, std::uint32_t bucket) {
    Track& t = tracks[r.slot];
    t.bucket = bucket;
    t.index = static_cast<std::uint32_t>(buckets[bucket].size());
    buckets[bucket].push(r);
    ++revision;
  }

  std::int32_t keep_bend(const Glide& glide, std::span<const Vec2> through) {
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

  /// When the record has arrived: its way is over and nothing of the way before is left.
  static double lands_at(const Bucket& b, const Record& r) {
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

  /// When it will be edge-on for the first time from now on; `never` when it does not turn over.
  [[nodiscard]] double edge_at(const Bucket& b, const Record& r) const {
    if (r.offset[flip] == 0 && r.velocity[flip] == 0 && r.left[flip] == 0) return never;
    const double begin = own_now(r.clock);
    const auto side = [&](double time) {
      return shows_face(time >= r.lands ? r.goal[flip] : state_of(b, r, bend_of(r), time).value[flip]);
    };
    constexpr int looks = 48;
    const bool first = side(begin);
    double low = begin;
    for (int i = 1; i <= looks; ++i) {
      double high = begin + (r.lands - begin) * i / looks;
      if (side(high) == first) {
        low = high;
        continue;
      }
      for (int k = 0; k < 50; ++k) {
        const double middle = (low + high) / 2;
        if (middle <= low || middle >= high) break;
        (side(middle) == first ? low : high) = middle;
      }
      return high;
    }
    return never;
  }

  void finish_record(Record& r, std::uint32_t bucket) {
    r.lands = lands_at(buckets[bucket], r);
    r.edge = edge_at(buckets[bucket], r);
    insert(r, bucket);
  }

  /// Keeps position and velocity as they were: what the record lacks decays within `seconds`.
  void take_over(const Bucket& b, Record& r, const State& was, float seconds) const {
    r.left_seconds = 0;
    r.lands = never;
    const State base = state_of(b, r, bend_of(r), own_now(r.clock));
    bool any = false;
    for (std::size_t i = 0; i < channels; ++i) {
      const float missing = was.velocity[i] - base.velocity[i];
      r.left[i] = was.value[i] - base.value[i];
      // A curve that starts upright jumps by itself; there is no velocity that could be kept.
      r.velocity[i] = std::abs(missing) < 1e30f ? missing : 0;
      any = any || r.left[i] != 0 || r.velocity[i] != 0;
    }
    r.left_start = own_now(r.clock);
    r.left_seconds = any ? seconds : 0;
  }

  void travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay, ClockIndex clock,
              std::span<const Vec2> through) {
    State was = state(slot);
    const bool moving = tracks[slot].bucket != asleep;
    put_to_sleep(slot);
    // The short way round, and to the goal's own number.
    was.value[rotation] = goal.rotation + std::remainder(was.value[rotation] - goal.rotation, 2 * pi);
    tracks[slot].goal = goal;
    const std::uint32_t bucket = bucket_for(glide);
    Record r;
    r.slot = static_cast<std::uint32_t>(slot);
    r.clock = clock;
    r.goal = values_of(goal);
    for (std::size_t i = 0; i < channels; ++i) r.offset[i] = was.value[i] - r.goal[i];
    r.start = own_now(clock) + std::max(delay, 0.0);
    r.seconds = travel_seconds(glide);
    r.lift = glide.lift;
    r.way = keep_bend(glide, through);
    if (moving && glide.spring && delay <= 0 && r.way == plain) {
      r.velocity = was.velocity;
    } else if (moving) {
      take_over(buckets[bucket], r, was, std::max(r.seconds, static_cast<float>(std::max(delay, 0.0))));
    }
    finish_record(r, bucket);
  }

  void shift(std::size_t slot, const Pose& goal, const Glide& glide) {
    if (tracks[slot].bucket == asleep) return travel(slot, goal, glide, 0, 0, {});
    State was = state(slot);
    const std::uint32_t bucket = tracks[slot].bucket;
    Record r = record(tracks[slot]);
    const double time = own_now(r.clock);
    // The bend goes on with the record: it is not freed.
    const std::int32_t way = std::exchange(buckets[bucket].whos[tracks[slot].index].way, plain);
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
    } else {
      r.velocity = {};
      take_over(b, r, was, travel_seconds(glide));
    }
    finish_record(r, bucket);
  }

  /// When a clock shows this.
  [[nodiscard]] double when(ClockIndex clock, double own) const {
    return clock == 0 ? own : clocks[clock].clock.when(own);
  }
  double note(Passage::Kind kind, std::size_t slot, ClockIndex clock, double own) {
    const double time = when(clock, own);
    passages.push_back({kind, slot, time});
    passages_sorted = false;
    return time;
  }

  /// Its pose may have changed, and it is not on its way, or not any more.
  void touch(std::size_t slot) {
    if (std::exchange(touched[slot], char{1})) return;
    touched_slots.push_back(static_cast<std::uint32_t>(slot));
  }

  void free_bend(std::int32_t way) {
    if (way == plain) return;
    bends[static_cast<std::size_t>(way)].through.clear();
    free_bends.push_back(way);
  }

  /// Whether a card or an effect still goes by a clock.
  [[nodiscard]] bool goes_by(ClockIndex clock) const {
    return std::any_of(effects.begin(), effects.end(),
                       [&](const RunningEffect& e) { return e.clock == clock; }) ||
           std::any_of(buckets.begin(), buckets.end(), [&](const Bucket& b) {
             return std::any_of(b.whos.begin(), b.whos.end(),
                                [&](const Bucket::Who& t) { return t.clock == clock; });
           });
  }

  void add_asides(std::span<Pose> poses);
  void land_due(Bucket& b, std::span<Pose> poses);
  void advance(std::span<Pose> poses);
};

Motion::Motion() : impl_(std::make_unique<Impl>()) {}
Motion::Motion(const Motion& other) : impl_(std::make_unique<Impl>(*other.impl_)), poses_(other.poses_) {}
Motion::Motion(Motion&&) noexcept = default;
Motion& Motion::operator=(const Motion& other) {
  if (this != &other) *this = Motion(other);
  return *this;
}
Motion& Motion::operator=(Motion&&) noexcept = default;
Motion::~Motion() = default;

void Motion::resize(std::size_t slots) {
  impl_->tracks.resize(slots);
  impl_->touched.resize(slots);
  std::erase_if(impl_->touched_slots, [&](std::uint32_t slot) { return slot >= slots; });
  impl_->touched_slots.reserve(slots);
  poses_.resize(slots);
  impl_->passages.reserve(2 * slots);
}

double Motion::now() const { return impl_->now; }

void Motion::place(std::size_t slot, const Pose& pose) {
  impl_->put_to_sleep(slot);
  impl_->tracks[slot].goal = pose;
  poses_[slot] = pose;
  impl_->touch(slot);
  impl_->add_asides(poses_);
  ++impl_->revision;
}

void Motion::travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay, ClockIndex clock,
                    std::span<const Vec2> through) {
  impl_->travel(slot, goal, glide, delay, clock, through);
  poses_[slot].flip_axis = goal.flip_axis;
}

void Motion::shift(std::size_t slot, const Pose& goal, const Glide& glide) {
  impl_->shift(slot, goal, glide);
  poses_[slot].flip_axis = goal.flip_axis;
}

void Motion::finish(std::size_t slot) {
  const Impl::Track& t = impl_->tracks[slot];
  if (t.bucket == asleep) return;
  const Record r = impl_->record(t);
  if (r.edge != never) impl_->passages.push_back({Passage::Kind::edge_on, slot, now()});
  impl_->passages.push_back({Passage::Kind::landed, slot, now()});
  place(slot, t.goal);
}

void Motion::start(std::size_t slot, const Effect& effect, double delay, ClockIndex clock) {
  std::erase_if(impl_->effects,
                [&](const RunningEffect& e) { return e.slot == slot && e.effect.kind == effect.kind; });
  if (!(effect.seconds > 0) || effect.most == Offset{}) return;
  impl_->effects.push_back({effect, impl_->own_now(clock) + std::max(delay, 0.0), slot, clock});
  ++impl_->revision;
}

void Motion::lean(std::size_t slot, const Offset& by, const Spring& spring) {
  auto it =
      std::find_if(impl_->leans.begin(), impl_->leans.end(), [&](const Lean& l) { return l.slot == slot; });
  if (it == impl_->leans.end()) {
    if (by == Offset{}) return;
    it = impl_->leans.insert(it, Lean{});
    it->slot = slot;
  }
  Record& r = it->record;
  const State was = it->as.spring ? state_of(it->as, r, nullptr, now()) : State{};
  // One that has been taken back is gone, whether a frame has seen that or not.
  if (by == Offset{} && r.goal == Values{} && now() >= r.lands) return;
  it->as.spring = spring;
  it->as.form = SpringForm(spring);
  it->resting = false;
  r.goal = plus(Values{}, by, 1);
  for (std::size_t i = 0; i < channels; ++i) r.offset[i] = was.value[i] - r.goal[i];
  r.velocity = was.velocity;
  r.start = now();
  r.lands = Impl::lands_at(it->as, r);
  ++impl_->revision;
}

ClockIndex Motion::add_clock() {
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

void Motion::remove_clock(ClockIndex clock) {
  if (clock > 0 && clock < impl_->clocks.size()) impl_->clocks[clock].used = false;
}

void Motion::set_speed(ClockIndex clock, double speed) {
  if (clock > 0 && clock < impl_->clocks.size()) impl_->clocks[clock].clock.set_speed(speed);
}

double Motion::own_time(ClockIndex clock) const { return impl_->clock_now[clock]; }

double Motion::when(ClockIndex clock, double own) const { return impl_->when(clock, own); }

double Motion::lands_at(std::size_t slot) const {
  const Impl::Track& t = impl_->tracks[slot];
  return t.bucket == asleep ? now() : impl_->buckets[t.bucket].dues[t.index].lands;
}

const Pose& Motion::goal(std::size_t slot) const { return impl_->tracks[slot].goal; }

bool Motion::on_its_way(std::size_t slot) const { return impl_->tracks[slot].bucket != asleep; }

bool Motion::awake(std::size_t slot) const {
  return on_its_way(slot) ||
         std::any_of(impl_->effects.begin(), impl_->effects.end(),
                     [&](const RunningEffect& e) { return e.slot == slot; }) ||
         std::any_of(impl_->leans.begin(), impl_->leans.end(),
                     [&](const Lean& l) { return l.slot == slot && !l.resting; });
}

bool Motion::waiting(std::size_t slot) const {
  const Impl::Track& t = impl_->tracks[slot];
  if (t.bucket == asleep) return false;
  const Bucket& b = impl_->buckets[t.bucket];
  return impl_->own_now(b.whos[t.index].clock) < b.starts[t.index];
}

bool Motion::has_effect(std::size_t slot, EffectKind kind) const {
  return std::any_of(impl_->effects.begin(), impl_->effects.end(),
                     [&](const RunningEffect& e) { return e.slot == slot && e.effect.kind == kind; });
}

double Motion::settles_at() const {
  double last = now();
  for (const Bucket& b : impl_->buckets) {
    for (std::size_t i = 0; i < b.size(); ++i)
      last = std::max(last, impl_->when(b.whos[i].clock, b.dues[i].lands));
  }
  for (const RunningEffect& e : impl_->effects) last = std::max(last, impl_->when(e.clock, e.ends()));
  for (const Lean& l : impl_->leans) {
    if (!l.resting) last = std::max(last, l.record.lands);
  }
  return last;
}

double Motion::rested_at() const { return impl_->rested; }

std::size_t Motion::moved_parts() const { return impl_->buckets.size() + 1; }
std::span<const std::uint32_t> Motion::moved(std::size_t part) const {
  return part < impl_->buckets.size() ? impl_->buckets[part].slots : impl_->touched_slots;
}
void Motion::forget_moved() {
  for (const std::uint32_t slot : impl_->touched_slots) impl_->touched[slot] = 0;
  impl_->touched_slots.clear();
}

double Motion::leaves_at(std::size_t slot) const {
  const Impl::Track& t = impl_->tracks[slot];
  if (t.bucket == asleep) return now();
  const Bucket& b = impl_->buckets[t.bucket];
  return impl_->when(b.whos[t.index].clock, b.starts[t.index]);
}

void Motion::with_effect(EffectKind kind, std::vector<std::uint32_t>& slots) const {
  for (const RunningEffect& e : impl_->effects) {
    if (e.effect.kind == kind) slots.push_back(static_cast<std::uint32_t>(e.slot));
  }
}

std::size_t Motion::awake_count() const {
  std::size_t count = impl_->effects.size();
  for (const Bucket& b : impl_->buckets) count += b.size();
  for (const Lean& l : impl_->leans) count += l.resting ? 0 : 1;
  return count;
}

std::span<const Passage> Motion::passages() const {
  if (!std::exchange(impl_->passages_sorted, true)) {
    std::sort(impl_->passages.begin(), impl_->passages.end(), [](const Passage& a, const Passage& b) {
      if (a.time != b.time) return a.time < b.time;
      return a.slot != b.slot ? a.slot < b.slot : a.kind < b.kind;
    });
  }
  return impl_->passages;
}
void Motion::forget_passages() { impl_->passages.clear(); }
std::uint64_t Motion::revision() const { return impl_->revision; }

/// Adds effects and leans to the poses of their cards.
void Motion::Impl::add_asides(std::span<Pose> poses) {
  const auto reset = [&](std::size_t slot) {
    const Track& t = tracks[slot];
    poses[slot] =
        t.bucket == asleep
            ? t.goal
            : pose_of(
                  state_of(buckets[t.bucket], record(t), bend_of(record(t)), own_now(record(t).clock)).value,
                  t.goal.flip_axis);
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

/// Ends the ways whose time has come; those that go on close up, in order.
void Motion::Impl::land_due(Bucket& b, std::span<Pose> poses) {
  std::size_t kept = 0;
  for (std::size_t i = 0; i < b.size(); ++i) {
    const Bucket::Who& t = b.whos[i];
    const std::size_t slot = b.slots[i];
    const double own = own_now(t.clock);
    if (own >= b.nexts[i]) {
      if (own >= b.dues[i].edge) {
        (void)note(Passage::Kind::edge_on, slot, t.clock, b.dues[i].edge);
        b.dues[i].edge = never;
        b.nexts[i] = b.dues[i].lands;
        if (own < b.dues[i].lands) (void)write_poses(b, i, i + 1, clock_now, bends, poses, true);
      }
      if (own >= b.dues[i].lands) {
        rested = std::max(rested, note(Passage::Kind::landed, slot, t.clock, b.dues[i].lands));
        poses[slot] = tracks[slot].goal;
        free_bend(t.way);
        tracks[slot].bucket = asleep;
        touch(slot);
        continue;
      }
    }
    tracks[slot].index = static_cast<std::uint32_t>(kept);
    if (kept != i) b.move(i, kept);
    ++kept;
  }
  b.cut(kept);
}

void Motion::Impl::advance(std::span<Pose> poses) {
  for (Bucket& b : buckets) {
    bool any_due = false;
    for (std::size_t i = 0; i < b.size(); i += block_size) {
      any_due |= write_poses(b, i, std::min(i + block_size, b.size()), clock_now, bends, poses);
    }
    if (!any_due) continue;
    land_due(b, poses);
  }
  // What ended is taken away first, and then what is on is added.
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

void Motion::advance_to(double time) {
  const bool same_time = !(time > now());
  if (same_time) time = now();
  impl_->now = time;
  for (std::size_t i = 0; i < impl_->clocks.size(); ++i) {
    impl_->clocks[i].clock.advance_to(time);
    impl_->clock_now[i] = i == 0 ? time : impl_->clocks[i].clock.own();
  }
  if (awake_count() == 0) return;
  if (same_time && impl_->computed == impl_->revision) return;
  impl_->computed = ++impl_->revision;
  impl_->advance(poses_);
}

}  // namespace apsidon
