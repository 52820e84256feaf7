// Three games with numbers, turns and moves of their own, each against a plain model: live, on a bare table,
// undone, redone, saved and loaded. APSIDON_GAMES says how many hundreds of each are played: 34 are more than
// 10,000 in all.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <map>

#include "apsidon/files/saved_game.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// What a game is without any of this: lists of cards, and numbers.
struct Plain {
  std::vector<std::vector<CardId>> zones = {};
  std::map<std::string, int> numbers = {};
  std::size_t turn = 0;  // of the seats, from 0

  CardId take(std::size_t zone) {
    const CardId card = zones[zone].back();
    zones[zone].pop_back();
    return card;
  }
  void take(std::size_t zone, CardId card) { std::erase(zones[zone], card); }
};

/// A table with its model: `follow` does to the model what a move does.
struct Game {
  TableSetup setup{glasshouse()};
  Plain plain = {};

  Game() = default;
  Game(const Game&) = delete;
  Game& operator=(const Game&) = delete;
  virtual ~Game() = default;
  /// All moves that the model knows, as the lowest card and the zone; for a named move: no card.
  [[nodiscard]] virtual std::vector<std::pair<CardId, std::size_t>> moves() const = 0;
  virtual void follow(CardId card, std::size_t to) = 0;

  [[nodiscard]] int rank(CardId card) const {
    return setup.table.deck().rank_of(setup.table.card(card)->face);
  }
  [[nodiscard]] int suit(CardId card) const {
    return setup.table.deck().suit_of(setup.table.card(card)->face);
  }
  [[nodiscard]] std::size_t zone_of(CardId card) const {
    const auto has = [&](const auto& zone) {
      return std::find(zone.begin(), zone.end(), card) != zone.end();
    };
    return static_cast<std::size_t>(std::find_if(plain.zones.begin(), plain.zones.end(), has) -
                                    plain.zones.begin());
  }
  /// Deals cards of the lowest ranks to these zones, and begins the model with them.
  void deal(Random& r, std::size_t cards, const std::vector<ZoneId>& to, bool face_up = true) {
    std::vector<FaceId> faces;
    for (const FaceId face : setup.table.deck().faces()) {
      if (setup.table.deck().rank_of(face) < 5) faces.push_back(face);
    }
    Random64 random(r.below(1u << 31));
    shuffle(std::span(faces), random);
    faces.resize(std::min(cards, faces.size()));
    for (std::size_t i = 0; i < faces.size(); ++i)
      setup.table.create_card(to[i % to.size()], {.face = faces[i], .face_up = face_up});
    plain.zones.clear();
    for (const Zone& zone : setup.table.zones()) plain.zones.push_back(zone.cards);
  }
  void arrange() {
    std::vector<PlanNode> nodes;
    for (const Zone& zone : setup.table.zones()) nodes.push_back(apsidon::zone(zone.id));
    setup.plans = {{.root = across(nodes)}};
  }
};

Edit number(std::string name, int value, const NumberOwner& of = {}) {
  return {.kind = EditKind::set_number,
          .card = of.card,
          .zone = of.zone,
          .name = std::move(name),
          .value = value,
          .seat = of.seat};
}

/// Pairs are sold as a consequence, and the stalls are dealt again twice.
struct Market final : Game {
  std::vector<ZoneId> stalls;

  explicit Market(Random& r) {
    for (int i = 0; i < 4; ++i) {
      stalls.push_back(setup.add({.name = "stall-" + std::to_string(i),
                                  .layout = {.kind = ColumnLayout{}, .longest = 20},
                                  .rules = {.pick = {.kind = PickKind::top},
                                            .drop = rule::any({rule::same_rank(), rule::on_empty()})}}));
    }
    const ZoneId sold = setup.add({.name = "sold", .layout = {.kind = PileLayout{}, .longest = 20}});
    setup.consequences = {
        {.in = stalls, .cards = 2, .link = rule::same_rank(), .to = sold, .counts = "pairs"}};
    setup.named_moves = {
        {.name = "redeal",
         .when = rule::number("redeals", Compared::at_least, 1),
         .does = [stalls = stalls](const FollowQuestion& q) {
           std::vector<Edit> out{number("redeals", q.table.number("redeals") - 1)};
           std::vector<CardId> cards;
           for (const ZoneId stall : stalls)
             cards.insert(cards.end(), q.table.zone(stall)->cards.begin(), q.table.zone(stall)->cards.end());
           for (std::size_t i = 0; i < cards.size(); ++i)
             out.push_back({.kind = EditKind::move, .run = {cards[i], 1}, .zone = stalls[i % stalls.size()]});
           return out;
         }}};
    (void)setup.table.set_number("redeals", 2);
    plain.numbers = {{"redeals", 2}};
    setup.won = goal::when(rule::number({"cards", sold}, Compared::at_least, 14));
    deal(r, 14, stalls);
    arrange();
  }
  std::vector<std::pair<CardId, std::size_t>> moves() const override {
    std::vector<std::pair<CardId, std::size_t>> out;
    for (std::size_t from = 0; from < 4; ++from) {
      for (std::size_t to = 0; to < 4; ++to) {
        if (from == to || plain.zones[from].empty()) continue;
        if (plain.zones[to].empty() || rank(plain.zones[to].back()) == rank(plain.zones[from].back()))
          out.emplace_back(plain.zones[from].back(), to);
      }
    }
    if (plain.numbers.at("redeals") > 0) out.emplace_back(CardId{}, 0);
    return out;
  }
  void follow(CardId card, std::size_t to) override {
    if (card) {
      plain.zones[to].push_back(plain.take(zone_of(card)));
    } else {
      --plain.numbers["redeals"];
      std::vector<CardId> all;
      for (std::size_t i = 0; i < 4; ++i) {
        all.insert(all.end(), plain.zones[i].begin(), plain.zones[i].end());
        plain.zones[i].clear();
      }
      // Each card moves by itself: those that stay in their stall lie below those that come.
      std::vector<std::vector<CardId>> now(4);
      redealt(all, now);
      for (std::size_t i = 0; i < 4; ++i) plain.zones[i] = now[i];
    }
    for (bool again = true; again;) {
      again = false;
      for (std::size_t i = 0; i < 4; ++i) {
        auto& stall = plain.zones[i];
        if (stall.size() < 2 || rank(stall.back()) != rank(stall[stall.size() - 2])) continue;
        plain.zones[4].insert(plain.zones[4].end(), stall.end() - 2, stall.end());
        stall.resize(stall.size() - 2);
        ++plain.numbers["pairs"];
        again = true;
      }
    }
  }
  /// One card after the other goes on top.
  void redealt(const std::vector<CardId>& all, std::vector<std::vector<CardId>>& now) const {
    for (std::size_t i = 0; i < all.size(); ++i) now[i % 4].push_back(all[i]);
  }
};

/// Four seats lay a card each; the suit of the first is asked for, and its highest card takes the four.
struct Tricks final : Game {
  std::vector<SeatId> seats;
  std::vector<ZoneId> hands, boxes;
  ZoneId bench;

  explicit Tricks(Random& r) {
    for (const char* name : {"south", "west", "north", "east"}) {
      seats.push_back(setup.table.create_seat(name));
      hands.push_back(setup.add({.name = std::string("hand-") + name,
                                 .layout = {.kind = HandLayout{}, .longest = 5},
                                 .rules = {.pick = {.kind = PickKind::any,
                                                    .when = rule::all({rule::on_turn(), rule::own_zone()}),
                                                    .covered = true}},
                                 .seat = seats.back()}));
    }
    for (const SeatId seat : seats)
      boxes.push_back(setup.add({.name = "box-" + std::to_string(seat.value),
                                 .layout = {.kind = PileLayout{}, .longest = 20},
                                 .seat = seat}));
    bench = setup.add({.name = "bench",
                       .layout = {.kind = SpreadLayout{}, .longest = 4},
                       .rules = {.drop = rule::own("follow suit")}});
    setup.bind("follow suit", [this](const RuleQuestion& q) {
      const auto& laid = q.table.zone(bench)->cards;
      const auto& hand = q.table.zone(q.from)->cards;
      const auto fits = [&](CardId card) { return suit(card) == suit(laid[0]); };
      return laid.empty() || fits(q.card) || std::none_of(hand.begin(), hand.end(), fits) ? Verdict{}
                                                                                          : q.refuse();
    });
    setup.consequences = {{.name = "sweep", .follow = [this](const FollowQuestion& q) { return sweep(q); }}};
    (void)setup.table.set_turn(std::vector{seats[0]});
    setup.won = goal::when(rule::all({rule::number({"cards", hands[0]}, Compared::equal, 0),
                                      rule::number({"cards", bench}, Compared::equal, 0)}));
    deal(r, 20, hands, false);
    arrange();
  }
  std::vector<Edit> sweep(const FollowQuestion& q) const {
    const auto& laid = q.table.zone(bench)->cards;
    if (laid.empty() || q.steps.back().kind == MoveStep::Kind::turn_passed) return {};
    const std::size_t now = q.table.turn()[0].value - 1;
    std::vector<Edit> out{{.kind = EditKind::flip, .card = laid.back(), .on = true}};
    std::size_t next = (now + 1) % 4;
    if (laid.size() == 4) {
      std::size_t best = 0;
      for (std::size_t i = 1; i < 4; ++i) {
        if (suit(laid[i]) == suit(laid[0]) && rank(laid[i]) > rank(laid[best])) best = i;
      }
      next = (now + 1 + best) % 4;
      out.push_back({.kind = EditKind::move, .run = {laid[0], 4}, .zone = boxes[next]});
      out.push_back(number("points", q.table.number("points", seats[next]) + 1, seats[next]));
    }
    out.push_back({.kind = EditKind::set_turn, .seats = {seats[next]}});
    return out;
  }
  std::vector<std::pair<CardId, std::size_t>> moves() const override {
    std::vector<std::pair<CardId, std::size_t>> out;
    const auto& hand = plain.zones[plain.turn];
    const auto& laid = plain.zones[8];
    const bool could = std::any_of(hand.begin(), hand.end(),
                                   [&](CardId card) { return !laid.empty() && suit(card) == suit(laid[0]); });
    for (const CardId card : hand) {
      if (!could || suit(card) == suit(laid[0])) out.emplace_back(card, 8);
    }
    return out;
  }
  void follow(CardId card, std::size_t) override {
    auto& laid = plain.zones[8];
    plain.take(plain.turn, card);
    laid.push_back(card);
    plain.turn = (plain.turn + 1) % 4;
    if (laid.size() < 4) return;
    CardId best = laid[0];
    for (const CardId other : laid) {
      if (suit(other) == suit(laid[0]) && rank(other) > rank(best)) best = other;
    }
    const auto at = static_cast<std::size_t>(std::find(laid.begin(), laid.end(), best) - laid.begin());
    plain.turn = (plain.turn + at) % 4;
    plain.zones[4 + plain.turn].insert(plain.zones[4 + plain.turn].end(), laid.begin(), laid.end());
    ++plain.numbers["points of " + std::to_string(plain.turn + 1)];
    laid.clear();
  }
};

/// Beds wear what is planted, and points are paid for it; what is worn out is composted, and seeds again.
struct Beds final : Game {
  std::vector<ZoneId> beds;
  ZoneId hand;

  explicit Beds(Random& r) {
    for (int i = 0; i < 3; ++i) {
      beds.push_back(
          setup.add({.name = "bed-" + std::to_string(i),
                     .layout = {.kind = ColumnLayout{}, .longest = 30},
                     .rules = {.pick = {.kind = PickKind::top},
                               .drop = rule::number({"cards", NumberOf::zone}, Compared::at_most, 3)},
                     .numbers = {{"rain", i}}}));
    }
    hand = setup.add({.name = "hand",
                      .layout = {.kind = HandLayout{}, .longest = 30},
                      .rules = {.pick = {.kind = PickKind::any}}});
    setup.badges = {{"worn"}};
    setup.consequences = {{.name = "rain", .follow = [this](const FollowQuestion& q) -> std::vector<Edit> {
                             if (q.steps.front().kind != MoveStep::Kind::moved ||
                                 q.steps.back().kind == MoveStep::Kind::counted)
                               return {};
                             const CardId card = q.steps.front().card;
                             const int worn =
                                 q.table.number("worn", card) + q.table.number("rain", q.steps.front().to);
                             const int points = q.table.number("points") + 1;
                             if (worn < 4) return {number("worn", worn, card), number("points", points)};
                             return {{.kind = EditKind::remove, .card = card},
                                     {.kind = EditKind::create,
                                      .zone = hand,
                                      .made = {.face = q.table.card(card)->face, .numbers = {{"worn", 1}}}},
                                     number("points", points)};
                           }}};
    deal(r, 9, {hand});
    arrange();
  }
  std::vector<std::pair<CardId, std::size_t>> moves() const override {
    std::vector<std::pair<CardId, std::size_t>> out;
    for (std::size_t from = 0; from < 4; ++from) {
      for (const CardId card : plain.zones[from]) {
        if (from < 3 && card != plain.zones[from].back()) continue;
        for (std::size_t to = 0; to < 3; ++to) {
          if (to != from && plain.zones[to].size() <= 3) out.emplace_back(card, to);
        }
      }
    }
    return out;
  }
  void follow(CardId card, std::size_t to) override {
    plain.take(zone_of(card), card);
    plain.zones[to].push_back(card);
    ++plain.numbers["points"];
    int& worn = plain.numbers["worn " + std::to_string(card.value)];
    worn += static_cast<int>(to);
    if (worn < 4) return;
    worn = 0;
    plain.zones[to].pop_back();
    const CardId made{++last_};
    plain.zones[3].push_back(made);
    plain.numbers["worn " + std::to_string(made.value)] = 1;
  }
  std::uint32_t last_ = 9;
};

/// The table as the model has it.
std::string text_of(const Table& table) {
  std::string out;
  const auto add = [&](const std::string& name, int value) {
    if (value != 0) out += name + "=" + std::to_string(value) + " ";
  };
  for (const Zone& zone : table.zones()) {
    out += "|";
    for (const CardId card : zone.cards) out += " " + std::to_string(card.value);
  }
  for (const char* name : {"pairs", "points", "redeals"}) add(name, table.number(name));
  for (const Seat& seat : table.seats())
    add("points of " + std::to_string(seat.id.value), table.number("points", seat.id));
  for (std::uint32_t id = 1; id <= table.last_id().value; ++id)
    add("worn " + std::to_string(id), table.number("worn", CardId{id}));
  for (const SeatId seat : table.turn()) out += "turn " + std::to_string(seat.value);
  return out;
}

std::string text_of(const Plain& plain, const Table& table) {
  std::string out;
  for (const auto& zone : plain.zones) {
    out += "|";
    for (const CardId card : zone) out += " " + std::to_string(card.value);
  }
  const auto add = [&](const std::string& name) {
    const auto it = plain.numbers.find(name);
    if (it != plain.numbers.end() && it->second != 0) out += name + "=" + std::to_string(it->second) + " ";
  };
  for (const char* name : {"pairs", "points", "redeals"}) add(name);
  for (std::size_t i = 1; i <= 4; ++i) add("points of " + std::to_string(i));
  for (std::uint32_t id = 1; id <= table.last_id().value; ++id) add("worn " + std::to_string(id));
  if (!table.seats().empty()) out += "turn " + std::to_string(plain.turn + 1);
  return out;
}

void play(Game& game, Random& r) {
  const PlayfieldOptions options{.window = {900, 700}};
  SavedGame saved{.setup = game.setup, .log = {.options = options}};
  Playfield field(game.setup, options);
  field.set_recorder(saved.recorder());
  Table bare = game.setup.table;
  const Rulebook rules = game.setup.rulebook();
  std::vector<std::string> states{text_of(bare)};
  for (int i = 0; i < 30; ++i) {
    const auto known = game.moves();
    const auto moves = legal_moves(bare, rules);
    RC_ASSERT(moves.size() == known.size());
    if (known.empty()) break;
    const auto [card, to] = known[r.below(known.size())];
    Move move{.kind = MoveKind::named, .named = 0};
    if (card) move = {.run = {card, 1}, .from = bare.card(card)->zone, .to = bare.zones()[to].id};
    RC_ASSERT(std::count(moves.begin(), moves.end(), move) == 1);
    game.follow(card, to);
    RC_ASSERT(apply_move(bare, rules, move).verdict.allowed());
    RC_ASSERT(field.moves().make(move).allowed());
    RC_ASSERT(text_of(field.table()) == text_of(bare));
    RC_ASSERT(text_of(game.plain, bare) == text_of(bare));
    states.push_back(text_of(bare));
    field.advance_to(field.now() + r.uniform(0, 0.5f));
    if (i % 10 != 9) continue;
    const std::size_t back = 1 + r.below(states.size() - 1);
    for (std::size_t n = 1; n <= back; ++n) {
      RC_ASSERT(field.moves().undo().allowed());
      RC_ASSERT(text_of(field.table()) == states[states.size() - 1 - n]);
    }
    for (std::size_t n = back; n > 0; --n) {
      RC_ASSERT(field.moves().redo().allowed());
      RC_ASSERT(text_of(field.table()) == states[states.size() - n]);
    }
    const auto loaded = parse_game(write_game(saved, field), "x");
    RC_ASSERT(loaded.has_value());
    RC_ASSERT(fingerprint(loaded->field) == fingerprint(field));
    RC_ASSERT(text_of(loaded->field.table()) == text_of(bare));
  }
}

/// So many games of each kind; a property is tried a hundred times.
int games() {
  const char* stated = std::getenv("APSIDON_GAMES");
  return stated ? std::max(std::atoi(stated), 1) : 2;
}

}  // namespace

TEMPLATE_TEST_CASE("play: a game with numbers, turns and moves of its own goes as its plain model has it", "",
                   Market, Tricks, Beds) {
  for_all("counted games", games(), [](Random& r) {
    TestType game(r);
    play(game, r);
  });
}
