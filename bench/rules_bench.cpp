// All legal moves of a 52-card patience in the middle of the game, as a search for hints asks for them
// millions of times, against what a game that knows its own rules by heart would write; the ratio is printed
// at the end.
//
//   build/release/bench/rules_bench
#include <benchmark/benchmark.h>

#include <algorithm>
#include <random>
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "ratio_reporter.hpp"

namespace {

using namespace apsidon;

/// Seven columns that build down within a colour, four beds that build up in suit, a stock and its waste, two
/// pots: as a table, and as plain arrays.
struct Patience {
  static constexpr int columns = 7;
  static constexpr int beds = 4;
  static constexpr int pots = 2;

  TableSetup setup{standard()};
  std::vector<std::vector<int>> plain_columns, plain_beds, plain_pots;
  std::vector<int> plain_stock, plain_waste;
  std::vector<std::vector<bool>> open;

  static Deck standard() {
    DeckOptions options{.suits = {{"a", "1"}, {"b", "1"}, {"c", "2"}, {"d", "2"}}};
    for (int i = 1; i <= 13; ++i) options.ranks.push_back(std::to_string(i));
    return Deck(options);
  }

  Patience() {
    const Rule linked = rule::all({rule::same_colour(), rule::rank_down()});
    std::mt19937 random(11);
    std::vector<int> cards(52);
    for (int i = 0; i < 52; ++i) cards[static_cast<std::size_t>(i)] = i;
    std::shuffle(cards.begin(), cards.end(), random);
    const auto next = [&] {
      const int card = cards.back();
      cards.pop_back();
      return card;
    };
    ZoneSetup stock{.name = "stock", .layout = {.kind = PileLayout{}, .longest = 52}};
    ZoneSetup waste{.name = "waste",
                    .layout = {.kind = PileLayout{}, .longest = 52},
                    .rules = {.pick = {.kind = PickKind::top}}};
    const auto lay = [](ZoneSetup& zone, int card, bool face_up) {
      zone.cards.push_back({.face = {static_cast<std::uint32_t>(card + 1)}, .face_up = face_up});
    };
    std::vector<ZoneSetup> zones;
    for (int i = 0; i < columns; ++i) {
      zones.push_back(
          {.name = "column-" + std::to_string(i),
           .layout = {.kind = ColumnLayout{}, .longest = 20},
           .rules = {.pick = {.kind = PickKind::run, .link = linked},
                     .drop = rule::any({rule::all({rule::on_empty(), rule::at_most(3)}), linked})}});
      plain_columns.emplace_back();
      open.emplace_back();
      // Some covered, then a run of up to four, as it comes to be in mid-game.
      for (int k = 0; k < i / 2; ++k) {
        const int card = next();
        lay(zones.back(), card, false);
        plain_columns.back().push_back(card);
        open.back().push_back(false);
      }
      int card = next();
      for (;;) {
        lay(zones.back(), card, true);
        plain_columns.back().push_back(card);
        open.back().push_back(true);
        const auto on = std::find_if(cards.begin(), cards.end(),
                                     [&](int c) { return c / 26 == card / 26 && c % 13 == card % 13 - 1; });
        if (on == cards.end() || (open.back().size() + static_cast<std::size_t>(i)) % 4 == 3) break;
        card = *on;
        cards.erase(on);
      }
    }
    for (int i = 0; i < beds; ++i) {
      zones.push_back(
          {.name = "bed-" + std::to_string(i),
           .layout = {.kind = PileLayout{}, .longest = 13},
           .rules = {.pick = {.kind = PickKind::top},
                     .drop = rule::all(
                         {rule::at_most(1), rule::any({rule::rank_on_empty(0),
                                                       rule::all({rule::same_suit(), rule::rank_up()})})})}});
      plain_beds.emplace_back();
      const auto lowest = std::find(cards.begin(), cards.end(), i * 13);
      if (lowest == cards.end()) continue;
      lay(zones.back(), *lowest, true);
      plain_beds.back().push_back(*lowest);
      cards.erase(lowest);
    }
    for (int i = 0; i < pots; ++i) {
      zones.push_back({.name = "pot-" + std::to_string(i),
                       .rules = {.pick = {.kind = PickKind::top},
                                 .drop = rule::all({rule::on_empty(), rule::at_most(1)})}});
      plain_pots.emplace_back();
    }
    while (cards.size() > 4) {
      plain_stock.push_back(next());
      lay(stock, plain_stock.back(), false);
    }
    while (!cards.empty()) {
      plain_waste.push_back(next());
      lay(waste, plain_waste.back(), true);
    }
    const ZoneId from = setup.add(stock);
    const ZoneId to = setup.add(waste);
    setup.rules_of(from).stock = StockRule{.to = to};
    for (const ZoneSetup& zone : zones) setup.add(zone);
  }

  struct Step {
    int from, count, to;
  };
  /// What a game that knows its own rules by heart would write.
  void legal(std::vector<Step>& steps) const {
    steps.clear();
    const auto rank = [](int card) { return card % 13; };
    const auto follows = [&](int card, int below) {
      return card / 26 == below / 26 && rank(card) == rank(below) - 1;
    };
    const auto offer = [&](int from, int card, int count) {
      for (int c = 0; c < columns; ++c) {
        if (from == c) continue;
        const auto& to = plain_columns[static_cast<std::size_t>(c)];
        if (to.empty() ? count <= 3 : follows(card, to.back())) steps.push_back({from, count, c});
      }
      if (count > 1) return;
      for (int b = 0; b < beds; ++b) {
        const auto& to = plain_beds[static_cast<std::size_t>(b)];
        if (from == columns + b) continue;
        if (to.empty() ? rank(card) == 0 : card == to.back() + 1 && rank(card) > 0)
          steps.push_back({from, 1, columns + b});
      }
      for (int p = 0; p < pots; ++p) {
        if (plain_pots[static_cast<std::size_t>(p)].empty()) steps.push_back({from, 1, columns + beds + p});
      }
    };
    if (!plain_stock.empty() || !plain_waste.empty()) steps.push_back({-1, 0, -2});
    if (!plain_waste.empty()) offer(-2, plain_waste.back(), 1);
    for (int c = 0; c < columns; ++c) {
      const auto& pile = plain_columns[static_cast<std::size_t>(c)];
      for (std::size_t i = pile.size(); i-- > 0;) {
        if (!open[static_cast<std::size_t>(c)][i]) break;
        offer(c, pile[i], static_cast<int>(pile.size() - i));
        if (i == 0 || !follows(pile[i], pile[i - 1])) break;
      }
    }
    for (int b = 0; b < beds; ++b) {
      if (!plain_beds[static_cast<std::size_t>(b)].empty())
        offer(columns + b, plain_beds[static_cast<std::size_t>(b)].back(), 1);
    }
  }
};

void legal_moves_of_a_patience(benchmark::State& state) {
  const Patience patience;
  const Rulebook rules = patience.setup.rulebook();
  std::vector<Move> moves;
  for (auto _ : state) {
    find_legal_moves(patience.setup.table, rules, moves);
    benchmark::DoNotOptimize(moves.data());
  }
  state.counters["moves"] = static_cast<double>(moves.size());
}
void legal_moves_of_a_patience_plain(benchmark::State& state) {
  const Patience patience;
  std::vector<Patience::Step> steps;
  for (auto _ : state) {
    patience.legal(steps);
    benchmark::DoNotOptimize(steps.data());
    benchmark::ClobberMemory();
  }
  state.counters["moves"] = static_cast<double>(steps.size());
}

void legal_moves_of_a_table(benchmark::State& state) {
  const Patience patience;
  const Rulebook rules = patience.setup.rulebook();
  for (auto _ : state) benchmark::DoNotOptimize(legal_moves(patience.setup.table, rules).data());
}

BENCHMARK(legal_moves_of_a_patience)->Arg(52);
BENCHMARK(legal_moves_of_a_patience_plain)->Arg(52);
BENCHMARK(legal_moves_of_a_table)->Arg(52);

}  // namespace

int main(int argc, char** argv) { return apsidon::bench::run(argc, argv); }
