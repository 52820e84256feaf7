// An hour of play at a thousand frames a second on each demo table, by a player who never tires: no card is
// lost, no pose is none, memory does not grow, clocks keep their time, and a frame costs at the end what it
// did at the beginning.
#include <sys/resource.h>
#include <catch2/catch.hpp>

#include <cmath>

#include "apsidon/files/table_file.hpp"
#include "support/allocations.hpp"
#include "support/process.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr double hour = 3600;
constexpr double rings_at = hour - 1;

long kilobytes() {
  rusage used{};
  getrusage(RUSAGE_SELF, &used);
  return used.ru_maxrss;
}

/// Plays as people do: mostly what is legal, with a mouse; now and then a key, a round, another window.
class Player {
 public:
  Player(const TableSetup& setup, std::uint64_t seed) : random_(seed), field_(dealt(setup, seed)) {
    cards_ = field_.table().card_count();
    (void)field_.time().start_timer(rings_at);
  }

  /// Until this time, and what the frames of the last part took from the heap.
  void play_until(double end) {
    while (field_.now() < end) {
      if (random_.chance(0.0012f)) act();
      const double next = std::min(field_.now() + 0.001, end);
      while (const auto event = field_.next_event(next)) hear(*event);
      ++frames_;
      drawn_ += field_.frame().items.size();
    }
  }

  [[nodiscard]] std::size_t lost_cards() const { return cards_ - field_.table().card_count(); }
  [[nodiscard]] bool all_finite() const {
    for (const Zone& zone : field_.table().zones()) {
      for (const CardId card : zone.cards) {
        if (!is_finite(*field_.where().live_pose(card))) return false;
      }
    }
    return true;
  }

  Playfield& field() { return field_; }
  [[nodiscard]] std::size_t frames() const { return frames_; }
  [[nodiscard]] std::size_t drawn() const { return drawn_; }
  [[nodiscard]] std::size_t events() const { return events_; }
  [[nodiscard]] const std::vector<double>& rang() const { return rang_; }

 private:
  void hear(const Event& event) {
    ++events_;
    if (event.kind == EventKind::rang) rang_.push_back(event.time);
    if (event.kind == EventKind::no_moves) begin_round();
  }

  /// Which ends the timers of the one before.
  void begin_round() {
    field_.start_round(random_.below(1000));
    if (field_.now() < rings_at) (void)field_.time().start_timer(rings_at - field_.now());
  }

  void act() {
    const double now = field_.now();
    const auto legal = field_.rules().legal_moves();
    const std::size_t what = random_.below(20);
    if (what < 3 && !legal.empty()) {
      (void)field_.moves().make(legal[random_.below(legal.size())]);
    } else if (what < 14) {
      const Vec2 from = some_card_point(random_, field_);
      const Vec2 to = some_card_point(random_, field_);
      (void)field_.pointer({.phase = PointerPhase::down, .at = from, .time = now + 0.01});
      for (int i = 1; i <= 20; ++i) {
        (void)field_.pointer(
            {.at = from + (to - from) * (static_cast<float>(i) / 20), .time = now + 0.01 + 0.01 * i});
      }
      (void)field_.pointer({.phase = PointerPhase::up, .at = to, .time = now + 0.23});
    } else if (what < 17) {
      (void)field_.key({.key = static_cast<Key>(random_.below(9)), .time = now + 0.01});
    } else if (what == 17) {
      (void)field_.moves().undo();
    } else if (what == 18) {
      field_.resize({random_.uniform(600, 1400), random_.uniform(500, 900)}, 1, now);
    } else {
      begin_round();
    }
  }

  Random random_;
  Playfield field_;
  std::size_t cards_ = 0;
  std::size_t frames_ = 0;
  std::size_t drawn_ = 0;
  std::size_t events_ = 0;
  std::vector<double> rang_ = {};
};

/// How often the heap was asked in ten minutes, by what was going on in them: by an event and by a frame.
double heap_by_frame(Player& player, double until) {
  const std::size_t frames = player.frames();
  const std::size_t taken = allocations_in([&] { player.play_until(until); });
  return static_cast<double>(taken) / static_cast<double>(player.frames() - frames);
}

void play_for_an_hour(const std::string& name) {
  const auto setup = load_table(source("data/" + name + "-start.table.json"));
  REQUIRE(setup);
  Player player(*setup, 20261127);
  const double first = heap_by_frame(player, hour / 6);
  const long before = kilobytes();
  player.play_until(hour * 5 / 6);
  const double last = heap_by_frame(player, hour);
  CHECK(player.frames() >= 3'500'000);
  CHECK(player.drawn() > player.frames() * 20);
  CHECK(player.events() > 5'000);
  CHECK((keeps_freed_memory || kilobytes() - before < 8'000));
  CHECK(player.lost_cards() == 0);
  CHECK(player.all_finite());
  CHECK(last < first * 1.5 + 0.1);
  REQUIRE(player.rang().size() == 1);
  CHECK(player.rang()[0] == Approx(rings_at).margin(1e-6));
  CHECK(player.field().count_of(NoticeKind::internal) == 0);
}

}  // namespace

TEST_CASE("play: an hour at the potting bench") { play_for_an_hour("potting-bench"); }
TEST_CASE("play: an hour at the seed drawer") { play_for_an_hour("seed-drawer"); }
TEST_CASE("play: an hour at the market stall") { play_for_an_hour("market-stall"); }
TEST_CASE("play: an hour at the trellis") { play_for_an_hour("trellis"); }
