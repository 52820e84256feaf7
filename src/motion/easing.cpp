#include "apsidon/motion/easing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

#include "apsidon/geometry/error.hpp"
#include "motion/prepared.hpp"

namespace apsidon {
namespace {

using namespace motion_detail;

constexpr float farthest_eased = 1e6f;

FilledStops filled(const LinearStops& given) {
  FilledStops out{given, {}};
  const LinearStops& stops = given;
  const std::size_t n = stops.size();
  float largest = 0;
  std::vector<std::optional<float>> inputs;
  for (std::size_t i = 0; i < n; ++i) {
    std::optional<float> input = stops[i].input;
    if (!input && i == 0) input = 0.0f;
    if (!input && i + 1 == n) input = std::max(largest, 1.0f);
    if (input) largest = i == 0 ? *input : std::max(largest, *input);
    inputs.push_back(input ? std::optional(largest) : std::nullopt);
  }
  std::size_t known = 0;
  for (std::size_t i = 1; i < n; ++i) {
    if (!inputs[i]) continue;
    for (std::size_t k = known + 1; k < i; ++k) {
      inputs[k] = *inputs[known] + (*inputs[i] - *inputs[known]) * static_cast<float>(k - known) /
                                       static_cast<float>(i - known);
    }
    known = i;
  }
  for (const auto& input : inputs) out.inputs.push_back(*input);
  return out;
}

EasedValue stops_at(const FilledStops& filled, float x) {
  const auto& stops = filled.written;
  const auto& inputs = filled.inputs;
  if (stops.size() == 1) return {stops.front().output, 0};
  // The last stop that is not after x, but one that has another behind it; before all of them the first.
  const auto after = std::upper_bound(inputs.begin(), inputs.end(), x);
  std::size_t a = after == inputs.begin() ? 0 : static_cast<std::size_t>(after - inputs.begin()) - 1;
  a = std::min(a, stops.size() - 2);
  const float run = inputs[a + 1] - inputs[a];
  const float rise = stops[a + 1].output - stops[a].output;
  if (run <= 0) return {stops[a + 1].output, 0};
  constexpr float upright = std::numeric_limits<float>::max();
  const float slope = rise / run;
  const float value = stops[a].output + rise * ((x - inputs[a]) / run);
  // Beyond the last stops it goes on straight, far along where they are close.
  return {std::clamp(value, -farthest_eased, farthest_eased),
          std::isfinite(slope) ? slope : std::copysign(upright, rise)};
}

float steps_at(const Steps& s, float x) {
  const bool first = s.position == StepPosition::jump_start || s.position == StepPosition::jump_both;
  const float jumps = static_cast<float>(s.count + (s.position == StepPosition::jump_both   ? 1
                                                    : s.position == StepPosition::jump_none ? -1
                                                                                            : 0));
  float step = std::floor(x * static_cast<float>(s.count)) + (first ? 1.0f : 0.0f);
  if (x >= 0) step = std::max(step, 0.0f);
  if (x <= 1) step = std::min(step, jumps);
  return step / jumps;
}

struct Value {
  double value;
  double slope;
};

/// Four parabolas, each lower than the one before, read from the end.
Value bounce_out(double x) {
  constexpr double n = 7.5625;
  for (const auto& [until, shift, floor] :
       {std::array{1 / 2.75, 0.0, 0.0}, std::array{2 / 2.75, 1.5 / 2.75, 0.75},
        std::array{2.5 / 2.75, 2.25 / 2.75, 0.9375}}) {
    if (x < until) return {n * (x - shift) * (x - shift) + floor, 2 * n * (x - shift)};
  }
  const double off = x - 2.625 / 2.75;
  return {n * off * off + 0.984375, 2 * n * off};
}

Value power(double x, int exponent) {
  double below = 1;
  for (int i = 1; i < exponent; ++i) below *= x;
  return {below * x, exponent * below};
}

/// The shape at its start, for 0 to 1.
Value shape_in(Shape shape, double x) {
  using std::numbers::ln2;
  using std::numbers::pi;
  switch (shape) {
    case Shape::quad:
      return power(x, 2);
    case Shape::cubic:
      return power(x, 3);
    case Shape::quart:
      return power(x, 4);
    case Shape::quint:
      return power(x, 5);
    case Shape::sine:
      return {1 - std::cos(x * pi / 2), std::sin(x * pi / 2) * pi / 2};
    case Shape::expo: {
      // Shifted and stretched so that it begins at 0: the plain power begins at a thousandth.
      const double all = 1 - std::exp2(-10);
      const double p = std::exp2(10 * x - 10);
      return {(p - std::exp2(-10)) / all, p * 10 * ln2 / all};
    }
    case Shape::circ: {
      const double rest = std::sqrt(std::max(1 - x * x, 0.0));
      return {1 - rest, rest > 1e-9 ? x / rest : double{std::numeric_limits<float>::max()}};
    }
    case Shape::back: {
      constexpr double s = 1.70158;
      return {x * x * ((s + 1) * x - s), x * (3 * (s + 1) * x - 2 * s)};
    }
    case Shape::elastic: {
      if (x <= 0) return {0, 0};
      const double p = std::exp2(10 * x - 10);
      const double angle = (10 * x - 10.75) * 2 * pi / 3;
      return {-p * std::sin(angle), -p * (10 * ln2 * std::sin(angle) + std::cos(angle) * 20 * pi / 3)};
    }
    case Shape::bounce: {
      const Value v = bounce_out(1 - x);
      return {1 - v.value, v.slope};
    }
  }
  return {x, 1};
}

Value shape_out(Shape shape, double x) {
  const Value v = shape_in(shape, 1 - x);
  return {1 - v.value, v.slope};
}

EasedValue shaped_at(const ShapedEasing& e, float at) {
  // Beyond its ends a shape stays where it ends.
  if (at < 0 || at > 1) return {at < 0 ? 0.0f : 1.0f, 0};
  const double x = at;
  Value v{};
  if (e.way == Way::in) v = shape_in(e.shape, x);
  if (e.way == Way::out) v = shape_out(e.shape, x);
  if (e.way == Way::in_out) {
    v = x < 0.5 ? shape_in(e.shape, 2 * x) : shape_out(e.shape, 2 * x - 1);
    v.value = x < 0.5 ? v.value / 2 : 0.5 + v.value / 2;
  }
  constexpr double most = std::numeric_limits<float>::max();
  return {static_cast<float>(at == 1 ? 1 : v.value), static_cast<float>(std::clamp(v.slope, -most, most))};
}

}  // namespace

Easing::Easing(const Prepared* prepared) : prepared_(prepared) {
  if (prepared_) prepared_->uses.fetch_add(1, std::memory_order_relaxed);
}

Easing::Easing(const Easing& other) noexcept : Easing(other.prepared_) {}

Easing& Easing::operator=(Easing other) noexcept {
  std::swap(prepared_, other.prepared_);
  return *this;
}

Easing::~Easing() {
  if (prepared_ && prepared_->uses.fetch_sub(1, std::memory_order_acq_rel) == 1) delete prepared_;
}

Easing::Easing(const CubicBezier& curve) {
  check(curve);
  if (curve == linear) return;
  // The standard's own are what most glides have: prepared once. They never change.
  static const std::array<Easing, 4> named = [] {
    std::array<Easing, 4> made;
    const std::array<CubicBezier, 4> curves{ease, ease_in, ease_out, ease_in_out};
    for (std::size_t i = 0; i < made.size(); ++i) made[i] = Easing(new Prepared{PreparedBezier(curves[i])});
    return made;
  }();
  for (const Easing& easing : named) {
    if (std::get<PreparedBezier>(easing.prepared_->as).curve() != curve) continue;
    *this = easing;
    return;
  }
  *this = Easing(new Prepared{PreparedBezier(curve)});
}

Easing motion_detail::EasingMaker::of(const Steps& steps) {
  const int least = steps.position == StepPosition::jump_none ? 2 : 1;
  if (steps.count < least || steps.count > 100'000) {
    throw Error(fmt::format("steps: count is {}: {} to 100000 is expected", steps.count, least));
  }
  return Easing(new Easing::Prepared{steps});
}

Easing motion_detail::EasingMaker::of(const LinearStops& stops) {
  if (stops.empty() || stops.size() > 10'000) {
    throw Error(fmt::format("linear(): {} stops: 1 to 10000 are expected", stops.size()));
  }
  for (const LinearStop& stop : stops) {
    const float input = stop.input.value_or(0);
    if (!(std::abs(stop.output) <= most_eased && std::abs(input) <= most_eased)) {
      throw Error(fmt::format("linear(): a stop of {} at {}: numbers from -{} to {} are expected",
                              stop.output, input, most_eased, most_eased));
    }
  }
  return Easing(new Easing::Prepared{filled(stops)});
}

Easing motion_detail::EasingMaker::of(const ShapedEasing& shaped) {
  return Easing(new Easing::Prepared{shaped});
}

float Easing::value(float x) const {
  if (!prepared_) return x;
  if (const auto* bezier = std::get_if<PreparedBezier>(&prepared_->as)) return bezier->value(x);
  return at(x).value;
}

EasedValue Easing::at(float x) const {
  if (!prepared_) return {x, 1};
  struct Visitor {
    float x;
    EasedValue operator()(const PreparedBezier& b) const { return b.at(x); }
    EasedValue operator()(const Steps& s) const { return {steps_at(s, x), 0}; }
    EasedValue operator()(const FilledStops& s) const { return stops_at(s, x); }
    EasedValue operator()(const ShapedEasing& e) const { return shaped_at(e, x); }
  };
  return std::visit(Visitor{x}, prepared_->as);
}

void Easing::values(std::span<const float> xs, std::span<float> out) const {
  if (!prepared_) {
    std::copy(xs.begin(), xs.end(), out.begin());
    return;
  }
  if (const auto* bezier = std::get_if<PreparedBezier>(&prepared_->as)) {
    return bezier->values(xs, out);
  }
  for (std::size_t i = 0; i < xs.size(); ++i) out[i] = at(xs[i]).value;
}

bool operator==(const Easing& a, const Easing& b) {
  if (a.prepared_ == b.prepared_) return true;
  if (!a.prepared_ || !b.prepared_ || a.prepared_->as.index() != b.prepared_->as.index()) return false;
  struct Visitor {
    const Easing& other;
    bool operator()(const PreparedBezier& e) const {
      return e.curve() == std::get<PreparedBezier>(other.prepared_->as).curve();
    }
    bool operator()(const Steps& e) const { return e == std::get<Steps>(other.prepared_->as); }
    bool operator()(const FilledStops& e) const {
      return e.written == std::get<FilledStops>(other.prepared_->as).written;
    }
    bool operator()(const ShapedEasing& e) const { return e == std::get<ShapedEasing>(other.prepared_->as); }
  };
  return std::visit(Visitor{b}, a.prepared_->as);
}

}  // namespace apsidon
