#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "apsidon/files/table_file.hpp"
#include "support/process.hpp"
#include "support/property.hpp"
#include "support/schema.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Two set-ups are the same in all that a file can say.
bool same(const TableSetup& a, const TableSetup& b) {
  return a.name == b.name && std::ranges::equal(a.layouts(), b.layouts()) &&
         std::ranges::equal(a.rulebook().zones, b.rulebook().zones) && a.plans == b.plans &&
         a.deal_from == b.deal_from && a.data == b.data && a.table.deck() == b.table.deck() &&
         write_table(a) == write_table(b);
}

void assert_same_cards(const Table& a, const Table& b) {
  RC_ASSERT(a.card_count() == b.card_count());
  RC_ASSERT(a.zones().size() == b.zones().size());
  for (const Zone& zone : a.zones()) {
    const Zone& other = *b.zone(zone.id);
    RC_ASSERT(zone.name == other.name && zone.key == other.key && zone.cards.size() == other.cards.size());
    for (std::size_t i = 0; i < zone.cards.size(); ++i) {
      const Card& x = *a.card(zone.cards[i]);
      const Card& y = *b.card(other.cards[i]);
      RC_ASSERT(x.face == y.face && x.key == y.key && x.face_up == y.face_up && x.sideways == y.sideways);
    }
  }
}

}  // namespace

TEST_CASE("files: the demo tables and their deck are read, and valid by their schemas") {
  const Schema table("table");
  const Schema deck("deck");
  int tables = 0;
  for (const auto& entry : std::filesystem::directory_iterator(source("data"))) {
    const std::string name = entry.path().filename().string();
    const bool is_table = name.ends_with(".table.json");
    if (!is_table && !name.ends_with(".deck.json")) continue;
    CAPTURE(name);
    CHECK((is_table ? table : deck).accepts(nlohmann::json::parse(contents(entry.path()))));
    if (is_table) {
      const auto setup = load_table(entry.path());
      REQUIRE(setup.has_value());
      CHECK_NOTHROW(check(*setup));
      ++tables;
    } else {
      CHECK(load_deck(entry.path()).has_value());
    }
  }
  CHECK(tables >= 2);
}

TEST_CASE("files: the potting bench is read as it is written") {
  const auto setup = load_table(source("data/potting-bench.table.json"));
  REQUIRE(setup.has_value());
  const Table& table = setup->table;
  CHECK(setup->name == "Potting bench");
  CHECK(table.card_count() == 52);
  CHECK(table.zones().size() == 15);
  CHECK(table.zones()[4].name == "column-1");
  CHECK(setup->deal_from == table.find_zone("stock"));
  CHECK(setup->data == R"({"passes_left": 1})");
  const Zone& column = *table.zone(*table.find_zone("column-3"));
  CHECK_FALSE(table.card(column.cards[1])->face_up);
  CHECK(table.deck().text(table.card(column.cards[2])->face) == "fern-10");
  CHECK(setup->plans.size() == 2);
}

TEST_CASE("files: reading what was written gives the same table, and the schema takes it") {
  const Schema schema("table");
  for_all("round trip", 3, [&](Random& r) {
    TableSetup setup = random_setup(r);
    setup.name = r.chance(0.5f) ? "A table \"with\" signs \\ and ümläuts" : "";
    if (r.chance(0.5f)) setup.data = R"({ "score":  [1, 2.50, "x"] })";
    if (r.chance(0.5f)) setup.deal_from = {1};
    const std::string text = write_table(setup);
    RC_ASSERT(schema.accepts(nlohmann::json::parse(text)));
    const auto read = parse_table(text, "x.table.json");
    if (!read) RC_FAIL(describe(read.error()[0]));
    RC_ASSERT(same(*read, setup));
    assert_same_cards(read->table, setup.table);
  });
}

TEST_CASE("files: what stands in the place of each zone of a group has the panels of the same number") {
  const std::string text = contents(source("docs/layouts/captions.table.json"));
  const auto setup = parse_table(text, source("docs/layouts/captions.table.json"), OtherFiles::anywhere);
  REQUIRE(setup.has_value());
  CHECK(Schema("table").accepts(nlohmann::json::parse(text)));
  const char* soils[] = {"clay", "loam", "sand", "peat", "chalk"};
  const Playfield field(*setup, {.window = {1000, 420}});
  for (int n = 1; n <= 5; ++n) {
    CAPTURE(n);
    const auto panel = [&](const char* name) { return *field.where().find_panel(name + std::to_string(n)); };
    CHECK(field.where().panels()[panel("soil-").value - 1].text == soils[n - 1]);
    CHECK(field.where().panels()[panel("water-").value - 1].text == "water " + std::to_string(n));
    const Rect above = *field.where().panel_area(panel("soil-"));
    const Rect bed = *field.where().area(*setup->table.find_zone("bed-" + std::to_string(n)));
    const Rect below = *field.where().panel_area(panel("water-"));
    CHECK(above.centre().x == Approx(bed.centre().x).margin(0.5));
    CHECK(below.centre().x == Approx(bed.centre().x).margin(0.5));
    CHECK(above.max.y <= bed.min.y);
    CHECK(below.min.y >= bed.max.y);
  }
}

TEST_CASE("files: a client's data is kept to the letter") {
  const std::string data = "{ \"mine\" :\n [1,  2.50, \"\\u00e4\"], \"zone\": null}";
  const std::string text = R"({"apsidon": "table", "version": 1, "data": )" + data +
                           R"(, "deck": {"suits": [{"name": "a", "colour": "b"}], "ranks": ["1"]},
                               "zones": [{"name": "z"}], "plans": [{"root": {"zone": "z"}}]})";
  const auto setup = parse_table(text, "x");
  REQUIRE(setup.has_value());
  CHECK(setup->data == data);
  CHECK(parse_table(write_table(*setup), "x")->data == data);
}

TEST_CASE("files: a deck is written and read again, its data kept") {
  const Deck deck = glasshouse(2);
  CHECK(*parse_deck(write_deck(deck), "x") == deck);
  const Deck rich({.suits = {{"a", "b"}},
                   .ranks = {"1", "2"},
                   .jokers = {{"moth", "b"}, {"bee", ""}},
                   .sets = {{.faces = {"a-1", "moth"}}, {.faces = {"a-2"}, .special = true}}});
  CHECK(*parse_deck(write_deck(rich), "x") == rich);
  CHECK(Schema("deck").accepts(nlohmann::json::parse(write_deck(rich))));
  const auto with = parse_deck(R"({"apsidon": "deck", "version": 1, "suits": [{"name": "a", "colour": "b"}],
                                   "ranks": ["1"], "data": {"artist":  "Ida"}})",
                               "x");
  REQUIRE(with.has_value());
  CHECK(with->options().data == R"({"artist":  "Ida"})");
  CHECK(*parse_deck(write_deck(*with), "x") == *with);
}

TEST_CASE(
    "files: the schema and the reader agree about a file that each of many small changes makes wrong or "
    "leaves right") {
  const Schema schema("table");
  const auto good = nlohmann::json::parse(contents(source("data/potting-bench.table.json")));
  int right = 0;
  int wrong = 0;
  for_all("schema and reader", 2, [&](Random& r) {
    nlohmann::json json = good;
    // One value, anywhere, is replaced, renamed or removed.
    std::vector<nlohmann::json::json_pointer> places;
    const nlohmann::json flat = json.flatten();
    for (const auto& [pointer, value] : flat.items()) places.emplace_back(pointer);
    const auto place = places[r.below(places.size())];
    const nlohmann::json values[] = {
        -1, 0, 2, 1.5, "", "1", "pile", true, nullptr, nlohmann::json::array(), nlohmann::json::object()};
    json[place] = values[r.below(11)];
    const bool read = parse_table(json.dump(), source("data/x.table.json")).has_value();
    const bool valid = schema.accepts(json);
    // The reader knows more: names, faces, places. So what it reads is valid; what is invalid is not read.
    if (read && !valid) RC_FAIL("read but not valid: " + place.to_string() + " = " + json[place].dump());
    ++(read ? right : wrong);
  });
  CHECK(right > 5);
  CHECK(wrong > 50);
}
