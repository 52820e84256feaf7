// Layouts and plans, as shipped, beside the bare formula that a programmer would write by hand, both in one
// run.
#include <benchmark/benchmark.h>

#include <cmath>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "ratio_reporter.hpp"

namespace {

using namespace apsidon;

constexpr Size card{100, 140};

template <class L>
void place(benchmark::State& state, const L& layout, const Rect& area) {
  const auto n = static_cast<std::size_t>(state.range(0));
  const std::vector<LaidCard> cards(n);
  std::vector<Pose> poses(n);
  const LayoutInput in{.area = area, .card = card, .cards = cards};
  for (auto _ : state) {
    lay_out(layout, in, poses);
    benchmark::DoNotOptimize(poses.data());
    benchmark::ClobberMemory();
  }
}

/// Cards in rows of `columns`, a fixed step apart: nothing fitted, nothing checked.
void place_plain(benchmark::State& state, std::size_t columns, Vec2 step) {
  const auto n = static_cast<std::size_t>(state.range(0));
  std::vector<Pose> poses(n);
  for (auto _ : state) {
    for (std::size_t i = 0; i < n; ++i) {
      poses[i] = {.centre = {50 + step.x * static_cast<float>(i % columns),
                             70 + step.y * static_cast<float>(i / columns)}};
    }
    benchmark::DoNotOptimize(poses.data());
    benchmark::ClobberMemory();
  }
}

void place_hand(benchmark::State& state) { place(state, HandLayout{}, {{0, 0}, {1200, 400}}); }
void place_hand_flattened(benchmark::State& state) { place(state, HandLayout{}, {{0, 0}, {1200, 200}}); }
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
void place_hand_flattened_plain(benchmark::State& state) { place_hand_plain(state); }

void place_column(benchmark::State& state) { place(state, ColumnLayout{}, {{0, 0}, {100, 4000}}); }
void place_column_plain(benchmark::State& state) { place_plain(state, 1, {0, 20}); }
void place_spread(benchmark::State& state) { place(state, SpreadLayout{}, {{0, 0}, {4000, 140}}); }
void place_spread_plain(benchmark::State& state) { place_plain(state, 100'000, {20, 0}); }
void place_pile(benchmark::State& state) { place(state, PileLayout{}, {{0, 0}, {100, 200}}); }
void place_pile_plain(benchmark::State& state) { place_plain(state, 1, {0, 0.1f}); }
void place_grid(benchmark::State& state) { place(state, GridLayout{.columns = 40}, {{0, 0}, {5000, 5000}}); }
void place_grid_plain(benchmark::State& state) { place_plain(state, 40, {114, 154}); }

/// A plan of 30 zones of all layouts, three levels deep.
struct Thirty {
  Plan plan;
  std::vector<ZoneLayout> places;
  std::vector<Rect> areas = std::vector<Rect>(30);
  std::vector<Rect> panels = {};

  Thirty() {
    std::vector<PlanNode> rows;
    for (std::uint32_t row = 0; row < 3; ++row) {
      std::vector<PlanNode> parts;
      for (std::uint32_t i = 0; i < 10; ++i) {
        const Layout layouts[] = {ColumnLayout{}, PileLayout{}, HandLayout{}, GridLayout{.columns = 2},
                                  SpreadLayout{}};
        places.push_back({.kind = layouts[i % 5], .longest = 8});
        parts.push_back(zone({row * 10 + i + 1}, i % 3 == 0 ? 1.0f : 0.0f));
      }
      rows.push_back(across(std::move(parts)));
    }
    plan.root = down(std::move(rows));
  }
};

void solve_plan_of_zones(benchmark::State& state) {
  Thirty t;
  const PlanWindow window{.size = {1920, 1080}};
  for (auto _ : state) benchmark::DoNotOptimize(solve(t.plan, t.places, window, t.areas, t.panels));
}

/// What is written by hand: every zone an equal box, the card by the width.
void solve_plan_of_zones_plain(benchmark::State& state) {
  std::vector<Rect> areas(30);
  for (auto _ : state) {
    const float width = (1920.0f - 11 * 15) / 10;
    for (std::size_t i = 0; i < areas.size(); ++i) {
      areas[i] =
          rect_at({15 + static_cast<float>(i % 10) * (width + 15), 15 + static_cast<float>(i / 10) * 350},
                  {width, 335});
    }
    benchmark::DoNotOptimize(areas.data());
    benchmark::ClobberMemory();
  }
}

}  // namespace

BENCHMARK(place_hand)->Arg(52);
BENCHMARK(place_hand_plain)->Arg(52);
BENCHMARK(place_hand_flattened)->Arg(52);
BENCHMARK(place_hand_flattened_plain)->Arg(52);
BENCHMARK(place_column)->Arg(1000);
BENCHMARK(place_column_plain)->Arg(1000);
BENCHMARK(place_spread)->Arg(1000);
BENCHMARK(place_spread_plain)->Arg(1000);
BENCHMARK(place_pile)->Arg(1000);
BENCHMARK(place_pile_plain)->Arg(1000);
BENCHMARK(place_grid)->Arg(1000);
BENCHMARK(place_grid_plain)->Arg(1000);
BENCHMARK(solve_plan_of_zones)->Arg(30);
BENCHMARK(solve_plan_of_zones_plain)->Arg(30);

int main(int argc, char** argv) { return apsidon::bench::run(argc, argv); }
