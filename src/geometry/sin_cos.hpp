#pragma once
// Sine and cosine whose bits are the same on every machine, and that the compiler can do for several numbers
// at once. Not installed.
#include <cmath>
#include <numbers>

namespace apsidon::geometry_detail {

struct SinCos {
  float sine = 0;
  float cosine = 1;
};

/// Of an angle from -pi/2 to pi/2: Taylor's series, whose first omitted terms are below 6e-8 there.
inline SinCos sin_cos_of_quarter(float x) {
  const float y = x * x;
  const float s = ((((-2.50521084e-8f * y + 2.75573192e-6f) * y - 1.98412698e-4f) * y + 8.33333333e-3f) * y -
                   1.66666667e-1f) *
                      y +
                  1;
  const float c = (((((2.08767570e-9f * y - 2.75573192e-7f) * y + 2.48015873e-5f) * y - 1.38888889e-3f) * y +
                    4.16666667e-2f) *
                       y -
                   0.5f) *
                      y +
                  1;
  return {x * s, c};
}

/// Of an angle from -pi/4 to pi/4: Taylor's series, whose first omitted terms are below 2e-9 there.
inline SinCos sin_cos_of_eighth(float x) {
  const float y = x * x;
  const float s = (((2.75573192e-6f * y - 1.98412698e-4f) * y + 8.33333333e-3f) * y - 1.66666667e-1f) * y + 1;
  const float c = (((2.48015873e-5f * y - 1.38888889e-3f) * y + 4.16666667e-2f) * y - 0.5f) * y + 1;
  return {x * s, c};
}

/// Of `turns` whole turns, any finite number up to some hundred thousands: to 1e-7 and the rounding of the
/// number itself. Exact for whole quarters, so that cards that lie sideways have exact edges.
inline SinCos sin_cos_of_turns(float turns) {
  // Adding and taking away 1.5 * 2^23 rounds to a whole number.
  constexpr float magic = 12582912.0f;
  const float quarters = turns * 4;
  const float whole = (quarters + magic) - magic;
  const SinCos rest = sin_cos_of_eighth((quarters - whole) * (std::numbers::pi_v<float> / 2));
  const int quarter = static_cast<int>(whole);
  const bool odd = (quarter & 1) != 0;
  const float sine = odd ? rest.cosine : rest.sine;
  const float cosine = odd ? rest.sine : rest.cosine;
  return {(quarter & 2) != 0 ? -sine : sine, ((quarter + 1) & 2) != 0 ? -cosine : cosine};
}

}  // namespace apsidon::geometry_detail
