// The four games, played to their ends by a mouse, by keys alone and by a finger alone; and every session
// replayed from its log.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "games/strategies.hpp"
#include "support/process.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;
using games::Means;

namespace {

const char* name_of(Means means) {
  return means == Means::mouse ? "mouse" : means == Means::touch ? "touch" : "keys";
}

TableSetup setup_of(const std::string& name) {
  auto setup = load_table(source("data/" + name + "-start.table.json"));
  REQUIRE(setup.has_value());
  return *std::move(setup);
}

/// Plays, looks away before the end and after it, and replays the log: through the file format, into a fresh
/// game.
template <class Game, class Play>
std::string check_game(const std::string& table, std::uint64_t seed, Means means, Play play) {
  CAPTURE(table, seed, name_of(means));
  const TableSetup setup = setup_of(table);
  Game game(setup, seed);
  games::Player player(game, means);
  player.settle();
  player.look_away(3);
  play(game, player);
  CAPTURE(game.score());
  REQUIRE(game.over());

  // Coming back to a finished game restarts nothing.
  player.wait(8);
  const std::string score = game.score();
  const auto told = game.told().size();
  const auto lies = contents_of(game.field().table());
  player.look_away(30);
  player.wait(30);
  CHECK(game.score() == score);
  CHECK(game.told().size() == told);
  CHECK(contents_of(game.field().table()) == lies);

  // Table and log are enough: what the game did is in the log, and the game is not asked again.
  const InputLog log{.options = game.options(), .table = fingerprint(game.setup()), .inputs = game.log()};
  const auto read = parse_log(write_log(log, game.setup()), "log", game.setup());
  if (!read) FAIL(describe(read.error()[0]));
  CHECK(*read == log);
  const auto begun = parse_table(write_table(game.setup()), "table");
  if (!begun) FAIL(describe(begun.error()[0]));
  CHECK(fingerprint(*begun) == log.table);
  Playfield again(*begun, read->options);
  std::vector<Event> told_again;
  const auto hear = [&](const Event& event) { told_again.push_back(event); };
  CHECK(replay(again, read->inputs, player.now(), hear) == 0);
  while (const auto event = again.next_event(player.now())) hear(*event);
  for (std::size_t i = 0; i < std::min(told_again.size(), game.told().size()); ++i) {
    if (told_again[i] == game.told()[i]) continue;
    FAIL("the log says " << event_line(told_again[i], again.table()) << ", the session "
                         << event_line(game.told()[i], again.table()));
  }
  CHECK(told_again.size() == game.told().size());
  CHECK((contents_of(again.table()) == lies));
  CHECK((again.frame().items == game.field().frame().items));
  return score;
}

}  // namespace

TEST_CASE("examples: the potting bench is cleared by mouse, keys and finger, and a log replays it") {
  const TableSetup setup = setup_of("potting-bench");
  for (const Means means : {Means::mouse, Means::keys, Means::touch}) {
    for (const std::uint64_t seed : {4u, 76u, 252u}) {
      const std::string score = check_game<games::PottingBench>(
          "potting-bench", seed, means,
          [&](auto& game, auto& player) { games::play(game, player, setup.rulebook()); });
      CHECK(score == "52 of 52 cards in the beds");
    }
  }
}

TEST_CASE("examples: all seeds of the drawer are found by mouse, keys and finger, and a log replays it") {
  for (const Means means : {Means::mouse, Means::keys, Means::touch}) {
    for (const std::uint64_t seed : {1u, 2u, 3u}) {
      const std::string score = check_game<games::SeedDrawer>(
          "seed-drawer", seed, means, [](auto& game, auto& player) { games::play(game, player); });
      CHECK(score.starts_with("10 of 10 sets found, "));
    }
  }
}

TEST_CASE(
    "examples: a turn at the market is taken back with what the others did in it, and may be made again") {
  games::MarketStall game(setup_of("market-stall"), 12);
  games::Player player(game, Means::mouse);
  player.settle();
  const auto before = contents_of(game.field().table());
  const std::string score = game.score();
  REQUIRE(score == "you sold 0, the others 0");
  const std::vector<Move> moves = game.field().rules().legal_moves();
  const ZoneId compost = *game.field().table().find_zone("compost");
  const auto sale = std::find_if(moves.begin(), moves.end(), [&](const Move& m) { return m.to != compost; });
  REQUIRE(sale != moves.end());
  for (int again = 0; again < 2; ++again) {
    REQUIRE(player.move(sale->run.first, sale->to));
    player.settle();
    CHECK(game.score().starts_with("you sold 1, the others "));
    REQUIRE(player.tap(*game.field().where().find_panel("undo")));
    player.settle();
    CHECK(game.score() == score);
    CHECK((contents_of(game.field().table()) == before));
    CHECK(game.field().gate().is_open());
  }
}

TEST_CASE("examples: what ended a game is taken back by the box that says so") {
  games::Trellis game(setup_of("trellis"), 1);
  games::Player player(game, Means::touch);
  games::play(game, player);
  REQUIRE(game.over());
  REQUIRE_FALSE(game.won());
  player.wait(2);
  const PanelId box = *game.field().where().find_panel("over");
  CHECK_FALSE(game.field().switches().is_hidden(box));
  REQUIRE(player.tap(*game.field().where().find_panel("back")));
  player.wait(2);
  CHECK_FALSE(game.over());
  CHECK(game.field().switches().is_hidden(box));
  CHECK(game.field().table().zone(*game.field().table().find_zone("hand"))->cards.size() == 5);
}

TEST_CASE(
    "examples: the drawer has five columns in a tall window and six in a wide one, also when it is turned") {
  const auto columns = [](const games::SeedDrawer& game) {
    std::set<long> places;
    const Table& table = game.field().table();
    for (const CardId card : table.zone(*table.find_zone("drawer"))->cards)
      places.insert(std::lround(game.field().where().resting_pose(card)->centre.x));
    return places.size();
  };
  games::SeedDrawer game(setup_of("seed-drawer"), 3, {.window = {390, 844}});
  games::Player player(game, Means::touch);
  player.settle();
  CHECK(columns(game) == 5);
  const float tall = game.field().where().card_size().width;
  CHECK(tall > 56);
  game.field().resize({1280, 800}, 1, player.now() + 0.1);
  player.wait(1);
  player.settle();
  CHECK(columns(game) == 6);
  games::play(game, player);
  CHECK(game.won());
}

TEST_CASE("examples: the drawer ends when daylight runs out, once, and stays ended") {
  for (const std::uint64_t seed : {5u, 6u, 7u}) {
    const std::string score =
        check_game<games::SeedDrawer>("seed-drawer", seed, Means::mouse, [](auto& game, auto& player) {
          const auto& drawer = game.field().table().zone(*game.field().table().find_zone("drawer"))->cards;
          player.tap(drawer.front());
          player.wait(200);
        });
    CHECK(score == "0 of 10 sets found, 0 seconds of daylight left");
  }
}

// What is played does not depend on the means.
TEST_CASE("examples: at the market the whole hand is sold or composted by mouse, keys and finger") {
  for (const std::uint64_t seed : {11u, 12u, 13u}) {
    std::set<std::string> scores;
    for (const Means means : {Means::mouse, Means::keys, Means::touch}) {
      scores.insert(check_game<games::MarketStall>(
          "market-stall", seed, means, [](auto& game, auto& player) { games::play(game, player); }));
    }
    CHECK(scores.size() == 1);
  }
}

TEST_CASE("examples: the trellis is filled, or no card fits any more, by mouse, keys and finger") {
  for (const std::uint64_t seed : {1u, 2u, 3u}) {
    std::set<std::string> scores;
    for (const Means means : {Means::mouse, Means::keys, Means::touch}) {
      scores.insert(check_game<games::Trellis>("trellis", seed, means,
                                               [](auto& game, auto& player) { games::play(game, player); }));
    }
    CHECK(scores.size() == 1);
  }
}
