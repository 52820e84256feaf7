#include "motion/track.hpp"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <cstddef>
#include <limits>
#include <type_traits>

namespace apsidon::motion_detail {
namespace {

using Channels = Eigen::Array<float, channels, 1>;

auto channels_of(const Values& values) { return Eigen::Map<const Channels>(values.data()); }

/// Poses stay within what can be drawn, whatever a spring or a curve overshoots.
constexpr float any_number = std::numeric_limits<float>::max();
/// A card that is faster, in px or radians a second, jumps: its curve is upright there, and has no velocity
/// that anything could take over.
constexpr float fastest = 1e6f;
constexpr float farthest = 1e9f;
const Channels lowest{{-any_number, -any_number, -any_number, 0, -any_number, 0, 0, 0}};
const Channels only_lift{{0, 0, 0, 0, 0, 0, 0, 1}};
const Channels highest{
    {any_number, any_number, any_number, any_number, any_number, 1, any_number, any_number}};

// The numbers of a pose that move are its first, in the order of the channels.
static_assert(std::is_standard_layout_v<Pose> && sizeof(Pose) == (channels + 1) * sizeof(float));
static_assert(offsetof(Pose, lift) == lift * sizeof(float) &&
              offsetof(Pose, flip) == flip_angle * sizeof(float));

/// All but the flip's axis.
void write(const Channels& v, Pose& pose) {
  Eigen::Map<Channels>(static_cast<float*>(static_cast<void*>(&pose))) = v.max(lowest).min(highest);
}

/// The part of `seconds` that has passed, 0 to 1.
float share_of_time(float since, float seconds) {
  return since <= 0 ? 0.0f : since >= seconds ? 1.0f : since / seconds;
}

/// A hump with level ends, highest in the middle: 16 u² (1 - u)².
float hump(float u) {
  const float side = u * (1 - u);
  return 16 * side * side;
}

/// How much is left of a position and a velocity that decay within `seconds`: a cubic from both to nothing.
struct Decay {
  float of_position = 0;
  float of_velocity = 0;
};
Decay decay_at(float s, float seconds) { return {(2 * s - 3) * s * s + 1, ((s - 2) * s + 1) * s * seconds}; }

/// A point on the way through points, and how it changes with the share of the way. Between neighbours a
/// Catmull-Rom cubic, parts by the length of their chords; at the ends it goes on straight.
struct OnPath {
  Vec2 at;
  Vec2 per_share;
};
OnPath on_path(Vec2 from, Vec2 to, const std::vector<Vec2>& through, float share) {
  const std::size_t n = through.size() + 2;
  const auto point = [&](std::size_t i) { return i == 0 ? from : i + 1 == n ? to : through[i - 1]; };
  float all = 0;
  for (std::size_t i = 0; i + 1 < n; ++i) all += length(point(i + 1) - point(i));
  if (!(all > 0)) return {to, {}};
  const float cut = std::clamp(share, 0.0f, 1.0f);
  float before = 0;
  std::size_t part = 0;
  float own = 0;
  for (; part + 1 < n; ++part) {
    own = length(point(part + 1) - point(part)) / all;
    if (part + 2 == n || before + own > cut) break;
    before += own;
  }
  if (!(own > 0)) return {to, {}};
  const float t = std::clamp((cut - before) / own, 0.0f, 1.0f);
  const Vec2 p1 = point(part);
  const Vec2 p2 = point(part + 1);
  const Vec2 p0 = part > 0 ? point(part - 1) : p1 - (p2 - p1);
  const Vec2 p3 = part + 2 < n ? point(part + 2) : p2 + (p2 - p1);
  const Vec2 m1 = (p2 - p0) * 0.5f;
  const Vec2 m2 = (p3 - p1) * 0.5f;
  const float t2 = t * t;
  const float t3 = t2 * t;
  const Vec2 at =
      (2 * t3 - 3 * t2 + 1) * p1 + (t3 - 2 * t2 + t) * m1 + (3 * t2 - 2 * t3) * p2 + (t3 - t2) * m2;
  const Vec2 slope =
      (6 * t2 - 6 * t) * p1 + (3 * t2 - 4 * t + 1) * m1 + (6 * t - 6 * t2) * p2 + (3 * t2 - 2 * t) * m2;
  const Vec2 per_share = slope * (1 / own);
  return {at + per_share * (share - cut), per_share};
}

/// Position and velocity of a bent way, given how much of it is behind and how fast that grows.
struct Bent {
  Vec2 centre, velocity;
};
Bent bent(const Record& r, const Bend& bend, float share, float rate) {
  const Vec2 goal{r.goal[x], r.goal[y]};
  const Vec2 way{-r.offset[x], -r.offset[y]};
  Bent out{goal - way * (1 - share), way * rate};
  if (!bend.through.empty()) {
    const OnPath path = on_path(goal - way, goal, bend.through, share);
    out = {path.at, path.per_share * rate};
  }
  const Vec2 right{-way.y, way.x};
  out.centre = out.centre + right * (bend.bend * 4 * share * (1 - share));
  out.velocity = out.velocity + right * (bend.bend * 4 * (1 - 2 * share) * rate);
  return out;
}

/// The flip of a way that turns in a part of its time, and its velocity: 3 s² - 2 s³ of what there is to
/// turn.
struct Turned {
  float flip, velocity;
};
Turned turned(const Record& r, const Bend& bend, float since) {
  const float begin = bend.flip_from * r.seconds;
  const float takes = (bend.flip_to - bend.flip_from) * r.seconds;
  const float s = share_of_time(since - begin, takes);
  const float rate = s > 0 && s < 1 ? 6 * s * (1 - s) / takes : 0;
  return {r.goal[flip_angle] + r.offset[flip_angle] * (1 - (3 - 2 * s) * s * s),
          -r.offset[flip_angle] * rate};
}

bool turns_apart(const Bend& bend) { return bend.flip_from > 0 || bend.flip_to < 1; }

}  // namespace

Values values_of(const Pose& p) {
  return {p.centre.x, p.centre.y, p.rotation, p.scale, p.flip, p.opacity, p.brightness, p.lift};
}

Pose pose_of(const Values& values, float flip_axis) {
  Pose pose{.flip_axis = flip_axis};
  write(channels_of(values), pose);
  return pose;
}

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

Record Bucket::record(std::size_t i) const {
  const Left left = (specials[i] & (has_left | has_velocity)) != 0 ? lefts[i] : Left{};
  return {.goal = ways[i].goal,
          .offset = ways[i].offset,
          .velocity = left.velocity,
          .left = left.left,
          .start = starts[i],
          .lands = dues[i].lands,
          .edge = dues[i].edge,
          .arrives = dues[i].arrives,
          .left_start = left.start,
          .left_seconds = left.seconds,
          .seconds = seconds[i],
          .lift = lifts[i],
          .slot = slots[i],
          .way = whos[i],
          .clock = clock,
          .waits = (specials[i] & waits) != 0};
}

void Bucket::set(std::size_t i, const Record& r) {
  const bool left = r.left_seconds > 0;
  const bool velocity = !left && r.velocity != Values{};
  ways[i] = {r.goal, r.offset};
  if (left || velocity) lefts[i] = {r.velocity, r.left, r.left_start, r.left_seconds};
  dues[i] = {r.lands, r.edge, r.arrives};
  starts[i] = r.start;
  seconds[i] = r.seconds;
  lifts[i] = r.lift;
  slots[i] = r.slot;
  whos[i] = r.way;
  specials[i] = static_cast<std::uint8_t>((left ? has_left : 0) | (velocity ? has_velocity : 0) |
                                          (r.lift != 0 ? has_lift : 0) | (r.way != plain ? has_bend : 0) |
                                          (r.waits ? waits : 0));
  find_next(i);
}

void Bucket::find_next(std::size_t i) {
  const double next = std::min({dues[i].edge, dues[i].arrives, dues[i].lands});
  nexts[i] = (specials[i] & waits) != 0 ? std::min(starts[i], next) : next;
  dues_first_.lower(i / due_block, nexts[i]);
}

double Bucket::due_of(std::size_t block) const {
  const std::size_t begin = block * due_block;
  const std::size_t end = std::min(begin + due_block, count_);
  double least = never;
  for (std::size_t i = begin; i < end; ++i) least = std::min(least, nexts[i]);
  return least;
}

void Bucket::look_again(std::size_t block) { dues_first_.set(block, due_of(block)); }

void Bucket::look_again_at_all() {
  dues_first_.set_all([&](std::size_t block) { return due_of(block); });
}

double Bucket::next_due() {
  for (;;) {
    const double bound = least_due();
    if (bound == never) return never;
    look_again(first_block());
    if (least_due() <= bound) return bound;
  }
}

void Bucket::push(const Record& r) {
  make_room(count_ + 1);
  set(count_++, r);
}

void Bucket::erase(std::size_t i) {
  move(count_ - 1, i);
  cut(count_ - 1);
}

void Bucket::move(std::size_t from, std::size_t to) {
  ways[to] = ways[from];
  if ((specials[from] & (has_left | has_velocity)) != 0) lefts[to] = lefts[from];
  dues[to] = dues[from];
  starts[to] = starts[from];
  nexts[to] = nexts[from];
  seconds[to] = seconds[from];
  lifts[to] = lifts[from];
  specials[to] = specials[from];
  slots[to] = slots[from];
  whos[to] = whos[from];
  dues_first_.lower(to / due_block, nexts[to]);
}

void Bucket::make_room(std::size_t count) {
  if (count <= slots.size()) return;
  const std::size_t room = std::max(count, 2 * slots.size());
  ways.resize(room);
  lefts.resize(room);
  dues.resize(room);
  starts.resize(room);
  nexts.resize(room);
  seconds.resize(room);
  lifts.resize(room);
  specials.resize(room);
  slots.resize(room);
  whos.resize(room);
  dues_first_.make_room((room + due_block - 1) / due_block);
}

State state_of(const Bucket& bucket, const Record& r, const Bend* bend, double time) {
  const float since = static_cast<float>(time - r.start);
  // Before its start and after its end a track stands still, whatever slope its curve has there.
  const bool running = time >= r.start && time < r.lands;
  SpringShares a{.of_distance = 1, .of_velocity = 0, .velocity_of_distance = 0, .velocity_of_velocity = 0};
  if (bucket.spring) {
    a = bucket.form.at(std::max(since, 0.0f));
    if (r.left_seconds > 0 || !running) a.of_velocity = a.velocity_of_velocity = 0;
    if (!running) a.velocity_of_distance = 0;
  } else if (since >= 0) {
    const bool over = since >= r.seconds;
    const EasedValue eased = over ? EasedValue{1, 0} : bucket.curve.at(since / r.seconds);
    a.of_distance = 1 - (over ? 1 : bucket.curve.value(since / r.seconds));
    a.velocity_of_distance = over ? 0 : -eased.slope / r.seconds;
  }
  State out;
  for (std::size_t i = 0; i < channels; ++i) {
    out.value[i] = r.goal[i] + r.offset[i] * a.of_distance + r.velocity[i] * a.of_velocity;
    out.velocity[i] = r.offset[i] * a.velocity_of_distance + r.velocity[i] * a.velocity_of_velocity;
  }
  if (bend) {
    const Bent b = bent(r, *bend, 1 - a.of_distance, -a.velocity_of_distance);
    if (!bucket.spring || r.left_seconds > 0) {
      out.value[x] = b.centre.x;
      out.value[y] = b.centre.y;
      out.velocity[x] = b.velocity.x;
      out.velocity[y] = b.velocity.y;
    } else {  // a spring's own velocity is beside the way
      out.value[x] = b.centre.x + r.velocity[x] * a.of_velocity;
      out.value[y] = b.centre.y + r.velocity[y] * a.of_velocity;
      out.velocity[x] = b.velocity.x + r.velocity[x] * a.velocity_of_velocity;
      out.velocity[y] = b.velocity.y + r.velocity[y] * a.velocity_of_velocity;
    }
    if (turns_apart(*bend)) {
      const Turned t = turned(r, *bend, since);
      out.value[flip_angle] = t.flip;
      out.velocity[flip_angle] = t.velocity;
    }
  }
  if (r.lift != 0) {
    const float u = share_of_time(since, r.seconds);
    out.value[lift] += r.lift * hump(u);
    if (u > 0 && u < 1) out.velocity[lift] += r.lift * 32 * u * (1 - u) * (1 - 2 * u) / r.seconds;
  }
  if (r.left_seconds > 0) {
    const float s = share_of_time(static_cast<float>(time - r.left_start), r.left_seconds);
    if (s < 1) {
      const Decay d = decay_at(s, r.left_seconds);
      const float position_rate = 6 * s * (s - 1) / r.left_seconds;
      const float velocity_rate = (3 * s - 4) * s + 1;
      for (std::size_t i = 0; i < channels; ++i) {
        out.value[i] += r.left[i] * d.of_position + r.velocity[i] * d.of_velocity;
        out.velocity[i] += r.left[i] * position_rate + r.velocity[i] * velocity_rate;
      }
    }
  }
  // What a curve throws farther than anyone can see comes back from there.
  for (float& v : out.value) v = std::clamp(v, -farthest, farthest);
  for (float& v : out.velocity) {
    if (!(std::abs(v) <= fastest)) v = 0;
  }
  return out;
}

void bend_pose(const Record& r, const Bend& bend, double time, float share, Pose& pose) {
  const Vec2 straight = Vec2{r.goal[x], r.goal[y]} + Vec2{r.offset[x], r.offset[y]} * (1 - share);
  pose.centre = pose.centre + (bent(r, bend, share, 0).centre - straight);
  if (turns_apart(bend)) {
    pose.flip += turned(r, bend, static_cast<float>(time - r.start)).flip -
                 (r.goal[flip_angle] + r.offset[flip_angle] * (1 - share));
  }
}

void write_poses(const Bucket& bucket, std::size_t begin, std::size_t end, double now,
                 std::span<const Bend> bends, std::span<Pose> poses) {
  const std::size_t n = end - begin;
  const std::int32_t* const whos = bucket.whos.data() + begin;
  const std::uint32_t* const slots = bucket.slots.data() + begin;
  const Bucket::Way* const ways = bucket.ways.data() + begin;
  const Bucket::Left* const lefts = bucket.lefts.data() + begin;
  // First the few numbers that all channels of a card share, several cards at once; then the channels.
  float since[block_size] = {};
  float seconds[block_size] = {};
  float of_offset[block_size];
  float of_velocity[block_size] = {};
  float of_left[block_size] = {};
  float lifted[block_size] = {};
  std::uint8_t special = 0;
  // A full block has a length that the compiler knows.
  const auto read = [&](auto count) {
    for (std::size_t k = 0; k < count; ++k) special |= bucket.specials[begin + k];
    for (std::size_t k = 0; k < count; ++k) {
      since[k] = static_cast<float>(now - bucket.starts[begin + k]);
      seconds[k] = bucket.seconds[begin + k];
    }
  };
  if (n == block_size) {
    read(std::integral_constant<std::size_t, block_size>{});
  } else {
    read(n);
  }
  const bool any_left = (special & Bucket::has_left) != 0;
  const bool any_velocity = (special & (Bucket::has_velocity | Bucket::has_left)) != 0;
  const bool any_lift = (special & Bucket::has_lift) != 0;
  if (bucket.spring) {
    const SpringForm form = bucket.form;
    const auto fill = [&](auto at) {
      for (std::size_t k = 0; k < block_size; ++k) {
        const SpringShares s = at(since[k] > 0 ? since[k] : 0.0f);
        of_offset[k] = s.of_distance;
        of_velocity[k] = s.of_velocity;
      }
    };
    if (form.kind == SpringForm::Kind::under) fill([&](float t) { return form.under(t); });
    if (form.kind == SpringForm::Kind::critical) fill([&](float t) { return form.critical(t); });
    if (form.kind == SpringForm::Kind::over) fill([&](float t) { return form.over(t); });
  } else {
    float u[block_size];
    float eased[block_size];
    for (std::size_t k = 0; k < block_size; ++k) u[k] = seconds[k] > 0 ? since[k] / seconds[k] : 1;
    bucket.curve.values(u, eased);
    for (std::size_t k = 0; k < block_size; ++k)
      of_offset[k] = u[k] < 0 ? 1.0f : u[k] >= 1 ? 0.0f : 1 - eased[k];
  }
  if (any_lift) {
    for (std::size_t k = 0; k < n; ++k)
      lifted[k] = bucket.lifts[begin + k] * hump(share_of_time(since[k], seconds[k]));
  }
  if (any_velocity) {
    // Most have none, and where theirs would be kept is what another left there.
    for (std::size_t k = 0; k < n; ++k) {
      if ((bucket.specials[begin + k] & (Bucket::has_velocity | Bucket::has_left)) == 0) of_velocity[k] = 0;
    }
  }
  if (any_left) {
    for (std::size_t k = 0; k < n; ++k) {
      if (!(bucket.specials[begin + k] & Bucket::has_left)) continue;
      const Bucket::Left& l = lefts[k];
      const float s = share_of_time(static_cast<float>(now - l.start), l.seconds);
      const Decay d = decay_at(s, l.seconds);
      of_velocity[k] = s < 1 ? d.of_velocity : 0;
      of_left[k] = s < 1 ? d.of_position : 0;
    }
  }
  for (std::size_t k = 0; k < n; ++k) {
    Channels v = channels_of(ways[k].goal) + channels_of(ways[k].offset) * of_offset[k];
    if (any_velocity) v += channels_of(lefts[k].velocity) * of_velocity[k];
    if (any_left) v += channels_of(lefts[k].left) * of_left[k];
    if (any_lift) v += only_lift * lifted[k];
    write(v, poses[slots[k]]);
  }
  if (special & Bucket::has_bend) {
    for (std::size_t k = 0; k < n; ++k) {
      if (whos[k] == plain) continue;
      bend_pose(bucket.record(begin + k), bends[static_cast<std::size_t>(whos[k])], now, 1 - of_offset[k],
                poses[slots[k]]);
    }
  }
}

}  // namespace apsidon::motion_detail
