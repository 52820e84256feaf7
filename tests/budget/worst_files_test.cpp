// The worst files that a generator can think of stay within what docs/limits.md promises: read, laid out,
// judged, checked and written, or refused with the place and the sum.
#include <fmt/format.h>

#include <algorithm>
#include <apsidon/apsidon.hpp>
#include <apsidon/files/input_log.hpp>
#include <apsidon/files/table_file.hpp>
#include <apsidon/play/replay.hpp>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <string>

#include "budget/counting.hpp"

using namespace apsidon;
using namespace apsidon::test;
using Json = nlohmann::json;

namespace {

// A second is more than 1,000,000,000 of these steps with optimisation; what a table of no length costs is
// that of a megabyte.
constexpr double steps_of_megabyte = 850e6;
constexpr double bytes_of_megabyte = 200e6;

Json table_of(Json zone) {
  zone["name"] = "a";
  if (!zone.contains("repeat") && !zone.contains("formation")) zone["repeat"] = 10'000;
  return {
      {"apsidon", "table"},
      {"version", 1},
      {"deck",
       {{"suits", {{{"name", "fern"}, {"colour", "green"}}}}, {"ranks", {"1", "2"}}, {"copies", 100'000}}},
      {"zones", {zone}},
      {"plans", {{{"root", {{"across", {{{"each", "a"}}}}}}}}}};
}

Json times(const Json& what, std::size_t n) { return Json(std::vector<Json>(n, what)); }

/// A stranger would say it so.
std::string used_log(const std::string& lines) {
  Json table = table_of({{"repeat", 20}});
  for (int i = 1; i <= 20; ++i) table["cards"][fmt::format("a-{}", i)] = times("fern-1", 5);
  const TableSetup setup = *parse_table(table.dump(), "t.json");
  const auto log =
      parse_log("{\"apsidon\":\"input-log\",\"version\":1,\"window\":[900,600]}\n" + lines, "l.log", setup);
  if (!log) return describe(log.error().front());
  Playfield field(setup, log->options);
  std::size_t events = 0;
  (void)replay(field, log->inputs, 1e9, [&](const Event&) { ++events; });
  (void)write_log(*log, setup);
  return "";
}

/// Reads the table, and if it is accepted asks everything of it.
void use(const std::string& text, std::string& refused) {
  const auto setup = parse_table(text, "worst.json");
  if (!setup) {
    refused = describe(setup.error().front());
    return;
  }
  Playfield field(*setup);
  (void)field.frame();
  (void)field.rules().legal_moves();
  (void)field.next_event(1);
  for (const Zone& zone : field.table().zones()) {
    if (zone.cards.empty()) continue;
    (void)field.moves().send_to_best(zone.cards.back());
    break;
  }
  while (field.next_event(5)) {
  }
  const Playfield snapshot = field;
  (void)write_table(*setup);
}

/// What came of it: "" when it was accepted.
std::string used_within_budget(const std::string& name, const Json& table) {
  const std::string text = table.dump();
  std::string refused;
  const Cost cost = cost_of([&] { use(text, refused); });
  const double megabytes = std::max(1.0, static_cast<double>(text.size()) / 1e6);
  INFO(name << ": " << text.size() << " bytes took " << cost.steps << " steps and " << cost.bytes / 1000
            << " kB; " << refused);
  CHECK(static_cast<double>(cost.steps) < megabytes * steps_of_megabyte);
  CHECK(static_cast<double>(cost.bytes) < megabytes * bytes_of_megabyte);
  return refused;
}

}  // namespace

TEST_CASE("budget: what a short file multiplies is shared, or refused with the sum and the place") {
  const auto is_refused = [](const std::string& name, const Json& table, const std::string& sum) {
    const std::string refused = used_within_budget(name, table);
    CHECK_THAT(refused, Catch::Contains("worst.json:1:") && Catch::Contains("/zones/0: ") &&
                            Catch::Contains(sum) && Catch::Contains("down to here: at most"));
  };
  is_refused("all send to all", table_of({{"sends_to", {"a"}}}), "100030000 parts of rules");
  Json names = Json::array();
  for (int i = 1; i <= 10'000; ++i) names.push_back(fmt::format("a-{}", i));
  is_refused("all send to all by name", table_of({{"sends_to", names}}), "100030000 parts of rules");
  Json stocks = table_of({{"repeat", 9'999}, {"stock", {{"to", "w"}, {"gives", times(1, 1'000)}}}});
  stocks["zones"].push_back({{"name", "w"}});
  is_refused("stocks of many passes", stocks, "10028997 parts of rules");
  is_refused("long data", table_of({{"data", {{"x", std::string(100'000, 'y')}}}}),
             "1000080000 bytes of text that is repeated");
  is_refused("all hold as many as there are", table_of({{"longest", 100'000}}),
             "1000000000 cards that zones hold at their longest");
}

TEST_CASE("budget: the worst that is accepted stays within the budget") {
  const auto is_used = [](const std::string& name, const Json& table) {
    CHECK(used_within_budget(name, table) == "");
  };
  is_used("nothing", table_of({{"repeat", 1}}));
  is_used("many zones", table_of(Json::object()));
  is_used("a shared rule", table_of({{"drop", {{"any", times("rank-down", 35)}}}, {"pick", "any"}}));
  const Json any{{"any", times("rank-down", 10)}};
  is_used("alternatives that multiply", table_of({{"drop", {{"all", {any, any, any}}}}}));
  is_used("shared targets", table_of({{"repeat", 600}, {"sends_to", {"a"}}}));
  is_used("shared data", table_of({{"data", {{"x", std::string(1'500, 'y')}}}}));
  is_used("long columns", table_of({{"longest", 1'000}, {"layout", "column"}}));

  Json cards = table_of({{"drop", {{"any", times({{"from", {"a-1"}}}, 15)}}}, {"pick", "any"}});
  for (int i = 1; i <= 10'000; ++i) cards["cards"][fmt::format("a-{}", i)] = times("fern-1", 8);
  is_used("a card for nobody", cards);
  cards["zones"][0]["drop"] = {{"not", "anything"}};
  cards["zones"][0]["takes_itself"] = true;
  is_used("all take", cards);
  cards["zones"][0].erase("takes_itself");
  cards["zones"][0]["drop"] = "anything";
  cards["finish"]["into"] = {"a"};
  is_used("all may go home", cards);

  Json deck = table_of({{"drop", "rank-down"}, {"pick", {{"run", {{"any", times("rank-up", 30)}}}}}});
  deck["cards"]["a-1"]["deck"] = {{"packs", 50'000}, {"open", true}};
  is_used("a deck of all cards", deck);
}

TEST_CASE("budget: the worst logs are replayed within the budget, or refused with the sum and the line") {
  const auto cost_of_log = [](const std::string& name, int lines, const auto& line,
                              const std::string& refusal) {
    std::string text;
    for (int i = 0; i < lines; ++i) text += line(i) + "\n";
    std::string refused;
    const Cost cost = cost_of([&] { refused = used_log(text); });
    const double megabytes = std::max(1.0, static_cast<double>(text.size()) / 1e6);
    INFO(name << ": " << text.size() << " bytes took " << cost.steps << " steps and " << cost.bytes / 1000
              << " kB; " << refused);
    CHECK(static_cast<double>(cost.steps) < megabytes * steps_of_megabyte);
    CHECK(static_cast<double>(cost.bytes) < megabytes * bytes_of_megabyte);
    CHECK(refusal.empty() == refused.empty());
    CHECK_THAT(refused, Catch::Contains(refusal));
  };
  cost_of_log(
      "touches", 10'000,
      [](int i) {
        return fmt::format(R"({{"pointer":"down","id":{},"kind":"touch","at":[{},300],"time":{}}})", i + 1,
                           i % 900, i * 1e-3);
      },
      "");
  cost_of_log(
      "performances", 10'000,
      [](int i) {
        return fmt::format(R"({{"perform":{{"act":"wait","seconds":{}}},"time":0.5}})", 1 + i * 1e-4);
      },
      "");
  cost_of_log(
      "snapshots", 10'000,
      [](int i) { return fmt::format(R"({{"restore":{},"taken_at":0,"time":{}}})", i / 2, i * 1e-3); }, "");
  const std::string table = table_of(Json::object()).dump();
  cost_of_log(
      "new tables", 30,
      [&](int i) {
        return Json{{"start_over", table}, {"time", i}}.dump();
      },
      "400000");
  cost_of_log(
      "rules of a zone", 30'000,
      [](int i) {
        return fmt::format(R"({{"behaviour":"a-1","as":{{"sends_to":["a"]}},"time":{}}})", i * 1e-3);
      },
      "400000");
}

TEST_CASE(
    "budget: rules have so many parts, zones hold so many cards, texts are repeated so often, and not once "
    "more") {
  const auto refusal = [](const Json& table) {
    const auto setup = parse_table(table.dump(), "t.json");
    return setup ? std::string() : describe(setup.error().front());
  };
  const auto parts = [](std::size_t n) { return Json{{"any", times("rank-down", n - 1)}}; };
  CHECK(refusal(table_of({{"repeat", 1}, {"drop", parts(1'000)}})) == "");
  CHECK_THAT(refusal(table_of({{"repeat", 1}, {"drop", parts(1'001)}})),
             Catch::Contains("1001 parts") && Catch::Contains("at most 1000"));
  // Each zone has two more: what it picks up by.
  CHECK(refusal(table_of({{"repeat", 400}, {"drop", parts(998)}})) == "");
  CHECK_THAT(refusal(table_of({{"repeat", 401}, {"drop", parts(998)}})), Catch::Contains("at most 400000"));
  CHECK(refusal(table_of({{"repeat", 100}, {"longest", 100'000}})) == "");
  CHECK_THAT(refusal(table_of({{"repeat", 101}, {"longest", 100'000}})), Catch::Contains("at most 10000000"));
  const auto data = [](std::size_t bytes) { return Json{{"x", std::string(bytes - 8, 'y')}}; };  // {"x":"…"}
  CHECK(refusal(table_of({{"repeat", 1'024}, {"data", data(16'384)}})) == "");
  CHECK_THAT(refusal(table_of({{"repeat", 1'025}, {"data", data(16'384)}})),
             Catch::Contains("at most 16777216"));

  // In code, too.
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1"}}));
  std::vector<PlanNode> nodes;
  const Rule drop = rule::any(std::vector<Rule>(997, rule::rank_down()));
  for (int i = 0; i < 400; ++i)
    nodes.push_back(zone(setup.add({.name = fmt::format("a{}", i), .rules = {.drop = drop}})));
  setup.plans = {{.root = across(nodes)}};
  CHECK_NOTHROW(check(setup));
  nodes.push_back(zone(setup.add({.name = "one more"})));
  setup.plans = {{.root = across(nodes)}};
  CHECK_THROWS_WITH(check(setup), Catch::Contains("400003 parts: at most 400000"));
}

TEST_CASE("budget: what is asked of rules ends at 20,000,000 parts, and then nobody is stuck") {
  // 100,000 cards, none of which goes to any of 1,000 zones; each has to be asked.
  Json table = table_of({{"repeat", 1'000},
                         {"pick", "any"},
                         {"drop", {{"all", {{{"not", "nothing"}}, {{"from", {"a-1"}}}, "nothing"}}}}});
  table["cards"]["a-1"]["deck"] = {{"packs", 50'000}, {"open", true}};
  const TableSetup setup = *parse_table(table.dump(), "t.json");
  std::size_t asked = 0;
  Rulebook rules = setup.rulebook();
  rules.asked = &asked;
  CHECK(legal_moves(setup.table, rules).empty());
  CHECK(asked > 20'000'000);
  CHECK(asked < 20'100'000);
  CHECK(any_legal_move(setup.table, setup.rulebook()));
  CHECK(standing_of(setup.table, setup.rulebook()) == Standing::open);
}

TEST_CASE("budget: what follows from a move ends at 20,000,000 parts, and a table has so many consequences") {
  // Two send a pair to and fro without end, and 998 look for one everywhere.
  Json table = table_of({{"repeat", 1'000}, {"pick", "any"}, {"drop", "anything"}});
  table["cards"]["a-1"]["deck"] = {{"packs", 1}, {"open", true}};
  table["cards"]["a-5"]["deck"] = {{"packs", 1}, {"open", true}};
  const auto to_and_fro = [](const char* from, const char* to) {
    return Json{{"in", {from}}, {"cards", 2}, {"to", to}};
  };
  table["consequences"] = times({{"cards", 2}, {"link", "nothing"}, {"to", "a-3"}}, 1'000);
  table["consequences"][0] = to_and_fro("a-1", "a-2");
  table["consequences"][1] = to_and_fro("a-2", "a-1");
  const TableSetup setup = *parse_table(table.dump(), "t.json");
  std::size_t asked = 0;
  Rulebook rules = setup.rulebook();
  rules.asked = &asked;
  Table moved = setup.table;
  const CardId card = moved.zone({5})->cards.back();
  CHECK(apply_move(moved, rules, {.run = {card, 1}, .from = {5}, .to = {6}}).verdict.allowed());
  CHECK(asked > 20'000'000);
  CHECK(asked < 20'100'000);
  table["consequences"].push_back(to_and_fro("a-1", "a-2"));
  CHECK_THAT(describe(parse_table(table.dump(), "t.json").error()[0]),
             Catch::Contains("1001 consequences: at most 1000 are expected [too-many]"));
  // What they list counts with the rules of zones: 1,000 zones with three parts each.
  table["consequences"] = times({{"in", {"a"}}, {"sum", 3}, {"to", "w"}}, 397);
  table["zones"].push_back({{"name", "w"}, {"off_table", "top"}});
  CHECK_THAT(describe(parse_table(table.dump(), "t.json").error()[0]), Catch::Contains("at most 400000"));
  table["consequences"].erase(0);
  CHECK(parse_table(table.dump(), "t.json").has_value());
}

TEST_CASE(
    "budget: a replay keeps a snapshot until it was gone back to, 1,000 at most of 300,000 cards and zones") {
  Json table = table_of({{"repeat", 299}});
  table["cards"]["a-1"]["deck"] = {{"packs", 1}, {"open", true}};  // two cards: 301 in all
  const TableSetup setup = *parse_table(table.dump(), "t.json");
  const auto missed = [&](int count, bool at_once) {
    std::vector<Input> log;
    const auto blur = [&](int at) { log.push_back(BlurInput{.time = at * 1e-3}); };
    const auto back = [&](int to, double time) {
      const Json line{{"time", time}, {"restore", to}, {"taken_at", at_once ? (to - 1) * 1e-3 : 0.0}};
      log.push_back(*parse_input(line.dump(), setup));
    };
    if (at_once) {
      for (int i = 0; i < count; ++i) blur(i);
      for (int i = 1; i <= count; ++i) back(i, 10 + i * 1e-3);
    } else {
      for (int i = 0; i < count; ++i) back(2 * i, 0), blur(0);
    }
    Playfield field(setup);
    return replay(field, log, 100, [](const Event&) {});
  };
  CHECK(missed(996, true) == 0);  // 299,796 cards and zones
  CHECK(missed(997, true) == 1);
  CHECK(missed(3'000, false) == 0);  // each goes before the next comes
}
