// The core against the plainest code that does the same, both in one run; the ratios are printed at the end.
//
//   build/release/bench/apsidon_bench
#include <benchmark/benchmark.h>

#include <cmath>
#include <cstdio>
#include <map>
#include <numbers>
#include <random>
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"

namespace {

using namespace apsidon;

constexpr Size card{100, 140};

// Place a hand.

void place_hand(benchmark::State& state) {
  const auto n = static_cast<std::size_t>(state.range(0));
  const std::vector<LaidCard> cards(n);
  std::vector<Pose> poses(n);
  const LayoutInput in{.area = {{0, 0}, {1200, 300}}, .card = card, .cards = cards};
  const HandLayout hand;
  for (auto _ : state) {
    lay_out(hand, in, poses);
    benchmark::DoNotOptimize(poses.data());
    benchmark::ClobberMemory();
  }
}

/// The bare formula of an arc, with nothing fitted and nothing checked.
void place_hand_plain(benchmark::State& state) {
  const auto n = static_cast<std::size_t>(state.range(0));
  std::vector<Pose> poses(n);
  for (auto _ : state) {
    const float half = 0.3f;
    const float radius = 550 / std::sin(half);
    for (std::size_t i = 0; i < n; ++i) {
      const float angle = (static_cast<float>(i) / static_cast<float>(n - 1) * 2 - 1) * half;
      poses[i] = {.centre = {600 + radius * std::sin(angle), 100 + radius * (1 - std::cos(angle))},
                  .rotation = angle};
    }
    benchmark::DoNotOptimize(poses.data());
    benchmark::ClobberMemory();
  }
}

// Hit-test rotated cards.

struct Scene {
  std::vector<Pose> poses;
  std::vector<Vec2> points;
};

Scene scattered(std::size_t n) {
  std::mt19937 random(7);
  const float side =
      std::sqrt(static_cast<float>(n) * card.width * card.height / 5);  // about five over any point
  const auto uniform = [&](float low, float high) {
    return low + (high - low) * static_cast<float>(random()) / static_cast<float>(std::mt19937::max());
  };
  Scene scene;
  for (std::size_t i = 0; i < n; ++i) {
    scene.poses.push_back(
        {.centre = {uniform(0, side), uniform(0, side)}, .rotation = uniform(-0.35f, 0.35f)});
  }
  for (int i = 0; i < 1024; ++i) scene.points.push_back({uniform(0, side), uniform(0, side)});
  return scene;
}

void hit_test(benchmark::State& state) {
  const Scene scene = scattered(static_cast<std::size_t>(state.range(0)));
  HitIndex index;
  for (std::size_t i = 0; i < scene.poses.size(); ++i) {
    index.add({.pose = scene.poses[i], .size = card, .corner_radius = 7}, static_cast<std::uint32_t>(i));
  }
  std::size_t i = 0;
  for (auto _ : state) benchmark::DoNotOptimize(index.topmost(scene.points[i++ % scene.points.size()]));
}

/// All cards from the top, each turned into its own frame and asked exactly.
void hit_test_plain(benchmark::State& state) {
  const Scene scene = scattered(static_cast<std::size_t>(state.range(0)));
  std::size_t k = 0;
  for (auto _ : state) {
    const Vec2 p = scene.points[k++ % scene.points.size()];
    std::ptrdiff_t found = -1;
    for (std::size_t i = scene.poses.size(); i-- > 0 && found < 0;) {
      if (contains({.pose = scene.poses[i], .size = card, .corner_radius = 7}, p)) {
        found = static_cast<std::ptrdiff_t>(i);
      }
    }
    benchmark::DoNotOptimize(found);
  }
}

// Advance and frame of moving cards.

Playfield moving_field(std::size_t n) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1"}, .copies = 100'000}));
  const std::vector<CardOptions> cards(n, {.face = {1}});
  const ZoneId grid =
      setup.add({.name = "grid", .layout = GridLayout{.columns = 40}, .longest = 1000, .cards = cards});
  setup.plans = {{.root = down({zone(grid, 1)})}};
  Feel feel;
  feel.deal.glide.seconds = 50;  // long enough to stay in the air for the whole measurement
  feel.deal.stagger = 0;
  Playfield field(std::move(setup), {.feel = feel});
  field.deal();
  return field;
}

void advance_and_frame(benchmark::State& state) {
  const auto n = static_cast<std::size_t>(state.range(0));
  Playfield field = moving_field(n);
  double time = 0;
  for (auto _ : state) {
    time += 1e-6;
    field.advance_to(time);
    benchmark::DoNotOptimize(field.frame().items.data());
  }
}

/// A plain loop: every card eased between two poses, its matrix and corners made with sine and cosine.
void advance_and_frame_plain(benchmark::State& state) {
  const auto n = static_cast<std::size_t>(state.range(0));
  const Scene from = scattered(n);
  struct Item {
    Matrix matrix;
    Quad corners;
    std::size_t card;
  };
  std::vector<Item> items(n);
  float time = 0;
  for (auto _ : state) {
    time += 1e-6f;
    const float eased = evaluate(ease, time).value;
    for (std::size_t i = 0; i < n; ++i) {
      Pose pose = from.poses[i];
      pose.centre = pose.centre + (Vec2{600, 400} - pose.centre) * eased;
      pose.flip = std::numbers::pi_v<float> * (1 - eased);
      items[i] = {matrix_of(pose), corners(pose, card), i};
    }
    benchmark::DoNotOptimize(items.data());
    benchmark::ClobberMemory();
  }
}

BENCHMARK(place_hand)->Arg(52);
BENCHMARK(place_hand_plain)->Arg(52);
BENCHMARK(hit_test)->Arg(52)->Arg(1000);
BENCHMARK(hit_test_plain)->Arg(52)->Arg(1000);
BENCHMARK(advance_and_frame)->Arg(52)->Arg(1000);
BENCHMARK(advance_and_frame_plain)->Arg(52)->Arg(1000);

/// Prints as usual, and remembers the times to compare each benchmark with its plain counterpart.
class RatioReporter : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    ConsoleReporter::ReportRuns(runs);
    for (const Run& run : runs) {
      if (run.error_occurred || run.run_type != Run::RT_Iteration) continue;
      times_[run.run_name.function_name][run.run_name.args] = run.GetAdjustedCPUTime();
    }
  }
  void print_ratios() const {
    std::printf("\n%-28s %10s %12s %12s %14s\n", "", "cards", "ours, ns", "plain, ns", "plain / ours");
    for (const auto& [name, by_size] : times_) {
      const auto plain = times_.find(name + "_plain");
      if (plain == times_.end()) continue;
      for (const auto& [size, time] : by_size) {
        const double other = plain->second.at(size);
        std::printf("%-28s %10s %12.1f %12.1f %14.2f\n", name.c_str(), size.c_str(), time, other,
                    other / time);
      }
    }
  }

 private:
  std::map<std::string, std::map<std::string, double>> times_;
};

}  // namespace

int main(int argc, char** argv) {
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  RatioReporter reporter;
  benchmark::RunSpecifiedBenchmarks(&reporter);
  reporter.print_ratios();
}
