// Files from a stranger: too much of something, what is no file, and names that lead elsewhere. Nothing here
// takes longer or more memory than a good file of the same length; what that is worth, the test's own time
// limit shows.
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <fstream>
#include <thread>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/files/write_file.hpp"
#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "support/process.hpp"
#include "support/random.hpp"
#include "support/schema.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

const std::string small_deck =
    R"({"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2"], "copies": 9})";

/// A table of one zone, with more of its own.
std::string table_with(const std::string& more, const std::string& plan = R"({"zone": "a"})") {
  return R"({"apsidon": "table", "version": 1, "deck": )" + small_deck + R"(, "zones": [{"name": "a"}], )" +
         more + R"("plans": [{"root": )" + plan + "}]}";
}

std::string repeated(std::size_t count, const std::string& item, const std::string& between = ", ") {
  std::string out;
  for (std::size_t i = 0; i < count; ++i) out += (i > 0 ? between : "") + item;
  return out;
}

std::string refusal(const std::string& text) {
  const auto table = parse_table(text, "t.json");
  return table ? "" : describe(table.error()[0]);
}

}  // namespace

TEST_CASE("files: more of a thing than a table has is refused with the number") {
  CHECK(refusal(table_with(R"("panels": [)" + repeated(300'000, "1") + "], "))
            .find("300000 panels: at most 10000 are expected [too-many]") != std::string::npos);
  CHECK(refusal(table_with(R"("links": [)" + repeated(1'000'000, "1") + "], "))
            .find("1000000 links: at most 100000 are expected [too-many]") != std::string::npos);
  CHECK(refusal(table_with(R"("cards": {"a": [)" + repeated(most_cards + 1, R"("fern-1")") + "]}, "))
            .find("more than 100000 cards") != std::string::npos);
  CHECK(
      refusal(
          R"({"apsidon": "table", "version": 1, "deck": )" + small_deck +
          R"(, "zones": [{"name": "a", "repeat": 10000}, {"name": "b"}], "plans": [{"root": {"each": "a"}}]})")
          .find("more than 10000 zones") != std::string::npos);
  const std::string nodes =
      R"({"across": [{"zone": "a"}, )" + repeated(most_plan_nodes, R"({"space": 0})") + "]}";
  CHECK(refusal(table_with("", nodes)).find("more than 100000 nodes") != std::string::npos);
  // A short file that asks for many.
  const auto packs = [](const std::string& count) {
    return R"({"apsidon": "table", "version": 1, "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2"],
      "copies": 100000}, "zones": [{"name": "a"}], "plans": [{"root": {"zone": "a"}}], "cards": {"a": {"deck": {)" +
           count + "}}}}";
  };
  CHECK(parse_table(packs(""), "t.json")->table.card_count() == 2);
  CHECK(parse_table(packs(R"("packs": 50000)"), "t.json")->table.card_count() == 100'000);
  CHECK(refusal(packs(R"("packs": 50001)")).find("more than 100000 cards") != std::string::npos);
  CHECK(refusal(packs(R"("packs": 0)")).find("0: 1 to 100000 is expected") != std::string::npos);
  const auto beds = [&](const std::string& plan, int times) {
    return R"({"apsidon": "table", "version": 1, "deck": )" + small_deck +
           R"(, "zones": [{"name": "a", "repeat": 9000}], "plans": [)" +
           repeated(static_cast<std::size_t>(times), plan) + "]}";
  };
  CHECK(parse_table(beds(R"({"root": {"across": [{"each": "a"}]}})", 11), "t.json"));
  CHECK(refusal(beds(R"({"root": {"across": [{"each": "a"}]}})", 12)).find("more than 100000 nodes") !=
        std::string::npos);
  const std::string spaces = repeated(12, R"({"space": 0})");
  CHECK(refusal(
            beds(R"({"root": {"across": [{"each": "a", "as": {"down": [{"zone": "a"}, )" + spaces + "]}}]}}",
                 1))
            .find("more than 100000 nodes") != std::string::npos);
}

TEST_CASE("files: names that are too long, or would do more than be shown, are refused on one short line") {
  const std::string long_name(10'000'000, 'x');
  const std::string why = refusal(table_with(R"("cards": {")" + long_name + R"(": []}, )"));
  CHECK(why.size() < 2000);
  CHECK(why.find("unknown zone 'xxxx") != std::string::npos);
  CHECK(refusal(table_with(R"("panels": [{"name": ")" + std::string(201, 'y') + R"("}], )")).size() < 600);
  CHECK(refusal(table_with(R"("panels": [{"name": "a\u001b[31mred"}], )")).find("control character U+001B") !=
        std::string::npos);
  CHECK(refusal(table_with(R"("panels": [{"name": "a)"
                           "\xff"
                           R"("}], )"))
            .find("not JSON") != std::string::npos);
  // Told where it stands, for whichever thing it is.
  const std::string long_one(201, 'y');
  CHECK(refusal(table_with(R"("panels": [{"name": ")" + long_one + R"("}], )"))
            .find("/panels/0/name: the name: 201 bytes: at most 200 are expected [out-of-range]") !=
        std::string::npos);
  CHECK(refusal(table_with(R"("panels": [{"name": "a\u001b[31mred"}], )"))
            .find("/panels/0/name: the name: it has") != std::string::npos);
  // Cut short, longer than it need be, a half of a pair, beyond the last.
  for (const char* text :
       {"\xC3", "\xC0\x80", "\xC1\xBF", "\xE0\x9F\xBF", "\xED\xA0\x80", "\xF4\x90\x80\x80"})
    CHECK_THROWS_WITH(TableSetup(glasshouse()).add({.name = text}), Catch::Contains("not UTF-8"));
  CHECK_THROWS_WITH(TableSetup(glasshouse()).add({.name = std::string(201, 'z')}),
                    Catch::Contains("201 bytes"));
}

TEST_CASE(
    "files: a plan and a rule nested as deep as they may be are solved at once, deeper ones are refused") {
  const auto nested = [](int levels, const std::string& begin, const std::string& inner,
                         const std::string& end) {
    return repeated(static_cast<std::size_t>(levels), begin, "") + inner +
           repeated(static_cast<std::size_t>(levels), end, "");
  };
  const std::string deep = table_with("", nested(23, R"({"down": [)", R"({"zone": "a"})", "]}"));
  const auto table = parse_table(deep, "t.json");
  REQUIRE(table);
  Playfield field(*table, {.window = {700, 500}});
  CHECK(field.where().fits());
  CHECK(refusal(table_with("", nested(25, R"({"down": [)", R"({"zone": "a"})", "]}"))).find("24 levels") !=
        std::string::npos);
  const std::string rule = nested(30, R"({"not": )", R"("anything")", "}");
  CHECK(refusal(R"({"apsidon": "table", "version": 1, "deck": )" + small_deck +
                R"(, "zones": [{"name": "a", "drop": )" + rule + R"(}], "plans": [{"root": {"zone": "a"}}]})")
            .find("24 levels") != std::string::npos);
  Rule negated = rule::anything();
  for (int i = 0; i < 5'000; ++i)
    negated = Rule{.kind = RuleKind::negate, .by = SharedList<Rule>({std::move(negated)})};
  CHECK_THROWS_WITH(check(negated, glasshouse()), Catch::Contains("24 levels"));
  PlanNode plan = zone({1});
  for (int i = 0; i < 5'000; ++i) {
    std::vector<PlanNode> parts;
    parts.push_back(std::move(plan));
    plan = across(std::move(parts));
  }
  const ZoneLayout place;
  CHECK_THROWS_WITH(check(Plan{.root = std::move(plan)}, {&place, 1}), Catch::Contains("24 levels"));
}

TEST_CASE("files: long keys around many values take no memory of their own") {
  const std::string key(100'000, 'k');
  const std::string data = R"("data": {")" + key + R"(": [)" + repeated(300'000, "1") + "]}, ";
  const auto kilobytes = [] {
    rusage used{};
    getrusage(RUSAGE_SELF, &used);
    return used.ru_maxrss;
  };
  const long before = kilobytes();
  const auto table = parse_table(table_with(data), "t.json");
  REQUIRE(table);
  CHECK(table->data.size() > 900'000);
  CHECK(kilobytes() - before < 300'000);  // a place for each value would be 30 GB
}

TEST_CASE("files: brackets within a text are not nesting, also after a quote in it") {
  const std::string name = "\\\"" + std::string(80, '[') + "\\\\";
  const auto read = parse_table(table_with(R"("name": ")" + name + R"(", )"), "t.json");
  REQUIRE(read);
  CHECK(read->name == "\"" + std::string(80, '[') + "\\");
}

TEST_CASE("files: a byte order mark is passed over, and keys after it are still found twice") {
  const std::string mark = "\xEF\xBB\xBF";
  const auto table = parse_table(mark + table_with(R"("data": {"own": 1}, )"), "t.json");
  REQUIRE(table);
  CHECK(table->data == R"({"own": 1})");
  CHECK(refusal(mark + table_with(R"("name": "x", "name": "y", )")).find(":1:") != std::string::npos);
  CHECK(refusal(mark + table_with(R"("name": "x", "name": "y", )")).find("[repeated-key]") !=
        std::string::npos);
}

TEST_CASE("files: a client's data is kept to the letter, whatever its zones are called") {
  TableSetup setup(glasshouse());
  setup.add({.name = "verbatim 0"});
  setup.add({.name = "\"\": 0"});
  setup.plans = {{.root = across({zone({1}), zone({2})})}};
  setup.data = R"({ "": {"a" : [1,  2]}, "b": "\"\": 0" })";
  const auto again = parse_table(write_table(setup), "t.json");
  REQUIRE(again);
  CHECK(again->data == setup.data);
  CHECK(again->table.zones()[1].name == "\"\": 0");
  setup.data = "[]";
  CHECK_THROWS_WITH(write_table(setup), Catch::Contains("no JSON object"));
}

TEST_CASE("files: folders, pipes, devices and files without an end are refused with a sentence") {
  const Scratch scratch;
  const auto why = [&](const std::filesystem::path& file) {
    const auto read = read_file(file);
    return read ? std::string("read") : read.error()[0].message;
  };
  std::filesystem::create_directory(scratch / "folder");
  CHECK(why(scratch / "folder") == "this is a folder: a file is expected");
  REQUIRE(mkfifo((scratch / "pipe").c_str(), 0600) == 0);
  CHECK(why(scratch / "pipe") == "this is a pipe or a device: a file is expected");
  CHECK(why("/dev/zero") == "this is a pipe or a device: a file is expected");
  CHECK(why(scratch / "none") == "the file cannot be read: check its path and its permissions");
  std::ofstream(scratch / "sparse") << "x";
  REQUIRE(truncate((scratch / "sparse").c_str(), off_t{4} << 30) == 0);
  CHECK(why(scratch / "sparse").find("more than 67108864 bytes") != std::string::npos);
  std::filesystem::create_symlink("loop", scratch / "loop");
  CHECK(why(scratch / "loop") != "read");
  std::ofstream(scratch / "good") << "text";
  CHECK(*read_file(scratch / "good") == "text");
}

TEST_CASE("files: a table names a deck in its own folder or below, unless its reader allows more") {
  const Scratch scratch;
  std::filesystem::create_directories(scratch / "table/below");
  const auto put = [&](const std::string& name, const std::string& text) {
    std::ofstream(scratch / name) << text;
  };
  const std::string deck = R"({"apsidon": "deck", "version": 1, )" + small_deck.substr(1);
  put("secret.deck.json", deck);
  put("table/below/own.deck.json", deck);
  std::filesystem::create_symlink("../secret.deck.json", scratch / "table/link.deck.json");
  const auto named = [&](const std::string& name) {
    put("table/t.json", R"({"apsidon": "table", "version": 1, "deck": ")" + name +
                            R"(", "zones": [{"name": "a"}], "plans": [{"root": {"zone": "a"}}]})");
    const auto table = load_table(scratch / "table/t.json");
    return table ? std::string("read") : std::string(code_of(table.error()[0].code));
  };
  CHECK(named("below/own.deck.json") == "read");
  CHECK(named("../secret.deck.json") == "outside");
  CHECK(named("below/../../secret.deck.json") == "outside");
  CHECK(named((scratch / "secret.deck.json").string()) == "outside");
  CHECK(named("link.deck.json") == "outside");
  CHECK(named("/dev/zero") == "outside");
  CHECK(load_table(scratch / "table/t.json", OtherFiles::anywhere).error()[0].message.find("device") !=
        std::string::npos);
  (void)named("../secret.deck.json");
  CHECK(load_table(scratch / "table/t.json", OtherFiles::anywhere));
}

TEST_CASE("files: a file is written whole or not at all, and says why not") {
  const Scratch scratch;
  const auto entries = [&] {
    return std::distance(std::filesystem::directory_iterator(scratch / ""),
                         std::filesystem::directory_iterator());
  };
  const auto file = scratch / "f";
  write_file(file, "old");
  write_file(file, "new");
  CHECK(contents(file) == "new");
  CHECK(entries() == 1);
  // A disk that is full after so many bytes: the old file stays, and nothing beside it.
  rlimit before{};
  getrlimit(RLIMIT_FSIZE, &before);
  rlimit little = before;
  little.rlim_cur = 4096;
  const auto was = std::signal(SIGXFSZ, SIG_IGN);
  setrlimit(RLIMIT_FSIZE, &little);
  std::string refused;
  try {
    write_file(file, std::string(100'000, 'x'));
  } catch (const Error& e) {
    refused = e.what();
  }
  setrlimit(RLIMIT_FSIZE, &before);
  std::signal(SIGXFSZ, was);
  CHECK(refused.find("the file cannot be written: File too large") != std::string::npos);
  CHECK(contents(file) == "new");
  CHECK(entries() == 1);
  CHECK_THROWS_WITH(write_file(scratch / "none/f", "x"), Catch::Contains("No such file or directory"));
  CHECK_THROWS_WITH(write_file("/dev/full", "x"), Catch::Contains("No space left on device"));
  CHECK_THROWS_WITH(write_file(scratch / "", "x"), Catch::Contains("Is a directory"));
  // A link is followed, and what it was stays.
  std::filesystem::create_symlink("f", scratch / "link");
  write_file(scratch / "link", "through");
  CHECK(std::filesystem::is_symlink(scratch / "link"));
  CHECK(contents(file) == "through");
  std::filesystem::permissions(file, std::filesystem::perms::owner_all);
  write_file(file, "kept");
  CHECK(std::filesystem::status(file).permissions() == std::filesystem::perms::owner_all);
}

TEST_CASE("files: a writer that is interrupted or killed leaves one of the files whole") {
  const Scratch scratch;
  const auto file = scratch / "f";
  const std::string one(3'000'000, '1');
  const std::string two(2'000'000, '2');
  write_file(file, one);
  Random r(3);
  for (int i = 0; i < 30; ++i) {
    const int signal = i % 3 == 0 ? SIGKILL : i % 3 == 1 ? SIGINT : SIGTERM;
    // No signal comes to the writer before it has given back the handlers of the tests.
    sigset_t all, before;
    ::sigfillset(&all);
    ::pthread_sigmask(SIG_BLOCK, &all, &before);
    const pid_t writer = ::fork();
    REQUIRE(writer >= 0);
    if (writer == 0) {
      std::signal(SIGINT, SIG_DFL);
      std::signal(SIGTERM, SIG_DFL);
      ::pthread_sigmask(SIG_SETMASK, &before, nullptr);
      for (;;) {
        write_file(file, two);
        write_file(file, one);
      }
    }
    ::pthread_sigmask(SIG_SETMASK, &before, nullptr);
    std::this_thread::sleep_for(std::chrono::microseconds(500 + r.below(20'000)));
    ::kill(writer, signal);
    int status = 0;
    REQUIRE(::waitpid(writer, &status, 0) == writer);
    CHECK((WIFSIGNALED(status) && WTERMSIG(status) == signal));
    const std::string is = contents(file);
    CHECK((is == one || is == two));
    // Of one that is killed between two calls of the system a name may be left; of an interrupt none.
    const auto entries = std::distance(std::filesystem::directory_iterator(scratch / ""),
                                       std::filesystem::directory_iterator());
    if (signal == SIGKILL) {
      for (const auto& entry : std::filesystem::directory_iterator(scratch / "")) {
        if (entry.path() != file) std::filesystem::remove(entry.path());
      }
    } else {
      CHECK(entries == 1);
    }
  }
}

TEST_CASE("files: a million faces in sets, suits and ranks by the thousand are looked up at once") {
  DeckOptions options{.name = "many"};
  for (int i = 0; i < 1000; ++i) {
    const std::string n = std::to_string(i);
    options.suits.push_back({std::string("s").append(n), std::string("c").append(n)});
    options.ranks.push_back(std::string("r").append(n));
  }
  options.jokers.push_back({"moth", ""});
  FaceSet all;
  for (int s = 0; s < 1000; ++s) {
    for (int r = 0; r < 999; ++r)
      all.faces.push_back(std::string("s").append(std::to_string(s)).append("-r").append(std::to_string(r)));
  }
  options.sets.push_back(all);
  const Deck deck(options);
  CHECK(deck.belong_together(*deck.find("s0-r0"), *deck.find("s999-r998")));
  CHECK_FALSE(deck.belong_together(*deck.find("s0-r0"), *deck.find("s999-r999")));
  options.suits.back() = {"s0", "c"};
  CHECK_THROWS_WITH(Deck(options), Catch::Contains("suit 's0' is named twice"));
}

TEST_CASE("files: data of zones, cards and panels is kept to the letter, whatever numbers the cards have") {
  const std::string deck = R"("deck": {"apsidon": "deck", "version": 1, "backs": "by-suit",
      "suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"], "data": {"d":  1}})";
  const std::string text = R"({"apsidon": "table", "version": 1, )" + deck + R"(, "zones": [
      {"name": "bed", "repeat": 2, "data": {"price" : 1.50}}, {"name": "a"}],
      "panels": [{"name": "p", "repeat": 2, "data": {"data": {"data": []}}}, {"name": "q"}],
      "cards": {"bed-2": [{"face": "fern-3", "data": { "no":[1e3] }}, "fern-1"], "a": [{"face": "fern-2", "data": {}}]},
      "plans": [{"root": {"across": [{"each": "bed"}, {"zone": "a"}]}}], "data": {"t": "}"}})";
  CHECK(Schema("table").accepts(nlohmann::json::parse(text)));
  const auto table = parse_table(text, "t.json");
  REQUIRE(table.has_value());
  const auto check = [](const TableSetup& setup) {
    const Table& t = setup.table;
    const ZoneId bed = *t.find_zone("bed-2");
    CHECK(setup.data == R"({"t": "}"})");
    CHECK(setup.table.deck().options().data == R"({"d":  1})");
    CHECK(setup.table.deck().options().suit_backs);
    CHECK(setup.zone_data.at(bed) == R"({"price" : 1.50})");
    CHECK(setup.zone_data.size() == 2);
    CHECK(setup.card_data.at(t.zone(bed)->cards[0]) == R"({ "no":[1e3] })");
    CHECK(setup.card_data.at(t.zone(*t.find_zone("a"))->cards[0]) == "{}");
    CHECK(setup.panels[1].data == R"({"data": {"data": []}})");
    CHECK(setup.panels[2].data.empty());
  };
  check(*table);
  const auto again = parse_table(write_table(*table), "t.json");
  REQUIRE(again.has_value());
  check(*again);
  // With other numbers, as in the middle of a game.
  TableSetup later = *table;
  const std::vector<CardId> ids{{9}, {4}, {7}};
  std::map<CardId, std::string> moved;
  for (const auto& [card, data] : later.card_data) moved[ids[card.value - 1]] = data;
  cards_detail::give_ids(later.table, ids, {20});
  later.card_data = moved;
  const auto numbered = parse_table(write_table(later), "t.json");
  REQUIRE(numbered.has_value());
  check(*numbered);
  CHECK(write_table(*numbered) == write_table(later));
  later.panels[0].data = "[1]";
  CHECK_THROWS_AS(write_table(later), Error);
}

TEST_CASE("files: a value of none of its forms is told all of them") {
  const auto told = [](const std::string& zones, const std::string& cards, const std::string& root) {
    const auto read =
        parse_table(R"({"apsidon": "table", "version": 1, "deck": {"suits": [{"name": "fern",
      "colour": "green"}], "ranks": ["1"]}, "zones": [)" +
                        zones + R"(], "cards": )" + cards + R"(, "plans": [{"root": )" + root + "}]}",
                    "t.json");
    return read ? std::string("read") : read.error()[0].message;
  };
  const auto of_zone = [&](const std::string& more) {
    std::string zone = R"({"name": "a", )";
    zone.append(more).append("}");
    return told(zone, "{}", R"({"zone": "a"})");
  };
  CHECK(of_zone(R"("longest": "many")") ==
        "the text \"many\": a number, or an object with 'covered' and 'open', is expected");
  CHECK(of_zone(R"("layout": 3)") ==
        "the number 3: the name of a layout, or an object with its 'kind', is expected");
  CHECK(of_zone(R"("pick": 3)") == "the number 3: a word, or an object with 'cards' or 'run', is expected");
  CHECK(of_zone(R"("drop": {"all": [], "any": []})") ==
        "an object: a rule, a word or an object with exactly one key, is expected");
  CHECK(of_zone(R"("flick_to": 3)") ==
        "the number 3: a zone, or an object with zones by the direction, is expected");
  CHECK(of_zone(R"("data": 3)") == "an object is expected: it belongs to the client");
  const std::string zone = R"({"name": "a"})";
  CHECK(told(zone, R"({"a": "fern-1"})", R"({"zone": "a"})") ==
        "the text \"fern-1\": an array of open cards, or an object with 'covered', 'open' or 'deck', is "
        "expected");
  CHECK(told(zone, R"({"a": [1]})", R"({"zone": "a"})") ==
        "the number 1: a face, or an object with a 'face', is expected");
  CHECK(told(zone, "{}", R"({"across": [{"zone": "a"}], "gap": "wide"})") ==
        "the text \"wide\": a number of card widths, or an object with 'cards' and 'px', is expected");
  CHECK(told(zone, "{}", "[]") ==
        "an array: an object with one of 'across', 'down', 'zone' and the like is expected");
  const auto deck =
      parse_table(R"({"apsidon": "table", "version": 1, "deck": [], "zones": [], "plans": []})", "t.json");
  CHECK(deck.error()[0].message ==
        "an array: the name of a deck file, or an object with the deck itself, is expected");
  const auto pasted = parse_table(
      R"({"apsidon": "table", "version": 1, "deck": {"apsidon": "art", "version": 1}, "zones": [], "plans": []})",
      "t");
  CHECK(pasted.error()[0].message == "the text \"art\": \"deck\" is expected");
  const auto whole = parse_table(R"({"apsidon": "table", "version": 1, "deck": {"suits": [{"name": "fern",
      "colour": "green"}], "ranks": ["1"]}, "zones": [{"name": "a"}], "plans": [{"whole_multiples": true,
      "root": {"zone": "a"}}]})",
                                 "t.json");
  CHECK(whole.error()[0].message.find("\"art\": {\"width\", \"height\"} is expected") != std::string::npos);
}
