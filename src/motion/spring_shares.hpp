#pragma once
// The exact solution of a spring, in a form that the compiler can do for several times at once. Not
// installed.
#include <bit>
#include <cmath>
#include <cstdint>

#include "apsidon/motion/spring.hpp"
#include "geometry/sin_cos.hpp"

namespace apsidon::motion_detail {

/// What a spring has made of its start: distance = from start distance * `of_distance` + start velocity *
/// `of_velocity`, and likewise its velocity.
struct SpringShares {
  float of_distance = 1;
  float of_velocity = 0;           ///< seconds
  float velocity_of_distance = 0;  ///< 1 / seconds
  float velocity_of_velocity = 1;
};

/// At `seconds` after its start, >= 0; exact to 1e-6 of the start's distance. The same bits on every machine.
[[nodiscard]] APSIDON_CORE_EXPORT SpringShares shares_of(const Spring& spring, float seconds);

/// After how many seconds a spring that starts at this distance with this velocity (a second) stays nearer
/// than `nearness`, > 0. Known at the start, from the envelope of its solution.
[[nodiscard]] APSIDON_CORE_EXPORT float settle_seconds(const Spring& spring, float distance, float velocity,
                                                       float nearness);

/// e^-x for x >= 0, relative error below 2e-7; 0 where it would be below 1e-30, so that nothing gets
/// denormal.
inline float decay(float x) {
  const float y = x * -1.44269504f;
  constexpr float magic = 12582912.0f;
  const float cut = y < -100 ? -100.0f : y;
  const float whole = (cut + magic) - magic;
  const float f = (cut - whole) * 0.693147181f;  // -0.35 to 0.35
  const float p =
      1 + f * (1 + f * (0.5f + f * (1.0f / 6 + f * (1.0f / 24 + f * (1.0f / 120 + f * (1.0f / 720))))));
  const auto bits = static_cast<std::uint32_t>(static_cast<std::int32_t>(whole) + 127) << 23;
  const float power = std::bit_cast<float>(bits);
  return y < -100 ? 0.0f : p * power;
}

/// A spring with everything known that does not depend on time.
struct SpringForm {
  enum class Kind { under, critical, over } kind = Kind::critical;
  float rate = 0;       // d w: how fast the envelope decays; over: the slow root
  float turns = 0;      // under: damped swings a second
  float angular = 0;    // under: the same in radians; over: the fast root
  float stiffness = 0;  // w²

  explicit SpringForm(const Spring& s) {
    const double w = 2 * std::numbers::pi / double{s.period};
    const double d = double{s.damping};
    stiffness = static_cast<float>(w * w);
    if (std::abs(d - 1) < 1e-7) {
      rate = static_cast<float>(w);
    } else if (d < 1) {
      kind = Kind::under;
      rate = static_cast<float>(d * w);
      angular = static_cast<float>(w * std::sqrt(1 - d * d));
      turns = static_cast<float>(w * std::sqrt(1 - d * d) / (2 * std::numbers::pi));
    } else {
      kind = Kind::over;
      const double root = std::sqrt(d * d - 1);
      rate = static_cast<float>(w / (d + root));  // w (d - root), without its lost digits
      angular = static_cast<float>(w * (d + root));
    }
  }

  [[nodiscard]] SpringShares at(float t) const {
    if (kind == Kind::under) return under(t);
    return kind == Kind::critical ? critical(t) : over(t);
  }

  [[nodiscard]] SpringShares under(float t) const {
    const float e = decay(rate * t);
    const auto [sine, cosine] = geometry_detail::sin_cos_of_turns(turns * t);
    const float per_angular = sine / angular;
    return {e * (cosine + rate * per_angular), e * per_angular, -e * stiffness * per_angular,
            e * (cosine - rate * per_angular)};
  }
  [[nodiscard]] SpringShares critical(float t) const {
    const float e = decay(rate * t);
    const float far = rate * t;
    return {e * (1 + far), e * t, -e * stiffness * t, e * (1 - far)};
  }
  [[nodiscard]] SpringShares over(float t) const {
    // By what the fast root adds to the slow one, which loses no digits where the two are nearly the same.
    const float slow = decay(rate * t);
    const float z = (angular - rate) * t;
    const float near = 1 - z * (0.5f - z * (1.0f / 6 - z * (1.0f / 24 - z * (1.0f / 120))));
    const float far = (1 - decay(z)) / (z > 0.1f ? z : 0.1f);
    const float q = t * (z > 0.1f ? far : near);
    return {slow * (1 + rate * q), slow * q, -stiffness * slow * q, slow * (1 - angular * q)};
  }
};

}  // namespace apsidon::motion_detail
