#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>

#include "support/process.hpp"

using namespace apsidon::test;

namespace {

/// A card as `place` tells it, drawn here by arithmetic of the test's own: a rounded box, turned.
struct Laid {
  std::string card;
  std::string zone;
  double x, y, turned, width, height;

  [[nodiscard]] bool covers(double px, double py) const {
    const double dx = px - x;
    const double dy = py - y;
    const double a = -turned * 3.14159265358979 / 180;
    const double u = std::abs(dx * std::cos(a) - dy * std::sin(a));
    const double v = std::abs(dx * std::sin(a) + dy * std::cos(a));
    const double radius = 0.07 * width;
    if (u >= width / 2 || v >= height / 2) return false;
    const double cu = u - (width / 2 - radius);
    const double cv = v - (height / 2 - radius);
    return cu <= 0 || cv <= 0 || cu * cu + cv * cv < radius * radius;
  }
};

std::vector<Laid> placed(const std::string& table) {
  std::vector<Laid> cards;
  const auto lines = lines_of(tool({"place", table, "--format", "csv"}).out);
  REQUIRE(lines.size() > 1);
  for (std::size_t i = 1; i < lines.size(); ++i) {
    const auto c = cells_of(lines[i]);
    cards.push_back({c[2], c[0], std::stod(c[5]), std::stod(c[6]), std::stod(c[7]),
                     std::stod(c[8]) * std::stod(c[9]), std::stod(c[8]) * std::stod(c[10])});
  }
  return cards;
}

struct Visible {
  double x = 0, y = 0;
  int points = 0;
};

/// Of each card that can be seen, the visible point that is nearest to the middle of all its visible points.
std::map<std::string, Visible> visible_middles(const std::vector<Laid>& cards) {
  std::map<std::string, std::vector<std::pair<double, double>>> seen;
  for (double y = 0.5; y < 800; y += 2) {
    for (double x = 0.5; x < 1280; x += 2) {
      for (std::size_t i = cards.size(); i-- > 0;) {
        if (!cards[i].covers(x, y)) continue;
        seen[cards[i].card].push_back({x, y});
        break;
      }
    }
  }
  std::map<std::string, Visible> middles;
  for (const auto& [card, points] : seen) {
    double mx = 0;
    double my = 0;
    for (const auto& [x, y] : points) {
      mx += x / static_cast<double>(points.size());
      my += y / static_cast<double>(points.size());
    }
    Visible best{.points = static_cast<int>(points.size())};
    double least = 1e9;
    for (const auto& [x, y] : points) {
      const double d = std::hypot(x - mx, y - my);
      if (d < least) best = {x, y, best.points}, least = d;
    }
    middles[card] = best;
  }
  return middles;
}

nlohmann::json probe(const std::string& table, double x, double y) {
  const auto outcome =
      tool({"probe", table, "--at", std::to_string(x) + "," + std::to_string(y), "--format", "json"});
  auto json = nlohmann::json::parse(outcome.out);
  CHECK(outcome.code == (json["hit"] == "nothing" ? 1 : 0));
  return json;
}

void check_every_visible_card(const std::string& table, std::size_t at_least) {
  const auto cards = placed(table);
  std::size_t checked = 0;
  for (const auto& [card, middle] : visible_middles(cards)) {
    if (middle.points < 25) continue;  // the edges of cards deep in a pile
    const auto found = probe(table, middle.x, middle.y);
    CAPTURE(card, middle.x, middle.y, found.dump());
    CHECK(found["hit"] == "card");
    CHECK(std::to_string(found.value("card", 0)) == card);
    ++checked;
  }
  CHECK(checked >= at_least);
}

}  // namespace

TEST_CASE("tool: probe at the middle of the visible part of every visible card gives that card") {
  check_every_visible_card("data/potting-bench.table.json", 41);
  check_every_visible_card("data/market-stall.table.json", 11);
}

TEST_CASE("tool: in a hand the card above wins where two overlap") {
  const std::string table = "data/market-stall.table.json";
  const auto cards = placed(table);
  int overlaps = 0;
  for (std::size_t i = 1; i < cards.size(); ++i) {
    if (cards[i].zone != "hand" || cards[i - 1].zone != "hand") continue;
    const double x = (cards[i].x + cards[i - 1].x) / 2;
    const double y = (cards[i].y + cards[i - 1].y) / 2;
    if (!cards[i].covers(x, y) || !cards[i - 1].covers(x, y)) continue;
    ++overlaps;
    CHECK(std::to_string(probe(table, x, y).value("card", 0)) == cards[i].card);
  }
  CHECK(overlaps == 8);
}

TEST_CASE("tool: probe at an empty zone gives the zone, outside of all nothing") {
  const auto json =
      nlohmann::json::parse(tool({"place", "data/potting-bench.table.json", "--format", "json"}).out);
  int empty = 0;
  for (const auto& zone : json["zones"]) {
    if (!zone["cards"].empty()) continue;
    ++empty;
    const double x = (double{zone["area"][0]} + double{zone["area"][2]}) / 2;
    const double y = (double{zone["area"][1]} + double{zone["area"][3]}) / 2;
    const auto found = probe("data/potting-bench.table.json", x, y);
    CHECK(found["hit"] == "zone");
    CHECK(found["zone"] == zone["zone"]);
  }
  CHECK(empty == 2);
  CHECK(probe("data/potting-bench.table.json", 2, 2)["hit"] == "nothing");
  CHECK(probe("data/potting-bench.table.json", -5000, 9e9)["hit"] == "nothing");
}

TEST_CASE("tool: probe tells a person what may be picked up, and why not") {
  const auto stock = tool({"probe", "data/potting-bench.table.json", "--at", "79,96"});
  CHECK(stock.code == 0);
  CHECK(stock.out.find("Stock gives no cards by hand. [pick-nothing]") != std::string::npos);
  const auto run = tool({"probe", "data/potting-bench.table.json", "--at", "370,50"});
  CHECK(run.out.find("at 370,50 lies poppy-9 (card ") == 0);
  CHECK(run.out.find("it may be picked up, with the 3 on it") != std::string::npos);
  const auto csv =
      lines_of(tool({"probe", "data/potting-bench.table.json", "--at", "370,50", "--format", "csv"}).out);
  REQUIRE(csv.size() == 2);
  CHECK(csv[1].find("card,column-2,0,") == 0);
  CHECK(run.out.find("a card held here would come to lie at place 0 of column-2") != std::string::npos);
}

TEST_CASE(
    "tool: place lists the panels, the facing and how far a zone is scrolled, and probe finds the panels") {
  const std::string table = "data/market-stall.table.json";
  const auto json = nlohmann::json::parse(tool({"place", table, "--format", "json"}).out);
  CHECK(json["zones"][5]["facing"] == "left");
  CHECK(json["zones"][5]["offset"] == 0);
  REQUIRE(json["panels"].size() == 6);
  for (const auto& panel : json["panels"]) {
    const auto& area = panel["area"];
    const auto found =
        probe(table, (double{area[0]} + double{area[2]}) / 2, (double{area[1]} + double{area[3]}) / 2);
    CHECK(found["hit"] == "panel");
    CHECK(found["panel"] == panel["panel"]);
    const std::string said =
        tool({"probe", table, "--at",
              std::to_string(area[0].get<int>() + 2) + "," + std::to_string(area[1].get<int>() + 3)})
            .out;
    CHECK(said.find("at " + std::to_string(area[0].get<int>() + 2) + "," +
                    std::to_string(area[1].get<int>() + 3) + " lies the panel " +
                    panel["panel"].get<std::string>()) == 0);
  }
  CHECK(tool({"probe", potting_bench, "--at", "240,600"})
            .out.rfind("at 240,600 lies no card; it is in the area of column-1", 0) == 0);
  const std::string text = tool({"place", table}).out;
  CHECK(text.find("facing left") != std::string::npos);
  CHECK(text.find("wish-1       panel      area ") != std::string::npos);
  CHECK(tool({"place", table, "--zone", "hand"}).out.find("panel") == std::string::npos);
}
