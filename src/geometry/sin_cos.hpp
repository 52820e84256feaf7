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

/// Of `turns` whole turns, any finite number up to some thousands: to 4e-7 and the rounding of the number
/// itself.
inline SinCos sin_cos_of_turns(float turns) {
  // Adding and taking away 1.5 * 2^23 rounds to a whole number.
  constexpr float magic = 12582912.0f;
  const float part = turns - ((turns + magic) - magic);  // -0.5 to 0.5
  const SinCos half = sin_cos_of_quarter(part * std::numbers::pi_v<float>);
  return {2 * half.sine * half.cosine, 1 - 2 * half.sine * half.sine};
}

}  // namespace apsidon::geometry_detail
