// Whole frames of a playfield (time goes on, what moved is drawn anew, one question what the pointer is on)
// against the plainest code that does the same, both in one run; the ratios are printed at the end.
//
//   build/release/bench/core_bench
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <numbers>
#include <random>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "geometry/shown_card.hpp"
#include "ratio_reporter.hpp"

namespace {

using namespace apsidon;

constexpr Size card{100, 140};

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

// Advance and frame of moving cards.

Playfield moving_field(std::size_t n, bool turn) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1"}, .copies = 100'000}));
  const std::vector<CardOptions> cards(n, {.face = {1}, .face_up = turn});
  const ZoneId grid = setup.add(
      {.name = "grid", .layout = {.kind = GridLayout{.columns = 40}, .longest = 1000}, .cards = cards});
  setup.plans = {{.root = down({zone(grid, 1)})}};
  Feel feel;
  feel.deal.glide.seconds = 50;  // long enough to stay in the air for the whole measurement
  feel.deal.stagger = 0;
  Playfield field(std::move(setup), {.feel = feel});
  field.performances().deal();
  return field;
}

void frames(benchmark::State& state, bool turn) {
  const auto n = static_cast<std::size_t>(state.range(0));
  Playfield field = moving_field(n, turn);
  double time = 0;
  for (auto _ : state) {
    time += 1e-6;
    field.advance_to(time);
    benchmark::DoNotOptimize(field.where().hit({640, 400}));
    benchmark::DoNotOptimize(field.frame().items.data());
  }
}

void moving_frame(benchmark::State& state) { frames(state, false); }
/// All cards turn over on their way, and so have perspective.
void turning_frame(benchmark::State& state) { frames(state, true); }

/// The slowest frame from rest through a deal to rest: each frame's least of some rounds, and of those the
/// most.
void worst_of_deal(benchmark::State& state, bool at_once) {
  const auto n = static_cast<std::size_t>(state.range(0));
  constexpr int rounds = 8;
  constexpr int steps = 60;
  Playfield field = moving_field(n, false);
  Feel feel = field.performances().feel();
  feel.deal.glide.seconds = 0.4f;
  feel.deal.stagger = at_once ? 0 : 0.4f / static_cast<float>(n);
  field.performances().set_feel(feel);
  field.advance_to(100);
  double time = 100;
  for (auto _ : state) {
    std::vector<double> least(steps, 1e9);
    for (int round = 0; round < rounds; ++round) {
      field.performances().deal();
      for (double& seconds : least) {
        time += 1.0 / steps;
        const auto begin = std::chrono::steady_clock::now();
        while (const auto event = field.next_event(time)) benchmark::DoNotOptimize(event->time);
        benchmark::DoNotOptimize(field.where().hit({640, 400}));
        benchmark::DoNotOptimize(field.frame().items.data());
        const std::chrono::duration<double> took = std::chrono::steady_clock::now() - begin;
        if (round > 0) seconds = std::min(seconds, took.count());  // the first finds room for its events
      }
    }
    state.SetIterationTime(*std::max_element(least.begin(), least.end()));
  }
}
/// Card after card: in each frame some leave and some land.
void worst_frame(benchmark::State& state) { worst_of_deal(state, false); }
/// All leave in one frame, and land in one.
void worst_frame_at_once(benchmark::State& state) { worst_of_deal(state, true); }
/// The other side is a frame in which all move and nothing else happens.
void worst_frame_moving(benchmark::State& state) { frames(state, false); }
void worst_frame_at_once_moving(benchmark::State& state) { frames(state, false); }

/// The same with nothing moving.
void rest_frame(benchmark::State& state) {
  Playfield field = moving_field(static_cast<std::size_t>(state.range(0)), false);
  double time = 100;
  field.advance_to(time);
  for (auto _ : state) {
    time += 1e-6;
    field.advance_to(time);
    benchmark::DoNotOptimize(field.where().hit({640, 400}));
    benchmark::DoNotOptimize(field.frame().items.data());
  }
}

/// A plain loop: every card eased between two poses, its matrix and corners made with sine and cosine.
/// A hand of which every fourth card is chosen, or none.
Playfield chosen_hand(std::size_t n, bool chosen) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1"}, .copies = 100}));
  const ZoneId hand =
      setup.add({.name = "hand",
                 .layout = {.kind = HandLayout{}, .longest = static_cast<int>(n)},
                 .rules = {.pick = {.kind = PickKind::any}, .select = SelectRule{.link = rule::same_rank()}},
                 .handling = {.hover = HoverKind::raise, .tap = TapKind::select},
                 .cards = std::vector<CardOptions>(n, {.face = {1}})});
  setup.plans = {{.root = zone(hand, 1)}};
  Playfield field(std::move(setup));
  for (std::uint32_t i = 1; chosen && i <= n; i += 4) (void)field.hand().select({i});
  field.advance_to(5);
  return field;
}

/// A frame of it while the pointer goes over the cards, which rise and make room.
void hovered_frames(benchmark::State& state, bool chosen) {
  Playfield field = chosen_hand(static_cast<std::size_t>(state.range(0)), chosen);
  const Rect area = bounds(corners(*field.where().resting_pose({1}), field.where().card_size()));
  double time = field.now();
  float x = 0;
  for (auto _ : state) {
    time += 1 / 60.0;
    x = x > 900 ? 0 : x + 9;
    field.pointer({.at = {area.min.x + x, area.centre().y}, .time = time});
    field.advance_to(time);
    benchmark::DoNotOptimize(field.frame().items.data());
  }
}

void chosen_frame(benchmark::State& state) { hovered_frames(state, true); }
void chosen_frame_plain(benchmark::State& state) { hovered_frames(state, false); }

/// Which cards may be added to what is chosen, beside which may be picked up.
void chosen_addable(benchmark::State& state) {
  const Playfield field = chosen_hand(static_cast<std::size_t>(state.range(0)), true);
  for (auto _ : state) benchmark::DoNotOptimize(field.rules().addable());
}

void chosen_addable_plain(benchmark::State& state) {
  const Playfield field = chosen_hand(static_cast<std::size_t>(state.range(0)), false);
  for (auto _ : state) {
    std::vector<CardId> cards;
    for (const CardId id : field.table().zones()[0].cards)
      if (field.rules().judge_pick(id).verdict) cards.push_back(id);
    benchmark::DoNotOptimize(cards);
  }
}

void frames_plain(benchmark::State& state, bool turn) {
  const auto n = static_cast<std::size_t>(state.range(0));
  const Scene from = scattered(n);
  struct Item {
    Matrix matrix;
    Quad corners;
    std::size_t card;
  };
  std::vector<Item> items(n);
  const Easing eased_by(ease);
  float time = 0;
  for (auto _ : state) {
    time += 1e-6f;
    const float eased = eased_by.value(time);
    for (std::size_t i = 0; i < n; ++i) {
      Pose pose = from.poses[i];
      pose.centre = pose.centre + (Vec2{600, 400} - pose.centre) * eased;
      if (turn) pose.flip = std::numbers::pi_v<float> * (1 - eased);
      const auto at = geometry_detail::shown(pose, card);
      items[i] = {at.matrix, at.corners, i};
    }
    std::ptrdiff_t found = -1;
    for (std::size_t i = n; i-- > 0 && found < 0;) {
      const Rect box = bounds(items[i].corners);
      if (box.contains({640, 400})) found = static_cast<std::ptrdiff_t>(i);
    }
    benchmark::DoNotOptimize(found);
    benchmark::DoNotOptimize(items.data());
    benchmark::ClobberMemory();
  }
}

void moving_frame_plain(benchmark::State& state) { frames_plain(state, false); }
/// Who does not know that nothing has moved does it all again.
void rest_frame_plain(benchmark::State& state) { frames_plain(state, false); }
void turning_frame_plain(benchmark::State& state) { frames_plain(state, true); }

BENCHMARK(moving_frame)->Arg(52)->Arg(1000)->Arg(10'000);
BENCHMARK(moving_frame_plain)->Arg(52)->Arg(1000)->Arg(10'000);
BENCHMARK(turning_frame)->Arg(52)->Arg(10'000);
BENCHMARK(turning_frame_plain)->Arg(52)->Arg(10'000);
BENCHMARK(worst_frame)->Arg(52)->Arg(10'000)->UseManualTime()->Iterations(3);
BENCHMARK(worst_frame_moving)->Arg(52)->Arg(10'000);
BENCHMARK(worst_frame_at_once)->Arg(52)->Arg(10'000)->UseManualTime()->Iterations(3);
BENCHMARK(worst_frame_at_once_moving)->Arg(52)->Arg(10'000);
BENCHMARK(chosen_frame)->Arg(52);
BENCHMARK(chosen_frame_plain)->Arg(52);
BENCHMARK(chosen_addable)->Arg(52);
BENCHMARK(chosen_addable_plain)->Arg(52);
BENCHMARK(rest_frame)->Arg(52)->Arg(10'000);
BENCHMARK(rest_frame_plain)->Arg(52)->Arg(10'000);

}  // namespace

int main(int argc, char** argv) { return apsidon::bench::run(argc, argv); }
