// A patience with rules of its own, played at random beside a plain model that knows nothing of the library:
// who lies where, which side shows, what may be done, and how the game stands, after every move. Once by the
// rules alone, on a table; once on a playfield, where the moves are made in every way there is.
#include <algorithm>
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "support/loop.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr int columns = 6;
constexpr int beds = 4;
constexpr int pots = 1;
constexpr int passes = 3;
constexpr int at_a_time = 2;

// The plain model: cards are numbers from 0 to 51, thirteen a suit, two suits a colour.

struct Lying {
  int card = 0;
  bool open = true;

  friend bool operator==(const Lying&, const Lying&) = default;
};
using Pile = std::vector<Lying>;

/// A run from a pile to another; from the stock: a draw, to the stock: the waste goes back.
struct Step {
  int from = 0;
  int count = 0;
  int to = 0;

  friend auto operator<=>(const Step&, const Step&) = default;
};

struct PatienceModel {
  static constexpr int stock = 0;
  static constexpr int waste = 1;
  static constexpr int first_pot = 2;
  static constexpr int first_column = first_pot + pots;
  static constexpr int first_bed = first_column + columns;
  static constexpr int piles_count = first_bed + beds;

  std::array<Pile, piles_count> piles;
  int gone_through = 0;

  static int rank(int card) { return card % 13; }
  static int suit(int card) { return card / 13; }
  static int colour(int card) { return card / 26; }
  static bool is_column(int pile) { return pile >= first_column && pile < first_bed; }
  static bool is_bed(int pile) { return pile >= first_bed; }
  static bool is_pot(int pile) { return pile >= first_pot && pile < first_column; }

  /// Columns build down within a colour.
  static bool follows(int card, int below) {
    return colour(card) == colour(below) && rank(card) == rank(below) - 1;
  }
  bool gives(int pile, int count) const {
    const Pile& from = piles[static_cast<std::size_t>(pile)];
    const auto n = static_cast<int>(from.size());
    if (count > n || pile == stock) return false;
    if (!is_column(pile)) return count == 1 && from.back().open;
    for (int i = n - count; i < n; ++i) {
      const Lying& lying = from[static_cast<std::size_t>(i)];
      if (!lying.open) return false;
      if (i > n - count && !follows(lying.card, from[static_cast<std::size_t>(i) - 1].card)) return false;
    }
    return true;
  }
  bool takes(int pile, int card, int count) const {
    const Pile& to = piles[static_cast<std::size_t>(pile)];
    if (is_pot(pile)) return to.empty() && count == 1;
    if (is_column(pile)) return to.empty() ? count <= 2 || rank(card) == 12 : follows(card, to.back().card);
    if (!is_bed(pile) || count != 1) return false;
    if (to.empty()) return rank(card) == 0;
    return suit(card) == suit(to.back().card) && rank(card) == rank(to.back().card) + 1;
  }
  std::vector<Step> legal() const {
    std::vector<Step> steps;
    if (!piles[stock].empty()) {
      steps.push_back({stock, 0, waste});
    } else if (!piles[waste].empty() && gone_through + 1 < passes) {
      steps.push_back({waste, 0, stock});
    }
    for (int from = 0; from < piles_count; ++from) {
      const Pile& pile = piles[static_cast<std::size_t>(from)];
      for (int count = 1; count <= static_cast<int>(pile.size()); ++count) {
        if (!gives(from, count)) continue;
        const int card = pile[pile.size() - static_cast<std::size_t>(count)].card;
        for (int to = 0; to < piles_count; ++to) {
          if (to != from && takes(to, card, count)) steps.push_back({from, count, to});
        }
      }
    }
    std::sort(steps.begin(), steps.end());
    return steps;
  }
  void make(const Step& step) {
    Pile& from = piles[static_cast<std::size_t>(step.from)];
    Pile& to = piles[static_cast<std::size_t>(step.to)];
    if (step.from == stock) {
      for (int i = 0; i < at_a_time && !from.empty(); ++i) {
        to.push_back({from.back().card, true});
        from.pop_back();
      }
    } else if (step.to == stock) {
      ++gone_through;
      for (; !from.empty(); from.pop_back()) to.push_back({from.back().card, false});
    } else {
      to.insert(to.end(), from.end() - step.count, from.end());
      from.erase(from.end() - step.count, from.end());
    }
    if (is_column(step.from) && !from.empty()) from.back().open = true;
  }
  bool won() const {
    std::size_t in_beds = 0;
    for (int bed = first_bed; bed < piles_count; ++bed)
      in_beds += piles[static_cast<std::size_t>(bed)].size();
    return in_beds == 52;
  }
};

// The same in the words of the library.

TableSetup patience(const PatienceModel& model) {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  const Rule linked = rule::all({rule::same_colour(), rule::rank_down()});
  const auto zone_named = [](const char* name, int i) { return name + std::string("-") + std::to_string(i); };
  ZoneId made = setup.add(
      {.name = "stock", .layout = {.kind = PileLayout{}, .longest = 52}, .recycled = model.gone_through});
  made = setup.add({.name = "waste",
                    .layout = {.kind = PileLayout{}, .longest = 52},
                    .rules = {.pick = {.kind = PickKind::top}}});
  setup.rules_of({1}).stock = StockRule{.to = made, .gives = {at_a_time}, .passes = passes};
  for (int i = 1; i <= pots; ++i) {
    made = setup.add({.name = zone_named("pot", i),
                      .rules = {.pick = {.kind = PickKind::top},
                                .drop = rule::all({rule::on_empty(), rule::at_most(1)})}});
  }
  for (int i = 1; i <= columns; ++i) {
    const Rule empty = rule::any({rule::all({rule::on_empty(), rule::at_most(2)}), rule::rank_on_empty(12)});
    made = setup.add({.name = zone_named("column", i),
                      .layout = {.kind = ColumnLayout{}, .longest = 20},
                      .rules = {.pick = {.kind = PickKind::run, .link = linked},
                                .drop = rule::any({empty, linked}),
                                .flips_uncovered = true},
                      .handling = {.double_tap = TapKind::send}});
  }
  for (int i = 1; i <= beds; ++i) {
    const Rule grows = rule::any({rule::rank_on_empty(0), rule::all({rule::same_suit(), rule::rank_up()})});
    made =
        setup.add({.name = zone_named("bed", i),
                   .layout = {.kind = PileLayout{}, .longest = 13},
                   .rules = {.pick = {.kind = PickKind::top}, .drop = rule::all({rule::at_most(1), grows})}});
  }
  setup.won = goal::all_in(setup.table.find_group("bed"));
  std::vector<PlanNode> nodes;
  for (const Zone& zone : setup.table.zones()) nodes.push_back(apsidon::zone(zone.id));
  setup.plans = {{.root = across(nodes)}};
  for (int pile = 0; pile < PatienceModel::piles_count; ++pile) {
    for (const Lying& lying : model.piles[static_cast<std::size_t>(pile)]) {
      const FaceId face = deck.face(PatienceModel::suit(lying.card), PatienceModel::rank(lying.card));
      setup.table.create_card({static_cast<std::uint32_t>(pile + 1)}, {.face = face, .face_up = lying.open});
    }
  }
  return setup;
}

PatienceModel dealt(Random& r) {
  std::vector<int> cards(52);
  for (int i = 0; i < 52; ++i) cards[static_cast<std::size_t>(i)] = i;
  for (std::size_t i = cards.size(); i > 1; --i) std::swap(cards[i - 1], cards[r.below(i)]);
  PatienceModel model;
  for (int column = 0; column < columns; ++column) {
    for (int i = 0; i <= column; ++i) {
      model.piles[static_cast<std::size_t>(PatienceModel::first_column + column)].push_back(
          {cards.back(), i == column});
      cards.pop_back();
    }
  }
  for (const int card : cards) model.piles[PatienceModel::stock].push_back({card, false});
  return model;
}

/// Nearly won, so that games are won, too: all but a few cards lie in their beds.
PatienceModel nearly_won(Random& r) {
  PatienceModel model;
  std::vector<int> left;
  for (int bed = 0; bed < beds; ++bed) {
    const int height = r.between(11, 13);
    for (int rank = 0; rank < 13; ++rank) {
      const int card = bed * 13 + rank;
      if (rank < height) {
        model.piles[static_cast<std::size_t>(PatienceModel::first_bed + bed)].push_back({card, true});
      } else {
        left.push_back(card);
      }
    }
  }
  for (const int card : left) {
    const bool column = r.chance(0.6f);
    model
        .piles[column ? static_cast<std::size_t>(
                            r.between(PatienceModel::first_column, PatienceModel::first_bed - 1))
                      : 0]
        .push_back({card, false});
  }
  for (int pile = PatienceModel::first_column; pile < PatienceModel::first_bed; ++pile) {
    Pile& column = model.piles[static_cast<std::size_t>(pile)];
    if (!column.empty()) column.back().open = true;
  }
  return model;
}

/// Late in a game that went badly, so that games are stuck, too: all but a few cards of the stock were seen
/// for the last time.
PatienceModel nearly_stuck(Random& r) {
  PatienceModel model = dealt(r);
  model.gone_through = passes - 1;
  while (model.piles[PatienceModel::stock].size() > 2)
    model.make({PatienceModel::stock, 0, PatienceModel::waste});
  return model;
}

Step step_of(const Move& move) {
  return {static_cast<int>(move.from.value) - 1, static_cast<int>(move.run.count),
          static_cast<int>(move.to.value) - 1};
}

void check_same(const PatienceModel& model, const Table& table, const std::vector<Move>& moves) {
  for (int pile = 0; pile < PatienceModel::piles_count; ++pile) {
    Pile lies;
    for (const CardId id : table.zones()[static_cast<std::size_t>(pile)].cards) {
      const Card& card = *table.card(id);
      lies.push_back({table.deck().suit_of(card.face) * 13 + table.deck().rank_of(card.face), card.face_up});
    }
    RC_ASSERT(lies == model.piles[static_cast<std::size_t>(pile)]);
  }
  std::vector<Step> steps;
  for (const Move& move : moves) steps.push_back(step_of(move));
  std::sort(steps.begin(), steps.end());
  RC_ASSERT(steps == model.legal());
}

Standing standing_of(const PatienceModel& model) {
  return model.won() ? Standing::won : model.legal().empty() ? Standing::stuck : Standing::open;
}

/// Rather to a bed than anywhere else, so that games come to their ends.
Move some_move(Random& r, const std::vector<Move>& moves) {
  for (const Move& move : moves) {
    const bool up = PatienceModel::is_bed(step_of(move).to) && !PatienceModel::is_bed(step_of(move).from);
    if (up && r.chance(0.7f)) return move;
  }
  return moves[r.below(moves.size())];
}

PatienceModel begun(Random& r) {
  return r.chance(0.4f) ? dealt(r) : r.chance(0.5f) ? nearly_won(r) : nearly_stuck(r);
}

}  // namespace

TEST_CASE("rules: two hundred games of a patience by the rules alone are those of a plain model") {
  int won = 0;
  int stuck = 0;
  for_all("patience by rules", 2, [&](Random& r) {
    PatienceModel model = begun(r);
    const TableSetup setup = patience(model);
    Table table = setup.table;
    const Rulebook rules = setup.rulebook();
    std::vector<Move> moves;
    for (int i = 0; i < 150; ++i) {
      find_legal_moves(table, rules, moves);
      check_same(model, table, moves);
      RC_ASSERT(apsidon::standing_of(table, rules) == standing_of(model));
      if (model.won() || moves.empty()) break;
      // What is not in the list is refused, and then nothing has changed.
      const Move wrong{
          .run = {{static_cast<std::uint32_t>(r.between(1, 52))}, static_cast<std::size_t>(r.between(1, 4))},
          .from = {static_cast<std::uint32_t>(r.between(1, PatienceModel::piles_count))},
          .to = {static_cast<std::uint32_t>(r.between(1, PatienceModel::piles_count))}};
      if (std::find(moves.begin(), moves.end(), wrong) == moves.end()) {
        const std::uint64_t before = table.revision();
        const MoveReport report = apply_move(table, rules, wrong);
        RC_ASSERT(!report.verdict.allowed() && report.steps.empty() && table.revision() == before);
      }
      const Move move = some_move(r, moves);
      const MoveReport report = apply_move(table, rules, move);
      RC_ASSERT(report.verdict.allowed() && !report.steps.empty());
      model.make(step_of(move));
    }
    won += model.won() ? 1 : 0;
    stuck += standing_of(model) == Standing::stuck ? 1 : 0;
  });
  CHECK(won > 0);
  CHECK(stuck > 0);
}

TEST_CASE("play: two hundred games of a patience on a playfield are those of a plain model") {
  int won = 0;
  int stuck = 0;
  for_all("patience on a playfield", 2, [&](Random& r) {
    PatienceModel model = begun(r);
    Playfield field(patience(model), {.window = {1400, 900}});
    std::vector<Event> told;
    const auto go = [&](double seconds) {
      for (Event& e : events_until(field, field.now() + seconds)) told.push_back(std::move(e));
    };
    const auto point = [&](PointerPhase phase, Vec2 at) {
      (void)field.pointer({.phase = phase, .at = at, .time = field.now() + 0.02});
      go(0.02);
    };
    int steps = 0;
    for (; steps < 100; ++steps) {
      check_same(model, field.table(), field.rules().legal_moves());
      const Standing stands = standing_of(model);
      if (steps > 0) RC_ASSERT(field.moves().standing() == stands);
      RC_ASSERT(count_of(EventKind::won, told) == (steps > 0 && stands == Standing::won ? 1 : 0));
      RC_ASSERT(count_of(EventKind::no_moves, told) == (steps > 0 && stands == Standing::stuck ? 1 : 0));
      if (stands != Standing::open) break;
      const std::vector<Move> moves = field.rules().legal_moves();
      const Move move = some_move(r, moves);
      const Step step = step_of(move);
      if (step.count > 0 && r.chance(0.4f)) {
        // By hand: from the visible part of the card to the middle of the other zone.
        go(field.time().settles_at() - field.now() + 0.1);
        const Vec2 from = field.where().resting_pose(move.run.first)->centre -
                          Vec2{0, field.where().card_size().height * (step.count > 1 ? 0.49f : 0.3f)};
        const Vec2 to = field.where().next_pose(move.to)->centre;
        if (field.where().hit(from).card != move.run.first) continue;
        point(PointerPhase::down, from);
        point(PointerPhase::move, from + Vec2{12, 0});
        point(PointerPhase::move, to + (from - field.where().resting_pose(move.run.first)->centre));
        point(PointerPhase::up, to + (from - field.where().resting_pose(move.run.first)->centre));
      } else {
        RC_ASSERT(field.moves().make(move).allowed());
      }
      go(double{r.uniform(0, 0.4f)});
      if (r.chance(0.15f)) {
        // One step of undo takes the move back with all that followed, and redo makes it again.
        RC_ASSERT(field.moves().undo().allowed());
        check_same(model, field.table(), field.rules().legal_moves());
        RC_ASSERT(field.moves().redo().allowed());
        std::erase_if(
            told, [](const Event& e) { return e.kind == EventKind::won || e.kind == EventKind::no_moves; });
        go(0.1);
      }
      model.make(step);
    }
    won += steps > 0 && model.won() ? 1 : 0;
    stuck += steps > 0 && standing_of(model) == Standing::stuck ? 1 : 0;
  });
  CHECK(won > 0);
  CHECK(stuck > 0);
}
