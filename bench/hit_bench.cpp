// The topmost card at a point, all sides in one run on the same cards: Apsidon, a plain loop from the top,
// and where they are installed Boost.Geometry's R-tree with the exact test and Qt's Graphics View. With
// nothing moving, with one in a hundred, and with all cards moving each frame: each side writes the poses,
// then asks.
//
//   build/release/bench/hit_bench
#include <benchmark/benchmark.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <random>
#include <span>
#include <string>
#include <type_traits>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "ratio_reporter.hpp"

#ifdef APSIDON_BENCH_BOOST
#include <boost/geometry.hpp>
#include <boost/geometry/index/rtree.hpp>
#endif
#ifdef APSIDON_BENCH_QT
#include <QApplication>
#include <QGraphicsPathItem>
#include <QGraphicsScene>
#include <QPainterPath>
#include <QPen>
#endif

namespace {

using namespace apsidon;

constexpr Size card{100, 140};
constexpr float radius = 7;

enum Layout { scattered, piles, hands, misses, by_pixels };

struct Scene {
  std::vector<Pose> poses;
  std::vector<Vec2> points;
};

Scene scene_of(std::size_t n, int layout) {
  std::mt19937 random(7);
  const auto uniform = [&](float low, float high) {
    return low + (high - low) * static_cast<float>(random()) / static_cast<float>(std::mt19937::max());
  };
  const float side =
      std::sqrt(static_cast<float>(n) * card.width * card.height / 5);  // about five over a point
  Scene scene;
  for (std::size_t i = 0; i < n; ++i) {
    Pose pose{.centre = {uniform(0, side), uniform(0, side)}, .rotation = uniform(-0.35f, 0.35f)};
    if (layout == piles) {  // of fifty
      const auto pile = static_cast<float>(i / 50);
      const float across = std::max(std::floor(side / 120), 1.0f);
      pose.centre = {std::fmod(pile, across) * 120, std::floor(pile / across) * 160};
      pose.rotation = uniform(-0.05f, 0.05f);
    }
    if (layout == hands) {  // of thirteen
      const auto hand = static_cast<float>(i / 13);
      const float across = std::max(std::floor(side / 500), 1.0f);
      const auto place = static_cast<float>(i % 13) - 6;
      pose.centre = {std::fmod(hand, across) * 500 + place * 30,
                     std::floor(hand / across) * 170 + place * place};
      pose.rotation = place * 0.05f;
    }
    scene.poses.push_back(pose);
  }
  Vec2 at{side / 2, side / 2};
  for (int i = 0; i < 1024; ++i) {
    at = at + Vec2{uniform(-2, 2), uniform(-2, 2)};
    const Vec2 anywhere{uniform(0, side), uniform(0, side)};
    scene.points.push_back(layout == by_pixels ? at
                           : layout == misses  ? anywhere + Vec2{2 * side, 0}
                                               : anywhere);
  }
  return scene;
}

// Each side: made with poses; `move` writes one; `ask` gives the place of the topmost, or -1.

struct Ours {
  HitIndex index;
  explicit Ours(const std::vector<Pose>& poses) {
    index.reserve(poses.size());
    for (std::size_t i = 0; i < poses.size(); ++i) {
      index.add({.pose = poses[i], .size = card, .corner_radius = radius}, static_cast<std::uint32_t>(i));
    }
  }
  void move(std::size_t i, const Pose& pose) { index.move(i, pose); }
  void move_all(std::span<const Pose> poses) { index.move(0, poses); }
  void moved() {}
  std::ptrdiff_t ask(Vec2 p) {
    const auto tag = index.topmost(p);
    return tag ? static_cast<std::ptrdiff_t>(*tag) : -1;
  }
};

/// What one writes first: all cards from the top, each asked exactly.
struct Plain {
  std::vector<HitShape> shapes;
  explicit Plain(const std::vector<Pose>& poses) {
    for (const Pose& pose : poses) shapes.push_back({.pose = pose, .size = card, .corner_radius = radius});
  }
  void move(std::size_t i, const Pose& pose) { shapes[i].pose = pose; }
  void moved() {}
  std::ptrdiff_t ask(Vec2 p) {
    for (std::size_t i = shapes.size(); i-- > 0;) {
      if (contains(shapes[i], p)) return static_cast<std::ptrdiff_t>(i);
    }
    return -1;
  }
};

#ifdef APSIDON_BENCH_BOOST
struct RTree {
  using Point = boost::geometry::model::point<float, 2, boost::geometry::cs::cartesian>;
  using Box = boost::geometry::model::box<Point>;
  using Value = std::pair<Box, std::size_t>;
  std::vector<HitShape> shapes;
  std::vector<std::size_t> changed;
  std::vector<Box> boxes;
  boost::geometry::index::rtree<Value, boost::geometry::index::rstar<16>> tree;

  static Box box_of(const Pose& pose) {
    const Rect r = bounds(corners(pose, card));
    return {{r.min.x, r.min.y}, {r.max.x, r.max.y}};
  }
  explicit RTree(const std::vector<Pose>& poses) {
    for (const Pose& pose : poses) {
      shapes.push_back({.pose = pose, .size = card, .corner_radius = radius});
      boxes.push_back(box_of(pose));
    }
    pack();
  }
  void pack() {
    std::vector<Value> values;
    for (std::size_t i = 0; i < boxes.size(); ++i) values.push_back({boxes[i], i});
    tree = {values.begin(), values.end()};
  }
  void move(std::size_t i, const Pose& pose) {
    shapes[i].pose = pose;
    changed.push_back(i);
  }
  /// A few are taken out and put in again; for many it is packed anew.
  void moved() {
    if (changed.size() * 10 > shapes.size()) {
      for (const std::size_t i : changed) boxes[i] = box_of(shapes[i].pose);
      pack();
    } else {
      for (const std::size_t i : changed) {
        tree.remove(Value{boxes[i], i});
        boxes[i] = box_of(shapes[i].pose);
        tree.insert(Value{boxes[i], i});
      }
    }
    changed.clear();
  }
  std::ptrdiff_t ask(Vec2 p) {
    std::ptrdiff_t best = -1;
    const auto holds = boost::geometry::index::intersects(Point{p.x, p.y});
    for (auto it = tree.qbegin(holds); it != tree.qend(); ++it) {
      const auto i = static_cast<std::ptrdiff_t>(it->second);
      if (i > best && contains(shapes[it->second], p)) best = i;
    }
    return best;
  }
};
#endif

#ifdef APSIDON_BENCH_QT
struct GraphicsView {
  QGraphicsScene scene;
  std::vector<QGraphicsPathItem*> items;
  explicit GraphicsView(const std::vector<Pose>& poses) {
    QPainterPath path;
    path.addRoundedRect(-50, -70, 100, 140, 7, 7);
    for (std::size_t i = 0; i < poses.size(); ++i) {
      auto* item = scene.addPath(path, QPen(Qt::NoPen), QBrush(Qt::white));
      item->setZValue(static_cast<double>(i));
      item->setData(0, static_cast<qulonglong>(i));
      items.push_back(item);
      move(i, poses[i]);
    }
    QApplication::processEvents();  // so that it can make its own index
  }
  void move(std::size_t i, const Pose& pose) {
    items[i]->setPos(double{pose.centre.x}, double{pose.centre.y});
    items[i]->setRotation(double{pose.rotation} * 57.29577951308232);
  }
  void moved() {}
  std::ptrdiff_t ask(Vec2 p) {
    const QGraphicsItem* item = scene.itemAt(QPointF(double{p.x}, double{p.y}), QTransform());
    return item ? static_cast<std::ptrdiff_t>(item->data(0).toULongLong()) : -1;
  }
};
#endif

template <class Side>
void rest(benchmark::State& state) {
  const Scene scene = scene_of(static_cast<std::size_t>(state.range(0)), static_cast<int>(state.range(1)));
  Side side(scene.poses);
  std::ptrdiff_t last = 0;
  // Warm: long enough for whatever is made on the way.
  const int warm = std::is_same_v<Side, Ours> ? 4000 : 100;
  for (int i = 0; i < warm; ++i) last = side.ask(scene.points[static_cast<std::size_t>(i % 1024)]);
  std::size_t i = 0;
  for (auto _ : state) {
    // Each question waits for the answer before.
    last = side.ask(scene.points[(i++ + static_cast<std::size_t>(last & 1)) % scene.points.size()]);
    benchmark::DoNotOptimize(last);
  }
}

/// Every `step`th card moves by a pixel, then one question.
template <class Side>
void moving(benchmark::State& state, std::size_t step) {
  const Scene scene = scene_of(static_cast<std::size_t>(state.range(0)), scattered);
  Side side(scene.poses);
  for (int i = 0; i < 100; ++i) benchmark::DoNotOptimize(side.ask(scene.points[static_cast<std::size_t>(i)]));
  std::vector<Pose> there = scene.poses;
  for (Pose& pose : there) pose.centre.x += 1;
  std::size_t frame = 0;
  for (auto _ : state) {
    const float by = frame % 2 == 0 ? 1.0f : 0.0f;
    if constexpr (requires { side.move_all(there); }) {
      if (step == 1) {  // what an animation has written is handed over whole
        side.move_all(by > 0 ? there : scene.poses);
        benchmark::DoNotOptimize(side.ask(scene.points[frame++ % scene.points.size()]));
        continue;
      }
    }
    for (std::size_t i = 0; i < scene.poses.size(); i += step) {
      Pose pose = scene.poses[i];
      pose.centre.x += by;
      side.move(i, pose);
    }
    side.moved();
    benchmark::DoNotOptimize(side.ask(scene.points[frame++ % scene.points.size()]));
  }
}
template <class Side>
void some_move(benchmark::State& state) {
  moving<Side>(state, 100);
}
template <class Side>
void all_move(benchmark::State& state) {
  moving<Side>(state, 1);
}
/// The question alone while cards move: one has moved since the last, so that nothing can be kept from it.
template <class Side>
void query_while_moving(benchmark::State& state) {
  const Scene scene = scene_of(static_cast<std::size_t>(state.range(0)), scattered);
  Side side(scene.poses);
  std::size_t frame = 0;
  for (auto _ : state) {
    const std::size_t i = frame % scene.poses.size();
    side.move(i, scene.poses[i]);
    benchmark::DoNotOptimize(side.ask(scene.points[frame++ % scene.points.size()]));
  }
}

/// Every side gives the same answers, or the figures mean nothing.
template <class Side>
bool agrees(const char* name) {
  for (const int layout : {scattered, piles, hands, misses, by_pixels}) {
    const Scene scene = scene_of(2000, layout);
    Plain plain(scene.poses);
    Side side(scene.poses);
    int other = 0;
    for (const Vec2 p : scene.points) other += side.ask(p) == plain.ask(p) ? 0 : 1;
    // Borders are rounded otherwise by each, and one asks a whole pixel.
    if (other <= 30) continue;
    std::fprintf(stderr, "%s: %d of %zu answers differ in layout %d\n", name, other, scene.points.size(),
                 layout);
    return false;
  }
  return true;
}

template <class Side>
void add(const char* name, long most_moving) {
  const auto named = [&](const char* what) { return std::string(what) + name; };
  for (const long n : {52L, 1000L, 10'000L, 100'000L}) {
    benchmark::RegisterBenchmark(named("rest_scattered").c_str(), rest<Side>)->Args({n, scattered});
    if (n <= most_moving) {
      benchmark::RegisterBenchmark(named("some_move").c_str(), some_move<Side>)->Args({n});
      benchmark::RegisterBenchmark(named("all_move").c_str(), all_move<Side>)->Args({n});
    }
  }
  benchmark::RegisterBenchmark(named("rest_piles").c_str(), rest<Side>)->Args({10'000, piles});
  benchmark::RegisterBenchmark(named("rest_hands").c_str(), rest<Side>)->Args({10'000, hands});
  benchmark::RegisterBenchmark(named("rest_misses").c_str(), rest<Side>)->Args({10'000, misses});
  benchmark::RegisterBenchmark(named("rest_by_pixels").c_str(), rest<Side>)->Args({10'000, by_pixels});
}

}  // namespace

int main(int argc, char** argv) {
#ifdef APSIDON_BENCH_QT
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
#endif
  bool same = agrees<Ours>("ours");
  add<Ours>("", 100'000);
  benchmark::RegisterBenchmark("query_while_moving", query_while_moving<Ours>)->Args({10'000});
  benchmark::RegisterBenchmark("query_while_moving_plain", query_while_moving<Plain>)->Args({10'000});
  add<Plain>("_plain", 100'000);
#ifdef APSIDON_BENCH_BOOST
  same = agrees<RTree>("R-tree") && same;
  add<RTree>("_rtree", 10'000);
#endif
#ifdef APSIDON_BENCH_QT
  same = agrees<GraphicsView>("Graphics View") && same;
  add<GraphicsView>("_graphics_view", 10'000);
#endif
  return same ? apsidon::bench::run(argc, argv) : 1;
}
