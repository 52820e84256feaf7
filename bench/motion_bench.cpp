// Cards in motion, as shipped, beside the least that could be done: a copy of the same bytes, and a plain
// loop with the library's functions. Both sides in one run.
//
//   build/release/bench/motion_bench
#include <benchmark/benchmark.h>

#include <cmath>
#include <cstring>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "ratio_reporter.hpp"

namespace {

using namespace apsidon;

Pose goal_of(std::size_t i) {
  const float f = static_cast<float>(i % 1000);
  return {.centre = {f, 700 - f / 2},
          .rotation = f / 4000,
          .scale = 1 + f / 5000,
          .flip = f / 2000,
          .opacity = 0.5f + f / 4000,
          .brightness = 0.5f + f / 4000,
          .lift = f / 2000};
}

/// Staggered starts, all channels on their way, three feels.
Motion all_moving(std::size_t n, const Glide (&feels)[3]) {
  Motion motion;
  motion.resize(n);
  for (std::size_t i = 0; i < n; ++i) {
    motion.travel(i, goal_of(i), feels[i % 3], static_cast<double>(i % 97) * 1e-4);
  }
  motion.advance_to(0.02);
  return motion;
}

const Glide springs[3] = {{.spring = Spring{4, 0.5f}}, {.spring = Spring{5, 0.8f}}, {.spring = Spring{6, 1}}};
const Glide tweens[3] = {{.seconds = 40, .curve = ease},
                         {.seconds = 50, .curve = ease_in_out},
                         {.seconds = 60, .curve = {0.2f, 0.6f, 0.25f, 1}}};

void advance(benchmark::State& state, const Glide (&feels)[3]) {
  Motion motion = all_moving(static_cast<std::size_t>(state.range(0)), feels);
  double time = motion.now();
  for (auto _ : state) {
    time += 1e-7;
    motion.advance_to(time);
    benchmark::DoNotOptimize(&motion.pose(0));
    benchmark::ClobberMemory();
  }
}
void advance_springs(benchmark::State& state) { advance(state, springs); }
void advance_tweens(benchmark::State& state) { advance(state, tweens); }

/// As many bytes as a card's track and its pose have, copied.
void copy_of_the_same_bytes(benchmark::State& state) {
  constexpr std::size_t track = 192;
  const auto n = static_cast<std::size_t>(state.range(0));
  std::vector<char> from(n * track, 1);
  std::vector<char> to(n * track);
  for (auto _ : state) {
    std::memcpy(to.data(), from.data(), from.size());
    benchmark::DoNotOptimize(to.data());
    benchmark::ClobberMemory();
  }
}
void advance_springs_copy(benchmark::State& state) { copy_of_the_same_bytes(state); }
void advance_tweens_copy(benchmark::State& state) { copy_of_the_same_bytes(state); }

void rest(benchmark::State& state) {
  Motion motion;
  motion.resize(static_cast<std::size_t>(state.range(0)));
  double time = 0;
  for (auto _ : state) {
    motion.advance_to(time += 1e-3);
    benchmark::DoNotOptimize(&motion.pose(0));
  }
}

/// The frame in which all cards arrive; moving: the one before, in which all still move.
void settle(benchmark::State& state, double from, double to) {
  const auto n = static_cast<std::size_t>(state.range(0));
  for (auto _ : state) {
    state.PauseTiming();
    Motion motion;
    motion.resize(n);
    for (std::size_t i = 0; i < n; ++i) {
      motion.travel(i, {.centre = goal_of(i).centre}, {.seconds = 1, .curve = ease},
                    static_cast<double>(i % 97) * 1e-5);
    }
    motion.advance_to(from);
    state.ResumeTiming();
    motion.advance_to(to);
    benchmark::DoNotOptimize(&motion.pose(0));
  }
}
void settling(benchmark::State& state) { settle(state, 0.99, 1.01); }
void settling_moving(benchmark::State& state) { settle(state, 0.98, 0.99); }

const float points[] = {0.03f, 0.11f, 0.27f, 0.42f, 0.5f, 0.66f, 0.83f, 0.97f};

void bezier_once(benchmark::State& state) {
  const Easing eased(0.2f, 0.6f, 0.25f, 1);
  std::size_t i = 0;
  for (auto _ : state) {
    benchmark::DoNotOptimize(eased.at(points[i++ % 8]));
  }
}
void bezier_prepared(benchmark::State& state) {
  const Easing easing(0.2f, 0.6f, 0.25f, 1);
  std::size_t i = 0;
  for (auto _ : state) benchmark::DoNotOptimize(easing.value(points[i++ % 8]));
}
/// Halving the parameter's range until x is met to 1e-7.
void bezier_once_plain(benchmark::State& state) {
  std::size_t i = 0;
  for (auto _ : state) {
    const float x = points[i++ % 8];
    float low = 0;
    float high = 1;
    float t = x;
    for (int k = 0; k < 24; ++k) {
      t = (low + high) / 2;
      const float s = 1 - t;
      (3 * s * s * t * 0.2f + 3 * s * t * t * 0.25f + t * t * t < x ? low : high) = t;
    }
    const float s = 1 - t;
    benchmark::DoNotOptimize(3 * s * s * t * 0.6f + 3 * s * t * t + t * t * t);
  }
}
void bezier_prepared_plain(benchmark::State& state) { bezier_once_plain(state); }

}  // namespace

BENCHMARK(advance_springs)->Arg(1000)->Arg(10'000)->Arg(100'000);
BENCHMARK(advance_springs_copy)->Arg(1000)->Arg(10'000)->Arg(100'000);
BENCHMARK(advance_tweens)->Arg(1000)->Arg(10'000)->Arg(100'000);
BENCHMARK(advance_tweens_copy)->Arg(1000)->Arg(10'000)->Arg(100'000);
BENCHMARK(rest)->Arg(52)->Arg(100'000);
BENCHMARK(settling)->Arg(10'000)->Iterations(20);
BENCHMARK(settling_moving)->Arg(10'000)->Iterations(20);
BENCHMARK(bezier_once)->Arg(1);
BENCHMARK(bezier_once_plain)->Arg(1);
BENCHMARK(bezier_prepared)->Arg(1);
BENCHMARK(bezier_prepared_plain)->Arg(1);

int main(int argc, char** argv) { return apsidon::bench::run(argc, argv); }
