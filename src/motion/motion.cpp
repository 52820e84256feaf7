#include "apsidon/motion/motion.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace apsidon {
namespace {

constexpr float pi = std::numbers::pi_v<float>;
constexpr std::size_t rotation_channel = 2;
constexpr std::size_t lift_channel = 7;

/// Share of the time that has passed, 0 to 1.
float share_of(double since, float seconds) {
  if (since <= 0) return 0;
  if (!(since < double{seconds})) return 1;
  return static_cast<float>(since / double{seconds});
}

}  // namespace

double Motion::Track::lands() const {
  return std::max(arrives(), left_seconds > 0 ? left_start + double{left_seconds} : 0.0);
}

Motion::Values Motion::values_of(const Pose& p) {
  return {p.centre.x, p.centre.y, p.rotation, p.scale, p.flip, p.opacity, p.brightness, p.lift};
}

Pose Motion::pose_of(const Values& v, const Pose& like) {
  return {.centre = {v[0], v[1]},
          .rotation = v[2],
          .scale = std::max(v[3], 0.0f),
          .flip = v[4],
          .flip_axis = like.flip_axis,
          .opacity = std::clamp(v[5], 0.0f, 1.0f),
          .brightness = std::max(v[6], 0.0f),
          .lift = std::max(v[7], 0.0f)};
}

/// The base track at a time, and its velocity in units a second when asked for.
void Motion::base(const Track& track, double time, Values& value, Values* velocity) {
  const Values goal = values_of(track.goal);
  if (!track.travelling) {
    value = goal;
    if (velocity) *velocity = {};
    return;
  }
  const Values from = values_of(track.from);
  const float u = share_of(time - track.start, track.glide.seconds);
  const EasedValue eased = evaluate(track.glide.curve, u);
  // Before its start and after its end a track stands still, whatever slope its curve has there.
  const bool running = time >= track.start && time < track.arrives();
  const float rate = running ? eased.slope / track.glide.seconds : 0;
  for (std::size_t i = 0; i < channels; ++i) {
    value[i] = u >= 1 ? goal[i] : from[i] + (goal[i] - from[i]) * eased.value;
    if (velocity) (*velocity)[i] = (goal[i] - from[i]) * rate;
  }
  // A hump with level ends, highest in the middle: 16 u^2 (1 - u)^2.
  const float side = u * (1 - u);
  value[lift_channel] += track.glide.lift * 16 * side * side;
  if (velocity && running) {
    (*velocity)[lift_channel] += track.glide.lift * 32 * side * (1 - 2 * u) / track.glide.seconds;
  }

  if (track.left_seconds <= 0) return;
  const float s = share_of(time - track.left_start, track.left_seconds);
  if (s >= 1) return;
  // Cubic Hermite from (left, left_velocity) to (0, 0).
  const float position = (2 * s - 3) * s * s + 1;
  const float moving = ((s - 2) * s + 1) * s * track.left_seconds;
  const float position_rate = 6 * s * (s - 1) / track.left_seconds;
  const float moving_rate = (3 * s - 4) * s + 1;
  for (std::size_t i = 0; i < channels; ++i) {
    value[i] += track.left[i] * position + track.left_velocity[i] * moving;
    if (velocity) (*velocity)[i] += track.left[i] * position_rate + track.left_velocity[i] * moving_rate;
  }
}

/// Sets the goal, with the start of the way counted so that the short way round leads there; the goal's own
/// number is kept, so that the card ends exactly on it.
void Motion::head_for(Track& track, const Pose& goal, Values& value) {
  const float from = track.from.rotation;
  track.from.rotation = goal.rotation + std::remainder(from - goal.rotation, 2 * pi);
  value[rotation_channel] += track.from.rotation - from;
  track.goal = goal;
}

/// Keeps position and velocity as they were: what the changed track lacks decays within `seconds`.
void Motion::take_over(Track& track, const Values& value, const Values& velocity, float seconds) {
  track.left_seconds = 0;
  Values base_value;
  Values base_velocity;
  base(track, now_, base_value, &base_velocity);
  bool any = false;
  for (std::size_t i = 0; i < channels; ++i) {
    const float missing_velocity = velocity[i] - base_velocity[i];
    track.left[i] = value[i] - base_value[i];
    // A curve that starts upright jumps by itself; there is no velocity that could be kept.
    track.left_velocity[i] = std::abs(missing_velocity) < 1e30f ? missing_velocity : 0;
    any = any || track.left[i] != 0 || track.left_velocity[i] != 0;
  }
  track.left_start = now_;
  track.left_seconds = any ? seconds : 0;
}

void Motion::resize(std::size_t slots) {
  tracks_.resize(slots);
  poses_.resize(slots);
  awake_.reserve(slots);
  landings_.reserve(slots);
}

void Motion::wake(std::size_t slot) {
  ++revision_;
  if (tracks_[slot].listed) return;
  tracks_[slot].listed = true;
  awake_.push_back(slot);
}

void Motion::place(std::size_t slot, const Pose& pose) {
  Track& track = tracks_[slot];
  track.goal = pose;
  track.travelling = false;
  track.left_seconds = 0;
  poses_[slot] = live(track, now_);
  ++revision_;
}

void Motion::travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay) {
  Track& track = tracks_[slot];
  const bool from_rest = !track.travelling;
  Values value;
  Values velocity;
  base(track, now_, value, &velocity);
  track.from = pose_of(value, track.goal);
  head_for(track, goal, value);
  track.start = now_ + std::max(delay, 0.0);
  track.glide = glide;
  track.travelling = true;
  track.left_seconds = 0;
  if (!from_rest) take_over(track, value, velocity, glide.seconds);
  wake(slot);
}

void Motion::shift(std::size_t slot, const Pose& goal, const Glide& glide) {
  Track& track = tracks_[slot];
  if (!track.travelling) return travel(slot, goal, glide);
  Values value;
  Values velocity;
  base(track, now_, value, &velocity);
  head_for(track, goal, value);
  take_over(track, value, velocity, glide.seconds);
  wake(slot);
}

void Motion::shake(std::size_t slot, const ShakeStyle& style, float width) {
  Track& track = tracks_[slot];
  track.shake = style;
  track.shake_width = width;
  track.shake_start = now_;
  track.shaking = style.seconds > 0 && width != 0;
  wake(slot);
}

bool Motion::awake(std::size_t slot) const { return tracks_[slot].listed; }

bool Motion::waiting(std::size_t slot) const {
  return tracks_[slot].travelling && now_ < tracks_[slot].start;
}

double Motion::settles_at() const {
  double last = now_;
  for (const std::size_t slot : awake_) {
    const Track& track = tracks_[slot];
    if (track.travelling) last = std::max(last, track.lands());
    if (track.shaking) last = std::max(last, track.shake_start + double{track.shake.seconds});
  }
  return last;
}

Pose Motion::live(const Track& track, double time) const {
  Pose pose = track.goal;
  if (track.travelling) {
    Values value;
    base(track, time, value, nullptr);
    pose = pose_of(value, track.goal);
  }
  if (track.shaking) {
    const float s = share_of(time - track.shake_start, track.shake.seconds);
    // Comes in from rest and dies away: s (1 - s)^2, scaled to a peak of 1.
    const float swell = 6.75f * s * (1 - s) * (1 - s);
    pose.centre.x += track.shake_width * swell * std::sin(2 * pi * track.shake.swings * s);
  }
  return pose;
}

/// Ends what is over, so that the card stands exactly at its goal.
void Motion::settle(std::size_t slot) {
  Track& track = tracks_[slot];
  if (track.travelling && now_ >= track.lands()) {
    landings_.push_back({slot, track.lands()});
    track.travelling = false;
    track.left_seconds = 0;
  }
  if (track.shaking && now_ >= track.shake_start + double{track.shake.seconds}) track.shaking = false;
}

void Motion::advance_to(double time) {
  if (!(time > now_)) time = now_;
  now_ = time;
  if (awake_.empty()) return;
  ++revision_;
  const std::size_t before = landings_.size();
  for (const std::size_t slot : awake_) {
    settle(slot);
    poses_[slot] = live(tracks_[slot], now_);
    tracks_[slot].listed = tracks_[slot].travelling || tracks_[slot].shaking;
  }
  std::erase_if(awake_, [&](std::size_t slot) { return !tracks_[slot].listed; });
  std::sort(landings_.begin() + static_cast<std::ptrdiff_t>(before), landings_.end(),
            [](const Landing& a, const Landing& b) {
              return a.time != b.time ? a.time < b.time : a.slot < b.slot;
            });
}

}  // namespace apsidon
